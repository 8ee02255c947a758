"""How long gated works or rests will take a company: each one, the block, and how often the clock will end them."""

from typing import NamedTuple

import numpy as np

from lovrit.core.clock import clock
from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body
from lovrit.core.heart.foresee import GATED, HIGH, LOW, body_of, gate_of
from lovrit.core.heart.group import REST_KNOWN_SD, REST_SD
from lovrit.core.heart.hearts import ManyHearts, company
from lovrit.core.heart.steered import Steered
from lovrit.core.timeline.plan import Plan

OFTEN, SELDOM = 0.5, 0.05


class GatesAhead(NamedTuple):
    """Seconds of one gate, the block and the session (low, likely, high), and how many gates the clock will end."""

    each_s: tuple[float, float, float]
    block_s: tuple[float, float, float]
    session_s: tuple[float, float, float]
    by_clock: float
    down: bool


def foresee_gates(plan: Plan, people: list[Person], block: int) -> GatesAhead | None:
    """What a gated block will take people like these, after the blocks before it; None where no heart steers in it.

    Quantiles are of the totals of so many drawn people, never sums of quantiles.
    """
    steering = [one for one in people if not one.effort_only]
    if not steering or not plan.session.blocks[block].gated:
        return None
    each = max(1, GATED // len(steering))
    bodies: list[Body] = []
    for nth, one in enumerate(steering):
        known = REST_KNOWN_SD if one.rest_hr is not None else REST_SD
        bodies += company(body_of(one), each, known, one.highest_error, skip=nth * each)
    hearts, gates, ended, down = ManyHearts(bodies, celsius=plan.session.celsius), [], [], True
    steered = Steered(plan.session, bodies)
    mine, whole = np.zeros(len(bodies)), np.zeros(len(bodies))
    for it in plan.timeline.intervals:
        gate = gate_of(plan.session, it, steered) if it.seconds else None
        took = np.full(len(bodies), float(it.seconds)) if gate is None else hearts.until(*gate)
        if gate is None and it.seconds:
            hearts.run(it.seconds, steered.of(it))
        whole += took
        if it.block == block:
            mine += took
        if it.block == block and gate is not None:
            down = gate[4]
            gates.append(took)
            ended.append(took >= gate[3])
    if not gates:
        return None
    each_s = _three(np.concatenate(gates))
    return GatesAhead(each_s, _three(mine), _three(whole), float(np.mean(ended)), down)


def _three(
    seconds: np.ndarray[tuple[int, ...], np.dtype[np.float64]],
) -> tuple[float, float, float]:
    low, likely, high = (float(np.quantile(seconds, at)) for at in (LOW, 0.5, HIGH))
    return low, likely, high


def gates_said(ahead: GatesAhead) -> str:
    """It in words."""
    what = _span(f"each {'rest' if ahead.down else 'work'} takes", ahead.each_s)
    rest = f"{_span('the block', ahead.block_s)}; {_span('the session', ahead.session_s)}."
    said = f"{what[0].upper()}{what[1:]}; {rest}"
    if ahead.by_clock >= OFTEN:
        return f"{said} The clock ends most of them, so it is hardly a gate."
    if ahead.by_clock > SELDOM:
        return f"{said} The clock ends about {round(100 * ahead.by_clock)} in 100."
    return said


def _span(what: str, three: tuple[float, float, float]) -> str:
    low, likely, high = (clock(round(seconds / 5) * 5) for seconds in three)
    return f"{what} {low} to {high}, likely {likely}" if low != high else f"{what} {likely}"
