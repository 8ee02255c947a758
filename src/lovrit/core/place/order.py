"""The order of the stations and the spot of each: two circuits, one over moves and one over spots, linked.

A leg that is longer than the rest allows is not made. First the best cycle of moves without the hall and the shortest
walk without the moves are found; their sum is a bound that most plans reach, and then nothing more has to be proven.
"""

from dataclasses import dataclass

from ortools.sat.python import cp_model

from lovrit.core.place.bounds import follow_vars, least_moves, least_walk, legs_of
from lovrit.core.place.problem import Problem
from lovrit.core.place.search import Plan, quick
from lovrit.core.place.watch import Watch


@dataclass(frozen=True)
class Laid:
    """An order with its spots: numbers of stations and of spots in turn order, what it costs, and what is proven."""

    order: tuple[int, ...]
    spots: tuple[int, ...]
    cost: int
    bound: int

    @property
    def proven(self) -> bool:
        """Whether there is none better."""
        return self.bound >= self.cost


class _Model:
    """The two circuits with their links."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self.model = cp_model.CpModel()
        n, m = problem.count, len(problem.spots)
        self.after = follow_vars(problem, self.model)
        self.legs = {(s, t): self.model.new_bool_var("") for s, t in legs_of(problem)}
        self.stands = {
            (i, s): self.model.new_bool_var("")
            for i, station in enumerate(problem.stations)
            for s, spot in enumerate(problem.spots)
            if problem.holds(spot, station)
        }
        self.model.add_circuit([(i, j, var) for (i, j), var in self.after.items()])
        unused = {s: self.model.new_bool_var("") for s in range(m)}
        loops = [(s, s, var) for s, var in unused.items()]
        self.model.add_circuit([*((s, t, var) for (s, t), var in self.legs.items()), *loops])
        for s, var in unused.items():
            taken = [one for (_, spot), one in self.stands.items() if spot == s]
            self.model.add(sum(taken) + var == 1)
        for i in range(n):
            self.model.add_exactly_one(
                [var for (station, _), var in self.stands.items() if station == i]
            )
        self._link()
        self._cost()

    def begin(self, plan: Plan) -> None:
        """Begin from a plan, and look for none that costs more."""
        order, spots = plan
        after = set(zip(order, (*order[1:], order[0]), strict=True))
        legs = set(zip(spots, (*spots[1:], spots[0]), strict=True))
        stands = set(zip(order, spots, strict=True))
        for some, hinted in ((self.after, after), (self.legs, legs), (self.stands, stands)):
            for key, var in some.items():
                self.model.add_hint(var, key in hinted)
        self.model.add(self.costs <= cost_of(self.problem, order, spots))

    def _link(self) -> None:
        for (i, j), var in self.after.items():
            for (one, s), here in self.stands.items():
                if one != i:
                    continue
                for (other, t), there in self.stands.items():
                    if other != j or s == t:
                        continue
                    leg = self.legs.get((s, t))
                    clause = [var.negated(), here.negated(), there.negated()]
                    self.model.add_bool_or([*clause, leg] if leg is not None else clause)

    def _cost(self) -> None:
        stations, spots = self.problem.stations, self.problem.spots
        self.moving = sum(
            (self.problem.follows(stations[i], stations[j]) or 0) * var
            for (i, j), var in self.after.items()
        )
        self.walking = sum(
            self.problem.walk_cost(spots[s], spots[t]) * var for (s, t), var in self.legs.items()
        )
        staying = sum(
            self.problem.moved_cost(stations[i], spots[s]) * var
            for (i, s), var in self.stands.items()
        )
        self.costs = self.moving + self.walking + staying
        self.model.minimize(self.costs)


def lay(
    problem: Problem,
    seconds: float,
    not_again: tuple[tuple[int, ...], ...] = (),
    watch: Watch | None = None,
) -> Laid | None:
    """The best order and spots, but for orders that were tried; None where no order fits the hall."""
    watch = watch or Watch()
    if problem.count == 1:
        spot = next(
            (s for s, one in enumerate(problem.spots) if problem.holds(one, problem.stations[0])),
            None,
        )
        return None if spot is None else Laid((0,), (spot,), 0, 0)
    moving = least_moves(problem, seconds / 2, watch)
    walking = None if moving is None else least_walk(problem, seconds / 2, watch)
    if moving is None or walking is None:
        return None
    least = moving + walking
    begun = None if not_again else quick(problem, least)
    if begun and cost_of(problem, *begun) <= least:
        return Laid(*begun, least, least)  # it costs what nothing can undercut
    if begun:
        watch.tell(
            f"order and spots: one that costs {cost_of(problem, *begun)}, none less than {least}"
        )
    made = _Model(problem)
    for order in not_again:
        turned = zip(order, (*order[1:], order[0]), strict=True)
        made.model.add(sum(made.after[pair] for pair in turned) <= problem.count - 1)
    made.model.add(made.moving >= moving)
    made.model.add(made.walking >= walking)
    watch.tell("order and spots")
    return _solved(problem, made, begun, least, seconds, watch)


def _solved(
    problem: Problem,
    made: "_Model",
    begun: Plan | None,
    least: int,
    seconds: float,
    watch: Watch,
) -> Laid | None:
    """What the solver finds, from a plan that is known where one is."""
    if begun:
        made.begin(begun)
    solver, status = watch.solve(made.model, seconds)
    if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return _read(problem, made, solver, least)
    if begun is None:
        return None
    known = max(least, round(solver.best_objective_bound))
    return Laid(*begun, cost_of(problem, *begun), known)


def _read(problem: Problem, made: _Model, solver: cp_model.CpSolver, least: int) -> Laid:
    after = {i: j for (i, j), var in made.after.items() if solver.boolean_value(var)}
    stands = {i: s for (i, s), var in made.stands.items() if solver.boolean_value(var)}
    order = [0]
    while len(order) < problem.count:
        order.append(after[order[-1]])
    spots = tuple(stands[i] for i in order)
    cost = cost_of(problem, tuple(order), spots)
    return Laid(tuple(order), spots, cost, max(least, round(solver.best_objective_bound)))


def cost_of(problem: Problem, order: tuple[int, ...], spots: tuple[int, ...]) -> int:
    """What an order with its spots costs, counted anew from the plan itself."""
    cost = 0
    for nth, station in enumerate(order):
        nxt = (nth + 1) % len(order)
        here = problem.spots[spots[nth]]
        cost += problem.follows(problem.stations[station], problem.stations[order[nxt]]) or 0
        cost += problem.walk_cost(here, problem.spots[spots[nxt]])
        cost += problem.moved_cost(problem.stations[station], here)
    return cost
