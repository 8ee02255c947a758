"""A draft written as the slate's own block."""

from collections.abc import Iterator
from dataclasses import replace

from lovrit.core.blocks.roles import Saying
from lovrit.core.reading.draft import CLOCK, Draft, Offer
from lovrit.core.reading.giving import seconds_in
from lovrit.core.reading.line import Task

INSET = "  "
RESTS = frozenset({"between", "rest", "within"})
MOST_NOTE = 300  # letters; the slate takes no longer line than 400


def written(draft: Draft, offer: Offer) -> str:
    """The lines of a block."""
    saying, roles = offer.saying, offer.roles
    if not saying.times:
        head = saying.heading(roles)
        return "\n".join([head, *_lines(draft, saying, offer)])
    outer = next((one for one in ("between", "within", "rest") if one in roles), "")
    inner = saying.takes.keys() & {"rest"} if outer != "rest" else set()
    once = {name: said for name, said in roles.items() if name not in RESTS or name in inner}
    rest = roles.get(outer, "")
    nest = f"{roles[saying.times]} times, rest {rest}"
    return "\n".join(
        [nest, INSET + saying.heading(once), *(INSET + one for one in _lines(draft, saying, offer))]
    )


def _lines(draft: Draft, saying: Saying, offer: Offer) -> Iterator[str]:
    """Its tasks, a line each, and its notes."""
    behind = saying.behind(offer.roles) + "".join(f" {one}" for one in draft.marks)
    before = saying.before(offer.roles)
    counted = _ladder_count(offer)
    for nth, line in enumerate(_timed(draft, offer)):
        if nth in draft.then_at:
            yield f"{INSET}then"
        yield INSET + " + ".join(_task(one, behind, before, counted, offer) for one in line)
    marks = [one.strip("@| ,") for one in draft.marks] if not draft.tasks else []
    if "stations" in offer.roles:
        marks.append(f"{offer.roles['stations']} stations")
    if "around" in offer.roles and "around" not in saying.fields:
        marks.append(offer.roles["around"])
    notes = "; ".join(dict.fromkeys(filter(None, map(plainly, [*draft.notes, *marks]))))
    if notes:
        yield f"{INSET}note: {notes}"


def plainly(text: str) -> str:
    """Words as they may stand on a line of the slate: no comment sign, nothing unseen, not without end."""
    seen = "".join(one if one.isprintable() and one != "#" else " " for one in text)
    return " ".join(seen.split())[:MOST_NOTE]


def task_line(line: list[Task]) -> str:
    """A line of tasks alone."""
    return " + ".join(one.written() for one in line)


def _without(task: Task, said: str) -> Task:
    """A task without the amount that its heading says."""
    return replace(task, amount=None) if task.amount and task.amount.own == said else task


def _timed(draft: Draft, offer: Offer) -> list[list[Task]]:
    """Its tasks; without the time that the heading says for all, and the rests that go with it."""
    if "sets" in offer.saying.needs and "reps" in offer.roles and "reps" not in draft.roles:
        said = offer.roles["reps"].removesuffix(" reps")
        return [[_without(one, said) for one in line] for line in draft.tasks]
    far = offer.roles.get("far")
    if far:
        return [[_without(one, far) for one in line] for line in draft.tasks]
    if not offer.roles.keys() & CLOCK:
        return draft.tasks
    said = next((offer.roles[one] for one in ("work", "each", "pair") if one in offer.roles), "")
    work = seconds_in(said.split("/")[0]) if " " not in said else 0
    rests = not draft.roles.keys() & CLOCK
    return [
        [replace(one, amount=None) if one.seconds == work else one for one in line]
        for line in draft.tasks
        if not (rests and line[0].name == "rest")
    ]


def _ladder_count(offer: Offer) -> str:
    """The count that every move of a ladder begins with; it stands in the heading."""
    return offer.roles.get("ladder", "").split(" ")[0] if "add" not in offer.roles else ""


def _task(task: Task, behind: str, before: str, counted: str, offer: Offer) -> str:
    amount = task.amount
    if before and not amount and not task.most and task.name != "rest":
        return f"{before} {task.written(behind)}"
    if amount and counted and amount.own == counted:
        amount = None
    if "maxed" in offer.saying.flags and not before:
        return Task(task.name, None, task.marks).written(behind)
    return Task(task.name, amount, task.marks, task.most).written("" if task.most else behind)
