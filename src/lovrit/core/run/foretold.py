"""What a class will show from now on with nothing else happening: moment after moment, for screens to walk through.

A screen that has these needs no rules of its own: it looks up the moment that it is in, and reads its clock off it.
"""

from collections.abc import Iterator
from math import inf
from typing import NamedTuple

from lovrit.core.blocks.floor import FloorStep
from lovrit.core.blocks.step import Laying
from lovrit.core.run.board import Board, board_of, of_words, step_now
from lovrit.core.run.classplan import PlannedBlock
from lovrit.core.run.cues import Cue, step_cues
from lovrit.core.run.events.start import START
from lovrit.core.run.going import COUNT_IN_S, Going, Happening
from lovrit.core.run.lane import Lane
from lovrit.core.run.saying import (
    big_clock,
    doing,
    leading,
    own_turn,
    part_begins,
    says,
    where_words,
)

LITTLE_S = 1e-3
WHERE_FROM_S, WHERE_AFTER_S = 10.0, 1.2  # a shorter rest has no time to hear where everybody goes
SHAPES = {"done": "race", "in": "repeats", "change": "partners"}


class LaneShown(NamedTuple):
    """A lane as it is shown: what it does, since when, and when its clock ends, in seconds since the class was opened.

    ``takes`` is the tap that it waits for; ``on`` is whose turn it is in a lane whose people
    take turns, ``people`` who it is of, ``of`` which of how many it is at; ``changes`` where they hand over besides.
    """

    name: str
    does: str
    since_s: float
    ends_s: float | None
    takes: str
    nth: int
    on: str = ""
    people: tuple[str, ...] = ()
    of: str = ""
    changes: bool = False


class Moment(NamedTuple):
    """A stretch of a class in which nothing changes but the clock. Seconds since the class was opened.

    ``zero_s`` is when the clock reads 0: to come where it counts down, gone where it counts up. ``usual_s`` is when
    usual people are done with a turn, ``began_s`` when the step began; ``least_s`` is a gate's. ``moves_on`` whether
    people change stations before the next work, ``counts`` whether rounds or sets are; ``shape`` is how it is drawn.
    """

    at_s: float
    kind: str
    place: str
    block: int | None
    says: str
    shape: str = "plain"
    where: str = ""
    effort: float | None = None
    began_s: float = 0.0
    least_s: float | None = None
    counts: bool = False
    up: bool = False
    zero_s: float = 0.0
    cap_s: float | None = None
    beat: int | None = None
    usual_s: float | None = None
    moves_on: bool = False
    last: bool = False
    board: Board = Board()
    lanes: tuple[LaneShown, ...] = ()
    cues: tuple[Cue, ...] = ()


def foretold(state: Going, most: int) -> tuple[Moment, ...]:
    """The next moments, so many at most; where it is whole, the last one is that the class is over.

    A class that is held is foretold as though it went on now, one that is ready as though it were started now.
    """
    going = state.copy()
    if going.phase == "ready":
        count_in = {"count_in": COUNT_IN_S}
        if not START.deed(going, Happening("", START.name, going.now_s, count_in)):
            return ()
    if going.phase == "held":
        going.phase = "on"
    made: list[Moment] = []
    while len(made) < most:
        made.append(moment(going))
        if going.phase == "over":
            break
        until = _changes_s(going)
        if until == inf:
            break
        going.advance(until)
    return tuple(made)


def _changes_s(state: Going) -> float:
    """When the next thing changes by the clock alone."""
    if state.counting:
        return state.now_s + state.begins_ct - state.ct
    soonest = state.next_end_ct
    lane = leading(state)
    if lane is not None:
        begins = (lane.began_ct + at for at in part_begins(state, lane))
        rounds = (state.block_ct + at for at in state.plan.blocks[state.at].usual_rounds)
        both = (at for at in (*begins, *rounds) if at > state.ct + LITTLE_S)
        soonest = min([soonest, *both])
    return state.now_s + soonest - state.ct if soonest < inf else inf


def moment(state: Going) -> Moment:
    """A class as it stands, for screens."""
    if state.phase == "over":
        return Moment(state.now_s, "over", "over", None, "done")
    if state.counting:
        return _count_in(state)
    lane = leading(state)
    if lane is None:
        return Moment(state.now_s, "rest", state.place, state.at, says(state))
    planned, step = state.plan.blocks[state.at], lane.steps[lane.at]
    shown = big_clock(state)
    up = shown.kind == "up"
    shown_on = board_of(state, lane)
    return Moment(
        state.now_s,
        _kind(lane, step),
        state.place,
        state.at,
        says(state),
        _shape(planned, lane, step),
        where_words(state),
        step.effort,
        state.now_s - (state.ct - lane.began_ct),
        step.gate.least_s if step.gate else None,
        (planned.block.races and not planned.block.in_turns) or planned.block.lifts,
        up,
        state.now_s - shown.s if up else state.now_s + shown.s,
        shown.cap_s,
        step.beat,
        _usual_s(state, planned, step, lane),
        any(row.then for row in shown_on.rows),
        _last(state, lane),
        shown_on,
        _lanes(state),
        _cues(state, planned, step, lane, shown_on),
    )


