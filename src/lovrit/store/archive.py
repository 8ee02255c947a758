"""A whole club as open files in one zip, and back: tables as JSON lines, slates as text, equal after the round.

An archive says which version of the tables it was taken from; it is read into tables of that version, which are then
brought up to date as any older file is. What signs links and lets browsers in stays out.
"""

import binascii
import json
import re
from base64 import b64decode, b64encode
from collections.abc import Iterable, Iterator
from contextlib import suppress
from io import TextIOWrapper
from pathlib import Path
from typing import Any
from zipfile import ZIP_DEFLATED, BadZipFile, ZipFile

from sqlalchemy import (
    JSON,
    Column,
    Connection,
    Integer,
    MetaData,
    Table,
    Text,
    create_engine,
    event,
    select,
    text,
)
from sqlalchemy.exc import DBAPIError, StatementError

from lovrit.core.values import LovritError
from lovrit.store.check import look_through
from lovrit.store.database import Database
from lovrit.store.trouble import CannotOpen, Trouble
from lovrit.store.upgrade import make_at

FORM = 1
BYTES = "base64"  # bytes are told so
ABOUT, READ_ME = "club.json", "read-me.txt"
STAYS = frozenset({"guest", "alembic_version"})  # who is signed in here is nobody's elsewhere
MOST_LINE = 64 * 1024 * 1024
SAID = """A club kept by Lovrit, whole, as open files.

club.json       which form this is, and which version of the tables
tables/*.jsonl  a table each, a row a line, columns by their names
slates/*.slate  every session as it is written, for reading without Lovrit

“lovrit import-club” reads it into an empty folder. It holds names and hearts: keep it as you keep them.
"""


# words to find classes by, which no trigger writes anew
CLASS_WORDS = "class_words"
_SEARCHED = Table(
    CLASS_WORDS, MetaData(), Column("rowid", Integer, primary_key=True), Column("words", Text)
)


class NoArchive(LovritError):
    """A file that is no club's archive, or a club that can't be taken out or brought in."""


def export_club(path: Path, to: Path) -> Path:
    """A club's file as an archive, also while it is written to; nobody else may read it.

    Raises:
        NoArchive: if there is no club there.
        Trouble: if it can't be written.
    """
    if not path.is_file():
        raise NoArchive(f"There is no club’s file at {path}.")
    part = to.with_name(f"{to.name}.part")
    club = create_engine(f"sqlite:///file:{path}?mode=ro&uri=true")
    try:
        to.parent.mkdir(parents=True, exist_ok=True)
        part.touch(mode=0o600)
        with club.connect() as connection, ZipFile(part, "w", ZIP_DEFLATED) as archive:
            _write(connection, archive)  # one connection, one moment for all of it
        part.replace(to)
    except (OSError, DBAPIError) as error:
        with suppress(OSError):
            part.unlink()
        raise CannotOpen(to) from error
    finally:
        club.dispose()
    return to


def _write(club: Connection, archive: ZipFile) -> None:
    version = club.execute(text("SELECT version_num FROM alembic_version")).scalar_one()
    tables = _tables(club)
    about = {"form": FORM, "version": version, "tables": list(tables)}
    archive.writestr(READ_ME, SAID)
    archive.writestr(ABOUT, json.dumps(about, indent=1))
    for name, table in tables.items():
        with archive.open(f"tables/{name}.jsonl", "w") as raw, TextIOWrapper(raw, "utf-8") as out:
            for row in club.execute(select(table)).mappings():
                if not (name == "club" and row.get("key") == "secret"):
                    told = {column: _plain(value) for column, value in row.items()}
                    out.write(json.dumps(told, ensure_ascii=False) + "\n")
    session = tables["session"]
    for number, title, slate in club.execute(select(session.c.id, session.c.title, session.c.text)):
        plain = re.sub(r"[^\w-]+", "-", title or "untitled").strip("-")[:60]
        archive.writestr(f"slates/{number}-{plain}.slate", slate)


def _tables(club: Connection) -> dict[str, Table]:
    """The tables as they are in this file, those first that others point at."""
    found = MetaData()
    event.listen(Table, "column_reflect", _as_it_stands)
    try:
        found.reflect(club)
    finally:
        event.remove(Table, "column_reflect", _as_it_stands)
    words = tuple(f"{name}_" for name in _searched(club))
    plain = [one for one in found.sorted_tables if one.name not in STAYS]
    kept = {
        one.name: one
        for one in plain
        if not one.name.startswith(words or ("\0",)) and f"{one.name}_" not in words
    }
    return kept | {name: _SEARCHED for name in _searched(club) if name == CLASS_WORDS}


