"""Two wear each other’s straps, from now on."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening


def _swap(state: Going, event: Happening) -> bool:
    """Two wear each other's straps: from now on what one tells is the other's."""
    one, other = str(event.fields.get("person", "")), str(event.fields.get("other", ""))
    if one == other or not {one, other} <= state.people.keys():
        return False
    state.worn[one], state.worn[other] = state.worn.get(other, other), state.worn.get(one, one)
    for who in (one, other):
        state.beats.pop(who, None)
    return True


SWAP = Kind(
    "swap",
    _swap,
    undo="the change of straps",
    takes=("person", "other"),
    shifts=False,
    said=lambda event, told: (
        f"{told.who(event)} and {told.who(event, 'other')} had each other’s straps until now"
    ),
)
