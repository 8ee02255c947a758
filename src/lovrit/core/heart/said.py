"""What a heart will do in a block, in a sentence for the Desk: who stays under, from when on, when the peak comes."""

from statistics import median

from lovrit.core.crew.person import USUAL_HIGHEST, USUAL_REST, Person
from lovrit.core.heart.foresee import TurnAhead, body_of, turns_ahead
from lovrit.core.timeline.plan import Plan

MOST_INTERVALS = 400  # of longer sessions nothing is said, so that typing stays quick
NTH = {2: "second", 3: "third", 4: "fourth", 5: "fifth", 6: "sixth"}


def heart_said(plan: Plan, block: int) -> str:
    """What a usual heart will do in a block of works with an effort or a target; empty where there is none of it."""
    chosen = plan.session.blocks[block]
    asks = chosen.heart is not None or chosen.top_effort is not None
    long = len(plan.timeline.intervals) > MOST_INTERVALS
    if (
        not asks
        or long
        or not chosen.interval_block
        or chosen.lifts
        or chosen.gated
        or chosen.in_turns
    ):
        return ""
    usual = Person(id=0, name="", initials="")
    turns = [
        one for one in turns_ahead(plan, usual, body_of(usual), block) if _in(plan, one, block)
    ]
    return _said(turns) if len(turns) > 1 and all(one.target for one in turns) else ""


def _in(plan: Plan, turn: TurnAhead, block: int) -> bool:
    laid = plan.timeline.blocks[block]
    return laid.start_s <= turn.start_s < laid.end_s


def _said(turns: list[TurnAhead]) -> str:
    first = next((nth for nth, one in enumerate(turns, 1) if one.reached), 0)
    who = f"A usual heart ({USUAL_REST} to {USUAL_HIGHEST})"
    if not first:
        return f"{who} reaches its box in no turn, {round(turns[-1].peak)} at the most: go by effort here."
    peaks = f"{round(turns[0].peak)} in the first turn, {round(turns[-1].peak)} in the last"
    after = median(one.peak_after_end_s for one in turns)
    when = f"; each peak comes some {round(after)} s into the rest" if after >= 2 else ""
    if first == 1:
        return f"{who} is in its box from the first turn: {peaks}{when}."
    under = f"The first turn{'s' if first > 2 else ''} stay{'' if first > 2 else 's'} under, which is normal"
    return f"{who}: {peaks}{when}. {under}; from the {NTH.get(first, 'later ones')} on it is in its box."
