"""What comes back is put into a session: as a few skill minutes behind the warm-up, or as a block of its own."""

from lovrit.core.moves.library import Library
from lovrit.core.session.edits import InsertBlock
from lovrit.core.timeline.plan import Plan, plan_text

SKILL_REPS = 3
AS = {"skill": "every 1:00 for 5:00, at 4", "block": "3 rounds of 40/20, at 7"}


def put_again(plan: Plan, name: str, how: str, library: Library) -> InsertBlock | None:
    """The edit that puts a move into a session, as "skill" or as "block"; None where it can't be read so."""
    head = AS[how]
    move = library.find(name)
    few = f"{SKILL_REPS} " if how == "skill" and (move is None or move.counted == "reps") else ""
    text = f"{head}\n  {few}{name}"
    if plan_text(text, library).problems:
        return None
    return InsertBlock(
        at=_behind_warm_up(plan) if how == "skill" else _before_cool_down(plan), text=text
    )


def _behind_warm_up(plan: Plan) -> int:
    """Behind the easy stretches with which it begins: skill wants people who are warm and fresh."""
    return next((at for at, block in enumerate(plan.session.blocks) if block.works), 0)


def _before_cool_down(plan: Plan) -> int:
    last = max((at for at, block in enumerate(plan.session.blocks) if block.works), default=-1)
    return last + 1
