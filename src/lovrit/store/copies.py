"""Copies of the club's file: whole while classes run, checked before they count, some kept for long, put back in place.

A copy is taken by SQLite's own backup: what stands in the log beside the file comes along, which `cp` leaves out.
"""

import os
import re
import sqlite3
import time
from collections.abc import Iterable
from contextlib import closing, suppress
from datetime import date, timedelta
from pathlib import Path
from shutil import copyfileobj
from typing import BinaryIO

from sqlalchemy.exc import DBAPIError

from lovrit.core.values import LovritError
from lovrit.store.check import look_through
from lovrit.store.trouble import CannotOpen, Trouble

DAYS, WEEKS, MONTHS = 7, 4, 12  # so many of each are kept
BEFORE_DAYS = 14  # a copy that was taken before a migration or a restore is kept for so long
NAMED = re.compile(r"lovrit-(\d{4}-\d{2}-\d{2})\.sqlite")
WAITING = "restore-at-start.sqlite"
DAY_S = 86_400


class NoCopy(LovritError):
    """A file that is no copy of a club, or can't be put in place."""


def copy(path: Path, to: Path) -> Path:
    """A whole copy of a club's file, also while it is written to; nobody else may read it.

    Raises:
        NoCopy: if there is no club there, or what was copied is not whole.
        Trouble: if it can't be written.
    """
    if not path.is_file():
        raise NoCopy(f"There is no club's file at {path}.")
    part = to.with_name(f"{to.name}.part")
    try:
        to.parent.mkdir(parents=True, exist_ok=True)
        with suppress(FileNotFoundError):
            part.unlink()
        os.close(os.open(part, os.O_CREAT | os.O_WRONLY, 0o600))
        with closing(sqlite3.connect(path)) as old, closing(sqlite3.connect(part)) as new:
            old.backup(new)
            new.execute("PRAGMA journal_mode=DELETE")  # one file, nothing beside it
            _whole(new, to)
        _on_the_disk(part)
        part.replace(to)
        _on_the_disk(to.parent)
    except (OSError, sqlite3.Error, DBAPIError) as error:
        with suppress(OSError):
            part.unlink()
        raise CannotOpen(to) from error
    return to


def _whole(new: sqlite3.Connection, to: Path) -> None:
    (said,) = new.execute("PRAGMA quick_check(1)").fetchone()
    if said != "ok":
        raise NoCopy(f"The copy {to.name} is not whole ({said}), so it was not kept.")


def _on_the_disk(path: Path) -> None:
    """What was written is on the disk, also when the power goes."""
    opened = os.open(path, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)


def kept_of(days: Iterable[date], today: date) -> set[date]:
    """Of copies of these days, those that are kept: of seven days, four weeks and twelve months, the first of each.

    The newest is always kept, however old it is.
    """
    some = sorted(one for one in days if one <= today)
    kept = {one for one in some if one > today - timedelta(days=DAYS)} | set(some[-1:])
    weeks = {(one.isocalendar().year, one.isocalendar().week): one for one in reversed(some)}
    months = {(one.year, one.month): one for one in reversed(some)}
    return kept | set(sorted(weeks.values())[-WEEKS:]) | set(sorted(months.values())[-MONTHS:])


def of_folder(folder: Path) -> dict[date, Path]:
    """The copies in a folder by their days."""
    found: dict[date, Path] = {}
    for path in folder.glob("lovrit-*.sqlite"):
        named = NAMED.fullmatch(path.name)
        with suppress(ValueError):
            found |= {date.fromisoformat(named[1]): path} if named else {}
    return found


def nightly(path: Path, folder: Path, today: date) -> bool:
    """Today's copy where there is none yet, and those gone that are kept no longer; whether one was taken.

    Raises:
        NoCopy, Trouble: if it can't be taken; what is there stays then.
    """
    if today in of_folder(folder):
        return False
    copy(path, folder / f"lovrit-{today}.sqlite")
    here = of_folder(folder)
    for day in here.keys() - kept_of(here, today):
        with suppress(OSError):
            here[day].unlink()
    return True


def forget_old(path: Path, now_s: float | None = None) -> None:
    """Copies that were taken before a migration or a restore go after two weeks."""
    until = (time.time() if now_s is None else now_s) - BEFORE_DAYS * DAY_S
    for one in path.parent.glob(f"{path.name}.before-*"):
        with suppress(OSError):
            if one.stat().st_mtime < until:
                one.unlink()


def restore(copied: Path, path: Path, stamp: str) -> Path | None:
    """Put a copy in the place of a club's file that no Lovrit has open; where what stood there before is kept now.

    Raises:
        NoCopy: if it isn't whole, or is no club's.
        Trouble: if it can't be written.
    """
    _sound(copied)
    before = None
    if path.is_file():
        before = copy(path, path.with_name(f"{path.name}.before-restore-{stamp}"))
    new = path.with_name(f"{path.name}.new")
    copy(copied, new)
    for beside in ("-wal", "-shm"):
        with suppress(FileNotFoundError):
            path.with_name(path.name + beside).unlink()
    new.replace(path)
    _on_the_disk(path.parent)
    return before


def _sound(copied: Path) -> None:
    try:
        looked = look_through(copied)
    except (Trouble, sqlite3.Error) as error:
        raise NoCopy(f"{copied.name} can’t be read: {error}") from None
    if not looked.sound:
        raise NoCopy(f"{copied.name} can’t be put in place. {' '.join(looked.said)}")


def wait(folder: Path, body: BinaryIO) -> Path:
    """Keep a copy that is to be put in place when Lovrit is started next; it is looked through now.

    Raises:
        NoCopy: if it isn't whole, or is no club's.
    """
    part = folder / f"{WAITING}.part"
    with part.open("wb") as kept:
        part.chmod(0o600)
        copyfileobj(body, kept)
    try:
        _sound(part)
    except NoCopy:
        part.unlink()
        raise
    return part.replace(folder / WAITING)


def put_waiting(path: Path, stamp: str) -> Path | None:
    """Put in place what waits to be, before the file is opened; the copy that was, None where nothing waits.

    Raises:
        NoCopy, Trouble: if it can't be.
    """
    waiting = path.with_name(WAITING)
    if not waiting.is_file():
        return None
    before = restore(waiting, path, stamp)
    waiting.unlink()
    return before
