"""A name looked up in the library, as JSON: the move, or what its name says of it and what is near."""

from typing import Any

from lovrit.core.moves.guess import guess, nearest
from lovrit.core.moves.library import Library


def found_object(name: str, library: Library) -> dict[str, Any]:
    """What the library knows of a name; ``asked`` is what is guessed from the name, until somebody has said."""
    move, way = library.find_way(name)
    if move is None:
        said = guess(name)
        return {
            "move": None,
            "kit": [],
            "pattern": said.pattern,
            "impact": said.impact,
            "overhead": said.overhead,
            "floor": said.floor,
            "seconds": None,
            "asked": {"says": list(said.said()), "pattern": said.pattern, "impact": said.impact},
            "nearest": list(nearest(name, library)),
        }
    return {
        "move": move.name,
        "kit": list(library.kit_of(name)),
        "pattern": move.pattern,
        "impact": move.impact,
        "overhead": move.overhead,
        "floor": move.floor,
        "seconds": move.way_seconds.get(way, move.seconds),
        "asked": None,
        "nearest": [],
    }
