"""What can go wrong with the file that everything is kept in, each as a sentence with what to do.

SQLite's own code says which; whoever meets one of these shows the sentence and never a stack trace.
"""

import sqlite3

from sqlalchemy.exc import DBAPIError

from lovrit.core.values import LovritError


class Trouble(LovritError):
    """The file can't be used as it is."""


class DiskFull(Trouble):
    """There is no room for another byte."""

    def __init__(self) -> None:
        super().__init__(
            "The disk is full, so nothing more can be kept. Free some space; what is kept is safe."
        )


class Busy(Trouble):
    """Somebody else holds the file for longer than we wait."""

    def __init__(self) -> None:
        super().__init__(
            "The club’s file is held by something else just now. Nothing was changed; try again."
        )


class Moved(Trouble):
    """The file has gone somewhere else while this was being written."""

    def __init__(self) -> None:
        super().__init__(
            "The club’s file was just put in a new place. Nothing was changed; try again."
        )


class ReadOnly(Trouble):
    """The file or its folder may not be written to."""

    def __init__(self) -> None:
        super().__init__(
            "The club’s file may be read but not written. Make it and its folder yours to write."
        )


class Damaged(Trouble):
    """The file is not what SQLite wrote."""

    def __init__(self) -> None:
        super().__init__(
            "The club’s file is damaged. Stop Lovrit, keep a copy of the file as it is, and put your last backup"
            " in its place; `lovrit check` says what is wrong with it."
        )


class CannotOpen(Trouble):
    """There is no file to be had at that place."""

    def __init__(self, where: object = "where it should be") -> None:
        super().__init__(
            f"The club’s file can’t be opened at {where}. Is its folder there, and yours to write?"
        )


class Foreign(Trouble):
    """A database, but not one of ours."""

    def __init__(self, where: object) -> None:
        super().__init__(
            f"{where} is a database of something else. Choose another folder with LOVRIT_DATA."
        )


class Newer(Trouble):
    """A database of a later Lovrit than this one."""

    def __init__(self, where: object) -> None:
        super().__init__(
            f"{where} was written by a newer Lovrit than this one. Start the newer one with it."
        )


class InUse(Trouble):
    """Another Lovrit has the folder."""

    def __init__(self, where: object, who: str) -> None:
        super().__init__(
            f"Another Lovrit has {where} open ({who}). Use that one, or stop it first."
        )


BY_CODE: dict[int, type[DiskFull | Busy | ReadOnly | Damaged | CannotOpen]] = {
    sqlite3.SQLITE_FULL: DiskFull,
    sqlite3.SQLITE_BUSY: Busy,
    sqlite3.SQLITE_LOCKED: Busy,
    sqlite3.SQLITE_READONLY: ReadOnly,
    sqlite3.SQLITE_CORRUPT: Damaged,
    sqlite3.SQLITE_NOTADB: Damaged,
    sqlite3.SQLITE_IOERR: Damaged,
    sqlite3.SQLITE_CANTOPEN: CannotOpen,
}


def trouble_of(error: BaseException) -> Trouble | None:
    """The trouble behind an error of SQLite's; None where it is a mistake of ours."""
    cause = error.orig if isinstance(error, DBAPIError) else error
    code = getattr(cause, "sqlite_errorcode", None)
    if not isinstance(cause, sqlite3.Error) or code is None:
        return None
    if "disk is full" in str(
        cause
    ):  # an I/O error of a full disk carries the words, not always the code
        return DiskFull()
    kind = BY_CODE.get(code & 0xFF)  # the low byte is the kind, the rest its details
    return kind() if kind else None
