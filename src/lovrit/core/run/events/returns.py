"""Somebody who had stopped comes back."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening


def _returns(state: Going, event: Happening) -> bool:
    who = str(event.fields.get("person", ""))
    if who not in state.stopped:
        return False
    *before, last = state.away[who]
    state.away[who] = (*before, last._replace(to_s=event.at_s))
    for lane in state.lanes if is_on(state) else []:
        if lane.done and lane.ended_by == "stopped" and who in lane.people:
            lane.done, lane.ended_by = False, ""
    return True


RETURNS = Kind(
    "returns",
    _returns,
    undo="the return",
    takes=("person",),
    said=lambda event, told: f"{told.who(event)} came back",
)
