"""One block made into another structure: the moves and the time stay, the shape changes."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.parts import Count, Effort, Pair, Stretch
from lovrit.core.blocks.rotate import Rotate
from lovrit.core.blocks.sets import Sets
from lovrit.core.blocks.worktime import line_s, round_s
from lovrit.core.moves.library import Library
from lovrit.core.recast.portion import easily, plain, portioned
from lovrit.core.slate.line import Line
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.values import LovritError

HALF_A_TURN, ROUND_S = 30, 25
PAIRS = (
    (40, 20),
    (45, 15),
    (30, 30),
    (35, 25),
    (50, 10),
    (30, 15),
    (45, 30),
    (60, 30),
    (30, 20),
    (20, 20),
)
MOST_BREAK = 180
MOST_REPEATED = 8.0
# what can be kept up without a pause for so long, in seconds
MOST_THROUGHOUT = ((20 * 60, 7.0), (12 * 60, 7.5), (8 * 60, 8.0))


class CannotRecast(LovritError):
    """A block that can't be made into that."""


@dataclass(frozen=True)
class Given:
    """What is recast: the block, its length and its work in seconds, and the library."""

    block: Block
    laid: LaidBlock
    library: Library

    @property
    def total_s(self) -> int:
        """The time that it has: its cap, where it is for time."""
        if isinstance(self.block, ForTime) and self.block.cap_s:
            return self.block.cap_s
        return self.laid.seconds

    @property
    def minutes_s(self) -> int:
        """The same in whole minutes, one at least."""
        return max(1, round(self.total_s / 60)) * 60

    @property
    def lines(self) -> tuple[Line, ...]:
        """Its lines; one of work where nothing else is written.

        Raises:
            CannotRecast: where it has no moves.
        """
        if not self.block.moves:
            raise CannotRecast("There are no moves in this block to recast.")
        return self.block.moves

    def keeps(self, most: float = 10) -> dict[str, Any]:
        """What a block keeps in every structure; no more effort than this one can be done at to its end."""
        first = self.block.efforts[:1]
        return {
            "efforts": tuple(
                Effort(low=min(one.low, most), high=min(one.high, most)) for one in first
            )
        }

    def keeps_throughout(self) -> dict[str, Any]:
        """What a block keeps where work goes on to its end without a rest that is written."""
        pauses = self.laid.rest_s > 0
        most = next((most for over, most in MOST_THROUGHOUT if self.total_s >= over), 10.0)
        return self.keeps(most if pauses else 10.0)

    def counted(self, seconds: float) -> tuple[Line, ...]:
        """Its lines with amounts: as written, or about so many seconds where nothing is."""
        return tuple(
            line if line_s(line, self.library) else portioned(line, seconds, self.library)
            for line in self.lines
        )


def every(given: Given) -> Block:
    """A task a minute, each about half full; heavier where the block was for so few that a minute is too short."""
    sets = given.block.set_reps
    moves = tuple(
        easily(portioned(line, HALF_A_TURN, given.library), given.library, sets).but(
            opens_part=False
        )
        for line in given.lines
    )
    return Every(period_s=60, total_s=given.minutes_s, moves=moves, **given.keeps(MOST_REPEATED))


def amrap(given: Given) -> Block:
    """As many rounds as possible in the same time: everybody ends together."""
    return Amrap(total_s=given.total_s, moves=given.counted(ROUND_S), **given.keeps_throughout())


def partners(given: Given) -> Block:
    """The same, in twos: one works a round while the other rests."""
    return Amrap(
        total_s=given.total_s, moves=given.counted(ROUND_S), partners=True, **given.keeps()
    )


def for_time(given: Given) -> Block:
    """So many rounds as a usual person does with a little to spare, and the time as the cap."""
    moves = given.counted(ROUND_S)
    likely = Amrap(total_s=given.total_s, moves=moves).rounds(given.library, "likely") or 1
    count = max(1, round(likely * 0.85))
    return ForTime(
        rounds=Count(low=count, high=count),
        cap_s=given.total_s,
        moves=moves,
        **given.keeps_throughout(),
    )


