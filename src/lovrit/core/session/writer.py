"""A session written as a slate. What is read back is the same session."""

from collections.abc import Callable, Iterator
from typing import Any

from lovrit.core.clock import clock, number
from lovrit.core.session.model import (
    AnyBlock,
    Block,
    Count,
    Effort,
    Heart,
    Paired,
    Session,
    Slot,
    Stretch,
)
from lovrit.core.session.move import Amount, Kit, Line, Load, Task, Way

UNIT_WORDS = {"reps": "", "s": " s", "m": " m", "cal": " cal"}


def write(session: Session) -> str:
    """The slate of a session, ending in a newline unless it is empty."""
    parts = ["\n".join(_headers(session))] if any(_headers(session)) else []
    parts += ["\n".join(block_lines(block)) for block in session.blocks]
    return "\n\n".join(parts) + "\n" if parts else ""


def block_lines(block: AnyBlock) -> list[str]:
    """The lines of one block: what it is, then its moves."""
    lines = [", ".join([head(block), *_options(block)])]
    for move in block.moves:
        if move.opens_part:
            lines.append("  then")
        lines.append(f"  {move_line(move)}")
    return lines


def _headers(session: Session) -> Iterator[str]:
    if session.title:
        yield f"title: {session.title}"
    if session.date:
        yield f"date: {session.date}"
    if session.slot:
        yield f"slot: {_slot(session.slot)}"
    if session.people:
        yield f"people: {session.people}"
    if session.setup_s:
        yield f"setup: {clock(session.setup_s)}"


def _slot(slot: Slot) -> str:
    return f"{slot.start}-{slot.end}" if slot.start and slot.end else clock(slot.seconds)


def head(block: AnyBlock) -> str:
    """A block's first words: what it is, without its options."""
    match block.kind:
        case "rotate":
            return f"{_count(block.rounds)} {_plural('round', block.rounds)} of {_pair(block.pair)}"
        case "sets":
            return f"{_count(block.sets)} {_plural('set', block.sets)} of {_pair(block.pair)}"
        case "strength":
            sets = f"{_count(block.sets)} {_plural('set', block.sets)}"
            return f"{sets} of {_count(block.reps)} reps"
        case "intervals":
            return f"{_count(block.count)} x {_pattern(block)}"
        case "every":
            return f"every {clock(block.period_s)} for {clock(block.total_s)}"
        case "amrap":
            return f"as many as possible in {clock(block.total_s)}"
        case _:
            return _head_of_the_rest(block)


def _head_of_the_rest(block: AnyBlock) -> str:
    match block.kind:
        case "for-time":
            if block.over:
                return f"{amount(block.over)} for time"
            return f"{_count(block.rounds)} {_plural('round', block.rounds)} for time"
        case "quality":
            return f"{_count(block.rounds)} {_plural('round', block.rounds)} for quality"
        case "hold-ladder":
            ends = f"every {clock(block.period_s)} for {clock(block.total_s)}"
            return f"hold ladder {block.start_s} +{block.step_s} {ends}"
        case "tempo":
            return f"tempo {block.start} to {block.end} in {block.steps} steps of {short(block.step_s)}"
        case "build":
            return f"build {clock(block.total_s)} to heavy {block.reps}"
        case "rest":
            return f"rest {clock(block.total_s)}"
    assert block.kind == "steady"
    return f"{block.label} {clock(block.total_s)}"


def _count(count: Count) -> str:
    return str(count.high) if count.low == count.high else f"{count.low}-{count.high}"


def _plural(word: str, count: Count) -> str:
    return word if count.high == 1 else f"{word}s"


def short(seconds: int) -> str:
    """Seconds as a coach writes them in a pair: bare up to 99, m:ss above."""
    return str(seconds) if seconds < 100 else clock(seconds)


def _stretch(stretch: Stretch) -> str:
    return f"until {stretch.until_bpm}" if stretch.seconds is None else short(stretch.seconds)


def _pair(pair: object) -> str:
    return f"{_stretch(pair.work)}/{_stretch(pair.rest)}"  # type: ignore[attr-defined]


def _pattern(block: AnyBlock) -> str:
    assert block.kind == "intervals"
    if block.each:
        return amount(block.each)
    if len(block.pattern) == 1:
        return _pair(block.pattern[0])
    return "(" + " ".join(_pair(pair) for pair in block.pattern) + ")"


