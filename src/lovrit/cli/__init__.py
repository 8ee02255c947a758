"""``lovrit …``: what can be done with a session without the pages.

Each command imports what it needs when it runs, so that ``plan`` never loads the web. The standard library reads the
arguments: it is there already, where the libraries made for it take a tenth of a plan’s time to load.
"""

from lovrit.cli.main import main, run

__all__ = ["main", "run"]
