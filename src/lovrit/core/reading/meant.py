"""A gathered block as people mean it: what its lines say, by roles, where that can be one thing only."""

from collections.abc import Callable
from dataclasses import replace

from lovrit.core.clock import read_clock
from lovrit.core.moves.library import shipped
from lovrit.core.reading.draft import Draft, unnumbered
from lovrit.core.reading.giving import LONGEST_REST_S, clocked, is_minutes
from lovrit.core.reading.line import Task
from lovrit.core.reading.token import Figure
from lovrit.core.reading.tokens import short, time_of
from lovrit.core.reading.vocabulary import labels, plain

STRETCHED = frozenset({"stretch", "stretching", "mobility", "breathing", "walk", "jog"})
RACED = frozenset({"amrap", "fortime", "quality", "period", "scheme"})
PAUSES = ("change", "within", "between", "rest")
COUNTED = frozenset({"count", "far", "cal"})
TURNED = frozenset({"pair", "work", "each"})


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
    amount = far if "far" in roles else time_of(read_clock(first))
    kept = {name: said for name, said in roles.items() if name not in ("times", "work", "far")}
    joined = any(line.joined for line in draft.lines) and "rest" in roles and "work" in roles
    whole = {"quality": ""} if joined else {}
    return replace(
        draft,
        roles={**kept, "rounds": roles["times"], **whole},
        tasks=[[replace(tasks[0], amount=amount)], *draft.tasks[1:]],
    )


def _without_rest(draft: Draft) -> Draft:
    """No rest: works one after the other; beside anything else it is told."""
    if "norest" not in draft.roles:
        return draft
    roles = {name: said for name, said in draft.roles.items() if name != "norest"}
    more = {line[0].seconds for line in draft.tasks[1:]}
    work = roles.get("work") or roles.get("each") or ""
    if "stations" in roles and "rounds" in roles and work and not draft.moves:
        kept = {name: said for name, said in roles.items() if name != "work"}
        return replace(draft, roles={**kept, "each": work})
    if "times" in roles and work and draft.moves > 1 and more <= {0, read_clock(work)}:
        kept = {name: said for name, said in roles.items() if name not in ("times", "work", "each")}
        tasks = [[replace(line[0], amount=None)] for line in draft.tasks]
        return replace(
            draft, roles={**kept, "rounds": roles["times"], "each": work}, tasks=tasks
        )  # fmt: skip
    lengths = {line[0].seconds for line in draft.tasks}
    if "rounds" in roles and len(lengths) == 1 and lengths != {0}:
        return replace(draft, roles=roles)
    return replace(draft, roles=roles, notes=[*draft.notes, "no rest"])


def _minutes_each(draft: Draft) -> Draft:
    """30/30 for ten minutes at each: ten sets there, then everyone changes."""
    roles = draft.roles
    pair = roles.get("pair", "").split("/")
    if len(pair) != 2 or "each" not in roles or roles.keys() & {"rounds", "times", "sets"}:
        return draft
    turn = sum(map(read_clock, pair))
    many, over = divmod(read_clock(roles["each"]), turn) if turn else (0, 1)
    if over or many < 2:
        return draft
    change = next((roles[one] for one in PAUSES if one in roles), "")
    kept = {name: said for name, said in roles.items() if name not in ("each", *PAUSES)}
    changed = {"change": change} if change else {}
    notes = [*draft.notes, f"{roles['each']} at each"]
    return replace(draft, roles={**kept, "sets": str(many), **changed}, notes=notes)


def _leaving(draft: Draft) -> Draft:
    """10 x 100 m on 2 minutes: each begins on the clock, and rests what is left."""
    roles, task = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    period = roles.get("period") or roles.get("work") or ""
    if not {"times", "far"} <= roles.keys() or not period or not task or task.amount:
        return draft
    if roles.keys() & {"rest", "within", "between", "pair"} or not roles["times"].isdecimal():
        return draft
    total = clocked(int(roles["times"]) * read_clock(period))
    kept = {name: one for name, one in roles.items() if name not in ("times", "far", "work")}
    said, unit = roles["far"].split()
    task = replace(task, amount=Figure("far", "one", (said,), unit))
    every = {"period": clocked(read_clock(period)), "total": total}
    return replace(draft, roles={**kept, **every}, tasks=[[task]])


def _climbed(draft: Draft) -> Draft:
    """A ladder under a cap, without turns: as many as possible until then."""
    roles = draft.roles
    if not {"ladder", "cap"} <= roles.keys() or roles.keys() & {"period", "amrap", "total"}:
        return draft
    kept = {name: said for name, said in roles.items() if name not in ("cap", "fortime")}
    return replace(draft, roles={**kept, "amrap": "", "total": roles["cap"]})


