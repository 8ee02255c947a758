"""What a class asks of hearts from second to second, for simulated straps and forecasts."""

from bisect import bisect_right

import numpy as np

from lovrit.core.heart.asked import ANYBODY, Own, interval_demand
from lovrit.core.heart.hearts import Floats
from lovrit.core.run.account import Class
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Timeline

STANDING = 0.12


class Demands:
    """Demands of a class by moment, from the laps that were really run; on a heart of its ``own``, or on anybody's."""

    def __init__(self, session: Session, timeline: Timeline, own: Own = ANYBODY) -> None:
        self._by_interval = [interval_demand(session, one, own) for one in timeline.intervals]

    def seconds(self, state: Class, count: int, person: int) -> Floats:
        """Demands on a person in each of so many seconds from the class's start on."""
        found = np.full(count, STANDING)
        begun = (state.started_ms or 0) // 1000
        for lap in state.laps_of(person):
            first, last = lap.from_ms // 1000 - begun, lap.to_ms // 1000 - begun
            found[max(0, first) : max(0, last)] = self._by_interval[lap.interval]
        for from_ms, to_ms in state.away.get(person, ()):
            end = count if to_ms is None else max(0, to_ms // 1000 - begun)
            found[max(0, from_ms // 1000 - begun) : end] = STANDING
        return found

    def at(self, state: Class, at_ms: int, person: int | None = None) -> float:
        """Demand on a person at a moment; between laps, or once stopped, people stand."""
        if person is not None and state.is_out(person, at_ms - 1):
            return STANDING
        laps = state.laps if person is None else state.laps_of(person)
        nth = bisect_right(laps, at_ms, key=lambda lap: lap.from_ms) - 1
        if nth < 0 or at_ms > laps[nth].to_ms:
            return STANDING
        return self._by_interval[laps[nth].interval]
