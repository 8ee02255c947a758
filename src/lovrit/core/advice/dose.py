"""Rules about dose: how hard, for how long, with how much rest."""

from collections.abc import Iterator

from lovrit.core.advice.note import VERY_HARD, Fix, Look, Note, calmer, effort
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.sets import Sets
from lovrit.core.clock import clock
from lovrit.core.session.edits import AddOption
from lovrit.core.timeline.sums import HARD

ALL_OUT = 10
SHORT_SET_S = 300  # so long at most short rests are meant to wear people down
HELD_S, MUCH_HARD_S, REPEATED_S = 15, 20 * 60, 8 * 60
NEAR_ALL_OUT = 9.5
LONGEST_S = ((NEAR_ALL_OUT, 60), (9.0, 270), (8.5, 720), (8.0, 1800))
RACE_S = 480  # what is done once is held as a race is, at 9 too: a trial of eight minutes


def _pairs(look: Look) -> Iterator[tuple[int, Block, int, int]]:
    """Blocks of works and rests by the clock, and of repeats by amount as long as they are likely to take."""
    for at, block, laid in look.blocks():
        for timed in (pair.timed for pair in block.pairs):
            if timed:
                yield at, block, *timed
        if block.amount and block.repeats and block.own_rest_s is not None:
            yield at, block, laid.work_s // block.repeats.times.high, block.own_rest_s


# intervals of minutes at nine are held by breath: 4:00 with 3:00 (Helgerud and others 2007); the share is ours
LONG_WORK_S, LONG_REST = 120, 0.6
LONG_SPRINT_S, SPRINT_RESTS, FEW_SPRINTS = 35, 7, 8


def all_out_too_long(look: Look) -> Iterator[Note]:
    """Nobody holds all there is past about fifteen seconds."""
    for at, block, laid in look.blocks():
        if effort(block) < 10 or not laid.work_s:
            continue
        works = [
            one.seconds
            for one in look.timeline.intervals
            if one.block == at and one.phase == "work"
        ]
        if max(works) <= HELD_S or _long_rests(look, at, max(works)):
            continue
        yield look.note(
            code="all-out-too-long",
            level="weigh",
            text=f"Effort 10 for {max(works)} s: nobody holds all-out past about 15 s.",
            reason="What is written as 10 is run as 9 with a hard start.",
            at=at,
            fixes=(*look.ease(at, 9), *look.set(at, "work", 12, "12 s of work")),
        )


def _long_rests(look: Look, at: int, work_s: int) -> bool:
    """Half a minute all out with four minutes of rest, a few times: a form of its own (Burgomaster and others 2005)."""
    rests = [
        one.seconds for one in look.timeline.intervals if one.block == at and one.phase == "rest"
    ]
    return (
        work_s <= LONG_SPRINT_S
        and bool(rests)
        and min(rests) >= SPRINT_RESTS * work_s
        and len(rests) < FEW_SPRINTS
    )


def rest_too_short(look: Look) -> Iterator[Note]:
    """Hard work without the rest that lets the next one be as hard."""
    seen: set[int] = set()
    for at, block, work, rest in _pairs(look):
        asked = effort(block)
        needed = _rest_for(asked, work)
        short = asked < ALL_OUT and _fades(work, rest)
        short = short and look.timeline.blocks[at].seconds <= SHORT_SET_S
        fades = look.company.schools.short_rest == "fades"
        fades = fades and (short or _short_rest_set(block, work, rest))
        if at in seen or not needed or rest >= needed or fades:
            continue
        seen.add(at)
        more = (needed - rest) * sum(
            one.block == at and one.phase == "work" for one in look.timeline.intervals
        )
        yield look.note(
            code="rest-too-short",
            level="weigh",
            text=f"{work} s at effort {asked:g} with {rest} s of rest: the next one can't be as hard.",
            reason="All-out wants four times the work and more; effort 9 as much rest as work, of minutes over half.",
            at=at,
            fixes=(*look.set(at, "rest", needed, f"rest {clock(needed)}", more), *look.ease(at, 7)),
        )


def _rest_for(asked: float, work: int) -> int:
    if asked >= 10:
        return work * 4
    if asked >= VERY_HARD:
        return work if work < LONG_WORK_S else round(work * LONG_REST / 5) * 5
    return round(work / 4 / 5) * 5 if asked >= HARD and work >= 60 else 0