def intervals(given: Given) -> Block:
    """Work and rest by the clock, without breaks."""
    moves = tuple(plain(line) for line in given.lines)
    found = _in_time(given.total_s, len(moves), breaks=False)
    count, pair, _ = found
    times = Count(low=count, high=count)
    if len(moves) == 1:
        return Intervals(count=times, pattern=(pair,), moves=moves, **given.keeps())
    return Rotate(rounds=times, pair=pair, moves=moves, **given.keeps())


def with_breaks(given: Given) -> Block:
    """Rounds of stations with a break between."""
    moves = tuple(plain(line) for line in given.lines)
    count, pair, pause = _in_time(given.total_s, len(moves), breaks=True)
    return Rotate(
        rounds=Count(low=count, high=count), pair=pair, break_s=pause, moves=moves, **given.keeps()
    )


def _in_time(total_s: int, stations: int, breaks: bool) -> tuple[int, Pair, int | None]:
    """Rounds, work and rest, and break that last just so long; the nearest to 40 and 20 that does, else the nearest."""
    best: tuple[float, int, tuple[int, int], int | None] | None = None
    for rank, (work, rest) in enumerate(PAIRS):
        for count in range(1, 1 + max(1, total_s // (stations * (work + rest)))):
            whole = count * stations * (work + rest)
            pause = _pause(total_s - whole, count, rest) if breaks and count > 1 else None
            left = abs(total_s - whole - ((count - 1) * (pause - rest) if pause is not None else 0))
            odd = pause is None if breaks else False
            one = (
                left + rank + 30 * odd + (0 if not pause else abs(pause - 75) / 30),
                count,
                (work, rest),
                pause,
            )
            best = min(best, one) if best else one
    if best is None:
        pair = Pair(
            work=Stretch(seconds=max(5, total_s // stations // 15 * 10)), rest=Stretch(seconds=5)
        )
        return 1, pair, None
    _, count, (work, rest), pause = best
    return count, Pair(work=Stretch(seconds=work), rest=Stretch(seconds=rest)), pause


def _pause(over: int, count: int, rest: int) -> int | None:
    """The break that takes up what is over, in fives of seconds; it takes the last rest's place."""
    pause = over // (count - 1) + rest
    return pause // 5 * 5 if 30 <= pause <= MOST_BREAK else None


def stay(given: Given) -> Block:
    """Stations don't rotate: all sets at one place, then everyone moves on."""
    block = given.block
    if not isinstance(block, Rotate) or len(block.moves) < 2:
        raise CannotRecast("Only stations that people rotate through can be made to stay.")
    pair, stations = block.pair, len(block.moves)
    spare = given.total_s - stations * block.rounds.high * (
        (pair.work.seconds or 0) + (pair.rest.seconds or 0)
    )
    change = spare // (stations - 1) + (pair.rest.seconds or 0)
    made = Sets(sets=block.rounds, pair=pair, moves=block.moves, efforts=block.efforts)
    return made.but(change_s=change // 5 * 5) if spare > 0 else made


def together(given: Given) -> Amrap:
    """Everybody ends at the same moment."""
    if given.block.ends_together:
        raise CannotRecast("Everybody ends this block together as it is.")
    once = round_s(given.counted(ROUND_S), given.library)
    if isinstance(given.block, ForTime) and given.block.over and once is None:
        raise CannotRecast("A single distance can't be made to end for all at once.")
    return Amrap(total_s=given.minutes_s, moves=given.counted(ROUND_S), **given.keeps_throughout())


SHAPES: dict[str, Callable[[Given], Block]] = {
    "every": every,
    "intervals": intervals,
    "rounds": with_breaks,
    "partners": partners,
    "for-time": for_time,
    "amrap": amrap,
    "stay": stay,
    "together": together,
}
