"""Rules about what reps reach: turns that fill, rounds that don't end, caps, and the wait for the last."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, WayTo
from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.worktime import line_s, round_s
from lovrit.core.clock import clock
from lovrit.core.recast.portion import portioned
from lovrit.core.recast.shapes import Given, together
from lovrit.core.session.edits import AddOption, ReplaceBlock, ReplaceLine
from lovrit.core.session.writer import block_lines
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import amount, move_line
from lovrit.core.timeline.interval import LaidBlock

SPREAD_S = 360
FULL_TURN = 0.75
TRIAL_S = 20 * 60  # a way that the slowest have behind them by then wants no cap; ours


def no_cap(look: Look) -> Iterator[Note]:
    """The quickest may end a quarter of an hour before the last; a trial over one short way ends by itself."""
    for at, block, laid in look.of(ForTime):
        if block.cap_s is not None or (block.over and laid.high_s <= TRIAL_S):
            continue
        cap = clock(-(-laid.high_s // 60) * 60)
        told = block.outlook(look.library)
        apart = told.times_s[0] - told.times_s[2] if told and told.times_s else 0
        far = block.over and apart > SPREAD_S
        capped = Fix(f"cap {cap}", AddOption(block=at, text=f"cap {cap}"))
        waits = f" The first are home some {clock(apart)} before them: two starts, or a cap that not all reach."
        yield look.note(
            code="no-cap",
            level="weigh",
            text=f"For time without a cap: the last may still be at it when the slot ends.{waits if far else ''}",
            at=at,
            fixes=(WayTo("fit", "how long may it be?") if far else capped,),
        )


def finishers_spread(look: Look) -> Iterator[Note]:
    """For time, where the first wait long for the last."""
    for at, block, laid in look.of(ForTime):
        told = block.outlook(look.library)
        if not told or not told.times_s or block.cap_s is None:
            continue
        slow, likely, quick = told.times_s
        wait = slow - quick
        if wait <= SPREAD_S:
            continue
        cap = -(-max(likely, quick + 240) // 60) * 60
        fixes = (
            look.set(at, "cap", cap, f"cap {clock(cap)}")
            if cap < block.cap_s and cap - quick <= SPREAD_S
            else ()
        )
        yield look.note(
            code="finishers-spread",
            level="weigh",
            text=f"The quickest end about {clock(quick)}, the last {clock(slow)}: {clock(wait)} of standing about.",
            reason="As many as possible in the same time ends everybody together; so does a lower cap.",
            at=at,
            fixes=(*fixes, *_together(at, block, laid, look)),
        )


def _together(at: int, block: ForTime, laid: LaidBlock, look: Look) -> tuple[Fix, ...]:
    """The same moves in the likely time, so that everybody ends together; a single distance can't be made so."""
    if block.over:
        return ()
    made = together(Given(block.but(cap_s=None), laid, look.library))
    if (made.rounds(look.library, "high") or 0) < 1:
        return ()
    edit = ReplaceBlock(block=at, text="\n".join(block_lines(made)))
    return (Fix(text="as many as possible instead", edit=edit),)


def full_turn(look: Look) -> Iterator[Note]:
    """An every-minute turn is about half full; one that leaves hardly any rest isn't that any more."""
    for at, block, _ in look.of(Every):
        for nth, line in enumerate(block.moves):
            needed = line_s(line, look.library)
            if needed is None or needed <= block.period_s * FULL_TURN:
                continue
            over = needed >= block.period_s
            fewer = portioned(line, block.period_s / 2, look.library)
            yield look.note(
                code="turn-too-full",
                level="stop" if over else "weigh",
                text=f"{line.name}: about {needed} s of work in a turn of {clock(block.period_s)}.",
                reason="At the end one could still do two more rounds; that takes about half of each turn.",
                at=at,
                nth=nth,
                fixes=(*_longer_turn(look, at, block, needed), *_fewer(look, at, nth, line, fewer)),
            )


