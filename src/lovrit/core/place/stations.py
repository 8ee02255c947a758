"""Stations as they are placed: kit of the line before the library's, what a move asks, ways that ask less."""

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.place.problem import FREE, Station
from lovrit.core.slate.line import Line


def station_of(line: Line, library: Library, fixed: frozenset[str]) -> Station:
    """A station from its line: kit of the line before the library's, what its move asks, ways that ask less."""
    task = line.tasks[0]
    moves = [move for one in line.tasks if (move := library.find(one.name))]
    own = [(kit.name, kit.each) for one in line.tasks for kit in one.kit]
    usual = [(name, 1) for one in line.tasks for name in library.kit_of(one.name)]
    kit = tuple((name, each) for name, each in dict(own or usual).items() if name not in FREE)
    floor = any(move.floor for move in moves)
    names = {name for name, _ in kit} | ({"mat"} if floor else set())
    first = moves[0] if moves else None
    return Station(
        line.name,
        first.pattern if first else "",
        any(move.grip for move in moves),
        floor,
        any(move.impact == "high" for move in moves),
        frozenset(ask for move in moves for ask in move.asks),
        kit,
        tuple(load for one in line.tasks for kit in one.kit for load in kit.loads),
        frozenset(names) & fixed,
        tuple(_ways(line, first, library)),
        task.name,
    )


def rooms(lines: tuple[Line, ...], library: Library) -> dict[str, float]:
    """The side of the square that one person needs at each station, in metres; where the move is known."""
    found = {}
    for line in lines:
        sides = [move.space for one in line.tasks if (move := library.find(one.name))]
        if sides and not line.is_rest:
            found[line.name] = max(sides)
    return found


def _ways(line: Line, move: Move | None, library: Library) -> list[tuple[str, frozenset[str]]]:
    """Other ways at a station with what each asks: the line's own, then the library's kinder ones."""
    task = line.tasks[0]
    names = [way.name for way in (*task.easier, *task.alternatives) if way.name]
    names += [name for name in (move.low_impact, move.no_kit) if name] if move else []
    found = []
    for name in dict.fromkeys(names):
        other = library.find(name)
        if other:
            found.append((name, other.asks))
    return found
