"""Rules about how much is asked of one move in one go."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, effort
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.moves.guess import guess
from lovrit.core.moves.names import key_of
from lovrit.core.session.edits import ReplaceLine, SetAmount
from lovrit.core.slate.line import Amount, Line
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.sums import HARD

ROOM = 0.55
BROKEN_UP = 2.5
HELD = 1.5


def _asked(line: Line, unit: str) -> float:
    amount = line.tasks[0].amount
    if not amount or amount.unit != unit or not amount.values:
        return 0
    return min(amount.values)


def _less(at: int, nth: int, line: Line, value: float, said: str) -> tuple[Fix, ...]:
    return (
        (Fix(text=said, edit=SetAmount(block=at, move=nth, value=value)),)
        if line.tasks[0].amount
        else ()
    )


def set_not_unbroken(look: Look) -> Iterator[Note]:
    """More reps in one go than a usual person can do fresh."""
    for at, nth, line, move in look.lines():
        if not move or move.counted != "reps" or len(line.tasks) > 1 or line.tasks[0].shared:
            continue  # what a team splits is nobody's set
        asked = _asked(line, "reps")
        if asked <= move.fresh or _by_and_by(look.session.blocks[at], asked, move.fresh):
            continue
        fewer = max(1, round(move.fresh * ROOM))
        yield look.note(
            code="set-not-unbroken",
            level="weigh",
            text=f"{asked:g} {move.name}: most people do about {move.fresh} in one go when fresh.",
            reason="A good set can be done unbroken with room to spare: fresh, nearly twice its reps.",
            at=at,
            nth=nth,
            fixes=_less(at, nth, line, fewer, f"{fewer} {move.name}"),
        )


def _by_and_by(block: Block, asked: float, fresh: int) -> bool:
    """A list done once through is meant to be broken up; a little more than fresh is no long set in it."""
    return isinstance(block, ForTime) and block.repeats is not None and asked <= BROKEN_UP * fresh


# what has its seconds and is no hold: machines, ways to go, stretching, feet that move
GOING_ON = frozenset({"machine", "gait", "mobility", "footwork", "whole-body"})


def hold_too_long(look: Look) -> Iterator[Note]:
    """A hold longer than most can hold it well."""
    for at, nth, line, move in look.lines():
        if not move or move.counted != "s" or move.pattern in GOING_ON:
            continue
        asked = _asked(line, "s") or _by_clock(look.session.blocks[at], line)
        if asked > HELD * move.fresh:
            shorter = max(5, round(move.fresh * 0.75 / 5) * 5)
            yield look.note(
                code="hold-too-long",
                level="weigh",
                text=f"{asked:g} s of {move.name}: most hold it well for about {move.fresh} s.",
                reason="Past that the hold goes on and the shape is gone.",
                at=at,
                nth=nth,
                fixes=_less(at, nth, line, shorter, f"{shorter} s")
                or _held_for(look, at, nth, line, shorter),
            )


def _by_clock(block: Block, line: Line) -> float:
    """Seconds of a hold where the block's clock gives them."""
    if line.tasks[0].amount or len(line.tasks) > 1:
        return 0
    return max((pair.work.seconds or 0 for pair in block.pairs), default=0)


def _held_for(look: Look, at: int, nth: int, line: Line, shorter: int) -> tuple[Fix, ...]:
    amount = Amount(values=(float(shorter),), unit="s")
    text = move_line(line.but(tasks=(line.tasks[0].but(amount=amount),)))
    return (Fix(f"{shorter} s of it", ReplaceLine(line=look.line(at, nth), text=f"  {text}")),)


def under_water(look: Look) -> Iterator[Note]:
    """Breath held in or under water, however it is written."""
    for at, nth, line, _ in look.lines():
        for task in line.tasks:
            said = guess(task.name)
            swims = said.swim or key_of(task.name) == "swim"
            if not (swims and (task.breath_held or said.breath)):
                continue
            above = Line(tasks=(task.but(name="swim", breath_held=False),))
            edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(above)}")
            yield look.note(
                code="under-water",
                level="stop",
                text=f"{task.name}: breath held in or under water. Never timed, never alone.",
                reason="People black out without warning.",
                at=at,
                nth=nth,
                fixes=(Fix("swim, breathing", edit),),
            )


def breath_held(look: Look) -> Iterator[Note]:
    """Breath held on purpose, with effort."""
    for at, nth, line, _ in look.lines():
        held = [task for task in line.tasks if task.breath_held]
        block = look.session.blocks[at]
        gentle = block.top_asked is not None and effort(block) < HARD
        if not held or (gentle and not look.company.to_ask):
            continue
        breathing = Line(tasks=tuple(task.but(breath_held=False) for task in line.tasks))
        whom = (
            f", and {look.company.to_ask} here are over 50 or on medicine"
            if look.company.to_ask
            else ""
        )
        edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(breathing)}")
        yield look.note(
            code="breath-held",
            level="weigh",
            text=f"{held[0].name}: breath held with effort{whom}.",
            reason="It drives blood pressure up. Breathe out with the effort; ask, and let doctors decide.",
            basis="blood pressure in heavy lifting with a held breath (MacDougall and others 1985)",
            at=at,
            nth=nth,
            fixes=(Fix(text="let them breathe", edit=edit),),
        )
