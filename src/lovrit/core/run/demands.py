"""What a class asks of hearts from second to second, for simulated straps and forecasts."""

from bisect import bisect_right

from lovrit.core.heart.demand import demand
from lovrit.core.run.account import Class
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval, Timeline

UNSAID: dict[str, float] = {
    "work": 7,
    "rest": 2,
    "break": 1.5,
    "change": 2,
    "lead-in": 4,
    "steady": 3,
}
STANDING = 0.12


def interval_demand(session: Session, interval: Interval) -> float:
    """Demand of an interval as a share of reserve; where no effort is written, what is usual for its phase."""
    target = session.blocks[interval.block].heart
    if interval.phase == "work" and interval.effort is None and target and target.of == "reserve":
        return (target.low + target.high) / 200
    effort = interval.effort if interval.effort is not None else UNSAID[interval.phase]
    return demand(effort, interval.seconds)


class Demands:
    """Demands of a class by moment, from the laps that were really run."""

    def __init__(self, session: Session, timeline: Timeline) -> None:
        self._by_interval = [interval_demand(session, one) for one in timeline.intervals]

    def at(self, state: Class, at_ms: int, person: int | None = None) -> float:
        """Demand on a person at a moment; between laps, or once stopped, people stand."""
        if person is not None and state.stopped.get(person, at_ms) < at_ms:
            return STANDING
        laps = state.laps if person is None else state.laps_of(person)
        nth = bisect_right(laps, at_ms, key=lambda lap: lap.from_ms) - 1
        if nth < 0 or at_ms > laps[nth].to_ms:
            return STANDING
        return self._by_interval[laps[nth].interval]
