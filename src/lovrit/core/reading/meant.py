"""A gathered block as people mean it: what its lines say, by roles, where that can be one thing only."""

from collections.abc import Callable
from dataclasses import replace

from lovrit.core.moves.library import shipped
from lovrit.core.reading.draft import Draft, unnumbered
from lovrit.core.reading.figured import time_of
from lovrit.core.reading.giving import clocked, is_minutes, seconds_in
from lovrit.core.reading.line import Task
from lovrit.core.reading.of_counts import MOST_OF_TWO_SIDES
from lovrit.core.reading.of_moves import (
    STROKED,
    all_out,
    by_calories,
    filled_by_turns,
    goes_on,
    in_all,
    most_by_clock,
    named,
    no_lift,
    paused,
    sets_of_a_way,
    tried_often,
)
from lovrit.core.reading.timed import (
    RACED,
    TURNED,
    begun_every,
    by_stations,
    changed_each,
    changed_sets,
    counted_down_every,
    filled,
    held_in_sets,
    leaving,
    minutes_each,
    once_each,
    outer,
    recovered,
    repeated_way,
    rest_behind_all,
    rest_last,
    rested,
    shared,
    told_in_all,
    without_rest,
)
from lovrit.core.reading.token import Figure
from lovrit.core.reading.vocabulary import labels, plain

SLOWEST, QUICKEST = 14, 44  # strokes a minute
STRETCHED = frozenset({"stretch", "stretching", "mobility", "breathing", "walk", "jog"})
COUNTED = frozenset({"count", "far", "cal"})


def meant(draft: Draft) -> Draft:
    """The same block; each of the ways below changes it where it applies, and no other does."""
    for way in WAYS:
        draft = way(draft)
    return draft


def _of_a_part(draft: Draft) -> Draft:
    """The minutes of a part of the evening: how long its block goes on, where that lacks; else told."""
    if not draft.minutes:
        return draft
    made = replace(draft, minutes="", roles={**draft.roles, "total": draft.minutes})
    if not draft.offers() and made.offers():
        return made
    return replace(draft, minutes="", notes=[*draft.notes, f"{draft.minutes} in all"])


def _in_pairs(draft: Draft) -> Draft:
    """One works, one rests: partners who take turns, unless there are more of them."""
    said = " ".join(line.text.lower() for line in draft.lines)
    company = draft.roles.get("company", "")
    two = company.startswith("partners") or (not company and "rest" in said.partition("one")[2])
    if "oneworks" not in draft.roles or not two:
        return draft
    kept = {name: one for name, one in draft.roles.items() if name != "oneworks"}
    return replace(draft, roles={**kept, "company": "partners alternate"})


def _sided(draft: Draft) -> Draft:
    """“Side plank, each”: what is done on one side at a time is meant for each side."""
    left, tasks = [], [list(line) for line in draft.tasks]
    for one in draft.left:
        line = tasks[one.task] if one.unsure == "each" and 0 <= one.task < len(tasks) else []
        move = shipped().find(line[-1].name) if line else None
        if move and move.sided:
            line[-1] = replace(line[-1], marks=(*line[-1].marks, ", each side"))
        else:
            left.append(one)
    return replace(draft, left=left, tasks=tasks)


def _by_stroke(draft: Draft) -> Draft:
    """3 x 8/8 of a move with two sides, and a rest: so many reps of each side."""
    roles, one = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    sides = set(roles.get("pair", "").split("/"))
    reps = sides.pop() if len(sides) == 1 else ""
    rested = "time" in roles or roles.keys() & {"rest", "within", "between"}
    if one is None or "times" not in roles or not rested or not reps.isdecimal():
        return draft
    move = shipped().find(one.name)
    two = move is not None and (move.sided or move.pattern == "lunge") and move.counted == "reps"
    if not two or int(reps) > MOST_OF_TWO_SIDES:
        return draft
    kept = {name: said for name, said in roles.items() if name not in ("times", "pair")}
    made = {**kept, "sets": roles["times"], "reps": f"{reps} reps"}
    each = replace(one, amount=None, marks=(*one.marks, ", each side"))
    return replace(draft, roles=made, tasks=[[each]])


def _gone_back(draft: Draft) -> Draft:
    """Walked back: a rest as far as the work was; where nothing is far, only told."""
    if "back" not in draft.roles:
        return draft
    kept = {name: said for name, said in draft.roles.items() if name != "back"}
    how = draft.roles["back"]
    one = draft.tasks[0][0].amount if draft.moves == 1 else None
    if "often" in kept and one and one.measure == "far":
        return replace(draft, roles={**kept, "rest": f"{one.own} {how}"})
    if {"times", "far"} <= kept.keys() and not kept.keys() & {"rest", "within", "between"}:
        return replace(draft, roles={**kept, "rest": f"{kept['far']} {how}"})
    return replace(draft, roles=kept, notes=[*draft.notes, f"{how} back"])