def _once_each(draft: Draft) -> Draft:
    """So long at each of so many stations, which are all named: once round."""
    roles = draft.roles
    if "each" not in roles or roles.get("stations") != str(draft.moves):
        return draft
    if roles.keys() & {"rounds", "times", "sets", "pair", "between"}:
        return draft
    return replace(draft, roles={**roles, "rounds": "1"})


def _recovered(draft: Draft) -> Draft:
    """A work and an easy way back, as two lines or two things of one: intervals of both."""
    tasks = [line[0] for line in draft.tasks if len(line) == 1]
    times = draft.roles.get("rounds") or draft.roles.get("times") or draft.roles.get("sets")
    said = draft.roles.get("work", "") if draft.roles.get("times") else ""
    if said and tasks and tasks[0].amount is None:
        tasks[0] = replace(tasks[0], amount=time_of(read_clock(said)))
    clocked_ = len(tasks) == draft.moves == 2 and all(one.seconds for one in tasks)
    turned = TURNED - ({"work"} if said else set())
    if not clocked_ or not times or draft.roles.keys() & (RACED | turned | {"rest"}):
        return draft
    work, rest = tasks
    if work.easy or not rest.easy:
        return draft
    pair = f"{short(work.seconds)}/{short(rest.seconds)}"
    left = ("rounds", "sets", "work")
    kept = {name: one for name, one in draft.roles.items() if name not in left}
    notes = [] if plain(rest.name) == plain(work.name) else [f"{rest.name} in the rest"]
    return replace(
        draft,
        roles={**kept, "times": times, "pair": pair},
        tasks=[[replace(work, amount=None)]],
        labels=draft.labels[:1],
        notes=[*draft.notes, *notes],
    )


