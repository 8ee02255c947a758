"""Somebody who was on the list was not there after all."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening, Span


def _absent(state: Going, event: Happening) -> bool:
    """Somebody was not there after all: nothing that was told of them counts, as though they had never come."""
    who = str(event.fields.get("person", ""))
    if who not in state.people:
        return False
    state.away[who] = (*state.away.get(who, ()), Span(event.at_s))
    if is_on(state):
        state.stop_lanes()
    for kept in (state.people, state.away, state.joined, state.felt, state.beats):
        kept.pop(who, None)
    state.scores = [one for one in state.scores if str(one["person"]) != who]
    for lane in state.lanes:
        if who in lane.people and len(lane.people) > 1:
            lane.people.remove(who)
    state.absent = (*state.absent, who)
    return True


ABSENT = Kind(
    "absent",
    _absent,
    undo="“wasn’t there”",
    takes=("person",),
    afterwards=True,
    shifts=False,
    said=lambda event, told: f"{told.who(event)} wasn’t there",
)
