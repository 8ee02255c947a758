"""What links are signed with: a file beside the club's own, so that a copy of that makes no link."""

import os
import secrets
from contextlib import suppress
from pathlib import Path

from lovrit.store import club
from lovrit.store.database import Database
from lovrit.store.trouble import CannotOpen

NAME = "links.key"
LEAST = 32  # letters of a key that is whole; shorter ones were cut off


def secret_of(database: Database) -> str:
    """The key of a club's links: made once, readable by its owner alone; new at each start where all is in memory.

    One that was kept in the club's file, as up to 0.7.0, moves out: links that were given out go on.

    Raises:
        Trouble: if it can't be read or written.
    """
    if database.path is None:
        return secrets.token_urlsafe(LEAST)
    kept = database.path.with_name(NAME)
    with database.work() as work:
        before = club.old_secret(work)
    key = _read(kept) or _write(kept, before or secrets.token_urlsafe(LEAST))
    if before:
        with database.writing() as work:
            club.drop_secret(work)
    return key


def _read(kept: Path) -> str:
    """A whole key; empty where there is none."""
    try:
        key = kept.read_text("ascii").strip()
    except FileNotFoundError:
        return ""
    except UnicodeDecodeError:
        return ""
    except OSError:
        raise CannotOpen(kept) from None
    return key if len(key) >= LEAST else ""


def _write(kept: Path, key: str) -> str:
    """A key on the disk, whole or not at all, before anything is signed with it."""
    part = kept.with_name(f"{NAME}.part")
    try:
        with suppress(FileNotFoundError):
            part.unlink()
        file = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        try:
            os.write(file, key.encode())
            os.fsync(file)
        finally:
            os.close(file)
        part.replace(kept)
    except OSError:
        raise CannotOpen(kept) from None
    return key
