"""Commands for the pages and the club’s file."""

from argparse import Namespace
from pathlib import Path


def serve(asked: Namespace) -> int:
    """Serve the pages."""
    from lovrit.web.serve import serve as run

    return run(asked.host, asked.port, demo=False, fresh=False, hall=asked.in_the_hall)


def check(_asked: Namespace) -> int:
    """Look through the club's file and say what is wrong with it."""
    from lovrit.web.serve import check as look_through

    return look_through()


def backup(asked: Namespace) -> int:
    """Copy the club's file whole, also while Lovrit runs."""
    from lovrit.web.serve import backup as copy

    return copy(Path(asked.to))


def restore(asked: Namespace) -> int:
    """Put a copy in the place of the club's file."""
    from lovrit.web.serve import put_back

    return put_back(Path(asked.copy))


def demo(asked: Namespace) -> int:
    """Serve the pages with the demo club."""
    from lovrit.web.serve import serve as run

    return run(None, asked.port, demo=True, fresh=asked.fresh)
