"""What a block means by what is done in it: all out, in calories, ways and swims, lists that go on."""

import re
from dataclasses import replace
from itertools import pairwise

from lovrit.core.moves.library import shipped
from lovrit.core.reading.draft import Draft
from lovrit.core.reading.giving import ALL_OUT, clocked, seconds_in
from lovrit.core.reading.line import Task
from lovrit.core.reading.token import Figure
from lovrit.core.reading.tokens import cut
from lovrit.core.reading.vocabulary import plain, stem

SHARE = re.compile(r"@ [\d.-]+%")
SO_ON = frozenset({"etc", "and so on", "usw", "und so weiter", "y asi", "et ainsi de suite"})
STROKED = frozenset({"rower", "ski", "bike"})
WORKED = frozenset({"pair", "work", "each", "pattern"})


def all_out(draft: Draft) -> Draft:
    """Works that are done all out: that is their effort."""
    told = [one for one in draft.notes if plain(one) in ALL_OUT]
    if not told or draft.roles.keys() & {"effort", "heart"} or not draft.roles.keys() & WORKED:
        return draft
    notes = [one for one in draft.notes if one not in told]
    return replace(draft, notes=notes, roles={**draft.roles, "effort": "10"})


def most_by_clock(draft: Draft) -> Draft:
    """As far or as many as one can in each of several works: the clock is what is run, the rest is told."""
    if not {"amrap", "pair"} <= draft.roles.keys():
        return draft
    kept = {name: said for name, said in draft.roles.items() if name != "amrap"}
    return replace(
        draft, roles=kept, notes=[*draft.notes, "as far as possible, as many as possible"]
    )


def filled_by_turns(draft: Draft) -> Draft:
    """So long of a thing and its rest, one after the other: 20 minutes of 30 s swings and 30 s rest."""
    name = next((one for one in ("time", "total") if one in draft.roles), "")
    one = draft.tasks[0][0] if draft.moves == 1 and len(draft.tasks[0]) == 1 else None
    if one is None or not one.seconds or ":" not in draft.roles.get("rest", ""):
        return draft
    if draft.roles.keys() - {"alternating"} != {name, "rest"}:
        return draft
    turn = one.seconds + seconds_in(draft.roles["rest"])
    times, over = divmod(seconds_in(draft.roles[name]), turn)
    if over or times < 2:
        return draft
    pair = f"{one.seconds}/{seconds_in(draft.roles['rest'])}"
    told = f"{draft.roles[name]} in all"
    return replace(
        draft,
        roles={"times": str(times), "pair": pair},
        tasks=[[replace(one, amount=None)]],
        notes=[*draft.notes, told],
    )


def by_calories(draft: Draft) -> Draft:
    """21-15-9 of calories and reps: a list, since each has a unit of its own."""
    units = {one.name: _calories_of(one) for line in draft.tasks for one in line}
    scheme = draft.roles.get("scheme", "").split("-")
    if not any(units.values()) or not all(one.isdecimal() for one in scheme):
        return draft
    if any(one.amount or one.most for line in draft.tasks for one in line):
        return draft
    tasks = [
        [
            replace(one, amount=_figure(many, units[one.name]), name=units[one.name] or one.name)
            for one in line
        ]
        for many in scheme
        for line in draft.tasks
    ]
    roles = {name: said for name, said in draft.roles.items() if name != "scheme"}
    return replace(
        draft, roles={**roles, "fortime": ""}, tasks=tasks, labels=draft.labels * len(scheme)
    )


def goes_on(draft: Draft) -> Draft:
    """1 burpee, 1 swing, 2 burpees, 2 swings, etc: a ladder of so many more each time."""
    told = [one for one in draft.notes if plain(one).strip(". ") in SO_ON]
    rows = [line[0] for line in draft.tasks if len(line) == 1]
    many = len({stem(one.name) for one in rows})
    if not told or "amrap" not in draft.roles or len(rows) != draft.moves or len(rows) < 2 * many:
        return draft
    rungs = [rows[at : at + many] for at in range(0, len(rows), many)]
    counts = [{one.amount.number if one.amount else None for one in rung} for rung in rungs]
    names = [[stem(one.name) for one in rung] for rung in rungs]
    if any(one != names[0] for one in names) or any(len(one) != 1 or None in one for one in counts):
        return draft
    reps = [one for some in counts for one in some if one is not None]
    steps = {after - before for before, after in pairwise(reps)}
    if len(steps) != 1 or min(steps) <= 0:
        return draft
    return replace(
        draft,
        notes=[one for one in draft.notes if one not in told],
        roles={**draft.roles, "ladder": f"{reps[0]} +{min(steps)}"},
        tasks=[[replace(one, amount=None)] for one in rungs[0]],
        labels=draft.labels[:many],
    )


