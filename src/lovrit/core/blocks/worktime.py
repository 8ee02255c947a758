"""How long a line's work takes: low, likely or high, in seconds.

Low is a quick person, one in ten is quicker; high a slow one, one in ten is slower. People's seconds are taken as
spread evenly in proportion (log-normal, Limpert, Stahel and Abbt 2001, as most measured durations are); how far apart
they are, and how they tire, is in tiring.py. All of it is to be replaced by scores (docs/forecasts.md).
"""

from collections.abc import Iterable

from lovrit.core.blocks.step import Case
from lovrit.core.blocks.tiring import (
    RIEGEL,
    USUAL_SPREAD,
    Tiring,
    distance_factor,
    factor_of,
    share_of,
)
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import METRES, Amount, Line, Load, Task, Way

SPREAD = USUAL_SPREAD
FACTOR: dict[Case, float] = {case: factor_of(None, case) for case in ("low", "likely", "high")}
SECONDS_A_CALORIE = 3.9  # on a rower, at a usual pace
METRES_A_CALORIE, STEADY_M = (
    18,
    500,
)  # what a calorie is worth there, and from which distance on each is slower
TO_THE_NEXT_S = 3
SLOWER_A_ROUND, SLOWEST_ROUND = (
    0.02,
    0.25,
)  # each round a fiftieth slower than the first, to a quarter at most


def slowing_after(seconds: float) -> float:
    """The same by time, a round a minute: where rounds are short, it is the minutes that tire."""
    return slowing(1 + seconds / 60)


def slowing(nth: float) -> float:
    """How much longer a round (from 1) takes than the first."""
    return 1 + min(SLOWEST_ROUND, SLOWER_A_ROUND * (nth - 1))


def line_s(
    line: Line, library: Library, case: Case = "likely", tiring: Tiring | None = None
) -> int | None:
    """Seconds of a line's work once through; None where nobody said how much.

    ``tiring`` is the person who does it, where they have done something before.
    """
    if line.is_rest:
        return 0
    person = tiring or Tiring(library, case)
    parts = [_task_s(task, person) for task in line.tasks]
    if not parts or any(part is None for part in parts):
        return None
    return round(sum(part for part in parts if part is not None) + TO_THE_NEXT_S * (len(parts) - 1))


def round_s(
    lines: tuple[Line, ...],
    library: Library,
    case: Case = "likely",
    tiring: Tiring | None = None,
) -> int | None:
    """Seconds of all lines once through, with the way from one to the next, in which a person comes back a little."""
    person = tiring or Tiring(library, case)
    taken = 0.0
    for line in lines:
        part = line_s(line, library, case, person)
        if part is None:
            return None
        way = TO_THE_NEXT_S * FACTOR[case] if len(lines) > 1 else 0
        person.rest(way)
        taken += part + way
    return round(taken) if lines else None


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
            said = task.parts or task.rep_s or line.is_rest or task.until_back
            if counted and not said and library.find(task.name) is None:
                return task.name
    return None


def reps_s(name: str, reps: float, library: Library, case: Case = "likely") -> float:
    """Seconds of so many reps of a move by somebody fresh, with the waits that they want."""
    return Tiring(library, case).reps(name, reps)


def fresh_s(task: Task, library: Library, case: Case = "likely") -> float:
    """Seconds of as much of a move as most do in one go; 0 where nobody knows the move."""
    move = library.find(task.name)
    if move is None:
        return 0.0
    if move.counted == "s":
        return move.fresh * FACTOR[case]
    if move.counted == "m":
        return move.fresh * (move.metre or 0.0) * FACTOR[case]
    reps = move.fresh * (2 if task.side == "each" else 1)
    return reps * task.rep_s if task.rep_s else reps_s(task.name, reps, library, case)


def _task_s(task: Task, person: Tiring) -> float | None:
    if task.until_back:
        return 0.0  # it goes on beside what the partner does, and takes no time of its own
    if task.amount is None and task.parts:
        parts = [_way_s(part, task.name, person) for part in task.parts]
        return None if any(part is None for part in parts) else sum(part or 0 for part in parts)
    if task.amount is None:
        return None
    if task.amount.form == "max":
        return fresh_s(task, person.library, person.case) or None
    sides = 2 if task.side == "each" else 1
    taken = [_amount_s(task.amount, task.name, person, task.rep_s, task.load) for _ in range(sides)]
    return None if any(part is None for part in taken) else sum(part or 0 for part in taken)


def _way_s(way: Way, name: str, person: Tiring) -> float | None:
    return _amount_s(way.amount, way.name or name, person) if way.amount else None


def amount_s(
    amount: Amount,
    name: str,
    library: Library,
    case: Case = "likely",
    slow_s: int | None = None,
) -> float | None:
    """Seconds of an amount of a move by somebody fresh; None for as much as one can, which ``fresh_s`` knows."""
    return _amount_s(amount, name, Tiring(library, case), slow_s)


def _amount_s(
    amount: Amount,
    name: str,
    person: Tiring,
    slow_s: int | None = None,
    load: Load | None = None,
) -> float | None:
    value = _value(amount, person.case)
    if value is None:
        return None
    if amount.unit == "reps" and not slow_s:
        return person.reps(name, value, share_of(load, name, person.library))
    taken = (
        value * (slow_s or 1)
        if amount.unit in ("reps", "s")
        else _covered_s(amount, value, name, person)
    )
    person.rest(taken)
    return taken


def _covered_s(amount: Amount, value: float, name: str, person: Tiring) -> float:
    """Seconds of metres or calories; the longer, the slower each."""
    move = person.library.find(name or "run")
    if amount.unit == "cal":
        factor = factor_of(move, person.case)
        steady: float = max(1.0, value * METRES_A_CALORIE / STEADY_M) ** RIEGEL
        return value * SECONDS_A_CALORIE * factor * steady
    metres = value * METRES[amount.unit]
    factor = factor_of(move, person.case, metres)
    return metres * person.library.metre_s(name) * factor * distance_factor(move, metres)


def _value(amount: Amount, case: Case) -> float | None:
    """Of a range or two standards slow people take the lower, quick ones the higher: that is what they are for."""
    if not amount.values:
        return None
    if case == "likely":
        return sum(amount.values) / len(amount.values)
    return max(amount.values) if case == "low" else min(amount.values)


def least_s(lines: Iterable[Line], library: Library) -> dict[str, float]:
    """Seconds of one rep of the quickest move of some lines, and of a metre where one covers ground."""
    names = [line.tasks[0].name for line in lines if not line.is_rest]
    moves = [move for name in names if (move := library.find(name))]
    if len(moves) < len(names) or not names:
        return {}
    metres = [move.metre for move in moves if move.metre]
    counted = {"reps": min(library.rep_s(name) for name in names)}
    return {"m": min(metres)} | counted if metres else counted
