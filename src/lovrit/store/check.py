"""Looking through a club's file without changing it: is it whole, is it ours, can every row be read?"""

import sqlite3
from dataclasses import dataclass, field
from pathlib import Path
from urllib.parse import quote

from lovrit.core.run.frozen import UnreadableClass
from lovrit.store import classes
from lovrit.store.database import Database
from lovrit.store.tables import ClassRow
from lovrit.store.trouble import Trouble, trouble_of


@dataclass
class LookedThrough:
    """What was seen, a sentence each, and whether nothing is wrong."""

    said: list[str] = field(default_factory=list)
    sound: bool = True

    def wrong(self, said: str) -> None:
        """Something is wrong."""
        self.said.append(said)
        self.sound = False


def look_through(path: Path) -> LookedThrough:
    """Everything that is wrong with a file; a file that isn't there is said."""
    found = LookedThrough()
    if not path.is_file():
        found.wrong(f"There is no club's file at {path}.")
        return found
    try:
        _whole(path, found)
        if found.sound:
            _readable(path, found)
    except (sqlite3.Error, Trouble) as error:
        found.wrong(str(error) if isinstance(error, Trouble) else str(trouble_of(error) or error))
    if found.sound:
        found.said.append(f"{path} is whole, and everything in it can be read.")
    return found


def _whole(path: Path, found: LookedThrough) -> None:
    """SQLite's own checks, on a connection that may only read."""
    kept = sqlite3.connect(f"file:{quote(str(path))}?mode=ro", uri=True)
    try:
        for (said,) in kept.execute("PRAGMA integrity_check(20)").fetchall():
            if said != "ok":
                found.wrong(f"The file is damaged: {said}.")
        for table, row, parent, _ in kept.execute("PRAGMA foreign_key_check").fetchall()[:20]:
            found.wrong(f"A row of {table} (number {row}) names one of {parent} that isn't there.")
    finally:
        kept.close()


def _readable(path: Path, found: LookedThrough) -> None:
    database = Database(path)
    try:
        with database.work() as work:
            for row in work.query(ClassRow).yield_per(50):
                try:
                    classes.comers(row)
                    if row.frozen is not None:  # one of before is frozen at the next start
                        classes.run_by(row)
                    classes.events(work, row.id or 0)
                except UnreadableClass as error:
                    found.wrong(
                        f"Class {row.id}, “{row.title}”, is set aside when Lovrit starts. {error}"
                    )
    finally:
        database.close()
