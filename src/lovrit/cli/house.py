"""Commands for the pages and the club’s file."""

from argparse import Namespace
from pathlib import Path


def serve(asked: Namespace) -> int:
    """Serve the pages."""
    from lovrit.web.serve import serve as run

    return run(asked.host, asked.port, demo=False, fresh=False)


def check(_asked: Namespace) -> int:
    """Look through the club's file and say what is wrong with it."""
    from lovrit.web.serve import check as look_through

    return look_through()


def backup(asked: Namespace) -> int:
    """Copy the club's file whole, also while Lovrit runs."""
    from lovrit.web.serve import backup as copy

    return copy(Path(asked.to))


def of_the_house(asked: Namespace) -> int:
    """Say who may come in; invite somebody, invite them again, or end it, while no Lovrit runs."""
    from lovrit.web.serve import of_the_house as who

    return who(asked.do, asked.name, asked.role)


def export_club(asked: Namespace) -> int:
    """Write the whole club as open files in one zip, also while Lovrit runs."""
    from lovrit.web.serve import take_out

    return take_out(Path(asked.to))


def import_club(asked: Namespace) -> int:
    """Read a club's open files into an empty folder."""
    from lovrit.web.serve import take_in

    return take_in(Path(asked.archive))


def read_class(asked: Namespace) -> int:
    """Bring a class that was taken out as a folder back into the club, while no Lovrit runs on it."""
    from lovrit.web.serve import read_class as bring

    return bring(Path(asked.folder))


def restore(asked: Namespace) -> int:
    """Put a copy in the place of the club's file."""
    from lovrit.web.serve import put_back

    return put_back(Path(asked.copy))


def demo(asked: Namespace) -> int:
    """Serve the pages with the demo club."""
    from lovrit.web.serve import serve as run

    return run(None, asked.port, demo=True, fresh=asked.fresh)
