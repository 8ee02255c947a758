"""Why it can't be placed, in sentences a coach would say, and the smallest changes that were each tried and work.

Counting first: it finds what is short in a millisecond. What counting doesn't find is found by leaving wishes out.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from lovrit.core.clock import number
from lovrit.core.place.order import _bound
from lovrit.core.place.place import can_be
from lovrit.core.place.problem import Kit, Mover, Problem, Spot, Station

MOST_MORE, MOST_SWAPPED, MOST_REST = 8, 12, 90
BUY, SWAP, REGROUP, LONGER, PART, CARRY = (
    12,
    3,
    6,
    1,
    8,
    2,
)  # what each change costs, as wishes are weighed


@dataclass(frozen=True)
class Collision:
    """Wishes that can't all be kept, and why."""

    text: str
    wishes: tuple[str, ...]


@dataclass(frozen=True)
class Way:
    """A change with which it can be placed: in words, as data, and what it costs."""

    text: str
    changes: dict[str, Any]
    cost: int
    problem: Problem


def said(kind: Kit) -> str:
    """A kit in words: bell of 12 kg."""
    name, load = kind
    return name if load is None else f"{name} of {number(load)} kg"


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
    crowded = tuple(_crowded(problem))
    yield from crowded
    if len(problem.spots) < problem.count:
        text = f"There are {problem.count} stations and {_many(len(problem.spots), 'spot')}."
        yield Collision(text, ("a spot for each station",))
    elif not crowded and problem.count > 1 and _bound(problem, 2.0, moves=False) is None:
        setting = f"with {number(problem.reset_s)} s to set up"
        text = (
            f"No way round the hall, {setting}, has every walk within {problem.rest_s} s of rest."
        )
        yield Collision(text, ("walks within the rest",))


def _crowded(problem: Problem) -> Iterator[Collision]:
    """Stations that need the same thing of a spot, where fewer spots have it."""
    for needs, stations, spots in _fixed(problem):
        if spots and len(stations) > len(spots):
            names = ", ".join(one.name for one in stations)
            has = "1 spot has it" if len(spots) == 1 else f"{len(spots)} spots have it"
            text = f"{names} need {', '.join(sorted(needs))}, and {has}."
            yield Collision(text, tuple(f"spot of {one.name}" for one in stations))


def _fixed(problem: Problem) -> Iterator[tuple[frozenset[str], list[Station], list[Spot]]]:
    """What is fixed at spots, with the stations that need it and the spots that have it."""
    for needs in sorted({one.needs for one in problem.stations if one.needs}, key=sorted):
        stations = [one for one in problem.stations if needs <= one.needs]
        spots = [
            spot for spot in problem.spots if any(problem.holds(spot, one) for one in stations)
        ]
        yield needs, stations, spots


def _with_mats(problem: Problem) -> tuple[Problem, tuple[str, ...]]:
    """The same with mats carried to as many plain spots as are short of them; mats are the one thing that can be."""
    short = 0
    for needs, stations, spots in _fixed(problem):
        if needs == {"mat"}:
            short = len(stations) - len(spots)
    plain = [one for one in problem.spots if one.holds is not None and not one.holds]
    plain = [one for one in plain if one.id not in problem.pinned.values()]
    carried = tuple(one.id for one in plain[-short:]) if 0 < short <= len(plain) else ()
    spots_ = tuple(
        replace(one, holds=frozenset({"mat"})) if one.id in carried else one
        for one in problem.spots
    )
    return problem.but(spots=spots_), carried


def _many(count: int, what: str) -> str:
    return f"{count} {what}{'s' if count != 1 else ''}"


