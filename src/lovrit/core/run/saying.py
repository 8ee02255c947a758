"""What a moment of a class says: its clock, its rows, its lanes. No heart, no health, no version by person."""

from typing import Any, NamedTuple

from lovrit.core.blocks.block import Block, side_in
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.blocks.ladder import with_reps
from lovrit.core.blocks.worktime import amount_s
from lovrit.core.clock import clock
from lovrit.core.run.classplan import PlannedBlock
from lovrit.core.run.going import Going
from lovrit.core.run.lane import Lane
from lovrit.core.slate.line import Line, Way
from lovrit.core.slate.written import task_said, way_said, whole_amount

SAYS = {
    "work": "work",
    "rest": "rest",
    "break": "break",
    "change": "change stations",
    "lead-in": "lead in, easy",
    "steady": "easy",
}
EVERYBODY = "everybody"
CLOSED = "closed: rest here"  # put in a move's place


class Clock(NamedTuple):
    """The big clock: down or up, its seconds, and the cap beside it."""

    kind: str
    s: float
    cap_s: float | None = None


class Row(NamedTuple):
    """A station: what is done there, by which groups now, and which come then; ``nth`` where it is one of several."""

    station: str
    does: tuple[str, ...]
    groups: tuple[str, ...]
    then: tuple[str, ...]
    side: str | None = None
    part: str | None = None
    nth: int = 0


def leading(state: Going) -> Lane | None:
    """The lane that the class is told by: the first that works, else the first that is not done and not waiting."""
    going = [lane for lane in state.active if not lane.waits_s]
    working = [lane for lane in going if lane.step and lane.step.phase == "work"]
    lanes = working or going or state.active or state.lanes
    return lanes[0] if lanes else None


def big_clock(state: Going) -> Clock:
    """What the big clock shows."""
    if state.phase == "ready":
        return Clock("down", state.plan.total_s)
    if state.counting:
        return Clock("down", _s(state.begins_ct - state.ct))
    lane = leading(state)
    if state.phase == "over" or lane is None:
        return Clock("down", 0.0)
    floor = state.floor
    since = state.ct - state.block_ct
    if floor.cap_is_clock and floor.cap_s is not None:
        return Clock("down", _s(floor.cap_s - since))
    working = [
        one for one in state.active if one.step and one.step.clock_s is None and not one.step.share
    ]
    if floor.up and working:
        step = working[0].step
        begun = (
            since
            if step and step.tap == "done"
            else state.ct - min(one.began_ct for one in working)
        )
        return Clock(
            "up", _s(begun), floor.cap_s or (step.gate.most_s if step and step.gate else None)
        )
    lefts = [left for one in state.active if (left := one.left_s(state.ct)) is not None]
    return Clock("down", _s(min(lefts, default=0.0)), floor.cap_s)


def _s(seconds: float) -> float:
    value = round(max(0.0, seconds), 3)
    return int(value) if value == int(value) else value


def says(state: Going) -> str:
    """The phase in words, as the wall says it."""
    lane = leading(state)
    if state.phase in ("ready", "held"):
        return state.phase
    if state.counting:
        return "get ready"
    if state.phase == "over" or lane is None:
        return "done"
    step = lane.step
    if step is None:
        return "waiting"
    block = state.plan.blocks[state.at].block
    if step.phase == "steady":
        return block.name
    if step.phase == "work":
        return _working(state, block, step, lane)
    if step.gate:
        return f"{SAYS[step.phase]} until {step.gate.bpm}"
    last = not _moves_on(lane)
    return (
        f"{SAYS[step.phase]}, the last one is done"
        if last and step.phase == "rest"
        else SAYS[step.phase]
    )


def own_turn(block: Block, lane: Lane, step: FloorStep) -> bool:
    """Whether what is left of a turn after its work is one's own, because no rest of its own follows in it."""
    own = (step.round, step.turn)
    rests = any(one.phase == "rest" and (one.round, one.turn) == own for one in lane.steps)
    return block.in_turns and not rests


