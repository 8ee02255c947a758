"""Weeks by hand-worked figures, and orders held to brute force."""

import tomllib
from datetime import datetime, timedelta
from itertools import permutations
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.asked.carried import FADES, Other, Planned, carried, left
from lovrit.core.asked.clashing import clashes, cost
from lovrit.core.asked.dose import Asks, asks
from lovrit.core.asked.qualities import REGIONS, Fresh, Quality, Region
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.board import carried_through, sameness
from lovrit.core.weeks.order import Wish, best_order, kept
from lovrit.core.weeks.ways import Around
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


@given(
    st.sampled_from(sorted(FADES)),
    st.floats(0, 60),
    st.floats(0, 400),
    st.floats(0, 400),
    st.sampled_from([0.8, 1, 1.5]),
)
def test_what_is_carried_stays_a_while_and_then_halves(
    quality: Quality, worth: float, one: float, more: float, longer: float
) -> None:
    whole, halved = (longer * figure for figure in FADES[quality])
    assert left(worth, min(one, whole), quality, longer) == worth
    assert left(worth, whole + halved, quality, longer) == pytest.approx(worth / 2)
    later = left(worth, one + more, quality, longer)
    assert later <= left(worth, one, quality, longer) + 1e-9 <= worth + 1e-6
    assert left(worth, one, quality) <= left(worth, one, quality, 1.5) + 1e-9
    assert left(worth, -1, quality) == 0


BOARDS = tomllib.loads(
    (Path(__file__).parents[2] / "cases" / "week_boards.toml").read_text("utf-8")
)


@pytest.mark.parametrize("case", BOARDS["board"], ids=lambda case: str(case["said"]))
def test_weeks_are_judged_as_a_coach_does(case: dict[str, Any]) -> None:
    planned = [
        Planned(id=when, at=day_of(when), asks=told(BOARDS["slates"][name]))
        for when, name in case["days"].items()
    ]
    others = [
        Other(at=day_of(f"{one['day']} 12:00"), what=one["what"], weight=one["weight"],
              patterns=tuple(one.get("patterns", ())))
        for one in case.get("others", ())
    ]  # fmt: skip
    around = Around(planned, others)
    found = [f"{day_of(one.session).day} {one.pattern}" for one in around.told]
    only = {
        f"{day_of(one.session).day} {one.pattern}" for one in around.every if one.kind == "told"
    }
    if "most" in case:
        assert len(found) == case["most"]
        return
    assert len(found) == len(case["clash"])
    assert all(_is(one, wanted) for one, wanted in zip(found, case["clash"], strict=True)), found
    assert set(case.get("tell", ())) <= only
    assert all(one.text.startswith(one.session) and "{" not in one.text for one in around.every)


def day_of(when: str) -> datetime:
    day, _, at = when.partition(" ")
    return datetime.fromisoformat(f"2026-12-{int(day):02}T{at or '18:00'}")


def _is(found: str, wanted: str) -> bool:
    day, _, regions = wanted.partition(" ")
    return found.split() in [[day, region] for region in regions.split("|")]


def test_what_was_kept_before_qualities_is_carried_as_hard_work() -> None:
    old = told(SQUATS).but(leaves=None)
    assert old.left.worth("legs") == pytest.approx(10)
    assert [one.quality for one in old.left.burdens if one.region == "legs"] == ["hard work"]


def week(*slates: str) -> list[Planned]:
    return [
        Planned(id=f"s{nth}", at=TUESDAY + timedelta(days=nth), asks=told(slate))
        for nth, slate in enumerate(slates)
    ]


def test_a_clash_is_told_with_what_and_from_when_and_a_better_order_with_what_it_gains() -> None:
    days = week(SQUATS, SQUATS, PUSHES)
    (clash,) = [one for one in clashes(days, []) if one.pattern == "legs"]
    assert (clash.session, clash.since) == ("s1", "s0")
    said = "s1 asks hard work of legs, where hard work of s0, 24 hours before, is still carried."
    assert clash.text == said
    order = best_order(days, [], ())
    assert order.proven and order.best < order.now
    assert abs((order.at["s0"] - order.at["s1"]).days) == 2
    regatta = [Other(at=TUESDAY - timedelta(hours=6), what="regatta", patterns=("push",))]
    assert any(one.since == "regatta" for one in clashes(week(PUSHES), regatta))
    nothing = [Other(at=TUESDAY, what="shift", weight="none")]
    assert clashes(week(SQUATS, PUSHES), nothing) == clashes(week(SQUATS, PUSHES), [])


doses = st.dictionaries(st.sampled_from(["squat", "push", "pull"]), st.floats(0, 20), max_size=3)
needs = st.sets(st.sampled_from(REGIONS), max_size=2)


def asks_of(dose: dict[str, float], fresh: set[Region]) -> Asks:
    """Hard minutes by pattern, and regions that have to be fresh."""
    plain = Asks(dose=dose, sore={}, load=100, hard_min=5, minutes=40, unsaid=())
    wants = tuple(Fresh(region=region, what="heavy") for region in sorted(fresh))
    return plain.but(leaves=plain.left.but(fresh=wants))


@examples(60)
@given(st.lists(doses, min_size=1, max_size=5), st.lists(st.integers(0, 4), max_size=2), st.data())
def test_the_best_order_is_the_best_of_all_that_keep_the_wishes(
    given_doses: list[dict[str, float]], fixed: list[int], data: st.DataObject
) -> None:
    sessions = [
        Planned(
            id=f"s{nth}",
            at=TUESDAY + timedelta(days=nth),
            asks=asks_of(dose, data.draw(needs)),
            fixed=nth in fixed,
        )
        for nth, dose in enumerate(given_doses)
    ]
    wishes = (Wish(kind="apart", id="s0", other="s1", days=data.draw(st.integers(0, 3))),)
    others = [Other(at=TUESDAY + timedelta(days=data.draw(st.integers(0, 9))), what="race")]
    order = best_order(sessions, others, wishes)
    times = [one.at for one in sessions]
    prices = []
    for some in permutations(times):
        tried = [one.but(at=at) for one, at in zip(sessions, some, strict=True)]
        stays = all(a.at == b.at for a, b in zip(sessions, tried, strict=True) if a.fixed)
        if stays and kept(tried, wishes):
            prices.append(cost(tried, others))
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
    assert told_of["days"][1]["carried"]["legs"] == pytest.approx(10 * 0.5 ** (12 / 16), abs=0.01)
    ways = [way for one in told_of["clashes"] if one["pattern"] == "legs" for way in one["ways"]]
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
            "none, some, hard or event",
        ),
    ],
)
def test_what_cannot_be_read_is_said(given_file: dict[str, Any], said: str) -> None:
    with pytest.raises(NotWeeks, match=said):
        weeks_object(given_file, shipped())