def _short(problem: Problem) -> Iterator[Collision]:
    """Kit that a round needs more of than all its turns have, or one person more than there is."""
    for kind, by_station in problem.needs().items():
        there, turns = problem.kit.get(kind, 0), problem.count
        need = sum(by_station.values())
        wish = f"enough {said(kind)}"
        if not there:
            who = ", ".join(_users(problem, kind)[:4])
            yield Collision(f"There is no {said(kind)} here, and {who} would take it.", (wish,))
        elif need > turns * there:
            text = f"{need} turns with a {said(kind)} are needed, and {turns} turns of {there} give {turns * there}."
            yield Collision(text, (wish,))
        else:
            most = _most_by_one(problem, kind)
            if most > there:
                yield Collision(
                    f"One person takes {most} of {said(kind)}, and there are {there}.", (wish,)
                )


def _most_by_one(problem: Problem, kind: Kit) -> int:
    return max(
        problem.uses(person, station).get(kind, 0)
        for person in problem.people
        for station in problem.stations
    )


def _users(problem: Problem, kind: Kit) -> list[str]:
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
    if any(one.apart for one in problem.people) and can_be(_all_together(problem)):
        yield Collision(
            "Who has to be apart can’t be, with the kit and the sizes of the groups.", ("apart",)
        )


def _all_together(problem: Problem) -> Problem:
    loose = tuple(
        Mover(one.id, one.level, one.cannot, one.loads, one.together) for one in problem.people
    )
    return problem.but(people=loose)


# ways out


def ways_out(problem: Problem, collisions: tuple[Collision, ...]) -> tuple[Way, ...]:
    """Changes that were each tried and make it possible, the cheapest first; none that was not tried."""
    del collisions
    problem, carried = _with_mats(problem)
    if carried and can_be(problem):
        return (_carrying(carried, Way("", {}, 0, problem)),)
    tried = [
        *_more_kit(problem),
        *_swapped(problem),
        *_regrouped(problem),
        *_longer(problem),
        *_not_apart(problem),
    ]
    tried = [_carrying(carried, way) for way in tried] if carried else tried
    return tuple(sorted(tried, key=lambda way: (way.cost, way.text)))


def _carrying(carried: tuple[str, ...], way: Way) -> Way:
    """A way with mats carried to spots before it."""
    mats = f"a mat on {' and '.join(carried)}"
    text = f"{mats}, and {way.text}" if way.text else mats
    changes = way.changes | {"holds": {spot: ["mat"] for spot in carried}}
    return Way(text, changes, way.cost + CARRY * len(carried), way.problem)


def _more_kit(problem: Problem) -> Iterator[Way]:
    """The fewest more of each kit that is short."""
    short = _kinds_short(problem)
    for kind in short:
        rest = {other: 10**6 for other in short if other != kind}
        if not can_be(problem.but(kit=problem.kit | rest | {kind: 10**6})):
            continue
        for more in range(1, MOST_MORE + 1):
            there = problem.kit.get(kind, 0) + more
            changed = problem.but(kit=problem.kit | {kind: there})
            if can_be(changed):
                word = "one more" if more == 1 else f"{more} more"
                yield Way(
                    f"{word} {said(kind)}",
                    {"kit": [_row(kind, there)]},
                    BUY * more,
                    changed,
                )
                break
    if len(short) > 1:
        yield from _all_short(problem, short)


