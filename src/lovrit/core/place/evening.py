"""An evening as it stands: the loop with its seconds, kit against the clock, and what clashes, with turn and place."""

from itertools import combinations
from math import hypot, pi, sqrt
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.groups import letter
from lovrit.core.place.problem import Kit, Problem, Spot, kit_said

NEAR_M = 1.5  # a way out is kept free for so much round it
LEAST_M2 = 4.0  # of floor a person, as coaches would have it; to be checked
TIGHT = 0.8  # so much closer than their circles is still no crowd
MOST_CROSSED = 2
APART_M = 2.0  # who swings or jumps wants so much between stations


class Leg(NamedTuple):
    """A walk from a station to the next: seconds with setting up, and whether the rest has them."""

    start: str
    end: str
    seconds: float
    fits: bool


class Use(NamedTuple):
    """What each turn takes of a kit, beside how many there are."""

    kit: str
    there: int
    by_turn: tuple[int, ...]

    @property
    def short(self) -> bool:
        """Whether some turn takes more than there are."""
        return max(self.by_turn, default=0) > self.there


class Evening(NamedTuple):
    """Where everything stands, the walks, the kit, and what clashes in words; cautions are no clash."""

    spots: dict[str, str]
    legs: tuple[Leg, ...]
    uses: tuple[Use, ...]
    clashes: tuple[str, ...]
    cautions: tuple[str, ...]


def evening(
    problem: Problem,
    groups: list[list[str]],
    given: dict[str, str],
    ways: tuple[tuple[str, float, float], ...] = (),
    size_m: tuple[float, float] | None = None,
    rooms: dict[str, float] | None = None,
) -> Evening:
    """An evening in the slate's order of stations; ``groups`` are ids by letter, ``given`` spots by station.

    Stations that no spot was given for take the first free one that holds them. ``rooms`` is the side of the square, in
    metres, that one person needs at a station.
    """
    spots = _standing(problem, given)
    by_id = {one.id: one for one in problem.spots}
    legs = tuple(_legs(problem, spots, by_id))
    uses = tuple(_uses(problem, groups))
    clashes = [
        f"There is no spot for {one.name}{_wants(one.needs)}."
        for one in problem.stations
        if one.name not in spots
    ]
    clashes += [
        f"{leg.start} to {leg.end} takes {number(round(leg.seconds, 1))} s of {problem.rest_s} s of rest."
        for leg in legs
        if not leg.fits
    ]
    for use in uses:
        for turn, many in enumerate(use.by_turn, 1):
            if many > use.there:
                who = ", ".join(_takers(problem, groups, turn, use.kit))
                clashes.append(f"Turn {turn}: {many} of {use.kit}, there are {use.there}; {who}.")
    most = max((len(some) for some in groups), default=0)
    cautions = [
        *_cautions(problem, spots, by_id, ways),
        *_crowded(problem, spots, by_id, rooms or {}, most),
        *_crossing(legs, spots, by_id),
        *_full(len(problem.people), size_m),
    ]
    return Evening(spots, legs, uses, tuple(clashes), tuple(cautions))


def _crossing(legs: tuple[Leg, ...], spots: dict[str, str], by_id: dict[str, Spot]) -> list[str]:
    """Walks that cross, where all go at once."""
    ends = [(by_id[spots[leg.start]], by_id[spots[leg.end]]) for leg in legs]
    crossed = [
        (legs[i], legs[j])
        for i, j in combinations(range(len(legs)), 2)
        if _cross(*ends[i], *ends[j])
    ]
    said = [
        f"{one.start} to {one.end} and {other.start} to {other.end} cross: all walk at once."
        for one, other in crossed[:MOST_CROSSED]
    ]
    more = len(crossed) - MOST_CROSSED
    return [*said, f"{more} more walks cross."] if more > 0 else said


def _cross(a: Spot, b: Spot, c: Spot, d: Spot) -> bool:
    """Whether the walk from a to b and that from c to d cross between their ends."""

    def side(one: Spot, other: Spot, at: Spot) -> float:
        return (other.x - one.x) * (at.y - one.y) - (other.y - one.y) * (at.x - one.x)

    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0


def _full(people: int, size_m: tuple[float, float] | None) -> list[str]:
    """Whether a hall is small for so many."""
    if size_m is None or not people:
        return []
    each = size_m[0] * size_m[1] / people
    if each >= LEAST_M2:
        return []
    return [
        f"{number(round(each, 1))} m² of floor a person; under {LEAST_M2:g} people get in each other’s way."
    ]


