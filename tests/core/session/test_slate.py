"""The slate: what is written is read, what is read is written again, and nothing that is typed makes it stumble."""

import re
from random import Random

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from lovrit.core.session.lines import read_block
from lovrit.core.session.reader import MOST_BYTES, read
from lovrit.core.session.session import Session
from lovrit.core.session.writer import write
from lovrit.core.values import checked, plain
from tests.core.session.slates import lines, slates

# Every block form of the notation, with the kind it is.
FORMS = {
    "warm-up 8:00 at 3": "steady",
    "3 rounds of 40/20, break 2:00, at 8": "rotate",
    "8 sets of 20/10, change 1:00, at 9": "sets",
    "6 x 30/60 at 9": "intervals",
    "5-9 x 12/70 at 10": "intervals",
    "6 x 2:00/2:00 pace 3-4": "intervals",
    "2 x (20/10 40/20 60/30)": "intervals",
    "6 x 45/75, lead-in 1:15": "intervals",
    "5 x 300 m, rest 1:30, score slowest": "intervals",
    "800 m for time": "for-time",
    "6 x 40/until 118, least 20, most 2:00": "intervals",
    "4 x until 170/2:00, most 3:00": "intervals",
    "every 1:00 for 12:00": "every",
    "every 1:00 for 10:00, half start at 0:30": "every",
    "as many as possible in 12:00": "amrap",
    "amrap 12:00": "amrap",
    "as many as possible in 12:00, ladder 2 +2": "amrap",
    "as many as possible in 20:00, partners alternate": "amrap",
    "4 rounds for time, cap 18:00": "for-time",
    "3 rounds for quality, rest 0:45, cap 8:00, at 3 4 5": "quality",
    "3 sets of 12 reps, rest 1:30": "strength",
    "hold ladder 15 +5 every 1:00 for 8:00": "hold-ladder",
    "tempo 90 to 160 in 8 steps of 20, up and down": "tempo",
    "build 12:00 to heavy 4": "build",
    "rest 3:00": "rest",
    "cool-down 4:00 at 2": "steady",
}

MOVES = """\
as many as possible in 12:00
  6 box step-over + 15-25 side step
  hold hollow 15-30 s
  10 push press each side
  8 m broad jump, harder 11 m, easier 4 reps
  5 hang clean @ 70-75%
  then
  18/14 cal row
  medicine ball: 20 chest pass, 20 slam
  goblet squat | bell 16 12 8 or squat
  max push-up, slow 4 s, breath held
"""


@pytest.mark.parametrize(("line", "kind"), FORMS.items())
def test_every_form_is_read(line: str, kind: str) -> None:
    assert read_block(line).block.kind == kind


def test_move_lines_say_what_they_mean() -> None:
    reading = read(MOVES)
    assert not reading.problems
    joined, hold, press, jump, clean, row, ball, squat, push = reading.session.blocks[0].moves
    assert [task.name for task in joined.tasks] == ["box step-over", "side step"]
    assert joined.tasks[1].amount.values == (15, 25)
    assert hold.tasks[0].amount.unit == "s" and hold.tasks[0].amount.form == "range"
    assert press.side == "each"
    assert jump.tasks[0].harder[0].amount.unit == "m" and jump.tasks[0].easier[0].amount.values == (
        4,
    )
    assert clean.tasks[0].load.unit == "%"
    assert row.opens_part and row.tasks[0].amount.form == "standards"
    assert [part.name for part in ball.tasks[0].parts] == ["chest pass", "slam"]
    assert (
        squat.tasks[0].kit[0].loads == (16, 12, 8)
        and squat.tasks[0].alternatives[0].name == "squat"
    )
    assert (
        push.tasks[0].amount.form == "max"
        and push.tasks[0].slow_s == 4
        and push.tasks[0].breath_held
    )


def test_rest_takes_all_up_to_the_next_comma() -> None:
    block = read_block("6 x 45/75 at 8.5 rest heart 126 at 4, lead-in 1:00").block
    assert block.efforts[0].low == 8.5
    assert (block.rest_heart.low, block.rest_heart.high) == (123, 129)
    assert block.rest_effort.low == 4
    assert block.lead_in_s == 60


@given(slates())
def test_read_write_read_is_the_same(text: str) -> None:
    session = read(text).session
    again = read(write(session))
    assert not again.problems
    assert again.session == session
    assert checked(Session, plain(session)) == session


@given(st.data())
def test_order_case_and_spacing_do_not_matter(data: st.DataObject) -> None:
    options = [
        "break 2:00 added",
        "at 7-9",
        "heart 76-88% reserve",
        "rest heart 126 at 4",
        "drop last rest",
        "pace 3",
    ]
    shuffled = data.draw(st.permutations(options))
    plain = read_block("3 rounds of 40/20, " + ", ".join(options)).block
    assert read_block("3 rounds of 40/20, " + ", ".join(shuffled)).block == plain
    loud = "3  ROUNDS   of 40/20 ,  " + "  ,".join(one.upper() for one in shuffled)
    assert read_block(loud).block == plain


