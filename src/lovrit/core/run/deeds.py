"""What each kind of event does to a class that is going; one that makes no sense where it is changes nothing."""

from typing import Any

from lovrit.core.run.classplan import Runner
from lovrit.core.run.going import APART_S, BACK_GRACE_S, Deed, EndedAt, Going, Happening, Span
from lovrit.core.run.lane import Lane
from lovrit.core.run.late import plan_taken, with_round_less

TEN_S = 10.0
GO_ON_S = 60.0  # how long after an end it can be taken back


def _going(state: Going) -> bool:
    return state.phase in ("on", "held") and bool(state.lanes)


def _start(state: Going, event: Happening) -> bool:
    if state.phase != "ready" or not any(block.floor.steps for block in state.plan.blocks):
        return False
    count_in = _number(event.fields.get("count_in"), 0.0)
    state.phase, state.begins_ct, state.shown = "on", state.ct + count_in, ("class", "")
    if "count_in" in event.fields and state.plan.slot_s is not None:
        state.due_s = state.due_s or state.now_s + count_in + state.plan.slot_s
    if not count_in:
        state.begin(0)
    return True


def _hold(state: Going, _: Happening) -> bool:
    if state.phase != "on":
        return False
    state.phase, state.holds = "held", (*state.holds, Span(state.now_s))
    return True


STOPS = "stop"  # what walls show where everybody stops at once, until the class goes on


def _resume(state: Going, _: Happening) -> bool:
    if state.phase != "held":
        return False
    state.phase, state.holds = "on", _ended_now(state)
    if state.shown[0] == STOPS:
        state.shown = ("class", "")
    return True


def _ended_now(state: Going) -> tuple[Span, ...]:
    """The holds of a class, the last of which ends now."""
    return tuple(
        one if one.to_s is not None else Span(one.from_s, state.now_s) for one in state.holds
    )


def _end(state: Going, _: Happening) -> bool:
    if not _going(state) and not state.counting:
        return False
    lanes = tuple(lane.copy() for lane in state.lanes)
    state.ended = EndedAt(state.phase, state.at, lanes)
    state.close()
    state.phase, state.over_s = "over", state.now_s
    return True


def _goes_on(state: Going, event: Happening) -> bool:
    """An end that was not meant is taken back, for a minute; the class goes on where it was."""
    ended, over_s = state.ended, state.over_s
    if ended is None or over_s is None or event.at_s - over_s > GO_ON_S:
        return False
    state.phase, state.at, state.over_s, state.ended = ended.phase, ended.at, None, None
    state.lanes = [lane.copy() for lane in ended.lanes]
    for lane in state.lanes:
        lane.lap_from_s = state.now_s
    return True


def _due(state: Going, event: Happening) -> bool:
    """When the hall must be given back, as the coach says: seconds since the class was opened, or unsaid again."""
    due = event.fields.get("due_s")
    state.due_s = None if due is None else _number(due, 0.0)
    return True


def _note(state: Going, event: Happening) -> bool:
    state.note = str(event.fields.get("text", "")).strip()
    return True


def _next(state: Going, event: Happening) -> bool:
    """On to the next step; of those who end by a tap, to the next block. Two presses for one turn are one."""
    if state.counting:
        state.begin(0)
        return True
    if not _going(state):
        return False
    last_s, _ = state.last_next
    if event.at_s - last_s < APART_S and "place" not in event.fields:
        return False
    state.last_next = (event.at_s, event.id)
    if state.floor.endless or any(lane.takes("done") for lane in state.active):
        return _skip_block(state, event)
    block = state.at
    for lane in state.active:
        state.finish(lane, "coach")
        if state.at != block:
            break
    return True


def _back(state: Going, _: Happening) -> bool:
    if not _going(state):
        return False
    lanes = state.active
    first = lanes[0]
    near = state.ct - first.began_ct <= BACK_GRACE_S
    if near and first.at == 0 and not first.waits_s and state.at > 0:
        return _block_before(state)
    for lane in lanes:
        state.restart(lane, max(0, lane.at - 1) if near else lane.at)
    return True