def _searched(club: Connection) -> list[str]:
    """The tables that words are searched in; what SQLite keeps for them is its own affair."""
    asked = text("SELECT name FROM sqlite_master WHERE sql LIKE 'CREATE VIRTUAL TABLE%'")
    return [str(name) for name in club.execute(asked).scalars()]


def _as_it_stands(inspector: Any, table: Table, column: Any) -> None:
    """JSON is taken as the text that it stands as, so that nothing of it changes on the way."""
    del inspector, table
    if isinstance(column["type"], JSON):
        column["type"] = Text()


def _plain(value: Any) -> Any:
    return {BYTES: b64encode(value).decode()} if isinstance(value, bytes) else value


def _kept(value: Any) -> Any:
    return b64decode(value[BYTES]) if isinstance(value, dict) and set(value) == {BYTES} else value


def import_club(archive: Path, path: Path) -> None:
    """An archive as a club's file where there is none yet; whole, or not at all.

    Raises:
        NoArchive: if it is none, is damaged, of a later Lovrit, or there is a club already.
        Trouble: if it can't be written.
    """
    if path.exists():
        raise NoArchive(
            f"There is a club at {path} already; an archive is read into an empty folder."
        )
    part = path.with_name(f"{path.name}.part")
    for beside in (part, *(part.with_name(part.name + end) for end in ("-wal", "-shm"))):
        beside.unlink(missing_ok=True)
    try:
        with ZipFile(archive) as opened:
            about = _about(opened)
            make_at(part, about["version"])
            _fill(part, opened, about["tables"])
        Database(part).close()
        _looked_through(part)
        part.replace(path)
    except (
        BadZipFile,
        KeyError,
        EOFError,
        binascii.Error,
        UnicodeDecodeError,
        json.JSONDecodeError,
    ):
        raise NoArchive(f"{archive.name} is no club’s archive, or is damaged.") from None
    except (DBAPIError, StatementError) as error:
        raise NoArchive(f"{archive.name} does not fit its own tables: {error.__cause__}.") from None
    except OSError as error:
        raise CannotOpen(path) from error
    finally:
        for beside in (part, *(part.with_name(part.name + end) for end in ("-wal", "-shm"))):
            beside.unlink(missing_ok=True)


def _about(opened: ZipFile) -> dict[str, Any]:
    about = json.loads(opened.read(ABOUT))
    if (
        not isinstance(about, dict)
        or about.get("form") != FORM
        or not isinstance(about.get("tables"), list)
    ):
        raise NoArchive("This archive is of another kind than this Lovrit reads.")
    return about


def _fill(part: Path, opened: ZipFile, names: Iterable[str]) -> None:
    club = create_engine(f"sqlite:///{part}")
    try:
        with club.begin() as connection:
            connection.execute(text("PRAGMA defer_foreign_keys=ON"))
            tables = _tables(connection)
            for name in names:
                if name not in tables:
                    raise NoArchive(
                        f"There is a table “{name}” in it that this Lovrit doesn’t know."
                    )
                connection.execute(tables[name].delete())
            for name in names:
                for row in _rows(opened, name):
                    _insert(connection, tables[name], row)
            broken = connection.execute(text("PRAGMA foreign_key_check")).first()
            if broken:
                raise NoArchive(f"A row of “{broken[0]}” in it belongs to nothing.")
    finally:
        club.dispose()


def _insert(connection: Connection, table: Table, row: dict[str, Any]) -> None:
    strange = set(row) - set(table.columns.keys())
    if strange:
        raise NoArchive(f"“{min(strange)}” of {table.name} is not known here.")
    connection.execute(table.insert(), {name: _kept(value) for name, value in row.items()})


def _rows(opened: ZipFile, name: str) -> Iterator[dict[str, Any]]:
    with opened.open(f"tables/{name}.jsonl") as raw, TextIOWrapper(raw, "utf-8") as lines:
        while line := lines.readline(MOST_LINE):
            row = json.loads(line)
            if not isinstance(row, dict):
                raise NoArchive(f"A row of “{name}” in it is none.")
            yield row


def _looked_through(part: Path) -> None:
    found = look_through(part)
    if not found.sound:
        raise Trouble(f"What was brought in is not sound: {'; '.join(found.said)}")
