"""Boards as they come from a phone: read by the roles of their figures, or asked."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.core.session.reader import read
from lovrit.core.timeline.plan import plan_text
from lovrit.formats.board import read_board

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "boards.toml").read_text("utf-8"))


def _called(name: str) -> str:
    move = shipped().find(name)
    return move.name if move else key_of(name)


@pytest.mark.parametrize(
    "case", CASES["board"], ids=lambda case: case["text"].strip().split("\n")[0]
)
def test_a_board_is_read_as_it_is_meant(case: dict[str, Any]) -> None:
    made = read_board(case["text"])
    reading = read(made.slate)
    assert not reading.problems, (made.slate, reading.problems)
    blocks = reading.session.blocks
    assert [block.kind for block in blocks] == case["kinds"], made.slate
    moves = [_called(line.tasks[0].name) for block in blocks for line in block.moves]
    assert moves == [_called(name) for name in case["moves"]]
    assert len(made.asked) == case["asked"], made.asked
    assert made.asked or plan_text(made.slate, shipped()).sums.total_s == case.get(
        "total", plan_text(made.slate, shipped()).sums.total_s
    )


def test_json_and_csv_are_taken_as_they_are() -> None:
    made = read_board('{"format": "lovrit-session", "version": 1, "blocks": []}')
    assert not made.slate and not made.asked
    assert "more" not in read_board("{").slate and read_board("{").asked
