"""Forty requests of fit, recast and warm-up, held to what a coach would answer."""

import tomllib
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.advice.look import second_look
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.worktime import line_s
from lovrit.core.fit.fit import Fit, Fits, fit
from lovrit.core.moves.library import shipped
from lovrit.core.moves.move import Move
from lovrit.core.recast.portion import covers
from lovrit.core.recast.prepare import warm_up
from lovrit.core.recast.recast import Recast, recast
from lovrit.core.slate.line import Amount
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.formats.fit_wish import wish_of

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "requests.toml").read_text("utf-8"))
LIBRARY = shipped()


def fitted(case: dict[str, Any]) -> tuple[Plan, Fits]:
    plan = plan_text(case["slate"], LIBRARY)
    assert not plan.problems, plan.problems
    must = dict(case["must"])
    given = {name: must.pop(name, "") for name in ("give", "keep")}
    ((goal, value),) = must.items()
    return plan, fit(case["slate"], plan, wish_of({goal: value} | given, None), LIBRARY)


def ends_with_its_last_line(block: Block) -> bool:
    return not isinstance(block, Every) or not (block.total_s // block.period_s) % len(block.moves)


def eased(before: Plan, one: Fit) -> bool:
    lower = (one.plan.sums.top_effort or 0) < (before.sums.top_effort or 0)
    return lower or any("effort" in said for said in (*one.changes, *one.cautions))


# what each check of the list asks of a fit
FITS: dict[str, Callable[[Plan, Fit, Any], bool]] = {
    "stations": lambda _, one, least: all(
        len(block.moves) >= least for block in one.plan.session.blocks if block.rotates
    ),
    "cycles": lambda _, one, so: all(map(ends_with_its_last_line, one.plan.session.blocks)) == so,
    "sayable": lambda _, one, so: (
        all(i.seconds % 5 == 0 for i in one.plan.timeline.intervals) == so
    ),
    "whole": lambda _, one, so: (
        all(not b.repeats or b.repeats.times.high >= 2 for b in one.plan.session.blocks) == so
    ),
    "work_s": lambda _, one, seconds: (
        {i.seconds for i in one.plan.timeline.intervals if i.phase == "work"} == {seconds}
    ),
    "most_effort": lambda _, one, most: (one.plan.sums.top_effort or 0) <= most,
    "slot": lambda _, one, so: (
        (one.feel.over_s > 0) == so == any("slot" in said for said in one.cautions)
    ),
    "eased": lambda before, one, so: eased(before, one) == so,
    "turned": lambda _, one, names: (
        {edit.figure for edit in one.edits if hasattr(edit, "figure")} <= set(names)
    ),
}


@pytest.mark.parametrize("case", CASES["fit"], ids=lambda case: case["name"])
def test_a_fit_keeps_what_makes_a_session_what_it_is(case: dict[str, Any]) -> None:
    before, found = fitted(case)
    assert found.fits, found
    for nth, one in enumerate(found.fits):
        checks = case.get("every", {}) | (case.get("first", {}) if nth == 0 else {})
        for name, value in checks.items():
            assert FITS[name](before, one, value), (name, one.changes, one.cautions)
    told = " ".join((found.instead, *found.fits[0].changes, *found.fits[0].cautions))
    for words in case.get("said", ()):
        assert words in told, told


def moves_of(block: Block) -> list[tuple[Move, Amount | None]]:
    tasks = [task for line in block.moves for task in line.tasks]
    found = [(LIBRARY.find(task.name), task.amount) for task in tasks]
    assert all(move for move, _ in found), tasks
    return [(move, amount) for move, amount in found if move]


def by_reps(amount: Amount | None) -> bool:
    return bool(amount and amount.unit == "reps")


def easily(made: Recast, seconds: int) -> bool:
    fresh = all(
        amount.values[-1] <= max(1, move.fresh / 2)
        for move, amount in moves_of(made.block)
        if amount and by_reps(amount) and move.counted == "reps"
    )
    return fresh and all((line_s(line, LIBRARY) or 0) <= seconds for line in made.block.moves)


def pairs(old: Block, made: Recast) -> list[tuple[Move, Move]]:
    both = zip(moves_of(old), moves_of(made.block), strict=True)
    return [(was, now) for (was, _), (now, _) in both]


# what each check of the list asks of a recast
RECASTS: dict[str, Callable[[Block, Recast, Any], bool]] = {
    "most_effort": lambda _, made, most: (made.block.top_effort or 0) <= most,
    "machines": lambda _, made, so: (
        so == all(not by_reps(amount) for move, amount in moves_of(made.block) if covers(move))
    ),
    "reach": lambda _, made, seconds: easily(made, seconds),
    "most_reps": lambda _, made, most: all(
        amount.values[-1] <= most for _, amount in moves_of(made.block) if amount
    ),
    "reps": lambda _, made, so: any("reps" in said for said in made.changes) == so,
    "time": lambda _, made, within: abs(made.after.total_s - made.before.total_s) <= within,
    "cap": lambda _, made, so: bool(made.block.ends_together or made.block.races) == so,
    "seconds": lambda _, made, so: (
        so == all(bool(amount and amount.unit == "s") for _, amount in moves_of(made.block))
    ),
    "patterns": lambda old, made, so: (
        so == all(was.pattern == now.pattern for was, now in pairs(old, made))
    ),
    "landing": lambda old, made, so: (
        so == all(was.impact == "high" or now.impact != "high" for was, now in pairs(old, made))
    ),
}


@pytest.mark.parametrize("case", CASES["recast"], ids=lambda case: case["name"])
def test_a_recast_asks_what_people_can_do(case: dict[str, Any]) -> None:
    plan = plan_text(case["slate"], LIBRARY)
    made = recast(case["slate"], plan, 0, case["to"], LIBRARY)
    for name, value in case["checks"].items():
        assert RECASTS[name](plan.session.blocks[0], made, value), (name, made.slate, made.changes)


@pytest.mark.parametrize("case", CASES["warm"], ids=lambda case: case["name"])
def test_a_warm_up_prepares_for_what_comes(case: dict[str, Any]) -> None:
    made = warm_up(plan_text(case["slate"], LIBRARY), LIBRARY)
    assert made
    whole = plan_text(f"{made}\n\n{case['slate']}", LIBRARY)
    notes = second_look(whole, LIBRARY)
    assert not whole.problems, (made, whole.problems)
    if "words" in case:
        assert any(word in made for word in case["words"]), made
    assert not any(word in made for word in case.get("not", ())), made
    for note in notes:
        block = note.block
        assert block is None or block >= made.count("\n\n") + 1 or note.level == "tell", (
            made,
            note,
        )