def _block_before(state: Going) -> bool:
    """To the last step of the block before, or its beginning where it is not walked by the clock."""
    before = next(
        (at for at in range(state.at - 1, -1, -1) if state.plan.blocks[at].floor.steps), None
    )
    if before is None:
        return False
    state.close_laps()
    state.begin(before)
    for lane in state.active if state.floor.lanes == "all" else []:
        lane.at = len(lane.steps) - 1
    return True


def _again(state: Going, _: Happening) -> bool:
    """This turn once more, from its work."""
    if not _going(state):
        return False
    for lane in state.active:
        here = lane.steps[lane.at]
        first = next(
            nth
            for nth, step in enumerate(lane.steps)
            if (step.round, step.turn) == (here.round, here.turn)
        )
        state.restart(lane, first)
    return True


def _longer(state: Going, event: Happening) -> bool:
    """More or fewer seconds for the step that is on; for all rests of the block where that is asked."""
    seconds = _number(event.fields.get("seconds"), TEN_S)
    if state.counting and seconds:
        state.begins_ct = max(state.ct, state.begins_ct + seconds)
        return True
    clocked = [lane for lane in state.active if lane.length_s is not None]
    if not _going(state) or not seconds or not clocked:
        return False
    for lane in clocked:
        if event.fields.get("for") == "block":
            phase = lane.steps[lane.at].phase
            alike = [
                nth for nth in range(lane.at, len(lane.steps)) if lane.steps[nth].phase == phase
            ]
        else:
            alike = [lane.at]
        for nth in alike:
            _lengthen(state, lane, nth, seconds)
    return True


def _lengthen(state: Going, lane: Lane, nth: int, seconds: float) -> None:
    extra = lane.extra.get(nth, 0.0) + seconds
    if nth == lane.at and not lane.waits_s:
        length = (lane.length_s or 0.0) - lane.extra.get(nth, 0.0)
        extra = max(extra, state.ct - lane.began_ct - length)  # it ends no earlier than now
    lane.extra[nth] = extra


def _skip_round(state: Going, event: Happening) -> bool:
    if not _going(state):
        return False
    here = state.active[0].steps[state.active[0].at].round
    later = [
        nth
        for nth, step in enumerate(state.active[0].steps)
        if here is not None and step.round is not None and step.round > here
    ]
    if not later:
        return _skip_block(state, event)
    for lane in state.active:
        state.restart(lane, later[0])
    return True


def _skip_block(state: Going, _: Happening) -> bool:
    if not _going(state):
        return False
    state.close()
    state.begin(state.at + 1)
    return True


def _jump(state: Going, event: Happening) -> bool:
    """To a step of the plan; where lanes walk for themselves, to the beginning of its block."""
    said, _, nth = str(event.fields.get("to", "")).partition(".")
    at = int(said) if said.isdecimal() else len(state.plan.blocks)
    if not _going(state) or at >= len(state.plan.blocks) or not state.plan.blocks[at].floor.steps:
        return False
    state.close()
    state.begin(at)
    for lane in state.active if state.floor.lanes == "all" and nth.isdecimal() else []:
        lane.at = min(int(nth), len(lane.steps) - 1)
    return True


def _drop_round(state: Going, event: Happening) -> bool:
    """The last round of a block that has not been begun is left out."""
    at = _whole(event.fields.get("block"), state.at)
    return state.phase != "over" and with_round_less(state, at)


def _replace(state: Going, event: Happening) -> bool:
    station, move = str(event.fields.get("station", "")), str(event.fields.get("move", "")).strip()
    names = {line.name for block in state.plan.blocks for line in block.block.moves}
    if not move or station not in names:
        return False
    state.moves[station] = move
    return True


