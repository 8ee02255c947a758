"""Rules about dose: how hard, for how long, with how much rest."""

from collections.abc import Iterator

from lovrit.core.advice.note import HARD, VERY_HARD, Fix, Look, Note, block_effort, effort, hard_s, hardest
from lovrit.core.clock import clock
from lovrit.core.forecast.outlook import outlook
from lovrit.core.recast.prepare import cool_down, warm_up
from lovrit.core.recast.shapes import Given, together
from lovrit.core.session.edits import AddOption, BlockEdit, InsertBlock, ReplaceBlock, SetFigure
from lovrit.core.session.model import AnyBlock, ForTime, Intervals, Rotate, Sets
from lovrit.core.session.move import Line
from lovrit.core.session.writer import block_lines
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.timeline.steps import effort_in

HELD_S = 15
WARM_S = 300


def no_warm_up(look: Look) -> Iterator[Note]:
    """Hard work wants five easy minutes before it, unless people come warm by this club's custom."""
    if look.company.schools.warm_up == "own":
        return
    easy = 0
    for at, block, laid in look.blocks():
        asked = block_effort(block)
        if block.kind == "steady" and (asked is None or asked <= 5):
            easy += laid.seconds
            continue
        if laid.work_s and (asked is None or asked >= 7) and easy < WARM_S:
            yield _cold(look, at, easy)
            return
        if block.kind in ("every", "quality", "tempo"):
            easy += laid.seconds


def _cold(look: Look, at: int, easy: int) -> Note:
    steady = next((nth for nth, block, _ in look.blocks("steady") if nth < at and look.has(nth, "total")), None)
    if steady is None:
        fix = Fix(text="warm-up 6:00", edit=InsertBlock(at=0, text="warm-up 6:00 at 3"))
        text = "No warm-up before the first hard block."
    else:
        fix = Fix(text="warm-up 6:00", edit=SetFigure(block=steady, figure="total", value=360))
        text = f"Only {clock(easy)} of easy work before the first hard block."
    return look.note(
        code="no-warm-up" if steady is None else "short-warm-up",
        level="weigh",
        text=text,
        reason="Cold muscle and a cold heart are where hard intervals go wrong.",
        at=at,
        fixes=(*_own_warm_up(look, steady), fix),
    )


def _own_warm_up(look: Look, steady: int | None) -> tuple[Fix, ...]:
    """A warm-up from the session's own moves, where there is time for one that is long enough."""
    text = warm_up(look.plan, look.library) if steady is None else None
    if not text or "for quality" not in text:
        return ()
    return (Fix(text="from its own moves", edit=InsertBlock(at=0, text=text)),)


def no_cool_down(look: Look) -> Iterator[Note]:
    """A hard session that ends on its hardest minute."""
    blocks = look.blocks()
    if not blocks:
        return
    at, block, laid = blocks[-1]
    hard = (block_effort(block) or 0) >= HARD
    if hard and laid.work_s >= 60:
        end = len(look.session.blocks)
        yield look.note(
            code="no-cool-down",
            level="tell",
            text="It ends on hard work; a few easy minutes let the heart come down on the floor.",
            at=at,
            fixes=(Fix(text="add a cool-down", edit=InsertBlock(at=end, text=_own_cool_down(look))),),
        )


def _own_cool_down(look: Look) -> str:
    return cool_down(look.plan, look.library) or "cool-down 3:00 at 2"


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
        yield look.note(
            code="all-out-too-long",
            level="weigh",
            text=f"Effort 10 for {max(works)} s: nobody holds all-out past about 15 s.",
            reason="What is written as 10 is run as 9 with a hard start.",
            at=at,
            fixes=tuple(fixes),
        )


def rest_too_short(look: Look) -> Iterator[Note]:
    """Hard work without the rest that lets the next one be as hard."""
    seen: set[int] = set()
    for at, block, work, rest in _pairs(look):
        asked = effort(block)
        needed = _rest_for(asked, work)
        fades = look.company.schools.short_rest == "fades" and _short_rest_set(block, work, rest)
        if at in seen or not needed or rest >= needed or fades:
            continue
        seen.add(at)
        yield look.note(
            code="rest-too-short",
            level="weigh",
            text=f"{work} s at effort {asked:g} with {rest} s of rest: the next one can't be as hard.",
            reason="All-out wants four times the work and more; effort 9 about as much rest as work.",
            at=at,
            fixes=(Fix(text=f"rest {clock(needed)}", edit=SetFigure(block=at, figure="rest", value=needed)),)
            if look.has(at, "rest")
            else (),
        )


def _rest_for(asked: float, work: int) -> int:
    if asked >= 10:
        return work * 4
    if asked >= VERY_HARD:
        return work
    return round(work / 4 / 5) * 5 if asked >= HARD and work >= 60 else 0


def _short_rest_set(block: AnyBlock, work: int, rest: int) -> bool:
    """Twenty on and ten off, set after set."""
    return block.kind == "sets" and work <= 20 and work / 2 <= rest < work


