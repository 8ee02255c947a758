"""A class begins: the seconds before its first block are counted in, and the hall’s time from then on."""

from typing import Any

from lovrit.core.run.events.kind import Given, Kind, number
from lovrit.core.run.going import COUNT_IN_S, Going, Happening


def _start(state: Going, event: Happening) -> bool:
    if state.phase != "ready" or not any(block.floor.steps for block in state.plan.blocks):
        return False
    count_in = number(event.fields.get("count_in"), 0.0)
    state.phase, state.begins_ct, state.shown = "on", state.ct + count_in, ("class", "")
    if "count_in" in event.fields and state.plan.slot_s is not None:
        state.due_s = state.due_s or state.now_s + count_in + state.plan.slot_s
    if not count_in:
        state.begin(0)
    return True


def _count_in(_: Given, __: int) -> dict[str, Any]:
    return {"count_in": COUNT_IN_S}


START = Kind(
    "start",
    _start,
    no="It had begun already.",
    also=_count_in,
)
