"""A class as it is for one person: the rows of their group in their own version, their beats or effort, their share."""

from lovrit.core.clock import number
from lovrit.core.crew.dose import eased
from lovrit.core.crew.fits import told
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.heart.demand import corridor, talk
from lovrit.core.run.classplan import ClassPlan
from lovrit.core.run.foretold import Moment
from lovrit.core.run.saying import CLOSED
from lovrit.core.slate.line import Line, Way
from lovrit.core.slate.written import task_said
from lovrit.core.timeline.sums import HARD


def own_words(
    plan: ClassPlan, mine: Comer, instead: dict[str, str] | None = None
) -> dict[str, str]:
    """What is said of each move to everybody, and what it is for one person: their version, their load.

    ``instead`` are the moves that were put in place of others for the rest of the class.
    """
    found: dict[str, str] = {}
    for line in (line for block in plan.blocks for line in block.block.moves if not line.is_rest):
        other = (instead or {}).get(line.name, "")
        if other == CLOSED:
            continue
        everybody = tuple(task_said(task, other) for task in line.tasks)
        own = told(mine, _put_in_place(line, other), plan.library)
        found |= dict(zip(everybody, own, strict=True))
    return found


def _put_in_place(line: Line, other: str) -> Line:
    """A line with another move for the rest of the class, whose ways are that move's."""
    if not other:
        return line
    plain: dict[str, tuple[Way, ...]] = dict.fromkeys(("easier", "harder", "alternatives"), ())
    return line.but(tasks=tuple(task.but(name=other, **plain) for task in line.tasks))


def own_moment(one: Moment, mine: Comer, own: dict[str, str], out: bool) -> Moment:
    """A moment as it is for one person: the rows of their group in their own version, the lane that they are in.

    Where they have stopped nothing is asked of them.
    """
    if out:
        return one._replace(rows=(), lanes=(), effort=None)
    group = letter(mine.group)
    rows = tuple(
        row._replace(does=tuple(own.get(does, does) for does in row.does))
        for row in one.rows
        if group in row.groups
    )
    lanes = tuple(
        lane._replace(takes="" if str(mine.id) in lane.came else lane.takes)
        for lane in one.lanes
        if str(mine.id) in lane.people
    )
    return one._replace(rows=rows, lanes=lanes)


def own_effort(plan: ClassPlan, one: Moment, mine: Comer) -> float | None:
    """The effort that a moment asks of somebody: less of it where not all of the hard work is theirs."""
    if not mine.share or one.effort is None or one.effort < HARD or one.kind != "work":
        return one.effort
    return eased(mine.share, one.effort, _hard_before(plan, one))


def _hard_before(plan: ClassPlan, one: Moment) -> int:
    """How many hard works the plan has before a moment."""
    at = (one.block or 0, _step(one))
    steps = (
        (planned.at, nth, step)
        for planned in plan.blocks
        for nth, step in enumerate(planned.floor.steps)
    )
    return sum(
        (where, nth) < at and step.phase == "work" and (step.effort or 0) >= HARD
        for where, nth, step in steps
    )


def _step(one: Moment) -> int:
    """Which step of its block a moment is, from 0."""
    block, _, step = one.place.partition(".")
    return int(step) if block.isdecimal() and step.isdecimal() else 0


def _round(plan: ClassPlan, one: Moment) -> int | None:
    steps = plan.blocks[one.block or 0].floor.steps[_step(one) : _step(one) + 1]
    return steps[0].round if steps else None


def own_box(plan: ClassPlan, one: Moment, mine: Comer) -> str:
    """What somebody goes by in a moment: their own beats, or the effort."""
    if one.kind not in ("work", "steady") or one.block is None:
        return ""
    effort = own_effort(plan, one, mine)
    eases = effort != one.effort
    heart = None if eases else plan.session.blocks[one.block].heart_in(_round(plan, one))
    target = None if mine.effort_only else corridor(mine, effort, heart)
    said = f"effort {number(effort)} of 10, {talk(effort)}" if effort else ""
    if target:
        said = f"{round(target[0])} to {round(target[1])} beats"
        if mine.max_hr is None and (heart is None or heart.of in ("reserve", "max")):
            said += f", highest {mine.assumed.split('highest ')[-1]}: check by talking"
    return f"{said}: this one easier for you" if eases else said
