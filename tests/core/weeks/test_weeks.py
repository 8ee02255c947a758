"""Weeks by hand-worked figures, and orders held to brute force."""

from datetime import datetime, timedelta
from itertools import permutations
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.asked.dose import Asks, asks
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.board import (
    Other,
    Planned,
    carried,
    carried_through,
    clashes,
    cost,
    left,
    sameness,
)
from lovrit.core.weeks.order import Wish, best_order, kept
from lovrit.formats.weeks_files import NotWeeks, weeks_object
from tests.conftest import examples

TUESDAY = datetime.fromisoformat("2026-12-01T18:10")
SQUATS = "10 x 60/30 at 8\n  goblet squat"
PUSHES = "10 x 60/30 at 8\n  push-up"


def told(text: str) -> Asks:
    return asks(plan_text(text, shipped()))


# (slate, pattern, hard minutes), worked by hand: seconds x (effort / 8)^2 / 60, half as much again for hard landings
WORKED = (
    (SQUATS, "squat", 10.0),
    ("10 x 60/30 at 4\n  goblet squat", "squat", 2.5),
    ("10 x 60/30 at 8\n  goblet squat slow 4 s", "squat", 15.0),
    ("2 rounds of 60/30 at 8\n  goblet squat\n  push-up", "squat", 2.0),
    ("2 rounds of 60/30 at 8\n  goblet squat\n  push-up", "push", 2.0),
    ("6 x 40/20 at 8\n  jump squat", "squat", 6.0),
    ("6 x 40/20 at 8\n  jump squat", "impact", 4.0),
    ("6 x 40/20 at 8\n  jump squat", "breath", 4.0),
    ("6 x 40/20 at 6\n  jump squat", "breath", 0.0),
    ("easy laps 20:00 at 3", "gait", 0.0),
    ("rest 5:00", "squat", 0.0),
)


@pytest.mark.parametrize(("slate", "pattern", "minutes"), WORKED)
def test_a_dose_is_what_it_is_worked_out_to_be(slate: str, pattern: str, minutes: float) -> None:
    assert told(slate).dose.get(pattern, 0.0) == pytest.approx(minutes, abs=0.01)


def test_a_pattern_long_unused_counts_half_as_much_again_and_no_effort_is_said() -> None:
    plan = plan_text(SQUATS, shipped())
    assert asks(plan, frozenset({"squat"})).dose["squat"] == pytest.approx(15)
    assert told("10 x 60/30\n  squat").unsaid == ("10 x 60/30",)
    assert told("3 x 60/60 at 8\n  run").load == pytest.approx(3 * 8 + 3 * 2)


@given(st.floats(0, 60), st.floats(0, 400), st.floats(0, 400))
def test_what_is_carried_stays_a_day_and_then_halves_every_day(
    minutes: float, one: float, more: float
) -> None:
    assert left(minutes, min(one, 24.0)) == minutes
    assert left(minutes, 48) == pytest.approx(minutes / 2)
    assert left(minutes, one + more) <= left(minutes, one) + 1e-9 <= minutes + 1e-6
    assert left(minutes, -1) == 0


def week(*slates: str) -> list[Planned]:
    return [
        Planned(id=f"s{nth}", at=TUESDAY + timedelta(days=nth), asks=told(slate))
        for nth, slate in enumerate(slates)
    ]


def test_a_clash_is_told_with_what_and_from_when_and_a_better_order_with_what_it_gains() -> None:
    days = week(SQUATS, SQUATS, PUSHES)
    (clash,) = [one for one in clashes(days, []) if one.pattern == "squat"]
    assert (clash.session, clash.since) == ("s1", "s0")
    assert clash.text == "s1 asks 10 hard minutes of squat, and 10 are still carried from s0."
    order = best_order(days, [], ())
    assert order.proven and order.best < order.now
    assert abs((order.at["s0"] - order.at["s1"]).days) == 2
    regatta = [Other(at=TUESDAY - timedelta(hours=6), what="regatta", patterns=("push",))]
    assert any(one.since == "regatta" for one in clashes(week(PUSHES), regatta))
    nothing = [Other(at=TUESDAY, what="shift", weight="none")]
    assert clashes(week(SQUATS, PUSHES), nothing) == clashes(week(SQUATS, PUSHES), [])


doses = st.dictionaries(st.sampled_from(["squat", "push", "pull"]), st.floats(0, 20), max_size=3)


