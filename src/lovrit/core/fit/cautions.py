"""What to mind with a fit: a slot that it passes, an effort that no longer goes with its work and rest."""

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, number
from lovrit.core.timeline.plan import Plan

HARD = 7.5  # below this, longer work at the same effort is just more of it
LONGER, SHORTER = (
    1.3,
    0.7,
)  # by so much work grows or rest shrinks before the effort can't stay as it is


def past_slot(plan: Plan) -> tuple[str, ...]:
    """That a session passes its slot, by how much."""
    over = -(plan.sums.spare_s or 0)
    return (f"{clock(over)} past the slot",) if over > 0 else ()


def at_one_effort(before: Plan, after: Plan) -> tuple[str, ...]:
    """Blocks whose work grew or whose rest shrank much while the effort that is asked stayed where it was."""
    pairs = zip(before.session.blocks, after.session.blocks, strict=True)
    return tuple(dict.fromkeys(said for was, now in pairs if (said := _changed(was, now))))


def _changed(was: Block, now: Block) -> str:
    effort = now.top_effort
    if effort is None or effort < HARD or effort != was.top_effort or not (was.pairs and now.pairs):
        return ""
    one, two = was.pairs[0].timed, now.pairs[0].timed
    if not one or not two:
        return ""
    by = []
    if two[0] >= one[0] * LONGER:
        by.append(f"work of {_said(two[0])} instead of {_said(one[0])}")
    if two[1] <= one[1] * SHORTER:
        by.append(f"rest of {_said(two[1])} instead of {_said(one[1])}")
    if not by:
        return ""
    return f"{' and '.join(by)} at effort {number(effort)}: bring it down by half a point or one"


def _said(seconds: int) -> str:
    return f"{seconds} s" if seconds < 60 else clock(seconds)
