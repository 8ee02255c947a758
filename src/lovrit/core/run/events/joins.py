"""Somebody comes late, into a group."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.events.lanes import into_lane, put
from lovrit.core.run.going import Going, Happening


def _joins(state: Going, event: Happening) -> bool:
    who, group = str(event.fields.get("person", "")), str(event.fields.get("group", "A"))
    if not who or who in state.people or not group[:1].isalpha():
        return False
    put(state, who, group[:1].upper())
    state.joined[who] = event.at_s
    into_lane(state, who)
    return True


JOINS = Kind(
    "joins",
    _joins,
    takes=("person", "group"),
    said=lambda event, told: f"{told.who(event)} came late, into {told.text(event, 'group')}",
)
