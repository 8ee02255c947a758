"""What the slate's editor can complete: block beginnings, options, moves and kit."""

from lovrit.core.moves.library import Library
from lovrit.core.session.words import BLOCK_STARTS, HEADERS, TERMINALS

OPTIONS = (
    "AT", "HEART", "REST", "BREAK", "CHANGE", "DROP", "LEAD_IN", "PACE", "CAP", "HALF_START", "PARTNERS",
    "LADDER", "LEAST", "MOST",
)  # fmt: skip
MARKS = ("EACH_SIDE", "SIDES", "OR", "HARDER", "EASIER", "SLOW", "BREATH")


def completion_words(library: Library) -> dict[str, list[str]]:
    """Words by where they may stand: ``start``, ``option``, ``move``, ``mark``, ``kit``."""
    kit = sorted({name for move in library.moves for name in move.kit})
    return {
        "start": [*HEADERS, *BLOCK_STARTS],
        "option": [TERMINALS[name][1] for name in OPTIONS],
        "move": [move.name for move in library.moves],
        "mark": [TERMINALS[name][1] for name in MARKS],
        "kit": kit,
    }