def _unalike(draft: Draft) -> Draft:
    """“4 sets: 30 s plank, 10 push-ups”: the first has a time or a way, others are counted, so it is all in rounds."""
    roles, tasks = draft.roles, [line[0] for line in draft.tasks]
    first = roles.get("work") or roles.get("far")
    if "times" not in roles or not first or len(tasks) < 2 or roles.keys() & (RACED | {"pair"}):
        return draft
    more = [one.amount.measure if one.amount else "" for one in tasks[1:]]
    if tasks[0].amount or not set(more) <= COUNTED:
        return draft
    far = Figure("far", "one", (first.split()[0],), first.split()[-1])
    amount = far if "far" in roles else time_of(seconds_in(first))
    kept = {name: said for name, said in roles.items() if name not in ("times", "work", "far")}
    joined = any(line.joined for line in draft.lines) and "rest" in roles and "work" in roles
    whole = {"quality": ""} if joined else {}
    return replace(
        draft,
        roles={**kept, "rounds": roles["times"], **whole},
        tasks=[[replace(tasks[0], amount=amount)], *draft.tasks[1:]],
    )


def _climbed(draft: Draft) -> Draft:
    """A ladder under a cap, without turns: as many as possible until then."""
    roles = draft.roles
    if not {"ladder", "cap"} <= roles.keys() or roles.keys() & {"period", "amrap", "total"}:
        return draft
    kept = {name: said for name, said in roles.items() if name not in ("cap", "fortime")}
    return replace(draft, roles={**kept, "amrap": "", "total": roles["cap"]})


def _built(draft: Draft) -> Draft:
    """5 x 5, building to a heavy five: sets as they were said, and what the last one is told of it."""
    roles = draft.roles
    if not {"sets", "reps", "heavy"} <= roles.keys():
        return draft
    kept = {name: said for name, said in roles.items() if name != "heavy"}
    return replace(draft, roles=kept, notes=[*draft.notes, f"building to a heavy {roles['heavy']}"])


def _rated(draft: Draft) -> Draft:
    """A rower @ 20: strokes a minute, no load."""
    left, tasks, notes = [], [list(line) for line in draft.tasks], list(draft.notes)
    for one in draft.left:
        line = tasks[one.task] if one.unsure == "load" and 0 <= one.task < len(tasks) else []
        move = shipped().find(line[-1].name) if line else None
        counted = one.figure is not None and one.figure.measure == "count"
        rates = [float(said) for said in one.figure.said] if one.figure and counted else []
        if move and STROKED & set(move.kit) and rates and all(map(_is_rate, rates)):
            if len(rates) == 1:
                line[-1] = replace(line[-1], marks=(*line[-1].marks, f"rate {one.figure.own}"))  # type: ignore[union-attr]
            else:
                notes.append(one.text)
        else:
            left.append(one)
    return replace(draft, left=left, tasks=tasks, notes=notes)


def _is_rate(figure: float) -> bool:
    return SLOWEST <= figure <= QUICKEST


def _rested_shortly(draft: Draft) -> Draft:
    """5x12, r60: behind sets that is their rest in seconds, no rate of strokes."""
    one = draft.tasks[0][-1] if draft.moves == 1 else None
    rate = next((mark for mark in one.marks if mark.startswith("rate ")), "") if one else ""
    if one is None or not rate or not {"sets", "reps"} <= draft.roles.keys():
        return draft
    if draft.roles.keys() & {"rest", "within", "between"}:
        return draft
    bare = replace(one, marks=tuple(mark for mark in one.marks if mark != rate))
    roles = {**draft.roles, "rest": clocked(int(float(rate.removeprefix("rate "))))}
    return replace(draft, roles=roles, tasks=[[*draft.tasks[0][:-1], bare]])


def _reps_of_each(draft: Draft) -> Draft:
    """7 reps each: of all that is named."""
    reps = draft.roles.get("reps_each")
    if not reps or not draft.moves:
        return draft
    counted = Figure("count", "one", (reps,))
    tasks = [
        [one if one.amount or one.most else replace(one, amount=counted) for one in line]
        for line in draft.tasks
    ]
    kept = {name: said for name, said in draft.roles.items() if name != "reps_each"}
    return replace(draft, roles=kept, tasks=tasks)


def _sets_for_time(draft: Draft) -> Draft:
    """2 sets of several things, for time: rounds, with a rest between."""
    roles = draft.roles
    if not {"sets", "fortime"} <= roles.keys() or draft.moves < 2 or "reps" in roles:
        return draft
    rest = roles.get("within") or roles.get("between") or roles.get("rest")
    left = ("sets", "within", "between", "rest")
    kept = {name: said for name, said in roles.items() if name not in left}
    rested = {"between": rest} if rest else {}
    return replace(draft, roles={**kept, "rounds": roles["sets"], **rested})


def _most_often(draft: Draft) -> Draft:
    """A hold to failure x 3: sets of the most one can."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    said = next((name for name in ("often", "rounds", "times") if name in draft.roles), "")
    if one is None or not one.most or not said or draft.roles.keys() & (RACED | TURNED):
        return draft
    kept = {name: one for name, one in draft.roles.items() if name != said}
    return replace(draft, roles={**kept, "sets": draft.roles[said]})


def _most_in(draft: Draft) -> Draft:
    """So many minutes of one thing, as many as possible: the minutes are the length of it."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    if "amrap" not in draft.roles or not one or not one.seconds:
        return draft
    if draft.roles.keys() & {"total", "time", "work"}:
        return draft
    roles = {**draft.roles, "total": clocked(one.seconds)}
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None)]])


