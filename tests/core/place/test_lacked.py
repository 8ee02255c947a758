"""Kit that lacked, from a coach's note: offered to the hall where it is plain, else nothing."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.place.lacked import Lacked, lacked

KITS = ("bell", "box", "rings", "rope", "rower")
CASES = tomllib.loads(
    (Path(__file__).parents[2] / "cases" / "notes_of_kit.toml").read_text("utf-8")
)


@pytest.mark.parametrize("case", CASES["lacks"], ids=lambda case: case["said"])
def test_what_lacked_is_found(case: dict[str, Any]) -> None:
    assert lacked(case["said"], KITS) == [Lacked(case["many"], case["kit"], case.get("kg"))]


@pytest.mark.parametrize("said", CASES["silent"])
def test_what_is_something_else_is_left_alone(said: str) -> None:
    assert lacked(said, KITS) == []


@given(st.text(max_size=400), st.lists(st.text(max_size=20), max_size=5))
def test_any_note_and_any_kit_are_taken(note: str, kits: list[str]) -> None:
    assert all(one.kit in (*kits, "bell") for one in lacked(note, kits))
