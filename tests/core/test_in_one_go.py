"""What somebody does in one go, felt where it counts: on the fit sheet, on their own screens, in the club's moves."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.crew.fits import cell, ladder, put, told
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.tries.in_one_go import too_much, usual_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "in_one_go.toml").read_text("utf-8"))


def somebody(case: dict[str, Any], line: Line) -> Person:
    mosts = {key_of(name): float(value) for name, value in case["mosts"].items()}
    one = Person(id=1, name="Ana", initials="An", mosts=mosts, limits=tuple(case.get("limits", ())))
    if "chosen" not in case:
        return one
    names = [option.name for option in ladder(line, shipped(), one)]
    return put(one, line, shipped(), names.index(case["chosen"]))


def planned(slate: str) -> Plan:
    plan = plan_text(slate, shipped())
    assert not plan.problems
    return plan


@pytest.mark.parametrize("case", CASES["sheet"], ids=str)
def test_a_set_beyond_somebody_is_offered_easier_and_nothing_else_is(case: dict[str, Any]) -> None:
    blocks = planned(case["slate"]).session.blocks
    lines = [line for block in blocks for line in block.moves if not line.is_rest]
    found = [too_much(somebody(case, line), line, blocks, shipped()) for line in lines]
    said = [one.easier or "fewer" for one in found if one]
    assert said == ([case["offered"]] if case["offered"] else [])
    for line, one in zip(lines, found, strict=True):
        if one and one.at is not None:
            taken = put(somebody(case, line), line, shipped(), one.at)
            assert cell(taken, line, shipped()).does == one.easier
            assert too_much(taken, line, blocks, shipped()) is None


@pytest.mark.parametrize("case", CASES["told"], ids=str)
def test_who_goes_to_the_most_reads_how_far_they_came(case: dict[str, Any]) -> None:
    (block,) = planned(f"amrap 5:00\n  {case['line']}").session.blocks
    (said,) = told(somebody(case, block.moves[0]), block.moves[0], shipped())
    assert said == case["says"] if "says" in case else case["never"] not in said


@pytest.mark.parametrize("case", CASES["club"], ids=str)
def test_three_people_are_enough_for_what_the_club_does(case: dict[str, Any]) -> None:
    key = key_of(case["move"])
    usual = usual_of([{key: float(one)} for one in case["mosts"]], shipped())
    here = shipped().done_here(usual).find(case["move"])
    assert (here.fresh if here else 0) == case["fresh"]


@pytest.mark.parametrize(
    ("slate", "longer"),
    [
        (
            "3 rounds for quality, rest 2:00\n  max push-up",
            True,
        ),  # more are done of what has no count
        ("3 sets of 5, rest 2:00\n  max push-up", True),
        ("1 round for time\n  60 push-up", False),  # and sixty are sooner done
    ],
)
def test_what_the_club_does_is_felt_in_its_forecasts(slate: str, longer: bool) -> None:
    usual, here = (
        plan_text(slate, one).timeline.total_s
        for one in (shipped(), shipped().done_here({"push up": 40}))
    )
    assert (usual < here) is longer and usual != here
