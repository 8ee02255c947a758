"""Tries: what a coach says where it breaks, and what comes of it; as written down before the code."""

import re
import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.advice.company import Company
from lovrit.core.advice.look import second_look
from lovrit.core.forecast.learned import Quickness
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import plan_text
from lovrit.core.tries.done import Most
from lovrit.core.tries.propose import not_understood, proposals
from lovrit.core.tries.said import NUMBERS, read_broke
from lovrit.core.tries.scale import scaled, slower_than
from lovrit.core.tries.seen import Told

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


def test_a_testers_rate_is_scaled_to_the_group_with_a_wider_band() -> None:
    plan = plan_text("as many as possible in 10:00\n  8 swing\n  8 push-up\n  8 squat", shipped())
    likely = plan.timeline.blocks[0].forecast.rounds[1]  # type: ignore[union-attr, index]
    usual, quick = Quickness(), Quickness(factor=0.8, rests_on=12)
    as_forecast = scaled(plan, 0, f"{likely:.0f} + 0", usual)
    half = scaled(plan, 0, f"{likely / 2:.0f} + 0", usual)
    by_quick = scaled(plan, 0, f"{likely:.0f} + 0", quick)
    assert as_forecast and half and by_quick
    low, high = (int(one) for one in re.findall(r"(\d+) to (\d+)", as_forecast.said)[0])
    alone_low, alone_high = (
        int(one) for one in re.findall(r"(\d+) to (\d+)", as_forecast.alone)[0]
    )
    assert low <= alone_low and high >= alone_high
    middles = [int(one.said.rsplit(" ", 1)[1]) for one in (as_forecast, half, by_quick)]
    assert middles[0] == round(likely) and middles[1] < middles[0] and middles[2] < middles[0]
    assert scaled(plan, 0, "", usual) is None


@given(
    st.lists(
        st.builds(Quickness, factor=st.floats(0.6, 1.6), rests_on=st.integers(0, 30)), max_size=20
    )
)
def test_a_slower_group_takes_longer_than_its_tester(group: list[Quickness]) -> None:
    usual = slower_than(None, group, 1.0)
    assert usual >= 1.0
    slow = [one.but(factor=one.factor * 1.2) for one in group]
    assert slower_than(None, slow, 1.0) >= usual - 1e-9
    assert slower_than(Quickness(factor=0.7, rests_on=9), group, 1.0) >= usual