def _longer_turn(look: Look, at: int, block: Every, needed: int) -> tuple[Fix, ...]:
    """A turn that this work fills a little over half, in the same time in all."""
    longer = _dividing(block, -(-round(needed / 0.6) // 5) * 5)
    if longer > block.total_s:
        return ()
    return look.set(at, "period", longer, f"every {clock(longer)}, {block.total_s // longer} turns")


def _dividing(block: Every, least: int) -> int:
    """A turn of this length or a little more, so that the block is whole turns; this length where none is near."""
    whole = (length for length in range(least, least * 3 // 2, 5) if block.total_s % length == 0)
    return next(whole, least)


def _fewer(look: Look, at: int, nth: int, line: Line, fewer: Line) -> tuple[Fix, ...]:
    """The line with as much of it as fills half a turn; none where one rep is too long already."""
    if (line_s(fewer, look.library) or 0) >= (line_s(line, look.library) or 0):
        return ()
    asked = fewer.tasks[0].amount
    said = (
        f"{amount(asked)} {line.tasks[0].name}"
        if asked and len(line.tasks) == 1
        else "half as much"
    )
    return (Fix(said, ReplaceLine(line=look.line(at, nth), text=f"  {move_line(fewer)}")),)


def round_never_finished(look: Look) -> Iterator[Note]:
    """As many rounds as possible where a slow person doesn't finish one."""
    for at, block, laid in look.of(Amrap):
        if not laid.forecast or not laid.forecast.rounds or laid.forecast.rounds[0] >= 1:
            continue
        once = round_s(block.moves, look.library, "high") or block.total_s
        longer = -(-round(once * 1.2) // 60) * 60
        yield look.note(
            code="round-never-finished",
            level="weigh",
            text=f"Slow people take about {clock(once)} a round and don't finish one in {clock(block.total_s)}.",
            reason="Everybody ends a session feeling able.",
            at=at,
            fixes=look.set(at, "total", longer, f"in {clock(longer)}", longer - block.total_s),
        )


def slow_do_not_make_it(look: Look) -> Iterator[Note]:
    """Turns that fit a usual person and, from some turn on, no longer a slow one."""
    for at, block, _ in look.of(Every):
        told = block.outlook(look.library)
        for turn in told.turns if told else ():
            full = block.period_s - turn.left_s[1] > block.period_s * FULL_TURN
            if turn.late_from is None or full:
                continue
            longer = _dividing(block, block.period_s + 15)
            yield look.note(
                code="slow-do-not-make-it",
                level="tell",
                text=f"{block.moves[turn.move].name}: slow people don't make it from turn {turn.late_from} on.",
                reason="One in ten is that slow; write them an easier way, or give the turn more time.",
                at=at,
                nth=turn.move,
                fixes=look.set(at, "period", longer, f"every {clock(longer)}"),
            )


def cap_cuts_rounds(look: Look) -> Iterator[Note]:
    """Rounds for quality that the cap ends before the last."""
    for at, block, _ in look.of(Quality):
        once = round_s(block.moves, look.library)
        if once is None or block.cap_s is None:
            continue
        fits = (block.cap_s + block.rest_s) // (once + block.rest_s)
        if fits < block.rounds.high:
            whole = block.rounds.high * (once + block.rest_s)
            longer = -(-whole // 30) * 30
            yield look.note(
                code="cap-cuts-rounds",
                level="weigh",
                text=f"About {clock(once)} a round: the cap ends it in round {fits + 1} of {block.rounds.high}.",
                reason="Unhurried rounds that run out of time are hurried.",
                at=at,
                fixes=look.set(at, "cap", longer, f"cap {clock(longer)}", longer - block.cap_s),
            )


def most_meet_the_cap(look: Look) -> Iterator[Note]:
    """For time with a cap that a usual person meets."""
    for at, block, _ in look.of(ForTime):
        needed = block.but(cap_s=None).taken_s(look.library)
        if block.cap_s is None or not (block.moves or block.over) or needed <= block.cap_s:
            continue
        longer = -(-round(needed * 1.1) // 60) * 60
        yield look.note(
            code="most-meet-the-cap",
            level="weigh",
            text=f"A usual person takes about {clock(needed)}: the cap at {clock(block.cap_s)} ends it for most.",
            reason="A cap is there for the last few, so that everybody ends together.",
            at=at,
            fixes=look.set(at, "cap", longer, f"cap {clock(longer)}", longer - block.cap_s),
        )
