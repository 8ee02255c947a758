"""Cues of a class as data: when, of which kind, what is said; for screens, a sound track, the command line."""

from collections.abc import Iterator
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.run.classplan import ClassPlan, PlannedBlock
from lovrit.core.run.parts import parts_of
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import amount

COUNT_IN = (3, 2, 1)
MOST_NAMED = 4  # stations that are named before a work; more are not heard in a rest
HALF_FROM_S, TEN_FROM_S, LAST_FROM_S = (
    20,
    25,
    8,
)  # shorter work has no halfway, no ten seconds, no last three
SAY_NEXT_S = 5  # before the next work its move is named, or at once in a shorter rest


class Cue(NamedTuple):
    """A sound at a second of the session, and what is said with it."""

    at_s: float
    kind: str
    say: str | None = None


def cues(plan: ClassPlan) -> tuple[Cue, ...]:
    """All cues of a class as it is planned, in their order."""
    found: list[Cue] = []
    start = 0.0
    steps = [(block, step) for block in plan.blocks for step in block.floor.steps]
    found += [Cue(-float(nth), "count", str(nth)) for nth in COUNT_IN]
    for nth, (block, step) in enumerate(steps):
        following = steps[nth + 1] if nth + 1 < len(steps) else None
        length = step.planned_s
        found += step_cues(block, step, following, start, length)
        start += length
    found.append(Cue(start, "end", "that was it"))
    return tuple(sorted(found, key=lambda cue: (cue.at_s, ORDER[cue.kind])))


ORDER = {
    kind: nth
    for nth, kind in enumerate(
        ("end", "rest", "go", "side", "part", "half", "ten", "last", "count", "next", "click")
    )
}


def step_cues(
    block: PlannedBlock,
    step: FloorStep,
    following: "tuple[PlannedBlock, FloorStep] | None",
    start: float,
    length: float,
) -> Iterator[Cue]:
    """The cues of one step that begins at a second and lasts so many; in a rest what follows is named."""
    yield from _of_step(block, step, start, length)
    if following and not _works(step) and _works(following[1]):
        yield from _next(following, start, length)


def _works(step: FloorStep) -> bool:
    return step.phase in ("work", "steady", "lead-in")


def _of_step(block: PlannedBlock, step: FloorStep, start: float, length: float) -> Iterator[Cue]:
    if not _works(step):
        yield Cue(
            start, "rest", {"break": "break", "change": "change stations"}.get(step.phase, "rest")
        )
        yield from (
            Cue(start + length - nth, "count", str(nth)) for nth in COUNT_IN if length > nth
        )
        return
    yield Cue(start, "go", "work" if block.block.moves_people else said(block.block, step))
    yield from _second_half(block, step, start)
    if step.beat:
        yield from _clicks(step.beat, start, length)
    elif step.clock_s is None:
        yield from _cap(block, step, start, length)
    elif step.phase == "work":
        yield from _in_work(block, step, start, length)


def _in_work(block: PlannedBlock, step: FloorStep, start: float, length: float) -> Iterator[Cue]:
    """The last three of a work; where it is not one's own turn its half, its last ten, its parts."""
    if length >= LAST_FROM_S:
        yield from (Cue(start + length - nth, "last", None) for nth in COUNT_IN)
    if block.block.in_turns or block.floor.cap_is_clock:
        return  # in a turn that is one's own, halfway means nothing
    if length >= HALF_FROM_S:
        half = _half(block.block, step)
        yield Cue(start + length / 2, "side" if half else "half", half or "halfway")
    if length >= TEN_FROM_S:
        yield Cue(start + length - 10, "ten", "ten")
    yield from _parts(block, step, start, length)


def _second_half(of: PlannedBlock, step: FloorStep, start: float) -> Iterator[Cue]:
    """Where half begin later, they hear their own start."""
    if of.floor.lanes == "waves" and len(of.floor.offsets_s) > 1:
        yield Cue(start + of.floor.offsets_s[1], "go", f"second half: {said(of.block, step)}")


def _cap(of: PlannedBlock, step: FloorStep, start: float, length: float) -> Iterator[Cue]:
    """Ten seconds before a cap, and the last three, where it is reached."""
    cap = of.floor.cap_s
    if cap is None or length < cap or step.tap == "in":
        return
    if cap >= TEN_FROM_S:
        yield Cue(start + cap - 10, "ten", "ten to the cap")
    yield from (Cue(start + cap - nth, "last", None) for nth in COUNT_IN if cap >= LAST_FROM_S)


def _half(block: Block, step: FloorStep) -> str:
    """Where both sides are done in one turn, half of it is where they change; at any station, where people rotate."""
    line = _line(block, step)
    both = (
        any(one.side == "each" for one in block.moves)
        if block.moves_people
        else line and line.side == "each"
    )
    return "change sides" if both else ""


def _parts(of: PlannedBlock, step: FloorStep, start: float, length: float) -> Iterator[Cue]:
    """Where parts change, at the seconds at which screens do; at stations each is said with its own."""
    block, line = of.block, _line(of.block, step)
    lines = block.moves if block.moves_people else [line] if line else []
    for one in lines:
        begins = parts_of(one, length, of.library)
        name = f"{one.name}: " if block.moves_people else ""
        yield from (Cue(start + at, "part", f"{name}{said}") for at, said in begins[1:])


def _clicks(beat: int, start: float, length: float) -> Iterator[Cue]:
    every = 60 / beat
    yield from (
        Cue(round(start + nth * every, 3), "click") for nth in range(1, int(length / every))
    )


def _next(following: tuple[PlannedBlock, FloorStep], start: float, length: float) -> Iterator[Cue]:
    block, step = following
    yield Cue(start + max(0.0, length - SAY_NEXT_S - 3), "next", f"next: {said(block.block, step)}")


def _line(block: Block, step: FloorStep) -> Line | None:
    if block.in_turns and block.moves:
        return block.moves[((step.turn or 1) - 1) % len(block.moves)]
    return block.moves[step.move] if step.move is not None and block.moves else None


def said(block: Block, step: FloorStep) -> str:
    """What a step is called aloud: its move, its reps, its side; where people rotate, its few stations."""
    if block.moves_people:
        few = len(block.moves) <= MOST_NAMED
        return ", ".join(line.name for line in block.moves) if few else "next station"
    line = _line(block, step)
    if line is None:
        return block.name
    task = line.tasks[0]
    name = f"{amount(task.amount)} {task.name}" if task.amount else line.name
    return f"{name}, {step.side}" if step.side in ("left", "right") else name
