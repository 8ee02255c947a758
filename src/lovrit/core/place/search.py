"""A good order with spots, quickly: greedy from each station, then changed for the better until nothing helps.

It finds the best in nearly every case; the solver is there for the proof, and begins from it.
"""

from collections.abc import Iterator
from itertools import combinations
from math import inf

from lovrit.core.place.problem import Problem

MOST_STARTS = 60  # more find hardly better, and take longer than the proof
Plan = tuple[
    tuple[int, ...], tuple[int, ...]
]  # numbers of stations, and of their spots, in turn order


class Costs:
    """What each leg costs, looked up: infinite where a walk is longer than the rest or a spot holds no such station."""

    def __init__(self, problem: Problem) -> None:
        self.after = [
            [_finite(problem.follows_at(i, j)) for j in range(problem.count)]
            for i in range(problem.count)
        ]
        self.moved = [
            [problem.moved_cost(station, spot) for spot in problem.spots]
            for station in problem.stations
        ]
        self.walk = [
            [self._walk(problem, s, t) for t in range(len(problem.spots))]
            for s in range(len(problem.spots))
        ]
        self.holds = [
            [problem.holds(spot, station) for spot in problem.spots] for station in problem.stations
        ]

    @staticmethod
    def _walk(problem: Problem, s: int, t: int) -> float:
        seconds = problem.walk_s(problem.spots[s], problem.spots[t])
        if s == t or seconds > problem.rest_s:
            return inf
        return problem.walk_cost(problem.spots[s], problem.spots[t])

    def of(self, order: tuple[int, ...], spots: tuple[int, ...]) -> float:
        """What a plan costs; infinite where it keeps not every must."""
        total = 0.0
        for nth, station in enumerate(order):
            nxt = (nth + 1) % len(order)
            if not self.holds[station][spots[nth]]:
                return inf
            total += self.after[station][order[nxt]] + self.walk[spots[nth]][spots[nxt]]
            total += self.moved[station][spots[nth]]
        return total


def _finite(cost: int | None) -> float:
    return inf if cost is None else cost


def quick(problem: Problem, least: float = 0) -> Plan | None:
    """The best plan that is found from greedy beginnings at stations and spots; None where none is found.

    It looks no further once a plan costs no more than ``least``, which none undercuts.
    """
    costs = Costs(problem)
    best: tuple[float, Plan] | None = None
    starts = [
        (start, spot)
        for start in range(1 if problem.in_order else problem.count)
        for spot in range(len(problem.spots))
        if costs.holds[start][spot]
    ]
    for start, spot in starts[:: max(1, len(starts) // MOST_STARTS)]:
        plan = _greedy(problem, costs, start, spot)
        if plan:
            cost, better = _improved(costs, plan, len(problem.spots))
            if best is None or cost < best[0]:
                best = (cost, better)
            if cost <= least:
                break
    return best[1] if best and best[0] < inf else None


def _greedy(problem: Problem, costs: Costs, start: int, spot: int) -> Plan | None:
    """From a station on a spot always on to the cheapest that is left."""
    order, spots = [start], [spot]
    while len(order) < problem.count:
        left = (
            (costs.after[order[-1]][i] + costs.walk[spots[-1]][s], i, s)
            for i in range(problem.count)
            if i not in order
            for s in range(len(problem.spots))
            if s not in spots and costs.holds[i][s]
        )
        cost, station, place = min(left, default=(inf, -1, -1))
        if station < 0:
            return None
        order.append(station)
        spots.append(place)
        del cost
    return tuple(order), tuple(spots)


def _improved(costs: Costs, plan: Plan, spots: int) -> tuple[float, Plan]:
    """A plan changed for the better, always by the best change, until none helps."""
    now = costs.of(*plan)
    while True:
        cost, better = min(
            ((costs.of(*one), one) for one in _changes(plan, spots)), default=(inf, plan)
        )
        if cost >= now:
            return now, plan
        now, plan = cost, better


def _changes(plan: Plan, spots: int) -> Iterator[Plan]:
    """Two stations changed round, with their spots or without; a stretch turned round; a station on a free spot."""
    order, places = plan
    for a, b in combinations(range(len(order)), 2):
        yield _swapped(order, a, b), places
        yield order, _swapped(places, a, b)
        yield _swapped(order, a, b), _swapped(places, a, b)
        yield _turned(order, a, b), _turned(places, a, b)
    for nth in range(len(order)):
        for free in range(spots):
            if free not in places:
                yield order, (*places[:nth], free, *places[nth + 1 :])


def _swapped(row: tuple[int, ...], a: int, b: int) -> tuple[int, ...]:
    made = list(row)
    made[a], made[b] = made[b], made[a]
    return tuple(made)


def _turned(row: tuple[int, ...], a: int, b: int) -> tuple[int, ...]:
    return (*row[:a], *row[a : b + 1][::-1], *row[b + 1 :])
