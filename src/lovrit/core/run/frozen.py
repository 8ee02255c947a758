"""What a class is run by, frozen as it goes to the floor, so that nothing that is changed later changes what was.

The floor, every screen and the debrief read this and never plan the session's text again.
"""

from collections.abc import Iterator
from dataclasses import asdict, dataclass, field, replace
from typing import Any

from pydantic import ValidationError

from lovrit.core.blocks.floor import Floor, FloorStep
from lovrit.core.blocks.step import Forecast, Laying
from lovrit.core.crew.fits import ladder
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.run.classplan import ClassPlan, PlannedBlock, class_plan
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Line
from lovrit.core.timeline.interval import Interval, LaidBlock, Timeline
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError, checked, plain

FORMAT = 2


class UnreadableClass(LovritError):
    """A class that was kept in a way that this Lovrit does not read."""


@dataclass(frozen=True)
class Frozen:
    """A class's session, the moves that it is made of, its intervals, and which move each station's drawing is of.

    ``steps`` says of each interval which step of which block it is: (block, step).
    """

    session: Session
    timeline: Timeline
    drawn: dict[str, str] = field(default_factory=dict)
    steps: tuple[tuple[int, int], ...] = ()
    library: Library = field(default_factory=lambda: Library(moves=()))

    def plan(self) -> ClassPlan:
        """The class as it is run; always the same, whatever the club's library has become."""
        return class_plan(self.session, self.library)


def freeze(plan: Plan) -> Frozen:
    """What a class of this plan is run by."""
    known: dict[str, Move] = {}
    drawn: dict[str, str] = {}
    for block in plan.session.blocks:
        for line in block.moves:
            for nth, name in enumerate(_names(line, plan.library)):
                move = plan.library.find(name)
                if move:
                    known[move.name] = move
                    drawn |= {line.name: move.name} if nth == 0 else {}
    library = Library(
        # in the library's own order: the first that suits somebody is the same here as there
        moves=tuple(move for move in plan.library.moves if move.name in known),
        pace=plan.library.pace,
        rests_on=plan.library.rests_on,
    )
    timeline, steps = _as_run(plan)
    return Frozen(plan.session, timeline, drawn, steps, library)


def _names(line: Line, library: Library) -> Iterator[str]:
    """Every move that a line names: its tasks, their parts, their ways, and what the fit sheet may put in its place."""
    for task in line.tasks:
        yield task.name
        for way in (*task.parts, *task.alternatives, *task.harder, *task.easier):
            yield from (way.name, f"{task.name} {way.name}") if way.name else ()
        yield from (one.name for one in ladder(line.but(tasks=(task,)), library))


def _as_run(plan: Plan) -> tuple[Timeline, tuple[tuple[int, int], ...]]:
    """A session's intervals as they are run: a turn is never cut in two, what people end lasts to its cap at most.

    Where no cap is written it lasts as long as slow people take.
    """
    made = class_plan(plan.session, plan.library)
    blocks: list[LaidBlock] = []
    intervals: list[Interval] = []
    steps: list[tuple[int, int]] = []
    for planned, laid in zip(made.blocks, plan.timeline.blocks, strict=True):
        start = intervals[-1].end_s if intervals else 0
        at = start
        for nth, step, seconds in _lengths(planned, plan.library):
            intervals.append(_interval(planned, step, at, seconds))
            steps.append((planned.at, nth))
            at += seconds
        blocks.append(replace(laid, start_s=start, end_s=at))
    return Timeline(tuple(blocks), tuple(intervals)), tuple(steps)


def _lengths(planned: PlannedBlock, library: Library) -> Iterator[tuple[int, FloorStep, int]]:
    """Each step that takes time, with its number and its seconds at the most that are expected."""
    slow = planned.block.floor(Laying(library, "high")).steps
    for nth, step in enumerate(planned.floor.steps):
        likely = slow[nth].planned_s if nth < len(slow) else 0
        seconds = _most(planned.floor, step, likely)
        if seconds > 0:
            yield nth, step, seconds


def _most(floor: Floor, step: FloorStep, slow: int) -> int:
    if step.gate:
        return step.gate.most_s
    if step.tap:
        return max(slow, step.planned_s) if floor.cap_s is None else floor.cap_s
    return step.planned_s


def _interval(planned: PlannedBlock, step: FloorStep, start: int, seconds: int) -> Interval:
    moves = planned.block.moves
    station = moves[step.move].name if step.move is not None and moves else None
    return Interval(
        start, start + seconds, step.phase, planned.at, step.round, step.turn, station, step.effort,
        step.move, step.side, step.beat, planned.block.asked_in(step.phase, step.effort, step.round),
    )  # fmt: skip


def frozen_object(frozen: Frozen) -> dict[str, Any]:
    """A frozen class as JSON; ``format`` says how it is written."""
    return {
        "format": FORMAT,
        "session": plain(frozen.session),
        "blocks": [asdict(block) for block in frozen.timeline.blocks],
        "intervals": [list(interval) for interval in frozen.timeline.intervals],
        "drawn": frozen.drawn,
        "steps": [list(step) for step in frozen.steps],
        "library": plain(frozen.library),
    }


def thaw(kept: dict[str, Any]) -> Frozen:
    """A frozen class from its JSON.

    Raises:
        Unreadable: if it was written in another format, or isn't one.
    """
    if kept.get("format") != FORMAT:
        raise UnreadableClass("It was kept by a newer Lovrit than this one.")
    try:
        session = checked(Session, kept["session"])
        library = checked(Library, kept["library"])
        blocks = tuple(_block(one) for one in kept["blocks"])
        intervals = tuple(Interval(*one) for one in kept["intervals"])
        steps = tuple((int(block), int(step)) for block, step in kept["steps"])
    except (KeyError, TypeError, ValueError, ValidationError):
        raise UnreadableClass("What it was run by can’t be read.") from None
    drawn = dict(kept.get("drawn", {}))
    return Frozen(session, Timeline(blocks, intervals), drawn, steps, library)


def session_of(kept: dict[str, Any]) -> Session:
    """The session of a class that was kept in the format before this one.

    Raises:
        Unreadable: if it isn't one.
    """
    try:
        return checked(Session, kept["session"])
    except (KeyError, ValidationError):
        raise UnreadableClass("What it was run by can’t be read.") from None


def _block(kept: dict[str, Any]) -> LaidBlock:
    said = kept["forecast"]
    forecast = said and Forecast(
        **{name: tuple(three) if three else None for name, three in said.items()}
    )
    return LaidBlock(**{**kept, "forecast": forecast})
