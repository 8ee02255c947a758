"""What is asked of a block that can be read in no way, or in several: a coach's question, with whole answers."""

import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import replace
from typing import NamedTuple

from lovrit.core.messages.sound import sound
from lovrit.core.moves.library import shipped
from lovrit.core.reading.apart import read_line
from lovrit.core.reading.draft import Draft, Offer
from lovrit.core.reading.giving import clocked
from lovrit.core.reading.line import Left
from lovrit.core.reading.questions import QUESTIONS
from lovrit.core.reading.token import Figure
from lovrit.core.reading.written import written

MOST_ANSWERS = 3
INVENTED = frozenset({"pair", "work", "each"})
LENGTHS = ("5:00", "8:00", "10:00")  # of a warm-up
WHOLE = 100  # per cent
MINUTE_S = 60
BARE = frozenset({"rest", "between", "within", "change", "length"})


LABEL = re.compile(r"^\W*(?:[A-H]\d?|\d{1,2})[.):](?!\d)\s*", re.IGNORECASE)


# what is offered for a role that nobody wrote
OFFERED: dict[str, tuple[Mapping[str, str], ...]] = {
    "rest": ({"rest": "2:00"}, {"rest": "3:00"}, {"rest": "= work"}, {"needed": ""}),
    "within": ({"within": "1:00"},),
    "between": ({"between": "1:00"}, {"between": "2:00"}),
    "change": ({"change": "0:15"},),
    "pair": ({"pair": "40/20"}, {"pair": "30/30"}),
    "work": ({"work": "40"}, {"work": "30"}),
    "each": ({"each": "1:00"},),
    "rounds": ({"rounds": "3"}, {"rounds": "4"}, {"rounds": "5"}),
    "times": ({"times": "4"}, {"times": "6"}),
    "sets": ({"sets": "3"}, {"sets": "4"}),
    "reps": ({"reps": "8 reps"}, {"reps": "10 reps"}, {"reps": "12 reps"}),
    "total": ({"total": "10:00"}, {"total": "12:00"}, {"total": "15:00"}),
    "time": ({"time": "5:00"}, {"time": "10:00"}),
    "cap": ({"cap": "10:00"}, {"cap": "15:00"}),
    "period": ({"period": "1:00"}, {"period": "2:00"}),
    "fortime": ({"fortime": ""},),
    "quality": ({"quality": ""},),
    "amrap": ({"amrap": ""},),
}
# what no answer may leave aside
WEIGHTY = frozenset(
    {
        "sets",
        "reps",
        "times",
        "far",
        "pair",
        "scheme",
        "rounds",
        "total",
        "period",
        "amrap",
        "line",
        "fortime",
        "quality",
        "once_far",
        "work",
        "works",
    }
)
MOST_MINUTES = 40  # of one thing whose reps are counted; more of it are reps
WHICH = "which of these is it?"
AS_NEEDED = "rest as needed"


WHAT = {
    "load": "kilograms, pounds or per cent?",
    "loads": "kilograms, pounds or per cent?",
    "second": "is that a load?",
    "rest": "minutes or seconds?",
    "length": "minutes or seconds?",
    "between": "minutes or seconds?",
    "within": "minutes or seconds?",
    "change": "minutes or seconds?",
    "odd": "minutes and seconds, or a part of a minute?",
    "range": "how long is it, on one clock for all?",
    "pair": "a work and a rest, or something else?",
    "rounds": "so many rounds?",
    "superset": "after each set, or after each pair?",
    "each": "on each side, or each of you?",
    "while": "two things at once: is one of them only told?",
    "many": "metres, or so many of them?",
    "again": "so often in all, or so often more?",
    "ways": "one counts up and another down: which count is it for all?",
    "times": "how many of them?",
    "beats": "beats of a heart, or of a metronome?",
    "among": "in each round, or only told?",
}


class Question(NamedTuple):
    """A question about a block, and what it would be by each answer; ``wants`` is the one role that is lacking."""

    text: str
    answers: tuple[str, ...]
    wants: str = ""


