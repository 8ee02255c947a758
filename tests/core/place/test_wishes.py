"""Wishes weighed, halls with things in the way, kit taken at once, setting up: properties and worked cases."""

from itertools import pairwise
from math import hypot

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lovrit.core.crew.person import Chosen, Person
from lovrit.core.moves.library import shipped
from lovrit.core.place.around import Box, Ways
from lovrit.core.place.at_once import at_once
from lovrit.core.place.evening import evening
from lovrit.core.place.hall import Hall, problem_of
from lovrit.core.place.place import place
from lovrit.core.place.problem import Problem, Spot, Station
from lovrit.core.place.setting_up import setting_up
from lovrit.core.place.watch import Watch
from lovrit.core.place.ways import ways_out
from lovrit.core.place.why import why_not
from lovrit.core.place.wishes import NEVER_A_MUST, SAID, WEIGHTS, Wishes
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked
from tests.conftest import examples
from tests.core.place.test_place import problems

LIBRARY = shipped()
WISHES = st.builds(
    Wishes,
    **{
        name: st.sampled_from([one for one in WEIGHTS if one != "must" or name not in NEVER_A_MUST])
        for name in SAID
    },
)


@examples(25)
@given(problems(most_stations=4, most_people=6), WISHES, st.booleans())
def test_a_must_is_kept_what_is_off_costs_nothing_and_each_way_out_works(
    problem: Problem, wishes: Wishes, in_order: bool
) -> None:
    asked = problem.but(wishes=wishes, in_order=in_order)
    found = place(asked, 3.0)
    if found is None:
        assume(place(problem.but(wishes=Wishes()), 3.0))  # only the musts stand in the way
        assert any(one.wishes for one in why_not(asked))
        ways = ways_out(asked, ())
        assert any("wishes" in way.changes or "in_order" in way.changes for way in ways)
        assert all(place(way.problem, 20.0) for way in ways)  # however slow the machine
        return
    order = found.laid.order
    assert not in_order or order == tuple(range(problem.count))
    for nth, one in enumerate(order):
        assert (
            asked.follows(asked.stations[one], asked.stations[order[(nth + 1) % len(order)]])
            is not None
        )
    for wish in ("levels", "together"):
        if wishes.must(wish):
            assert found.dealt.wishes[wish] == 0
    if all(getattr(wishes, name) == "off" for name in SAID):
        assert found.cost == 0


@given(
    st.lists(st.tuples(*[st.integers(0, 8)] * 2, *[st.integers(1, 4)] * 2), max_size=4),
    st.tuples(*[st.integers(0, 24)] * 2),
    st.tuples(*[st.integers(0, 24)] * 2),
)
def test_a_walk_round_is_never_shorter_than_straight_and_crosses_nothing(
    boxes: list[tuple[int, int, int, int]], start: tuple[int, int], end: tuple[int, int]
) -> None:
    made = [Box(*map(float, box)) for box in boxes]
    one, other = (start[0] / 2, start[1] / 2), (end[0] / 2, end[1] / 2)
    assume(not any(box.holds(one) or box.holds(other) for box in made))
    ways = Ways(made, (12.0, 12.0))
    path = ways.path(one, other)
    straight = hypot(one[0] - other[0], one[1] - other[1])
    assert ways.metres(one, other) >= straight - 1e-9
    assert ways.metres(one, other) == pytest.approx(ways.metres(other, one))
    if len(path) > 2:
        assert not any(box.crossed(a, b) for box in made for a, b in pairwise(path))
    elif not any(box.crossed(one, other) for box in made):
        assert ways.metres(one, other) == pytest.approx(straight)


def test_a_stage_is_walked_round_by_hand() -> None:
    ways = Ways([Box(4, 0, 2, 3)], (10, 10))
    assert ways.metres((2, 1), (8, 1)) == pytest.approx(hypot(2, 2) * 2 + 2)
    assert ways.metres((2, 5), (8, 5)) == 6


