"""Boards as they come from a phone: read line by line, or asked."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.session.reader import read
from lovrit.core.timeline.plan import plan_text
from lovrit.formats.board import read_board

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "boards.toml").read_text("utf-8"))


@pytest.mark.parametrize(
    "case", CASES["board"], ids=lambda case: case["text"].strip().split("\n")[0]
)
def test_a_board_is_read_as_it_is_meant(case: dict[str, Any]) -> None:
    made = read_board(case["text"])
    reading = read(made.slate)
    assert not reading.problems, (made.slate, reading.problems)
    blocks = reading.session.blocks
    assert [block.kind for block in blocks] == case["kinds"], made.slate
    assert [line.tasks[0].name for block in blocks for line in block.moves] == case["moves"]
    assert len(made.asked) == case["asked"], made.asked
    assert "total" not in case or plan_text(made.slate, shipped()).sums.total_s == case["total"]


@given(st.text(alphabet="ab 1x/:-•*()'\n#,", max_size=80))
def test_nothing_of_a_board_is_lost(text: str) -> None:
    made = read_board(text)
    kept = {char for char in made.slate if char.isalnum()}
    asked = {char for one in made.asked for char in one.text}
    assert {char for char in text if char.isalpha()} <= {char.lower() for char in kept | asked}
