"""How long a line's work takes: low, likely or high, in seconds.

Low is a quick person, one in ten is quicker; high a slow one, one in ten is slower. People's seconds a rep are taken as
spread evenly in proportion (log-normal, Limpert, Stahel and Abbt 2001, as most measured durations are) with a fifth
either way; that fifth, the slowing and the pauses are coaches' practice, to be replaced by scores (docs/forecasts.md).
"""

from math import ceil, exp

from lovrit.core.blocks.step import Case
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import METRES, Amount, Line, Task, Way

SPREAD = 0.2
TENTH = 1.2816  # a tenth of people lie beyond so many spreads
FACTOR: dict[Case, float] = {
    "low": exp(-SPREAD * TENTH),
    "likely": 1.0,
    "high": exp(SPREAD * TENTH),
}
SECONDS_A_CALORIE = 3.2
TO_THE_NEXT_S = 3
SLOWER_IN_A_SET = (
    0.1  # a set of as many reps as can be done fresh takes a tenth longer than its reps one by one
)
PAUSE_S = 8  # beyond that people put it down, every half as many reps again, for so many seconds
SLOWER_A_ROUND, SLOWEST_ROUND = (
    0.02,
    0.25,
)  # each round a fiftieth slower than the first, to a quarter at most


def slowing(nth: int) -> float:
    """How much longer a round (from 1) takes than the first."""
    return 1 + min(SLOWEST_ROUND, SLOWER_A_ROUND * (nth - 1))


def line_s(line: Line, library: Library, case: Case = "likely") -> int | None:
    """Seconds of a line's work once through; None where nobody said how much."""
    if line.is_rest:
        return 0
    parts = [_task_s(task, library, case) for task in line.tasks]
    if not parts or any(part is None for part in parts):
        return None
    return round(sum(part for part in parts if part is not None) + TO_THE_NEXT_S * (len(parts) - 1))


def round_s(lines: tuple[Line, ...], library: Library, case: Case = "likely") -> int | None:
    """Seconds of all lines once through, with the way from one to the next."""
    parts = [line_s(line, library, case) for line in lines]
    if not parts or any(part is None for part in parts):
        return None
    return sum(part for part in parts if part is not None) + round(
        TO_THE_NEXT_S * len(parts) * FACTOR[case]
    )


def timed(line: Line) -> bool:
    """Whether the line's work is all written as times, so that nothing has to be forecast."""
    return bool(line.tasks) and all(
        task.amount is not None and task.amount.unit == "s" and task.amount.form == "one"
        for task in line.tasks
    )


def unknown_move(lines: tuple[Line, ...], library: Library) -> str | None:
    """The first move whose reps are counted and that the library doesn't know, so that nobody can say how long."""
    for line in lines:
        for task in line.tasks:
            counted = task.amount is None or task.amount.unit in ("reps", *METRES)
            said = task.parts or task.rep_s or line.is_rest
            if counted and not said and library.find(task.name) is None:
                return task.name
    return None


def reps_s(name: str, reps: float, library: Library, case: Case = "likely") -> float:
    """Seconds of so many reps of a move in one go, with the pauses that they want beyond what can be done fresh."""
    move = library.find(name)
    fresh = move.fresh / FACTOR[case] if move and move.counted == "reps" else max(reps, 1)
    pauses = ceil((reps - fresh) / (fresh / 2)) if reps > fresh else 0
    slower = 1 + SLOWER_IN_A_SET * min(reps, fresh) / fresh if move else 1
    return reps * library.rep_s(name) * FACTOR[case] * slower + pauses * PAUSE_S


def _task_s(task: Task, library: Library, case: Case) -> float | None:
    if task.amount is None and task.parts:
        parts = [_way_s(part, task.name, library, case) for part in task.parts]
        return None if any(part is None for part in parts) else sum(part or 0 for part in parts)
    if task.amount is None:
        return None
    once = amount_s(task.amount, task.name, library, case, task.rep_s)
    return once * 2 if once is not None and task.side == "each" else once


def _way_s(way: Way, name: str, library: Library, case: Case) -> float | None:
    return amount_s(way.amount, way.name or name, library, case) if way.amount else None


def amount_s(
    amount: Amount, name: str, library: Library, case: Case = "likely", slow_s: int | None = None
) -> float | None:
    """Seconds of an amount of a move; None for as much as one can."""
    value = _value(amount, case)
    if value is None:
        return None
    match amount.unit:
        case "s":
            return value
        case "m" | "km" | "mi":
            return value * METRES[amount.unit] * library.metre_s(name) * FACTOR[case]
        case "cal":
            return value * SECONDS_A_CALORIE * FACTOR[case]
    return value * slow_s if slow_s else reps_s(name, value, library, case)


def _value(amount: Amount, case: Case) -> float | None:
    if not amount.values:
        return None
    if case == "likely":
        return sum(amount.values) / len(amount.values)
    return min(amount.values) if case == "low" else max(amount.values)
