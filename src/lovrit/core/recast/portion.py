"""How much of a move a structure wants: reps, seconds or metres for a stretch of work, in sayable numbers."""

from lovrit.core.blocks.worktime import line_s, reps_s
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount, Line, Task

MOST_REPS = 100


def plain(line: Line) -> Line:
    """A line without its amounts, for work by the clock."""
    return line.but(tasks=tuple(_without(task) for task in line.tasks), opens_part=False)


def _without(task: Task) -> Task:
    return task.but(amount=None)


def portioned(line: Line, seconds: float, library: Library) -> Line:
    """A line that takes a usual person about so many seconds.

    Where amounts are written they are scaled, so that what stands beside one another stays in proportion; where none
    are, the move says what it is counted in.
    """
    taken = line_s(line, library)
    if taken:
        tasks = tuple(_scaled(task, seconds / taken) for task in line.tasks)
    else:
        each = seconds / len(line.tasks)
        tasks = tuple(task.but(amount=_amount(task, each, library)) for task in line.tasks)
    return line.but(tasks=tasks)


def _scaled(task: Task, share: float) -> Task:
    if not task.amount or not task.amount.values:
        return task
    values = tuple(float(_round(value * share, task.amount.unit)) for value in task.amount.values)
    return task.but(amount=task.amount.but(values=values))


def _round(value: float, unit: str) -> int:
    """Whole reps up to twenty; fives beyond that, and of seconds and metres from ten on."""
    if value >= (10 if unit in ("s", "m") else 20):
        return round(value / 5) * 5
    return max(1, round(value))


def _amount(task: Task, seconds: float, library: Library) -> Amount:
    move = library.find(task.name)
    share = seconds / 2 if task.side == "each" else seconds
    if move and move.counted == "s":
        return Amount(values=(float(_round(min(share, move.fresh), "s")),), unit="s")
    if move and move.counted == "m":
        return Amount(values=(float(_round(share / library.metre_s(task.name), "m")),), unit="m")
    reps = next(
        (n for n in range(1, MOST_REPS) if reps_s(task.name, n + 1, library) > share), MOST_REPS
    )
    return Amount(values=(float(_round(reps, "reps")),))
