"""How long gated works or rests will take a company: each one, the block, and how often the clock will end them."""

from typing import NamedTuple

import numpy as np

from lovrit.core.clock import clock
from lovrit.core.crew.person import Person
from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.foresee import GATED, HIGH, LOW, body_of, gate_of
from lovrit.core.heart.group import REST_KNOWN_SD, REST_SD
from lovrit.core.heart.hearts import ManyHearts, company
from lovrit.core.timeline.plan import Plan

OFTEN, SELDOM = 0.5, 0.05


class GatesAhead(NamedTuple):
    """Seconds of one gate and of the block (low, likely, high), and the share of gates that the clock will end."""

    each_s: tuple[float, float, float]
    block_s: tuple[float, float, float]
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
    bodies = []
    for nth, one in enumerate(steering):
        known = REST_KNOWN_SD if one.rest_hr is not None else REST_SD
        bodies += company(body_of(one), each, known, one.highest_error, skip=nth * each)
    hearts, total, gates, ended, down = ManyHearts(bodies), np.zeros(len(bodies)), [], [], True
    for it in plan.timeline.intervals:
        if it.block > block or not it.seconds:
            continue
        gate = gate_of(plan.session, it) if it.block == block else None
        if gate is None:
            hearts.run(it.seconds, interval_demand(plan.session, it))
            total += it.seconds if it.block == block else 0
            continue
        took = hearts.until(*gate)
        down = gate[4]
        total += took
        gates.append(took)
        ended.append(took >= gate[3])
    if not gates:
        return None
    return GatesAhead(_three(np.concatenate(gates)), _three(total), float(np.mean(ended)), down)


def _three(
    seconds: np.ndarray[tuple[int, ...], np.dtype[np.float64]],
) -> tuple[float, float, float]:
    low, likely, high = (float(np.quantile(seconds, at)) for at in (LOW, 0.5, HIGH))
    return low, likely, high


def gates_said(ahead: GatesAhead) -> str:
    """It in words."""
    what = "rest" if ahead.down else "work"
    low, likely, high = (clock(round(seconds / 5) * 5) for seconds in ahead.each_s)
    span = f"{low} to {high}, likely {likely}" if low != high else f"about {likely}"
    first, middle, last = (clock(round(seconds / 5) * 5) for seconds in ahead.block_s)
    block = (
        f"the block {first} to {last}, likely {middle}" if first != last else f"the block {middle}"
    )
    said = f"Each {what} takes {span}; {block}."
    if ahead.by_clock >= OFTEN:
        return f"{said} The clock ends most of them, so it is hardly a gate."
    if ahead.by_clock > SELDOM:
        return f"{said} The clock ends about {round(100 * ahead.by_clock)} in 100."
    return said
