"""Rules about dose: how hard, for how long, with how much rest."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.clock import clock
from lovrit.core.session.edits import AddOption, InsertBlock, SetFigure
from lovrit.core.session.model import AnyBlock, ForTime, Intervals, Rotate, Sets
from lovrit.core.timeline.steps import effort_in

HARD = 8.0
VERY_HARD = 9.0
HELD_S = 15
WARM_S = 300


def block_effort(block: AnyBlock) -> float | None:
    """The highest effort that a block asks for."""
    return max((effort.high for effort in block.efforts), default=None)


def no_warm_up(look: Look) -> Iterator[Note]:
    """Hard work wants five easy minutes before it."""
    easy = 0
    for at, block, laid in look.blocks():
        effort = block_effort(block)
        if block.kind == "steady" and (effort is None or effort <= 5):
            easy += laid.seconds
            continue
        if laid.work_s and (effort is None or effort >= 7) and easy < WARM_S:
            yield _cold(look, at, easy)
            return
        if block.kind in ("every", "quality", "tempo"):
            easy += laid.seconds


def _cold(look: Look, at: int, easy: int) -> Note:
    steady = next((nth for nth, block, _ in look.blocks("steady") if nth < at and look.has(nth, "total")), None)
    if steady is None:
        fix = Fix(text="put a warm-up first", edit=InsertBlock(at=0, text="warm-up 6:00 at 3"))
        text = "No warm-up before the first hard block."
    else:
        fix = Fix(text="warm-up 6:00", edit=SetFigure(block=steady, figure="total", value=360))
        text = f"Only {clock(easy)} of easy work before the first hard block."
    return Note(
        code="no-warm-up",
        level="weigh",
        text=text,
        reason="Cold muscle and a cold heart are where hard intervals go wrong.",
        block=at,
        line=look.line(at),
        fixes=(fix,),
    )


def no_cool_down(look: Look) -> Iterator[Note]:
    """A hard session that ends on its hardest minute."""
    blocks = look.blocks()
    if not blocks:
        return
    at, block, laid = blocks[-1]
    hard = (block_effort(block) or 0) >= HARD
    if hard and laid.work_s >= 60:
        end = len(look.session.blocks)
        yield Note(
            code="no-cool-down",
            level="tell",
            text="It ends on hard work; a few easy minutes let the heart come down on the floor.",
            block=at,
            line=look.line(at),
            fixes=(Fix(text="add a cool-down", edit=InsertBlock(at=end, text="cool-down 3:00 at 2")),),
        )


def _pairs(look: Look) -> Iterator[tuple[int, AnyBlock, int, int]]:
    """Blocks of plain works and rests, with the longest work and the rest after it."""
    for at, block, _ in look.blocks("rotate", "sets", "intervals"):
        assert isinstance(block, Rotate | Sets | Intervals)
        pairs = block.pattern if isinstance(block, Intervals) else (block.pair,)
        for pair in pairs:
            if pair.work.seconds is not None and pair.rest.seconds is not None:
                yield at, block, pair.work.seconds, pair.rest.seconds


def all_out_too_long(look: Look) -> Iterator[Note]:
    """Nobody holds all there is past about fifteen seconds."""
    for at, block, laid in look.blocks():
        if (block_effort(block) or 0) < 10 or not laid.work_s:
            continue
        works = [one.seconds for one in look.timeline.intervals if one.block == at and one.phase == "work"]
        if max(works) <= HELD_S:
            continue
        fixes = []
        if look.has(at, "effort"):
            edit = SetFigure(block=at, figure="effort", value=9)
            fixes.append(Fix(text="at 9", edit=edit))
        if look.has(at, "work"):
            edit = SetFigure(block=at, figure="work", value=12)
            fixes.append(Fix(text="12 s of work", edit=edit))
        yield Note(
            code="all-out-too-long",
            level="weigh",
            text=f"Effort 10 for {max(works)} s: nobody holds all-out past about 15 s.",
            reason="What is written as 10 is run as 9 with a hard start.",
            block=at,
            line=look.line(at),
            fixes=tuple(fixes),
        )


def rest_too_short(look: Look) -> Iterator[Note]:
    """Hard work without the rest that lets the next one be as hard."""
    seen: set[int] = set()
    for at, block, work, rest in _pairs(look):
        effort = block_effort(block) or 0
        needed = _rest_for(effort, work)
        if at in seen or not needed or rest >= needed or _short_rest_set(block, work, rest):
            continue
        seen.add(at)
        yield Note(
            code="rest-too-short",
            level="weigh",
            text=f"{work} s at effort {effort:g} with {rest} s of rest: the next one can't be as hard.",
            reason="All-out wants four times the work and more; effort 9 about as much rest as work.",
            block=at,
            line=look.line(at),
            fixes=(Fix(text=f"rest {clock(needed)}", edit=SetFigure(block=at, figure="rest", value=needed)),)
            if look.has(at, "rest")
            else (),
        )


def _rest_for(effort: float, work: int) -> int:
    if effort >= 10:
        return work * 4
    if effort >= VERY_HARD:
        return work
    return round(work / 4 / 5) * 5 if effort >= HARD and work >= 60 else 0


def _short_rest_set(block: AnyBlock, work: int, rest: int) -> bool:
    """Twenty on and ten off is written with its fade in mind, where its sets are few."""
    return block.kind in ("sets", "intervals") and work <= 20 and rest >= work / 2 and block.kind == "sets"


def no_cap(look: Look) -> Iterator[Note]:
    """The quickest may end a quarter of an hour before the last."""
    for at, block, laid in look.blocks("for-time"):
        assert isinstance(block, ForTime)
        if block.cap_s is None:
            cap = -(-laid.high_s // 60) * 60
            yield Note(
                code="no-cap",
                level="weigh",
                text="For time without a cap: the last may still be at it when the slot ends.",
                block=at,
                line=look.line(at),
                fixes=(Fix(text=f"cap {clock(cap)}", edit=AddOption(block=at, text=f"cap {clock(cap)}")),),
            )


def much_hard_work(look: Look) -> Iterator[Note]:
    """Over twenty minutes at eight and more is a lot for a mixed group."""
    hard = sum(one.seconds for one in look.timeline.intervals if one.phase == "work" and (one.effort or 0) >= HARD)
    if hard > 20 * 60:
        yield Note(
            code="much-hard-work",
            level="weigh",
            text=f"{clock(hard)} of work at effort 8 and more, a lot for a mixed group.",
            reason="People who can't do that much hard work do it at less and feel that they failed.",
        )


def first_interval_cold(look: Look) -> Iterator[Note]:
    """Long hard intervals that begin without a stretch of the rest's effort."""
    for at, block, laid in look.blocks("intervals"):
        steered = block.heart is not None and laid.work_s and not block.lead_in_s
        if steered and (at == 0 or look.session.blocks[at - 1].kind == "rest"):
            yield Note(
                code="no-lead-in",
                level="tell",
                text="The first interval will stay under its heart target; a lead-in takes the edge off.",
                block=at,
                line=look.line(at),
                fixes=(Fix(text="lead-in 1:00", edit=AddOption(block=at, text="lead-in 1:00")),),
            )


def effort_by_round_unused(look: Look) -> Iterator[Note]:
    """More efforts written than there are rounds."""
    for at, block, _ in look.blocks("rotate", "quality", "sets"):
        rounds = getattr(block, "rounds", None) or getattr(block, "sets", None)
        if rounds and len(block.efforts) > rounds.high and effort_in(block, 1) is not None:
            text = f"{len(block.efforts)} efforts for {rounds.high} rounds: the last ones are never used."
            yield Note(code="efforts-unused", level="tell", text=text, block=at, line=look.line(at))
