"""Placings held to every must by a checker that knows only the rules, and to brute force where that can be done."""

import re
from collections import Counter
from itertools import permutations, product
from math import hypot
from random import Random
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.place.evening import evening
from lovrit.core.place.order import cost_of, lay
from lovrit.core.place.place import place
from lovrit.core.place.problem import CannotPlace, Mover, Problem, Spot, Station
from lovrit.core.place.ways import ways_out
from lovrit.core.place.why import why_not
from lovrit.core.session.reader import read
from lovrit.formats.place_files import placed_object, problem_of
from tests.conftest import examples

TURN = re.compile(r"Turn (\d+): \d+ of (bell \d+ kg), there are \d+; ")
PATTERNS = ("squat", "pull", "push", "brace")


@st.composite
def problems(draw: st.DrawFn, most_stations: int = 5, most_people: int = 9) -> Problem:
    n = draw(st.integers(2, most_stations))
    stations = tuple(
        Station(
            f"s{nth}",
            draw(st.sampled_from(PATTERNS)),
            grip=draw(st.booleans()),
            floor=draw(st.booleans()),
            kit=(("bell", 1),) if draw(st.booleans()) else (),
            move=f"s{nth}",
        )
        for nth in range(n)
    )
    count = draw(st.integers(2, most_people))
    ids = [f"p{nth}" for nth in range(count)]
    people = tuple(
        Mover(
            who,
            draw(st.integers(1, 5)),
            loads={station.name: draw(st.sampled_from([12.0, 16.0])) for station in stations},
            apart=frozenset(draw(st.sets(st.sampled_from(ids), max_size=1))) - {who},
            together=frozenset(draw(st.sets(st.sampled_from(ids), max_size=1))) - {who},
        )
        for who in ids
    )
    spots = tuple(
        Spot(f"x{nth}", draw(st.integers(0, 12)), draw(st.integers(0, 8)))
        for nth in range(n + draw(st.integers(0, 2)))
    )
    kit = {("bell", load): draw(st.integers(1, 6)) for load in (12.0, 16.0)}
    groups = draw(st.integers(1, min(n, count)))
    return Problem(stations, people, spots, kit, draw(st.sampled_from([8, 12, 20])), groups)


def holds_every_must(problem: Problem, told: dict[str, Any]) -> None:
    """Everything that must hold, from the printed placing and the rules alone."""
    names = [one.name for one in problem.stations]
    assert sorted(told["order"]) == sorted(names)
    assert len(set(told["spots"].values())) == len(names)
    spots = {one.id: one for one in problem.spots}
    turned = zip(told["order"], [*told["order"][1:], told["order"][0]], strict=True)
    for one, other in turned if len(names) > 1 else ():
        here, there = spots[told["spots"][one]], spots[told["spots"][other]]
        walk = hypot(here.x - there.x, here.y - there.y) / problem.walk_m_s + problem.reset_s
        assert walk <= problem.rest_s + 1e-9
    dealt = [who for group in told["groups"] for who in group["people"]]
    assert sorted(dealt) == sorted(one.id for one in problem.people)
    sizes = [len(group["people"]) for group in told["groups"]]
    assert len(sizes) == problem.groups and max(sizes) - min(sizes) <= 1
    by_letter = {group["letter"]: group["people"] for group in told["groups"]}
    people = {one.id: one for one in problem.people}
    for group in by_letter.values():
        assert not any(people[who].apart & set(group) for who in group)
    stations = {one.name: one for one in problem.stations}
    visited: dict[str, list[str]] = {name: [] for name in by_letter}
    for turn in told["turns"]:
        used: Counter[tuple[str, float]] = Counter()
        for name, where in turn["at"].items():
            visited[name].append(where)
            for who in by_letter[name]:
                for kit, each in stations[where].kit:
                    used[kit, people[who].loads[where]] += each
        assert all(many <= problem.kit[kind] for kind, many in used.items()), used
    assert all(sorted(seen) == sorted(names) for seen in visited.values())


