"""How a stretch of a block is drawn, as values: marks on its lines, each a share of the full height."""

from typing import Literal, NamedTuple

Ink = Literal["work", "steady", "lead-in", "leftover", "ragged", "thins", "mark", "second"]


class Mark(NamedTuple):
    """A mark from a second of the stretch to another; on one line of the block, or (None) on every one.

    ``shelf`` of ``shelves`` parts a line among those who share it; ``label`` is written on it.
    """

    ink: Ink
    start_s: float
    end_s: float
    line: int | None = None
    height: float = 1
    shelf: int = 0
    shelves: int = 1
    label: str = ""


def thinning(start_s: float, sure_s: float, end_s: float, line: int | None = None) -> list[Mark]:
    """Solid until the quickest end, then thinning out until the last."""
    solid = Mark("work", start_s, start_s + sure_s, line)
    return (
        [solid, Mark("thins", start_s + sure_s, end_s, line)]
        if end_s > start_s + sure_s
        else [solid]
    )
