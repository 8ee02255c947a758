"""What an interval asks of a heart: by its effort or its target, else by what is usual for its phase."""

from typing import NamedTuple

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


AFTER_WORK = 0.2  # of reserve: who stands still right after work has no heart at rest yet (ours)
USUAL_REST, USUAL_HIGHEST, AT_THRESHOLD = 62.0, 186.0, 0.78  # beats, and a share of reserve


class Own(NamedTuple):
    """Whose heart is steered: beats at rest, at the highest, and at threshold where that is known."""

    rest: float = USUAL_REST
    highest: float = USUAL_HIGHEST
    threshold: float | None = None


ANYBODY = Own()


def _share(target: Heart, own: Own) -> float:
    """The middle of a target as a share of a reserve."""
    middle = (target.low + target.high) / 2
    if target.of == "reserve":
        return middle / 100
    if target.of == "threshold" and own.threshold is None:
        return AT_THRESHOLD
    beats = {
        "bpm": middle,
        "max": middle / 100 * own.highest,
        "threshold": (own.threshold or 0) + middle,
    }[target.of]
    return min(1.0, max(0.05, (beats - own.rest) / (own.highest - own.rest)))


def steered_by(session: Session, interval: Interval) -> Heart | None:
    """The target that an interval is steered by: of work for which no effort is written."""
    if interval.phase not in ("work", "steady") or interval.effort is not None:
        return None
    return session.blocks[interval.block].heart_in(interval.round)


def interval_demand(session: Session, interval: Interval, own: Own = ANYBODY) -> float:
    """Demand of an interval as a share of reserve; where no effort is written, what is usual for its phase.

    A target of the heart asks of each what brings their own there.
    """
    target = steered_by(session, interval)
    if target:
        return _share(target, own)
    effort = interval.effort if interval.effort is not None else USUAL_EFFORT[interval.phase]
    least = AFTER_WORK if interval.phase in ("rest", "break", "change") else 0.0
    return max(least, demand(effort, interval.seconds))
