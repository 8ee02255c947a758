"""What a moment of a class says: its clock, its phase, its lanes. No heart, no health, no version by person."""

from typing import Any, NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.run.board import lines_of, of_words, step_now
from lovrit.core.run.going import Going
from lovrit.core.run.lane import Lane
from lovrit.core.run.parts import parts_of

SAYS = {
    "work": "work",
    "rest": "rest",
    "break": "break",
    "change": "change stations",
    "lead-in": "lead in, easy",
    "steady": "easy",
}


class Clock(NamedTuple):
    """The big clock: down or up, its seconds, and the cap beside it."""

    kind: str
    s: float
    cap_s: float | None = None


def leading(state: Going) -> Lane | None:
    """The lane that the class is told by: of halves the first that works, else the one that most have come as far as.

    As nobody goes back, neither does what the wall says.
    """
    if state.floor.lanes != "waves":
        return _middle(state)
    going = [lane for lane in state.active if not lane.waits_s]
    working = [lane for lane in going if lane.step and lane.step.phase == "work"]
    lanes = working or going or state.active or state.lanes
    return lanes[0] if lanes else None


def _middle(state: Going) -> Lane | None:
    """The lane of the middle person by how far each has come; of those who are done, the last that is not."""
    if not state.active:
        return state.lanes[0] if state.lanes else None
    ahead = sorted(state.lanes, key=lambda lane: (lane.done, lane.at, lane.began_ct))
    people = [lane for lane in ahead for _ in range(max(1, len(lane.people)))]
    middle = people[(len(people) - 1) // 2]
    return max(state.active, key=lambda lane: lane.at) if middle.done else middle


def big_clock(state: Going) -> Clock:
    """What the big clock shows."""
    if state.phase == "ready":
        return Clock("down", state.plan.total_s)
    if state.counting:
        return Clock("down", _s(state.begins_ct - state.ct))
    lane = leading(state)
    if state.phase == "over" or lane is None:
        return Clock("down", 0.0)
    floor, step = state.floor, lane.step
    since = state.ct - state.block_ct
    if floor.cap_is_clock and floor.cap_s is not None:
        return Clock("down", _s(floor.cap_s - since))
    if floor.up and step and step.clock_s is None and not step.share:
        begun = since if step.tap == "done" else state.ct - lane.began_ct
        return Clock("up", _s(begun), floor.cap_s or (step.gate.most_s if step.gate else None))
    return Clock("down", _s(lane.left_s(state.ct) or 0.0), floor.cap_s)


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
        return f"one works, the other{'s rest' if state.floor.team > 2 else ' rests'}"
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


def part_begins(state: Going, lane: Lane) -> list[float]:
    """When parts begin, and sets that usual people do, in the step that a lane is in: seconds into it."""
    step, length = lane.step, lane.length_s
    if step is None or step.phase != "work" or length is None:
        return []
    block = state.plan.blocks[state.at].block
    lines = block.moves if block.moves_people else lines_of(block, step)
    begins = [at for line in lines for at, _ in parts_of(line, length, state.plan.library)]
    return begins + [float(one.at_s) for one in step.inside]


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
    said = of_words(state, planned, step_now(state, lane))
    usual = usual_round(state)
    counted = f"usual people are in round {usual}" if usual else ""
    return ", ".join(filter(None, (said, counted)))


def usual_round(state: Going) -> int | None:
    """The round that usual people are in by now, where everybody goes round at their own pace."""
    ends = state.plan.blocks[state.at].usual_rounds
    into = state.ct - state.block_ct
    return 1 + sum(end <= into for end in ends) if ends else None