def _stops(state: Going, event: Happening) -> bool:
    who = str(event.fields.get("person", ""))
    if who not in state.people or who in state.stopped:
        return False
    state.away[who] = (*state.away.get(who, ()), Span(event.at_s))
    state.beats.pop(who, None)
    if _going(state):
        state.stop_lanes()
    return True


def _absent(state: Going, event: Happening) -> bool:
    """Somebody was not there after all: nothing that was told of them counts, as though they had never come."""
    who = str(event.fields.get("person", ""))
    if who not in state.people:
        return False
    state.away[who] = (*state.away.get(who, ()), Span(event.at_s))
    if _going(state):
        state.stop_lanes()
    for kept in (state.people, state.away, state.joined, state.felt, state.beats):
        kept.pop(who, None)
    state.scores = [one for one in state.scores if str(one["person"]) != who]
    for lane in state.lanes:
        if who in lane.people and len(lane.people) > 1:
            lane.people.remove(who)
    state.absent = (*state.absent, who)
    return True


def _returns(state: Going, event: Happening) -> bool:
    who = str(event.fields.get("person", ""))
    if who not in state.stopped:
        return False
    *before, last = state.away[who]
    state.away[who] = (*before, last._replace(to_s=event.at_s))
    for lane in state.lanes if _going(state) else []:
        if lane.done and lane.ended_by == "stopped" and who in lane.people:
            lane.done, lane.ended_by = False, ""
    return True


def _joins(state: Going, event: Happening) -> bool:
    who, group = str(event.fields.get("person", "")), str(event.fields.get("group", "A"))
    if not who or who in state.people or not group[:1].isalpha():
        return False
    _put(state, who, group[:1].upper())
    state.joined[who] = event.at_s
    _into_lane(state, who)
    return True


def _put(state: Going, who: str, group: str) -> None:
    """Somebody is in a group from now on; one that is new gets the station behind the last one's."""
    state.people[who] = Runner(who, group)
    if group not in state.letters:
        state.letters = (*state.letters, group)


def _into_lane(state: Going, who: str) -> None:
    """Where somebody who comes late goes: into the lane of their group; a lane of their own where each has one."""
    if not _going(state):
        return
    group = state.people[who].group
    if state.floor.lanes == "persons":
        state.lanes.append(Lane(who, [who], state.floor.steps, state.ct, state.now_s))
        return
    mine = [
        lane
        for lane in state.lanes
        if lane.name in ("all", group) or lane.name[:1] == group or group in _groups(state, lane)
    ]
    if mine or state.lanes:
        (mine or state.lanes)[-1].people.append(who)


def _groups(state: Going, lane: Lane) -> set[str]:
    return {state.people[one].group for one in lane.people if one in state.people}


def _moves(state: Going, event: Happening) -> bool:
    who, group = str(event.fields.get("person", "")), str(event.fields.get("group", ""))[:1].upper()
    if who not in state.people or not group.isalpha() or state.people[who].group == group:
        return False
    _put(state, who, group)
    if _going(state) and state.floor.lanes in ("groups", "pairs", "waves"):
        for lane in state.lanes:
            if who in lane.people and len(lane.people) > 1:
                lane.people.remove(who)
                _into_lane(state, who)
                break
    return True


def _round(state: Going, event: Happening) -> bool:
    """A round is counted, for a lane or anybody inside it."""
    name = str(event.fields.get("lane", "all"))
    if not _going(state) or not state.knows(name):
        return False
    key = (state.at, name)
    state.rounds[key] = state.rounds.get(key, 0) + 1
    return True


def _tapped(kind: Any) -> Deed:
    def deed(state: Going, event: Happening) -> bool:
        return (
            _going(state)
            and state.phase == "on"
            and state.tap(str(event.fields.get("lane", "")), kind)
        )

    return deed


LOST = 0  # a strap that tells nothing: as far as a gate goes, a heart that isn't there


