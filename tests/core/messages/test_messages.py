"""Messages as they are sent: read as they are meant, or asked; no figure lost, none made up, none read as grammar."""

import re
from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.messages.read import Message, is_own, read_message
from lovrit.core.reading.tokens import cut
from lovrit.core.session.reader import read
from lovrit.core.session.writer import write
from tests.core.messages.cases import Case, cases, made_of, meaning

CASES = list(cases())
OURS = frozenset({"expected", "token", "syntax", "parse", "does not belong"})
MINUTE_S = 60
PLACES = (
    r"(?m)^\s*(?:\d{1,2}(?:[.)]| [-–] |: )|min\w* \d+:?|[A-H]\d(?=[.):\s]))|^\d(?= [a-z])"
    r"|(?m:^)[Pp]\d(?=:)|\d+ (?:station|atelier|exerci|exo|movement)\w*|1:1\b"
    r"|(?<=[,:] )min\w* \d+|(?<=[,;] )[A-H]\d(?=[.):\s])|bloc \d|part \d|after A\d|station \d|\b\d[.):](?=\s)"
)


@pytest.mark.parametrize("case", CASES, ids=lambda case: case.name)
def test_a_message_is_read_as_it_is_meant_or_asked(case: Case) -> None:
    made = made_of(case.text)
    assert len(made.asked) == len(case.asked), made
    for one, asked in zip(made.asked, case.asked, strict=True):
        assert asked.lower() in f"{one.question} {one.text}".lower()
    assert meaning(made.slate) == meaning(case.slate), made.slate
    for kept in case.kept:
        assert any(kept.lower() in one.lower() for one in made.kept), made.kept
    answers = [answer.split("\n")[0] for one in made.asked for answer in one.answers]
    assert set(case.offered) <= set(answers), made.asked


@pytest.mark.parametrize("case", CASES, ids=lambda case: case.name)
def test_what_is_asked_can_be_answered_and_what_was_read_reads_as_itself(case: Case) -> None:
    made = made_of(case.text)
    for one in made.asked:
        assert not any(word in one.question.lower() for word in OURS)
        assert one.text.split("\n")[0].strip() in " ".join(case.text.split()) or one.line
        assert all(not read(answer).problems for answer in one.answers), one
    session = read(made.slate).session
    assert read(write(session)).session == session
    assert is_own(write(session)) is bool(session.blocks)


def _figures(text: str) -> Counter[float]:
    """All figures of a text by their values, seconds for times."""
    found: Counter[float] = Counter()
    for line in text.split("\n"):
        for one in cut(line):
            if one.figure and one.kind != "day":
                said = one.figure.seconds or [
                    float(figure.split("/")[0].replace(":", ""))
                    for figure in one.figure.said
                    if figure != "x"
                ]
                found.update(float(figure) for figure in said)
    return found


def _all_of(made: Message) -> str:
    return "\n".join([made.slate, *(one.text for one in made.asked), *made.kept])


def _lost(text: str, made: Message) -> set[float]:
    """Figures of a text that stand in nothing that came of it: not as they are, in minutes, or in what they make."""
    values = set(_figures(_all_of(made)))
    return {
        one
        for one in _figures(text)
        if not {one, one * MINUTE_S} & values and not any(one * other in values for other in values)
    }


@pytest.mark.parametrize(
    "case", [one for one in CASES if "..." not in one.text], ids=lambda case: case.name
)
def test_no_figure_is_lost(case: Case) -> None:
    """But numbers of a list, of minutes and stations, which the slate's own lines show."""
    said = re.sub(PLACES, " ", case.text, flags=re.IGNORECASE)
    if "numbered in a row" in case.name:
        said = re.sub(r"(?m)\b[1-9][.)]? (?=[a-z])|^[1-9] (?=\d)", " ", said)
        said = re.sub(r"(?<=\d\d):(?=\d\d)", "/", said)
    if "an effort for the work" in case.name:
        said = said.replace(" / ", ", ")  # the stroke joins an effort to a time
    assert not _lost(said, made_of(case.text))


SAID = """3 12 40/20 5x5 21-15-9 rounds for time amrap emom rest 2 min squat push-ups 400m run , : - @ 70% 24kg RPE 8
each side then ( ) cap x sets of reps every Runden Pause tours por tiempo bench warm up 8 min A) B) max 1.30 '
1:01 30s (95/65) 22.5/15 10-1 1/2 3000 Z2 31X1 2:05/500 ladder ... + each
7pm C2B 30-30 at rate tempo heart in reserve"""
WORDS = st.sampled_from([*SAID.split(), "\n"])


@given(st.lists(WORDS, max_size=25).map(" ".join))
def test_whatever_is_sent_ends_as_a_slate_a_question_or_a_note(text: str) -> None:
    made = read_message(text)
    assert not read(made.slate).problems, made.slate
    assert not _lost(text, made), made


LINES = sorted({line for case in CASES for line in case.text.split("\n")})
PIECES = sorted({word for line in LINES for word in line.split()})


@given(
    st.lists(st.sampled_from(LINES), max_size=7).map("\n".join)
    | st.lists(st.sampled_from([*PIECES, "\n", ",", "\n"]), max_size=14).map(" ".join)
)
def test_lines_of_any_messages_in_any_order_are_taken(text: str) -> None:
    made = read_message(text)
    assert not read(made.slate).problems, made.slate
    for one in made.asked:
        assert all(not read(answer).problems for answer in one.answers), one


@given(st.text(alphabet="ab3 1x/:-•*()'\n#,@%", max_size=80))
def test_any_letters_are_taken(text: str) -> None:
    made = read_message(text)
    assert not read(made.slate).problems


@pytest.mark.parametrize(
    "text",
    [
        "5 x 3 min at 8, 1 min rest\n12 swings\n9 push ups\nbring water",
        "Buy in: 1 km run\n4 rounds\n10 burpees\n20 squats\nCash out: 1 km run\ntime cap 25",
        "12-9-6 thrusters & burpees at 8, 3 rounds rest 2 min, cap 20",
        "30/30 x 20 (10 row, 10 bike) at 7",
        "3 sets\n10 squats\n12 push-ups\nrest 1 min\nslowly, please",
    ],
)
def test_no_answer_leaves_out_what_was_said(text: str) -> None:
    (asked,) = read_message(text).asked
    assert asked.answers
    for answer in asked.answers:
        assert not read(answer).problems
        said = set(_figures(answer))
        lost = {
            one
            for one in _figures(text)
            if not {one, one * MINUTE_S} & said and answer.count(f"  {one:g} ") < 2
        }
        written_out = answer.count("burpees") == 4 or "10 x 30/30" in answer
        assert not lost - ({4.0, 20.0} if written_out else set()), (answer, lost)
        assert "bring water" not in text or "bring water" in answer
        assert "slowly" not in text or "slowly" in answer
