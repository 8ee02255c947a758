"""Ways out where it can't be placed: the smallest changes, each of which was tried and makes it possible."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import islice
from typing import Any

from lovrit.core.clock import number
from lovrit.core.place.bounds import least_walk
from lovrit.core.place.place import can_be
from lovrit.core.place.problem import Kit, Mover, Problem
from lovrit.core.place.watch import Watch
from lovrit.core.place.why import Collision, fixed, most_by_one, said, users, weaker
from lovrit.core.place.wishes import SAID as WISHED

MOST_MORE, MOST_SWAPPED, MOST_REST, MOST_CARRIED = 8, 12, 90, 3
# what each change costs, as wishes are weighed
BUY, SWAP, REGROUP, LONGER, PART, CARRY, WEAKEN, REORDER = 12, 3, 6, 1, 8, 2, 4, 2


@dataclass(frozen=True)
class Way:
    """A change with which it can be placed: in words, as data, and what it costs."""

    text: str
    changes: dict[str, Any]
    cost: int
    problem: Problem


def _with_mats(problem: Problem) -> Iterator[tuple[Problem, tuple[str, ...]]]:
    """The same with mats carried to as many plain spots as are short of them; mats are the one thing that can be.

    The last of the plain spots first, then others; nothing where no mat is short.
    """
    short = 0
    for needs, stations, spots in fixed(problem):
        if needs == {"mat"}:
            short = len(stations) - len(spots)
    plain = [one for one in problem.spots if one.holds is not None and not one.holds]
    plain = [one for one in plain if one.id not in problem.pinned.values()]
    for first in range(len(plain) - short, -1, -short) if short > 0 else ():
        carried = tuple(one.id for one in plain[first : first + short])
        spots_ = tuple(
            replace(one, holds=frozenset({"mat"})) if one.id in carried else one
            for one in problem.spots
        )
        yield problem.but(spots=spots_), carried


def ways_out(problem: Problem, collisions: tuple[Collision, ...]) -> tuple[Way, ...]:
    """Changes that were each tried and make it possible, the cheapest first; none that was not tried."""
    del collisions
    mats = tuple(islice(_with_mats(problem), MOST_CARRIED))
    enough = [_carrying(carried, Way("", {}, 0, made)) for made, carried in mats if can_be(made)]
    if enough:
        return tuple(enough)
    problem, carried = mats[0] if mats else (problem, ())
    tried = [
        *_reordered(problem),
        *_more_kit(problem),
        *_swapped(problem),
        *_regrouped(problem),
        *_longer(problem),
        *_not_apart(problem),
        *_weaker(problem),
    ]
    tried = [_carrying(carried, way) for way in tried] if carried else tried
    return tuple(sorted(tried, key=lambda way: (way.cost, way.text)))


def _carrying(carried: tuple[str, ...], way: Way) -> Way:
    """A way with mats carried to spots before it."""
    mats = f"a mat on {' and '.join(carried)}"
    text = f"{mats}, and {way.text}" if way.text else mats
    changes = way.changes | {"holds": {spot: ["mat"] for spot in carried}}
    return Way(text, changes, way.cost + CARRY * len(carried), way.problem)


def _reordered(problem: Problem) -> Iterator[Way]:
    """Another order of the stations than the one that was given."""
    changed = problem.but(in_order=False)
    if problem.in_order and can_be(changed):
        yield Way("the stations in another order", {"in_order": False}, REORDER, changed)


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
            problem.kit.get(kind, 0),
            -(-sum(problem.needs()[kind].values()) // problem.count),
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
    crowded = any(one == kind for one, _, _ in problem.crowds())
    return crowded or need > problem.count * there or most_by_one(problem, kind) > there


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
    takers = users(problem, kind)[::-1][:MOST_SWAPPED]
    moves = [one for one in problem.stations if any(kit == name for kit, _ in one.kit)]
    for many in range(1, len(takers) + 1):
        loads = {who: {one.move or one.name: other for one in moves} for who in takers[:many]}
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
    """As few groups more as kit asks for by counting, and one fewer."""
    most = min(26, len(problem.people))
    enough = (many for many in range(problem.groups + 1, most + 1) if _counts(problem, many))
    for groups in (next(enough, 0), problem.groups - 1):
        if groups >= 1 and can_be(changed := problem.but(groups=groups)):
            more = groups - problem.groups
            word = {1: "one group more", -1: "one group fewer"}.get(more, f"{groups} groups")
            yield Way(word, {"groups": groups}, REGROUP * abs(more), changed)


def _counts(problem: Problem, groups: int) -> bool:
    return problem.but(groups=groups).counts_out


def _longer(problem: Problem) -> Iterator[Way]:
    """A rest that is long enough for the walks."""
    if problem.count < 2 or least_walk(problem, 2.0, Watch()) is not None:
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


def _weaker(problem: Problem) -> Iterator[Way]:
    """A must that is only a wish."""
    musts = problem.wishes.musts
    found = False
    for wish in musts:
        changed = weaker(problem, wish)
        if can_be(changed):
            found = True
            text = f"let “{WISHED[wish]}” be a wish, not a must"
            yield Way(text, {"wishes": {wish: "much"}}, WEAKEN, changed)
    if not found and len(musts) > 1 and can_be(weaker(problem, *musts)):
        weights = dict.fromkeys(musts, "much")
        changed = weaker(problem, *musts)
        yield Way("let all musts be wishes", {"wishes": weights}, WEAKEN * len(musts), changed)
