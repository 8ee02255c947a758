"""What scores say that somebody can do, held to the cases that were written down before."""

import tomllib
from datetime import date
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.moves.library import shipped
from lovrit.core.review.can import UNITS, Shown, facts_of, shown_by
from lovrit.core.timeline.plan import plan_text

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "can_do.toml").read_text("utf-8"))


@pytest.mark.parametrize(
    "case", CASES["score"], ids=lambda case: case["slate"].replace("\n  ", ", ")
)
def test_a_score_says_what_it_says_and_no_more(case: dict[str, Any]) -> None:
    plan = plan_text(case["slate"], shipped())
    assert not plan.problems or "shows" not in case, plan.problems[0].text
    block = next((one for one in plan.session.blocks if one.works), None)
    told = shown_by(block, case["said"], shipped()) if block else None
    if "shows" not in case:
        assert told is None
        return
    assert told and [told.what, pytest.approx(told.value, abs=0.06), told.unit] == case["shows"]
    assert told.name == case["move"]


@pytest.mark.parametrize("case", CASES["several"], ids=lambda case: str(case["said"]))
def test_several_evenings_are_one_fact(case: dict[str, Any]) -> None:
    what = case["what"]
    told = [
        (date.fromisoformat(day), Shown("x", "x", what, float(value), UNITS[what]))
        for day, value in case["days"]
    ]
    (fact,) = facts_of(told, date(2026, 12, 1))
    assert [fact.shown.value, fact.sure] == case["has"]
    assert len(fact.days) == len(case["days"]) and fact.since >= fact.days[0][0]
