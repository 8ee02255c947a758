"""Forms as they stand on boards: read as what they are, written back the same, or asked."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.moves.library import shipped
from lovrit.core.session.reader import read
from lovrit.core.session.session import Session
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked, plain

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "forms.toml").read_text("utf-8"))


@pytest.mark.parametrize("case", CASES["read"], ids=lambda case: case["text"].split("\n")[0])
def test_a_form_is_read_as_what_it_is(case: dict[str, Any]) -> None:
    plan = plan_text(case["text"], shipped())
    assert not plan.problems, plan.problems[0].text
    (block,) = plan.session.blocks
    assert block.kind == case["kind"]
    assert "total" not in case or plan.sums.total_s == case["total"]
    fields = plain(block)
    for name, value in case.get("has", {}).items():
        assert fields[name] == value
    written = write(plan.session)
    assert read(written).session == plan.session, written
    assert checked(Session, plain(plan.session)) == plan.session


@pytest.mark.parametrize("case", CASES["asked"], ids=lambda case: case["text"].split("\n")[0])
def test_what_is_not_said_is_asked(case: dict[str, Any]) -> None:
    problems = read(case["text"]).problems
    assert problems and problems[0].text
