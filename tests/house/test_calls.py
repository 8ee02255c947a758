"""What a coach is told of hearts while a class runs: once, clearly, and not again; and no word where all is normal."""

from typing import Any

from lovrit.core.crew.person import Comer
from lovrit.core.values import checked
from lovrit.house.calls import Calls
from lovrit.house.hearts import Bead, How

WHO = checked(
    Comer, {"id": 1, "name": "Ada", "initials": "AD", "rest_hr": 60, "max_hr": 190, "group": 0}
)


def bead(how: How) -> Bead:
    return Bead(person=1, initials="AD", name="Ada", group=0, x=50, how=how)


def told(calls: Calls, hows: list[How], felt: Any = None, bpm: int = 150) -> list[str]:
    """Everything that begins to be said, second by second."""
    said, before = [], ()
    for at, how in enumerate(hows):
        calls.hear(1, 0 if how == "lost" else bpm)
        now = calls.look([bead(how)], felt or {}, (WHO,), float(at))
        said += [one for one in now if one not in before]
        before = now
    return said


def test_who_is_over_is_called_once_and_again_only_after_a_while_in_the_box() -> None:
    assert told(Calls(), ["over"] * 120) == ["Ada is over: ease off, or end it there for them."]
    flicker: list[How] = (["over"] * 5 + ["in"] * 3) * 15
    assert told(Calls(), flicker) == []
    back: list[How] = ["over"] * 20 + ["in"] * 10 + ["over"] * 20
    assert len(told(Calls(), back)) == 1
    assert len(told(Calls(), ["over"] * 20 + ["in"] * 40 + ["over"] * 20)) == 2


def test_under_early_or_in_a_rest_is_no_word_and_a_lost_strap_is_one() -> None:
    assert told(Calls(), ["rising"] * 40 + ["in"] * 20 + ["resting"] * 60 + ["under"] * 60) == []
    lost: list[How] = ["in"] * 5 + ["lost"] * 60 + ["in"] * 5 + ["lost"] * 30
    assert told(Calls(), lost) == ["Ada’s strap tells nothing: by effort until it does."] * 2
    assert told(Calls(), ["lost"] * 6 + ["in"] * 30) == []


def test_an_effort_and_a_heart_at_odds_are_laid_side_by_side() -> None:
    steady: list[How] = ["in"] * 100
    calls = Calls()
    told(calls, steady, bpm=175)
    high = told(calls, ["in"], {1: 4.0}, 175)
    assert high and "says 4, the heart 8" in high[0] and "bad day" in high[0]
    calls = Calls()
    told(calls, steady, bpm=100)
    assert "medicine" in told(calls, ["in"], {1: 8.0}, 100)[0]
    calls = Calls()
    told(calls, steady, bpm=165)
    assert told(calls, ["in"], {1: 7.5}, 165) == []  # they agree
    assert told(Calls(), ["in"] * 20, {1: 2.0}, 175) == []  # too little was heard