def no_cap(look: Look) -> Iterator[Note]:
    """The quickest may end a quarter of an hour before the last."""
    for at, block, laid in look.blocks("for-time"):
        assert isinstance(block, ForTime)
        if block.cap_s is None:
            cap = -(-laid.high_s // 60) * 60
            yield look.note(
                code="no-cap",
                level="weigh",
                text="For time without a cap: the last may still be at it when the slot ends.",
                at=at,
                fixes=(Fix(text=f"cap {clock(cap)}", edit=AddOption(block=at, text=f"cap {clock(cap)}")),),
            )


def much_hard_work(look: Look) -> Iterator[Note]:
    """Over twenty minutes at eight and more is a lot for a mixed group."""
    hard = hard_s(look)
    if hard > 20 * 60:
        yield look.note(
            code="much-hard-work",
            level="weigh",
            text=f"{clock(hard)} of work at effort 8 and more, a lot for a mixed group.",
            reason="People who can't do that much hard work do it at less and feel that they failed.",
            fixes=look.ease(hardest(look), 7),
        )


def first_interval_cold(look: Look) -> Iterator[Note]:
    """Long hard intervals that begin without a stretch of the rest's effort."""
    for at, block, laid in look.blocks("intervals"):
        steered = block.heart is not None and laid.work_s and not block.lead_in_s
        if steered and (at == 0 or look.session.blocks[at - 1].kind == "rest"):
            yield look.note(
                code="no-lead-in",
                level="tell",
                text="The first interval will stay under its heart target; a lead-in takes the edge off.",
                at=at,
                fixes=(Fix(text="lead-in 1:00", edit=AddOption(block=at, text="lead-in 1:00")),),
            )


def effort_by_round_unused(look: Look) -> Iterator[Note]:
    """More efforts written than there are rounds."""
    for at, block, _ in look.blocks("rotate", "quality", "sets"):
        rounds = getattr(block, "rounds", None) or getattr(block, "sets", None)
        if rounds and len(block.efforts) > rounds.high and effort_in(block, 1) is not None:
            text = f"{len(block.efforts)} efforts for {rounds.high} rounds: the last ones are never used."
            name = "sets" if block.kind == "sets" else "rounds"
            fixes = look.set(at, name, len(block.efforts), f"{len(block.efforts)} {name}")
            yield look.note(code="efforts-unused", level="tell", text=text, at=at, fixes=fixes)


def all_out_too_often(look: Look) -> Iterator[Note]:
    """All-out sprints past the eighth are no sprints."""
    for at, block, laid in look.blocks("intervals"):
        assert isinstance(block, Intervals)
        times = block.count.high * max(1, len(block.pattern))
        if effort(block) >= 10 and laid.work_s and times > 8 and len(block.pattern) == 1:
            yield look.note(
                code="all-out-too-often",
                level="weigh",
                text=f"{times} times all-out: after the eighth nobody has another one in them.",
                reason="Five to eight is usual; speed that fades trains something else.",
                at=at,
                fixes=look.set(at, "count", 8, "8 times"),
            )


def effort_will_fade(look: Look) -> Iterator[Note]:
    """Short-rest sets called very hard: one school calls them all-out, this one expects them to fade."""
    if look.company.schools.short_rest != "fades":
        return
    for at, block, work, rest in _pairs(look):
        if _short_rest_set(block, work, rest) and effort(block) >= VERY_HARD:
            yield look.note(
                code="effort-will-fade",
                level="tell",
                text=f"{work}/{rest} at {effort(block):g}: hard, but it fades from the third or fourth set.",
                reason=f"{rest} s are no recovery. Another school calls this all-out and asks for it each time.",
                school="short rests fade",
                at=at,
                fixes=look.ease(at, 8),
            )


def short_sets_on_end(look: Look) -> Iterator[Note]:
    """Several stations of short-rest sets without half a minute between them."""
    for at, block, work, rest in _pairs(look):
        if not isinstance(block, Sets) or not _short_rest_set(block, work, rest) or len(block.moves) < 2:
            continue
        if (block.change_s or rest) >= 30:
            continue
        fix = (
            look.set(at, "change", 60, "change 1:00")
            if block.change_s is not None
            else (Fix(text="change 1:00", edit=AddOption(block=at, text="change 1:00")),)
        )
        yield look.note(
            code="short-sets-on-end",
            level="weigh",
            text=f"{len(block.moves)} times {block.sets.high} x {work}/{rest} with hardly a pause between.",
            reason="Several short-rest sets need half a minute to a minute between them.",
            at=at,
            fixes=fix,
        )


LONGEST_S = ((9.5, 45), (9.0, 180), (8.5, 360), (8.0, 720))


def pace_will_not_hold(look: Look) -> Iterator[Note]:
    """An effort asked for longer at a stretch than it can be held."""
    for at, block, laid in look.working():
        asked = effort(block)
        longest = next((limit for least, limit in LONGEST_S if asked >= least), None)
        if longest is None or asked >= 10 or block.kind in ("strength", "build"):
            continue
        stretch = max((i.seconds for i in look.timeline.intervals if i.block == at and i.phase == "work"), default=0)
        if stretch <= longest:
            continue
        lower = next((least - 0.5 for least, limit in reversed(LONGEST_S) if limit < stretch), 7.0)
        yield look.note(
            code="pace-will-not-hold",
            level="weigh",
            text=f"{clock(stretch)} on end at {asked:g}: that holds for about {clock(longest)}.",
            reason="A pace a little too high is paid for from the third on.",
            basis="time to exhaustion falls steeply with intensity (Monod and Scherrer 1965); limits by practice",
            at=at,
            fixes=look.ease(at, min(lower, 7.5) if laid.work_s else lower),
        )


def finishers_spread(look: Look) -> Iterator[Note]:
    """For time, where the first wait long for the last."""
    for at, block, laid in look.blocks("for-time"):
        assert isinstance(block, ForTime)
        told = outlook(block, look.library)
        if not told or not told.times_s or block.cap_s is None:
            continue
        slow, likely, quick = told.times_s
        wait = slow - quick
        if wait <= SPREAD_S:
            continue
        cap = -(-max(likely, quick + 240) // 60) * 60
        fixes = look.set(at, "cap", cap, f"cap {clock(cap)}") if cap < block.cap_s and cap - quick <= SPREAD_S else ()
        yield look.note(
            code="finishers-spread",
            level="weigh",
            text=f"The quickest end about {clock(quick)}, the last {clock(slow)}: {clock(wait)} of standing about.",
            reason="As many as possible in the same time ends everybody together; so does a lower cap.",
            at=at,
            fixes=(*fixes, *_together(at, block, laid, look)),
        )


SPREAD_S = 360


def _together(at: int, block: ForTime, laid: LaidBlock, look: Look) -> tuple[Fix, ...]:
    """The same moves in the likely time, so that everybody ends together; a single distance can't be made so."""
    if block.over:
        return ()
    made = together(Given(block.model_copy(update={"cap_s": None}), laid, look.library))
    edit = ReplaceBlock(block=at, text="\n".join(block_lines(made)))
    return (Fix(text="as many as possible instead", edit=edit),)


def heart_steers_badly(look: Look) -> Iterator[Note]:
    """A heart target alone on work that is over before the heart gets there."""
    if look.company.schools.steer == "heart":
        return
    for at, block, work, _ in _pairs(look):
        if block.heart is None or block.efforts or work >= 60:
            continue
        yield look.note(
            code="heart-steers-badly",
            level="tell",
            text=f"{work} s of work by heart rate: it peaks after the work is over.",
            reason="Below a minute effort leads and the heart is a check.",
            school="effort leads in short work",
            basis="heart rate lags work by half a minute and more (Bunc, Heller and Leso 1988)",
            at=at,
            fixes=(Fix(text="at 8 as well", edit=AddOption(block=at, text="at 8")),),
        )


def hard_not_last(look: Look) -> Iterator[Note]:
    """Very hard intervals before other work, where this club puts them last."""
    if look.company.schools.hard != "last":
        return
    working = look.working()
    hard = [one for one in working if one[1].kind in ("intervals", "sets") and effort(one[1]) >= VERY_HARD]
    if not hard:
        return
    at, last = hard[0][0], working[-1][0]
    after = [one for one in working if one[0] > at and effort(one[1]) < VERY_HARD]
    if not after:
        return
    yield look.note(
        code="hard-not-last",
        level="tell",
        text=f"The hardest block comes before {after[0][2].label}.",
        reason="Skill and strength before hard intervals, hard intervals last. Others put them anywhere.",
        school="hard intervals last",
        at=at,
        fixes=(Fix(text="hardest block last", edit=BlockEdit(what="move", block=at, to=last)),),
    )


def skill_after_hard(look: Look) -> Iterator[Note]:
    """Heavy or skilled work after people have been made tired."""
    tired = False
    for at, block, _ in look.working():
        skilled = next((nth for nth, line in enumerate(block.moves) if _skilled(look, line)), None)
        heavy = block.kind in ("build", "strength")
        if tired and (skilled is not None or heavy):
            name = block.moves[skilled].name if skilled is not None else "heavy work"
            hard = next(one for one, other, _ in look.working() if effort(other) >= VERY_HARD or other.kind in RACES)
            yield look.note(
                code="skill-after-hard",
                level="weigh",
                text=f"{name[0].upper()}{name[1:]} after hard intervals: form goes first when people are tired.",
                reason="Form before load, and skill while fresh.",
                at=at,
                nth=skilled,
                fixes=(Fix(text="this block first", edit=BlockEdit(what="move", block=at, to=hard)),),
            )
            return
        tired = tired or effort(block) >= VERY_HARD or block.kind in RACES


RACES = ("for-time", "amrap")


def _skilled(look: Look, line: Line) -> bool:
    move = look.move(line)
    return bool(move and move.skill)
