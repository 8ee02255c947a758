"""How the seconds of a work are shared among the tasks that are done in it, and how much of it one person does."""

from collections.abc import Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.company import share_of
from lovrit.core.blocks.worktime import line_s
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line, Task


class Shares:
    """The tasks of works with each one's share of its seconds; worked out once a work, since turns are many."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._kept: dict[tuple[int, int | None], tuple[tuple[Line, Task, float], ...]] = {}

    def of(self, at: int, block: Block, move: int | None) -> tuple[tuple[Line, Task, float], ...]:
        """Of a block (by its place): of a rotation all stations alike, else by what reps take; “+” likewise."""
        if (at, move) not in self._kept:
            self._kept[at, move] = tuple(_shares(block, move, self._library))
        return self._kept[at, move]


def _shares(block: Block, move: int | None, library: Library) -> Iterator[tuple[Line, Task, float]]:
    for line, share in _lines(block, move, library):
        took = [1.0]
        if len(line.tasks) > 1:
            took = [max(1.0, line_s(line.but(tasks=(one,)), library) or 1.0) for one in line.tasks]
        for task, seconds in zip(line.tasks, took, strict=True):
            yield line, task, share * seconds / sum(took)


def _lines(block: Block, move: int | None, library: Library) -> Iterator[tuple[Line, float]]:
    lines = [line for line in block.moves if not line.is_rest]
    if move is not None and block.moves and not block.moves_people:
        yield block.moves[move], 1.0
    elif block.moves_people or not lines:
        yield from ((line, 1 / len(lines)) for line in lines)
    else:
        took = [max(1.0, line_s(line, library) or 1.0) for line in lines]
        yield from ((line, seconds / sum(took)) for line, seconds in zip(lines, took, strict=True))


def own_share(block: Block) -> float:
    """Which part of a block's work one person does: of partners and teams, their own."""
    return share_of(block) if hasattr(block, "team") else 1.0