def named(draft: Draft) -> Draft:
    """A word before its rounds that no move has, above things that are counted, is what they are called."""
    every = [one for line in draft.tasks for one in line]
    if not every:
        return draft
    first, *others = every
    heads = draft.lines[0].tasks if draft.lines and draft.lines[0].roles else []
    if first.known or first.amount or heads != [first] or "rounds" not in draft.roles:
        return draft
    if len(others) < 2 or not all(one.amount or one.name == "rest" for one in others):
        return draft
    notes = [*draft.notes, first.name]
    return replace(draft, notes=notes, tasks=draft.tasks[1:], labels=draft.labels[1:])


def no_lift(draft: Draft) -> Draft:
    """A share behind a machine or a way is no load of it: of what it is nobody says, so it is told."""
    told: list[str] = []
    tasks = []
    for line in draft.tasks:
        row = []
        for one in line:
            shares = [mark for mark in one.marks if SHARE.fullmatch(mark)]
            if shares and _goes(one):
                told += [mark.removeprefix("@ ") for mark in shares]
                row.append(replace(one, marks=tuple(m for m in one.marks if m not in shares)))
            else:
                row.append(one)
        tasks.append(row)
    return replace(draft, tasks=tasks, notes=[*draft.notes, *told]) if told else draft


def _goes(task: Task) -> bool:
    """Whether a thing is a machine, or a way that is gone."""
    move = shipped().find(task.name)
    if move is None:
        return bool(STROKED & set(plain(task.name).split()))
    return move.pattern in ("machine", "gait") or bool(STROKED & set(move.kit))


def sets_of_a_way(draft: Draft) -> Draft:
    """4 sets of 400 m run and a rest: so many times so far."""
    roles, one = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    far = one.amount if one and one.amount and one.amount.measure == "far" else None
    rested = roles.keys() & {"rest", "within", "between"}
    if one is None or far is None or far.form != "one" or not rested:
        return draft
    if "sets" not in roles or roles.keys() & {"reps", "times", "far", "pair", "work", "each"}:
        return draft
    kept = {name: said for name, said in roles.items() if name != "sets"}
    roles = {**kept, "times": roles["sets"], "far": far.own}
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None)]])


def tried_often(draft: Draft) -> Draft:
    """Tries: sets of one each, or of the most."""
    if "tries" not in draft.roles:
        return draft
    roles = {name: said for name, said in draft.roles.items() if name != "tries"}
    most = bool(draft.tasks) and all(line[0].most for line in draft.tasks)
    one = {} if most or "reps" in roles else {"reps": draft.roles["tries"]}
    return replace(draft, roles={**roles, **one})


def paused(draft: Draft) -> Draft:
    """A pause of a few seconds: in each rep of a set, which is told; else it is the rest."""
    held = draft.roles.get("held", "")
    if not held:
        return draft
    roles = {name: said for name, said in draft.roles.items() if name != "held"}
    if "sets" in roles and "reps" in roles:
        return replace(draft, roles=roles, notes=[*draft.notes, held])
    seconds = next(one.figure.seconds[0] for one in cut(held) if one.figure)
    return replace(draft, roles={"rest": clocked(seconds), **roles})


def in_all(draft: Draft) -> Draft:
    """1000 m swim: 10 x 100 m; what stands before its parts is what they come to, and only told."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    far = one.amount if one and one.amount and one.amount.measure == "far" else None
    if one is None or far is None or not {"times", "far"} <= draft.roles.keys():
        return draft
    said, _, unit = draft.roles["far"].partition(" ")
    times = draft.roles["times"]
    whole = times.isdecimal() and unit == far.unit and far.number == int(times) * float(said)
    told = f"{far.own} in all" if whole else far.own
    return replace(draft, tasks=[[replace(one, amount=None)]], notes=[*draft.notes, told])


def _calories_of(task: Task) -> str:
    """What calories are of: “cal row” is the rower; nothing where it says none."""
    unit, _, name = task.name.partition(" ")
    return name if unit.lower().rstrip("s.") in ("cal", "calorie", "kcal") and name else ""


def _figure(many: str, calories: str) -> Figure:
    return Figure("cal", "one", (many,), "cal") if calories else Figure("count", "one", (many,))
