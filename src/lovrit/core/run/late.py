"""Ending on time: when the class will end, by how much it is late, and honest ways to end when the hall must be back.

What has been done is never touched: a way changes blocks that have not begun, and what is left of the one that is on.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from math import ceil
from typing import Any

from lovrit.core.clock import clock
from lovrit.core.run.classplan import PlannedBlock
from lovrit.core.run.going import Going
from lovrit.core.session.session import Session, Slot

WORTH_S = 30  # so far apart may the two ends be without a word
LEAST_COOL_S = 120
LEAST_BREAK_S, LEAST_REST_S = (
    45,
    60,
)  # shorter breaks and rests are no longer what they were written for
STEP_S = 5
ON_TIME = "on-time"  # the way that takes as many others as it needs
EARLIEST = timedelta(minutes=30)  # before its slot a class is taken to be the one of that slot
MOST_WAYS = 3
FREE = {"breaks": "breaks and rests a little shorter", "cool-down": "a shorter cool-down"}
MOST_STEPS = 4  # changes that a class is asked to bear at once


@dataclass(frozen=True)
class Way:
    """A way to end on time: its name for the event that takes it, what is lost in words, and the new end."""

    way: str
    text: str
    ends_at_s: float


def ends_at_s(state: Going) -> float:
    """When the class will end as things stand, in seconds since it was opened."""
    if state.phase == "over":
        return state.now_s
    if state.phase == "ready":
        return state.now_s + state.plan.total_s
    if state.counting:
        return state.now_s + state.begins_ct - state.ct + state.plan.total_s
    return state.now_s + _block_left_s(state) + sum(one.planned_s for one in _later(state))


def _block_left_s(state: Going) -> float:
    """Seconds that the block that is on is likely to take yet."""
    left = max((lane.likely_left_s(state.ct) for lane in state.active), default=0.0)
    floor = state.floor
    if floor.cap_s is None:
        return left
    cap = max(0.0, state.block_ct + floor.cap_s - state.ct)
    return cap if floor.cap_is_clock else min(left, cap)


def _later(state: Going) -> tuple[PlannedBlock, ...]:
    return state.plan.blocks[state.at + 1 :]


def late_s(state: Going) -> float:
    """Seconds past the moment when the hall must be given back; 0 where nobody said when that is."""
    due = due_s(state)
    return 0.0 if due is None else max(0.0, round(ends_at_s(state) - due, 3))


def early_s(state: Going) -> float:
    """Seconds that the class runs ahead of its plan, where the hall is ours for longer; 0 where it doesn't."""
    due = due_s(state)
    if due is None or state.plan.slot_s is None or state.phase not in ("on", "held"):
        return 0.0
    planned = max(0, state.plan.slot_s - state.plan.total_s)
    return max(0.0, round(due - ends_at_s(state) - planned, 3))


def slot_ends(slot: Slot, now: datetime) -> datetime | None:
    """When a slot with a time of day ends, where a class that begins now begins in it or shortly before; else None."""
    if slot.start is None:
        return None
    hours, minutes = map(int, slot.start.split(":"))
    begins = now.replace(hour=hours, minute=minutes, second=0, microsecond=0)
    ends = begins + timedelta(seconds=slot.seconds)
    return ends if begins - EARLIEST <= now < ends else None


def due_s(state: Going) -> float | None:
    """When the hall must be given back: as the coach said, else the slot's length after the class was opened."""
    return state.plan.slot_s if state.due_s is None else state.due_s


def ways(state: Going) -> list[Way]:
    """Ways to end on time: first the whole of it in one press, then up to three single ones; none where it isn't late.

    Those that lose least work come first.
    """
    late = late_s(state)
    if late < WORTH_S or state.phase not in ("on", "held"):
        return []
    found = []
    for name, text, tried in _tried(state, late):
        found.append((_work_lost(state, tried), Way(name, text, round(ends_at_s(tried), 3))))
    due = due_s(state) or 0
    found.sort(key=lambda one: (one[1].ends_at_s > due + STEP_S, one[0], one[1].way))
    single = [way for _, way in found[:MOST_WAYS]]
    whole = _on_time(state)
    enough = found and found[0][1].ends_at_s <= due + STEP_S
    if whole is None or (enough and found[0][0] <= whole[0]):
        return single
    return [whole[1], *single]


