"""Two wore each other’s straps all along."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening


def _changed(state: Going, event: Happening) -> bool:
    """Two wore each other's straps all along: what one told was the other's; said once more, it was not so."""
    one, other = str(event.fields.get("person", "")), str(event.fields.get("other", ""))
    if one == other or not {one, other} <= state.people.keys():
        return False
    mine, theirs = state.changed.get(one, one), state.changed.get(other, other)
    state.changed |= {one: theirs, other: mine}
    return True


CHANGED = Kind(
    "changed",
    _changed,
    undo="the changed straps",
    takes=("person", "other"),
    afterwards=True,
    shifts=False,
    said=lambda event, told: (
        f"{told.who(event)} and {told.who(event, 'other')} wore each other’s straps"
    ),
)
