"""The same session a little further every week: named things grow by steps that can be said, rests shrink.

Hard work grows by a tenth a week at most, counted from the first week, so that a step too large for one week waits
until its share has come; every third or fourth week is easier. Figures are coaches' practice, to be checked.
"""

from collections.abc import Callable, Iterator
from typing import Literal, NamedTuple, get_args

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.strength import Strength
from lovrit.core.clock import clock, number
from lovrit.core.fit.knobs import GIVES, Knob, knobs
from lovrit.core.moves.library import Library
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Ease, Edit, ReplaceBlock, SetAmount, SetFigure
from lovrit.core.session.reader import read
from lovrit.core.session.writer import block_lines, write
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import LovritError

Thing = Literal["rounds", "reps", "work", "load", "level", "rest"]
THINGS: tuple[Thing, ...] = get_args(Thing)
MOST_WEEKS = 26
A_WEEK, ABOUT = 1.10, 0.02  # a tenth a week; a step of an eighth waits one week longer
LEVEL_WEEKS = 4  # beginners stay so long on one level, and so does everybody else
LEAST_REST_S, MOST_WORK_S, STEP_S = 10, 180, 5
# from so long on a work grows by so much: what can be said on a clock (coaches' practice, to be checked)
LONG_STEPS_S = ((300, 30), (120, 15))
MOST_LONG_S = 12 * 60
# whoever begins, children and older people rest at least so much of what they work
SPARED, LEAST_SHARE = frozenset({"beginners", "children", "older"}), 0.5
HEAVIER = {"kg": 2.5, "lb": 5.0, "%": 2.5}
BELLS_KG, MOST_SHARE = 4.0, 92.5
A_POINT = 1.0
ALL_OUT = 9.5  # from here on a shorter rest makes it another session


Judge = Callable[[Plan, Plan], str]


class NoSeries(LovritError):
    """A series that can't be made; the sentence says why."""


class Week(NamedTuple):
    """One week of a series: its slate, what has changed in it, and its minutes of hard work."""

    week: int
    slate: str
    changes: tuple[str, ...]
    hard_min: float


class Step(NamedTuple):
    """A step that can be said: the edits that write it, and how much more of its own thing it is (1 for none)."""

    said: str
    edits: tuple[Edit, ...]
    share: float = 1.0


def series(
    text: str,
    weeks: int,
    grow: tuple[Thing, ...],
    easier: int,
    library: Library,
    begins: int = 1,
    judge: Judge | None = None,
) -> tuple[Week, ...]:
    """A session over so many weeks; ``easier`` is every how manieth week takes some off, 0 for none.

    ``begins`` is the number of the first of them, where a series goes on from a week that was changed by hand;
    ``judge`` says why a week would not be sound beside the first, so that its step is held back.

    Raises:
        NoSeries: where the session can't be read, or nothing is named to grow.
    """
    first = plan_text(text, library)
    if first.problems:
        raise NoSeries(f"Line {first.problems[0].line}: {first.problems[0].text}")
    if not grow or not 1 <= weeks <= MOST_WEEKS or not 0 <= easier <= MOST_WEEKS:
        raise NoSeries(
            f"A series is of 1 to {MOST_WEEKS} weeks, and something of {', '.join(THINGS)} grows."
        )
    base = plan_text(
        write(first.session), library
    )  # as the slate writes it, so that every figure has its place
    now, grown, since = base, 1, dict.fromkeys(THINGS, begins)
    found = [_week(begins, base, ("as it is",))]
    for nth in range(begins + 1, begins + weeks):
        if easier and nth % easier == 0:
            found.append(_week(nth, *_easier(now, library)))
            continue
        now, said, taken = _further(base, now, nth, grown, grow, since, library, judge)
        since |= {taken: nth} if taken else {}
        grown += 1
        found.append(_week(nth, now, said))
    return tuple(found)


def _week(nth: int, plan: Plan, changes: tuple[str, ...]) -> Week:
    return Week(nth, write(plan.session), changes, round(plan.sums.hard_s / 60, 2))


def main_block(plan: Plan) -> int | None:
    """The block that a series is about: the one with the most hard work, else the most work, else the longest."""
    laid = plan.timeline.blocks
    hard = plan.sums.hard_by_block
    worth = {
        at: (hard.get(at, 0), laid[at].work_s if block.works else 0, laid[at].seconds)
        for at, block in enumerate(plan.session.blocks)
        if block.works or block.kind == "steady"
    }
    return max(worth, key=lambda at: worth[at], default=None)