def _grown(draft: Draft) -> Draft:
    """A hold that is longer each minute: its first length is that of the move."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    if "grows" not in draft.roles or not one or not one.seconds:
        return draft
    kept = {name: said for name, said in draft.roles.items() if name not in ("most", "climbs")}
    roles = {**kept, "hold": str(one.seconds), "grows": str(seconds_in(draft.roles["grows"]))}
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None, most=False)]])


def _aimed(draft: Draft) -> Draft:
    """Behind repeats of a way, a time of no move is what a coach hopes for: told, not done."""
    if {"far", "each"} <= draft.roles.keys():
        kept = {name: said for name, said in draft.roles.items() if name != "each"}
        return replace(draft, roles=kept, notes=[*draft.notes, f"{draft.roles['each']} each"])
    if "far" not in draft.roles or draft.moves < 2:
        return draft
    told = [line[0] for line in draft.tasks[1:] if line[0].seconds and not line[0].whole]
    if not told or len(told) != draft.moves - 1:
        return draft
    notes = [f"{one.name} {clocked(one.seconds)}" for one in told]
    left = [one for one in draft.left if one.unsure != "each"]
    return replace(
        draft, tasks=draft.tasks[:1], labels=draft.labels[:1], notes=[*draft.notes, *notes], left=left
    )  # fmt: skip


def _stretched(draft: Draft) -> Draft:
    """“C/D stretch 5”: what a stretch is filled with, and its minutes without their unit."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    count = one.amount.number if one and one.amount and one.amount.measure == "count" else None
    if draft.roles.keys() - {"around"} or one is None or count is None or not is_minutes(count):
        return draft
    ahead = any(f"{count} {one.name}" in plain(line.text) for line in draft.lines)
    if ahead and one.name.endswith("s"):
        return draft  # so many of them: “5 stretches”
    if plain(one.name) not in labels() | (STRETCHED if draft.roles else frozenset()):
        return draft
    roles = {**draft.roles, "time": f"{count}:00"}
    if "around" not in roles:
        return replace(draft, roles={**roles, "label": one.name}, tasks=[], labels=[])
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None)]])


def _way_counted(draft: Draft) -> Draft:
    """A way that is walked or jogged behind reps is one more thing to do; behind a run it is the rest of it."""
    rest = draft.roles.get("rest", "")
    how, _, name = rest.rpartition(" ")
    reps = all(one.amount and one.amount.measure == "count" for line in draft.tasks for one in line)
    if name not in ("walk", "jog") or not how or not draft.moves:
        return draft
    counted = reps and draft.roles.keys() & {"rounds", "around", "fortime"}
    if not counted and draft.roles.keys() != {"total", "rest"}:
        return draft
    said, _, unit = how.partition(" ")
    kept = {key: one for key, one in draft.roles.items() if key != "rest"}
    way = Task(name, Figure("far", "one", (said,), unit), known=True, whole=True)
    return replace(
        draft, roles=kept, tasks=[*draft.tasks, [way]], labels=[*draft.labels, ""]
    )  # fmt: skip


def _paired(draft: Draft) -> Draft:
    """Sets of two things with a + between and nothing but a rest after both: together."""
    joined = "together" in draft.roles or any(line.joined for line in draft.lines)
    counts = [line[0].amount.own if line[0].amount else "" for line in draft.tasks]
    reps = draft.roles.get("reps", f"{counts[0]} reps" if counts else "")
    if (
        "sets" not in draft.roles
        or not joined
        or draft.moves != 2
        or not all(counts[1:])
        or not reps
    ):
        return draft
    if draft.roles.keys() & {"pair", "work", "each"}:
        return draft
    first, other = draft.tasks
    tasks = [
        [replace(first[0], amount=None)],
        [replace(other[0], amount=None) if reps == f"{counts[1]} reps" else other[0]],
    ]
    roles = {**draft.roles, "reps": reps, "together": ""}
    return replace(draft, roles=roles, tasks=tasks)


WAYS: tuple[Callable[[Draft], Draft], ...] = (
    tried_often, paused, all_out, most_by_clock, filled_by_turns, by_calories, goes_on, named, no_lift, sets_of_a_way,
    in_all, unnumbered, _rated, _rested_shortly, _reps_of_each, _sets_for_time, rest_last, changed_each, outer,
    _most_often, _of_a_part, _in_pairs, _sided, _by_stroke, _gone_back, _unalike, without_rest, minutes_each,
    repeated_way, leaving, _climbed, once_each, by_stations, _built, told_in_all, shared, changed_sets,
    recovered, held_in_sets, rest_behind_all, counted_down_every, begun_every, rested, _most_in, _grown,
    _aimed, _stretched, filled, _way_counted, _paired,
)  # fmt: skip