@examples(30)
@given(problems())
def test_a_placing_keeps_every_must_and_none_is_said_where_none_is(problem: Problem) -> None:
    told = placed_object(problem, 4.0)
    if told["feasible"]:
        holds_every_must(problem, told)
        found = place(problem, 4.0)
        assert found and found.laid.cost == cost_of(problem, found.laid.order, found.laid.spots)
    else:
        assert told["collide"] and all(one["text"] for one in told["collide"])


def cheapest(problem: Problem) -> int | None:
    """The least that an order with its spots costs, by trying all."""
    best: int | None = None
    for order in permutations(range(1, problem.count)):
        for spots in permutations(range(len(problem.spots)), problem.count):
            walks = [
                problem.walk_s(problem.spots[a], problem.spots[b])
                for a, b in zip(spots, (*spots[1:], spots[0]), strict=True)
            ]
            if max(walks) <= problem.rest_s:
                cost = cost_of(problem, (0, *order), spots)
                best = cost if best is None else min(best, cost)
    return best


@examples(20)
@given(problems(most_stations=4, most_people=4))
def test_the_order_is_the_best_of_all_orders(problem: Problem) -> None:
    laid, best = lay(problem, 8.0), cheapest(problem)
    assert (laid is None) == (best is None)
    if laid:
        assert laid.cost == best and laid.proven


def can_be_dealt(problem: Problem) -> bool:
    """Whether any order and any dealing keeps the kit and who is apart, by trying all."""
    n, people = problem.count, problem.people
    low, high = problem.sizes()
    for order in permutations(range(n)):
        stations = [problem.stations[nth] for nth in order]
        for starts in product(range(n), repeat=len(people)):
            sizes = Counter(starts)
            if len(sizes) != problem.groups or not all(
                low <= many <= high for many in sizes.values()
            ):
                continue
            if any(
                starts[p] == starts[q] and people[q].id in people[p].apart
                for p, q in product(range(len(people)), repeat=2)
            ):
                continue
            if all(_kit_holds(problem, stations, starts, turn) for turn in range(n)):
                return True
    return False


def _kit_holds(
    problem: Problem, stations: list[Station], starts: tuple[int, ...], turn: int
) -> bool:
    used: Counter[Any] = Counter()
    for person, start in zip(problem.people, starts, strict=True):
        used.update(problem.uses(person, stations[(start + turn) % len(stations)]))
    return all(many <= problem.kit.get(kind, 0) for kind, many in used.items())


@examples(20)
@given(problems(most_stations=3, most_people=5))
def test_it_is_placed_just_where_trying_everything_finds_a_way(problem: Problem) -> None:
    assert (place(problem, 6.0) is not None) == (
        lay(problem, 4.0) is not None and can_be_dealt(problem)
    )


SESSION = """3 rounds of 40/20
  goblet squat | bell 16 12
  ring row | rings
  plank
  swing | bell 16
"""


