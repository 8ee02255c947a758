"""What several lines under one heading can be: sets or rounds, a race or stations in a length, one clock for all."""

from dataclasses import replace
from string import ascii_uppercase

from lovrit.core.blocks.roles import AIMS
from lovrit.core.messages.asked import Question, name_of
from lovrit.core.messages.sound import sound
from lovrit.core.reading.draft import Draft
from lovrit.core.reading.giving import clocked, seconds_in
from lovrit.core.reading.line import Task
from lovrit.core.reading.token import Figure
from lovrit.core.reading.written import INSET, plainly, written

LONG_S = 90  # reps of several things under a work of this length are a race in it, or stations
MOST_WRITTEN = 24  # lines of rounds that are written out
RACES = frozenset({"amrap", "fortime", "quality", "period", "together"})
NO_RACE = frozenset({"amrap", "fortime", "quality", "period", "far", "scheme", "together"})


def two_ways(draft: Draft) -> Question | None:
    """The question about a block that several lines make two things of; None where they don't."""
    for way in (
        _unnamed,
        _resting,
        _how_many,
        _by_round,
        _sets_of_several,
        _in_a_length,
        _shared_out,
        _again,
        _rest_as_long,
        _trial,
        _till_it_fills,
    ):
        question = way(draft)
        if question and question.answers:
            return question
    return None


def _question(draft: Draft, said: str, texts: list[str]) -> Question:
    whole = (_with_notes(draft, text) for text in texts)
    return Question(f"{name_of(draft)}: {said}", tuple(dict.fromkeys(filter(sound, whole))))


def _with_notes(draft: Draft, text: str) -> str:
    """An answer with what was told beside the block, and with a cap that has no place in it."""
    cap = draft.roles.get("cap", "")
    told = [*draft.notes, *([f"cap {cap} in all"] if cap and cap not in text else [])]
    left = [one for one in map(plainly, told) if one and one not in text]
    last = text.rsplit("\n", maxsplit=1)[-1]
    inset = last[: len(last) - len(last.lstrip())] or INSET
    return f"{text}\n{inset}note: {'; '.join(dict.fromkeys(left))}" if left else text


def _aims(draft: Draft) -> str:
    """How hard it is to be, as it stands behind a heading."""
    said = (words.format(draft.roles[name]) for name, words in AIMS.items() if name in draft.roles)
    return "".join(f", {one}" for one in said)


def _by(draft: Draft, **roles: str) -> list[str]:
    """A block with some roles more, in all ways that it can be then."""
    made = replace(draft, roles={**draft.roles, **roles})
    return [written(made, offer) for offer in made.offers()]


def _unnamed(draft: Draft) -> Question | None:
    """So many stations, of which nobody says what is done at some."""
    many = draft.roles.get("stations", "")
    if not many.isdecimal() or not draft.moves < int(many) <= MOST_WRITTEN or int(many) < 2:
        return None
    kept = {name: said for name, said in draft.roles.items() if name != "stations"}
    more = range(draft.moves, int(many))
    tasks = [*draft.tasks, *([Task(f"station {ascii_uppercase[nth]}")] for nth in more)]
    named = replace(draft, roles=kept, tasks=tasks)
    texts = [written(named, offer) for offer in named.offers()]
    return _question(draft, f"which {many} moves? They can be named one by one.", texts)


def _resting(draft: Draft) -> Question | None:
    """A rest among stations by the clock: a place at which one rests while others work."""
    bare = any(line[0].name == "rest" and not line[0].amount for line in draft.tasks)
    if not bare or "period" in draft.roles or not draft.roles.keys() & {"pair", "each", "work"}:
        return None
    texts = [written(draft, offer) for offer in draft.offers()]
    return _question(draft, "is rest a station like the others?", texts)


def _how_many(draft: Draft) -> Question | None:
    """“3-4 rounds”: how many, on one clock for all."""
    role = next((one for one in ("rounds", "times", "sets") if "-" in draft.roles.get(one, "")), "")
    if not role:
        return None
    ways = [
        replace(draft, roles={**draft.roles, role: many}) for many in draft.roles[role].split("-")
    ]
    texts = [text for way in ways for text in [written(way, one) for one in way.offers()][:1]]
    if not texts:
        texts = [text for way in ways for text in _by(way, quality="")]
    return _question(draft, "how many, on one clock for all?", texts)


