"""Commands for the pages and the club’s file."""

from argparse import Namespace


def serve(asked: Namespace) -> int:
    """Serve the pages."""
    from lovrit.web.serve import serve as run

    return run(asked.host, asked.port, demo=False, fresh=False)


def check(_asked: Namespace) -> int:
    """Look through the club's file and say what is wrong with it."""
    from lovrit.web.serve import check as look_through

    return look_through()


def demo(asked: Namespace) -> int:
    """Serve the pages with the demo club."""
    from lovrit.web.serve import serve as run

    return run(None, asked.port, demo=True, fresh=asked.fresh)
