"""What an interval asks of a heart: by its effort or its target, else by what is usual for its phase."""

from lovrit.core.blocks.parts import Heart
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


USUAL_REST, USUAL_HIGHEST, AT_THRESHOLD = 62.0, 186.0, 0.78  # beats, and a share of reserve


def _share(target: Heart) -> float:
    """The middle of a target as a share of a usual person's reserve."""
    middle = (target.low + target.high) / 2
    if target.of == "reserve":
        return middle / 100
    if target.of == "threshold":
        return AT_THRESHOLD
    beats = middle if target.of == "bpm" else middle / 100 * USUAL_HIGHEST
    return min(1.0, max(0.05, (beats - USUAL_REST) / (USUAL_HIGHEST - USUAL_REST)))


def interval_demand(session: Session, interval: Interval) -> float:
    """Demand of an interval as a share of reserve; where no effort is written, what is usual for its phase."""
    target = session.blocks[interval.block].heart_in(interval.round)
    if interval.phase in ("work", "steady") and interval.effort is None and target:
        return _share(target)
    effort = interval.effort if interval.effort is not None else USUAL_EFFORT[interval.phase]
    return demand(effort, interval.seconds)
