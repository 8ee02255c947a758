"""When a step of a series waits, as written down before the code."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.run.outcome import Outcome
from lovrit.core.values import checked
from lovrit.core.weeks.held import weigh

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "held_back.toml").read_text("utf-8"))


@pytest.mark.parametrize("case", CASES["week"], ids=str)
def test_a_step_waits_where_a_week_was_too_much(case: dict[str, Any]) -> None:
    given_week = {name: value for name, value in case.items() if name not in ("held", "unknown")}
    found = weigh(checked(Outcome, given_week))
    assert case.get("held", "") in found.held and bool(found.held) == ("held" in case)
    assert bool(found.unknown) == case.get("unknown", False)


@given(st.integers(1, 40), st.data())
def test_more_that_went_wrong_never_lets_a_step_go_on(came: int, data: st.DataObject) -> None:
    stopped = data.draw(st.integers(0, came))
    felt = tuple(data.draw(st.lists(st.integers(4, 10).map(float), max_size=came)))
    week = Outcome(came=came, stopped=stopped, asked=7.0, felt=felt)
    if weigh(week).held:
        assert weigh(week.but(stopped=came)).held
        assert weigh(week.but(felt=tuple(10.0 for _ in felt))).held
