"""What a message made, on a slate that is written on by hand meanwhile."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lovrit.core.messages.read import Message, read_message
from lovrit.core.messages.standing import changed_on, chosen_on, put_on, taken_off
from lovrit.core.session.slatetext import CannotEdit
from tests.core.messages.cases import cases, made_of

TEXTS = [one.text for one in cases()]
WITH_A_QUESTION = [one.text for one in cases() if one.asked]
BEFORE = st.sampled_from(["", "warm-up 7:30 at 3\n  easy laps\n", "title: Own\n\nrest 3:00\n"])
BY_HAND = "cool-down 4:45 at 2\n"


def _open(made: Message) -> list[tuple[int, int]]:
    return [
        (nth, at)
        for nth, row in enumerate(made.rows)
        for at in range(len(row.asked.answers) if row.asked else 0)
    ]


@given(st.sampled_from(WITH_A_QUESTION).map(made_of), BEFORE, st.data())
def test_answers_change_their_part_and_nothing_else(
    made: Message, before: str, data: st.DataObject
) -> None:
    assume(_open(made))
    text = f"{put_on(before, made)}\n{BY_HAND}"
    chosen: dict[int, int] = {}
    for nth, at in data.draw(st.lists(st.sampled_from(_open(made)), min_size=1, max_size=4)):
        now = {**chosen, nth: at}
        text, chosen = changed_on(text, made, chosen, now), now
        assert text.startswith(before.rstrip()) and text.endswith(BY_HAND)
        read_off = chosen_on(text, made)
        assert made.parts(read_off) == made.parts(chosen)
        assert text.count(made.rows[nth].asked.answers[at]) >= 1  # type: ignore[union-attr]
    assert taken_off(text, made, chosen).split() == f"{before}{BY_HAND}".split()


@given(st.sampled_from(TEXTS).map(made_of), BEFORE)
def test_what_was_put_there_is_taken_off_whole(made: Message, before: str) -> None:
    there = put_on(before, made)
    if there == before or not made.slate.strip():
        return
    assert taken_off(there, made, {}).split() == before.split()


def test_a_part_that_was_changed_by_hand_is_never_written_over() -> None:
    made = read_message("WU 8 min\n5x3 front squat\nAMRAP 10\n8 burpees")
    there = put_on("", made).replace("# 5x3", "3 sets of 5 reps, rest 1:00\n  front squat\n# 5x3")
    assert changed_on(there, made, {}, {1: 0}).count("warm-up") == 1
    with pytest.raises(CannotEdit, match="stays as you wrote it"):
        changed_on(there.replace("# 5x3 front squat", ""), made, {}, {1: 0})
    with pytest.raises(CannotEdit, match="Nothing of it stands"):
        taken_off("rest 3:00\n", made, {})
