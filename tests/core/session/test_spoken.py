"""Headings as they stand on boards: read as what was meant, or asked; edits by hand work on them all the same."""

import re
import tomllib
from pathlib import Path

import pytest

from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import SetFigure
from lovrit.core.session.reader import read
from lovrit.core.session.writer import write

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "heads.toml").read_text("utf-8"))
MOVE = "\n  squat"


@pytest.mark.parametrize("case", CASES["read"], ids=lambda case: case["said"])
def test_what_is_said_is_what_was_meant(case: dict[str, str]) -> None:
    below = "" if "\n" in case["own"] and not case["said"].endswith("%") else MOVE
    said, own = (
        read(case["said"] + below),
        read(case["own"] + ("" if "\n" in case["own"] else MOVE)),
    )
    assert not said.problems and said.session == own.session
    assert read(write(said.session)).session == said.session
    for one in said.spoken:
        taken = read((case["said"] + below).replace(case["said"], one.own))
        assert one.load or taken.session == said.session


def said_by(text: str) -> set[str]:
    """Words and figures of a heading, without those that only say how they stand together."""
    return set(re.findall(r"[a-z]+|\d+", text.lower())) - JOINTS


JOINTS = set(
    "for time of rounds sets reps every as many possible in at x rest cap m s min 00".split()  # noqa: SIM905
)


@pytest.mark.parametrize("case", CASES["asked"], ids=lambda case: case["said"])
def test_what_could_be_either_is_asked(case: dict[str, str]) -> None:
    asked = read(f"{case['said']}\n  10 squat")
    assert asked.problems and not asked.session.blocks
    for one in asked.problems:
        assert one.nearest is None or not read(one.nearest + MOVE).problems
        # what is offered is of what was typed: no figure and no kind of block is made up
        offered, said = said_by(one.nearest or ""), said_by(case["said"])
        figures = {word for word in offered if word.isdigit()} if said - offered else offered - said
        assert offered <= said or (figures <= {"30", "1"} and offered - figures <= said), (
            one.nearest
        )


def test_both_readings_are_offered() -> None:
    (asked,) = read("rest 3").problems
    assert asked.expected == ("rest 3:00", "rest 0:03") and "3:00 or" in asked.text
    assert read("slot: 45\nsetup: 5\n\nrest 1:00").session.slot.seconds == 2700  # type: ignore[union-attr]
    assert "could be" in read("setup: 2\n\nrest 1:00").problems[0].text
    assert read("for time, cap 300\n  squat").problems


def test_an_edit_by_hand_puts_a_heading_into_its_own_form() -> None:
    text = "# board\nemom 12 # tonight\n  8 swing\n\nAMRAP 10\n  5 squat\n"
    after = apply_edit(text, SetFigure(block=0, figure="total", value=600))
    assert after == "# board\nevery 1:00 for 10:00 # tonight\n  8 swing\n\nAMRAP 10\n  5 squat\n"
