"""The search for fits: combinations of turned figures that bring one of a session's figures to what it must be.

Times add up over blocks, so what is missing is looked up. A ratio doesn't, so pairs are tried; the highest effort is
brought down in every block that asks for more.
"""

from bisect import bisect_right
from collections.abc import Iterable
from itertools import combinations
from math import inf
from typing import Literal

from lovrit.core.clock import ratio
from lovrit.core.fit.knobs import efforts_to
from lovrit.core.fit.variations import Change, Variation
from lovrit.core.timeline.plan import Plan
from lovrit.core.timeline.sums import Time

Goal = Literal["total", "work", "rest", "hard", "ratio", "effort"]
Combination = tuple[Variation, ...]
Nearest = dict[tuple[int, int], Variation]
MOST_FIGURES, OFFERED, LEAST_COST = 3, 4, 1
FEW = frozenset({1, 2})
NEAR = 1.03


def cost_of(combination: Combination) -> float:
    """How far a combination is from the session as it is."""
    return round(sum(one.cost for one in combination), 6)


class _Kept:
    """The nearest combination of each set of figures, so that there is a choice; none beyond ``limit`` is offered."""

    def __init__(self) -> None:
        self.limit = inf
        self._best: dict[tuple[tuple[int, str], ...], tuple[float, Combination]] = {}

    def take(self, combination: Combination) -> None:
        cost = cost_of(combination)
        if cost > self.limit:
            return
        key = tuple((part.block, knob.figure) for part in combination for knob, _ in part.turned)
        if key not in self._best or cost < self._best[key][0]:
            self._best[key] = (cost, combination)
            costs = sorted(cost for cost, _ in self._best.values())
            self.limit = costs[OFFERED - 1] if len(costs) >= OFFERED else inf

    def nearest(self) -> list[Combination]:
        """What is offered, nearest first."""
        return [one for _, one in sorted(self._best.values(), key=lambda kept: kept[0])[:OFFERED]]


def _nearest_of(found: Iterable[Combination]) -> list[Combination]:
    kept = _Kept()
    for one in found:
        kept.take(one)
    return kept.nearest()


def by_time(blocks: list[list[Variation]], time: Time, missing: int) -> list[Combination]:
    """The nearest combinations that change a time by just what is missing.

    Three blocks are looked at only as far as they could be nearer than what has been found.
    """
    figure = Change._fields.index(time)
    if time != "total":
        blocks = [list(_telling(block, figure)) for block in blocks]
    kept = _Kept()
    for one in _in_two(blocks, figure, missing):
        kept.take(one)
    for one in _in_three(blocks, figure, missing, kept):
        kept.take(one)
    return kept.nearest()


def _telling(block: list[Variation], figure: int) -> Iterable[Variation]:
    """Variations in which no figure is turned for nothing: one alone changes less or more than both."""
    alone = {id(one.turned[0][1]): one.change[figure] for one in block if len(one.turned) == 1}
    for one in block:
        change = one.change[figure]
        if len(one.turned) == 1 or all(alone[id(turn)] != change for _, turn in one.turned):
            yield one


def _in_two(blocks: list[list[Variation]], figure: int, missing: int) -> Iterable[Combination]:
    """Hits in one block, and in two."""
    for block in blocks:
        yield from ((one,) for one in block if one.change[figure] == missing)
    nearest = [_nearest(block, figure) for block in blocks]
    for left, right in combinations(range(len(blocks)), 2):
        yield from _pairs(nearest[left].values(), nearest[right], figure, missing)


def _in_three(
    blocks: list[list[Variation]], figure: int, missing: int, kept: _Kept
) -> Iterable[Combination]:
    """Hits in three blocks, a figure in each, that are nearer than what is kept; a figure costs one at least."""
    nearest = [_nearest(block, figure) for block in blocks]
    singles = [
        sorted((v for v in block.values() if len(v.turned) == 1), key=lambda v: v.cost)
        for block in nearest
    ]
    costs = [[one.cost for one in block] for block in singles]
    for first, second, third in combinations(range(len(blocks)), 3):
        for one in singles[first][: bisect_right(costs[first], kept.limit - 2 * LEAST_COST)]:
            still, left = missing - one.change[figure], kept.limit - one.cost - LEAST_COST
            for two in singles[second][: bisect_right(costs[second], left)]:
                last = nearest[third].get((still - two.change[figure], 1))
                if last:
                    yield one, two, last


def _nearest(block: list[Variation], figure: int) -> Nearest:
    """The nearest variation for each change and each number of figures turned; no other is part of a nearest whole.

    One that doesn't change the figure at all is no help beside others, and is left out.
    """
    found: Nearest = {}
    for one in block:
        key = (one.change[figure], len(one.turned))
        if not key[0]:
            continue
        if key not in found or one.cost < found[key].cost:
            found[key] = one
    return found


def _pairs(
    one: Iterable[Variation], other: Nearest, figure: int, missing: int
) -> Iterable[Combination]:
    for first in one:
        for turned in FEW:
            if len(first.turned) + turned > MOST_FIGURES:
                continue
            second = other.get((missing - first.change[figure], turned))
            if second:
                yield first, second


def by_ratio(
    plan: Plan, blocks: list[list[Variation]], to: tuple[float, float]
) -> list[Combination]:
    """The nearest combinations after which work to rest reads as it must: one or two figures, in the blocks whose rest
    is written.
    """
    work, rest = plan.sums.ratio
    said, share = ratio(*to), to[0] / to[1]

    def reads(change: Change) -> bool:
        then = rest + change.rest
        if then <= 0 or not share / NEAR <= (work + change.work) / then <= share * NEAR:
            return False
        return ratio(work + change.work, then) == said

    counted = [block for block in blocks if _counts(plan, block)]
    found: list[Combination] = [(one,) for block in counted for one in block if reads(one.change)]
    singles = [list(_smallest(block)) for block in counted]
    for left, right in combinations(singles, 2):
        found += [(one, two) for one in left for two in right if reads(one.change.plus(two.change))]
    return _nearest_of(found)


def _counts(plan: Plan, block: list[Variation]) -> bool:
    laid = plan.timeline.blocks[block[0].block] if block else None
    return bool(laid and laid.interval_block and not laid.rest_is_forecast)


def _smallest(block: list[Variation]) -> Iterable[Variation]:
    """Single turns, the nearest of each change of work and rest."""
    found: dict[Change, Variation] = {}
    for one in block:
        if len(one.turned) == 1 and (one.change not in found or one.cost < found[one.change].cost):
            found[one.change] = one
    return found.values()


def by_effort(plan: Plan, to: float) -> list[Combination]:
    """Every block that asks for more brought down to it; or, where none does, one block brought up to it."""
    asked = efforts_to(plan.session, plan.reading.blocks, to)
    turns = [Variation(knob.block, ((knob, turn),), Change(), turn.cost) for knob, turn in asked]
    if (plan.sums.top_effort or 0) > to:
        return [tuple(one for one in turns if one.turned[0][0].now > to)]
    working = (one for one in turns if plan.session.blocks[one.block].works)
    return _nearest_of((one,) for one in working)
