"""A round is counted, for a lane or anybody inside it."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening


def _round(state: Going, event: Happening) -> bool:
    """A round is counted, for a lane or anybody inside it."""
    name = str(event.fields.get("lane", "all"))
    if not is_on(state) or not state.knows(name):
        return False
    key = (state.at, name)
    state.rounds[key] = state.rounds.get(key, 0) + 1
    return True


ROUND = Kind(
    "round",
    _round,
    undo="a round",
    takes=("lane", "person"),
)
