"""A block as people mean it where it goes by the clock: works, rests and rounds that make each other out."""

from dataclasses import replace

from lovrit.core.reading.draft import Draft
from lovrit.core.reading.figured import short, time_of
from lovrit.core.reading.giving import LONGEST_REST_S, clocked, seconds_in
from lovrit.core.reading.token import Figure
from lovrit.core.reading.vocabulary import plain

RACED = frozenset({"amrap", "fortime", "quality", "period", "scheme"})
PAUSES = ("change", "within", "between", "rest")
SHARED = {"= work": 1, "1:2": 2, "1:3": 3, "1:4": 4}  # how long a rest is, by the work
LIST = 3  # from so many on, figures are a list
TURNED = frozenset({"pair", "work", "each"})


def without_rest(draft: Draft) -> Draft:
    """No rest: works one after the other; beside anything else it is told."""
    if "norest" not in draft.roles:
        return draft
    roles = {name: said for name, said in draft.roles.items() if name != "norest"}
    more = {line[0].seconds for line in draft.tasks[1:]}
    work = roles.get("work") or roles.get("each") or ""
    if "stations" in roles and "rounds" in roles and work and not draft.moves:
        kept = {name: said for name, said in roles.items() if name != "work"}
        return replace(draft, roles={**kept, "each": work})
    if "times" in roles and work and draft.moves > 1 and more <= {0, seconds_in(work)}:
        kept = {name: said for name, said in roles.items() if name not in ("times", "work", "each")}
        tasks = [[replace(line[0], amount=None)] for line in draft.tasks]
        return replace(
            draft, roles={**kept, "rounds": roles["times"], "each": work}, tasks=tasks
        )  # fmt: skip
    lengths = {line[0].seconds for line in draft.tasks}
    if "rounds" in roles and len(lengths) == 1 and lengths != {0}:
        return replace(draft, roles=roles)
    return replace(draft, roles=roles, notes=[*draft.notes, "no rest"])


def minutes_each(draft: Draft) -> Draft:
    """30/30 for ten minutes at each: ten sets there, then everyone changes."""
    roles = draft.roles
    pair = roles.get("pair", "").split("/")
    if len(pair) != 2 or "each" not in roles or roles.keys() & {"rounds", "times", "sets"}:
        return draft
    turn = sum(map(seconds_in, pair))
    many, over = divmod(seconds_in(roles["each"]), turn) if turn else (0, 1)
    if over or many < 2:
        return draft
    change = next((roles[one] for one in PAUSES if one in roles), "")
    kept = {name: said for name, said in roles.items() if name not in ("each", *PAUSES)}
    changed = {"change": change} if change else {}
    notes = [*draft.notes, f"{roles['each']} at each"]
    return replace(draft, roles={**kept, "sets": str(many), **changed}, notes=notes)


def leaving(draft: Draft) -> Draft:
    """10 x 100 m on 2 minutes: each begins on the clock, and rests what is left."""
    roles, task = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    period = roles.get("period") or roles.get("work") or ""
    if not {"times", "far"} <= roles.keys() or not period or not task or task.amount:
        return draft
    if roles.keys() & {"rest", "within", "between", "pair"} or not roles["times"].isdecimal():
        return draft
    total = clocked(int(roles["times"]) * seconds_in(period))
    kept = {name: one for name, one in roles.items() if name not in ("times", "far", "work")}
    said, unit = roles["far"].split()
    task = replace(task, amount=Figure("far", "one", (said,), unit))
    every = {"period": clocked(seconds_in(period)), "total": total}
    return replace(draft, roles={**kept, **every}, tasks=[[task]])


def once_each(draft: Draft) -> Draft:
    """So long at each of so many stations, which are all named: once round."""
    roles = draft.roles
    if "each" not in roles or roles.get("stations") != str(draft.moves):
        return draft
    if roles.keys() & {"rounds", "times", "sets", "pair", "between"}:
        return draft
    return replace(draft, roles={**roles, "rounds": "1"})


