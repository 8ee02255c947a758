"""Fits: the nearest sessions in which a figure is what it must be, and only what may give has given.

For a time, every session is looked at in which at most three figures change, at most two of them in one block, each to
a sayable value; for a ratio, at most two. Of those that do it, the nearest are offered. So what is offered is the
nearest there is, and where nothing is offered, there is nothing. Zero breaks and changes are left as they are.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from math import inf
from typing import Annotated

from pydantic import Field

from lovrit.core.clock import clock, number, ratio
from lovrit.core.fit.cautions import at_one_effort, past_slot
from lovrit.core.fit.feel import Feel, feel
from lovrit.core.fit.knobs import GIVES, Give, Knob, Setting, in_cycles, in_place, knobs
from lovrit.core.fit.search import OFFERED, Combination, Goal, by_effort, by_ratio, by_time, cost_of
from lovrit.core.fit.variations import Variation, variations
from lovrit.core.moves.library import Library
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Edit, LineEdit
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.timeline.sums import TIMES, Time
from lovrit.core.values import LovritError, Value

BESIDE = "No step of five seconds meets that;"
FORETOLD = "Reps take as long as they take: these come within half a minute of {}."
# turning that is much for seconds of a forecast, and how much less of it is worth them; ours
MUCH, SEVERAL = 4.0, 0.75
FEW_BLOCKS = 8
CYCLES = "No whole round of the lines of a task a minute meets that;"
STEP_S, MOST_BESIDE_S = 30, 240
LEAST_S, MOST_S = 30, 12 * 3600
MOST_BLOCKS, MOST_LINES = 50, 150  # combinations grow with the cube of what can be turned
OF_USE: dict[Goal, tuple[Give, ...]] = {
    "total": tuple(give for give in GIVES if give != "effort"),
    "work": ("rounds", "work", "stations", "reps"),
    "rest": ("rounds", "work", "rest", "stations", "reps"),
    "hard": ("rounds", "work", "stations", "reps", "effort"),
    "ratio": ("rounds", "work", "rest", "stations"),
    "effort": ("effort",),
}


class CannotFit(LovritError):
    """A wish that says nothing that could be solved."""


class Wish(Value):
    """What a figure must be, and what may give for it: a time in seconds, work ``to`` rest, or the highest effort."""

    figure: Goal = "total"
    seconds: int = 0
    to: tuple[float, float] = (0, 0)
    effort: Annotated[float, Field(ge=0, le=10)] = 0
    gives: frozenset[Give] = frozenset(GIVES)


@dataclass(frozen=True)
class Fit:
    """A session that does it: its slate, what changed in words, what that does to it, how far it is from before.

    ``cautions`` are what to mind with it.
    """

    slate: str
    plan: Plan
    changes: tuple[str, ...]
    edits: tuple[Edit, ...]
    cost: float
    feel: Feel
    cautions: tuple[str, ...] = ()


@dataclass(frozen=True)
class Least:
    """What must give besides, where nothing does it: the sentence, and what it names."""

    text: str
    gives: tuple[Give, ...]


@dataclass(frozen=True)
class Fits:
    """The fits, nearest first; ``least`` where there are none.

    ``instead`` says what they come to where that is seconds beside the wish, which no step of five meets.
    """

    fits: tuple[Fit, ...]
    least: Least | None = None
    instead: str = ""


def fit(text: str, plan: Plan, wish: Wish, library: Library) -> Fits:
    """The nearest sessions that do it.

    Raises:
        CannotFit: if there is nothing on the clock, or nothing is wished for that a session can be.
    """
    if plan.problems or not plan.timeline.intervals:
        raise CannotFit("There has to be a session that can be read before it can be fitted.")
    tasks = sum(len(line.tasks) for block in plan.session.blocks for line in block.moves)
    if len(plan.session.blocks) > MOST_BLOCKS or tasks > MOST_LINES:
        raise CannotFit(
            f"A fit is looked for in up to {MOST_BLOCKS} blocks and {MOST_LINES} moves, and this has more."
        )
    _check(plan, wish)
    if _is_so(plan, wish):
        same = feel(plan, plan)
        return Fits(
            (Fit(text, plan, ("nothing: it is so already",), (), 0.0, same, past_slot(plan)),)
        )
    ways = _Ways(plan, library)
    found = _search(wish, ways)
    said = ""
    for beside, why in _beside(plan, wish) if not found else ():
        found = _search(beside, ways)
        if found:
            said = f"{why} these come to {clock(beside.seconds)}."
            break
    if wish.figure == "total" and (not found or cost_of(found[0]) > MUCH) and _is_forecast(plan):
        found, said = _about(wish, ways, found, said)
    if found:
        return Fits(tuple(_made(text, one, plan, library) for one in found), None, said)
    return Fits((), _least(wish, ways))


def _beside(plan: Plan, wish: Wish) -> Iterator[tuple[Wish, str]]:
    """Times near to the wish, nearest first, with why it is not met: steps of five seconds, whole rounds of lines.

    Where turns are by reps their work is a forecast of odd seconds, and no step of five brings the rest to a whole one;
    a task a minute ends with its last line.
    """
    if wish.figure in ("work", "rest", "hard"):
        off = (_now(plan, wish.figure) - wish.seconds + 2) % 5 - 2
        if off:
            yield wish.but(seconds=wish.seconds + off), BESIDE
    if wish.figure == "total" and any(in_cycles(block) for block in plan.session.blocks):
        for by in range(STEP_S, MOST_BESIDE_S + 1, STEP_S):
            yield wish.but(seconds=wish.seconds - by), CYCLES
            yield wish.but(seconds=wish.seconds + by), CYCLES


def _is_forecast(plan: Plan) -> bool:
    """Whether a part of its length is only foretold: then nobody needs it to the second.

    Of many blocks some bring it to the second for little, and looking beside would take seconds.
    """
    few = len(plan.session.blocks) <= FEW_BLOCKS
    return few and any(one.low_s < one.high_s for one in plan.timeline.blocks)


def _about(
    wish: Wish, ways: "_Ways", found: list[Combination], said: str
) -> tuple[list[Combination], str]:
    """What comes within half a minute, where the wish to the second takes far more turning, or can't be met."""
    dearest = SEVERAL * cost_of(found[0]) if found else inf
    times = [wish.seconds + by for by in range(-STEP_S, STEP_S + 1) if by]
    beside = [one for at in times for one in _search(wish.but(seconds=at), ways)]
    kept: dict[frozenset[tuple[int, str]], Combination] = {}
    for one in sorted((one for one in beside if cost_of(one) < dearest), key=cost_of):
        figures = frozenset((part.block, knob.figure) for part in one for knob, _ in part.turned)
        if not any(fewer <= figures for fewer in kept):
            kept[figures] = one
    if not kept:
        return found, said
    return list(kept.values())[:OFFERED], FORETOLD.format(clock(wish.seconds))


