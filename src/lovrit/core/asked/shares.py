"""How the seconds of a work are shared among the lines that are done in it."""

from collections.abc import Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.worktime import line_s
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line


def shares(block: Block, move: int | None, library: Library) -> Iterator[tuple[Line, float]]:
    """The lines of a work with each one's share of its seconds: of a rotation all alike, else by what reps take."""
    lines = [line for line in block.moves if not line.is_rest]
    if move is not None and block.moves and not block.moves_people:
        yield block.moves[move], 1.0
    elif block.moves_people or not lines:
        yield from ((line, 1 / len(lines)) for line in lines)
    else:
        took = [max(1.0, line_s(line, library) or 1.0) for line in lines]
        yield from ((line, seconds / sum(took)) for line, seconds in zip(lines, took, strict=True))