def _crowded(
    problem: Problem,
    spots: dict[str, str],
    by_id: dict[str, Spot],
    rooms: dict[str, float],
    most: int,
) -> list[str]:
    """Stations that stand closer than the people at both need: each group in a circle of its members’ squares."""
    found = []
    names = [one.name for one in problem.stations if one.name in spots and one.name in rooms]
    for nth, one in enumerate(names):
        for other in names[nth + 1 :]:
            a, b = by_id[spots[one]], by_id[spots[other]]
            apart = hypot(a.x - b.x, a.y - b.y)
            wanted = sum(sqrt(most * rooms[name] ** 2 / pi) for name in (one, other))
            if apart < wanted * TIGHT:
                found.append(
                    f"{one} and {other} stand {number(round(apart, 1))} m apart; groups of {most} want "
                    f"{number(round(wanted, 1))} m there."
                )
    return found


def _wants(needs: frozenset[str]) -> str:
    return f": it needs {', '.join(sorted(needs))}" if needs else ""


def _standing(problem: Problem, given: dict[str, str]) -> dict[str, str]:
    ids = {one.id: one for one in problem.spots}
    taken: dict[str, str] = {}
    for station in problem.stations:
        at = problem.pinned.get(station.name) or given.get(station.name, "")
        if at in ids and at not in taken.values() and problem.holds(ids[at], station):
            taken[station.name] = at
    # who can stand in few places goes first
    for station in sorted(problem.stations, key=lambda one: -len(one.needs)):
        free = (
            one.id
            for one in sorted(problem.spots, key=lambda spot: len(spot.holds or ()))
            if one.id not in taken.values() and problem.holds(one, station)
        )
        at = taken.get(station.name) or next(free, "")
        if at:
            taken[station.name] = at
    return taken


def _legs(problem: Problem, spots: dict[str, str], by_id: dict[str, Spot]) -> list[Leg]:
    names = [one.name for one in problem.stations]
    found = []
    for start, end in zip(names, [*names[1:], *names[:1]], strict=True):
        if start in spots and end in spots and len(names) > 1:
            seconds = problem.walk_s(by_id[spots[start]], by_id[spots[end]])
            found.append(Leg(start, end, seconds, not problem.rest_s or seconds <= problem.rest_s))
    return found


def _uses(problem: Problem, groups: list[list[str]]) -> list[Use]:
    taken: dict[Kit, list[int]] = {}
    n, people = problem.count, {one.id: one for one in problem.people}
    for turn in range(n):
        for nth, some in enumerate(groups):
            station = problem.stations[(nth + turn) % n]
            for who in some:
                for kind, many in problem.uses(people[who], station).items():
                    taken.setdefault(kind, [0] * n)[turn] += many
    return [
        Use(kit_said(kind), problem.kit.get(kind, 0), tuple(by_turn))
        for kind, by_turn in sorted(taken.items(), key=str)
    ]


def _takers(problem: Problem, groups: list[list[str]], turn: int, kit: str) -> list[str]:
    """The groups that take a kit in a turn, with where they are."""
    n, people = problem.count, {one.id: one for one in problem.people}
    found = []
    for nth, some in enumerate(groups):
        station = problem.stations[(nth + turn - 1) % n]
        many = sum(
            count
            for who in some
            for kind, count in problem.uses(people[who], station).items()
            if kit_said(kind) == kit
        )
        if many:
            found.append(f"{letter(nth)} at {station.name} {many}")
    return found


def _cautions(
    problem: Problem,
    spots: dict[str, str],
    by_id: dict[str, Spot],
    ways: tuple[tuple[str, float, float], ...],
) -> list[str]:
    """Ways out that a station stands in, and floor moves beside those who jump or swing."""
    found = []
    for station in problem.stations:
        at = by_id.get(spots.get(station.name, ""))
        for what, x, y in ways if at else ():
            if at and (at.x - x) ** 2 + (at.y - y) ** 2 < NEAR_M**2:
                found.append(
                    f"{station.name} stands in the way of the {what}; keep {NEAR_M:g} m free."
                )
    for one in problem.stations:
        for other in problem.stations:
            a, b = by_id.get(spots.get(one.name, "")), by_id.get(spots.get(other.name, ""))
            beside = a and b and (a.x - b.x) ** 2 + (a.y - b.y) ** 2 < APART_M**2
            if beside and one.floor and other.hard and one.name != other.name:
                found.append(
                    f"{one.name} lies {APART_M:g} m or less from {other.name}, where people jump."
                )
    return found
