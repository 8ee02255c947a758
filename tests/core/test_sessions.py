"""Sessions judged on paper: the second look says of doubtful ones what a colleague would, of sound ones nothing.

What its fixes do, they do without a new remark of that weight.
"""

import tomllib
from pathlib import Path

import pytest

from lovrit.core.advice.look import second_look
from lovrit.core.advice.note import Note
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import plan_text

FILES = [Path(__file__).parents[1] / "cases" / name for name in ("sessions.toml", "judged.toml")]
CASES = [tomllib.loads(one.read_text("utf-8")) for one in FILES]
DOUBTFUL = [one for some in CASES for one in some["doubtful"]]
SOUND = [one["text"] for some in CASES for one in some["sound"]]


def notes_of(text: str) -> tuple[Note, ...]:
    plan = plan_text(text, shipped())
    assert not plan.problems, plan.problems[0].text
    return second_look(plan, shipped())


@pytest.mark.parametrize("case", DOUBTFUL, ids=lambda case: case["code"])
def test_a_doubtful_session_is_questioned(case: dict[str, str]) -> None:
    assert case["code"] in {note.code for note in notes_of(case["text"])}


@pytest.mark.parametrize("text", SOUND, ids=range(len(SOUND)))
def test_of_a_sound_session_nothing_wants_weighing(text: str) -> None:
    said = [(note.code, note.text) for note in notes_of(text) if note.level != "tell"]
    assert not said


@pytest.mark.parametrize("text", [*(case["text"] for case in DOUBTFUL), *SOUND])
def test_a_fix_takes_its_remark_away_and_brings_none_to_weigh(text: str) -> None:
    before = notes_of(text)
    heavy = {note.code for note in before if note.level != "tell"}
    for note in before:
        assert note.fixes or note.way, note.code
        for fix in note.fixes:
            after = plan_text(apply_edit(text, fix.edit), shipped())
            assert not after.problems, (note.code, fix.text, after.problems[0].text)
            left = second_look(after, shipped())
            here = sum(one.code == note.code for one in left)
            assert here < sum(one.code == note.code for one in before), (note.code, fix.text)
            new = {one.code for one in left if one.level != "tell"} - heavy
            assert not new, (note.code, fix.text, new)