def test_stopped_at_once_the_best_that_is_known_is_taken(winter: str) -> None:
    plan = plan_text(winter, LIBRARY)
    watch = Watch()
    watch.stop()
    hall = checked(
        Hall,
        {"size_m": (20, 12), "spots": [{"id": str(n), "x": 2 * n, "y": n % 3} for n in range(9)]},
    )
    block = next(one for one in plan.session.blocks if one.moves_people)
    people = [Person(id=n, name=f"P{n}", initials=f"{n}") for n in range(12)]
    problem = problem_of(block, hall, people, 6, LIBRARY).but(rest_s=60)
    found = place(problem, 30.0, watch)
    assert found and found.laid.bound <= found.laid.cost and watch.said


KIT = [{"name": "bell", "load_kg": 12, "count": 9}, {"name": "bell", "load_kg": 16, "count": 2}]
SWINGERS = [
    Person(id=n, name=f"P{n}", initials=f"{n}", does={"swing": Chosen(name="swing", load=12)})
    for n in range(18)
]
AT_ONCE = {
    "every 1:00 for 8:00\n  8 swing | bell 16 12": (18, 9),
    "every 1:00 for 8:00, half start at 0:30\n  8 swing | bell 16 12": (9, 9),
    "as many as possible in 8:00, partners alternate\n  8 swing | bell 16 12\n  10 push-up": (9, 9),
    "as many as possible in 8:00\n  8 swing | bell 16 12\n  10 push-up": (18, 9),
    "6 x 0:40 / 0:20\n  squat": None,
    "3 rounds of 40/20\n  swing | bell 16 12\n  squat": None,
    "steady 5:00 at 4": None,
}


@pytest.mark.parametrize("text", AT_ONCE)
def test_what_all_take_at_once_is_counted_with_halves_and_partners(text: str) -> None:
    plan = plan_text(text, LIBRARY)
    assert not plan.problems, plan.problems
    found = at_once(plan, checked(Hall, {"kit": KIT}), SWINGERS, LIBRARY)
    if AT_ONCE[text] is None:
        assert not found
        return
    (one,) = found
    assert (one.taken, one.there) == AT_ONCE[text]
    assert one.short == (one.taken > one.there) == bool(one.help)


def test_setting_up_is_counted_from_the_store(winter: str) -> None:
    station = Station("swing", kit=(("bell", 1),), loads=(12.0,), move="swing")
    spots = [{"id": "a", "x": 6, "y": 0}]
    hall = checked(Hall, {"spots": spots, "kit": KIT, "ways": [{"what": "store", "x": 0, "y": 0}]})
    block = plan_text("2 rounds of 40/20\n  swing | bell 12\n  squat\n", LIBRARY).session.blocks[0]
    problem = problem_of(block, hall, SWINGERS[:5], 1, LIBRARY)
    names = [one.id for one in problem.people]
    (put,) = setting_up(problem.but(stations=(station,)), {"swing": "a"}, [names], hall.store)
    assert put.kit == ((("bell", 12.0), 5),)
    assert put.seconds == 15 + 2 * 12 / 1.2  # five pieces are two walks of twelve metres
    assert winter


def test_walks_that_cross_are_minded_and_a_ring_is_not() -> None:
    names = ("a", "b", "c", "d")
    stations = tuple(Station(name) for name in names)
    corners = {"a": (0, 0), "b": (6, 0), "c": (6, 6), "d": (0, 6)}
    spots = tuple(Spot(name, *corners[name]) for name in names)
    problem = Problem(stations, (), spots, {}, 30, 1)
    ring = evening(problem, [], {name: name for name in names})
    assert not any("cross" in text for text in ring.cautions)
    crossed = evening(problem, [], {"a": "a", "b": "c", "c": "b", "d": "d"})
    assert [text for text in crossed.cautions if "cross" in text] == [
        "a to b and c to d cross: all walk at once."
    ]