def _count_in(state: Going) -> Moment:
    """The seconds before the first block, with where everybody begins."""
    begins_s = state.now_s + state.begins_ct - state.ct
    first = state.copy()
    first.phase = "on"
    first.begin(0)
    cues = tuple(Cue(begins_s - nth, "count", str(nth)) for nth in (3, 2, 1))
    lane = leading(first)
    ahead = board_of(first, lane) if lane else Board()
    begins = Board(next=ahead.rows, resting=True, whom=ahead.whom, of=ahead.of)
    return Moment(
        state.now_s, "count", state.place, None, says(state), zero_s=begins_s, board=begins, cues=cues,
        began_s=begins_s - COUNT_IN_S, shape="stations" if len(ahead.rows) > 1 else "plain",
    )  # fmt: skip


def _shape(planned: PlannedBlock, lane: Lane, step: FloorStep) -> str:
    """How a block is drawn: by what ends its steps, where that says it."""
    if planned.block.moves_people:
        return "stations"
    if own_turn(planned.block, lane, step):
        return "turn"
    for one in lane.steps:
        if one.tap or one.gate or one.beat:
            return SHAPES[one.tap] if one.tap else "gate" if one.gate else "pulse"
    return "laps" if planned.block.races else "lift" if planned.block.lifts else "plain"


def _kind(lane: Lane, step: FloorStep) -> str:
    return "rest" if lane.waits_s or lane.done else step.phase


def _last(state: Going, lane: Lane) -> bool:
    """Whether it is the last that is to be done in the class; not where it is all there is."""
    later = any(block.floor.steps for block in state.plan.blocks[state.at + 1 :])
    before = state.at > 0 or lane.at > 0
    return before and not later and lane.at == len(lane.steps) - 1


def _usual_s(state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane) -> float | None:
    """When usual people are done with a turn that is one's own."""
    if step.phase != "work" or lane.waits_s or not own_turn(planned.block, lane, step):
        return None
    works = [
        one for one in planned.block.own_steps(Laying(state.plan.library)) if one.phase == "work"
    ]
    took = works[(step.turn or 1) - 1].seconds if (step.turn or 1) <= len(works) else 0
    begun = state.now_s - (state.ct - lane.began_ct)
    return begun + took if 0 < took < (step.clock_s or 0) else None


def _lanes(state: Going) -> tuple[LaneShown, ...]:
    if state.floor.lanes == "all":
        return ()
    shown = []
    for lane in state.lanes:
        left = lane.left_s(state.ct)
        since = state.now_s - (state.ct - lane.began_ct)
        tap = lane.step.tap if lane.step else ""
        ends = None if left is None or lane.done else state.now_s + left
        nth = lane.steps[lane.at].round or 1 if lane.steps else 1
        on, changes = state.on_in(lane), not state.floor.endless and tap == "done"
        does, who = doing(lane, lane.step), tuple(lane.people)
        of = of_words(state, state.plan.blocks[state.at], step_now(state, lane))
        told = LaneShown(lane.name, does, since, ends, tap, nth, on, who, of, bool(on) and changes)
        shown.append(told)
    return tuple(shown)


def _cues(
    state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane, board: Board
) -> tuple[Cue, ...]:
    """What is heard in the step that the class is told by, from now on."""
    if lane.waits_s or lane.done:
        return ()
    begun = state.now_s - (state.ct - lane.began_ct)
    length = lane.length_s if lane.length_s is not None else float(step.planned_s)
    if step.tap == "done" and state.floor.cap_s is not None:
        length = float(state.floor.cap_s)  # it goes on until the last is done, or to its cap
    made = [*step_cues(planned, step, _following(state, lane), begun, length)]
    made += _whereto(board, begun) if planned.block.moves_people and length >= WHERE_FROM_S else []
    soonest = state.now_s - LITTLE_S
    return tuple(cue for cue in sorted(made) if cue.at_s >= soonest)


def _whereto(board: Board, begun: float) -> list[Cue]:
    """Where each group goes, to be said in a rest where a coach wants it: a cue of its own, which has no sound."""
    places = [f"{' and '.join(row.groups)}: {row.station}" for row in board.rows if row.groups]
    said = ". ".join(places)
    return [Cue(begun + WHERE_AFTER_S, "where", said)] if board.resting and places else []


def _following(state: Going, lane: Lane) -> tuple[PlannedBlock, FloorStep] | None:
    """The step that comes next, in this block or a later one."""
    if lane.at + 1 < len(lane.steps):
        return state.plan.blocks[state.at], lane.steps[lane.at + 1]
    later: Iterator[PlannedBlock] = iter(state.plan.blocks[state.at + 1 :])
    return next(((one, one.floor.steps[0]) for one in later if one.floor.steps), None)
