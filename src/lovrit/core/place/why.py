"""Why it can't be placed, in sentences a coach would say.

Counting first: it finds what is short in a millisecond. What counting doesn't find is found by leaving wishes out.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from lovrit.core.clock import number
from lovrit.core.place.bounds import least_moves, least_walk
from lovrit.core.place.place import can_be
from lovrit.core.place.problem import Kit, Mover, Problem, Spot, Station
from lovrit.core.place.watch import Watch
from lovrit.core.place.wishes import SAID as WISHED


@dataclass(frozen=True)
class Collision:
    """Wishes that can't all be kept, and why."""

    text: str
    wishes: tuple[str, ...]


def said(kind: Kit) -> str:
    """A kit in words: bell of 12 kg."""
    name, load = kind
    return name if load is None else f"{name} of {number(load)} kg"


MUSTS: dict[str, str] = {
    "patterns": "has no pattern twice in a row",
    "grips": "has no grip twice in a row",
    "floor": "keeps all on the floor, or all standing",
    "hard": "has something easier after each hard one",
}


def why_not(problem: Problem) -> tuple[Collision, ...]:
    """What collides; never empty for a problem that has no placing."""
    found = (*_standing(problem), *_short(problem), *_parted(problem))
    return (
        found
        or tuple(_left_out(problem))
        or (
            Collision(
                "No placing was found in the time there was; it is not known that there is none.",
                (),
            ),
        )
    )


def _standing(problem: Problem) -> Iterator[Collision]:
    """Stations without a spot, and walks that are longer than the rest."""
    for station in problem.stations:
        if not any(problem.holds(spot, station) for spot in problem.spots):
            needs = (
                f"it needs {', '.join(sorted(station.needs))}" if station.needs else "none is free"
            )
            yield Collision(
                f"There is no spot for {station.name}: {needs}.", (f"spot of {station.name}",)
            )
    musts = [wish for wish in MUSTS if wish in problem.wishes.musts]
    if musts and problem.count > 1 and least_moves(problem, 2.0, Watch()) is None:
        text = f"No order of the stations {' and '.join(MUSTS[one] for one in musts)}, which was said to be a must."
        if problem.in_order:
            broken = " and ".join(f"“{WISHED[one]}”" for one in musts)
            text = f"The order that you gave does not keep {broken}, which was said to be a must."
        yield Collision(text, tuple(musts))
    crowded = tuple(_crowded(problem))
    yield from crowded
    if len(problem.spots) < problem.count:
        text = f"There are {problem.count} stations and {_many(len(problem.spots), 'spot')}."
        yield Collision(text, ("a spot for each station",))
    elif not crowded and problem.count > 1 and least_walk(problem, 2.0, Watch()) is None:
        setting = f"with {number(problem.reset_s)} s to set up"
        text = (
            f"No way round the hall, {setting}, has every walk within {problem.rest_s} s of rest."
        )
        yield Collision(text, ("walks within the rest",))


def _crowded(problem: Problem) -> Iterator[Collision]:
    """Stations that need the same thing of a spot, where fewer spots have it."""
    for needs, stations, spots in fixed(problem):
        if spots and len(stations) > len(spots):
            names = ", ".join(one.name for one in stations)
            has = "1 spot has it" if len(spots) == 1 else f"{len(spots)} spots have it"
            text = f"{names} need {', '.join(sorted(needs))}, and {has}."
            yield Collision(text, tuple(f"spot of {one.name}" for one in stations))


def fixed(problem: Problem) -> Iterator[tuple[frozenset[str], list[Station], list[Spot]]]:
    """What is fixed at spots, with the stations that need it and the spots that have it."""
    for needs in sorted({one.needs for one in problem.stations if one.needs}, key=sorted):
        stations = [one for one in problem.stations if needs <= one.needs]
        spots = [
            spot for spot in problem.spots if any(problem.holds(spot, one) for one in stations)
        ]
        yield needs, stations, spots


def _many(count: int, what: str) -> str:
    return f"{count} {what}{'s' if count != 1 else ''}"


