"""What an interval asks of a heart: by its effort or its target, else by what is usual for its phase."""

from lovrit.core.heart.demand import demand
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval

USUAL_EFFORT: dict[str, float] = {
    "work": 7,
    "rest": 2,
    "break": 1.5,
    "change": 2,
    "lead-in": 4,
    "steady": 3,
}


def interval_demand(session: Session, interval: Interval) -> float:
    """Demand of an interval as a share of reserve; where no effort is written, what is usual for its phase."""
    target = session.blocks[interval.block].heart_in(interval.round)
    if interval.phase == "work" and interval.effort is None and target and target.of == "reserve":
        return (target.low + target.high) / 200
    effort = interval.effort if interval.effort is not None else USUAL_EFFORT[interval.phase]
    return demand(effort, interval.seconds)
