"""Tries: what a coach says where it breaks, and what comes of it; as written down before the code."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.advice.company import Company
from lovrit.core.advice.look import second_look
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import plan_text
from lovrit.core.tries.done import Most
from lovrit.core.tries.propose import Told, not_understood, proposals
from lovrit.core.tries.said import NUMBERS, read_broke

CASES = Path(__file__).parents[2] / "cases"
BROKE = tomllib.loads((CASES / "broke.toml").read_text("utf-8"))["broke"]
TRIES = tomllib.loads((CASES / "tries.toml").read_text("utf-8"))["try"]
NEVER = tomllib.loads((CASES / "never_done.toml").read_text("utf-8"))["look"]


@pytest.mark.parametrize("case", BROKE, ids=lambda case: case["said"] or "nothing")
def test_what_is_said_where_it_breaks_is_read(case: dict[str, Any]) -> None:
    found = read_broke(case["said"])
    assert found.kinds == set(case["kinds"])
    assert (found.many, found.few) == (case.get("from"), case.get("to"))


@given(st.text(max_size=60))
def test_any_words_are_read_and_sets_never_grow(text: str) -> None:
    found = read_broke(text)
    assert found.many is None or (found.few is not None and found.few < found.many)


@given(st.integers(2, 60), st.data())
def test_figures_are_read_however_they_are_said(many: int, data: st.DataObject) -> None:
    few = data.draw(st.integers(1, many - 1))
    words = {value: word for word, value in NUMBERS.items() if word not in ("sixe", "twentie")}
    said = [data.draw(st.sampled_from([f"{one}s", f"{one}"])) for one in (many, few)]
    if many in words and few in words:
        said = data.draw(st.sampled_from([said, [f"{words[many]}s", f"{words[few]}s"]]))
    verb = data.draw(st.sampled_from(["became", "->", "went down to", "turned into", "dropped to"]))
    assert read_broke(f"{said[0]} {verb} {said[1]}")[1:] == (many, few)


@pytest.mark.parametrize(
    "case", TRIES, ids=lambda case: f"{case['slate'][:40]} {case.get('broke')}"
)
def test_what_a_try_proposes(case: dict[str, Any]) -> None:
    plan = plan_text(case["slate"], shipped())
    assert not plan.problems
    told = Told(
        broke=tuple(case.get("broke", ())), score=case.get("score", ""), felt=case.get("felt")
    )
    found = proposals(plan, case.get("at", 0), told)
    kinds = [one.what for one in found]
    assert set(case.get("says", ())) <= set(kinds) and not set(case.get("never", ())) & set(kinds)
    assert bool(kinds) == bool(case.get("says"))
    for one in found:
        if one.edit is not None:
            assert not plan_text(apply_edit(case["slate"], one.edit), shipped()).problems
    if "has" in case:
        first = next(one for one in found if one.what == case["says"][0])
        assert first.edit and case["has"] in apply_edit(case["slate"], first.edit)


@given(st.floats(1.0, 2.0), st.floats(1.0, 2.0), st.integers(3, 15), st.data())
def test_a_slower_group_is_never_given_more(
    one: float, other: float, many: int, data: st.DataObject
) -> None:
    few = data.draw(st.integers(1, many - 1))
    plan = plan_text(f"as many as possible in 10:00\n  {many} pull-up\n  3 squat", shipped())
    told = Told(broke=(f"pull-ups went from {many} to {few}",))
    edits = [proposals(plan, 0, told, slower)[0].edit for slower in sorted((one, other))]
    quick, slow = (edit.value for edit in edits if edit is not None and edit.do == "amount")
    assert 1 <= slow <= quick <= few


def test_words_that_are_not_understood_are_asked_about() -> None:
    assert not_understood(Told(broke=("phone rang", "", "fives became twos"))) == ("phone rang",)


@pytest.mark.parametrize("case", NEVER, ids=lambda case: case["slate"].replace("\n", ";")[:60])
def test_what_nobody_here_has_done_is_said_before_it_is_tried(case: dict[str, Any]) -> None:
    plan = plan_text(case["slate"], shipped())
    most = {
        shipped().find(name).name: Most(**fields) for name, fields in case.get("done", {}).items()
    }  # type: ignore[union-attr]
    company = Company(done=most, classes=case.get("classes", 12), tried=case.get("tried", False))
    said = [one for one in second_look(plan, shipped(), company) if one.code == "nobody-has-done"]
    if "says" not in case:
        assert not said, [one.text for one in said]
        return
    assert any(case["says"].casefold() in one.text.casefold() for one in said), [
        one.text for one in said
    ]
    assert all(one.way and one.way.to == "try" for one in said)