def given_files(**more: Any) -> tuple[dict[str, Any], dict[str, Any]]:
    people = [{"id": f"p{nth}", "loads": {"goblet squat": 16, "swing": 16}} for nth in range(8)]
    crew = {"people": people, "groups": 4} | more.get("crew", {})
    spots = [{"id": f"x{nth}", "x": 3 * (nth % 3), "y": 4 * (nth // 3)} for nth in range(6)]
    spots[0]["holds"] = ["rings", "mat"]
    for spot in spots[1:]:
        spot["holds"] = ["mat"]
    kit = [{"name": "bell", "load_kg": 16, "count": 4}, {"name": "bell", "load_kg": 12, "count": 2}]
    return crew, {"spots": spots, "kit": kit} | more.get("hall", {})


def told_of(**more: Any) -> dict[str, Any]:
    crew, hall = given_files(**more)
    return placed_object(problem_of(read(SESSION).session, shipped(), crew, hall, None), 4.0)


def test_a_session_is_placed_in_a_hall_with_its_rings_on_the_wall() -> None:
    told = told_of()
    assert told["feasible"] and told["proven"] and told["gap"] == 0
    assert told["spots"]["ring row"] == "x0"
    assert all(turn["kit"].get("bell 16", 0) <= 4 for turn in told["turns"])


FEW = [{"name": "bell", "load_kg": 16, "count": 3}]
LIGHT = [{"name": "bell", "load_kg": 12, "count": 9}]
APART = [{"id": name, "apart": [other for other in "abc" if other != name]} for name in "abc"]
COLLISIONS: tuple[tuple[dict[str, Any], str], ...] = (
    ({"hall": {"kit": FEW}}, "16 turns with a bell of 16 kg are needed, and 4 turns of 3 give 12"),
    ({"crew": {"groups": 1}}, "With 1 group, 8 of bell of 16 kg are taken at swing at once"),
    ({"hall": {"kit": LIGHT}}, "There is no bell of 16 kg here"),
    ({"hall": {"spots": [{"id": "x", "x": 0, "y": 0}]}}, "There are 4 stations and 1 spot."),
    ({"hall": {"walk_m_s": 0.2}}, "No way round the hall"),
    ({"hall": {"pinned": {"plank": "nowhere"}}}, "There is no spot for plank"),
    ({"crew": {"people": APART, "groups": 2}}, "have to be apart, and there are 2 groups"),
)


@pytest.mark.parametrize(("more", "said"), COLLISIONS)
def test_what_collides_is_said_and_every_way_out_works(more: dict[str, Any], said: str) -> None:
    crew, hall = given_files(**more)
    problem = problem_of(read(SESSION).session, shipped(), crew, hall, None)
    told = placed_object(problem, 4.0)
    assert not told["feasible"]
    assert any(said in one["text"] for one in told["collide"]), told["collide"]
    for way in ways_out(problem, why_not(problem)):
        placed = placed_object(way.problem, 4.0)
        assert placed["feasible"], way.text
        holds_kit(way.problem, placed)


def test_one_big_group_is_told_how_many_groups_are_enough() -> None:
    """Found by sending anything to every page: fifteen seconds of looking, and no way out where two groups do."""
    crew, hall = given_files(crew={"groups": 1})
    problem = problem_of(read(SESSION).session, shipped(), crew, hall, None)
    assert "one group more" in {way.text for way in ways_out(problem, why_not(problem))}
    hall["kit"] = [{"name": "bell", "load_kg": kg, "count": n} for kg, n in ((16, 2), (12, 8))]
    for person in crew["people"]:
        person["loads"] = {"goblet squat": 16, "swing": 12}
    problem = problem_of(read(SESSION).session, shipped(), crew, hall, None)
    assert "4 groups" in {way.text for way in ways_out(problem, why_not(problem))}


def holds_kit(problem: Problem, told: dict[str, Any]) -> None:
    for turn in told["turns"]:
        for key, many in turn["kit"].items():
            name, _, load = key.partition(" ")
            assert many <= problem.kit[name, float(load) if load else None]


def test_nobody_is_asked_for_what_they_cannot_do() -> None:
    people = [{"id": "a", "cannot": ["depth"]}, {"id": "b"}, {"id": "c"}, {"id": "d"}]
    told = told_of(crew={"people": people, "groups": 2})
    assert not told["feasible"] and "a can’t do goblet squat" in told["collide"][0]["text"]
    text = SESSION.replace("goblet squat | bell 16 12", "goblet squat or deadlift | bell 16 12")
    crew, hall = given_files(crew={"people": people, "groups": 2})
    told = placed_object(problem_of(read(text).session, shipped(), crew, hall, None), 4.0)
    assert told["swaps"] == [
        {"person": "a", "station": "goblet squat", "does": "deadlift", "because": "no depth"}
    ]


@pytest.mark.parametrize(
    ("crew", "hall", "said"),
    [
        ({"people": []}, {"spots": []}, "from one to 200"),
        ({"people": [{"id": "a"}, {"id": "a"}]}, {"spots": []}, "comes twice"),
        ({"people": [{"id": "a", "cannot": ["fly"]}]}, {"spots": []}, "“fly” is nothing"),
        ({"people": [{"id": "a", "level": 9}]}, {"spots": []}, "from 1 to 5"),
        ({"people": [{"id": "a"}], "groups": 3}, {"spots": []}, "would be nobody"),
        ({"people": [{"id": "a"}]}, {"spots": [{"id": "x"}]}, "needs x and y"),
        ({"people": [{"id": "a"}]}, {}, "A hall is"),
    ],
)
def test_what_cannot_be_read_is_said(crew: Any, hall: Any, said: str) -> None:
    with pytest.raises(CannotPlace, match=said):
        problem_of(read(SESSION).session, shipped(), crew, hall, None)


@examples(20)
@given(problems())
def test_an_evening_that_was_placed_clashes_nowhere(problem: Problem) -> None:
    """What the Hall tells of an evening is counted apart from the solver; the two agree."""
    problem = problem.but(side_by_side=True)
    found = place(problem, 2.0)
    assume(found is not None)
    assert found
    assert list(found.dealt.people) == list(range(problem.groups))  # as the slate's rotation begins
    order = [problem.stations[nth] for nth in found.laid.order]
    spots = {
        one.name: problem.spots[at].id for one, at in zip(order, found.laid.spots, strict=True)
    }
    told = evening(
        problem.but(stations=tuple(order)),
        [list(some) for some in found.dealt.people.values()],
        spots,
    )
    assert told.spots == spots and not told.clashes


@given(problems(), st.randoms(use_true_random=False))
def test_what_clashes_is_counted_turn_by_turn(problem: Problem, chance: Random) -> None:
    groups: list[list[str]] = [[] for _ in range(problem.groups)]
    for one in problem.people:
        groups[chance.randrange(problem.groups)].append(one.id)
    told = evening(problem, groups, {})
    people, n = {one.id: one for one in problem.people}, problem.count
    taken: Counter[tuple[str, int]] = Counter()
    for turn in range(n):
        for nth, some in enumerate(groups):
            station = problem.stations[(nth + turn) % n]
            for who in some if station.kit else ():
                taken[f"bell {people[who].loads[station.name]:g} kg", turn + 1] += 1
    short = {
        (kit, turn)
        for (kit, turn), many in taken.items()
        if many > problem.kit["bell", float(kit.split()[1])]
    }
    said = {(match[2], int(match[1])) for text in told.clashes if (match := TURN.match(text))}
    assert said == short


def test_two_floor_moves_and_one_mat_are_told_and_a_mat_is_carried() -> None:
    session = read("3 rounds of 40/20\n  dead bug\n  plank\n  squat\n").session
    crew = {"people": [{"id": nth} for nth in range(6)]}
    spots = [{"id": "m", "x": 0, "y": 0, "holds": ["mat"]}]
    spots += [{"id": f"p{nth}", "x": 4 * nth, "y": 4, "holds": []} for nth in range(3)]
    told = placed_object(problem_of(session, shipped(), crew, {"spots": spots}, None), 2.0)
    assert [one["text"] for one in told["collide"]] == [
        "dead bug, plank need mat, and 1 spot has it."
    ]
    way, *others = told["ways"]
    assert {tuple(one["changes"]["holds"]) for one in others} == {("p1",), ("p0",)}
    assert way["text"] == "a mat on p2" and way["changes"] == {"holds": {"p2": ["mat"]}}
    spots[3]["holds"] = ["mat"]
    assert placed_object(problem_of(session, shipped(), crew, {"spots": spots}, None), 2.0)[
        "feasible"
    ]


def test_an_order_with_a_station_twice_stays_as_it_was_given() -> None:
    twice = [Station(name, kit=()) for name in ("squat", "row", "squat", "plank")]
    spots = tuple(Spot(f"x{nth}", nth, 0) for nth in range(4))
    people = tuple(Mover(f"p{nth}") for nth in range(4))
    asked = Problem(tuple(twice), people, spots, {}, rest_s=30, groups=4, in_order=True)
    found = place(asked, 3.0)
    assert found and found.laid.order == (0, 1, 2, 3)
