"""Learning hearts: what is used foretells evenings that nobody saw better than the start; else nothing is used."""

import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from lovrit.core.crew.fit import Fitted
from lovrit.core.crew.person import Person
from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.body import Body
from lovrit.core.heart.clean import Known, clean
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.heart.learn import Evening, error, learn, learnt_body, lines
from tests.core.odd_hearts import HEART, SESSIONS, plan_of, trace_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "learnings.toml").read_text("utf-8"))
SESSIONS["dense"] = "warm-up 5:00 at 3\n16 x 40/10 at 7"


def evening(case: dict[str, Any], nth: int, seed: int, steers: bool = True) -> Evening:
    session, strap, did = (*case["evenings"][nth], [], [])[:3]
    plan = plan_of(session)
    heart = HEART | case.get("heart", {})
    known = heart | case.get("known", {})
    someone = person_of(known)
    line = foresee(plan, someone, body_of(someone)).bpm
    if case.get("ours"):
        own = body_of(someone).but(tau_on=heart["on"], tau_off=heart["off"])
        true = foresee(plan, someone, own).bpm
        told = np.round(true + np.random.default_rng(seed).normal(0, 1, len(true)))
    else:
        whole = {"session": session, "strap": strap, "did": did, "heart": heart}
        told = trace_of(whole, seed)[0]
    asked = tuple(
        (one.seconds, interval_demand(plan.session, one)) for one in plan.timeline.intervals
    )
    if case.get("late"):
        asked = ((case["late"], 0.12), *asked)
        told = np.concatenate([np.full(case["late"], known["rest"] + 12.0), told])
        line = np.concatenate([np.full(case["late"], line[0]), line])
    found = clean(told, Known(line, None, someone.rest, someone.highest, steers=steers))
    weeks = case.get("weeks", [0] * len(case["evenings"]))[nth]
    return Evening(asked, found.clean, weeks)


def off(body: Body, one: Evening) -> float:
    """By how much a forecast lies off as a whole, in beats."""
    return float(np.nanmean(lines([body], one)[0] - one.clean))


def person_of(known: dict[str, float]) -> Person:
    return Person(
        id=1, name="", initials="", rest_hr=round(known["rest"]), max_hr=round(known["highest"])
    )


@pytest.mark.parametrize("seed", [11, 12])
@pytest.mark.parametrize(
    "case", [one for one in CASES["learning"] if not {"thrown", "frozen", "effort_only"} & one.keys()],
    ids=lambda case: case["name"],
)  # fmt: skip
def test_what_is_learnt_is_used_only_where_it_foretells_better(
    case: dict[str, Any], seed: int
) -> None:
    evenings = [evening(case, nth, seed + nth) for nth in range(len(case["evenings"]))]
    body = body_of(person_of(HEART | case.get("heart", {}) | case.get("known", {})))
    found = learn(body, evenings)
    if "used" in case:
        assert (found is not None and not found.as_start) == case["used"], found
    if found is None or found.as_start:
        return
    unseen = evening({**case, "evenings": [["usual"]], "weeks": [0]}, 0, seed + 50)
    now, start = error(learnt_body(body, found), unseen), error(body, unseen)
    assert now <= start + 0.3, (start, now)
    if "without" in case:
        good = error(learnt_body(body, learn(body, evenings[:-1])), unseen)
        assert now <= good + case["without"]
    if case.get("lifted"):
        assert abs(off(learnt_body(body, found), unseen)) <= abs(off(body, unseen)) + 2.5
    if "down" in case:
        assert found.down == case["down"], found


def test_what_was_learnt_is_said_in_words() -> None:
    fit = Fitted(
        tau_on=20, tau_off=40, gain=1, minutes=62, evenings=3, before=6.1, after=3.4, up="quick"
    )
    assert "rises quickly" in fit.said and "comes down" not in fit.said
    assert fit.but(up="usual", down="usual").said.startswith(
        "rises and comes down as usual; from 62"
    )
    assert "rises quickly and comes down slowly" in fit.but(down="slow").said


EIGHT = ["usual", "long", "hard", "usual", "laps", "usual", "hard", "long"]


@pytest.mark.parametrize(
    ("heart", "known"),
    [
        ({"on": 14, "off": 35}, {}),
        ({"on": 50, "off": 120}, {}),
        ({"on": 28, "off": 65}, {}),
        ({"on": 28, "off": 65, "highest": 125}, {"highest": 125}),
    ],
    ids=["quick", "slow", "usual", "on medicine"],
)
def test_after_eight_evenings_the_ninth_is_within_five_beats(
    heart: dict[str, float], known: dict[str, float]
) -> None:
    case = {"heart": heart, "known": known, "evenings": [[name] for name in EIGHT]}
    body = body_of(person_of(HEART | heart))
    for evenings in (3, 8):
        found = learn(body, [evening(case, nth, 70 + nth) for nth in range(evenings)])
        assert found
        ninth = evening({**case, "evenings": [["usual"]]}, 0, 99)
        assert error(learnt_body(body, found), ninth) <= 5


@pytest.mark.parametrize(
    ("word", "on", "off"), [("quick", 14, 35), ("usual", 28, 65), ("slow", 50, 120)]
)
def test_a_heart_of_our_kind_is_called_what_it_is_and_stays_so(
    word: str, on: float, off: float
) -> None:
    case = {"heart": {"on": on, "off": off}, "ours": True, "evenings": [[name] for name in EIGHT]}
    body = body_of(person_of(HEART))
    for evenings in range(3, 9):
        found = learn(body, [evening(case, nth, 70 + nth) for nth in range(evenings)])
        assert found and (found.up, found.down) == (word, word)