@given(slates(), st.randoms(use_true_random=False), st.text(max_size=6))
def test_mangled_text_gives_problems_never_an_exception(
    text: str, chance: Random, dirt: str
) -> None:
    for _ in range(4):
        at, to = sorted((chance.randrange(len(text) + 1), chance.randrange(len(text) + 1)))
        text = text[:at] + dirt + text[min(to, at + 3) :]
    reading = read(text)
    for problem in reading.problems:
        assert 1 <= problem.line <= text.count("\n") + 1 and problem.column >= 1 and problem.text


@example('10 " for time', 0, "")
@given(
    st.one_of(lines("block"), lines("header")),
    st.integers(0, 40),
    st.sampled_from(["", "q", "zz ", "%", "12 "]),
)
def test_the_nearest_line_would_be_read(line: str, at: int, dirt: str) -> None:
    for problem in read(line[:at] + dirt + line[at + 1 :]).problems:
        if problem.nearest is None or "stations" in problem.text:
            continue
        below = "3 rounds of 40/20\n" if problem.nearest[:1] in (" ", "\t") else ""
        left = [other.text for other in read(below + problem.nearest).problems]
        assert all("stations" in text or "for time" in text for text in left), (
            problem.nearest,
            left,
        )


@pytest.mark.parametrize(
    ("line", "column", "nearest"),
    [
        ("3 runds of 40/20", 3, "3 rounds of 40/20"),
        ("6 x 30/60 at 11", 14, "6 x 30/60 at 10"),
        ("9-5 x 30/60", 1, "5-9 x 30/60"),
        ("6 x 40/until 118", 1, "6 x 40/until 118, most 2:00"),
        ("titel: Monday", 1, "title: Monday"),
        ("8 sets of 20/10 heart 160-150", 23, "8 sets of 20/10 heart 150-160"),
        ("3 rounds of 40/20 brake 2:00", 19, "3 rounds of 40/20 break 2:00"),
        ("slot: 25:10-18:55", 7, None),
    ],
)
def test_an_error_names_its_place_and_offers_the_nearest(
    line: str, column: int, nearest: str | None
) -> None:
    problem = read(line + "\n  swing").problems[0]
    assert problem.column == column
    if nearest:
        assert problem.nearest == nearest


@pytest.mark.parametrize(
    ("text", "line", "said"),
    [
        ("title: a\ntitle: b\nrest 1:00", 2, "already written"),
        ("3 rounds of 40/20", 1, "no stations"),
        ("  swing", 1, "stands below a block"),
        ("rest 1:00\ntitle: late", 2, "Headers come first"),
        ("warm-up 0:00", 1, "no time"),
        ("3 rounds of 0/20\n  swing", 1, "no time to work"),
        ("6 x 30/60\n  swing\n  row", 3, "one move at most"),
        ("rest 1:00\u0007", 1, "control character"),
        ("warm-up 1:00 \u202eat 3", 1, "control character"),
        ("warm-up 13:00:00", 1, "twelve hours"),
        ("amrap 5:00\n  swing\n  then", 3, "then"),
        ("3 rounds of 40/20 at 8 at 9\n  swing", 1, "twice"),
        ("x" * (MOST_BYTES + 1), 1, "64 KiB"),
        ("date: 2026-02-31", 1, "no such day"),
    ],
)
def test_each_refusal_has_its_sentence(text: str, line: int, said: str) -> None:
    problem = read(text).problems[0]
    assert problem.line == line
    assert said in problem.text


def test_one_bad_line_costs_that_line_only() -> None:
    text = "title: x\nwarm-up 5:00 at 3\n3 rounds of 40/20\n  squat\n  5 5 5\n  swing\nrest nonsense\ncool-down 3:00"
    reading = read(text)
    assert [problem.line for problem in reading.problems] == [5, 7]
    assert [block.kind for block in reading.session.blocks] == ["steady", "rotate", "steady"]
    assert [line.name for line in reading.session.blocks[1].moves] == ["squat", "swing"]


def test_names_of_any_script_are_names() -> None:
    assert read("3 rounds of 40/20\n  מתח\n  приседание").session.blocks[0].moves[0].name == "מתח"


def test_notation_words_in_the_guide_are_read() -> None:
    """Each slate shown in the guide is one that reads."""
    from pathlib import Path

    guide = (Path(__file__).parents[3] / "docs" / "guide.md").read_text("utf-8")
    shown = re.findall(r"```slate\n(.*?)```", guide, re.DOTALL)
    assert shown
    assert not [problem for text in shown for problem in read(text).problems]
