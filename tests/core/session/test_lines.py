"""Lines of moves as boards have them: each reads as what was meant, or is asked; edits by hand work on both."""

import re
import tomllib
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import ReplaceMove, SetAmount
from lovrit.core.session.movelines import read_move
from lovrit.core.session.movesaid import own_line
from lovrit.core.session.reader import read
from lovrit.core.session.writer import write

CASES = tomllib.loads(
    (Path(__file__).parents[2] / "cases" / "lines.toml").read_text(encoding="utf-8")
)["line"]
READS = [case for case in CASES if not case.get("asked")]
ASKED = [case for case in CASES if case.get("asked")]
HEAD = "as many as possible in 10:00 at 6\n"
NAMES = st.sampled_from(
    [move.name for move in shipped().moves if not any(map(str.isdigit, move.name))]
)


@pytest.mark.parametrize("case", READS, ids=lambda case: case["said"])
def test_a_line_reads_as_what_was_meant(case: dict[str, str]) -> None:
    meant = read_move(f"  {case['reads']}")
    assert meant and read_move(f"  {case['said']}") == meant
    assert read_move(own_line(f"  {case['said']}")) == meant


@pytest.mark.parametrize("case", ASKED, ids=lambda case: case["said"])
def test_what_could_mean_two_things_is_asked(case: dict[str, str]) -> None:
    problems = read(f"{HEAD}  {case['said']}\n").problems
    assert problems
    offered = problems[0].nearest
    if offered:
        assert not read(f"{HEAD}{offered}\n").problems, offered
        assert case.get("never", "\0") not in offered.split("#")[0]
        words = {word for word in WORDS.findall(case["said"].lower()) if len(word) > 2} - {
            case.get("never")
        }
        assert words <= set(WORDS.findall(offered.lower())), offered  # nothing is lost by taking it


WORDS = re.compile(r"[a-z]+")
WAYS = (
    "{n} {name} {kg} kg", "{name} x {n}, {kg} kg", "{kg}kg {name} x{n}", "{n} {name} ({kg} kg)",
    "{name}, {n} reps, {kg} kg", "1. {n} x {name} with {kg} kg", "• {name} – {n} reps @ {kg}kg",
)  # fmt: skip


@given(NAMES, st.integers(1, 50), st.integers(2, 150), st.sampled_from(WAYS))
def test_every_move_takes_every_way_to_say_it(name: str, n: int, kg: int, way: str) -> None:
    assert read_move("  " + way.format(name=name, n=n, kg=kg)) == read_move(
        f"  {n} {name} @ {kg} kg"
    )


@given(
    NAMES,
    st.integers(1, 50),
    st.sampled_from(
        ["{n} {name}/side", "{name} {n} each leg", "{n} {name} e/s", "{n}/side {name}"]
    ),
)
def test_sides_are_sides(name: str, n: int, way: str) -> None:
    said = "  " + way.format(name=name, n=n)
    assert read_move(said) == read_move(f"  {n} {name}, each side")


@given(st.lists(st.sampled_from(READS), min_size=1, max_size=6))
def test_what_was_said_is_written_in_the_own_form_and_read_again(
    cases: list[dict[str, str]],
) -> None:
    text = HEAD + "".join(f"  {case['said']}   # as it stood\n" for case in cases)
    session = read(text).session
    assert len(session.blocks[0].moves) == len(cases)
    assert read(write(session)).session == session


def test_edits_by_hand_work_on_what_was_said() -> None:
    text = f"{HEAD}  goblet squat x 10, 16 kg   # slow\n  • row 500m\n"
    changed = apply_edit(text, ReplaceMove(block=0, move=0, name="swing"))
    assert changed.splitlines()[1] == "  10 swing @ 16 kg   # slow"
    more = apply_edit(text, SetAmount(block=0, move=0, value=12))
    assert more.splitlines()[1].startswith("  12 goblet squat @ 16 kg")


@given(st.text("abc 0123456789x×@(),/-:%kglbs\"'", max_size=40))
def test_no_line_breaks_the_reader(text: str) -> None:
    problems = read(f"{HEAD}  {text}").problems
    assert all(one.text and one.column >= 1 for one in problems)