def _by_round(draft: Draft) -> Question | None:
    """Reps by round of several moves, of which nobody says whether it is a race: rounds of all, or sets of each."""
    roles = draft.roles
    if "scheme" not in roles or draft.moves < 2 or roles.keys() & (RACES | {"rest", "between"}):
        return None
    if "needed" not in roles:
        return None
    kept = {name: said for name, said in roles.items() if name != "needed"}
    race = _by(replace(draft, roles=kept), fortime="")
    sets = [written(draft, offer) for offer in draft.offers()]
    return _question(draft, "which of these is it?", [*race, *sets])


def _sets_of_several(draft: Draft) -> Question | None:
    """“3 sets” above several counted things: all sets of one, or all of them in each set."""
    draft = _each_counted(draft)
    counts = [one.amount.own if one.amount else "" for line in draft.tasks for one in line]
    said = draft.roles.keys() & (NO_RACE | {"reps", "pair", "work", "each"})
    if "sets" not in draft.roles or said or draft.moves < 2 or not all(counts):
        return None
    rest = {"rest": draft.roles.get("rest") or draft.roles.get("within") or "1:00"}
    kept = {
        name: one for name, one in draft.roles.items() if name not in ("sets", "within", "rest")
    }
    as_rounds = replace(draft, roles={**kept, "rounds": draft.roles["sets"], **rest})
    texts = _by(as_rounds, quality="")
    first = counts[0]
    tasks = [
        [
            replace(one, amount=None) if one.amount and one.amount.own == first else one
            for one in line
        ]
        for line in draft.tasks
    ]
    sets = replace(draft, roles={**draft.roles, **rest}, tasks=tasks)
    texts = [*_by(sets, reps=f"{first} reps"), *texts]
    return _question(
        draft, "all sets of one and then the next, or all of them in every set?", texts
    )


def _each_counted(draft: Draft) -> Draft:
    """“3 sets of 12 squats, 12 push-ups, 30 s plank”: the reps behind “sets of” are those of the first."""
    reps = draft.roles.get("reps", "").removesuffix(" reps")
    tasks = [line[0] for line in draft.tasks]
    one_line = len({line.number for line in draft.lines if line.tasks}) == 1
    counted = len(tasks) > 1 and all(one.amount for one in tasks[1:])
    if not (reps.isdecimal() and one_line and counted) or tasks[0].amount:
        return draft
    if "together" in draft.roles:
        return draft
    roles = {name: said for name, said in draft.roles.items() if name != "reps"}
    counted_first = replace(tasks[0], amount=Figure("count", "one", (reps,)))
    return replace(draft, roles=roles, tasks=[[counted_first], *draft.tasks[1:]])


def _in_a_length(draft: Draft) -> Question | None:
    """“5 x 3 min” above several counted things: as many as possible in each, or a station each."""
    pair = draft.roles.get("pair", "").split("/")
    work = draft.roles.get("work") or draft.roles.get("each") or pair[0]
    times = draft.roles.get("times") or draft.roles.get("rounds") or ""
    counted = all(
        one.most or (one.amount and not one.seconds) for line in draft.tasks for one in line
    )
    if draft.roles.keys() & NO_RACE or draft.moves < 2 or not (work and times and counted):
        return None
    if seconds_in(work) < LONG_S:
        return None
    rest = draft.roles.get("rest") or draft.roles.get("within") or draft.roles.get("between")
    rest = clocked(seconds_in(pair[1])) if len(pair) > 1 and seconds_in(pair[1]) else rest
    lines = [INSET + line[0].written() for line in draft.tasks]
    race = [f"as many as possible in {clocked(seconds_in(work))}{_aims(draft)}", *lines]
    head = f"{times} times, rest {rest}" if rest else f"{times} times, rest 1:00"
    nested = "\n".join([head, *(INSET + one for one in race)])
    texts = [nested, *(written(draft, offer) for offer in draft.offers()[:1])]
    return _question(draft, "as many as possible in each, or one of these at a time?", texts)


