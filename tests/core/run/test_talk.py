"""The talk: every move once with its cue, an aim from the figures, always the signs to stop."""

from hypothesis import given

from lovrit.core.moves.library import shipped
from lovrit.core.run.classplan import class_plan
from lovrit.core.run.talk import WORDS_A_MINUTE, spoken_s, talk
from lovrit.core.session.reader import read
from tests.core.session.slates import slates


def test_the_talk_of_the_demo(winter: str) -> None:
    lines = talk(class_plan(read(winter).session, shipped()))
    said = {about: [one.text for one in lines if one.about == about] for about in ("aim", "move")}
    assert "Hold back in the first two: the third tells." in said["aim"][0]
    assert "1, goblet squat: Elbows inside the knees" in said["move"][0]
    assert len(said["move"]) == 9 and all("Easier: " in one for one in said["move"])
    assert 60 <= spoken_s(tuple(one.text for one in lines)) <= 120


@given(slates())
def test_any_session_has_a_talk_that_names_each_move_once(text: str) -> None:
    session = read(text).session
    lines = [one.text for one in talk(class_plan(session, shipped()))]
    assert lines[-1].startswith("Stop at once") and all(line.strip() for line in lines)
    assert len(set(lines)) == len(lines)
    words = sum(len(line.split()) for line in lines)
    assert 0 <= spoken_s(tuple(lines)) - words * 60 / WORDS_A_MINUTE < 5
