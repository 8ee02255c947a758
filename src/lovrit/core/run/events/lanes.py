"""Where somebody stands who comes to a class that is on, or goes over to another group."""

from lovrit.core.run.classplan import Runner
from lovrit.core.run.events.kind import is_on
from lovrit.core.run.going import Going
from lovrit.core.run.lane import Lane


def put(state: Going, who: str, group: str) -> None:
    """Somebody is in a group from now on; one that is new gets the station behind the last one's."""
    state.people[who] = Runner(who, group)
    if group not in state.letters:
        state.letters = (*state.letters, group)


def into_lane(state: Going, who: str) -> None:
    """Where somebody who comes late goes: into the lane of their group; a lane of their own where each has one."""
    if not is_on(state):
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
