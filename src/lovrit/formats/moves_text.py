"""The library of moves as lines to read in a terminal."""

from collections.abc import Iterable, Iterator

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import PATTERNS, Move
from lovrit.core.recast.round import way_round
from lovrit.core.slate.line import Task


def move_lines(moves: Iterable[Move], missing: frozenset[str]) -> Iterator[str]:
    """Moves by pattern, each with its seconds and kit, or with the way round kit that is missing."""
    known = tuple(moves)
    library = Library(moves=known)
    for pattern in PATTERNS:
        yield pattern
        for move in known:
            if move.pattern == pattern:
                yield f"  {move.name:<26}{_figure(move):<16}{_kit(move, library, missing)}".rstrip()


def round_object(moves: Iterable[Move], missing: frozenset[str]) -> dict[str, object]:
    """For each move that needs kit which is missing: what it lacks, and what is done instead; as JSON."""
    known = tuple(moves)
    library = Library(moves=known)
    found = ((move, way_round(Task(name=move.name), library, missing)) for move in known)
    return {
        "missing": sorted(missing),
        "moves": [
            {"move": move.name, "lacks": list(way.missing), "instead": way.instead}
            for move, way in found
            if way
        ],
    }


def _figure(move: Move) -> str:
    if move.counted == "s":
        return f"hold {move.fresh} s"
    if move.counted == "m" and move.metre:
        return f"{move.metre:g} s a metre"
    return f"{move.seconds:g} s a rep"


def _kit(move: Move, library: Library, missing: frozenset[str]) -> str:
    found = way_round(Task(name=move.name), library, missing)
    return f"no {', no '.join(found.missing)}: {found.instead}" if found else ", ".join(move.kit)