def _working(state: Going, block: Block, step: FloorStep, lane: Lane) -> str:
    if own_turn(block, lane, step):
        return (
            "the rest of the minute is yours"
            if block.turn_s == 60
            else "the rest of the turn is yours"
        )
    if state.floor.lanes == "pairs":
        return "one works, the other rests"
    if step.tap == "done":
        done = sum(lane.done for lane in state.lanes)
        return f"{done} of {len(state.lanes)} are done" if done else "as it suits you, to the end"
    if step.gate:
        return f"until {step.gate.bpm}"
    if block.lifts:
        return "at your own pace"
    return SAYS["work"]


def _moves_on(lane: Lane) -> bool:
    """Whether there is work after this step in its block."""
    return any(step.phase == "work" for step in lane.steps[lane.at + 1 :])


def rows(state: Going) -> tuple[Row, ...]:
    """Who is where with what, and who comes then; one row for all where everybody does the same."""
    lane = leading(state)
    if lane is None or state.phase in ("ready", "over"):
        return ()
    planned = state.plan.blocks[state.at]
    step = lane.step or lane.steps[lane.at]
    groups = state.groups if state.people else ["A"]
    if planned.block.moves_people:
        return _stations(state, planned, step, lane, groups)
    lines = _lines(planned.block, step)
    rung = _rung(state, planned.block, step)
    does = tuple(text for line in lines for text in _does(_climbed(line, rung), state.moves))
    over = planned.block.amount
    if over:
        does = (f"{whole_amount(over)} {' + '.join(does)}".strip(),)
    elif not lines:
        does = (planned.block.name,)
    side = step.side or next((side_in(line, step.round or 1) for line in lines), None)
    name = lines[0].name if len(lines) == 1 else EVERYBODY
    part = _part(state, lines[0], lane) if len(lines) == 1 and step.phase == "work" else None
    return (Row(state.moves.get(name, name), does, tuple(groups), (), side, part),)


def _lines(block: Block, step: FloorStep) -> list[Line]:
    """The lines that are on: the one of this step, else all of them."""
    if block.in_turns and block.moves:
        return [block.moves[((step.turn or 1) - 1) % len(block.moves)]]
    if step.move is not None and block.moves and not block.races:
        return [block.moves[step.move]]
    return list(block.moves)


def _rung(state: Going, block: Block, step: FloorStep) -> int | None:
    """Reps of the furthest rung that is counted, where reps climb; by turn, where each turn is a rung."""
    ladder = getattr(block, "ladder", None)
    if not ladder:
        return block.every_set_reps
    if block.in_turns:
        return int(ladder.at(step.turn or 1))
    counted = max((many for (at, _), many in state.rounds.items() if at == state.at), default=0)
    return int(ladder.at(counted + 1))


def _climbed(line: Line, reps: int | None) -> Line:
    return with_reps(line, reps) if reps is not None else line


def _does(line: Line, instead: dict[str, str]) -> tuple[str, ...]:
    """What is done on a line, task by task: reps, name, load; at a station that was closed nothing."""
    if instead.get(line.name) == CLOSED:
        return (CLOSED,)
    return tuple(task_said(task, instead.get(line.name, "")) for task in line.tasks)


def _stations(
    state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane, groups: list[str]
) -> tuple[Row, ...]:
    """Every station of a rotation. In the last rest nobody is sent on."""
    block, turn = planned.block, step.turn or 1
    on = _moves_on(lane)
    coming = next((one for one in lane.steps[lane.at + 1 :] if one.phase == "work"), step)
    spots = dict.fromkeys(state.letters, False) | dict.fromkeys(groups, True)
    here, then = _at(block, spots, turn), _at(block, spots, coming.turn or turn)
    moves = on and here != then
    return tuple(
        Row(
            state.moves.get(line.name, line.name),
            _does(line, state.moves),
            here[nth],
            then[nth] if moves else (),
            block.side_of(nth, step.round or 1),
            _part(state, line, lane) if step.phase == "work" else None,
            nth + 1,
        )
        for nth, line in enumerate(block.moves)
    )


