"""Who is in which group, and where each starts: a group is its start; one row a turn and a load holds the kit."""

from dataclasses import dataclass

from ortools.sat.python import cp_model

from lovrit.core.place.problem import Kit, Problem, Station
from lovrit.core.place.watch import Watch
from lovrit.core.place.wishes import OTHER_LOAD, PARTED, UNLEVEL


@dataclass(frozen=True)
class Dealt:
    """People's ids by the start of their group (a place in the order), with what is proven."""

    starts: tuple[int, ...]
    people: dict[int, tuple[str, ...]]
    cost: int
    proven: bool
    wishes: dict[str, int]


def deal(
    problem: Problem, order: tuple[int, ...], seconds: float, watch: Watch | None = None
) -> Dealt | None:
    """The best groups for an order of stations; None where no groups keep every must."""
    watch = watch or Watch()
    watch.tell("groups")
    n = problem.count
    model, is_in, used = _model(problem, [problem.stations[nth] for nth in order])
    level, parted = _levels(model, problem, is_in, n), _parted(model, problem, is_in, n)
    for wish, broken in (("levels", level), ("together", parted)):
        if problem.wishes.must(wish):
            model.add(broken == 0)
    weights = {
        "levels": (level, problem.wishes.cost("levels", UNLEVEL)),
        "together": (parted, problem.wishes.cost("together", PARTED)),
        "loads": (_loads(model, problem, is_in, n), problem.wishes.cost("loads", OTHER_LOAD)),
    }
    model.minimize(sum(weight * broken for broken, weight in weights.values()))
    solver, status = watch.solve(model, seconds)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    people: dict[int, list[str]] = {}
    for (p, o), var in is_in.items():
        if solver.boolean_value(var):
            people.setdefault(o, []).append(problem.people[p].id)
    taken = tuple(o for o in range(n) if solver.value(used[o]))
    wishes = {
        wish: weight * solver.value(broken)
        for wish, (broken, weight) in weights.items()
        if wish != "loads" or weight
    }
    return Dealt(
        taken,
        {o: tuple(some) for o, some in sorted(people.items())},
        sum(wishes.values()),
        status == cp_model.OPTIMAL,
        wishes,
    )


Vars = dict[tuple[int, int], cp_model.IntVar]


def _model(
    problem: Problem, stations: list[Station]
) -> tuple[cp_model.CpModel, Vars, dict[int, cp_model.IntVar]]:
    """Everybody at one start, groups equal within one, enough kit, and who is apart apart."""
    model, n = cp_model.CpModel(), problem.count
    many = -(-problem.groups // n)  # groups that share a start, where there are more than stations
    people = range(len(problem.people))
    is_in = {(p, o): model.new_bool_var("") for p in people for o in range(n)}
    used = {o: model.new_int_var(0, many, "") for o in range(n)}
    model.add(sum(used.values()) == problem.groups)
    low, high = problem.sizes()
    for o in range(n):
        if problem.side_by_side:
            model.add(used[o] == len(range(o, problem.groups, n)))
        inside = sum(is_in[p, o] for p in people)
        model.add(inside >= low * used[o])
        model.add(inside <= high * used[o])
    for p in people:
        model.add_exactly_one([is_in[p, o] for o in range(n)])
    _kit(model, problem, stations, is_in)
    _apart(model, problem, is_in, n)
    return model, is_in, used


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


def _levels(model: cp_model.CpModel, problem: Problem, is_in: Vars, n: int) -> cp_model.IntVar:
    """How far groups are from their fair share of levels, rounded, where they are mixed; their spread, where alike."""
    total, count = sum(one.level for one in problem.people), len(problem.people)
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
            # a group's fair share of the levels is by its size, rounded either way: a zero that can be reached
            inside = sum(is_in[p, o] for p in range(count))
            model.add(count * away >= total * inside - count * levels - count + 1)
            model.add(count * away >= count * levels - total * inside - count + 1)
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


def _loads(model: cp_model.CpModel, problem: Problem, is_in: Vars, n: int) -> cp_model.IntVar:
    """How many loads are taken in each group, over what each takes anywhere; nothing where that weighs nothing."""
    if not problem.wishes.cost("loads", OTHER_LOAD):
        return model.new_constant(0)
    taken: dict[Kit, set[int]] = {}
    for p, person in enumerate(problem.people):
        for station in problem.stations:
            for kind in problem.uses(person, station):
                taken.setdefault(kind, set()).add(p)
    some: list[cp_model.IntVar] = []
    for _, who in sorted(taken.items(), key=str):
        for o in range(n):
            here = model.new_bool_var("")
            model.add_max_equality(here, [is_in[p, o] for p in sorted(who)])
            some.append(here)
    return _sum(model, some, len(some))


def _sum(model: cp_model.CpModel, parts: list[cp_model.IntVar], most: int) -> cp_model.IntVar:
    """A variable that is the sum of others."""
    whole = model.new_int_var(0, max(0, most), "")
    model.add(whole == sum(parts))
    return whole
