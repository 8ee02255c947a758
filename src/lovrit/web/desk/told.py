"""What a block's reps are likely to come to, as the Desk tells it: a sentence, and a row for each thing counted."""

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.outlook import Outlook, TurnLeft
from lovrit.core.clock import clock
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value


class ToldRow(Value):
    """A thing that is counted, for slow, usual and quick people."""

    name: str
    cells: tuple[str, str, str]


class Foretold(Value):
    """The sentence, empty where there is nothing to say, and its rows."""

    said: str = ""
    rows: tuple[ToldRow, ...] = ()


def told_of(plan: Plan, block: Block | None) -> Foretold:
    """What the open block is likely to come to."""
    found = block.outlook(plan.library) if block else None
    if not found or not block:
        return Foretold()
    return Foretold(said=found.said[0].upper() + found.said[1:], rows=tuple(_rows(block, found)))


def _rows(block: Block, found: Outlook) -> list[ToldRow]:
    if found.scores:
        slow, usual, quick = (str(score) for score in found.scores)
        return [ToldRow(name="score", cells=(slow, usual, quick))]
    if found.times_s:
        slow, usual, quick = (clock(seconds) for seconds in found.times_s)
        return [ToldRow(name=found.timed, cells=(slow, usual, quick))]
    return [_turn(block.moves[turn.move].name, turn) for turn in found.turns]


def _turn(name: str, turn: TurnLeft) -> ToldRow:
    """What is left of a turn, and from which on a slow person has nothing left."""
    slow, usual, quick = (
        f"{left} s left" if left >= 0 else f"{-left} s over" for left in turn.left_s
    )
    late = f", late from turn {turn.late_from}" if turn.late_from and turn.left_s[0] >= 0 else ""
    return ToldRow(name=name, cells=(slow + late, usual, quick))