def _check(plan: Plan, wish: Wish) -> None:
    least = 0 if wish.figure == "hard" else LEAST_S
    if wish.figure in TIMES and not least <= wish.seconds <= MOST_S:
        raise CannotFit("Say a time between half a minute and twelve hours.")
    if wish.figure == "effort" and wish.effort < 1:
        raise CannotFit("Say an effort from 1 to 10.")
    if wish.figure == "ratio":
        if min(wish.to) <= 0 or max(wish.to) > 100:
            raise CannotFit("Say work to rest as two numbers, such as 2 : 1.")
        if not all(plan.sums.ratio):
            raise CannotFit("Nothing in this session has both a work and a rest that are written.")


def _is_so(plan: Plan, wish: Wish) -> bool:
    if wish.figure == "ratio":
        return ratio(*plan.sums.ratio) == ratio(*wish.to)
    if wish.figure == "effort":
        return plan.sums.top_effort == wish.effort
    return _now(plan, wish.figure) == wish.seconds


def _now(plan: Plan, figure: Time) -> int:
    timeline = plan.timeline
    return {
        "total": timeline.total_s,
        "work": timeline.work_s,
        "rest": timeline.rest_s,
        "hard": plan.sums.hard_s,
    }[figure]


class _Ways:
    """Each block of a plan with its knobs turned every way: measured once for all that is tried with what may give."""

    def __init__(self, plan: Plan, library: Library) -> None:
        self.plan, self.library = plan, library
        self._known: dict[frozenset[Give], list[list[Variation]]] = {}

    def of(self, gives: frozenset[Give]) -> list[list[Variation]]:
        """The variations of each block that has some."""
        if gives not in self._known:
            self._known[gives] = _all(self.plan, gives, self.library)
        return self._known[gives]


