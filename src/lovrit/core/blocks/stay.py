"""What is laid station by station: all sets at one, then the change to the next."""

from collections.abc import Callable, Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.step import Step


def at_stations(
    block: Block, sets: int, work_s: Callable[[int, int], int], rest_s: int
) -> Iterator[Step]:
    """All sets at one station, then the next; ``work_s`` gives the seconds at a station (from 0) of a set (from 1)."""
    stations = max(1, len(block.moves))
    for at in range(stations):
        for nth in range(1, sets + 1):
            work = block.work(work_s(at, nth), nth, at + 1, at)
            yield work
            if nth == sets and at < stations - 1:
                yield from block.rest_between(rest_s, work)
            else:
                yield block.pause("rest", rest_s, work)