def _held_in_sets(draft: Draft) -> Draft:
    """Sets or rounds of one thing that has a time, and their rest: intervals."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    rest = draft.roles.get("rest") or draft.roles.get("within") or ""
    many = draft.roles.get("sets") or draft.roles.get("rounds") or draft.roles.get("often")
    if not many or not one or not one.seconds or ":" not in rest or draft.offers():
        return draft
    if draft.roles.keys() & {"reps", "pair", "work", "each", "between"}:
        return draft
    left = ("sets", "rounds", "often", "rest", "within")
    kept = {name: said for name, said in draft.roles.items() if name not in left}
    pair = f"{short(one.seconds)}/{short(read_clock(rest))}"
    times = {"times": many, "pair": pair}
    return replace(draft, roles={**kept, **times}, tasks=[[replace(one, amount=None)]])


def _built(draft: Draft) -> Draft:
    """5 x 5, building to a heavy five: sets as they were said, and what the last one is told of it."""
    roles = draft.roles
    if not {"sets", "reps", "heavy"} <= roles.keys():
        return draft
    kept = {name: said for name, said in roles.items() if name != "heavy"}
    return replace(draft, roles=kept, notes=[*draft.notes, f"building to a heavy {roles['heavy']}"])


def _told_in_all(draft: Draft) -> Draft:
    """Rounds by the clock with their length in all, where that is what they come to: it is told."""
    roles = draft.own_roles()
    pair, length = roles.get("pair", "").split("/"), roles.get("total") or roles.get("time") or ""
    rounds = roles.get("rounds") or roles.get("times") or ""
    clear = len(pair) == 2 and all(one.replace(":", "").isdecimal() for one in pair)
    if not (clear and rounds.isdecimal() and ":" in length):
        return draft
    comes_to = int(rounds) * max(1, draft.moves) * sum(map(read_clock, pair))
    if comes_to != read_clock(length) or roles.keys() & {"between", "rest", "within"}:
        return draft
    kept = {name: said for name, said in draft.roles.items() if name not in ("total", "time")}
    return replace(draft, roles=kept, notes=[*draft.notes, f"{length} in all"])


def _by_stations(draft: Draft) -> Draft:
    """Stations with the same minutes each, one under the other: once round, with the time to change as the rest."""
    lengths = {line[0].seconds if len(line) == 1 else 0 for line in draft.tasks}
    pause = next((draft.roles[one] for one in PAUSES if one in draft.roles), "")
    placed = draft.moves > 1 and all(draft.labels)
    if not placed or len(lengths) != 1 or lengths == {0} or draft.roles.keys() - {*PAUSES}:
        return draft
    work = short(lengths.pop())
    clock = {"pair": f"{work}/{short(read_clock(pause))}"} if ":" in pause else {"each": work}
    tasks = [[replace(line[0], amount=None)] for line in draft.tasks]
    return replace(draft, roles={"rounds": "1", **clock}, tasks=tasks)


def _rest_behind_all(draft: Draft) -> Draft:
    """20 s of this, 20 s of that, 20 s rest: works with a time each, so that the rest stands behind all of them."""
    roles = draft.roles
    more = [line[0].seconds for line in draft.tasks[1:]]
    if not {"work", "rest"} <= roles.keys() or not more or ":" not in roles["rest"]:
        return draft
    work = read_clock(roles["work"])
    if set(more) != {work} or read_clock(roles["rest"]) < work:
        return draft
    kept = {name: said for name, said in roles.items() if name not in ("work", "rest", "times")}
    rounds = {"rounds": roles["times"]} if "times" in roles else {}
    return replace(draft, roles={**kept, **rounds, "each": roles["work"], "between": roles["rest"]})


def _begun_every(draft: Draft) -> Draft:
    """Sets that begin every so often: a turn each."""
    roles, one = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    reps = roles.get("reps", "").removesuffix(" reps")
    if not {"sets", "reps", "period"} <= roles.keys() or one is None or not reps.isdecimal():
        return draft
    if one.amount or roles.keys() & {"total", "time", "rounds"} or not roles["sets"].isdecimal():
        return draft
    total = clocked(int(roles["sets"]) * read_clock(roles["period"]))
    kept = {name: said for name, said in roles.items() if name not in ("sets", "reps")}
    counted = replace(one, amount=Figure("count", "one", (reps,)))
    return replace(draft, roles={**kept, "total": total}, tasks=[[counted]])


def _rested(draft: Draft) -> Draft:
    """A bare time behind repeats of a way, or behind sets, is the rest after each."""
    roles = draft.roles
    repeats = {"times", "far", "time"} <= roles.keys() or {"sets", "reps", "time"} <= roles.keys()
    repeats = repeats or ({"scheme", "time"} <= roles.keys() and draft.moves == 1)
    if not repeats or roles.keys() & {"rest", "within", "between", "around"}:
        return draft
    if read_clock(roles["time"]) > LONGEST_REST_S:
        in_all = {name: said for name, said in roles.items() if name != "time"}
        return replace(draft, roles=in_all, notes=[*draft.notes, f"{roles['time']} in all"])
    kept = {name: said for name, said in roles.items() if name != "time"}
    return replace(draft, roles={**kept, "rest": roles["time"]})


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
    roles = {**kept, "hold": str(one.seconds), "grows": str(read_clock(draft.roles["grows"]))}
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
    if plain(one.name) not in labels() | (STRETCHED if draft.roles else frozenset()):
        return draft
    roles = {**draft.roles, "time": f"{count}:00"}
    if "around" not in roles:
        return replace(draft, roles={**roles, "label": one.name}, tasks=[], labels=[])
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None)]])


def _filled(draft: Draft) -> Draft:
    """A work and a rest, again and again for so long: as many rounds as that is."""
    roles = draft.roles
    pair = roles.get("pair", f"{roles.get('work', '')}/{roles.get('rest', '')}").split("/")
    alone = draft.tasks[0][0].seconds if draft.moves == 1 else 0
    length = roles.get("total") or roles.get("time") or (clocked(alone) if alone else "")
    counted = {"rounds", "times", "sets", "often", "period", "around", "amrap"} & roles.keys()
    clear = len(pair) == 2 and all(one.replace(":", "").isdecimal() for one in pair)
    if not clear or ":" not in length or counted:
        return draft
    turn = sum(map(read_clock, pair)) * max(1, draft.moves)
    whole, over = divmod(read_clock(length), turn) if turn else (0, 1)
    if over or not whole:
        return draft
    left = ("total", "time", "alternating", "work", "rest")
    kept = {name: said for name, said in roles.items() if name not in left}
    times = {
        "pair": "/".join(map(short, map(read_clock, pair))),
        "rounds" if draft.moves > 1 else "times": str(whole),
    }
    tasks = [[replace(draft.tasks[0][0], amount=None)]] if alone else draft.tasks
    notes = [*draft.notes, f"{length} in all"]
    return replace(draft, roles={**kept, **times}, tasks=tasks, notes=notes)


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
    unnumbered, _of_a_part, _in_pairs, _sided, _gone_back, _unalike, _without_rest, _minutes_each, _leaving, _climbed,
    _once_each, _by_stations, _built, _told_in_all, _recovered, _held_in_sets, _rest_behind_all, _begun_every, _rested, _most_in, _grown, _aimed,
    _stretched, _filled, _way_counted, _paired,
)  # fmt: skip