def _further(
    base: Plan,
    now: Plan,
    nth: int,
    grown: int,
    grow: tuple[Thing, ...],
    since: dict[Thing, int],
    library: Library,
    judge: Judge | None = None,
) -> tuple[Plan, tuple[str, ...], Thing | None]:
    """The first step of those named that may be taken this week; else why each is held back."""
    at = main_block(now)
    limit = A_WEEK**grown
    held: list[str] = []
    start = (grown - 1) % len(grow)
    for thing in (*grow[start:], *grow[:start]):
        if at is None:
            held.append(f"{thing} held: nothing in it grows")
            continue
        if waits := _waits(thing, now, at, nth - since[thing]):
            held.append(f"{thing} held: {waits}")
            continue
        for step in STEPS[thing](now, base, at, library):
            after = _taken(now, step, library)
            why = "nothing to say further" if after is None else _too_much(base, after, step, limit)
            if after is not None and not why and judge and (doubt := judge(base, after)):
                why = f"questioned: {doubt[:1].lower()}{doubt[1:]}"
            if after is not None and not why:
                return after, (step.said,), thing
            held.append(f"{thing} held: {step.said} would be {why}")
            break
        else:
            held.append(f"{thing} held: no further step can be said")
    return now, tuple(held), None


def _waits(thing: Thing, now: Plan, at: int, weeks: int) -> str:
    """Why a thing takes no step at all, ``weeks`` after its last; empty where it may."""
    if thing == "level" and weeks < LEVEL_WEEKS:
        return f"{LEVEL_WEEKS} weeks on one level at the least"
    if thing == "rest" and _is_least(now, at):
        return "at least half of the work, for who begins, children and older people"
    if thing == "rest" and (now.session.blocks[at].top_asked or 0.0) >= ALL_OUT:
        return "at all-out it is the rest that makes the next one all-out"
    return ""


def _taken(now: Plan, step: Step, library: Library) -> Plan | None:
    text = write(now.session)
    for edit in step.edits:
        text = apply_edit(text, edit)
    after = plan_text(text, library)
    return None if after.problems else after


def _too_much(base: Plan, after: Plan, step: Step, limit: float) -> str:
    """Why a step is more than a week may bring; empty where it isn't."""
    more = max(_load(after) / max(1, _load(base)), step.share, _dense(after) / (_dense(base) or 1))
    if more > limit + ABOUT:
        return f"{round((more - 1) * 100)} % more than the first week; {round((limit - 1) * 100)} % may be by now"
    spare = after.sums.spare_s
    return "too long: there is no room in the slot" if spare is not None and spare < 0 else ""


def _dense(plan: Plan) -> float:
    """How much of its work and rests the main block works; 0 where it has neither."""
    at = main_block(plan)
    laid = None if at is None else plan.timeline.blocks[at]
    return laid.work_s / max(1, laid.work_s + laid.rest_s) if laid else 0.0


def _is_least(now: Plan, at: int) -> bool:
    """Whether a rest is as short as it may be for the people that the session is for."""
    figures = read(write(now.session)).blocks[at].figures
    if not SPARED & set(now.session.whom) or not {"work", "rest"} <= figures.keys():
        return False
    return figures["rest"].value - STEP_S < LEAST_SHARE * figures["work"].value


def _load(plan: Plan) -> int:
    """What is held to a tenth a week: hard work, else work, else all of it."""
    return plan.sums.hard_s or plan.sums.work_s or plan.sums.total_s


def _easier(now: Plan, library: Library) -> tuple[Plan, tuple[str, ...]]:
    """A week with some taken off: a round fewer, a point lower."""
    text, said = write(now.session), []
    at = main_block(now)
    fewer = next((one for one in _turned(now, at, ("rounds", "sets", "count"), -1)), None)
    if fewer and 2 * _load(plan_text(_edited(text, fewer.edits), library)) > _load(now):
        text = _edited(text, fewer.edits)  # one of two would be half of it
        said.append(fewer.said)
    top = now.sums.top_effort
    if top is not None and top > 5:
        text = apply_edit(text, Ease(block=None, most=top - A_POINT))
        said.append(f"effort {number(top - A_POINT)} at most")
    told = ", ".join(said) or "the same, gently"
    return plan_text(text, library), (f"easier week: {told}",)


def _edited(text: str, edits: tuple[Edit, ...]) -> str:
    for edit in edits:
        text = apply_edit(text, edit)
    return text


# steps, one thing each; the first that can be said


def _turned(plan: Plan, at: int | None, figures: tuple[str, ...], by: int) -> Iterator[Step]:
    """The next value of a figure of the block, up or down."""
    for knob in _knobs_of(plan, at):
        if knob.figure in figures:
            further = [one for one in knob.turns if (one.value - knob.now) * by > 0]
            nearest = min(further, key=lambda one: abs(one.value - knob.now), default=None)
            if nearest:
                yield Step(nearest.said, nearest.edits)


def _knobs_of(plan: Plan, at: int | None) -> list[Knob]:
    if at is None:
        return []
    return knobs(plan.session, read(write(plan.session)).blocks, frozenset(GIVES))[at]


