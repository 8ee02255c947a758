"""Amounts, loads, kit and move lines as they are written on the slate."""

from collections.abc import Callable, Iterator

from lovrit.core.clock import clock, number
from lovrit.core.slate.line import Amount, Kit, Line, Load, Task, Way
from lovrit.core.slate.slowly import OPEN, PHASES

PHASE_WORDS = {"down": "down", "low": "held low", "up": "up", "high": "held high"}
UNIT_WORDS = {"reps": "", "s": " s", "m": " m", "km": " km", "mi": " mi", "cal": " cal"}
LOAD_WORDS = {"kg": " kg", "%": "%", "lb": " lb", "W": " W"}
SIDE_WORDS = {"none": "", "each": "each side", "by-round": "left then right"}


LONG_S = 100  # from here on nobody says seconds


def short(seconds: int) -> str:
    """Seconds as a coach writes them in a pair: bare up to 99, m:ss above."""
    return str(seconds) if seconds < LONG_S else clock(seconds)


def span(low: float, high: float) -> str:
    """One figure, or a range where they differ."""
    return number(low) if low == high else f"{number(low)}-{number(high)}"


def amount(value: Amount) -> str:
    """An amount as it is written, reps without a unit; a time from ``LONG_S`` on by the clock."""
    if value.form == "max":
        return "max"
    if value.form == "one" and value.unit == "s" and value.values[0] >= LONG_S:
        return clock(value.values[0])
    joint = "-" if value.form == "range" else "/"
    return joint.join(number(one) for one in value.values) + UNIT_WORDS[value.unit]


def whole_amount(value: Amount) -> str:
    """An amount that stands by itself, reps with their unit."""
    return amount(value) + (" reps" if value.unit == "reps" and value.form != "max" else "")


def load(value: Load) -> str:
    """A load with its unit."""
    if value.unit == "/500 m":
        return f"{clock(value.values[0])}/500 m"
    joint = "-" if value.form in ("range", "by-set") else "/"
    return joint.join(number(one) for one in value.values) + LOAD_WORDS[value.unit]


def kit_words(kit: Kit) -> str:
    """Kit as it is written: how many each, its name, the loads that stand ready."""
    each = f"{kit.each} " if kit.each != 1 else ""
    return f"{each}{kit.name}" + "".join(f" {number(one)}" for one in kit.loads)


def line_said(line: Line) -> str:
    """What is done on a line, as it is read off a wall: reps, name and load of each task."""
    return " + ".join(map(task_said, line.tasks))


def way_said(way: Way) -> str:
    """A way or a part of a work: its amount and its name."""
    return f"{amount(way.amount)} {way.name}".strip() if way.amount else way.name


def task_said(task: Task, name: str = "") -> str:
    """One task of it, or another move in its place."""
    said = f"{amount(task.amount)} {name or task.name}" if task.amount else name or task.name
    return f"{said} @ {load(task.load)}" if task.load and not name else said


def move_line(line: Line) -> str:
    """A move line, its tasks joined by ``+``."""
    return " + ".join(_task(task) for task in line.tasks)


def _task(task: Task) -> str:
    said = f"{amount(task.amount)} {task.name}" if task.amount else task.name
    if task.parts:
        said += ": " + ", ".join(_way(part) for part in task.parts)
    return "".join([said, *_marks(task)])


def _marks(task: Task) -> Iterator[str]:
    if task.load:
        yield f" @ {load(task.load)}"
    for kit in task.kit:
        yield f" | {kit_words(kit)}"
    if task.side != "none":
        yield f", {SIDE_WORDS[task.side]}"
    if task.slow_s:
        yield f", slow {task.slow_s} s"
    yield from _more_marks(task)
    yield from (f", {said}" for said in ways_said(task))


def ways_said(task: Task) -> Iterator[str]:
    """Other ways to do it, as they are written."""
    for word, ways in (("or", task.alternatives), ("harder", task.harder), ("easier", task.easier)):
        yield from (f"{word} {_way(way)}" for way in ways)


def tempo(task: Task) -> str:
    """Seconds of a rep by its phases, an x where nobody told."""
    return "-".join(OPEN if one is None else str(one) for one in task.tempo)


# marks that a task may carry besides, in the order in which they are written
BESIDE: tuple[Callable[[Task], str], ...] = (
    lambda task: ", breath held" if task.breath_held else "",
    lambda task: f", at {span(*task.asked)}" if task.asked else "",
    lambda task: "" if task.rir is None else f", rir {task.rir}",
    lambda task: f", tempo {tempo(task)}" if task.tempo else "",
    lambda task: f", rate {task.rate}" if task.rate else "",
    lambda task: f", breaths {task.breaths}" if task.breaths else "",
    lambda task: ", shared" if task.shared else "",
    lambda task: ", until partner is back" if task.until_back else "",
)
MORE_MARKS: tuple[Callable[[Task], str], ...] = (
    *BESIDE,
    lambda task: f" {short(task.pair[0])}/{short(task.pair[1])}" if task.pair else "",
)


def notes_of(task: Task) -> Iterator[str]:
    """What stands beside a task as people are told it: how slow, how much is left over, how often one breathes."""
    if task.slow_s:
        yield f"slow, {task.slow_s} s each"
    if task.rir is not None:
        yield f"{task.rir} in reserve"
    if None in task.tempo:
        phases = zip(task.tempo, PHASES, strict=True)
        yield ", ".join(f"{one} s {PHASE_WORDS[phase]}" for one, phase in phases if one is not None)
        task = task.but(tempo=())
    marks = (mark(task).removeprefix(", ") for mark in BESIDE)
    yield from (said for said in marks if said and not said.startswith("rir "))


def _more_marks(task: Task) -> Iterator[str]:
    return (mark(task) for mark in MORE_MARKS)


def _way(way: Way) -> str:
    if not way.amount:
        return way.name
    said = amount(way.amount)
    if not way.name and way.amount.unit == "reps" and way.amount.form != "max":
        said += " reps"
    return f"{said} {way.name}".strip()
