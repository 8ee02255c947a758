"""How many rounds fit as many as possible into a cap: low, likely, high."""

from lovrit.core.moves.library import Library
from lovrit.core.session.model import Amrap, AnyBlock
from lovrit.core.session.move import Amount, Line
from lovrit.core.timeline.interval import Case, Forecast
from lovrit.core.timeline.worktime import round_s

MOST_RUNGS = 1000


def rounds_in(block: Amrap, library: Library) -> Forecast | None:
    """Rounds in the block's time, to a tenth; None where nobody said how much a round is."""
    slow, likely, quick = (_rounds(block, library, case) for case in ("high", "likely", "low"))
    if slow is None or likely is None or quick is None:
        return None
    return Forecast(rounds=(slow, likely, quick))


def _rounds(block: Amrap, library: Library, case: Case) -> float | None:
    if block.ladder:
        return _rungs(block, library, case)
    once = round_s(block.moves, library, case)
    return round(block.total_s / once, 1) if once else None


def _rungs(block: Amrap, library: Library, case: Case) -> float | None:
    """Rungs of a ladder: each has more reps than the one before."""
    assert block.ladder
    left = float(block.total_s)
    for rung in range(MOST_RUNGS):
        reps = block.ladder.start + block.ladder.step * rung
        once = round_s(tuple(_with_reps(line, reps) for line in block.moves), library, case)
        if not once:
            return None
        if once >= left:
            return round(rung + left / once, 1)
        left -= once
    return float(MOST_RUNGS)


def _with_reps(line: Line, reps: int) -> Line:
    amount = Amount(values=(float(reps),))
    tasks = tuple(task if task.amount else task.model_copy(update={"amount": amount}) for task in line.tasks)
    return line.model_copy(update={"tasks": tasks})


def round_ends(block: AnyBlock, library: Library) -> list[float]:
    """Where each round is likely to end, in seconds from the block's start; empty where nobody can say."""
    if not isinstance(block, Amrap):
        return []
    ends: list[float] = []
    at = 0.0
    for rung in range(MOST_RUNGS):
        lines = block.moves
        if block.ladder:
            reps = block.ladder.start + block.ladder.step * rung
            lines = tuple(_with_reps(line, reps) for line in lines)
        once = round_s(lines, library)
        if not once or at + once >= block.total_s:
            break
        at += once
        ends.append(at)
    return ends
