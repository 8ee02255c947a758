"""Looking through a club's file without changing it: is it whole, is it ours, can every row be read?"""

import sqlite3
from contextlib import closing
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory
from urllib.parse import quote

from lovrit.core.run.frozen import UnreadableClass
from lovrit.store import classes, club
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
            _opened(path, found)
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


def _opened(path: Path, found: LookedThrough) -> None:
    """A copy brought up to date, so that the file itself is only read: are its tables ours, can its rows be read?"""
    with TemporaryDirectory() as folder:
        copy = Path(folder) / path.name
        kept = sqlite3.connect(f"file:{quote(str(path))}?mode=ro", uri=True)
        with closing(kept), closing(sqlite3.connect(copy)) as new:
            kept.backup(new)
        database = Database(copy)
        try:
            _as_made(database, found)
            if found.sound:
                _readable(database, found)
        finally:
            database.close()


def _as_made(database: Database, found: LookedThrough) -> None:
    """Whether it has every table, column, index and trigger that a file of now has."""
    for kind, name in sorted(_wanted() - schema(database)):
        found.wrong(f"The file lacks the {kind} {name}, which Lovrit would ask for.")


@cache
def _wanted() -> frozenset[tuple[str, str]]:
    """What a file of now is made of."""
    new = Database(None)
    made = frozenset(schema(new))
    new.close()
    return made


def schema(database: Database) -> set[tuple[str, str]]:
    """What a file is made of: tables, columns with their types, indexes, triggers, by kind and name."""
    with database.work() as work:
        run = work.connection().exec_driver_sql
        made = [
            (kind, name)
            for kind, name in run("SELECT type, name FROM sqlite_master")
            if not name.startswith("sqlite_")
        ]
        columns = [
            ("column", f"{table}.{row[1]} ({row[2].upper()})")
            for kind, table in made
            if kind == "table"
            for row in run(f"PRAGMA table_info('{table}')")
        ]
    return {*made, *columns}


def _readable(database: Database, found: LookedThrough) -> None:
    with database.work() as work:
        classes.freeze_old(work, club.library(work))  # as the next start does
        for row in work.query(ClassRow).yield_per(50):
            try:
                classes.comers(row)
                classes.run_by(row)
                classes.events(work, row.id or 0)
            except UnreadableClass as error:
                found.wrong(
                    f"Class {row.id}, “{row.title}”, is set aside when Lovrit starts. {error}"
                )
