"""Blocks of a message put together: the same move in the next, a race of what comes before rounds, they, and behind."""

from collections.abc import Iterator
from dataclasses import replace

from lovrit.core.reading.draft import Draft
from lovrit.core.reading.vocabulary import plain

ENDS = frozenset(
    [
        "stretch",
        "stretching",
        "stretches",
        "dehnen",
        "mobility",
        "walk",
        "etirements",
        "estiramientos",
    ]
)
FAR = frozenset({"far", "once_far"})
MOST_PARTS = 3  # of a race: before its rounds, they, behind them


def of_the_same(drafts: list[Draft]) -> Iterator[Draft]:
    """Blocks in order; sets that name no move go on with the one before them: “then 3 x 3 at 90 % of that”."""
    before: Draft | None = None
    for draft in drafts:
        made = draft
        if before and before.moves == 1 and _goes_on_with(before, draft):
            task = replace(before.tasks[0][0], amount=None, marks=draft.marks)
            made = replace(draft, tasks=[[task]], labels=[""], marks=())
        before = before if is_rest(made) else made
        yield made


def _goes_on_with(before: Draft, draft: Draft) -> bool:
    lifted = (
        bool(before.roles.keys() & {"heavy", "sets", "scheme"})
        and {"sets", "reps"} <= draft.roles.keys()
    )
    amount = before.tasks[0][0].amount
    far = before.roles.keys() & FAR or (amount and amount.measure == "far")
    easy = before.tasks[0][0].easy or before.tasks[0][0].name in ("jog", "walk")
    gone = bool(far) and bool(draft.roles.keys() & FAR) and not easy
    gone = gone or ("pair" in before.roles and "pair" in draft.roles)
    if draft.tasks or draft.inside or not (draft.lines and before.lines):
        return False
    same = draft.lines[0].number == before.lines[-1].number
    return (lifted and (same or draft.lines[0].then)) or (gone and same)


def ended(drafts: list[Draft]) -> Iterator[Draft]:
    """One name more than there are stations, and it is what ends an evening: a stretch, which stands behind them."""
    for draft in drafts:
        stations = draft.roles.get("stations", "")
        last = draft.tasks[-1] if draft.tasks else []
        over = stations.isdecimal() and draft.moves == int(stations) + 1 and len(last) == 1
        if not over or plain(last[0].name) not in ENDS:
            yield draft
            continue
        line = next(one for one in reversed(draft.lines) if last[0] in one.tasks)
        yield replace(draft, tasks=draft.tasks[:-1], labels=draft.labels[:-1])
        yield Draft(tasks=[last], labels=[""], lines=[line])


def named_behind(drafts: list[Draft]) -> list[Draft]:
    """Stations that are counted and not named, where as many names stand alone behind all: these are they."""
    wanting = [one for one in drafts if one.roles.get("stations") and not one.moves]
    names = drafts[-1] if drafts else None
    if len(wanting) != 1 or names is None or names.roles or names is wanting[0]:
        return drafts
    if wanting[0].roles["stations"] != str(names.moves):
        return drafts
    wanting[0].tasks, wanting[0].labels = names.tasks, names.labels
    wanting[0].lines += names.lines
    return drafts[:-1]


def raced(drafts: list[Draft]) -> Iterator[Draft]:
    """Blocks one after the other that are one race: what is done before the rounds, the rounds, what comes behind."""
    at, drafts = 0, list(_there_and_back(drafts))
    while at < len(drafts):
        some = _race_from(drafts[at : at + MOST_PARTS])
        if some:
            inside = [replace(one, roles={**one.roles}) for one in some]
            caps = [one.roles["cap"] for one in some if "cap" in one.roles]
            cap = {"cap": caps[-1]} if caps else {}
            for one in inside:
                for name in ("fortime", "once", "cap"):
                    one.roles.pop(name, None)
            lines = [line for one in some for line in one.lines]
            yield Draft(roles={"race": "", **cap}, lines=lines, inside=inside)
            at += len(some)
        else:
            yield drafts[at]
            at += 1


def _there_and_back(drafts: list[Draft]) -> Iterator[Draft]:
    """Blocks in order; what ends rounds and stood before them too, alone, is behind them: a run, rounds, that run."""
    before: Draft | None = None
    for draft in drafts:
        twice = before is not None and draft.moves > 1 and before.moves == 1
        if before and twice and _is_way_there(before, draft):
            ends = draft.lines[-1:] if draft.lines[-1].tasks else draft.lines[-2:-1]
            yield replace(draft, tasks=draft.tasks[:-1], labels=draft.labels[:-1])
            yield Draft(
                tasks=draft.tasks[-1:], labels=[""], lines=[one for one in ends if one.tasks]
            )
        else:
            yield draft
        before = draft


def _is_way_there(before: Draft, draft: Draft) -> bool:
    """Whether what stands alone before rounds ends them as well."""
    rounds = "rounds" in draft.roles and not draft.roles.keys() - {"rounds", "cap", "fortime"}
    last = draft.tasks[-1][0]
    return (
        rounds
        and not before.roles
        and (last.name, last.amount)
        == (
            before.tasks[0][0].name,
            before.tasks[0][0].amount,
        )
    )


def _race_from(drafts: list[Draft]) -> list[Draft]:
    """The parts of a race that begins here; none where it is none."""
    some: list[Draft] = []
    for one in drafts:
        rounds = any("rounds" in part.roles for part in some)
        if not one.moves or one.roles.keys() - {"once", "fortime", "cap", "rounds"}:
            break
        if "rounds" in one.roles and (rounds or "fortime" in one.roles):
            break
        if "once" not in one.roles and "rounds" not in one.roles and not _goes_on(one, some):
            break
        some.append(one)
    said = {name for one in some for name in one.roles}
    both = len(some) == MOST_PARTS and _alike(some[0], some[-1])
    whole = len(some) > 1 and "rounds" in said and (both or said & {"once", "fortime"})
    return some if whole else []


def _alike(one: Draft, other: Draft) -> bool:
    """Whether the same is done before and behind."""
    said = [[(task.name, task.amount) for task in line] for line in one.tasks]
    return said == [[(task.name, task.amount) for task in line] for line in other.tasks]


def _goes_on(draft: Draft, before: list[Draft]) -> bool:
    """Whether something counted stands before or behind the rounds of a race."""
    counted = all(line[0].amount for line in draft.tasks)
    again = bool(before) and _alike(before[0], draft)
    return counted and (not before or again or bool(draft.lines and draft.lines[0].then))


def is_rest(draft: Draft) -> bool:
    """Whether it is a rest between blocks, which nothing else is said of."""
    return bool(draft.roles) and draft.roles.keys() <= {"rest", "needed"} and not draft.tasks