def _short(problem: Problem) -> Iterator[Collision]:
    """Kit that a round needs more of than all its turns have, or one person more than there is."""
    crowds = {
        kind: (station, least)
        for kind, station, least in sorted(problem.crowds(), key=lambda one: one[2])
    }
    for kind, by_station in problem.needs().items():
        there, turns = problem.kit.get(kind, 0), problem.count
        need = sum(by_station.values())
        wish = f"enough {said(kind)}"
        if not there:
            who = ", ".join(users(problem, kind)[:4])
            yield Collision(f"There is no {said(kind)} here, and {who} would take it.", (wish,))
        elif need > turns * there:
            text = f"{need} turns with a {said(kind)} are needed, and {turns} turns of {there} give {turns * there}."
            yield Collision(text, (wish,))
        elif kind in crowds:
            station, least = crowds[kind]
            groups = _many(problem.groups, "group")
            text = f"With {groups}, {least} of {said(kind)} are taken at {station} at once, and there are {there}."
            yield Collision(text, (wish,))
        else:
            most = most_by_one(problem, kind)
            if most > there:
                yield Collision(
                    f"One person takes {most} of {said(kind)}, and there are {there}.", (wish,)
                )


def most_by_one(problem: Problem, kind: Kit) -> int:
    """The most of a kit that one person takes anywhere."""
    return max(
        problem.uses(person, station).get(kind, 0)
        for person in problem.people
        for station in problem.stations
    )


def users(problem: Problem, kind: Kit) -> list[str]:
    """The ids of those who take a kit anywhere."""
    return [
        one.id
        for one in problem.people
        if any(kind in problem.uses(one, station) for station in problem.stations)
    ]


def _parted(problem: Problem) -> Iterator[Collision]:
    """More people who have to be apart from one another than there are groups."""
    clique: list[str] = []
    for one in sorted(problem.people, key=lambda one: -len(one.apart)):
        if all(one.id in _by_id(problem, other).apart or other in one.apart for other in clique):
            clique.append(one.id)
    if len(clique) > problem.groups:
        text = f"{', '.join(clique)} have to be apart, and there are {problem.groups} groups."
        yield Collision(text, ("apart",))


def _by_id(problem: Problem, name: str) -> Mover:
    return next(one for one in problem.people if one.id == name)


def _left_out(problem: Problem) -> Iterator[Collision]:
    """What it can be placed without: the wish that stands in the way."""
    for kind in problem.needs():
        plenty = problem.but(kit=problem.kit | {kind: 10**6})
        if can_be(plenty):
            there = problem.kit.get(kind, 0)
            text = f"However people are dealt, some turn needs more than {there} of {said(kind)}."
            yield Collision(text, (f"enough {said(kind)}",))
    yield from _musts(problem)
    if any(one.apart for one in problem.people) and can_be(_all_together(problem)):
        yield Collision(
            "Who has to be apart can’t be, with the kit and the sizes of the groups.", ("apart",)
        )


def _musts(problem: Problem) -> Iterator[Collision]:
    """Musts that stand in the way: one alone, or all that there are together."""
    musts = problem.wishes.musts
    alone = [wish for wish in musts if can_be(weaker(problem, wish))]
    for wish in alone:
        text = f"That {WISHED[wish]} was said to be a must, and can’t be kept here."
        yield Collision(text, (wish,))
    if not alone and len(musts) > 1 and can_be(weaker(problem, *musts)):
        names = " and ".join(f"“{WISHED[wish]}”" for wish in musts)
        yield Collision(f"{names} were said to be musts, and can’t all be kept.", musts)


def weaker(problem: Problem, *wishes: str) -> Problem:
    """The same with musts that only weigh much."""
    return problem.but(wishes=problem.wishes.but(**dict.fromkeys(wishes, "much")))


def _all_together(problem: Problem) -> Problem:
    loose = tuple(
        Mover(one.id, one.level, one.cannot, one.loads, one.together) for one in problem.people
    )
    return problem.but(people=loose)