@examples(60)
@given(st.lists(doses, min_size=1, max_size=5), st.lists(st.integers(0, 4), max_size=2), st.data())
def test_the_best_order_is_the_best_of_all_that_keep_the_wishes(
    given_doses: list[dict[str, float]], fixed: list[int], data: st.DataObject
) -> None:
    sessions = [
        Planned(
            id=f"s{nth}",
            at=TUESDAY + timedelta(days=nth),
            asks=Asks(dose=dose, sore={}, load=100, hard_min=5, minutes=40, unsaid=()),
            fixed=nth in fixed,
        )
        for nth, dose in enumerate(given_doses)
    ]
    wishes = (Wish(kind="apart", id="s0", other="s1", days=data.draw(st.integers(0, 3))),)
    order = best_order(sessions, [], wishes)
    times = [one.at for one in sessions]
    prices = []
    for some in permutations(times):
        tried = [one.but(at=at) for one, at in zip(sessions, some, strict=True)]
        stays = all(a.at == b.at for a, b in zip(sessions, tried, strict=True) if a.fixed)
        if stays and kept(tried, wishes):
            prices.append(cost(tried, []))
    assert order.best == pytest.approx(min(prices) if prices else order.now)
    assert sorted(order.at.values()) == times
    assert all(order.at[one.id] == one.at for one in sessions if one.fixed)


def test_what_is_carried_at_many_moments_is_what_is_carried_at_each() -> None:
    days = week(SQUATS, "6 x 40/20 at 8\n  jump squat", PUSHES)
    others = [Other(at=TUESDAY + timedelta(hours=30), what="regatta", patterns=("push",))]
    moments = [TUESDAY + timedelta(hours=3 * nth) for nth in range(-2, 60)]
    lines = carried_through(moments, days, others)
    for nth, at in enumerate(moments):
        there = carried(at, days, others)
        assert all(lines[name][nth] == pytest.approx(there.get(name, 0.0)) for name in lines)


def test_days_that_are_alike_are_told_as_a_figure() -> None:
    assert sameness([100, 100, 100]) is None
    assert sameness([100, 110, 90]) == pytest.approx(100 / (200 / 3) ** 0.5)
    assert carried(TUESDAY, week(SQUATS), []) == {}


def test_the_file_comes_out_as_the_brief_has_it() -> None:
    told_of = weeks_object(
        {
            "sessions": [
                {"id": "a", "at": "2026-12-01T18:10", "slate": SQUATS},
                {"id": "b", "at": "2026-12-02T18:10", "slate": SQUATS},
                {"id": "c", "at": "2026-12-04T18:10", "slate": PUSHES},
            ],
            "others": [{"date": "2026-12-05", "what": "regatta", "weight": "some"}],
            "wishes": [{"kind": "not-before", "id": "b", "date": "2026-12-02"}],
        },
        shipped(),
    )
    assert [day["date"] for day in told_of["days"]] == [f"2026-12-0{nth}" for nth in range(1, 6)]
    assert told_of["days"][1]["carried"]["squat"] == pytest.approx(10)
    ways = [way for one in told_of["clashes"] if one["pattern"] == "squat" for way in one["ways"]]
    assert "change places with c" in ways and any(way.startswith("a gentler way") for way in ways)
    assert told_of["order"]["days"]["b"] == "2026-12-04" and told_of["order"]["proven"]


@pytest.mark.parametrize(
    ("given_file", "said"),
    [
        ({}, "A file is"),
        ({"sessions": [{"id": "a", "at": "soon", "slate": SQUATS}]}, "no moment"),
        (
            {"sessions": [{"id": "a", "at": "2026-12-01T18:10", "slate": "3 runds"}]},
            "Line 1 of session 1",
        ),
        ({"sessions": [{"id": "a", "at": "2026-12-01", "slate": SQUATS}] * 2}, "one id"),
        (
            {"sessions": [{"at": "2026-12-01", "slate": SQUATS}], "wishes": [{"kind": "soon"}]},
            "no kind",
        ),
        (
            {
                "sessions": [{"at": "2026-12-01", "slate": SQUATS}],
                "others": [{"date": "2026-12-01", "weight": "much"}],
            },
            "none, some or hard",
        ),
    ],
)
def test_what_cannot_be_read_is_said(given_file: dict[str, Any], said: str) -> None:
    with pytest.raises(NotWeeks, match=said):
        weeks_object(given_file, shipped())
