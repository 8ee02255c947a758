"""Somebody goes over to another group."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.events.lanes import into_lane, put
from lovrit.core.run.going import Going, Happening


def _moves(state: Going, event: Happening) -> bool:
    who, group = str(event.fields.get("person", "")), str(event.fields.get("group", ""))[:1].upper()
    if who not in state.people or not group.isalpha() or state.people[who].group == group:
        return False
    put(state, who, group)
    if is_on(state) and state.floor.lanes in ("groups", "pairs", "waves"):
        for lane in state.lanes:
            if who in lane.people and len(lane.people) > 1:
                lane.people.remove(who)
                into_lane(state, who)
                break
    return True


MOVES = Kind(
    "moves",
    _moves,
    undo="the change of group",
    takes=("person", "group"),
    said=lambda event, told: f"{told.who(event)} went over to {told.text(event, 'group')}",
)
