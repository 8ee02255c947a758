"""Each kind of block unrolled into its steps: the conventions of time live here, one function a kind.

A set's or turn's own rest counts, also the last one. A break or change takes the place of the rest before it,
unless it is added; none follows the last round or station.
"""

from collections.abc import Callable, Iterator
from typing import Any

from lovrit.core.moves.library import Library
from lovrit.core.session.model import (
    Amrap,
    AnyBlock,
    Block,
    Build,
    Count,
    Effort,
    Every,
    ForTime,
    HoldLadder,
    Intervals,
    Paired,
    Quality,
    Rest,
    Rotate,
    Sets,
    Steady,
    Strength,
    Stretch,
    Tempo,
)
from lovrit.core.session.move import Line
from lovrit.core.timeline.interval import Case, Phase, Step
from lovrit.core.timeline.worktime import FACTOR, amount_s, line_s, reps_s, round_s, slowing

DEFAULT_ROUND_S = 60


class Laying:
    """What a block is unrolled with: the library, and whether low, likely or high figures are taken."""

    def __init__(self, library: Library, case: Case = "likely"):
        self.library, self.case = library, case

    def times(self, count: Count) -> int:
        """How often: a range is planned at its most."""
        return count.low if self.case == "low" else count.high

    def length(self, stretch: Stretch, block: Paired) -> int:
        """How long: where the heart ends it, its most; its least for the low figure."""
        if stretch.seconds is not None:
            return stretch.seconds
        return block.least_s if self.case == "low" else block.most_s or 0


def steps(block: AnyBlock, laying: Laying) -> Iterator[Step]:
    """The steps of a block in order; a step of no seconds is left out."""
    unrolled = KINDS[block.kind](block, laying)
    if block.lead_in_s:
        effort = level(block.rest_effort)
        yield Step(phase="lead-in", seconds=block.lead_in_s, effort=effort)
    if getattr(block, "drop_last_rest", False):
        unrolled = _without_last_rest(unrolled)
    for step in unrolled:
        if step.seconds > 0:
            yield step


def level(effort: Effort | None) -> float | None:
    """An effort as one number: the middle of a range."""
    return (effort.low + effort.high) / 2 if effort else None


def effort_in(block: Block, nth: int) -> float | None:
    """The effort of a round (from 1); where fewer are written, the last holds on."""
    if not block.efforts:
        return None
    return level(block.efforts[min(nth, len(block.efforts)) - 1])


def side_in(line: Line | None, nth: int) -> str | None:
    """Which side a line asks for in a round or set, from 1."""
    if line is None or line.side == "none":
        return None
    return "each" if line.side == "each" else ("left" if nth % 2 else "right")


def _without_last_rest(unrolled: Iterator[Step]) -> Iterator[Step]:
    held: Step | None = None
    for step in unrolled:
        if held:
            yield held
        held = step
    if held and held.phase != "rest":
        yield held


def _work(block: Block, seconds: int, nth: int, turn: int, move: int | None) -> Step:
    line = block.moves[move] if move is not None and block.moves else None
    return Step(
        phase="work",
        seconds=seconds,
        round=nth,
        turn=turn,
        move=move if line else None,
        effort=effort_in(block, nth),
        side=side_in(line, nth),
    )


def _pause(block: Block, phase: Phase, seconds: int, after: Step) -> Step:
    effort = level(block.rest_effort) if phase == "rest" else None
    return Step(phase, seconds, after.round, after.turn, after.move, effort)


def _between(block: Block, phase: Phase, own_s: int, other: tuple[int | None, bool], work: Step) -> Iterator[Step]:
    """The rest before a break or change, and that break or change."""
    seconds, added = other
    if seconds is None or added:
        yield _pause(block, "rest", own_s, work)
    if seconds is not None:
        yield _pause(block, phase, seconds, work)


def _rotate(block: Rotate, laying: Laying) -> Iterator[Step]:
    work_s, rest_s = laying.length(block.pair.work, block), laying.length(block.pair.rest, block)
    rounds, stations = laying.times(block.rounds), len(block.moves)
    for nth in range(1, rounds + 1):
        for at in range(stations):
            work = _work(block, work_s, nth, at + 1, at)
            yield work
            if at == stations - 1 and nth < rounds:
                yield from _between(block, "break", rest_s, (block.break_s, block.break_added), work)
            else:
                yield _pause(block, "rest", rest_s, work)


def _at_stations(block: Sets | Strength, sets: int, work_s: Callable[[int], int], rest_s: int) -> Iterator[Step]:
    """All sets at one station, then the next."""
    stations = max(1, len(block.moves))
    for at in range(stations):
        for nth in range(1, sets + 1):
            work = _work(block, work_s(at), nth, at + 1, at)
            yield work
            if nth == sets and at < stations - 1:
                yield from _between(block, "change", rest_s, (block.change_s, block.change_added), work)
            else:
                yield _pause(block, "rest", rest_s, work)


def _sets(block: Sets, laying: Laying) -> Iterator[Step]:
    work_s = laying.length(block.pair.work, block)
    rest_s = laying.length(block.pair.rest, block)
    return _at_stations(block, laying.times(block.sets), lambda _at: work_s, rest_s)


