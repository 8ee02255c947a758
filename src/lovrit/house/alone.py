"""A session as one person does it alone on their own phone: step after step, so that it needs no house to go on.

The class's own fold is walked once with that person as everybody. What a tap ends is walked on after its usual time;
how long it really takes is the phone's to say.
"""

from math import inf
from typing import NamedTuple

from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.run.classplan import ClassPlan, Runner
from lovrit.core.run.fold import Fold
from lovrit.core.run.foretold import Moment, moment
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.lane import Lane
from lovrit.core.run.saying import part_begins
from lovrit.house.own import Versions, own_moment

MOST_STEPS = 1500
USUAL_TAP_S = 120.0  # of a step that a tap ends and nobody has a forecast for; ours
ENDED_BY_TAP = ("in", "done")
LITTLE_S = 1e-3


class AloneStep(NamedTuple):
    """A step of somebody alone. It ends by its clock of ``seconds``, or by a tap, at the latest after ``cap_s``.

    Where it rests a share of the work before, ``share`` is that; ``counts`` where rounds can be counted in it.
    ``what`` is what is done, in this person's own version; ``next`` is what a rest leads to, ``of`` and ``next_of`` by
    which line their drawing is found.
    """

    block: int
    phase: str
    says: str
    what: tuple[str, ...]
    next: tuple[str, ...]
    where: str
    ends: str
    seconds: float
    cap_s: float | None
    share: float | None
    effort: float | None
    counts: bool
    place: str
    of: str = ""
    next_of: str = ""


def alone(plan: ClassPlan, mine: Comer) -> tuple[AloneStep, ...]:
    """A session's steps for one person, from the first to the last."""
    fold = Fold(plan, [Runner(str(mine.id), letter(mine.group))])
    if not fold.take(Happening("start", "start", 0.0, {"count_in": 0.0})):
        return ()
    versions = Versions(plan.library)
    made: list[AloneStep] = []
    while fold.state.phase == "on" and len(made) < MOST_STEPS:
        going = fold.state
        lane = _mine(going, str(mine.id))
        if lane is None or lane.step is None:
            if going.next_end_ct == inf:
                break
            going.advance(going.now_s + going.next_end_ct - going.ct)
            continue
        told = own_moment(moment(going), mine, versions, out=False)
        made.append(_step(going, lane, told))
        _walk_on(fold, lane, made[-1], len(made))
    return tuple(made)


def _mine(going: Going, who: str) -> Lane | None:
    return next((lane for lane in going.lanes if who in lane.people and not lane.done), None)


def _step(going: Going, lane: Lane, told: Moment) -> AloneStep:
    step = lane.step
    assert step is not None
    tapped = step.tap in ENDED_BY_TAP and step.clock_s is None
    cap = going.floor.cap_s
    left = None if cap is None else round(going.block_ct + cap - going.ct, 3)
    lasts = float(step.likely_s or USUAL_TAP_S) if tapped else _until(going, lane) - going.ct
    return AloneStep(
        going.at,
        step.phase,
        told.says,
        _said(told, coming=False),
        _said(told, coming=True),
        told.where,
        "tap" if tapped else "clock",
        round(min(lasts, left) if left is not None else lasts, 3),
        left,
        step.share,
        step.effort,
        told.counts and not tapped,
        f"{going.at}.{lane.at}",
        _line(told, coming=False),
        _line(told, coming=True),
    )


def _until(going: Going, lane: Lane) -> float:
    """When the next thing changes by the clock alone, in class time: the end of a step, or a part of it."""
    begins = (lane.began_ct + at for at in part_begins(going, lane))
    until = min([going.next_end_ct, *(at for at in begins if at > going.ct + LITTLE_S)])
    return going.ct + USUAL_TAP_S if until == inf else until


def _said(told: Moment, *, coming: bool) -> tuple[str, ...]:
    rows = told.board.next if coming else told.board.rows
    return tuple(what.text for row in rows for what in row.what if what.text)


def _line(told: Moment, *, coming: bool) -> str:
    rows = told.board.next if coming else told.board.rows
    return next((what.station for row in rows for what in row.what if what.station), "")


def _walk_on(fold: Fold, lane: Lane, step: AloneStep, nth: int) -> None:
    """On to where the next step begins."""
    going, now = fold.state, lane.step
    to_s = going.now_s + step.seconds
    if step.ends == "tap" and now is not None:
        fold.take(
            Happening(f"tap-{nth}", now.tap, to_s, {"lane": lane.name, "person": lane.people[0]})
        )
    elif going.next_end_ct == inf:
        fold.take(Happening(f"next-{nth}", "next", to_s, {}))
    else:
        going.advance(to_s)
