"""The way round what is missing: what is done in place of a move for which there is no kit today."""

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.slate.line import Task
from lovrit.core.values import Value


class WayRound(Value):
    """What ``name`` becomes without ``missing`` kit: another move, or another way in words."""

    name: str
    missing: tuple[str, ...]
    instead: str


def way_round(task: Task, library: Library, missing: frozenset[str]) -> WayRound | None:
    """What to do in place of a task whose kit is missing; None where nothing it needs is.

    Kit that is written on the line counts before what the library says.
    """
    move = library.find(task.name)
    needed = tuple(kit.name for kit in task.kit) or (move.needs_kit if move else ())
    lacking = tuple(name for name in needed if name in missing)
    if not lacking:
        return None
    return WayRound(
        name=task.name, missing=lacking, instead=instead_of(task, move, library, missing)
    )


def instead_of(task: Task, move: Move | None, library: Library, missing: frozenset[str]) -> str:
    """The alternative on the line, else the library's way without kit, else another move of its pattern."""
    for way in task.alternatives:
        other = library.find(way.name)
        if way.name and not (other and set(other.needs_kit) & missing):
            return way.name
    if move and move.no_kit:
        return move.no_kit
    pattern = move.pattern if move else "brace"
    return next(one.name for one in library.moves if one.pattern == pattern and not one.needs_kit)