def _rounds(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    del base, library
    yield from _turned(now, at, ("rounds", "sets", "count"), 1)
    if now.session.blocks[at].kind == "every":
        yield from _longer(now, at)


def _longer(now: Plan, at: int) -> Iterator[Step]:
    """A whole block longer by a minute, or by its period."""
    figures = read(write(now.session)).blocks[at].figures
    if "total" in figures:
        total = round(figures["total"].value)
        more = total + max(60, round(figures["period"].value) if "period" in figures else 60)
        edit = SetFigure(block=at, figure="total", value=more)
        yield Step(f"{clock(total)} → {clock(more)}", (edit,))


def _work(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    del base, library
    longer = _long_work(now, at)
    if longer:
        yield longer
        return
    for step in _turned(now, at, ("work", "step"), 1):
        (edit,) = step.edits
        if isinstance(edit, SetFigure) and edit.value <= MOST_WORK_S:
            yield step
    yield from _longer(now, at)


def _long_work(now: Plan, at: int) -> Step | None:
    """A work of minutes, longer to the next quarter or half of one."""
    figure = read(write(now.session)).blocks[at].figures.get("work")
    work = round(figure.value) if figure else 0
    by = next((by for least, by in LONG_STEPS_S if work >= least), 0)
    more = (work // by + 1) * by if by else 0
    if not by or more > MOST_LONG_S:
        return None
    return Step(
        f"work {clock(work)} → {clock(more)}", (SetFigure(block=at, figure="work", value=more),)
    )


def _rest(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    del base, library
    block = now.session.blocks[at]
    for step in _turned(now, at, ("rest",), -1):
        (edit,) = step.edits
        if isinstance(edit, SetFigure) and edit.value >= LEAST_REST_S:
            yield step
            return
    rest = getattr(block, "rest_s", None)
    if block.kind == "strength" and rest and rest - 5 >= LEAST_REST_S:
        yield _rewritten(at, block.but(rest_s=rest - 5), f"rest {clock(rest)} → {clock(rest - 5)}")


def _reps(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    del library
    block, before = now.session.blocks[at], base.session.blocks[at]
    if isinstance(block, Strength) and isinstance(before, Strength) and block.reps and before.reps:
        now_, first = block.reps.high, before.reps.high
        more = block.but(reps=block.reps.but(low=block.reps.low + 1, high=now_ + 1))
        yield _rewritten(at, more, f"reps {now_} → {now_ + 1}", (now_ + 1) / first)
        return
    lines = [(nth, reps) for nth, line in enumerate(block.moves) if (reps := _reps_of(line))]
    if lines:
        by = 1 if max(reps for _, reps in lines) <= 12 else 2
        firsts = [_reps_of(line) or 1 for line in before.moves]
        edits = tuple(SetAmount(block=at, move=nth, value=reps + by) for nth, reps in lines)
        said = ", ".join(f"{reps:g} → {reps + by:g}" for _, reps in lines)
        share = min((reps + by) / firsts[nth] for nth, reps in lines)
        yield Step(f"reps {said}", edits, share)


def _reps_of(line: Line) -> float:
    amount = line.tasks[0].amount
    return amount.values[0] if amount and amount.unit == "reps" and amount.form == "one" else 0


def _weight(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    block, before = now.session.blocks[at], base.session.blocks[at]
    heavier, told, share = [], [], 1.0
    for line, first in zip(block.moves, before.moves, strict=True):
        task, was = line.tasks[0], first.tasks[0].load
        load, by = task.load, _heavier(line, library)
        if load and was and by and load.form == was.form == "one":
            value = load.values[0] + by
            told.append(f"{number(load.values[0])} → {number(value)} {load.unit}")
            share = max(share, value / was.values[0])
            task = task.but(load=load.but(values=(value,)))
        heavier.append(line.but(tasks=(task, *line.tasks[1:])))
    if told:
        yield _rewritten(at, block.but(moves=tuple(heavier)), ", ".join(told), share)


def _heavier(line: Line, library: Library) -> float:
    """The next step of a line's load, in its unit: bells are four kilograms apart; 0 where there is none."""
    load = line.tasks[0].load
    if load is None or (load.unit == "%" and load.values[0] >= MOST_SHARE):
        return 0
    if load.unit == "kg" and "bell" in library.kit_of(line.tasks[0].name):
        return BELLS_KG
    return HEAVIER.get(load.unit, 0)


def _level(now: Plan, base: Plan, at: int, library: Library) -> Iterator[Step]:
    """A harder way of the first move that has one: the line's own, else the library's."""
    del base
    block = now.session.blocks[at]
    for nth, line in enumerate(block.moves):
        task = line.tasks[0]
        own = next((way.name for way in task.harder if way.name), "")
        move = library.find(task.name)
        known = f"{move.name} {move.harder[0]}" if move and move.harder else ""
        name = own or known
        if name and name != task.name:
            harder = task.but(name=name, harder=task.harder[1:])
            moves = (
                *block.moves[:nth],
                line.but(tasks=(harder, *line.tasks[1:])),
                *block.moves[nth + 1 :],
            )
            yield _rewritten(at, block.but(moves=moves), f"{task.name} becomes {name}")
            return


def _rewritten(at: int, block: Block, said: str, share: float = 1.0) -> Step:
    text = "\n".join(block_lines(block))
    return Step(said, (ReplaceBlock(block=at, text=text),), share)


STEPS: dict[Thing, Callable[[Plan, Plan, int, Library], Iterator[Step]]] = {
    "rounds": _rounds,
    "reps": _reps,
    "work": _work,
    "load": _weight,
    "level": _level,
    "rest": _rest,
}