def _short_rest_set(block: Block, work: int, rest: int) -> bool:
    """Twenty on and ten off, set after set."""
    return isinstance(block, Sets) and _fades(work, rest)


def _fades(work: int, rest: int) -> bool:
    """Works so short, and rests so much shorter, that nobody expects the last to be like the first."""
    return work <= 20 and work / 2 <= rest < work


def much_hard_work(look: Look) -> Iterator[Note]:
    """Over twenty minutes at eight and more is a lot for a mixed group."""
    hard = look.plan.sums.hard_s
    if hard > MUCH_HARD_S:
        yield look.note(
            code="much-hard-work",
            level="weigh",
            text=f"{clock(hard)} of work at effort 8 and more, a lot for a mixed group.",
            reason="People who can't do that much hard work do it at less and feel that they failed.",
            fixes=calmer(look, MUCH_HARD_S),
        )


def effort_by_round_unused(look: Look) -> Iterator[Note]:
    """More efforts written than there are rounds."""
    for at, block, laid in look.blocks():
        if (
            block.repeats
            and len(block.efforts) > block.repeats.times.high
            and block.effort_in(1) is not None
        ):
            name, rounds = block.repeats
            text = f"{len(block.efforts)} efforts for {rounds.high} rounds: the last ones are never used."
            more = (len(block.efforts) - rounds.high) * -(-laid.seconds // rounds.high)
            fixes = look.set(at, name, len(block.efforts), f"{len(block.efforts)} {name}", more)
            yield look.note(code="efforts-unused", level="tell", text=text, at=at, fixes=fixes)


def all_out_too_often(look: Look) -> Iterator[Note]:
    """All-out sprints past the eighth are no sprints."""
    for at, block, laid in look.of(Intervals):
        times = block.count.high * max(1, len(block.pattern))
        if effort(block) >= 10 and laid.work_s and times > 8 and len(block.pattern) == 1:
            yield look.note(
                code="all-out-too-often",
                level="weigh",
                text=f"{times} times all-out: after the eighth nobody has another one in them.",
                reason="Five to eight is usual; speed that fades trains something else.",
                at=at,
                fixes=(*look.set(at, "count", 8, "8 times"), *look.ease(at, 9)),
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
        if (
            not isinstance(block, Sets)
            or not _short_rest_set(block, work, rest)
            or len(block.moves) < 2
        ):
            continue
        if (block.change_s or rest) >= 30:
            continue
        more = 60 * (len(block.moves) - 1)
        fix = (
            look.set(at, "change", 60, "change 1:00", more)
            if block.change_s is not None
            else (Fix("change 1:00", AddOption(block=at, text="change 1:00"), more),)
        )
        yield look.note(
            code="short-sets-on-end",
            level="weigh",
            text=f"{len(block.moves)} times {block.sets.high} x {work}/{rest} with hardly a pause between.",
            reason="Several short-rest sets need half a minute to a minute between them.",
            at=at,
            fixes=fix,
        )


def pace_will_not_hold(look: Look) -> Iterator[Note]:
    """An effort asked for longer at a stretch than it can be held."""
    for at, block, laid in look.blocks():
        asked = effort(block)
        longest = next((limit for least, limit in LONGEST_S if asked >= least), None)
        if longest is None or (asked >= ALL_OUT and laid.work_s) or block.lifts:
            continue
        stretches = [
            i.seconds
            for i in look.timeline.intervals
            if i.block == at and i.phase in ("work", "steady")
        ]
        stretch = max(stretches, default=0)
        if asked < NEAR_ALL_OUT and len(stretches) == 1:
            longest = max(longest, RACE_S)
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


def too_hard_to_repeat(look: Look) -> Iterator[Note]:
    """A task a minute asked for at an effort that leaves no two rounds in anybody."""
    for at, block, laid in look.of(Every):
        asked = effort(block)
        if asked < VERY_HARD or laid.seconds < REPEATED_S:
            continue
        yield look.note(
            code="too-hard-to-repeat",
            level="weigh",
            text=f"{clock(laid.seconds)} of turns at {asked:g}: at the end one should still have two rounds left.",
            reason="At 7 or 8 the last turn is like the first; at 9 it is another task.",
            at=at,
            fixes=look.ease(at, 8),
        )


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
