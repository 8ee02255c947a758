"""The second look: for each rule a session where it speaks and one where it is silent; every fix mends."""

import pytest

from lovrit.core.advice.look import RULES, blocked, second_look
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import plan_text

WARM = "warm-up 6:00 at 3\n"
COOL = "\ncool-down 3:00 at 2"

# code: (a slate where it speaks, one where it doesn't)
CASES = {
    "over-slot": ("slot: 10:00\nwarm-up 12:00 at 3", "slot: 12:00\nwarm-up 12:00 at 3"),
    "range-over-slot": (
        "slot: 17:00\n" + WARM + "6 x 300 m, rest 0:15",
        "slot: 60:00\n" + WARM + "6 x 300 m, rest 0:15",
    ),
    "turn-too-full": ("every 1:00 for 6:00\n  30 push-up", "every 1:00 for 6:00\n  12 push-up"),
    "hold-past-turn": (
        "hold ladder 15 +10 every 1:00 for 8:00\n  plank",
        "hold ladder 15 +5 every 1:00 for 8:00\n  plank",
    ),
    "part-turn": ("every 1:00 for 6:30\n  8 push-up", "every 1:00 for 6:00\n  8 push-up"),
    "no-warm-up": ("3 rounds of 40/20 at 8\n  squat\n  row", WARM + "3 rounds of 40/20 at 8\n  squat\n  row"),
    "all-out-too-long": (WARM + "4 x 40/160 at 10", WARM + "4 x 12/60 at 10"),
    "rest-too-short": (WARM + "6 x 40/20 at 9", WARM + "6 x 30/60 at 9"),
    "no-cap": ("4 rounds for time\n  12 row", "4 rounds for time, cap 10:00\n  12 row"),
    "much-hard-work": (WARM + "25 x 60/60 at 8", WARM + "10 x 60/60 at 8"),
    "no-cool-down": (WARM + "6 x 30/60 at 9", WARM + "6 x 30/60 at 9" + COOL),
    "no-lead-in": ("6 x 2:00/2:00 heart 150-160", "6 x 2:00/2:00 heart 150-160, lead-in 1:00"),
    "efforts-unused": ("2 rounds of 40/20 at 3 4 5\n  squat", "3 rounds of 40/20 at 3 4 5\n  squat"),
    "pattern-twice": (
        "3 rounds of 40/20\n  squat\n  goblet squat\n  plank",
        "3 rounds of 40/20\n  squat\n  plank\n  goblet squat",
    ),
    "grip-after-grip": (
        "3 rounds of 40/20\n  swing\n  ring row\n  plank",
        "3 rounds of 40/20\n  swing\n  plank\n  ring row",
    ),
    "impact-in-a-row": (
        "3 rounds of 40/20\n  rope skip\n  jump squat\n  plank",
        "3 rounds of 40/20\n  rope skip\n  plank\n  jump squat",
    ),
    "uneven-sides": (
        "3 rounds of 40/20\n  bench step-up, left then right",
        "4 rounds of 40/20\n  bench step-up, left then right",
    ),
    "unknown-move": ("3 rounds of 40/20\n  wobble\n  squat", "3 rounds of 40/20\n  plank\n  squat"),
}


def codes(text: str, groups: int | None = None) -> set[str]:
    return {note.code for note in second_look(plan_text(text, shipped()), shipped(), groups)}


@pytest.mark.parametrize("code", CASES)
def test_each_rule_speaks_and_is_silent(code: str) -> None:
    speaks, silent = CASES[code]
    assert code in codes(speaks)
    assert code not in codes(silent)


def test_groups_need_stations() -> None:
    text = "3 rounds of 40/20\n  squat\n  row\n  plank"
    assert "more-groups-than-stations" in codes(text, 4)
    assert "more-groups-than-stations" not in codes(text, 3)
    assert len(RULES) <= len(CASES) + 1


@pytest.mark.parametrize("code", CASES)
def test_pressing_a_fix_removes_its_note_and_makes_no_stop(code: str) -> None:
    text = CASES[code][0]
    notes = second_look(plan_text(text, shipped()), shipped(), 2)
    stops = {note.code for note in blocked(notes)}
    for note in notes:
        for fix in note.fixes:
            mended = plan_text(apply_edit(text, fix.edit), shipped())
            assert not mended.problems
            after = second_look(mended, shipped(), 2)
            assert (note.code, note.block) not in {(one.code, one.block) for one in after if one.text == note.text}
            assert {one.code for one in blocked(after)} <= stops


def test_the_demo_is_calm(slates: dict[str, str]) -> None:
    for text in slates.values():
        notes = second_look(plan_text(text, shipped()), shipped(), 6 if "rounds" in text else None)
        assert not blocked(notes)
        assert sum(note.level == "weigh" for note in notes) <= 2
