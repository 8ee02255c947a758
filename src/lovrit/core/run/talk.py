"""What is said before a class, in a minute or two: its aim, how it goes, each move, what to reach, when to stop."""

from collections.abc import Iterator
from math import ceil

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, minutes
from lovrit.core.moves.library import Library
from lovrit.core.run.classplan import ClassPlan, PlannedBlock
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import line_said, way_said
from lovrit.core.timeline.sums import HARD
from lovrit.core.values import Value

WORDS_A_MINUTE = 150
MANY_ROUNDS, MOST_CAUTIONS = 3, 3
STOP = "Stop at once for chest pain, faintness, or breath that won’t come back, and tell me."


class Said(Value):
    """A line of the talk. ``about`` is what it is about: aim, run, move, target, caution, stop."""

    about: str
    text: str


def talk(plan: ClassPlan) -> tuple[Said, ...]:
    """The talk of a class, line by line, in the order in which it is said."""
    lines = [Said(about="aim", text=_aim(plan)), Said(about="run", text=_run(plan))]
    lines += [Said(about="run", text=plan.session.note)] if plan.session.note else []
    lines += _moves(plan)
    lines += [Said(about="target", text=text) for text in dict.fromkeys(_targets(plan))]
    lines += [Said(about="caution", text=text) for text in _cautions(plan)]
    return (*lines, Said(about="stop", text=STOP))


def spoken_s(lines: tuple[str, ...]) -> int:
    """Seconds that it takes to say so many words, to the next five."""
    words = sum(len(line.split()) for line in lines)
    return ceil(words * 60 / WORDS_A_MINUTE / 5) * 5


def _works(plan: ClassPlan) -> list[PlannedBlock]:
    return [one for one in plan.blocks if one.block.works and one.floor.steps]


def _aim(plan: ClassPlan) -> str:
    """What the class is for, from its figures."""
    works = _works(plan)
    hard = [one for one in works if (one.block.top_effort or 0) >= HARD]
    whole = minutes(plan.total_s)
    if not works:
        return f"{whole}, all of it easy."
    if not hard:
        said = f"{whole} in all, {minutes(sum(one.planned_s for one in works))} of it work"
        unsaid = any(one.block.top_effort is None for one in works)
        return (
            f"{said}; how hard isn’t written, so say it." if unsaid else f"{said}, none of it hard."
        )
    longest = max(hard, key=lambda one: one.planned_s)
    said = f"{whole} in all; the hard part is {minutes(longest.planned_s)}."
    if longest.rounds >= MANY_ROUNDS:
        return f"{said} Hold back in the first two: the {_nth(longest.rounds)} tells."
    return f"{said} Begin as you mean to end."


def _nth(number: int) -> str:
    return {3: "third", 4: "fourth", 5: "fifth"}.get(number, "last")


def _run(plan: ClassPlan) -> str:
    """The blocks in their order; pauses are not told."""
    told = [
        one.block.short_name for one in plan.blocks if one.floor.steps and not one.block.is_pause
    ]
    return "First " + ", then ".join(told) + "." if told else "Nothing on the clock."


def _moves(plan: ClassPlan) -> Iterator[Said]:
    """Each move once, in walking order: what it must look like, and an easier way."""
    seen: set[str] = set()
    for one in _works(plan):
        for nth, line in enumerate(one.block.moves, 1):
            if line.name not in seen and not line.is_rest:
                seen.add(line.name)
                yield Said(about="move", text=_move(one.block, line, nth, plan.library))


def _move(block: Block, line: Line, nth: int, library: Library) -> str:
    name = f"{nth}, {line_said(line)}" if block.moves_people else line_said(line)
    task = line.tasks[0]
    move = library.find(task.name)
    cue = f": {move.cue}" if move and move.cue else ""
    if task.parts:
        cue = ": " + ", then ".join(way_said(part) for part in task.parts)
    own = next((way.name for way in (*task.easier, *task.alternatives) if way.name), "")
    easier = own or (move.easier[0] if move and move.easier else "")
    return f"{name}{cue}".rstrip(".") + "." + (f" Easier: {easier}." if easier else "")


def _targets(plan: ClassPlan) -> Iterator[str]:
    """What to aim for where something is counted."""
    for one in _works(plan):
        forecast = one.block.forecast(plan.library, (0, 0, 0)) if one.block.asks_for else None
        if forecast and forecast.rounds:
            likely = max(1, round(forecast.rounds[1]))
            rounds = "round" if likely == 1 else "rounds"
            yield f"In the {one.block.short_name}: {likely} {rounds} is good, one more is strong."
        elif one.floor.cap_s and not one.floor.cap_is_clock:
            yield f"In the {one.block.short_name}: done or not, we stop at {clock(one.floor.cap_s)}."


def _cautions(plan: ClassPlan) -> list[str]:
    """The cautions of tonight's moves, a few, each once."""
    names = [task.name for one in _works(plan) for line in one.block.moves for task in line.tasks]
    moves = (plan.library.find(name) for name in names)
    said = [move.caution for move in moves if move and move.caution]
    return list(dict.fromkeys(said))[:MOST_CAUTIONS]