def recovered(draft: Draft) -> Draft:
    """A work and an easy way back, as two lines or two things of one: intervals of both."""
    tasks = [line[0] for line in draft.tasks if len(line) == 1]
    times = draft.roles.get("rounds") or draft.roles.get("times") or draft.roles.get("sets")
    said = draft.roles.get("work", "") if draft.roles.get("times") else ""
    if said and tasks and tasks[0].amount is None:
        tasks[0] = replace(tasks[0], amount=time_of(seconds_in(said)))
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


def held_in_sets(draft: Draft) -> Draft:
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
    pair = f"{short(one.seconds)}/{short(seconds_in(rest))}"
    times = {"times": many, "pair": pair}
    return replace(draft, roles={**kept, **times}, tasks=[[replace(one, amount=None)]])


def told_in_all(draft: Draft) -> Draft:
    """Rounds by the clock with their length in all, where that is what they come to: it is told."""
    roles = draft.own_roles()
    pair = roles.get("pair", f"{roles.get('work', '')}/{roles.get('rest', '')}").split("/")
    if "each" in roles and "rest" not in roles:
        pair = [roles["each"], "0"]
    length = roles.get("total") or roles.get("time") or ""
    rounds = roles.get("rounds") or roles.get("times") or ""
    clear = len(pair) == 2 and all(one.replace(":", "").isdecimal() for one in pair)
    if not (clear and rounds.isdecimal() and ":" in length):
        return draft
    places = int(roles["stations"]) if roles.get("stations", "").isdecimal() else draft.moves
    comes_to = int(rounds) * max(1, places) * sum(map(seconds_in, pair))
    if comes_to != seconds_in(length) or roles.keys() & {"between", "within", "around"}:
        return draft
    left = ("total", "time", "work", "rest")
    kept = {name: said for name, said in draft.roles.items() if name not in left}
    if "each" not in roles:
        kept["pair"] = "/".join(map(short, map(seconds_in, pair)))
    return replace(draft, roles=kept, notes=[*draft.notes, f"{length} in all"])


def by_stations(draft: Draft) -> Draft:
    """Stations with the same minutes each, one under the other: once round, with the time to change as the rest."""
    lengths = {line[0].seconds if len(line) == 1 else 0 for line in draft.tasks}
    pause = next((draft.roles[one] for one in PAUSES if one in draft.roles), "")
    placed = draft.moves > 1 and all(draft.labels)
    if not placed or len(lengths) != 1 or lengths == {0} or draft.roles.keys() - {*PAUSES}:
        return draft
    work = short(lengths.pop())
    clock = {"pair": f"{work}/{short(seconds_in(pause))}"} if ":" in pause else {"each": work}
    tasks = [[replace(line[0], amount=None)] for line in draft.tasks]
    return replace(draft, roles={"rounds": "1", **clock}, tasks=tasks)


def rest_last(draft: Draft) -> Draft:
    """5 rounds of 1 min each: …, rest. What stands last is the rest of all."""
    roles = draft.own_roles()
    last = draft.tasks[-1][0] if draft.moves > 1 else None
    said = roles.get("each") or roles.get("pair") or ""
    if last is None or last.name != "rest" or last.amount or not said or " " in said:
        return draft
    if any(line[0].name == "rest" for line in draft.tasks[:-1]) or "between" in roles:
        return draft
    rest = clocked(sum(map(seconds_in, said.split("/"))))
    roles = {**draft.roles, "between": rest}
    return replace(draft, roles=roles, tasks=draft.tasks[:-1], labels=draft.labels[:-1])


def changed_each(draft: Draft) -> Draft:
    """40 s at each, 20 s to change; stations x 3 min, 1 min rest: a work and a rest."""
    roles = draft.roles
    work = roles.get("each") or roles.get("work") or ""
    shorter = "stations" in roles and _is_shorter(roles.get("rest", ""), work)
    pause = roles.get("change") or (roles["rest"] if shorter else "")
    several = draft.moves > 1 or "stations" in roles
    if not (work and several and pause and "rounds" in roles):
        return draft
    if roles.keys() & {"pair", "sets", "times"} or ("change" in roles and "rest" in roles):
        return draft
    left = ("each", "work", "change", "rest")
    kept = {name: one for name, one in roles.items() if name not in left}
    pair = f"{short(seconds_in(work))}/{short(seconds_in(pause))}"
    return replace(draft, roles={**kept, "pair": pair})


