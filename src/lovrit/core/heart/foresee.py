"""What a heart will do in a session: a line by seconds, a band where eight of ten will be, each turn in figures."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body, recovery_s
from lovrit.core.heart.demand import corridor
from lovrit.core.heart.hearts import Asked, Floats, ManyHearts, company
from lovrit.core.heart.steered import Steered
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan

BAND, GATED = 64, 200  # people drawn for a picture, and for how long gated blocks last
LOW, HIGH = 0.1, 0.9
AFTER_S, SHORT_S, LAG_S = 30, 60, 20
OVER = 1.0  # beats past the box from which it is over it, and not a matter of rounding


@dataclass(frozen=True)
class TurnAhead:
    """A work as it will be: when, the target, the highest beats and how long after its end, the lowest in the rest.

    ``reached`` is whether the heart gets to the target, ``over`` whether it goes past it.
    """

    start_s: int
    end_s: int
    target: tuple[float, float] | None
    peak: float
    peak_after_end_s: int
    low_in_rest: float | None
    reached: bool | None
    over: bool = False


@dataclass(frozen=True)
class Ahead:
    """A forecast: beats a minute at 1 Hz, the band, the turns, and each block's seconds (low, likely, high)."""

    bpm: Floats
    low: Floats
    high: Floats
    turns: tuple[TurnAhead, ...]
    blocks: tuple[tuple[float, float, float], ...]


def body_of(person: Person, gain: float = 1.0) -> Body:
    """A person's heart: their own rest and highest, else what is assumed; how it moves as learnt, else as usual."""
    body = start_of(person, gain)
    fit = person.heart
    return (
        body
        if fit is None or fit.as_start
        else body.but(tau_on=fit.tau_on, tau_off=fit.tau_off, gain=fit.gain * gain)
    )


def start_of(person: Person, gain: float = 1.0) -> Body:
    """A person's heart before anything is learnt of how it moves."""
    tau_off = recovery_s(person.age)
    return Body(rest=person.rest, highest=person.highest, tau_off=tau_off, gain=gain)


def foresee(plan: Plan, person: Person, body: Body) -> Ahead:
    """The forecast of a session for one person."""
    rest_sd = 3.0 if person.rest_hr is not None else 6.0
    own = person.highest_error
    drawn = company(body, BAND, rest_sd, own)
    line = _lines(plan, person, [body])[0]
    band = np.sort(_lines(plan, person, drawn), axis=0)
    low = np.minimum(line, band[int(LOW * BAND)])
    high = np.maximum(line, band[int(HIGH * BAND)])
    turns = tuple(_turns(plan, person, line))
    return Ahead(line, low, high, turns, tuple(_lasting(plan, company(body, GATED, rest_sd, own))))


def turns_ahead(plan: Plan, person: Person, body: Body, block: int) -> tuple[TurnAhead, ...]:
    """The turns up to the end of a block, without a band, which is quick enough for every keystroke."""
    so_far = tuple(one for one in plan.timeline.intervals if one.block <= block)
    shorter = replace(plan, timeline=replace(plan.timeline, intervals=so_far))
    return tuple(_turns(shorter, person, _lines(shorter, person, [body])[0]))


def _lines(plan: Plan, person: Person, bodies: Sequence[Body]) -> Floats:
    steered = Steered(plan.session, bodies, [person.threshold_hr] * len(bodies))
    hearts = ManyHearts(bodies, celsius=plan.session.celsius)
    return hearts.line(steered.steps(plan.timeline.intervals))


def _turns(plan: Plan, person: Person, line: Floats) -> list[TurnAhead]:
    works = [one for one in plan.timeline.intervals if one.phase == "work"]
    found = []
    for nth, one in enumerate(works):
        following = works[nth + 1].start_s if nth + 1 < len(works) else len(line) - 1
        until = min(following, one.end_s + AFTER_S)
        stretch = line[one.start_s : until + 1]
        at = one.start_s + int(stretch.argmax())
        target = corridor(person, one.effort, plan.session.blocks[one.block].heart_in(one.round))
        seen = one.end_s + (LAG_S if one.seconds < SHORT_S else 0)
        highest = float(line[one.start_s : min(seen, len(line) - 1) + 1].max())
        rest = line[one.end_s : following + 1]
        found.append(
            TurnAhead(
                one.start_s,
                one.end_s,
                target,
                float(stretch.max()),
                at - one.end_s,
                float(rest.min()) if following > one.end_s else None,
                None if target is None else highest >= target[0],
                target is not None and highest > target[1] + OVER,
            )
        )
    return found


def _lasting(plan: Plan, drawn: Sequence[Body]) -> list[tuple[float, float, float]]:
    """How long each block lasts: gated ones by the totals of people who are drawn, others as they are planned."""
    found = []
    hearts = ManyHearts(drawn, celsius=plan.session.celsius)
    steered = Steered(plan.session, drawn)
    for at, laid in enumerate(plan.timeline.blocks):
        mine = [one for one in plan.timeline.intervals if one.block == at and one.seconds]
        block = plan.session.blocks[at]
        if not block.gated:
            for one in mine:
                hearts.run(one.seconds, steered.of(one))
            said = laid.forecast.time_s if laid.forecast and laid.forecast.time_s else None
            low, likely, high = said or (laid.seconds,) * 3
            found.append((float(low), float(likely), float(high)))
            continue
        total = np.zeros(len(drawn))
        for one in mine:
            gate = gate_of(plan.session, one, steered)
            if gate is None:
                hearts.run(one.seconds, steered.of(one))
                total += one.seconds
            else:
                total += hearts.until(*gate)
        a, b, c = (float(np.quantile(total, share)) for share in (LOW, 0.5, HIGH))
        found.append((a, b, c))
    return found


def gate_of(
    session: Session, one: Interval, steered: Steered
) -> tuple[float, Asked, int, int, bool] | None:
    """What ends an interval, where a heart does: beats, demand, least, most, and whether it has to come down."""
    block = session.blocks[one.block]
    pairs, asked = block.pairs, steered.of(one)
    if not pairs:
        return None
    work, rest = pairs[0].work.until_bpm, pairs[0].rest.until_bpm
    least, most = getattr(block, "least_s", 0) or 0, getattr(block, "most_s", 0) or 0
    if one.phase == "rest" and rest:
        return float(rest), asked, max(1, least), max(1, most), True
    if one.phase == "work" and work:
        return float(work), asked, max(1, least), max(1, most), False
    return None