def _on_time(state: Going) -> tuple[float, Way] | None:
    """All that it takes to end on time as one way, with the work that is lost; None where nothing gets there."""
    steps, after = _steps_to_time(state)
    if len(steps) < 2 or late_s(after) > STEP_S:
        return None
    lost = _work_lost(state, after)
    said = "; ".join(step.partition(":")[0] for step in steps)
    less = f"{clock(round(lost))} less work" if lost >= 1 else "no work less"
    return lost, Way(ON_TIME, f"on time: {said}; {less}", round(ends_at_s(after), 3))


def _steps_to_time(state: Going) -> tuple[list[str], Going]:
    """Ways taken one after the other until the class ends on time: what costs no work first, then what costs least."""
    steps: list[str] = []
    for _ in range(MOST_STEPS):
        late = late_s(state)
        if late <= STEP_S:
            break
        tried = list(_free(state, late)) or list(_cuts(state, late))
        if not tried:
            break
        before, nearest = state, late
        _, text, state = min(
            tried,
            key=lambda one: (
                late_s(one[2]) > STEP_S,
                round(_work_lost(before, one[2])),
                late_s(one[2]) - nearest,
            ),
        )
        steps.append(text)
    return steps, state


def _whole_plan(state: Going) -> bool:
    """Everything that it takes to end on time, done."""
    steps, after = _steps_to_time(state)
    state.plan, state.lanes = after.plan, after.lanes
    return bool(steps)


def plan_in_words(way: str, session: Session) -> str:
    """A way that was taken, said afterwards."""
    kind, _, rest = way.partition(":")
    named = rest.isdecimal() and int(rest) < len(session.blocks)
    block = session.blocks[int(rest)].short_name if named else "a block"
    words = {
        ON_TIME: "all that it took, in one press",
        "breaks": "breaks and rests a little shorter",
        "cool-down": "a shorter cool-down",
        "round": f"one round fewer of {block}",
        "leave": f"without {block}",
    }
    return f"to end on time: {words.get(kind, way)}"


def plan_taken(state: Going, way: str) -> bool:
    """Do what a way says; whether it can be done as things stand."""
    if way == ON_TIME:
        return _whole_plan(state)
    kind, _, rest = way.partition(":")
    deed = {"breaks": _shorter_pauses, "cool-down": _shorter_cool_down}.get(kind)
    if deed:
        return deed(state, late_s(state))
    if not rest.isdecimal() or int(rest) >= len(state.plan.blocks):
        return False
    return {"round": with_round_less, "leave": _left_out}.get(kind, _nothing)(state, int(rest))


def _nothing(_state: Going, _at: int) -> bool:
    return False


def _tried(state: Going, late: float) -> Iterator[tuple[str, str, Going]]:
    """Every way that could be taken, with the state after it."""
    yield from _free(state, late)
    yield from _cuts(state, late)


def _free(state: Going, late: float) -> Iterator[tuple[str, str, Going]]:
    """Ways that cost no work: pauses and a cool-down, shorter."""
    for name, said in FREE.items():
        tried = state.copy()
        if plan_taken(tried, name) and late_s(tried) < late:
            saved = ends_at_s(state) - ends_at_s(tried)
            yield name, f"{said}: {clock(round(saved))} less", tried


def _cuts(state: Going, late: float) -> Iterator[tuple[str, str, Going]]:
    """Rounds and blocks left out."""
    for block in state.plan.blocks[max(0, state.at) :]:
        tried = state.copy()
        if block.block.works and with_round_less(tried, block.at):
            lost = clock(round(_work_lost(state, tried)))
            yield (
                f"round:{block.at}",
                f"one round fewer of {block.block.short_name}: {lost} less work",
                tried,
            )
    for block in _later(state):
        tried = state.copy()
        if block.floor.steps and _spared(block) and _left_out(tried, block.at):
            saved = ends_at_s(state) - ends_at_s(tried)
            if saved >= min(late, WORTH_S):
                yield (
                    f"leave:{block.at}",
                    f"without {block.block.short_name}: {clock(round(saved))} less",
                    tried,
                )


