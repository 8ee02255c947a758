"""Fits: the nearest sessions in which a figure is what it must be, and only what may give has given.

Every session is looked at in which at most three figures change, at most two of them in one block, each to a sayable
value; of those that do it, the nearest are offered. So what is offered is the nearest there is, and where nothing is
offered, there is nothing. Zero breaks and changes are left as they are.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import combinations, takewhile
from math import inf
from typing import Literal

from lovrit.core.clock import clock, ratio
from lovrit.core.fit.knobs import GIVES, Give, Knob, Turn, knobs
from lovrit.core.fit.variations import Sums, Variation, variations
from lovrit.core.moves.library import Library
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Edit, LineEdit
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import LovritError, Value

Goal = Literal["total", "work", "rest"]
MOST_FIGURES, OFFERED, LEAST_COST = 3, 4, 1
FEW = frozenset({1, 2})


class CannotFit(LovritError):
    """A wish that says nothing that could be solved."""


class Wish(Value):
    """What a figure must be, in seconds, and what may give for it."""

    figure: Goal = "total"
    seconds: int
    gives: frozenset[Give] = frozenset(GIVES)


@dataclass(frozen=True)
class Fit:
    """A session that does it: its slate, what changed in words, its figures, and how far it is from before."""

    slate: str
    plan: Plan
    changes: tuple[str, ...]
    edits: tuple[Edit, ...]
    cost: float

    @property
    def feel(self) -> str:
        """The work and the ratio that it comes to."""
        timeline = self.plan.timeline
        return f"{clock(timeline.work_s)} of work, {ratio(timeline.work_s, timeline.rest_s)} work to rest"


@dataclass(frozen=True)
class Least:
    """What must give besides, where nothing does it: the sentence, and what it names."""

    text: str
    gives: tuple[Give, ...]


@dataclass(frozen=True)
class Fits:
    """The fits, nearest first; ``least`` where there are none."""

    fits: tuple[Fit, ...]
    least: Least | None = None


def fit(text: str, plan: Plan, wish: Wish, library: Library) -> Fits:
    """The nearest sessions that do it.

    Raises:
        CannotFit: if there is nothing on the clock, or no time is wished for.
    """
    if plan.problems or not plan.timeline.intervals:
        raise CannotFit("There has to be a session that can be read before it can be fitted.")
    if not 30 <= wish.seconds <= 12 * 3600:
        raise CannotFit("Say a time between half a minute and twelve hours.")
    found = _search(plan, wish, library)
    if found:
        return Fits(tuple(_made(text, one, plan, library) for one in _offered(found)))
    if _now(plan, wish.figure) == wish.seconds:
        return Fits((Fit(text, plan, ("nothing: it is so already",), (), 0.0),))
    return Fits((), _least(plan, wish, library))


def _now(plan: Plan, figure: Goal) -> int:
    timeline = plan.timeline
    return {"total": timeline.total_s, "work": timeline.work_s, "rest": timeline.rest_s}[figure]


Combination = tuple[Variation, ...]


def _all(plan: Plan, gives: frozenset[Give], library: Library) -> list[list[Variation]]:
    turnable = knobs(plan.session, plan.reading.blocks, gives)
    blocks = plan.session.blocks
    return [list(variations(at, blocks[at], turnable[at], library)) for at in range(len(blocks)) if turnable[at]]


def _search(plan: Plan, wish: Wish, library: Library) -> list[Combination]:
    """Combinations that change the figure by just what is missing, nearest first.

    Three blocks are looked at only as far as they could be nearer than what two of them offer already.
    """
    missing = wish.seconds - _now(plan, wish.figure)
    if not missing:
        return []
    blocks = _all(plan, wish.gives, library)
    found = sorted(_in_two(blocks, wish.figure, missing), key=cost_of)
    offered = _offered(found)
    limit = cost_of(offered[-1]) if len(offered) == OFFERED else inf
    return sorted([*found, *_in_three(blocks, wish.figure, missing, limit)], key=cost_of)


def cost_of(combination: Combination) -> float:
    """How far a combination is from the session as it is."""
    return round(sum(one.cost for one in combination), 6)


def _in_two(blocks: list[list[Variation]], figure: Goal, missing: int) -> Iterable[Combination]:
    """Hits in one block, and in two."""
    for block in blocks:
        yield from ((one,) for one in block if _of(one.change, figure) == missing)
    nearest = [_nearest(block, figure) for block in blocks]
    for left, right in combinations(range(len(blocks)), 2):
        yield from _pairs(nearest[left].values(), nearest[right], figure, missing)


def _in_three(blocks: list[list[Variation]], figure: Goal, missing: int, limit: float) -> Iterable[Combination]:
    """Hits in three blocks, a figure in each, that are nearer than the limit; a figure costs one at least."""
    nearest = [_nearest(block, figure) for block in blocks]
    singles = [sorted((v for v in block.values() if len(v.turned) == 1), key=lambda v: v.cost) for block in nearest]
    for first, second, third in combinations(range(len(blocks)), 3):
        for one in singles[first]:
            still, left = missing - _of(one.change, figure), limit - one.cost - LEAST_COST
            near = takewhile(lambda two, left=left: two.cost <= left, singles[second])  # type: ignore[misc]
            for two in near:
                last = nearest[third].get((still - _of(two.change, figure), 1))
                if last:
                    yield one, two, last


def _of(change: Sums, figure: Goal) -> int:
    return change.total if figure == "total" else change.work if figure == "work" else change.rest


Nearest = dict[tuple[int, int], Variation]


def _nearest(block: list[Variation], figure: Goal) -> Nearest:
    """The nearest variation for each change and each number of figures turned; no other is part of a nearest whole.

    One that doesn't change the figure at all is no help beside others, and is left out.
    """
    found: Nearest = {}
    for one in block:
        key = (_of(one.change, figure), len(one.turned))
        if not key[0]:
            continue
        if key not in found or one.cost < found[key].cost:
            found[key] = one
    return found


def _pairs(one: Iterable[Variation], other: Nearest, figure: Goal, missing: int) -> Iterable[Combination]:
    for first in one:
        for turned in FEW:
            if len(first.turned) + turned > MOST_FIGURES:
                continue
            second = other.get((missing - _of(first.change, figure), turned))
            if second:
                yield first, second


def _offered(found: list[Combination]) -> list[Combination]:
    """The nearest of each set of figures first, so that there is a choice; then the nearest of what is left."""
    seen: set[tuple[tuple[int, str], ...]] = set()
    chosen: list[Combination] = []
    for one in found:
        key = tuple((part.block, knob.figure) for part in one for knob, _ in part.turned)
        if key not in seen:
            seen.add(key)
            chosen.append(one)
        if len(chosen) == OFFERED:
            break
    return chosen


def _made(text: str, combination: Combination, before: Plan, library: Library) -> Fit:
    turned = [(knob, turn) for one in combination for knob, turn in one.turned]
    edits = [edit for _, turn in turned for edit in turn.edits]
    for edit in sorted(edits, key=lambda edit: isinstance(edit, LineEdit)):
        text = apply_edit(text, edit)
    plan = plan_text(text, library)
    said = tuple(_said(knob, turn, before) for knob, turn in turned)
    return Fit(text, plan, said, tuple(edits), cost_of(combination))


def _said(knob: Knob, turn: Turn, before: Plan) -> str:
    """A turn in words; which block's, where several have such a figure."""
    places = before.reading.blocks
    alike = sum(knob.figure in place.figures for place in places)
    if alike < 2 or knob.figure == "total":
        return turn.said
    return f"{turn.said}, in {before.timeline.blocks[knob.block].label}"


def _least(plan: Plan, wish: Wish, library: Library) -> Least:
    """The least that must give besides; else how near what may give comes."""
    others = [give for give in GIVES if give not in wish.gives]
    for more in (1, 2):
        tried = []
        for extra in combinations(others, more):
            found = _search(plan, wish.model_copy(update={"gives": wish.gives | set(extra)}), library)
            if found:
                tried.append((cost_of(found[0]), extra))
        if tried:
            _, extra = min(tried)
            return Least(f"Nothing does it unless {' and '.join(extra)} may give too.", extra)
    reached = _reached(plan, wish, library)
    return Least(f"Nothing does it; the nearest that can be reached is {clock(reached)}.", ())


def _reached(plan: Plan, wish: Wish, library: Library) -> int:
    """The value nearest to the wish that one block alone can bring, whatever may give."""
    now = _now(plan, wish.figure)
    changes = (_of(one.change, wish.figure) for block in _all(plan, frozenset(GIVES), library) for one in block)
    return min((now, *(now + change for change in changes)), key=lambda value: abs(value - wish.seconds))
