"""Whether a line is part of the block above it: what it says of it, or does in it."""

from lovrit.core.reading.draft import Draft
from lovrit.core.reading.giving import LONGEST_REST_S
from lovrit.core.reading.joined import is_rest
from lovrit.core.reading.line import Said, Task
from lovrit.core.reading.vocabulary import labels, plain

# what is said of a block that stands above or below, and makes none alone
OF_ANOTHER = frozenset({
    "cap", "rest", "between", "within", "change", "effort", "heart", "company", "fortime", "quality", "needed",
    "together", "ladder", "total", "add", "oneworks", "work", "rounds", "often", "pair", "each", "stations", "time",
})  # fmt: skip
RESTS_UNSURE = frozenset({"rest", "between", "odd:rest"})
RACES = frozenset({"amrap", "fortime"})
CLOCKED = frozenset({"pair", "each", "work"})
LONG_TASK_S = 90


def belongs(draft: Draft, line: Said, after: list[Said]) -> bool:
    """Whether a line, with those ``after`` it, is said of the block above or done in it."""
    if _goes_on_to(draft, line, after):
        return False
    if (draft.left and not draft.roles and not draft.tasks) or is_rest(draft):
        return False
    if is_letter(line.label) and draft.roles and not ("period" in draft.roles and not line.roles):
        return False
    if any(one.unsure in RESTS_UNSURE for one in line.left) and not line.roles and not line.tasks:
        return False
    if not line.roles:
        return not line.tasks or _takes_tasks(draft, line)
    if not draft.roles:
        below = after[0] if after else None
        more = below is not None and bool(below.tasks) and not below.roles and not line.tasks
        return not more and _heads(draft, line)
    if line.tasks and (
        draft.moves or "around" in draft.roles or not line.roles.keys() <= OF_ANOTHER
    ):
        return False
    return _qualifies(draft, line, after)


def is_letter(label: str) -> bool:
    """Whether a label begins a part of its own: a, B; not A1 and A2, which go together."""
    return len(label) == 1 and label.isalpha()


def _goes_on_to(draft: Draft, line: Said, after: list[Said]) -> bool:
    """Whether a line says what comes after what is above: then …, to finish; rounds behind a warm-up."""
    if line.finish and line.tasks:
        return True
    rounds = bool(line.roles.keys() & {"rounds", "sets", "times"})
    if line.then:
        return rounds or ("rounds" in draft.roles and bool(line.tasks) and not line.roles)
    warm = draft.roles.keys() == {"around"} and draft.moves and not line.tasks
    return bool(warm and line.roles.keys() == {"rounds"} and after and after[0].tasks)


def _heads(draft: Draft, line: Said) -> bool:
    """Whether a line is the heading of the moves above it, which have none."""
    if draft.lines[-1].number == line.number and {"times", "far"} <= line.roles.keys():
        return False  # parts of one line that were parted
    if line.tasks or "around" in line.roles or _makes_its_own(line):
        return False
    if line.roles.keys() == {"change"}:
        return all(draft.labels)  # from one station to the next
    if (
        all(one.seconds >= LONG_TASK_S for row in draft.tasks for one in row)
        and not line.roles.keys() & RACES
    ):
        return False
    counted = any(one.amount for row in draft.tasks for one in row)
    return not (counted and Draft(roles=dict(line.roles)).offers())


def _qualifies(draft: Draft, line: Said, after: list[Said]) -> bool:
    """Whether what a line says is said of the block above."""
    said = {name: value for name, value in line.roles.items() if draft.roles.get(name) != value}
    if not said and draft.moves:
        return False
    if said.keys() == {"amrap"} and draft.moves:
        return bool({"time", "total"} & draft.roles.keys() and "around" not in draft.roles)
    clash = {name for name in said if name in draft.roles}
    if clash and clash != {"rest"}:
        return False
    if not draft.moves and not draft.offers() and line.roles.keys() - OF_ANOTHER:
        return draft.could_take(said)
    if not line.roles.keys() <= OF_ANOTHER:
        return False
    if said.keys() & {"rest"} and _own_rest(draft, after):
        return False
    return draft.could_take(said)


def _own_rest(draft: Draft, after: list[Said]) -> bool:
    """Whether a rest stands by itself, between two blocks."""
    wanting = any("rest" in one.missing for one in draft.nearest())
    more = any(not one.says_nothing for one in after)
    whole = not wanting if draft.moves else bool(draft.offers())
    return whole and more


def _makes_its_own(line: Said) -> bool:
    """Whether a line says a block that has nothing to do with names above it."""
    return line.roles.keys() == {"rest"}


def _takes_tasks(draft: Draft, line: Said) -> bool:
    """Whether what a line does is done in the block above."""
    roles = draft.roles
    if not roles:
        return (
            not any(task.seconds >= LONG_TASK_S for task in line.tasks) or line.inset or line.bullet
        )
    if roles.keys() <= {"rounds"} and any(
        task.name == "rest" for row in draft.tasks for task in row
    ):
        return True
    if roles.keys() == {"rounds"} and _begins_long(draft):
        return not any(plain(task.name) in labels() for task in line.tasks)
    if roles.keys() == {"around"} and not draft.moves:
        return True
    if roles.keys() <= {"rounds", "sets", "times"} and not draft.moves:
        return True
    if _is_whole(draft):
        return False
    if {"around", "time"} <= roles.keys() and not (roles.keys() & CLOCKED):
        return line.inside or all(task.whole and not task.amount for task in line.tasks)
    return line.inside or not any(
        _stands_alone(task, bool(roles.keys() & CLOCKED)) for task in line.tasks
    )


def _begins_long(draft: Draft) -> bool:
    """Whether the first thing of rounds is as long as a stretch of its own: then others of them may be."""
    return bool(draft.tasks) and draft.tasks[0][0].seconds >= LONGEST_REST_S


def _is_whole(draft: Draft) -> bool:
    """Whether a block has all its lines: a rest, a way once, sets and repeats of what their own line says."""
    roles = draft.roles
    own = "sets" in roles and "reps" in roles and draft.lines and draft.lines[0].tasks
    repeats = "times" in roles and draft.moves and not (CLOCKED & roles.keys())
    return bool(roles.keys() <= {"rest", "needed"} or "once_far" in roles or own or repeats)


def _stands_alone(task: Task, by_clock: bool) -> bool:
    """Whether a task at the edge is a stretch of its own: too long for a line, or called as stretches are."""
    bare = task.amount and task.amount.number and task.amount.measure == "count"
    called = plain(task.name) in labels() and (task.seconds >= LONG_TASK_S or bool(bare))
    return task.seconds >= LONGEST_REST_S or called or (by_clock and task.seconds > LONG_TASK_S)
