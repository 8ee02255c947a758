"""The library as the Moves page shows it: found by words, with where and how long ago each was used."""

from dataclasses import dataclass
from typing import Any

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import PATTERNS, Move
from lovrit.core.moves.names import key_of
from lovrit.core.recast.round import way_round
from lovrit.core.slate.line import Task
from lovrit.formats.moves_file import COLUMNS, FLAGS, LISTS, move_from, to_cell
from lovrit.store.sessions import Holds
from lovrit.web.pictures import Picture, picture

DAY_MS = 86_400_000
ONLY = {
    "drawn": "drawn",
    "no kit": "without kit",
    "low impact": "without hard landings",
    "standing": "standing",
    "own": "our own",
    "unused": "not used yet",
}


@dataclass(frozen=True)
class Sought:
    """What is looked for."""

    words: str = ""
    pattern: str = ""
    kit: str = ""
    only: str = ""


@dataclass(frozen=True)
class Use:
    """A session that a move is in, and how long since it was last run in whole days; None where never."""

    session: int
    title: str
    days: int | None


@dataclass(frozen=True)
class MoveRow:
    """A move in the list."""

    move: Move
    picture: Picture | None
    instead: str
    own: bool
    uses: int
    since: str


@dataclass(frozen=True)
class MovesView:
    """The moves that were found, by pattern."""

    groups: tuple[tuple[str, tuple[MoveRow, ...]], ...]
    found: int
    all: int
    drawn: int

    @property
    def only(self) -> dict[str, str]:
        """What the list can be narrowed to, with its words."""
        return ONLY


def moves_view(
    library: Library,
    asked: Sought,
    missing: frozenset[str],
    own: set[str],
    held: list[Holds],
    now_ms: int,
) -> MovesView:
    """The library as asked for."""
    uses = _uses(library, held, now_ms)
    rows = [_row(move, library, missing, own, uses.get(move.name, [])) for move in library.moves]
    found = [row for row in rows if _is(row, asked)]
    groups = tuple(
        (pattern, tuple(row for row in found if row.move.pattern == pattern))
        for pattern in PATTERNS
    )
    shown = tuple((pattern, some) for pattern, some in groups if some)
    return MovesView(shown, len(found), len(rows), sum(row.picture is not None for row in rows))


def _row(
    move: Move, library: Library, missing: frozenset[str], own: set[str], uses: list[Use]
) -> MoveRow:
    found = way_round(Task(name=move.name), library, missing)
    instead = f"no {' or '.join(found.missing)} today: {found.instead}" if found else ""
    return MoveRow(
        move, picture(move.name), instead, key_of(move.name) in own, len(uses), _since(uses)
    )


def _since(uses: list[Use]) -> str:
    days = [use.days for use in uses if use.days is not None]
    if not uses:
        return ""
    if not days:
        return "never run"
    return {0: "today", 1: "yesterday"}.get(min(days), f"{min(days)} days ago")


def _is(row: MoveRow, asked: Sought) -> bool:
    move = row.move
    said = " ".join(
        (move.name, move.pattern, move.cue, *move.also, *move.kit, *move.easier, *move.harder)
    ).lower()
    only = {
        "drawn": row.picture is not None,
        "no kit": not move.needs_kit,
        "low impact": move.impact != "high",
        "standing": not move.floor,
        "own": row.own,
        "unused": not row.uses,
    }
    return (
        all(word in said for word in asked.words.lower().split())
        and asked.pattern in ("", move.pattern)
        and (not asked.kit or asked.kit in move.kit)
        and only.get(asked.only, True)
    )


def _uses(library: Library, held: list[Holds], now_ms: int) -> dict[str, list[Use]]:
    """Which sessions each move is in."""
    found: dict[str, list[Use]] = {}
    names = {name: library.find(name) for one in held for name in one.moves}
    for one in held:
        days = (now_ms - one.ran) // DAY_MS if one.ran else None
        moves = {move.name for move in (names[name] for name in one.moves) if move}
        for move in moves:
            found.setdefault(move, []).append(Use(one.id, one.title or "Untitled session", days))
    return found


def used_in(name: str, library: Library, held: list[Holds], now_ms: int) -> list[Use]:
    """The sessions that a move is in."""
    return _uses(library, held, now_ms).get(name, [])


def form_fields(move: Move) -> dict[str, str]:
    """A move as the fields of its form."""
    return {name: to_cell(getattr(move, name)) for name in COLUMNS}


def move_of(fields: dict[str, str]) -> Move | str:
    """The move of a form, or the sentence of what is wrong with it."""
    row: dict[str, Any] = {name: value for name, value in fields.items() if name in COLUMNS}
    for flag in FLAGS:
        row[flag] = "yes" if flag in fields else "no"
    for name in LISTS:
        row[name] = row.get(name, "").replace(",", ";")
    return move_from(row)
