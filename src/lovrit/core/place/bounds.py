"""What no placing can undercut: the best cycle of moves whatever the hall, and the shortest walk whatever the moves."""

from collections.abc import Iterator
from itertools import product

from ortools.sat.python import cp_model

from lovrit.core.place.problem import Problem
from lovrit.core.place.watch import Watch


def least_moves(problem: Problem, seconds: float, watch: Watch) -> int | None:
    """The least that the moves alone can cost; None where the musts allow no order."""
    model = cp_model.CpModel()
    after = follow_vars(problem, model)
    if problem.count > 1 and not after:
        return None
    model.add_circuit([(i, j, var) for (i, j), var in after.items()])
    stations = problem.stations
    model.minimize(
        sum((problem.follows(stations[i], stations[j]) or 0) * var for (i, j), var in after.items())
    )
    return _least(model, seconds, watch)


def least_walk(problem: Problem, seconds: float, watch: Watch) -> int | None:
    """The least that the walks alone can cost, with a spot for whoever can't stand anywhere; None where no way fits."""
    model = cp_model.CpModel()
    spots = problem.spots
    if len(spots) < problem.count:
        return None
    legs = {(s, t): model.new_bool_var("") for s, t in legs_of(problem)}
    unused = [model.new_bool_var("") for _ in spots]
    model.add_circuit(
        [*((s, t, var) for (s, t), var in legs.items()), *((s, s, v) for s, v in enumerate(unused))]
    )
    model.add(sum(unused) == len(spots) - problem.count)
    taken: dict[int, list[cp_model.IntVar]] = {}
    for station in problem.stations:
        places = [s for s, spot in enumerate(spots) if problem.holds(spot, station)]
        if len(places) < len(spots):  # who may stand anywhere takes what is left
            here = {s: model.new_bool_var("") for s in places}
            model.add_exactly_one(list(here.values()))
            for s, var in here.items():
                taken.setdefault(s, []).append(var)
    for s, some in taken.items():
        model.add(sum(some) + unused[s] <= 1)
    model.minimize(sum(problem.walk_cost(spots[s], spots[t]) * var for (s, t), var in legs.items()))
    return _least(model, seconds, watch)


def follow_vars(
    problem: Problem, model: cp_model.CpModel
) -> dict[tuple[int, int], cp_model.IntVar]:
    """Whether a station comes after another, for all that may."""
    return {
        (i, j): model.new_bool_var("")
        for i, j in product(range(problem.count), repeat=2)
        if i != j and problem.follows_at(i, j) is not None
    }


def legs_of(problem: Problem) -> Iterator[tuple[int, int]]:
    """The walks from spot to spot that the rest is long enough for."""
    for (s, one), (t, other) in product(enumerate(problem.spots), repeat=2):
        if s != t and problem.walk_s(one, other) <= problem.rest_s:
            yield s, t


def _least(model: cp_model.CpModel, seconds: float, watch: Watch) -> int | None:
    solver, status = watch.solve(model, seconds)
    if status == cp_model.INFEASIBLE:
        return None
    return max(0, round(solver.best_objective_bound))