def _strength(block: Strength, laying: Laying) -> Iterator[Step]:
    reps = (block.reps.low + block.reps.high) / 2

    def work_s(at: int) -> int:
        task = block.moves[at].tasks[0]
        once = reps * task.slow_s if task.slow_s else reps_s(task.name, reps, laying.library, laying.case)
        return round(once * (2 if task.side == "each" else 1))

    return _at_stations(block, laying.times(block.sets), work_s, block.rest_s)


def _intervals(block: Intervals, laying: Laying) -> Iterator[Step]:
    move = 0 if block.moves else None
    for nth in range(1, laying.times(block.count) + 1):
        for turn, (work_s, rest_s) in enumerate(_pattern(block, laying), 1):
            work = _work(block, work_s, nth, turn, move)
            yield work
            yield _pause(block, "rest", rest_s, work)


def _pattern(block: Intervals, laying: Laying) -> list[tuple[int, int]]:
    if block.each:
        name = block.moves[0].name if block.moves else ""
        return [(round(amount_s(block.each, name, laying.library, laying.case) or 0), block.rest_s)]
    return [(laying.length(pair.work, block), laying.length(pair.rest, block)) for pair in block.pattern]


def _every(block: Every, laying: Laying) -> Iterator[Step]:
    lines = max(1, len(block.moves))
    for nth, start in enumerate(range(0, block.total_s, block.period_s)):
        period = min(block.period_s, block.total_s - start)
        line = block.moves[nth % lines] if block.moves else None
        needed = line_s(line, laying.library) if line else None
        work_s = min(period, needed) if needed is not None else period
        at = nth % lines if line else None
        work = _work(block, work_s, nth // lines + 1, nth % lines + 1, at)
        yield work
        yield _pause(block, "rest", period - work_s, work)
    yield Step(phase="break", seconds=block.half_start_s)


def _one_work(block: Block, seconds: int) -> Iterator[Step]:
    yield _work(block, seconds, 1, 1, 0 if len(block.moves) == 1 else None)


def _timed_work(block: Amrap | Build, _laying: Laying) -> Iterator[Step]:
    return _one_work(block, block.total_s)


def for_time_s(block: ForTime, laying: Laying) -> int:
    """Seconds that a block for time takes, at most its cap."""
    if block.over:
        name = block.moves[0].name if block.moves else ""
        needed = amount_s(block.over, name, laying.library, laying.case)
    else:
        once = round_s(block.moves, laying.library, laying.case)
        rounds = range(1, laying.times(block.rounds) + 1)
        needed = None if once is None else once * sum(slowing(nth) for nth in rounds)
    cap = block.cap_s
    if needed is None:
        return cap or DEFAULT_ROUND_S
    return round(min(needed, cap) if cap else needed)


def _for_time(block: ForTime, laying: Laying) -> Iterator[Step]:
    return _one_work(block, for_time_s(block, laying))


def _quality(block: Quality, laying: Laying) -> Iterator[Step]:
    rounds = laying.times(block.rounds)
    once = round_s(block.moves, laying.library, laying.case) or _share(block, rounds, laying.case)
    left = block.cap_s if block.cap_s is not None else once * rounds + block.rest_s * rounds
    for nth in range(1, rounds + 1):
        work = _work(block, min(once, left), nth, 1, 0 if len(block.moves) == 1 else None)
        yield work
        left -= work.seconds
        yield _pause(block, "rest", min(block.rest_s, left), work)
        left -= min(block.rest_s, left)


def _share(block: Quality, rounds: int, case: Case) -> int:
    if block.cap_s is None:
        return round(DEFAULT_ROUND_S * FACTOR[case])
    return max(1, block.cap_s // rounds - block.rest_s)


def _hold_ladder(block: HoldLadder, _laying: Laying) -> Iterator[Step]:
    for nth, start in enumerate(range(0, block.total_s, block.period_s)):
        period = min(block.period_s, block.total_s - start)
        work = _work(block, min(period, block.start_s + block.step_s * nth), nth + 1, 1, 0)
        yield work
        yield _pause(block, "rest", period - work.seconds, work)


def tempos(block: Tempo) -> list[int]:
    """The metronome's rates in order, beats a minute; up and down plays the top one once."""
    climb = (block.end - block.start) / (block.steps - 1)
    up = [round(block.start + climb * nth) for nth in range(block.steps)]
    return up + up[-2::-1] if block.up_and_down else up


def _tempo(block: Tempo, _laying: Laying) -> Iterator[Step]:
    for turn, beat in enumerate(tempos(block), 1):
        move = 0 if block.moves else None
        yield _work(block, block.step_s, 1, turn, move)._replace(beat=beat)


def _steady(block: Steady, _laying: Laying) -> Iterator[Step]:
    yield Step(phase="steady", seconds=block.total_s, effort=effort_in(block, 1))


def _rest(block: Rest, _laying: Laying) -> Iterator[Step]:
    yield Step(phase="break", seconds=block.total_s, effort=effort_in(block, 1))


KINDS: dict[str, Callable[[Any, Laying], Iterator[Step]]] = {
    "rotate": _rotate,
    "sets": _sets,
    "strength": _strength,
    "intervals": _intervals,
    "every": _every,
    "amrap": _timed_work,
    "build": _timed_work,
    "for-time": _for_time,
    "quality": _quality,
    "hold-ladder": _hold_ladder,
    "tempo": _tempo,
    "steady": _steady,
    "rest": _rest,
}
