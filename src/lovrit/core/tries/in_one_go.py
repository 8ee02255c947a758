"""Where a set is more than somebody does in one go: an easier way, proposed and never taken by itself.

A set is right that can be done unbroken with room to spare. How much room is ours, as is how far a list that is done
once may go beyond it: it is meant to be broken up.
"""

from collections.abc import Iterable
from statistics import median
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.clock import number
from lovrit.core.crew.fits import cell, goes_by_itself, ladder, own_most
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line
from lovrit.core.tries.done import asked_of

ROOM = 0.8  # of what is done in one go: a set up to it leaves room to spare
BROKEN_UP = 2.5  # times what is done in one go, that a list done once through may ask for
LEAST_PEOPLE = 3  # whose most is known, before it is the club's


class TooMuch(NamedTuple):
    """A set beyond somebody: how much is asked of them, their most, and what is easier (its place; None for no way)."""

    station: str
    asked: str
    most: str
    easier: str
    at: int | None


def too_much(
    person: Person, line: Line, blocks: Iterable[Block], library: Library
) -> TooMuch | None:
    """What is proposed to somebody at a station of these blocks; None where nothing has to be, or nobody knows."""
    most = own_most(person, line.tasks[0], library)
    now = cell(person, line, library)
    if most is None or now.swapped or now.open or len(line.tasks) > 1:
        return None
    move = library.find(line.tasks[0].name)
    held = move is not None and move.counted == "s"
    asked = max((_beyond(block, line, most, held) for block in blocks), default=0.0)
    if not asked:
        return None
    unit = " s" if held else ""
    at, easier = _easier(person, line, library, now.at)
    return TooMuch(line.name, f"{number(asked)}{unit}", f"{number(most)}{unit}", easier, at)


def _beyond(block: Block, line: Line, most: float, held: bool) -> float:
    """What a block asks for at a line in one go where it is beyond a most; 0 where it isn't."""
    if line not in block.moves:
        return 0.0
    amount = line.tasks[0].amount
    asked = asked_of(block, line).s if held else asked_of(block, line).reps
    if amount and amount.low and asked:
        asked = amount.low  # of a range or of standards the lesser is theirs to take
    return asked if asked > (BROKEN_UP if _once(block) else ROOM) * most else 0.0


def _once(block: Block) -> bool:
    """Whether it is a list that is done once through."""
    return isinstance(block, ForTime) and block.repeats is not None and block.rounds.high == 1


def _easier(person: Person, line: Line, library: Library, now: int) -> tuple[int | None, str]:
    """The nearest easier option that no limit forbids."""
    options, name = ladder(line, library, person), line.tasks[0].name
    for nth in range(now - 1, -1, -1):
        one = options[nth]
        if one.name != name and not one.asks & frozenset(person.limits):
            return nth, one.name
    return None, ""


def usual_of(mosts: Iterable[dict[str, float]], library: Library) -> dict[str, int]:
    """What most of the club do in one go, by move: the middle of those whose most is known, from three people on."""
    found: dict[str, list[float]] = {}
    for one in mosts:
        for key, value in one.items():
            found.setdefault(key, []).append(value)
    return {
        key: round(median(values))
        for key, values in found.items()
        if len(values) >= LEAST_PEOPLE and goes_by_itself(library.find(key))
    }