def ask(draft: Draft) -> Question:
    """What has to be asked of a block."""
    if draft.left:
        return _of_left(draft, draft.left[0])
    special = _bare(draft) or _in_turn(draft) or _warming(draft)
    if special:
        return special
    offers = draft.offers()
    if len(offers) > 1:
        return Question(f"{name_of(draft)}: {WHICH}", _texts(draft, offers))
    return _of_lacking(draft)


def _bare(draft: Draft) -> Question | None:
    """A move and a figure without a unit: minutes, kilometres, calories or reps."""
    one = draft.tasks[0][0] if draft.moves == 1 and not draft.roles else None
    number = one.amount.number if one and one.amount and one.amount.measure == "count" else None
    if not one or number is None:
        return None
    move = shipped().find(one.name)
    far = (
        f"1 x {number} km\n  {one.name}"
        if move and move.metre
        else f"for time\n  {number} {one.name}"
    )
    if (
        move
        and move.counted == "reps"
        and not move.metre
        and not move.way_seconds
        and number > MOST_MINUTES
    ):
        quality = f"1 round for quality\n  {number} {one.name}"
        said = f"{name_of(draft)}: for time, or unhurried?"
        return Question(said, tuple(text for text in (far, quality) if sound(text)))
    answers = (f"{one.name} {number}:00", far, f"for time\n  {number} cal {one.name}")
    said = f"{name_of(draft)}: {number} minutes, kilometres, calories or reps?"
    return Question(said, tuple(text for text in answers if sound(text)))


def _warming(draft: Draft) -> Question | None:
    """A warm-up or a cool-down with what is done in it, of which nobody says how long it is."""
    bare = draft.roles.keys() == {"label"}
    if draft.roles.keys() - {"around", "effort", "label"}:
        return None
    if not bare and ("around" not in draft.roles or not draft.moves):
        return None
    ways = (replace(draft, roles={**draft.roles, "time": said}) for said in LENGTHS)
    texts = [text for way in ways for text in _texts(way, way.offers())]
    return Question(f"{name_of(draft)}: how long is it in all?", tuple(texts)) if texts else None


