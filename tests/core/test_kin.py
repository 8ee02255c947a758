"""What is of a kind, and what a score is worth; nothing else is compared."""

import tomllib
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.blocks.block import Block
from lovrit.core.moves.library import shipped
from lovrit.core.review.kin import kin_key, worth
from lovrit.core.session.reader import read

LIBRARY = shipped()
FILE = tomllib.loads((Path(__file__).parents[1] / "cases" / "kin.toml").read_text(encoding="utf-8"))


def block_of(text: str) -> Block:
    reading = read(text)
    assert not reading.problems, reading.problems
    return reading.session.blocks[0]


@pytest.mark.parametrize(
    "case", FILE["kin"], ids=lambda case: f"{case['one'][:30]} {case['other'][:30]}"
)
def test_what_is_of_a_kind(case: dict[str, Any]) -> None:
    one, other = (kin_key(block_of(case[name]), LIBRARY) for name in ("one", "other"))
    assert (one == other) == case["same"], (one, other)


@pytest.mark.parametrize(
    "case", FILE["worth"], ids=lambda case: f"{case['block'][:30]} {case['score']}"
)
def test_what_a_score_is_worth(case: dict[str, Any]) -> None:
    found = worth(block_of(case["block"]), case["score"])
    assert (found.figure if found else "") == case["figure"]
    assert not found or found.value == case["value"]