def _is_shorter(rest: str, work: str) -> bool:
    return ":" in rest and bool(work) and seconds_in(rest) < seconds_in(work)


def repeated_way(draft: Draft) -> Draft:
    """100 m swim x 10, on 2:00 or with a rest: so many times so far."""
    one = draft.tasks[0][0] if draft.moves == 1 else None
    far = one.amount if one and one.amount and one.amount.measure == "far" else None
    if one is None or far is None or far.form != "one" or "often" not in draft.roles:
        return draft
    if "period" not in draft.roles or draft.roles.keys() & {"far", "times"}:
        return draft
    kept = {name: said for name, said in draft.roles.items() if name != "often"}
    roles = {**kept, "times": draft.roles["often"], "far": far.own}
    return replace(draft, roles=roles, tasks=[[replace(one, amount=None)]])


def shared(draft: Draft) -> Draft:
    """Work to rest 1:1, 30 s: both as long."""
    roles = draft.roles
    one = draft.tasks[0][0] if draft.moves == 1 else None
    said = seconds_in(roles["time"]) if "time" in roles else one.seconds if one else 0
    many = SHARED.get(roles.get("rest", ""), 0)
    if not (said and many and "rounds" in roles) or roles.keys() & (RACED | TURNED):
        return draft
    left = ("rest", "time", *(["rounds"] if one else []))
    kept = {name: value for name, value in roles.items() if name not in left}
    times = {"times": roles["rounds"]} if one else {}
    tasks = [[replace(one, amount=None)]] if one else draft.tasks
    pair = f"{short(said)}/{short(said * many)}"
    return replace(draft, roles={**kept, **times, "pair": pair}, tasks=tasks)


def changed_sets(draft: Draft) -> Draft:
    """Sets of a work and a rest at each station: what is between is the change."""
    if not {"sets", "pair", "within"} <= draft.roles.keys():
        return draft
    kept = {name: said for name, said in draft.roles.items() if name != "within"}
    return replace(draft, roles={**kept, "change": draft.roles["within"]})


def outer(draft: Draft) -> Draft:
    """10 x 30/30, rest 3:00, x 2: sets of intervals."""
    roles = draft.roles
    if {"outer", "work", "rest"} <= roles.keys() and "pair" not in roles:
        kept = {
            name: said for name, said in roles.items() if name not in ("work", "rest", "within")
        }
        behind = {"rest": roles["within"]} if "within" in roles else {}
        return replace(draft, roles={**kept, "pair": f"{roles['work']}/{roles['rest']}", **behind})
    if {"outer", "within", "between"} <= roles.keys():
        kept = {name: said for name, said in roles.items() if name != "within"}
        return replace(draft, roles={**kept, "rest": roles["within"]})
    own = {"times", "often"} <= roles.keys() and roles.keys() & {"pair", "far"}
    if not own or "rest" not in roles:
        return draft
    kept = {name: said for name, said in roles.items() if name != "often"}
    return replace(draft, roles={**kept, "outer": roles["often"]})


def rest_behind_all(draft: Draft) -> Draft:
    """20 s of this, 20 s of that, 20 s rest: works with a time each, so that the rest stands behind all of them."""
    roles = draft.roles
    more = [line[0].seconds for line in draft.tasks[1:]]
    if not {"work", "rest"} <= roles.keys() or not more or ":" not in roles["rest"]:
        return draft
    work = seconds_in(roles["work"])
    if set(more) != {work} or seconds_in(roles["rest"]) < work:
        return draft
    kept = {name: said for name, said in roles.items() if name not in ("work", "rest", "times")}
    rounds = {"rounds": roles["times"]} if "times" in roles else {}
    return replace(draft, roles={**kept, **rounds, "each": roles["work"], "between": roles["rest"]})