def _in_turn(draft: Draft) -> Question | None:
    """Turns of moves that alternate: as many in all, or of each."""
    own = draft.own_roles()
    role = next((one for one in ("rounds", "times") if one in own), "")
    turns = int(own[role]) if role and own[role].isdecimal() else 0
    if "alternating" not in own or not turns or len(draft.tasks) <= 1 or draft.offers():
        return None
    left = {name: said for name, said in own.items() if name not in ("alternating", role)}
    counts = [turns // draft.moves] if turns % draft.moves == 0 else []
    ways = [replace(draft, roles={**left, "rounds": str(one)}) for one in (*counts, turns)]
    texts = [text for way in ways for text in _texts(way, way.offers())]
    said = f"{name_of(draft)}: {turns} turns in all, or of each?"
    return Question(said, tuple(texts)) if texts else None


def name_of(draft: Draft) -> str:
    """What a coach would call it: its heading, without the letter or the number before it."""
    heading = draft.lines[0].text if draft.lines else ""
    return LABEL.sub("", heading).strip(" :.*_-–")[:80]


def _texts(draft: Draft, offers: list[Offer]) -> tuple[str, ...]:
    made = dict.fromkeys(written(draft, offer) for offer in offers)
    return tuple(one for one in made if sound(one))[:MOST_ANSWERS]


def _of_lacking(draft: Draft) -> Question:
    """What nobody wrote, of the ways that lack least."""
    answers: list[str] = []
    questions: list[str] = []
    offers = _uninvented(draft, draft.nearest())
    one_by_one = [list(_filled(draft, offer)) for offer in offers]
    for nth in range(MOST_ANSWERS):
        for offer, made in zip(offers, one_by_one, strict=True):
            if nth < len(made) and made[nth] not in answers:
                answers.append(made[nth])
                questions += [QUESTIONS[name] for name in offer.missing[:1] if name in OFFERED]
    lacking = {name for offer in offers for name in offer.missing}
    asked = dict.fromkeys(questions)
    said = next(iter(asked)) if len(asked) == 1 else WHICH if asked else "what is meant by it?"
    if "rest" in lacking and "together" in draft.roles:
        said = "how long is the rest, and is it after each set or after each pair?"
    if not draft.tasks and not answers:
        said = "what is done?"
    if any(offer.over for offer in offers) and answers:
        said = WHICH
    wants = next(iter(lacking)) if len(lacking) == 1 else ""
    return Question(f"{name_of(draft)}: {said}", tuple(answers[:MOST_ANSWERS]), wants)


def _uninvented(draft: Draft, offers: list[Offer]) -> list[Offer]:
    """Without ways by a clock that nobody spoke of, where what is done is counted and another way is as near."""
    counted = any(one.amount for line in draft.tasks for one in line)
    plain = [one for one in offers if not INVENTED & set(one.missing)]
    return plain if counted and plain else offers


def _filled(draft: Draft, offer: Offer) -> Iterator[str]:
    """The block with each of the roles that it lacks."""
    own = draft.own_roles()
    if set(offer.over) & WEIGHTY:
        return
    over = [f"{name} {own[name]}".strip() for name in offer.over if name in own]
    kept = {name: said for name, said in own.items() if name not in offer.over}
    for given in _given(offer.missing):
        freely = [AS_NEEDED] if "needed" in given else []
        whole = replace(draft, roles={**kept, **given}, notes=[*draft.notes, *over, *freely])
        for one in whole.offers():
            text = written(whole, one)
            if one.saying == offer.saying and sound(text):
                yield text


def _given(missing: tuple[str, ...]) -> Iterator[dict[str, str]]:
    """The roles that are offered for those that are lacking, the first of each further one."""
    if not missing:
        yield {}
        return
    first, *more = missing
    rest = {key: value for one in more if one in OFFERED for key, value in OFFERED[one][0].items()}
    for one in OFFERED.get(first, ()):
        yield {**one, **rest}


def _of_left(draft: Draft, left: Left) -> Question:
    """What could be two things, or has no place."""
    without = replace(draft, left=[one for one in draft.left if one is not left])
    made = [text for way in _ways_of(without, left) for text in _answer(way)]
    said = f"{_beside(draft, left)}: {WHAT.get(left.unsure.split(':')[0], 'what is meant by it?')}"
    wants = "rest" if left.unsure == "range:rest" and "sets" in draft.roles else ""
    return Question(said, tuple(dict.fromkeys(made))[:MOST_ANSWERS], wants)


def _beside(draft: Draft, left: Left) -> str:
    """What could be two things, with the move that it stands by."""
    text = "".join(left.text.split()) if left.text[:1] == "(" else left.text
    at = min(max(left.task, 0), len(draft.tasks) - 1)
    name = (
        draft.tasks[at][-1].name
        if draft.tasks and left.unsure.split(":")[0] in ("load", "loads", "second")
        else name_of(draft)
    )
    return f"{name[:1].upper()}{name[1:]}, “{text}”"


def _answer(draft: Draft) -> Iterator[str]:
    """A draft as a block, with what is lacking filled where that has to be."""
    if not draft.left and draft.roles:
        offers = draft.offers()
        if offers:
            yield from _texts(draft, offers[:1])
        else:
            yield from _of_lacking(draft).answers[:1]


def _ways_of(draft: Draft, left: Left) -> Iterator[Draft]:
    """The block with what was left as each thing that it could be, and with it as a note."""
    unsure, _, of = left.unsure.partition(":")
    if unsure in OWN_WAYS:
        yield from OWN_WAYS[unsure](draft, left, of)
        return
    if unsure == "among":
        lines = read_line(draft.lines[-1].number, of)
        tasks = [[task] for line in lines for task in line.tasks]
        labels = [*draft.labels, *("" for _ in tasks)]
        race = {"fortime": ""} if "scheme" in draft.roles else {}
        roles = {**draft.roles, **race}
        yield replace(draft, roles=roles, tasks=[*draft.tasks, *tasks], labels=labels)
    elif unsure in ("load", "second", "each"):
        marks = (", each side",) if unsure == "each" else _load_units(left.figure)
        yield from (_loaded(draft, left, mark) for mark in marks if draft.tasks)
    elif left.figure:
        for said in _read_as(unsure, left.figure):
            yield replace(draft, roles={**draft.roles, of or unsure: said})
    yield draft if unsure in ("each", "while") else replace(draft, notes=[*draft.notes, left.text])


def _read_as(unsure: str, figure: Figure) -> Iterator[str]:
    """What a figure could be, for a role that is unsure of it."""
    if unsure == "pair":
        yield "/".join(figure.said)
    elif unsure == "rounds":
        yield figure.own
    elif unsure == "range":
        yield from map(clocked, figure.seconds)
    elif figure.form != "one" or figure.measure not in ("count", "odd"):
        return
    elif unsure == "odd":
        whole, _, part = figure.said[0].partition(".")
        yield f"{whole}:{part:0<2}"
        yield clocked(round(float(figure.said[0]) * MINUTE_S))
    elif unsure in BARE:
        number = float(figure.said[0])
        yield from (clocked(round(number * MINUTE_S)), clocked(round(number)))


def _load_units(figure: Figure | None) -> tuple[str, ...]:
    """A bare load with each unit that it could have; two standards are no share of anything."""
    if figure is None or figure.measure != "count":
        return ()
    share = figure.form == "one" and float(figure.said[0]) <= WHOLE
    return tuple(
        f"@ {'/'.join(figure.said)}{unit}"
        for unit in ((" kg", "%", " lb") if share else (" kg", " lb"))
    )


def _so_many(draft: Draft, left: Left, of: str) -> Iterator[Draft]:
    """So often in all, or so often more; so many metres, or so many reps."""
    if left.unsure == "many" and left.figure and draft.tasks:
        way = Figure("far", "one", left.figure.said, "m")
        yield from (_amounted(draft, left, one) for one in (way, left.figure))
    elif of.isdecimal():
        more = (of, str(int(of) + 1))
        yield from (replace(draft, roles={**draft.roles, "rounds": one}) for one in more)


def _pairs_or_sets(draft: Draft, left: Left, of: str) -> Iterator[Draft]:
    """A superset with its rest behind each pair, and without that behind each set."""
    del left, of
    yield draft
    alone = {name: said for name, said in draft.roles.items() if name != "together"}
    yield replace(draft, roles=alone)


def _in_units(draft: Draft, left: Left, of: str) -> Iterator[Draft]:
    """Loads of several sets, with each unit that they could have."""
    units = (" kg", "%", " lb") if draft.tasks else ()
    yield from (_loaded(draft, left, f"@ {of}{unit}") for unit in units)


def _beats(draft: Draft, left: Left, of: str) -> Iterator[Draft]:
    """Beats of a heart, or of something else that is only told."""
    del of
    if left.figure:
        yield replace(draft, roles={**draft.roles, "heart": left.figure.own})
    yield replace(draft, notes=[*draft.notes, left.text])


def _amounted(draft: Draft, left: Left, amount: Figure) -> Draft:
    tasks = [list(line) for line in draft.tasks]
    at = min(max(left.task, 0), len(tasks) - 1)
    tasks[at][-1] = replace(tasks[at][-1], amount=amount)
    return replace(draft, tasks=tasks)


def _loaded(draft: Draft, left: Left, mark: str) -> Draft:
    tasks = [list(line) for line in draft.tasks]
    at = min(max(left.task, 0), len(tasks) - 1)
    tasks[at][-1] = replace(tasks[at][-1], marks=(*tasks[at][-1].marks, mark))
    return replace(draft, tasks=tasks)


OWN_WAYS: dict[str, Callable[[Draft, Left, str], Iterator[Draft]]] = {
    "superset": _pairs_or_sets, "loads": _in_units, "again": _so_many, "many": _so_many, "beats": _beats,
}  # fmt: skip
