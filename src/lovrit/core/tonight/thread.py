"""The thread of a session: its steps in the order of the work, each with what it still lacks, short and whole."""

from typing import Literal, NamedTuple

from lovrit.core.clock import minutes

StepKey = Literal["write", "who", "where", "floor", "after"]


class Step(NamedTuple):
    """A step: in three words what it lacks or has, and in a line; ``red`` where the class can't be run like that."""

    key: StepKey
    short: str
    line: str
    red: bool = False


class Text(NamedTuple):
    """What is written: its length and the slot's (0 for none) in seconds, unread lines, remarks to mend or to weigh."""

    total_s: int
    slot_s: int = 0
    unread: int = 0
    stops: int = 0
    weighs: int = 0


def write_step(text: Text) -> Step:
    """The text.

    >>> write_step(Text(2540, 2700)).line
    '42:20 of 45:00, nothing to fix'
    """
    length = minutes(text.total_s) + (f" of {minutes(text.slot_s)}" if text.slot_s else "")
    if text.unread:
        said = f"{_some(text.unread, 'line')} unread"
        return Step("write", said, f"{length}, {said}", red=True)
    if not text.total_s:
        return Step("write", "nothing yet", "nothing is on the clock yet", red=True)
    if text.stops:
        said = f"{text.stops} to fix"
        return Step("write", said, f"{length}, {said} before the class", red=True)
    if text.slot_s and text.total_s > text.slot_s:
        over = minutes(text.total_s - text.slot_s)
        return Step("write", f"{over} too long", f"{length}: {over} too long", red=True)
    if text.weighs:
        return Step("write", f"{text.weighs} to consider", f"{length}, {text.weighs} to consider")
    return Step("write", length, f"{length}, nothing to fix")


class Who(NamedTuple):
    """Who comes: in how many groups, how many said that they come and stand in none, or can't and stand in one."""

    coming: int
    groups: int = 0
    to_place: int = 0
    cannot: int = 0
    not_cleared: int = 0


def who_step(who: Who) -> Step:
    """The people."""
    if not who.coming and not who.to_place:
        return Step("who", "nobody yet", "nobody is down for it yet")
    groups = f"{who.coming} in {_some(who.groups, 'group')}" if who.coming else "nobody in a group"
    for count, word in (
        (who.to_place, "not placed yet"),
        (who.cannot, "can’t after all"),
        (who.not_cleared, "not cleared"),
    ):
        if count:
            return Step(
                "who", f"{count} {word}", f"{groups}, {count} {word}", red=word == "not cleared"
            )
    return Step("who", groups, groups)


class Where(NamedTuple):
    """The hall: stations that people move through (0 where they stay), whether a floor is drawn, what clashes."""

    stations: int
    drawn: bool = True
    placed: int = 0
    clashes: tuple[str, ...] = ()


def where_step(where: Where) -> Step:
    """The floor."""
    if where.clashes:
        count = len(where.clashes)
        more = f", and {count - 1} more" if count > 1 else ""
        return Step(
            "where",
            f"{count} clash{'es' if count > 1 else ''}",
            f"{where.clashes[0]}{more}",
            red=True,
        )
    if not where.stations:
        return Step("where", "no stations", "everybody stays where they are")
    if not where.drawn:
        return Step("where", "no plan drawn", "no floor plan of this hall is drawn")
    if where.placed < where.stations:
        left = where.stations - where.placed
        return Step(
            "where", f"{left} to place", f"{left} of {where.stations} stations have no spot yet"
        )
    return Step("where", "all placed", f"{where.stations} stations in their place")


class Floor(NamedTuple):
    """The class of the evening: waiting, on (since when, hh:mm), and how long its talk is (seconds)."""

    phase: Literal["none", "ready", "on", "held"] = "none"
    since: str = ""
    talk_s: int = 0


def floor_step(floor: Floor) -> Step:
    """The class."""
    if floor.phase in ("on", "held"):
        word = "held" if floor.phase == "held" else "on"
        return Step(
            "floor", f"{word} since {floor.since}", f"the class is {word} since {floor.since}"
        )
    if floor.phase == "ready":
        return Step("floor", "ready to start", "open, and waits for its start")
    talk = f"talk {minutes(floor.talk_s)}, " if floor.talk_s else ""
    return Step("floor", "not open yet", f"{talk}kit list, screens")


class After(NamedTuple):
    """Its last class: on which day (in words, empty for none), and how many of its blocks want a score still."""

    on: str = ""
    scores_missing: int = 0
    no_effort: bool = False


def after_step(after: After) -> Step:
    """What is written down afterwards."""
    if not after.on:
        return Step("after", "never run", "never run yet")
    if after.scores_missing:
        said = f"{_some(after.scores_missing, 'score')} missing"
        return Step("after", said, f"{after.on}: {said}")
    if after.no_effort:
        return Step("after", "how hard?", f"{after.on}: nobody said how hard it was")
    return Step("after", f"run {after.on}", f"run {after.on}, written down")


def _some(count: int, what: str) -> str:
    return f"{count} {what}{'' if count == 1 else 's'}"
