"""How much of a move a structure wants: reps, seconds or metres for a stretch of work, in sayable numbers."""

from lovrit.core.blocks.worktime import line_s, reps_s
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move, Pattern
from lovrit.core.moves.once import reps_at
from lovrit.core.slate.line import Amount, Line, Task

MOST_REPS = 100
GROUND: frozenset[Pattern] = frozenset({"gait", "machine", "carry", "pull"})


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


def easily(line: Line, library: Library, most: float | None = None) -> Line:
    """A line with no more reps of a move than half of what is done fresh in one go, and no more than ``most``.

    Under a load that is a share of one's best, what is fresh is what that share allows: 30 x (100 / share - 1) reps,
    Epley 1985.
    """
    return line.but(tasks=tuple(_easily(task, library, most) for task in line.tasks))


def _easily(task: Task, library: Library, most: float | None) -> Task:
    move, amount = library.find(task.name), task.amount
    if not move or not amount or amount.unit != "reps" or move.counted != "reps":
        return task
    share = max(task.load.values) if task.load and task.load.unit == "%" else 0
    fresh = min(move.fresh, reps_at(share / 100)) if share else move.fresh
    limit = min(max(1, int(fresh / 2)), int(most) if most else MOST_REPS)
    return task.but(
        amount=amount.but(values=tuple(min(one, float(limit)) for one in amount.values))
    )


def _amount(task: Task, seconds: float, library: Library) -> Amount:
    """As the move is counted: in seconds, in metres where it covers ground, in reps; a machine else in time."""
    move = library.find(task.name)
    share = seconds / 2 if task.side == "each" else seconds
    if move and (move.counted == "s" or (move.pattern == "machine" and not move.metre)):
        return Amount(values=(float(_round(min(share, move.fresh), "s")),), unit="s")
    if move and covers(move):
        return Amount(values=(float(_round(share / library.metre_s(task.name), "m")),), unit="m")
    reps = next(
        (n for n in range(1, MOST_REPS) if reps_s(task.name, n + 1, library) > share), MOST_REPS
    )
    return Amount(values=(float(_round(reps, "reps")),))


def covers(move: Move) -> bool:
    """Whether a move is counted by the ground that it covers: runs, machines, carries; not lunges, jumps and crawls."""
    return move.counted == "m" or (bool(move.metre) and move.pattern in GROUND)
