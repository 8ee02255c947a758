"""Hearts of a class as the coach's screen draws them: each person in their own corridor."""

from typing import Any, Literal

from lovrit.core.clock import number
from lovrit.core.crew.dose import eased, hard_works
from lovrit.core.crew.paces import within
from lovrit.core.crew.person import Comer
from lovrit.core.heart.demand import corridor
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import Frozen
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.sums import HARD
from lovrit.core.values import Value

How = Literal["in", "under", "over", "rising", "resting", "lost", "effort", "stopped", "waiting"]
LAG_S = 45  # a heart at work lags: so long into a work it may still be climbing
BOX_TOP, BOX_BOTTOM = 32.0, 60.0

WORDS = 11  # percent of the width, left of the threads, for what their heights mean


class Bead(Value):
    """A person's heart on a thread. ``y`` runs from 0 at the top to 100; ``how`` is how it is drawn.

    ``asked`` is what one goes by whose heart doesn't steer: a word, and the effort or the pace.
    """

    person: int
    initials: str
    name: str
    group: int
    x: float
    y: float = 0
    how: How
    bpm: int = 0
    asked: tuple[str, str] = ("effort", "–")


class Hearts(Value):
    """All threads, and where the corridor's box stands (percent from the top)."""

    beads: tuple[Bead, ...]
    box_top: float
    box_height: float
    over: tuple[str, ...]
    calls: tuple[str, ...] = ()


def hearts_view(
    plan: Frozen, state: Class, comers: tuple[Comer, ...], beats: dict[int, int]
) -> Hearts:
    """The threads: each person in their own corridor, the lag of a heart at work taken into account."""
    work = _work_near(plan, state)
    step = (100 - WORDS) / max(1, len(comers))
    beads = tuple(
        _lagging(
            plan,
            state,
            _bead(
                plan, state, comer, work, beats.get(comer.id), round(WORDS + (nth + 0.5) * step, 3)
            ),
        )
        for nth, comer in enumerate(comers)
    )
    over = tuple(bead.name for bead in beads if bead.how == "over")
    return Hearts(beads=beads, box_top=BOX_TOP, box_height=BOX_BOTTOM - BOX_TOP, over=over)


def _lagging(plan: Frozen, state: Class, bead: Bead) -> Bead:
    """Under early in a work is still climbing, and under in a rest is coming down: neither is too little."""
    if bead.how != "under" or state.phase != "on":
        return bead
    now = plan.timeline.intervals[min(state.interval, len(plan.timeline.intervals) - 1)]
    if now.phase not in ("work", "steady"):
        return bead.but(how="resting")
    lap = state.laps_of(bead.person)[-1:]
    into_s = (state.now_ms - lap[0].from_ms) / 1000 if lap else 0
    return bead.but(how="rising") if into_s < LAG_S else bead


def _y(person: Comer, target: tuple[float, float], bpm: float) -> float:
    """Percent from the top: a thread runs from a person's rest to their highest, the corridor in the middle third."""
    low, high = target
    if bpm < low:
        share = max(0.0, (bpm - person.rest) / max(1.0, low - person.rest))
        return round(100 - (100 - BOX_BOTTOM) * share, 2)
    if bpm <= high:
        return round(BOX_BOTTOM - (BOX_BOTTOM - BOX_TOP) * (bpm - low) / max(1.0, high - low), 2)
    share = min(1.0, (bpm - high) / max(6.0, person.highest - high))
    return round(BOX_TOP * (1 - share), 2)


def _work_near(plan: Frozen, state: Class) -> Interval | None:
    """The work that the corridor is of: this one, or in a rest the one before."""
    intervals = plan.timeline.intervals
    at = min(state.interval, len(intervals) - 1)
    for one in (*reversed(intervals[: at + 1]), *intervals[at + 1 :]):
        block = plan.session.blocks[one.block]
        if one.phase in ("work", "steady") and (
            one.effort is not None or block.heart or block.pace
        ):
            return one
    return None


def _bead(
    plan: Frozen, state: Class, comer: Comer, work: Interval | None, bpm: int | None, x: float
) -> Bead:
    fields: dict[str, Any] = {
        "person": comer.id,
        "initials": comer.initials,
        "name": comer.name,
        "group": comer.group,
        "x": x,
    }
    if comer.id in state.stopped:
        return Bead(**fields, how="stopped")
    target = _target(plan, comer, work) if work else None
    if comer.effort_only or target is None:
        return Bead(**fields, how="effort", asked=_asked(plan, comer, work))
    if bpm is None:
        return Bead(**fields, how="waiting")
    if bpm == 0:
        return Bead(**fields, how="lost")
    place = (bpm - target[0]) / (target[1] - target[0])
    how: How = "over" if place > 1.04 else "under" if place < 0 else "in"
    y = _y(comer, target, bpm)
    return Bead(**fields, how=how, y=y if how == "over" else max(BOX_TOP, y), bpm=bpm)


def _target(plan: Frozen, comer: Comer, work: Interval) -> tuple[float, float] | None:
    """Their corridor in a work; where not all of the hard work is theirs, that of their share."""
    heart = plan.session.blocks[work.block].heart_in(work.round)
    if not comer.share or work.effort is None or work.effort < HARD:
        return corridor(comer, work.effort, heart)
    before = len(hard_works(one for one in plan.timeline.intervals if one.start_s < work.start_s))
    own = eased(comer.share, work.effort, before)
    return corridor(comer, own, heart if own == work.effort else None)


def _asked(plan: Frozen, comer: Comer, work: Interval | None) -> tuple[str, str]:
    """What somebody goes by without a heart: the effort, or their own of the pace that is asked for."""
    pace = plan.session.blocks[work.block].pace if work else None
    own = within(comer.paces, pace.low, pace.high) if pace else ()
    if own:
        return own[0].unit, own[0].figure
    return "effort", number(work.effort) if work and work.effort is not None else "–"
