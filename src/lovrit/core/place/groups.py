"""Who is in which group, and where each starts: a group is its start; one row a turn and a load holds the kit."""

from dataclasses import dataclass

from ortools.sat.python import cp_model

from lovrit.core.place.problem import Kit, Problem, Station

UNLEVEL, PARTED = 10, 25
SEED, WORKERS = 7, 2


@dataclass(frozen=True)
class Dealt:
    """People's ids by the start of their group (a place in the order), with what is proven."""

    starts: tuple[int, ...]
    people: dict[int, tuple[str, ...]]
    cost: int
    proven: bool
    wishes: dict[str, int]


def deal(problem: Problem, order: tuple[int, ...], seconds: float) -> Dealt | None:
    """The best groups for an order of stations; None where no groups keep every must."""
    model = cp_model.CpModel()
    stations = [problem.stations[nth] for nth in order]
    n = problem.count
    many = -(-problem.groups // n)  # groups that share a start, where there are more than stations
    is_in = {(p, o): model.new_bool_var("") for p in range(len(problem.people)) for o in range(n)}
    used = {o: model.new_int_var(0, many, "") for o in range(n)}
    model.add(sum(used.values()) == problem.groups)
    low, high = problem.sizes()
    if problem.side_by_side:
        for o in range(n):
            model.add(used[o] == len(range(o, problem.groups, n)))
    for o in range(n):
        inside = sum(is_in[p, o] for p in range(len(problem.people)))
        model.add(inside >= low * used[o])
        model.add(inside <= high * used[o])
    for p in range(len(problem.people)):
        model.add_exactly_one([is_in[p, o] for o in range(n)])
    _kit(model, problem, stations, is_in)
    _apart(model, problem, is_in, n)
    level, parted = _levels(model, problem, is_in, used, n), _parted(model, problem, is_in, n)
    model.minimize(cp_model.LinearExpr.weighted_sum([level, parted], [UNLEVEL, PARTED]))
    solver = cp_model.CpSolver()
    solver.parameters.random_seed, solver.parameters.num_workers = SEED, WORKERS
    solver.parameters.max_time_in_seconds = seconds
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    people: dict[int, list[str]] = {}
    for (p, o), var in is_in.items():
        if solver.boolean_value(var):
            people.setdefault(o, []).append(problem.people[p].id)
    taken = tuple(o for o in range(n) if solver.value(used[o]))
    wishes = {"levels": UNLEVEL * solver.value(level), "together": PARTED * solver.value(parted)}
    return Dealt(
        taken,
        {o: tuple(some) for o, some in sorted(people.items())},
        sum(wishes.values()),
        status == cp_model.OPTIMAL,
        wishes,
    )


Vars = dict[tuple[int, int], cp_model.IntVar]


def _kit(model: cp_model.CpModel, problem: Problem, stations: list[Station], is_in: Vars) -> None:
    """In each turn what all take is there, by name and load, over all stations that share it."""
    needs = {
        (p, at): problem.uses(person, station)
        for p, person in enumerate(problem.people)
        for at, station in enumerate(stations)
    }
    kinds: set[Kit] = {kind for need in needs.values() for kind in need}
    n = len(stations)
    for kind in sorted(kinds, key=str):
        for turn in range(n):
            taken = [
                need[kind] * is_in[p, (at - turn) % n]
                for (p, at), need in needs.items()
                if kind in need
            ]
            model.add(sum(taken) <= problem.kit.get(kind, 0))


def _apart(model: cp_model.CpModel, problem: Problem, is_in: Vars, n: int) -> None:
    index = {one.id: p for p, one in enumerate(problem.people)}
    for p, one in enumerate(problem.people):
        for other in one.apart & index.keys():
            if index[other] != p:
                for o in range(n):
                    model.add(is_in[p, o] + is_in[index[other], o] <= 1)


def _levels(
    model: cp_model.CpModel, problem: Problem, is_in: Vars, used: dict[int, cp_model.IntVar], n: int
) -> cp_model.IntVar:
    """How far groups are from their fair share of levels, rounded, where they are mixed; their spread, where alike."""
    total = sum(one.level for one in problem.people)
    fair_low, more = divmod(total, problem.groups)
    off: list[cp_model.IntVar] = []
    for o in range(n):
        levels = sum(one.level * is_in[p, o] for p, one in enumerate(problem.people))
        away = model.new_int_var(0, total, "")
        if problem.alike:
            low, high = model.new_int_var(1, 5, ""), model.new_int_var(1, 5, "")
            for p, one in enumerate(problem.people):
                model.add(low <= one.level).only_enforce_if(is_in[p, o])
                model.add(high >= one.level).only_enforce_if(is_in[p, o])
            model.add(away >= high - low)
        else:
            model.add(away >= fair_low * used[o] - levels)
            model.add(away >= levels - (fair_low + bool(more)) * used[o])
        off.append(away)
    return _sum(model, off, total * n)


def _parted(model: cp_model.CpModel, problem: Problem, is_in: Vars, n: int) -> cp_model.IntVar:
    """Pairs that want to be together and are not."""
    index = {one.id: p for p, one in enumerate(problem.people)}
    pairs = {
        tuple(sorted((p, index[other])))
        for p, one in enumerate(problem.people)
        for other in one.together & index.keys()
        if index[other] != p
    }
    parted: list[cp_model.IntVar] = []
    for p, q in sorted(pairs):
        apart = model.new_bool_var("")
        for o in range(n):
            model.add(is_in[p, o] - is_in[q, o] <= apart)
        parted.append(apart)
    return _sum(model, parted, len(parted))


def _sum(model: cp_model.CpModel, parts: list[cp_model.IntVar], most: int) -> cp_model.IntVar:
    """A variable that is the sum of others."""
    whole = model.new_int_var(0, max(0, most), "")
    model.add(whole == sum(parts))
    return whole
