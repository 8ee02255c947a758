"""Run as a program: kills migrations at every statement, from every older version, and looks at what is left."""

import os
import shutil
import signal
import sqlite3
import sys
import tempfile
from pathlib import Path

from alembic import command
from sqlalchemy import create_engine, event
from sqlalchemy.engine import Engine

from lovrit.store import people
from lovrit.store.check import look_through
from lovrit.store.database import Database
from lovrit.store.upgrade import _config

VERSIONS = (None, "0001", "0002", "0003")


def old_file(path: Path, version: str | None) -> None:
    """A file as an earlier version left it, with a person, a session and a class in it."""
    if version is None:
        return
    engine = create_engine(f"sqlite:///{path}")
    config = _config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, version)
    engine.dispose()
    with sqlite3.connect(path) as old:
        old.execute(
            "insert into person (name, initials, rest_hr, max_hr, effort_only, strap, mind)"
            " values ('Ada B', 'AB', 60, 180, 0, 'steady', 'knee')"
        )
        old.execute(
            "insert into session values (1, 'x', 'rest 1:00', 'rest 1:00', 1, 1, 0, 1, 1, null)"
        )
        old.execute("insert into class values (1, 1, 'x', 'rest 1:00', '[]', 1, 2)")
    old.close()


def killed_at(path: Path, nth: int) -> bool:
    """Open a file in a process that dies at its nth statement; whether it came so far."""
    child = os.fork()
    if child == 0:
        count = 0

        def die(*_: object) -> None:
            nonlocal count
            count += 1
            if count == nth:
                os.kill(os.getpid(), signal.SIGKILL)

        event.listen(Engine, "before_cursor_execute", die)
        event.listen(Engine, "commit", die)
        Database(path)
        os._exit(0)
    return os.WIFSIGNALED(os.waitpid(child, 0)[1])


def sound(path: Path, version: str | None) -> list[str]:
    """What is wrong with a file after it was opened again; nothing where all is well."""
    database = Database(path)
    with database.work() as work:
        names = [person.name for person in people.everyone(work)]
    database.close()
    found = look_through(path)
    wrong = [] if found.sound or version else [one for one in found.said if "damaged" in one]
    return wrong + ([] if names == (["Ada B"] if version else []) else [f"people: {names}"])


def main(stride: int) -> int:
    """Every version, every so many statements; prints a line for each that is not well, and how many there were."""
    kills, wrong = 0, 0
    with tempfile.TemporaryDirectory() as folder:
        for version in VERSIONS:
            old = Path(folder) / f"{version}.sqlite"
            old_file(old, version)
            for nth in range(1, 400, stride):
                path = Path(folder) / f"{version}-{nth}.sqlite"
                if version:
                    shutil.copy(old, path)
                if not killed_at(path, nth):
                    break
                kills += 1
                for said in sound(path, version):
                    wrong += 1
                    sys.stdout.write(f"{version}, statement {nth}: {said}\n")
    sys.stdout.write(f"{kills} kills, {wrong} wrong\n")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 1))