def _heart(state: Going, event: Happening) -> bool:
    who, bpm = str(event.fields.get("person", "")), _whole(event.fields.get("bpm"), 0)
    lost = bpm == LOST and event.fields.get("bpm") is not None
    if who not in state.people or who in state.stopped or not (lost or 25 <= bpm <= 240):
        return False
    state.beats[who] = bpm
    return True


def _felt(state: Going, event: Happening) -> bool:
    who, value = str(event.fields.get("person", "")), _number(event.fields.get("value"), -1)
    if event.fields.get("value", -1) is None and who in state.people:
        state.felt.pop(who, None)  # what was said is taken back
        return True
    if who not in state.people or not 0 <= value <= 10:
        return False
    state.felt[who] = value
    return True


def _score(state: Going, event: Happening) -> bool:
    block, text = _whole(event.fields.get("block"), -1), str(event.fields.get("text", "")).strip()
    if not 0 <= block < len(state.plan.blocks):
        return False
    who = event.fields.get("person")
    state.scores = [
        one for one in state.scores if (one["block"], one["person"]) != (block, who)
    ] + ([{"block": block, "person": who, "text": text}] if text else [])
    return True


def _mark(state: Going, event: Happening) -> bool:
    state.marks.append({"at_s": event.at_s, "text": str(event.fields.get("text", ""))})
    return True


def _broke(state: Going, event: Happening) -> bool:
    """Where it came apart, and how, in a word: what became of the sets, form, heart, grip."""
    state.broke.append(
        {
            "at_s": event.at_s,
            "block": max(0, state.at),
            "text": str(event.fields.get("text", "")).strip(),
            "person": event.fields.get("person"),
        }
    )
    return True


def _swap(state: Going, event: Happening) -> bool:
    """Two wear each other's straps: from now on what one tells is the other's."""
    one, other = str(event.fields.get("person", "")), str(event.fields.get("other", ""))
    if one == other or not {one, other} <= state.people.keys():
        return False
    state.worn[one], state.worn[other] = state.worn.get(other, other), state.worn.get(one, one)
    for who in (one, other):
        state.beats.pop(who, None)
    return True


def _changed(state: Going, event: Happening) -> bool:
    """Two wore each other's straps all along: what one told was the other's; said once more, it was not so."""
    one, other = str(event.fields.get("person", "")), str(event.fields.get("other", ""))
    if one == other or not {one, other} <= state.people.keys():
        return False
    mine, theirs = state.changed.get(one, one), state.changed.get(other, other)
    state.changed |= {one: theirs, other: mine}
    return True


def _show(state: Going, event: Happening) -> bool:
    """What walls and stations show: the class, its moves one by one, a message, nothing, that all stop."""
    shown = (str(event.fields.get("what", "class")), str(event.fields.get("text", "")).strip())
    if shown == state.shown or (shown[0] == "message" and not shown[1]):
        return False
    state.shown = shown
    return True


def _plan(state: Going, event: Happening) -> bool:
    return _going(state) and plan_taken(state, str(event.fields.get("way", "")))


def _number(value: Any, otherwise: float) -> float:
    return (
        float(value)
        if isinstance(value, int | float) and not isinstance(value, bool)
        else otherwise
    )


def _whole(value: Any, otherwise: int) -> int:
    return round(_number(value, otherwise))


DEEDS: dict[str, Deed] = {
    "start": _start, "hold": _hold, "resume": _resume, "end": _end, "next": _next, "back": _back, "again": _again,
    "longer": _longer, "skip-round": _skip_round, "skip-block": _skip_block, "drop-round": _drop_round,
    "replace": _replace, "stops": _stops, "returns": _returns, "joins": _joins, "moves": _moves, "round": _round,
    "done": _tapped("done"), "in": _tapped("in"), "change": _tapped("change"), "heart": _heart, "felt": _felt,
    "score": _score, "mark": _mark, "plan": _plan, "goes-on": _goes_on, "due": _due, "note": _note,
    "jump": _jump, "broke": _broke, "swap": _swap, "show": _show, "absent": _absent,
    "changed": _changed,
}  # fmt: skip
