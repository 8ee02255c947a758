"""A heart after the class: its trace cleaned against what was really run, each work in figures, what it drifted by."""

from typing import NamedTuple

import numpy as np

from lovrit.core.crew.person import Comer, Person
from lovrit.core.heart.asked import Own
from lovrit.core.heart.clean import Cleaned, Known, clean
from lovrit.core.heart.foresee import body_of
from lovrit.core.heart.hearts import STANDING, Floats
from lovrit.core.heart.learn import Evening, lines
from lovrit.core.heart.stretches import held_highest, lengths
from lovrit.core.review.figures import Bout, Figures, drift, figures, smoothed
from lovrit.core.review.turns import Trace, works
from lovrit.core.run.account import Class
from lovrit.core.run.demands import Demands
from lovrit.core.run.frozen import Frozen
from lovrit.core.timeline.interval import Interval

NEAR = 5  # beats under a threshold that are still near it
MOST_S = 6 * 3600


class WorkOfHeart(NamedTuple):
    """A work as a heart did it: which interval, where it begins in the class (s), its figures, the effort asked."""

    interval: int
    block: int
    start_s: int
    effort: float | None
    figures: Figures


class HeartAfter(NamedTuple):
    """One person's heart in one class, at 1 Hz from the class's start: raw, cleaned, and as it was to be expected."""

    person: int
    begun_ms: int
    raw: Floats
    cleaned: Cleaned
    expected: Floats
    asked: tuple[tuple[int, float], ...]
    works: tuple[WorkOfHeart, ...]
    until_s: int
    celsius: int | None = None

    @property
    def clean_s(self) -> int:
        """Seconds that hold."""
        return int((~np.isnan(self.cleaned.clean)).sum())

    @property
    def trace(self) -> Trace:
        """The readings that hold, as they were told."""
        kept = np.flatnonzero(~np.isnan(self.cleaned.clean))
        return [
            (self.begun_ms + int(at) * 1000, round(float(self.cleaned.clean[at]))) for at in kept
        ]

    @property
    def lost(self) -> tuple[float, str]:
        """Which share of it does not hold, and mostly why."""
        seconds: dict[str, int] = {}
        for fault in self.cleaned.faults:
            seconds[fault.kind] = seconds.get(fault.kind, 0) + fault.end_s - fault.start_s + 1
        worst = max(seconds, key=lambda kind: seconds[kind], default="")
        return 1 - self.clean_s / max(1, len(self.raw)), worst

    @property
    def seen_highest(self) -> int | None:
        """The highest that was held for ten clean seconds; None where none were."""
        return held_highest(self.cleaned.clean)

    def drift_in(self, block: int) -> float | None:
        """Beats from work to work in a block at one effort; None where no drift is clear or too little is told."""
        mine = [one for one in self.works if one.block == block]
        if len({one.effort for one in mine}) > 1:
            return None
        return drift([one.figures.peak for one in mine if one.figures.peak is not None])

    def near(self, threshold: float) -> int:
        """The longest stay near a threshold or over it, in seconds; what is lost ends it."""
        with np.errstate(invalid="ignore"):
            there = self.cleaned.clean >= threshold - NEAR
        return max((length for at, length in lengths(there) if there[at]), default=0)

    def evening(self, weeks: float = 0) -> Evening:
        """It as something to learn from, so many weeks old; once somebody stopped, nobody knows what they do."""
        known = self.cleaned.clean.copy()
        known[self.until_s :] = np.nan
        return Evening(self.asked, known, weeks, self.celsius)


def heart_after(plan: Frozen, state: Class, comer: Comer, trace: Trace) -> HeartAfter | None:
    """A person's heart in a class; None where no strap of theirs told anything."""
    if not trace or state.started_ms is None:
        return None
    begun = state.started_ms
    last = min(MOST_S, max(at for at, _ in trace) // 1000 - begun // 1000)
    raw = np.full(max(1, last + 1), np.nan)
    for at, bpm in trace:
        second = at // 1000 - begun // 1000
        if 0 <= second < len(raw):
            raw[second] = bpm
    asked = asked_of(plan, state, comer, len(raw))
    expected = lines([body_of(comer)], Evening(asked, raw, celsius=plan.session.celsius))[0]
    known = Known(expected, None, comer.rest, comer.highest, steers=not comer.effort_only)
    cleaned = clean(raw, known)
    stopped = state.ever_stopped.get(comer.id)
    until = len(raw) if stopped is None else max(0, (stopped - begun) // 1000)
    done = tuple(_works(plan, state, comer.id, cleaned.clean))
    celsius = plan.session.celsius
    return HeartAfter(comer.id, begun, raw, cleaned, expected, asked, done, until, celsius)


def asked_of(
    plan: Frozen, state: Class, person: Person, seconds: int
) -> tuple[tuple[int, float], ...]:
    """What was really asked of somebody from the class's start on, step by step: (seconds, share of reserve)."""
    own = Own(person.rest, person.highest, person.threshold_hr)
    each = Demands(plan.session, plan.timeline, own).seconds(state, seconds, person.id)
    return tuple((length, float(each[at])) for at, length in lengths(each)) or ((1, STANDING),)


def _works(plan: Frozen, state: Class, person: int, clean: Floats) -> list[WorkOfHeart]:
    begun = state.started_ms or 0
    mine: list[tuple[Interval, int, int]] = [
        (one, round((lap.from_ms - begun) / 1000), round((lap.to_ms - begun) / 1000))
        for one, lap in works(plan.timeline, state, person)
    ]
    rests = [
        (round((lap.from_ms - begun) / 1000), round((lap.to_ms - lap.from_ms) / 1000))
        for lap in state.laps_of(person)
        if plan.timeline.intervals[lap.interval].phase in ("rest", "break", "change")
    ]
    found, smooth = [], smoothed(clean)
    numbers = {id(one): nth for nth, one in enumerate(plan.timeline.intervals)}
    for one, start, end in mine:
        rest = next((seconds for at, seconds in rests if abs(at - end) <= 1), 0)
        bout = Bout(max(0, start), max(0, min(end, len(clean))), rest)
        told = figures(clean, bout, smooth) if bout.end_s > bout.start_s else NOTHING
        found.append(WorkOfHeart(numbers.get(id(one), -1), one.block, start, one.effort, told))
    return found


NOTHING = Figures(None, None, None, None, None, None, 0)


def drifted(hearts: dict[int, HeartAfter]) -> dict[str, float]:
    """Who drifted upwards in some block at equal work, and by how many beats a turn: the most of their blocks."""
    found = {}
    for who, heart in hearts.items():
        drifts = [heart.drift_in(block) for block in {one.block for one in heart.works}]
        up = [one for one in drifts if one is not None and one > 0]
        if up:
            found[str(who)] = max(up)
    return found
