"""Traces as other programs write them: read, or a sentence; and laid where they belong in a class."""

import tomllib
from contextlib import suppress
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.person import Person
from lovrit.core.heart.align import align, shifted
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.formats.trace_reader import NotATrace, read_traces
from tests.core.odd_hearts import trace_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "imports.toml").read_text("utf-8"))


@pytest.mark.parametrize("case", CASES["file"], ids=lambda case: case["text"][:30])
def test_a_file_is_read_or_says_why_not(case: dict[str, Any]) -> None:
    if "says" in case:
        with pytest.raises(NotATrace, match=case["says"]):
            read_traces(case["text"])
        return
    found = read_traces(case["text"])
    counts = {one.name: int((~np.isnan(one.beats)).sum()) for one in found}
    assert counts == case["people"]
    assert all(one.clock == case.get("clock", False) for one in found)
    if "first" in case:
        assert [found[0].begins_s, found[0].beats[0]] == case["first"]


@given(st.text(max_size=200))
def test_whatever_is_in_a_file_it_is_read_or_said(text: str) -> None:
    with suppress(NotATrace):
        found = read_traces(text, "Europe/Berlin")
        assert found and all(len(one.beats) for one in found)


@pytest.mark.parametrize("session", ["usual", "long", "hard"])
@pytest.mark.parametrize("offset", [-240, -31, 0, 75, 600])
def test_a_shifted_trace_finds_its_place(session: str, offset: int) -> None:
    told, plan, heart = trace_of({"session": session}, 5)
    one = Person(id=1, name="", initials="", rest_hr=round(heart["rest"]), max_hr=188)
    line = foresee(plan, one, body_of(one)).bpm
    told = np.concatenate([np.full(max(0, -offset), 75.0), told[max(0, offset) :]])
    placed = align(told, line)
    assert placed.sure and abs(placed.offset_s - offset) <= 12, placed
    on_class = shifted(told, placed.offset_s, len(line))
    assert len(on_class) == len(line)


def test_what_has_no_pattern_has_no_sure_place() -> None:
    told, plan, heart = trace_of({"session": "steady"}, 5)
    one = Person(id=1, name="", initials="", rest_hr=round(heart["rest"]), max_hr=188)
    line = foresee(plan, one, body_of(one)).bpm
    assert not align(told[400:1000], line).sure
    assert not align(np.full(900, 120.0), line).sure
    assert not align(np.full(900, np.nan), line).sure
