"""What the slate's editor knows of the notation: what it can complete, its words, and which heads take lines."""

from lovrit.core.blocks.kinds import OPTIONS, STARTS, WORDS
from lovrit.core.moves.library import Library
from lovrit.core.slate.words import HEADERS, MARK_SAMPLES


def completion_words(library: Library) -> dict[str, list[str]]:
    """Words by where they may stand: ``start``, ``option``, ``move``, ``mark``, ``kit``; ``word`` are all of them."""
    kit = sorted({name for move in library.moves for name in move.kit})
    spelt = {
        part
        for one in WORDS
        for part in one.sample.lower().split()
        if part.isalpha() and len(part) > 1
    }
    return {
        "start": [*HEADERS, *STARTS],
        "option": [option.sample for option in OPTIONS.values() if option.sample],
        "move": [move.name for move in library.moves],
        "mark": list(MARK_SAMPLES),
        "kit": kit,
        "word": sorted(spelt - {"squat", "text"}),
    }
