"""How many rounds fit as many as possible into a cap, and where they end: a person's walk through them."""

from collections.abc import Iterator

from lovrit.core.moves.library import Library
from lovrit.core.session.model import Amrap, AnyBlock
from lovrit.core.session.move import Amount, Line
from lovrit.core.timeline.interval import Case, Forecast
from lovrit.core.timeline.worktime import round_s, slowing, unknown_move

MOST_ROUNDS = 1000


def rounds_in(block: Amrap, library: Library) -> Forecast | None:
    """Rounds in the block's time, to a tenth; None where a round or its moves have no known length."""
    if unknown_move(block.moves, library):
        return None
    slow, likely, quick = (rounds(block, library, case) for case in ("high", "likely", "low"))
    if slow is None or likely is None or quick is None:
        return None
    return Forecast(rounds=(slow, likely, quick))


def rounds(block: Amrap, library: Library, case: Case) -> float | None:
    """Rounds that one person does, the begun one as its share of time, to a tenth."""
    left = float(block.total_s)
    for nth, once in enumerate(round_lengths(block, library, case)):
        if once >= left:
            return round(nth + left / once, 1)
        left -= once
    return None


def round_lengths(block: Amrap, library: Library, case: Case) -> Iterator[float]:
    """Seconds of each round in turn; nothing where nobody said how much a round is."""
    plain = round_s(block.moves, library, case)
    for nth in range(1, MOST_ROUNDS + 1):
        once = round_s(lines_of(block, nth), library, case) if block.ladder else plain
        if not once:
            return
        yield once * slowing(nth)


def lines_of(block: Amrap, nth: int) -> tuple[Line, ...]:
    """The lines of a round (from 1): on a ladder each has more reps than the one before."""
    if not block.ladder:
        return block.moves
    reps = block.ladder.start + block.ladder.step * (nth - 1)
    return tuple(_with_reps(line, reps) for line in block.moves)


def _with_reps(line: Line, reps: int) -> Line:
    amount = Amount(values=(float(reps),))
    tasks = tuple(task if task.amount else task.but(amount=amount) for task in line.tasks)
    return line.but(tasks=tasks)


def round_ends(block: AnyBlock, library: Library) -> list[float]:
    """Where each round is likely to end, in seconds from the block's start; empty where nobody can say."""
    if not isinstance(block, Amrap):
        return []
    ends: list[float] = []
    at = 0.0
    for once in round_lengths(block, library, "likely"):
        at += once
        if at >= block.total_s:
            break
        ends.append(at)
    return ends
