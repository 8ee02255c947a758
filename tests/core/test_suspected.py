"""What hearts make a coach ask, held to the cases that were written down before."""

import tomllib
from collections.abc import Sequence
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from lovrit.core.crew.fit import Fitted
from lovrit.core.crew.person import Person
from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.foresee import start_of
from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.learn import Evening, learn, learnt_body
from lovrit.core.heart.suspected import Worn, asked_of_heart, changed_straps
from tests.core.odd_hearts import HEART, plan_of, trace_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "suspected.toml").read_text("utf-8"))


def evening(session: str, heart: dict[str, float], seed: int, did: Sequence[Any] = ()) -> Evening:
    plan = plan_of(session)
    told = trace_of({"session": session, "heart": heart, "did": list(did)}, seed)[0]
    asked = tuple(
        (one.seconds, interval_demand(plan.session, one)) for one in plan.timeline.intervals
    )
    return Evening(asked, np.asarray(told, dtype=float))


@pytest.mark.parametrize("case", CASES["one"], ids=lambda case: str(case["name"]))
def test_a_coach_asks_what_is_odd_and_nothing_else(case: dict[str, Any]) -> None:
    who = Person(id=1, name="Emil", initials="EM", **case["known"])
    some = [
        evening(session, HEART | case["heart"], 20 + nth, case.get("did", []))
        for nth, session in enumerate(case["evenings"])
    ]
    ask = asked_of_heart(who, some)
    assert (ask.kind if ask else "") == case["asks"], ask
    if ask is None:
        return
    plain = Fitted(tau_on=28, tau_off=65, gain=1, minutes=60, evenings=3, before=9, after=9)
    known = who.but(heart=plain.but(ask=ask.kind, seen=ask.seen))
    assert str(ask.seen) in known.heart_asks and str(who.highest) in known.heart_asks
    for quiet in (known.but(effort_only=True), known.but(heart=plain.but(answered=True))):
        assert not quiet.heart_asks


@pytest.mark.parametrize("seed", [1, 2])
@pytest.mark.parametrize("case", CASES["two"], ids=lambda case: str(case["name"]))
def test_changed_straps_are_suspected_from_what_each_heart_did_before(
    case: dict[str, Any], seed: int
) -> None:
    hearts = [HEART | one for one in case["pair"]]
    bodies = []
    for nth, heart in enumerate(hearts):
        known = Person(
            id=nth,
            name="",
            initials="",
            rest_hr=round(heart["rest"]),
            max_hr=round(heart["highest"]),
        )
        before = [
            evening(one, heart, 10 * seed + nth + at)
            for at, one in enumerate(("usual", "hard", "long"))
        ]
        start = start_of(known)
        bodies.append(learnt_body(start, learn(start, before)))
    told = [evening(case["session"], one, seed + 70, case.get("did", [])) for one in hearts]
    straps: list[Floats] = [one.clean for one in told]
    if case["worn"]:
        straps.reverse()
    worn = [
        Worn(nth, body, one._replace(clean=strap))
        for nth, (body, one, strap) in enumerate(zip(bodies, told, straps, strict=True))
    ]
    assert bool(changed_straps(worn)) == case["swapped"]
