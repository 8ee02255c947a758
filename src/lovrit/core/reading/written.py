"""A draft written as the slate's own block."""

from collections.abc import Iterator

from lovrit.core.blocks.roles import Saying
from lovrit.core.reading.draft import Draft, Offer
from lovrit.core.reading.line import Task
from lovrit.core.session.reader import read

INSET = "  "


def written(draft: Draft, offer: Offer) -> str:
    """The lines of a block."""
    saying, roles = offer.saying, offer.roles
    if not saying.times:
        head = saying.heading(roles)
        return "\n".join([head, *_lines(draft, saying, offer)])
    rest = next((roles[one] for one in ("between", "rest", "within") if one in roles), "")
    once = {name: said for name, said in roles.items() if name not in ("between", "rest", "within")}
    nest = f"{roles[saying.times]} times, rest {rest}"
    return "\n".join(
        [nest, INSET + saying.heading(once), *(INSET + one for one in _lines(draft, saying, offer))]
    )


def _lines(draft: Draft, saying: Saying, offer: Offer) -> Iterator[str]:
    """Its tasks, a line each, and its notes."""
    behind = saying.behind(offer.roles) + "".join(f" {one}" for one in draft.marks)
    before = saying.before(offer.roles)
    counted = _ladder_count(offer)
    for nth, line in enumerate(draft.tasks):
        if nth in draft.then_at:
            yield f"{INSET}then"
        yield INSET + " + ".join(_task(one, behind, before, counted, offer) for one in line)
    marks = [one.strip("@| ,") for one in draft.marks] if not draft.tasks else []
    if "stations" in offer.roles:
        marks.append(f"{offer.roles['stations']} stations")
    if "around" in offer.roles and "around" not in saying.fields:
        marks.append(offer.roles["around"])
    yield from (f"{INSET}note: {one}" for one in dict.fromkeys([*draft.notes, *marks]))


def sound(text: str) -> bool:
    """Whether a block reads on the slate."""
    return not read(text, 0).problems


def task_line(line: list[Task]) -> str:
    """A line of tasks alone."""
    return " + ".join(one.written() for one in line)


def _ladder_count(offer: Offer) -> str:
    """The count that every move of a ladder begins with; it stands in the heading."""
    return offer.roles.get("ladder", "").split(" ")[0] if "add" not in offer.roles else ""


def _task(task: Task, behind: str, before: str, counted: str, offer: Offer) -> str:
    amount = task.amount
    if before and not amount and not task.most and task.name != "rest":
        return f"{before} {task.written(behind)}"
    if amount and counted and amount.own == counted:
        amount = None
    if "maxed" in offer.saying.flags:
        return Task(task.name, None, task.marks).written(behind)
    return Task(task.name, amount, task.marks, task.most).written(behind)