def _at(block: Block, groups: dict[str, bool], turn: int) -> list[tuple[str, ...]]:
    """Which groups are at each station; one that nobody is in any more keeps its place, and isn't shown."""
    found: list[list[str]] = [[] for _ in block.moves]
    for nth, (name, there) in enumerate(groups.items()):
        if there:
            found[block.line_of(nth, turn)].append(name)
    return [tuple(one) for one in found]


def parts_of(line: Line, work_s: float, state: Going) -> list[tuple[float, str]]:
    """When each part of a work begins, in seconds into it: by its seconds or its reps, else its equal share."""
    parts = line.tasks[0].parts if line.tasks else ()
    own = [_part_s(part, line.tasks[0].name, state) for part in parts]
    left, open_parts = work_s - sum(one or 0 for one in own), own.count(None)
    share = max(0.0, left) / open_parts if open_parts else 0.0
    begins, at = [], 0.0
    for part, seconds in zip(parts, own, strict=True):
        begins.append((at, way_said(part)))
        at += share if seconds is None else seconds
    return begins


def part_begins(state: Going, lane: Lane) -> list[float]:
    """When parts begin in the step that a lane is in, in seconds into it."""
    step, length = lane.step, lane.length_s
    block = state.plan.blocks[state.at].block
    if step is None or step.phase != "work" or length is None:
        return []
    lines = block.moves if block.moves_people else _lines(block, step)
    if not block.moves_people and len(lines) != 1:
        return []
    return [begins for line in lines for begins, _ in parts_of(line, length, state)]


def _part_s(part: Way, name: str, state: Going) -> float | None:
    if not part.amount:
        return None
    return amount_s(part.amount, part.name or name, state.plan.library)


def _part(state: Going, line: Line, lane: Lane) -> str | None:
    """The part that is on now."""
    length = lane.length_s
    if not line.tasks or not line.tasks[0].parts or length is None:
        return None
    spent = state.ct - lane.began_ct
    return [said for begins, said in parts_of(line, length, state) if begins <= spent][-1]


def lane_objects(state: Going) -> list[dict[str, Any]]:
    """Each lane: who is in it, its step, since when, what it does, and how long its clock leaves it."""
    told = []
    for lane in state.lanes if state.phase != "ready" else []:
        step = lane.step
        left = lane.left_s(state.ct)
        told.append(
            {
                "lane": lane.name,
                "people": list(lane.people),
                "step": lane.at,
                "since_s": round(lane.lap_from_s, 3),
                "state": doing(lane, step),
                "left_s": None if left is None else _s(left),
            }
        )
    return told


def doing(lane: Lane, step: FloorStep | None) -> str:
    """What a lane does: work, rest, done, waiting."""
    if lane.done:
        return "done"
    if step is None:
        return "waiting"
    return "work" if step.phase in ("work", "steady", "lead-in") else "rest"


def where_words(state: Going) -> str:
    """Round and turn in words, and the cap where there is one."""
    lane = leading(state)
    if lane is None or state.phase not in ("on", "held"):
        return ""
    planned = state.plan.blocks[state.at]
    step = lane.steps[lane.at]
    said = (
        planned.block.where(step.turn, step.round, (planned.turns, planned.rounds))
        if step.round or step.turn
        else ""
    )
    if planned.block.lifts or (planned.block.races and not step.turn):
        said = planned.block.head
    usual = usual_round(state)
    counted = f"usual people are in round {usual}" if usual else ""
    cap = planned.floor.cap_s
    capped = f"cap {clock(cap)}" if cap is not None and not planned.floor.cap_is_clock else ""
    return ", ".join(filter(None, (said, capped, counted)))


def usual_round(state: Going) -> int | None:
    """The round that usual people are in by now, where everybody goes round at their own pace."""
    ends = state.plan.blocks[state.at].usual_rounds
    into = state.ct - state.block_ct
    return 1 + sum(end <= into for end in ends) if ends else None
