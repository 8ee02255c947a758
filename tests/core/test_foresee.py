"""What a heart will do: field observations as cases, and what must hold for any session."""

import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body, beats, settled, step
from lovrit.core.heart.foresee import Ahead, TurnAhead, body_of, foresee
from lovrit.core.heart.hearts import STANDING, ManyHearts, company
from lovrit.core.heart.said import heart_said
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.formats.heart_files import NotAHeart, ahead_object
from tests.conftest import examples
from tests.core.session.slates import slates

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "hearts.toml").read_text("utf-8"))[
    "case"
]
ADA = Person(id=1, name="Ada", initials="AD", rest_hr=60, max_hr=190)


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["name"])
def test_a_heart_does_what_coaches_see(case: dict[str, Any]) -> None:
    own = {"rest_hr": 60, "max_hr": 190} | case.get("person", {})
    who = Person(id=1, name="Ada", initials="AD", **own)
    ahead = foresee(plan_text(case["slate"], shipped()), who, body_of(who))
    turns = ahead.turns
    _weather(case, who, ahead)
    if "turns" in case:
        assert [_said(turn) for turn in turns] == case["turns"]
    if "peaks" in case:
        assert [turn.peak for turn in turns] == pytest.approx(case["peaks"], abs=case["within"])
        low, high = case["after"]
        assert all(low <= turn.peak_after_end_s <= high for turn in turns), turns
        assert all(case["low"][0] <= (turn.low_in_rest or 0) <= case["low"][1] for turn in turns)
    if "last_peak" in case:
        assert case["last_peak"][0] <= turns[-1].peak <= case["last_peak"][1], turns[-1]
    if "falls" in case:
        falls = [turn.peak - (turn.low_in_rest or 0) for turn in turns[2:-1]]
        assert all(case["falls"][0] <= fall <= case["falls"][1] for fall in falls), falls
    if "low_last" in case:
        assert case["low_last"][0] <= (turns[-1].low_in_rest or 0) <= case["low_last"][1]
    if "highest" in case:
        assert case["highest"][0] <= ahead.bpm.max() <= case["highest"][1], ahead.bpm.max()
    assert not case.get("all_reached") or all(turn.reached for turn in turns)
    assert "first_reached" not in case or turns[0].reached is case["first_reached"]


def _weather(case: dict[str, Any], who: Person, ahead: Ahead) -> None:
    """What drifts, how much higher heat takes it, how it falls."""
    if "drift" in case:
        begun = 780 if len(ahead.bpm) < 1800 else 900
        assert case["drift"][0] <= ahead.bpm[-10] - ahead.bpm[begun] <= case["drift"][1]
    if "hotter" in case:
        cool = "\n".join(one for one in case["slate"].splitlines() if "weather" not in one)
        mild = foresee(plan_text(cool, shipped()), who, body_of(who)).bpm.max()
        assert case["hotter"][0] <= ahead.bpm.max() - mild <= case["hotter"][1]
    if "fall_60" in case:
        first = ahead.turns[0]
        peak, end = first.peak, first.end_s + first.peak_after_end_s
        assert case["fall_60"][0] <= peak - ahead.bpm[end + 60] <= case["fall_60"][1]


def _said(turn: TurnAhead) -> str:
    if turn.target is None:
        return "none"
    return "over" if turn.over else "in" if turn.reached else "under"


@given(st.lists(st.tuples(st.floats(0.05, 1.2), st.integers(1, 200)), min_size=1, max_size=6))
def test_many_hearts_are_the_one_heart_many_times(parts: list[tuple[float, int]]) -> None:
    bodies = [Body(), Body(tau_off=90, gain=1.1), Body(rest=70, highest=170, tau_m=12)]
    hearts = ManyHearts(bodies)
    states = [settled(STANDING * body.gain) for body in bodies]
    for share, seconds in parts:
        lines = hearts.run(seconds, share)
        states = [step(body, one, share, seconds) for body, one in zip(bodies, states, strict=True)]
        singly = [beats(body, one) for body, one in zip(bodies, states, strict=True)]
        assert lines[:, -1] == pytest.approx(singly, abs=1e-9)


@examples(40)
@given(slates())
def test_any_session_has_a_line_inside_its_band(text: str) -> None:
    plan = plan_text(text, shipped())
    ahead = foresee(plan, ADA, body_of(ADA))
    assert len(ahead.bpm) == plan.timeline.total_s + 1 == len(ahead.low) == len(ahead.high)
    assert (ahead.low <= ahead.bpm).all() and (ahead.bpm <= ahead.high).all()
    assert (ahead.bpm >= ADA.rest).all() and (ahead.bpm < ADA.highest).all()
    assert np.abs(np.diff(ahead.bpm)).max(initial=0) < 8
    assert len(ahead.blocks) == len(plan.session.blocks)
    assert all(low <= likely <= high for low, likely, high in ahead.blocks)


def test_a_gate_lasts_between_its_limits_and_the_slower_heart_longer() -> None:
    plan = plan_text(
        "warm-up 5:00 at 3\n6 x 40/until 130, least 20, most 2:00, at 8\n  run", shipped()
    )
    low, likely, high = foresee(plan, ADA, body_of(ADA)).blocks[1]
    assert 6 * 60 <= low < likely < high <= 6 * 160
    slower = foresee(plan, ADA, Body(rest=60, highest=190, tau_off=110)).blocks[1]
    assert slower[1] > likely


def test_people_who_are_drawn_are_always_the_same_and_spread_as_people_are() -> None:
    some = company(Body(), 200, 3, 2.5)
    assert some == company.__wrapped__(Body(), 200, 3, 2.5)
    assert 0.15 < np.std(np.log([one.tau_on for one in some])) < 0.27
    assert np.mean([one.highest for one in some]) == pytest.approx(190, abs=1)


@pytest.mark.parametrize(
    "given_person", [[], {"rest_hr": 900}, {"rest_hr": 110, "max_hr": 115}, {"gain": 0}]
)
def test_a_person_who_cannot_be_is_refused(given_person: Any) -> None:
    with pytest.raises(NotAHeart):
        ahead_object(plan_text("rest 1:00", shipped()), given_person)


SAID = (
    ("warm-up 5:00 at 3\n6 x 30/30 at 8", 1, "The first effort stays under, which is normal"),
    ("warm-up 5:00 at 4\n3 x 4:00/2:00 at 7", 1, "is in its box from the first turn"),
    ("4 x 10/50 at 8", 0, "reaches its box in no turn"),
    ("warm-up 5:00 at 3\n3 rounds of 40/20 at 8\n  squat\n  row\n  plank", 1, "s into the rest"),
    ("warm-up 5:00 at 3\n6 x 30/90", 1, ""),
    ("warm-up 5:00 at 3", 0, ""),
    ("rest 3:00", 0, ""),
    ("6 x 40/until 118, least 20, most 2:00 at 8", 0, ""),
    ("3 sets of 8 reps, rest 1:30\n  deadlift", 0, ""),
    ("every 1:00 for 8:00 at 7\n  8 swing", 0, ""),
    ("1 x 3:00/1:00 at 8", 0, ""),
)


@pytest.mark.parametrize(("slate", "block", "said"), SAID)
def test_the_desk_says_what_to_expect_and_is_silent_elsewhere(
    slate: str, block: int, said: str
) -> None:
    told = heart_said(plan_text(slate, shipped()), block)
    assert (said in told) if said else told == "", told
