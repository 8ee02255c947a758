"""A block kept in its structure and made kinder, harder, shorter, or fit for home."""

from collections.abc import Callable
from math import log
from typing import Any

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.parts import Count, Effort, Pair, Stretch
from lovrit.core.blocks.worktime import line_s
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.recast.portion import portioned
from lovrit.core.recast.shapes import CannotRecast, Given
from lovrit.core.slate.line import Line, Task

EASIEST, HARDEST = 1.0, 9.0
FEWER, MORE = 0.8, 1.2
USUAL_STEP_S = 30


def gentler(given: Given) -> Block:
    """Less work and more rest in the same time, a point less effort, steps in place of jumps."""
    return _shifted(given, -1, FEWER, lambda line: _low_impact(line, given.library))


def harder(given: Given) -> Block:
    """More work and less rest in the same time, a point more effort but never all-out."""
    return _shifted(given, 1, MORE, lambda line: line)


def _shifted(given: Given, by: int, share: float, change: Callable[[Line], Line]) -> Block:
    block = given.block
    efforts = tuple(_moved(one, by) for one in block.efforts)
    lines = tuple(change(line) for line in block.moves)
    fields: dict[str, Any] = {"efforts": efforts, "moves": lines}
    if not block.pairs:
        fields["moves"] = tuple(_share(line, share, given.library) for line in lines)
    made = block.with_pairs(tuple(_tilted(pair, by) for pair in block.pairs)).but(**fields)
    if made == block:
        raise CannotRecast(
            f"There is nothing in this block to make {'harder' if by > 0 else 'gentler'}."
        )
    return made


def _moved(effort: Effort, by: int) -> Effort:
    if by > 0 and effort.high >= HARDEST:
        return effort
    low, high = (min(HARDEST, max(EASIEST, one + by)) for one in (effort.low, effort.high))
    return Effort(low=low, high=high)


def _tilted(pair: Pair, by: int) -> Pair:
    """A quarter of the work goes to the rest, or comes from it, in fives of seconds."""
    work, rest = pair.work.seconds, pair.rest.seconds
    if work is None or rest is None:
        return pair
    step = max(5, round((work if by < 0 else rest) / 4 / 5) * 5)
    if (work if by < 0 else rest) - step < 5:
        return pair
    return Pair(work=Stretch(seconds=work + by * step), rest=Stretch(seconds=rest - by * step))


def _share(line: Line, share: float, library: Library) -> Line:
    taken = line_s(line, library)
    return portioned(line, taken * share, library) if taken else line


def _low_impact(line: Line, library: Library) -> Line:
    return _renamed(line, lambda task: _gentle_name(task, library))


def _gentle_name(task: Task, library: Library) -> str:
    move = library.find(task.name)
    return move.low_impact if move and move.impact == "high" and move.low_impact else task.name


def _renamed(line: Line, name: Callable[[Task], str], **fields: Any) -> Line:
    tasks = tuple(task.but(name=name(task), **fields) for task in line.tasks)
    return line.but(tasks=tasks)


def home(given: Given) -> Block:
    """The same without kit: each move by its way without."""

    def name(task: Task) -> str:
        move = given.library.find(task.name)
        return at_home(move, given.library) if move and move.needs_kit else task.name

    lines = tuple(
        _renamed(line, name, kit=(), load=None, alternatives=(), harder=(), easier=())
        for line in given.lines
    )
    if lines == given.lines:
        raise CannotRecast("This block needs no kit as it is.")
    return given.block.but(moves=lines)


def at_home(move: Move, library: Library) -> str:
    """A way without kit, of the same pattern and landing no harder: the library's own, else the nearest there is."""
    own = library.find(move.no_kit) if move.no_kit else None
    if own and own.pattern == move.pattern and (own.impact != "high" or move.impact == "high"):
        return move.no_kit
    alike = (
        one
        for one in library.moves
        if one.pattern == move.pattern
        and not one.needs_kit
        and not one.skill
        and (one.impact != "high" or move.impact == "high")
    )
    nearest = min(alike, key=lambda one: _unlike(move, one), default=None)
    return nearest.name if nearest else move.no_kit or move.name


def _unlike(move: Move, other: Move) -> float:
    """How unlike a move is in what matters at home: overhead, floor, sides, how it is counted, how many are done."""
    told = (
        (move.overhead != other.overhead)
        + (move.floor != other.floor)
        + (move.sided != other.sided)
    )
    counted = 2 * (move.counted != other.counted) + (move.impact != other.impact)
    return told + counted + abs(log(other.fresh / move.fresh))


def shorter(given: Given) -> Block:
    """A round fewer, or a quarter less time."""
    block = given.block
    if block.repeats and block.repeats.times.high > 1:
        name, times = block.repeats
        return block.but(**{name: Count(low=max(1, times.low - 1), high=times.high - 1)})
    step = block.turn_s or USUAL_STEP_S
    total = (block.length_s or 0) * 3 // 4 // step * step
    if total < step:
        raise CannotRecast("This block can't be much shorter.")
    return block.with_figure("total", total)


FEELS: dict[str, Callable[[Given], Block]] = {
    "gentler": gentler,
    "harder": harder,
    "shorter": shorter,
    "home": home,
}
