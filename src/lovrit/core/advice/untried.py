"""Rules about what nobody here has done, in a session that nobody has tried."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, WayTo
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.clock import clock, number
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import SetAmount
from lovrit.core.slate.line import Line
from lovrit.core.tries.done import Most, asked_of

FEWEST = 5  # classes that were, from which on a club has done something or has not
A_LITTLE, LONGER = 1.1, 1.25  # so much more than ever is still the same thing
WITHIN = 0.5  # of what is done fresh in one go: nobody needs to have done it


def nobody_has_done(look: Look) -> Iterator[Note]:
    """More of a move in one go, heavier or longer than ever here, or a skill that was never in a class."""
    company = look.company
    if company.tried or company.classes < FEWEST or not company.done:
        return
    said: set[str] = set()
    for at, nth, line, move in look.lines():
        if move is None or move.name in said or _once_through(look.session.blocks[at]):
            continue
        text = _beyond(look.session.blocks[at], line, move, company.done.get(move.name))
        if text and look.library.find(line.tasks[0].name):
            said.add(move.name)
            yield look.note(
                code="nobody-has-done",
                level="tell",
                text=text,
                reason="Tried by one or two first, it says where it breaks before eighteen people find out.",
                basis="this club's own classes",
                at=at,
                nth=nth,
                fixes=(*_as_ever(at, nth, line, move, company.done), WayTo("try", "try it first")),
            )


def _as_ever(at: int, nth: int, line: Line, move: Move, done: dict[str, Most]) -> tuple[Fix, ...]:
    """As much of it as somebody has done, where that is written in reps or seconds."""
    amount, most = line.tasks[0].amount, done.get(move.name, Most())
    so_many = {"reps": most.reps, "s": most.s}.get(amount.unit, 0.0) if amount else 0.0
    if amount is None or not amount.values or not 0 < so_many < max(amount.values):
        return ()
    edit = SetAmount(block=at, move=nth, value=so_many)
    return (Fix(f"{number(so_many)} {move.name}", edit),)


def _once_through(block: Block) -> bool:
    """A list that is done once is broken up as people like."""
    return isinstance(block, ForTime) and block.rounds.high == 1


def _beyond(block: Block, line: Line, move: Move, most: Most | None) -> str:
    """In which way a line asks more than ever; empty where it does not."""
    if most is None:
        return (
            f"Nobody here has done {move.name} in a class: it wants to be learnt fresh."
            if move.skill
            else ""
        )
    asked = asked_of(block, line)
    if (
        most.reps
        and asked.reps > max(A_LITTLE * most.reps, WITHIN * move.fresh)
        and move.counted == "reps"
    ):
        return f"Nobody here has done {number(asked.reps)} {move.name} in one go; {number(most.reps)} is the most."
    if most.s and asked.s > max(LONGER * most.s, WITHIN * move.fresh) and move.counted == "s":
        return f"Nobody here has held {clock(round(asked.s))} of {move.name}; {clock(round(most.s))} is the most."
    if most.kg and asked.kg > A_LITTLE * most.kg:
        return f"Nobody here has done {move.name} with {number(asked.kg)} kg; {number(most.kg)} kg is the most."
    return ""