def _spared(block: PlannedBlock) -> bool:
    """Whether a block may be left out: work and pauses, not the cool-down, which only gets shorter."""
    return block.block.works or block.block.is_pause


def _work_lost(before: Going, after: Going) -> float:
    return _work_s(before) - _work_s(after)


def _work_s(state: Going) -> float:
    """Work that is still to come."""
    later = [step for block in _later(state) for step in block.floor.steps]
    here = [step for lane in state.active[:1] for step in lane.steps[lane.at + 1 :]]
    return sum(step.planned_s for step in (*here, *later) if step.phase == "work")


def _shorter_pauses(state: Going, late: float) -> bool:
    """Breaks, changes and rests between blocks shorter by the same share, none under what they are for."""
    need = late
    pauses = [block for block in _later(state) if block.block.is_pause and block.floor.steps]
    spare = [max(0, block.planned_s - LEAST_REST_S) for block in pauses]
    breaks = _breaks(state)
    room = sum(spare) + sum(max(0, seconds - LEAST_BREAK_S) for *_, seconds in breaks)
    if room < WORTH_S:
        return False
    share = min(1.0, need / room)
    for block, most in zip(pauses, spare, strict=True):
        cut = ceil(most * share / STEP_S) * STEP_S
        if 0 < cut <= most:
            new = block.block.with_figure("total", block.planned_s - cut)
            state.plan = state.plan.with_block(block.at, new)
    for lane, nth, seconds in breaks:
        most = max(0, seconds - LEAST_BREAK_S)
        cut = min(most, ceil(most * share / STEP_S) * STEP_S)
        if cut > 0:
            lane.extra[nth] = lane.extra.get(nth, 0.0) - cut
    return True


def _breaks(state: Going) -> list[tuple[Any, int, int]]:
    """Breaks and changes still to come in the block that is on: their lane, place and seconds."""
    return [
        (lane, nth, step.planned_s)
        for lane in state.active
        for nth, step in enumerate(lane.steps)
        if nth > lane.at and step.phase in ("break", "change") and lane.extra.get(nth, 0.0) == 0.0
    ]


def _shorter_cool_down(state: Going, late: float) -> bool:
    """The last steady block shorter, though not under two minutes."""
    last = next((one for one in reversed(_later(state)) if one.floor.steps), None)
    if last is None or last.block.works or last.block.is_pause:
        return False
    wanted = max(LEAST_COOL_S, (last.planned_s - late) // STEP_S * STEP_S)
    if last.planned_s - wanted < WORTH_S:
        return False
    state.plan = state.plan.with_block(last.at, last.block.with_figure("total", wanted))
    return True


def with_round_less(state: Going, at: int) -> bool:
    """The last round of a block left out, where it has not begun; of the block that is on, what comes before stays."""
    if not max(0, state.at) <= at < len(state.plan.blocks):
        return False
    planned = state.plan.blocks[at]
    repeats = planned.block.repeats
    if not repeats or repeats.times.high < 2 or not planned.floor.steps:
        return False
    if at > state.at or state.phase == "ready":
        fewer = planned.block.with_figure(repeats.name, repeats.times.high - 1)
        state.plan = state.plan.with_block(at, fewer)
        return True
    return _cut_here(state, planned, repeats.times.high - 1, repeats.name)


def _cut_here(state: Going, planned: PlannedBlock, times: int, name: str) -> bool:
    """A round less of the block that is on: its lanes walk the fewer steps, each from where it is."""
    made = state.plan.with_block(planned.at, planned.block.with_figure(name, times))
    steps = made.blocks[planned.at].floor.steps
    if any(
        lane.at >= len(steps) or not _same_so_far(lane.steps, steps, lane.at)
        for lane in state.active
    ):
        return False
    state.plan = made
    for lane in state.lanes:
        lane.steps = steps
    return True


def _same_so_far(old: Any, new: Any, at: int) -> bool:
    return all(old[nth] == new[nth] for nth in range(at + 1))


def _left_out(state: Going, at: int) -> bool:
    """A block that has not begun, left out."""
    if at <= state.at or not state.plan.blocks[at].floor.steps:
        return False
    state.plan = state.plan.with_block(at, None)
    return True
