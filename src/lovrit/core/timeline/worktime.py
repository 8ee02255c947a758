"""How long a line's work takes: low, likely or high, in seconds.

Low is a quick person, high a slow one. The factors are coaches' practice, to be replaced by scores: a quick
person takes four fifths of the usual time, a slow one a third more.
"""

from lovrit.core.moves.library import Library
from lovrit.core.session.move import Amount, Line, Task, Way
from lovrit.core.timeline.interval import Case

FACTOR: dict[Case, float] = {"low": 0.8, "likely": 1.0, "high": 1.35}
SECONDS_A_METRE = {"run": 0.3, "row": 0.25, "bike": 0.15, "easy laps": 0.45}
SLOWEST_METRE_S = 1.0
SECONDS_A_CALORIE = 3.2
TO_THE_NEXT_S = 3


def line_s(line: Line, library: Library, case: Case = "likely") -> int | None:
    """Seconds of a line's work once through; None where nobody said how much."""
    parts = [_task_s(task, library, case) for task in line.tasks]
    if not parts or any(part is None for part in parts):
        return None
    return round(sum(part for part in parts if part is not None) + TO_THE_NEXT_S * (len(parts) - 1))


def round_s(lines: tuple[Line, ...], library: Library, case: Case = "likely") -> int | None:
    """Seconds of all lines once through, with the way from one to the next."""
    parts = [line_s(line, library, case) for line in lines]
    if not parts or any(part is None for part in parts):
        return None
    return sum(part for part in parts if part is not None) + round(TO_THE_NEXT_S * len(parts) * FACTOR[case])


def timed(line: Line) -> bool:
    """Whether the line's work is all written as times, so that nothing has to be forecast."""
    return bool(line.tasks) and all(
        task.amount is not None and task.amount.unit == "s" and task.amount.form == "one" for task in line.tasks
    )


def reps_s(name: str, reps: float, library: Library, case: Case = "likely") -> float:
    """Seconds of so many reps of a move."""
    return reps * library.rep_s(name) * FACTOR[case]


def _task_s(task: Task, library: Library, case: Case) -> float | None:
    if task.amount is None and task.parts:
        parts = [_way_s(part, task.name, library, case) for part in task.parts]
        return None if any(part is None for part in parts) else sum(part or 0 for part in parts)
    if task.amount is None:
        return None
    once = amount_s(task.amount, task.name, library, case, task.slow_s)
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
        case "m":
            return value * _metre_s(name, library) * FACTOR[case]
        case "cal":
            return value * SECONDS_A_CALORIE * FACTOR[case]
    return value * slow_s if slow_s else reps_s(name, value, library, case)


def _value(amount: Amount, case: Case) -> float | None:
    if not amount.values:
        return None
    if case == "likely":
        return sum(amount.values) / len(amount.values)
    return min(amount.values) if case == "low" else max(amount.values)


def _metre_s(name: str, library: Library) -> float:
    move = library.find(name)
    known = move.name if move else name
    return SECONDS_A_METRE.get(known, SLOWEST_METRE_S if name else SECONDS_A_METRE["run"])