def _shared_out(draft: Draft) -> Question | None:
    """“30/30 x 20 (10 row, 10 bike)”: counts that come to the rounds are how many of them each has."""
    times = draft.roles.get("rounds") or draft.roles.get("times") or draft.own_roles().get("rounds")
    counts = [line[0].amount.number if line[0].amount else None for line in draft.tasks]
    if "pair" not in draft.roles or not times or draft.moves < 2 or not all(counts):
        return None
    if sum(filter(None, counts)) != int(times if times.isdecimal() else 0):
        return None
    pair = draft.roles["pair"]
    each = [
        f"{many} x {pair}{_aims(draft)}\n{INSET}{line[0].name}"
        for many, line in zip(counts, draft.tasks, strict=True)
    ]
    stations = [
        f"{times} rounds of {pair}{_aims(draft)}",
        *(INSET + line[0].written() for line in draft.tasks),
    ]
    texts = ["\n\n".join(each), "\n".join(stations)]
    return _question(draft, "so many of each, or stations?", texts)


def _again(draft: Draft) -> Question | None:
    """Falling reps that are done several times, with a rest between."""
    rest = draft.roles.get("rest") or draft.roles.get("between") or draft.roles.get("within") or ""
    if not {"scheme", "rounds"} <= draft.roles.keys() or ":" not in rest or draft.moves < 1:
        return None
    lines = [INSET * 2 + line[0].written() for line in draft.tasks]
    cap = f", cap {draft.roles['cap']}" if "cap" in draft.roles else ""
    head = [
        f"{draft.roles['rounds']} times, rest {rest}",
        f"{INSET}{draft.roles['scheme']} for time{cap}{_aims(draft)}",
    ]
    return _question(draft, "all of it so often?", ["\n".join([*head, *lines])])


def _rest_as_long(draft: Draft) -> Question | None:
    """Rounds against the clock, each with a rest as long as it took: how long that is at most."""
    if draft.roles.get("rest") != "= work" or "fortime" not in draft.roles:
        return None
    kept = {name: said for name, said in draft.roles.items() if name != "rest"}
    texts = [
        written(made, offer)
        for rest in ("2:00", "3:00")
        for made in (replace(draft, roles={**kept, "between": rest}),)
        for offer in made.offers()
        if offer.saying.times
    ]
    return _question(draft, "how long does everybody rest, on one clock?", texts)


def _trial(draft: Draft) -> Question | None:
    """A way of which nobody says how it is gone: against the clock, or so many times."""
    roles = draft.roles
    if draft.moves or draft.offers():
        return None
    if {"times", "far"} <= roles.keys():
        rest = roles.get("rest") or roles.get("within") or roles.get("time") or ""
        head = f"{roles['times']} x {roles['far']}" + (f", rest {rest}" if rest else "")
        head += _aims(draft)
    elif roles.keys() == {"once_far", "fortime"}:
        head = ""
    else:
        return None
    texts = [
        f"{head}\n{INSET}{one}" if head else f"for time\n{INSET}{roles['once_far']} {one}"
        for one in ("run", "row", "bike")
    ]
    return _question(draft, "what is done?", texts)


def _till_it_fills(draft: Draft) -> Question | None:
    """A hold that grows, of which nobody says how long: till it fills its turn, or a little less."""
    roles = draft.roles
    if not {"hold", "grows", "period"} <= roles.keys() or roles.keys() & {"total", "time"}:
        return None
    period, first, step = (seconds_in(roles[one]) for one in ("period", "hold", "grows"))
    turns = (period - first) // step + 1 if step and first < period else 0
    texts = [
        text
        for many in (turns, turns - 1, turns - 2)
        if many > 1
        for text in _by(draft, total=clocked(period * many))
    ]
    return _question(draft, "how long does it go on? Longer than a turn can’t be held.", texts)


def race(draft: Draft) -> Question:
    """Something before rounds, the rounds, something behind: on one clock, or one after the other."""
    cap = f", cap {draft.roles['cap']}" if "cap" in draft.roles else ""
    out = [INSET + line[0].written() for part in draft.inside for line in _in_full(part)]
    apart = []
    for part in draft.inside:
        rounds = f"{part.roles['rounds']} rounds " if "rounds" in part.roles else ""
        lines = [INSET + line[0].written() for line in part.tasks]
        apart.append("\n".join([f"{rounds}for time", *lines]))
    whole = ["\n".join([f"for time{cap}", *out])] if len(out) <= MOST_WRITTEN else []
    said = "on one clock, or each part for itself?"
    return _question(draft, said, [*whole, "\n\n".join(apart)])


def _in_full(part: Draft) -> list[list[Task]]:
    """Its lines, as often as its rounds are done."""
    rounds = part.roles.get("rounds", "1")
    return part.tasks * (int(rounds) if rounds.isdecimal() else 1)
