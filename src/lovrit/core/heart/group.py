"""What a company's hearts will do in a block, each in their own reserve: the middle, the band, and who gets to the box.

People are so unlike in beats that only shares of one's own reserve can be laid on one another.
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lovrit.core.blocks.parts import Heart
from lovrit.core.crew.person import Person
from lovrit.core.heart.demand import corridor
from lovrit.core.heart.foresee import HIGH, LAG_S, LOW, OVER, SHORT_S, body_of
from lovrit.core.heart.hearts import Floats, ManyHearts, company
from lovrit.core.heart.steered import Steered
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan

DRAWN = 48  # people drawn for the band, as many of each who comes as make about so many
NO_BOX = (np.nan, np.nan)
PHASES = ("work", "steady", "rest")  # what may have a box
REST_SD, REST_KNOWN_SD = 6.0, 3.0


class Box(NamedTuple):
    """A target on the clock, in seconds of the session and shares of reserve; the middle of all who steer by it."""

    start_s: int
    end_s: int
    low: float
    high: float


class TurnOfAll(NamedTuple):
    """A work as a company will do it: how many get to their box, of how many that have one; where the middle peaks.

    ``over`` of them go over their box.
    """

    start_s: int
    end_s: int
    reached: int
    steer: int
    peak: float
    peak_after_end_s: int
    over: int = 0


@dataclass(frozen=True)
class CompanyAhead:
    """Shares of reserve at 1 Hz from ``start_s`` on: the middle, and the band where eight of ten will be."""

    start_s: int
    middle: Floats
    low: Floats
    high: Floats
    boxes: tuple[Box, ...]
    turns: tuple[TurnOfAll, ...]
    steer: int
    by_effort: int
    gated: bool


def foresee_company(plan: Plan, people: list[Person], block: int | None) -> CompanyAhead | None:
    """A block as these people's hearts will go through it after those before it, or all of them where none is named.

    None where no heart steers, or there is nothing on the clock.
    """
    steering = [one for one in people if not one.effort_only]
    if not steering:
        return None
    so_far = [one for one in plan.timeline.intervals if block is None or one.block <= block]
    mine = [one for one in so_far if block is None or one.block == block]
    if not mine:
        return None
    bodies = [body_of(one) for one in steering]
    each = max(1, round(DRAWN / len(steering)))
    for nth, one in enumerate(steering):
        known = REST_KNOWN_SD if one.rest_hr is not None else REST_SD
        bodies += company(bodies[nth], each, known, one.highest_error, skip=nth * each)
    own_of_each = [one.threshold_hr for one in steering]
    drawn_of_each = [one.threshold_hr for one in steering for _ in range(each)]
    steered = Steered(plan.session, bodies, [*own_of_each, *drawn_of_each])
    lines = ManyHearts(bodies, celsius=plan.session.celsius).line(steered.steps(so_far))
    rest = np.array([body.rest for body in bodies])[:, None]
    span = np.array([body.highest for body in bodies])[:, None] - rest
    own = lines[: len(steering)]
    shares = np.sort(((lines - rest) / span)[len(steering) :, mine[0].start_s :], axis=0)
    middle, low, high = (shares[int(at * (len(shares) - 1))] for at in (0.5, LOW, HIGH))
    targets = _Targets(plan, steering)
    boxes = tuple(_boxes(targets, mine))
    turns = tuple(_turns(targets, own, middle, mine))
    by_effort, gated = (
        len(people) - len(steering),
        block is not None and plan.session.blocks[block].gated,
    )
    return CompanyAhead(
        mine[0].start_s, middle, low, high, boxes, turns, len(steering), by_effort, gated
    )


def _target(plan: Plan, one: Interval) -> tuple[float | None, Heart | None]:
    """What an interval asks: the effort and the target of work, or what is written of its rest."""
    block = plan.session.blocks[one.block]
    if one.phase == "rest":
        return None, block.rest_heart
    return one.effort, block.heart_in(one.round)


class _Targets:
    """Everybody's own box by what an interval asks, in beats a minute; most intervals of a session ask the same."""

    def __init__(self, plan: Plan, people: list[Person]) -> None:
        self.plan, self.people = plan, people
        self._known: dict[tuple[float | None, Heart | None], Floats] = {}
        self._rest = np.array([one.rest for one in people])[:, None]
        self._span = np.array([one.highest for one in people])[:, None] - self._rest

    def of(self, one: Interval) -> Floats:
        """A row for each person, from and to; not numbers where somebody has no box in it."""
        asked = _target(self.plan, one)
        if asked not in self._known:
            boxes = [corridor(person, *asked) or NO_BOX for person in self.people]
            self._known[asked] = np.array(boxes)
        return self._known[asked]

    def middle(self, one: Interval) -> tuple[float, float] | None:
        """The middle of all boxes in shares of each one's reserve; None where nobody has one."""
        if one.phase not in PHASES or (one.phase == "rest" and _target(self.plan, one)[1] is None):
            return None
        shares = (self.of(one) - self._rest) / self._span
        shares = shares[~np.isnan(shares[:, 0])]
        if not len(shares):
            return None
        low, high = np.median(shares, axis=0)
        return round(float(low), 3), round(float(high), 3)


def _boxes(targets: _Targets, mine: list[Interval]) -> list[Box]:
    middles: dict[tuple[str, tuple[float | None, Heart | None]], tuple[float, float] | None] = {}
    found: list[Box] = []
    for one in mine:
        key = (one.phase, _target(targets.plan, one))
        if key not in middles:
            middles[key] = targets.middle(one)
        box = middles[key]
        if box:
            found.append(Box(one.start_s, one.end_s, *box))
    return found


def _turns(targets: _Targets, own: Floats, middle: Floats, mine: list[Interval]) -> list[TurnOfAll]:
    works = [one for one in mine if one.phase == "work"]
    start, end = mine[0].start_s, mine[-1].end_s
    found = []
    for nth, one in enumerate(works):
        box = targets.of(one)
        seen = min(one.end_s + (LAG_S if one.seconds < SHORT_S else 0), end)
        tops = own[:, one.start_s : seen + 1].max(axis=1)
        following = works[nth + 1].start_s if nth + 1 < len(works) else end
        stretch = middle[one.start_s - start : min(following, one.end_s + 30) - start + 1]
        at = int(stretch.argmax())
        found.append(
            TurnOfAll(
                one.start_s,
                one.end_s,
                int((tops >= box[:, 0]).sum()),
                int((~np.isnan(box[:, 0])).sum()),
                float(stretch[at]),
                one.start_s + at - one.end_s,
                int((tops > box[:, 1] + OVER).sum()),
            )
        )
    return found
