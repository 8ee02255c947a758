"""What a try proposes for the session as it stands: block by block, scaled to those who come."""

from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.forecast.learned import Quickness
from lovrit.core.tries.propose import Proposal, not_understood, proposals
from lovrit.core.tries.scale import Scaled, scaled, slower_than
from lovrit.core.tries.seen import Told
from lovrit.house.live import Live
from lovrit.web.desk.desk import Desk


class OfBlock(NamedTuple):
    """A block that was tried and still stands as it was: its place now, what is proposed, what the group will do.

    ``asked`` are the coach's words of which nothing was understood; ``short`` says how little of it was tried, where
    that is too little to say anything of the rest.
    """

    at: int
    label: str
    proposals: tuple[Proposal, ...]
    scaled: Scaled | None
    asked: tuple[str, ...]
    short: str = ""


TOO_SHORT = 0.5  # of a block; a try that was ended sooner in it foretells nothing


def of_blocks(opened: Desk, live: Live) -> tuple[OfBlock, ...]:
    """What a try says of each block that is still as it was tried; of one that was changed since it says nothing."""
    if opened.typed.problems:
        return ()
    found = []
    for tried_at, block in enumerate(live.plan.session.blocks):
        at = next(
            (nth for nth, one in enumerate(opened.typed.session.blocks) if one == block), None
        )
        if at is not None and block.works:
            found.append(_of(opened, live, tried_at, at))
    return tuple(one for one in found if one.proposals or one.scaled or one.asked or one.short)


def tried_little(live: Live, at: int) -> str:
    """How much of a block was tried, where the coach ended it before its middle; empty where it says something."""
    state, laid = live.state, live.plan.timeline.blocks[at]
    laps = [one for one in state.laps if live.plan.timeline.intervals[one.interval].block == at]
    last = live.plan.timeline.intervals[state.laps[-1].interval].block if state.laps else None
    took = sum(one.to_ms - one.from_ms for one in laps) / 1000
    if not state.ended_early or last != at or took >= TOO_SHORT * laid.seconds:
        return ""
    return f"tried for {clock(round(took))} of {clock(laid.seconds)}: too little to say anything of the rest"


def _of(opened: Desk, live: Live, tried_at: int, at: int) -> OfBlock:
    short = tried_little(live, tried_at)
    told = told_of(live, tried_at, taps=not short)
    short = "" if told.score else short  # a score that was written is the coach's own word
    paces, plan = opened.house.paces, opened.typed
    tester = next((paces[one.id] for one in live.comers if one.id in paces), None)
    group = [paces.get(one.id, Quickness()) for one in opened.who]
    slower = slower_than(tester, group, plan.library.pace)
    return OfBlock(
        at,
        plan.timeline.blocks[at].label,
        proposals(plan, at, told, slower),
        scaled(plan, at, told.score, tester),
        not_understood(told),
        short,
    )


def told_of(live: Live, at: int, *, taps: bool = True) -> Told:
    """What came of one block of a try; an effort is of the hardest block. Without taps where it was hardly begun."""
    state, blocks = live.state, live.plan.session.blocks
    efforts = [block.top_effort or 0.0 if block.works else -1.0 for block in blocks]
    felt = list(state.felt.values()) if efforts[at] == max(efforts) else []
    scores = [one.text for one in state.scores if one.block == at]
    scores += [_as_score(one.said) for one in state.taps if one.block == at and taps]
    return Told(
        broke=tuple(str(one["text"]) for one in live.going.broke if one["block"] == at),
        score=scores[0] if scores else "",
        felt=sum(felt) / len(felt) if felt and taps else None,
    )


def _as_score(tapped: str) -> str:
    """What was tapped as a score: rounds, or a time."""
    rounds = tapped.removesuffix("s").removesuffix(" round")
    return f"{rounds} + 0" if rounds.isdecimal() else tapped
