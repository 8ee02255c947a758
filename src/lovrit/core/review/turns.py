"""A person's turns after the class: average, highest, share of time in the corridor. Raw readings never change."""

from bisect import bisect_left
from collections.abc import Iterable
from statistics import fmean
from typing import Any, NamedTuple

from lovrit.core.crew.person import Comer
from lovrit.core.heart.demand import corridor
from lovrit.core.run.account import Class, Lap
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval, Timeline
from lovrit.core.values import Value

LOWEST, HIGHEST = 25, 235
SHORT_S = 60
LAG_MS = 20_000
FEWEST = 5

Trace = list[tuple[int, int]]


class Turn(Value):
    """A work as one person did it. Beats a minute; ``share`` of clean seconds in the corridor, 0 to 1.

    ``lost`` where the strap said too little to say anything, ``skipped`` where the turn was left after too short a
    time for that; then the figures are None.
    """

    interval: int
    from_ms: int
    to_ms: int
    corridor: tuple[float, float] | None
    average: float | None = None
    highest: int | None = None
    share: float | None = None
    place: float | None = None
    lost: bool = False
    skipped: bool = False
    stopped: bool = False


def good(bpm: int) -> bool:
    """Whether a reading is a heart's at all; 0 is no signal."""
    return LOWEST <= bpm <= HIGHEST


def asked_most(timeline: Timeline) -> float | None:
    """The highest effort that a class asked for; None where none is written."""
    works_ = (one for one in timeline.intervals if one.phase in ("work", "steady"))
    return max((one.effort for one in works_ if one.effort is not None), default=None)


def works(
    timeline: Timeline, state: Class, person: int | None = None
) -> list[tuple[Interval, Lap]]:
    """The works that were done, with when; by one person where they had a lane of their own."""
    laps = state.laps if person is None else state.laps_of(person)
    both = ((timeline.intervals[lap.interval], lap) for lap in laps)
    return [(interval, lap) for interval, lap in both if interval.phase == "work"]


def person_turns(
    session: Session, timeline: Timeline, state: Class, comer: Comer, trace: Trace
) -> list[Turn]:
    """A person's turns in order."""
    turns = []
    for interval, lap in works(timeline, state, comer.id):
        target = corridor(
            comer, interval.effort, session.blocks[interval.block].heart_in(interval.round)
        )
        turns.append(_turn(lap, target, trace, state.is_out(comer.id, lap.from_ms)))
    return turns


def _turn(lap: Lap, target: tuple[float, float] | None, trace: Trace, stopped: bool) -> Turn:
    inside = _between(trace, lap.from_ms, lap.to_ms)
    fields: dict[str, Any] = {
        "interval": lap.interval,
        "from_ms": lap.from_ms,
        "to_ms": lap.to_ms,
        "corridor": target,
        "stopped": stopped,
    }
    if lap.to_ms - lap.from_ms < FEWEST * 1000:
        return Turn(**fields, skipped=True)
    if len(inside) < FEWEST:
        return Turn(**fields, lost=True)
    average = fmean(inside)
    fields |= {"average": average, "highest": max(inside)}
    if target:
        fields["share"] = share_in(lap, target, trace)
        fields["place"] = (average - target[0]) / (target[1] - target[0])
    return Turn(**fields)


def _between(trace: Trace, from_ms: int, to_ms: int) -> list[int]:
    """The good readings of a stretch of time; the trace is in order."""
    return [
        bpm
        for _, bpm in trace[bisect_left(trace, (from_ms,)) : bisect_left(trace, (to_ms,))]
        if good(bpm)
    ]


def share_in(lap: Lap, target: tuple[float, float], trace: Trace) -> float | None:
    """Share of clean seconds of a work inside the corridor; for works under a minute, twenty seconds later.

    The heart at work lags: in a short work it arrives where the work has sent it when the work is over.
    """
    shift = LAG_MS if lap.to_ms - lap.from_ms < SHORT_S * 1000 else 0
    seen = _between(trace, lap.from_ms + shift, lap.to_ms + shift)
    if len(seen) < FEWEST:
        return None
    return sum(target[0] <= bpm <= target[1] for bpm in seen) / len(seen)


class Places(NamedTuple):
    """In how many turns a heart was over its box and under it, of all in which it was read."""

    over: int
    turns: int
    under: int


def turns_over(turns: Iterable[Turn]) -> Places:
    """Where a heart was in the turns in which it was read."""
    placed = [one.place for one in turns if one.place is not None]
    return Places(
        sum(place > 1 for place in placed), len(placed), sum(place < 0 for place in placed)
    )


class Fold(Value):
    """A person's turns laid on one axis: seconds from the work's start, beats a minute or None where lost."""

    turn: int
    points: tuple[tuple[int, int | None], ...]


def folded(
    timeline: Timeline, state: Class, trace: Trace, block: int, person: int | None = None
) -> list[Fold]:
    """All of a person's turns in a block laid on one another, each with the rest that followed it."""
    beats = {at // 1000: bpm for at, bpm in trace}
    folds = []
    for nth, (interval, lap) in enumerate(works(timeline, state, person)):
        if interval.block != block:
            continue
        until = _rest_end(timeline, state, lap, person)
        first = lap.from_ms // 1000
        points = tuple(
            (second - first, bpm if bpm is not None and good(bpm) else None)
            for second in range(first, until // 1000 + 1)
            for bpm in (beats.get(second),)
        )
        folds.append(Fold(turn=nth + 1, points=points))
    return folds


def _rest_end(timeline: Timeline, state: Class, lap: Lap, person: int | None) -> int:
    laps = state.laps if person is None else state.laps_of(person)
    after = [one for one in laps if one.from_ms >= lap.to_ms]
    if after and timeline.intervals[after[0].interval].phase == "rest":
        return after[0].to_ms
    return lap.to_ms