def _options(block: AnyBlock) -> Iterator[str]:
    yield from _aims(block)
    yield from _rests(block)
    if block.lead_in_s:
        yield f"lead-in {clock(block.lead_in_s)}"
    if isinstance(block, Paired) and block.most_s is not None:
        if block.least_s:
            yield f"least {clock(block.least_s)}"
        yield f"most {clock(block.most_s)}"
    yield from _own(block)
    if getattr(block, "drop_last_rest", False):
        yield "drop last rest"


def _aims(block: Block) -> Iterator[str]:
    if block.efforts:
        yield "at " + " ".join(_effort(one) for one in block.efforts)
    if block.heart:
        yield f"heart {heart(block.heart)}"
    if block.pace:
        yield "pace " + _span(block.pace.low, block.pace.high)


def _rests(block: Block) -> Iterator[str]:
    parts = []
    seconds = getattr(block, "rest_s", 0)
    if seconds:
        parts.append(clock(seconds))
    if block.rest_heart:
        parts.append(f"heart {heart(block.rest_heart)}")
    if block.rest_effort:
        parts.append(f"at {_effort(block.rest_effort)}")
    if parts:
        yield "rest " + " ".join(parts)


def _own(block: AnyBlock) -> Iterator[str]:
    """Options that only one kind of block has."""
    for word in ("break", "change"):
        seconds = getattr(block, f"{word}_s", None)
        if seconds is not None:
            added = " added" if getattr(block, f"{word}_added") else ""
            yield f"{word} {clock(seconds)}{added}"
    for kind, field, written in OWN:
        value = getattr(block, field, None)
        if block.kind == kind and value:
            yield written(value)


OWN: tuple[tuple[str, str, Callable[[Any], str]], ...] = (
    ("every", "half_start_s", lambda value: f"half start at {clock(value)}"),
    ("amrap", "ladder", lambda value: f"ladder {value.start} +{value.step}"),
    ("amrap", "partners", lambda _value: "partners alternate"),
    ("tempo", "up_and_down", lambda _value: "up and down"),
    ("intervals", "score", lambda value: f"score {value}"),
    ("for-time", "cap_s", lambda value: f"cap {clock(value)}"),
    ("quality", "cap_s", lambda value: f"cap {clock(value)}"),
)


def _span(low: float, high: float) -> str:
    return number(low) if low == high else f"{number(low)}-{number(high)}"


def _effort(effort: Effort) -> str:
    return _span(effort.low, effort.high)


def heart(target: Heart) -> str:
    """A heart target as it is written; percentages always say of what."""
    match target.of:
        case "threshold":
            return f"threshold ±{number(target.high)}"
        case "bpm":
            return f"{number(target.low)}-{number(target.high)}"
        case "reserve":
            return f"{_span(target.low, target.high)}% reserve"
    return f"{_span(target.low, target.high)}% max"


def amount(value: Amount) -> str:
    """An amount as it is written, reps without a unit."""
    if value.form == "max":
        return "max"
    joint = "-" if value.form == "range" else "/"
    return joint.join(number(one) for one in value.values) + UNIT_WORDS[value.unit]


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
        yield ", " + {"each": "each side", "by-round": "left then right"}[task.side]
    if task.slow_s:
        yield f", slow {task.slow_s} s"
    if task.breath_held:
        yield ", breath held"
    for word, ways in (("or", task.alternatives), ("harder", task.harder), ("easier", task.easier)):
        for way in ways:
            yield f", {word} {_way(way)}"


def load(value: Load) -> str:
    """A load with its unit."""
    joint = "-" if value.form == "range" else "/"
    unit = "%" if value.unit == "%" else " kg"
    return joint.join(number(one) for one in value.values) + unit


def kit_words(kit: Kit) -> str:
    """Kit as it is written: how many each, its name, the loads that stand ready."""
    each = f"{kit.each} " if kit.each != 1 else ""
    return f"{each}{kit.name}" + "".join(f" {number(one)}" for one in kit.loads)


def _way(way: Way) -> str:
    if not way.amount:
        return way.name
    said = amount(way.amount)
    if not way.name and way.amount.unit == "reps" and way.amount.form != "max":
        said += " reps"
    return f"{said} {way.name}".strip()
