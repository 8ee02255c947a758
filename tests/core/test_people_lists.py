"""Lists of people as they are pasted: taken where they are plain, asked where they could be two things."""

import tomllib
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.lists import read_people
from lovrit.core.values import fields_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "people.toml").read_text("utf-8"))[
    "case"
]


@pytest.mark.parametrize("case", CASES, ids=lambda case: repr(case["text"][:30]))
def test_a_pasted_list(case: dict) -> None:
    read = read_people(case["text"], 2026)
    assert [one.name for one in read.people] == case["names"]
    assert len(read.asked) == case.get("asked", 0), read.asked
    for name, value in case.get("has", {}).items():
        assert fields_of(read.people[0])[name] == value
    assert all(one.why and one.line >= 1 for one in read.asked)


@given(st.text(max_size=200))
def test_any_text_is_taken_or_asked_and_no_name_is_made_up(text: str) -> None:
    read = read_people(text, 2026)
    flat = "".join(text.split()).casefold()
    for one in read.people:
        assert one.name.strip() and len(one.name) <= 60
        assert "".join(one.name.split()).casefold() in flat or " " in one.name
        assert (
            (one.born is None and one.rest_hr is None) or "," in text or ";" in text or "\t" in text
        )
