"""A session laid on the clock: its blocks' steps end to end."""

from functools import lru_cache
from itertools import islice
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.moves.library import Library
from lovrit.core.session.session import Session
from lovrit.core.slate.tree import LONGEST, MOST_SECONDS, MOST_TIMES
from lovrit.core.timeline.interval import Interval, LaidBlock, Timeline
from lovrit.core.values import LovritError

MOST_INTERVALS = MOST_TIMES
MOST_LEFT_OUT = 12
REMEMBERED = (
    96  # blocks: some sessions that are written at once, with the fixes that are tried on them
)


class TooMuch(LovritError):
    """A block with which a session passes a limit; ``block`` counts from 0."""

    def __init__(self, text: str, block: int) -> None:
        super().__init__(text)
        self.block = block


class Fitting(NamedTuple):
    """What fits within the limits: the blocks that do, on the clock, and a complaint for each that does not."""

    timeline: Timeline
    kept: tuple[int, ...]
    left_out: tuple[TooMuch, ...]


def lay(session: Session, library: Library) -> Timeline:
    """Lay a session on the clock.

    Raises:
        TooMuch: over twelve hours, or over 5,000 intervals; it names the block that passes the limit.
    """
    fitting = lay_what_fits(session, library)
    if fitting.left_out:
        raise fitting.left_out[0]
    return fitting.timeline


def lay_what_fits(session: Session, library: Library) -> Fitting:
    """Lay a session on the clock in one pass; a block that passes a limit is left out and the next one tried.

    After a dozen of those the rest is left out unseen, so that a text of any kind is done with in a moment.
    """
    blocks: list[LaidBlock] = []
    intervals: list[Interval] = []
    kept: list[int] = []
    left_out: list[TooMuch] = []
    for at, block in enumerate(session.blocks):
        start = intervals[-1].end_s if intervals else 0
        try:
            if len(left_out) >= MOST_LEFT_OUT:
                raise TooMuch(
                    "This block comes after too many that pass a limit, so it was not looked at.",
                    at,
                )
            taken = _steps(block, library, MOST_INTERVALS - len(intervals), at)
            placed = _place(block, len(kept), start, taken)
            if placed and placed[-1].end_s > MOST_SECONDS:
                raise TooMuch(f"With this block the session is longer than {LONGEST}.", at)
        except TooMuch as error:
            left_out.append(error)
            continue
        kept.append(at)
        intervals += placed
        blocks.append(_laid(block, start, placed, library))
    return Fitting(
        Timeline(blocks=tuple(blocks), intervals=tuple(intervals)), tuple(kept), tuple(left_out)
    )


def _steps(block: Block, library: Library, room: int, at: int) -> tuple[Step, ...]:
    taken = _alone(block, _This(library))
    if len(taken) > room:
        raise TooMuch(
            f"With this block the session has more than {MOST_INTERVALS:,} intervals.", at
        )
    return taken


class _This:
    """A library, known by which one it is: to compare all moves would take longer than to lay a block."""

    def __init__(self, library: Library) -> None:
        self.library = library

    def __hash__(self) -> int:
        return id(self.library)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _This) and other.library is self.library


@lru_cache(maxsize=REMEMBERED)
def _alone(block: Block, this: _This) -> tuple[Step, ...]:
    """A block's own steps, wherever it stands: remembered, as an edit changes one block of many."""
    return tuple(islice(block.unroll(Laying(this.library)), MOST_INTERVALS + 1))


@lru_cache(maxsize=REMEMBERED)
def _spread(block: Block, this: _This, likely: int) -> tuple[int, int]:
    """Its seconds for quick and for slow people, round what is likely."""
    low, high = block.seconds(this.library, "low"), block.seconds(this.library, "high")
    return min(likely, low), max(likely, high)


def _place(block: Block, at: int, start: int, taken: tuple[Step, ...]) -> list[Interval]:
    placed = []
    for step in taken:
        station = block.moves[step.move].name if step.move is not None and block.moves else None
        phase, seconds, nth, turn, move, effort, side, beat = step
        placed.append(
            Interval(
                start,
                start + seconds,
                phase,
                at,
                nth,
                turn,
                station,
                effort,
                move,
                side,
                beat,
                block.asked_in(phase, effort, nth),
            )
        )
        start += seconds
    return placed


def _laid(block: Block, start: int, placed: list[Interval], library: Library) -> LaidBlock:
    by_phase = {"work": 0, "rest": 0}
    for one in placed:
        by_phase[one.phase] = by_phase.get(one.phase, 0) + one.seconds
    likely = sum(one.seconds for one in placed)
    low, high = _spread(block, _This(library), likely) if block.varies else (likely, likely)
    return LaidBlock(
        label=block.head,
        kind=block.kind,
        start_s=start,
        end_s=start + likely,
        work_s=by_phase["work"],
        rest_s=by_phase["rest"],
        low_s=low,
        high_s=high,
        interval_block=block.interval_block,
        rest_is_forecast=block.rest_is_forecast,
        forecast=block.forecast(library, (low, likely, high)),
    )