def _all_short(problem: Problem, short: list[Kit]) -> Iterator[Way]:
    """Enough of everything that is short, at once."""
    wanted = {
        kind: max(
            problem.kit.get(kind, 0), -(-sum(problem.needs()[kind].values()) // problem.count)
        )
        for kind in short
    }
    for more in range(MOST_MORE + 1):
        kit = {kind: many + more for kind, many in wanted.items()}
        changed = problem.but(kit=problem.kit | kit)
        if can_be(changed):
            said_all = ", ".join(f"{many} of {said(kind)}" for kind, many in kit.items())
            rows = [
                {"name": name, "load_kg": load, "count": many} for (name, load), many in kit.items()
            ]
            bought = sum(many - problem.kit.get(kind, 0) for kind, many in kit.items())
            yield Way(f"in all {said_all}", {"kit": rows}, BUY * bought, changed)
            return


def _row(kind: Kit, count: int) -> dict[str, Any]:
    return {"name": kind[0], "load_kg": kind[1], "count": count}


def _kinds_short(problem: Problem) -> list[Kit]:
    """Kit without which it might be possible, as far as counting or leaving out says."""
    counted = [
        kind for kind, by in problem.needs().items() if _is_short(problem, kind, sum(by.values()))
    ]
    return counted or [
        kind for kind in problem.needs() if can_be(problem.but(kit=problem.kit | {kind: 10**6}))
    ]


def _is_short(problem: Problem, kind: Kit, need: int) -> bool:
    there = problem.kit.get(kind, 0)
    return need > problem.count * there or _most_by_one(problem, kind) > there


def _swapped(problem: Problem) -> Iterator[Way]:
    """The fewest people who take the next load there is instead of theirs."""
    for kind in _kinds_short(problem):
        name, load = kind
        loads = [one for other, one in problem.kit if other == name and one is not None]
        others = sorted(
            (one for one in loads if one != load), key=lambda one: abs(one - (load or 0))
        )
        for other in others[:2]:
            way = _swap_some(problem, kind, other)
            if way:
                yield way
                break


def _swap_some(problem: Problem, kind: Kit, other: float) -> Way | None:
    name, load = kind
    users = _users(problem, kind)[::-1][:MOST_SWAPPED]
    moves = [one for one in problem.stations if any(kit == name for kit, _ in one.kit)]
    for many in range(1, len(users) + 1):
        loads = {who: {one.move or one.name: other for one in moves} for who in users[:many]}
        people = tuple(
            Mover(
                one.id,
                one.level,
                one.cannot,
                one.loads | loads.get(one.id, {}),
                one.together,
                one.apart,
            )
            for one in problem.people
        )
        changed = problem.but(people=people)
        if can_be(changed):
            who = "one of them takes" if many == 1 else f"{many} of them take"
            text = f"{who} {number(other)} instead of {number(load or 0)}"
            return Way(text, {"loads": loads}, SWAP * many, changed)
    return None


def _regrouped(problem: Problem) -> Iterator[Way]:
    """One group more, or one fewer."""
    for groups, word in (
        (problem.groups + 1, "one group more"),
        (problem.groups - 1, "one group fewer"),
    ):
        if 1 <= groups <= min(26, max(1, len(problem.people))):
            changed = problem.but(groups=groups)
            if can_be(changed):
                yield Way(word, {"groups": groups}, REGROUP, changed)


def _longer(problem: Problem) -> Iterator[Way]:
    """A rest that is long enough for the walks."""
    if problem.count < 2 or _bound(problem, 2.0, moves=False) is not None:
        return
    for rest in range(problem.rest_s + 5, problem.rest_s + MOST_REST + 1, 5):
        changed = problem.but(rest_s=rest)
        if can_be(changed):
            yield Way(
                f"a rest of {rest} s instead of {problem.rest_s} s",
                {"rest_s": rest},
                LONGER * (rest - problem.rest_s),
                changed,
            )
            return


def _not_apart(problem: Problem) -> Iterator[Way]:
    """One pair that need not be apart after all."""
    for one in problem.people:
        for other in sorted(one.apart):
            if one.id > other and one.id in {
                who for p in problem.people if p.id == other for who in p.apart
            }:
                continue
            people = tuple(_without(p, one.id, other) for p in problem.people)
            changed = problem.but(people=people)
            if can_be(changed):
                yield Way(
                    f"{one.id} and {other} in one group after all",
                    {"together": [[one.id, other]]},
                    PART,
                    changed,
                )


def _without(person: Mover, one: str, other: str) -> Mover:
    gone = {one: other, other: one}.get(person.id)
    apart = person.apart - ({gone} if gone else set())
    return Mover(person.id, person.level, person.cannot, person.loads, person.together, apart)
