"""Moves in files: the library as CSV (RFC 4180) and JSON, and a club's own moves read from either.

A move with an error costs that move only: it is named by its line or its place, and the rest is taken.
"""

import csv
import io
import json
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from lovrit.core.moves.move import Move
from lovrit.core.moves.names import key_of
from lovrit.core.session.grammar import reads
from lovrit.core.values import checked, defaults_of, names_of, plain
from lovrit.formats.cells import Reader, told_apart

COLUMNS = names_of(Move)
LISTS = tuple(name for name, value in defaults_of(Move).items() if isinstance(value, tuple))
FLAGS = tuple(name for name, value in defaults_of(Move).items() if isinstance(value, bool))
JOINT = "; "
MOST = 2000


@dataclass(frozen=True)
class Moves:
    """What a file held: moves, and a sentence for each that could not be taken."""

    moves: tuple[Move, ...]
    problems: tuple[str, ...]


def to_csv(moves: Iterable[Move]) -> str:
    """Moves as CSV, one a row; lists are joined by semicolons."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for move in moves:
        writer.writerow([told_apart(to_cell(getattr(move, name))) for name in COLUMNS])
    return out.getvalue()


def to_cell(value: object) -> str:
    """A field as a cell: lists by semicolons, yes and no, whole numbers plain."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return JOINT.join(value)
    if isinstance(value, dict):
        return JOINT.join(f"{way}={seconds:g}" for way, seconds in value.items())
    return f"{value:g}" if isinstance(value, float) else str(value)


def to_json(moves: Iterable[Move]) -> str:
    """Moves by name, as the schema has them."""
    named = {move.name: plain(move, exclude={"name"}, exclude_defaults=True) for move in moves}
    return json.dumps(named, ensure_ascii=False, indent=2) + "\n"


def read_moves(text: str) -> Moves:
    """Moves from CSV or JSON, whichever it is.

    Raises:
        NotCsv: if it is neither.
    """
    plain = text.removeprefix("\ufeff")
    rows = _json_rows(plain) if plain.lstrip().startswith("{") else _csv_rows(plain)
    found: dict[str, Move] = {}
    problems: list[str] = []
    for where, fields in rows:
        move = _move(fields) if isinstance(fields, dict) else fields
        if isinstance(move, str):
            problems.append(f"{where}: {move}")
        elif key_of(move.name) in found:
            problems.append(f"{where}: “{move.name}” is there already; the first one is kept.")
        else:
            found[key_of(move.name)] = move
    return Moves(tuple(found.values()), tuple(problems))


FileRow = tuple[str, dict[str, Any] | str]


def _json_rows(text: str) -> Iterator[FileRow]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        yield "The file", f"this is not JSON ({error})."
        return
    for nth, (name, fields) in enumerate(list(data.items())[:MOST], 1):
        told = (
            {**fields, "name": name}
            if isinstance(fields, dict)
            else "a move is an object of fields."
        )
        yield f"Move {nth}, “{name}”", told


def _csv_rows(text: str) -> Iterator[FileRow]:
    reader = Reader(text)
    columns = reader.columns
    if "name" not in columns or "pattern" not in columns:
        yield "Line 1", "the columns are named there, and there must be name and pattern."
        return
    unknown = [name for name in columns if name not in COLUMNS]
    if unknown:
        yield "Line 1", f"there is no column {' or '.join(unknown)}; it is left out."
    for row in reader:
        if reader.line > MOST:
            yield f"Line {reader.line}", "more than two thousand lines; the rest is left out."
            return
        yield f"Line {reader.line}", _fields(row)


def _fields(row: dict[str, Any]) -> dict[str, Any]:
    fields: dict[str, Any] = {}
    for name in COLUMNS:
        text = str(row.get(name) or "").strip()
        if not text:
            continue
        if name in LISTS:
            fields[name] = [part.strip() for part in text.split(";") if part.strip()]
        elif name == "way_seconds":
            fields[name] = dict(
                part.strip().rsplit("=", 1) for part in text.split(";") if "=" in part
            )
        elif name in FLAGS:
            fields[name] = {"yes": True, "no": False}.get(text.lower(), text)
        else:
            fields[name] = text.replace(",", ".") if name in ("seconds", "metre", "space") else text
    return fields


def move_from(row: dict[str, Any]) -> Move | str:
    """A move from cells by column, or what is wrong with it."""
    return _move(_fields(row))


def _move(fields: dict[str, Any]) -> Move | str:
    """The move, or what is wrong with it."""
    try:
        move = checked(Move, fields)
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        return f"{place}: {first['msg'][0].lower()}{first['msg'][1:]}."
    if not sayable(move.name):
        return f"“{move.name}” can't be written on a slate; plain words without commas, + or figures can."
    return move


def sayable(name: str) -> bool:
    """Whether a name reads as a move on a slate."""
    return (
        bool(name.strip())
        and not set(name) & set("#|@:+,\n")
        and not name[0].isdigit()
        and reads(name, "move")
    )