def _all(plan: Plan, gives: frozenset[Give], library: Library) -> list[list[Variation]]:
    turnable = knobs(plan.session, plan.reading.blocks, gives)
    blocks = plan.session.blocks
    found = []
    for at, block in enumerate(blocks):
        nest = plan.session.nest_of(at)
        if nest and nest.copies(at):
            continue  # its lines are turned with those of the first time
        turns = in_place(turnable[at]) if nest else turnable[at]
        if turns:
            all_ = variations(at, block, turns, library)
            found.append([one.done(nest.times) for one in all_] if nest else list(all_))
    return found


def of_use(figure: Goal) -> tuple[Give, ...]:
    """What can give for a figure: effort is nothing to a clock, and a break nothing to the work."""
    return OF_USE[figure]


def _search(wish: Wish, ways: _Ways) -> list[Combination]:
    """The nearest combinations that do it, nearest first."""
    plan = ways.plan
    gives = wish.gives & set(of_use(wish.figure))
    if wish.figure == "effort":
        return by_effort(plan, wish.effort) if gives else []
    blocks = ways.of(gives)
    if wish.figure == "ratio":
        return by_ratio(plan, blocks, wish.to)
    return by_time(blocks, wish.figure, wish.seconds - _now(plan, wish.figure))


def _made(text: str, combination: Combination, before: Plan, library: Library) -> Fit:
    turned = [(knob, turn) for one in combination for knob, turn in one.turned]
    edits = [edit for _, turn in turned for edit in turn.edits]
    for edit in sorted(edits, key=lambda edit: isinstance(edit, LineEdit)):
        text = apply_edit(text, edit)
    plan = plan_text(text, library)
    said = tuple(_said(knob, turn, before) for knob, turn in turned)
    cautions = (*past_slot(plan), *at_one_effort(before, plan))
    return Fit(text, plan, said, tuple(edits), cost_of(combination), feel(before, plan), cautions)


def _said(knob: Knob, turn: Setting, before: Plan) -> str:
    """A turn in words; which block's, where several have such a figure."""
    places = before.reading.blocks
    alike = sum(knob.figure in place.figures for place in places)
    if alike < 2 or knob.figure == "total":
        return turn.said
    return f"{turn.said}, in {before.timeline.blocks[knob.block].label}"


def _least(wish: Wish, ways: _Ways) -> Least:
    """The least that must give besides; else how near what may give comes."""
    others = [give for give in of_use(wish.figure) if give not in wish.gives]
    for more in (1, 2):
        tried = []
        for extra in combinations(others, more):
            found = _search(wish.but(gives=wish.gives | set(extra)), ways)
            if found:
                tried.append((cost_of(found[0]), extra))
        if tried:
            _, extra = min(tried)
            return Least(f"Nothing does it unless {' and '.join(extra)} may give too.", extra)
    return Least(f"Nothing does it; {_reached(wish, ways)}.", ())


def _reached(wish: Wish, ways: _Ways) -> str:
    """The value nearest to the wish that one block alone can bring, whatever may give."""
    plan = ways.plan
    if wish.figure == "effort":
        top = number(plan.sums.top_effort or 0)
        return f"the highest effort is {top}, and none can be brought to {number(wish.effort)}"
    blocks = ways.of(frozenset(of_use(wish.figure)))
    if wish.figure == "ratio":
        return f"the nearest that one block can bring is {_nearest_ratio(plan, wish.to, blocks)}"
    figure = wish.figure
    now = _now(plan, figure)
    changes = (getattr(one.change, figure) for block in blocks for one in block)
    reached = min(
        (now, *(now + change for change in changes)), key=lambda value: abs(value - wish.seconds)
    )
    return f"the nearest that can be reached is {clock(reached)}"


def _nearest_ratio(plan: Plan, to: tuple[float, float], blocks: list[list[Variation]]) -> str:
    work, rest = plan.sums.ratio
    changed = [
        (work + one.change.work, rest + one.change.rest) for block in blocks for one in block
    ]
    tried = [(work, rest), *(pair for pair in changed if min(pair) > 0)]
    return ratio(*min(tried, key=lambda pair: abs(pair[0] / pair[1] - to[0] / to[1])))
