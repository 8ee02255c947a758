"""Some seconds more, or fewer, of what is on."""

from typing import Any

from lovrit.core.run.events.kind import Given, Kind, is_on, number
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.lane import Lane

TEN_S = 10.0


def _longer(state: Going, event: Happening) -> bool:
    """More or fewer seconds for the step that is on; for all rests of the block where that is asked."""
    seconds = number(event.fields.get("seconds"), TEN_S)
    if state.counting and seconds:
        state.begins_ct = max(state.ct, state.begins_ct + seconds)
        return True
    clocked = [lane for lane in state.active if lane.length_s is not None]
    if not is_on(state) or not seconds or not clocked:
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


def _for_the_block(given: Given, _: int) -> dict[str, Any]:
    return {"for": "block"} if given["every"] else {}


LONGER = Kind(
    "longer",
    _longer,
    undo="the seconds",
    placed=True,
    takes=("place", "seconds"),
    also=_for_the_block,
    no="No seconds were said, or none are counted down there.",
)