def counted_down_every(draft: Draft) -> Draft:
    """5-4-3 or 1-1-1 of one move, every two minutes: a turn each, with its own count."""
    roles, one = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    counts = roles.get("scheme", "").split("-")
    if one is None or one.amount or not {"scheme", "period"} <= roles.keys() or len(counts) < LIST:
        return draft
    if not all(map(str.isdecimal, counts)) or roles.keys() & {"total", "time", "rounds", "times"}:
        return draft
    total = clocked(len(counts) * seconds_in(roles["period"]))
    kept = {name: said for name, said in roles.items() if name != "scheme"}
    turns = counts if len(set(counts)) > 1 else counts[:1]
    tasks = [[replace(one, amount=Figure("count", "one", (said,)))] for said in turns]
    each = {"alternating": ""} if len(turns) > 1 else {}
    return replace(draft, roles={**kept, **each, "total": total}, tasks=tasks)


def begun_every(draft: Draft) -> Draft:
    """Sets that begin every so often: a turn each."""
    roles, one = draft.roles, draft.tasks[0][0] if draft.moves == 1 else None
    reps = roles.get("reps", "").removesuffix(" reps")
    if not {"sets", "reps", "period"} <= roles.keys() or one is None or not reps.isdecimal():
        return draft
    if one.amount or roles.keys() & {"total", "time", "rounds"} or not roles["sets"].isdecimal():
        return draft
    total = clocked(int(roles["sets"]) * seconds_in(roles["period"]))
    kept = {name: said for name, said in roles.items() if name not in ("sets", "reps")}
    counted = replace(one, amount=Figure("count", "one", (reps,)))
    return replace(draft, roles={**kept, "total": total}, tasks=[[counted]])


def rested(draft: Draft) -> Draft:
    """A bare time behind repeats of a way, or behind sets, is the rest after each."""
    roles = draft.roles
    repeats = {"times", "far", "time"} <= roles.keys() or {"sets", "reps", "time"} <= roles.keys()
    repeats = repeats or ({"scheme", "time"} <= roles.keys() and draft.moves == 1)
    if not repeats or roles.keys() & {"rest", "within", "between", "around"}:
        return draft
    if seconds_in(roles["time"]) > LONGEST_REST_S:
        in_all = {name: said for name, said in roles.items() if name != "time"}
        return replace(draft, roles=in_all, notes=[*draft.notes, f"{roles['time']} in all"])
    kept = {name: said for name, said in roles.items() if name != "time"}
    return replace(draft, roles={**kept, "rest": roles["time"]})


def filled(draft: Draft) -> Draft:
    """A work and a rest, again and again for so long: as many rounds as that is."""
    roles = draft.roles
    pair = roles.get("pair", f"{roles.get('work', '')}/{roles.get('rest', '')}").split("/")
    alone = draft.tasks[0][0].seconds if draft.moves == 1 else 0
    length = roles.get("total") or roles.get("time") or (clocked(alone) if alone else "")
    counted = {"rounds", "times", "sets", "often", "period", "around", "amrap"} & roles.keys()
    clear = len(pair) == 2 and all(one.replace(":", "").isdecimal() for one in pair)
    if not clear or ":" not in length or counted:
        return draft
    turn = sum(map(seconds_in, pair)) * max(1, draft.moves)
    whole, over = divmod(seconds_in(length), turn) if turn else (0, 1)
    if over or not whole:
        return draft
    left = ("total", "time", "alternating", "work", "rest")
    kept = {name: said for name, said in roles.items() if name not in left}
    times = {
        "pair": "/".join(map(short, map(seconds_in, pair))),
        "rounds" if draft.moves > 1 else "times": str(whole),
    }
    tasks = [[replace(draft.tasks[0][0], amount=None)]] if alone else draft.tasks
    notes = [*draft.notes, f"{length} in all"]
    return replace(draft, roles={**kept, **times}, tasks=tasks, notes=notes)
