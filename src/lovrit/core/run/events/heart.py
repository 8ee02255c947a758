"""A heart has come to where a gate wants it, has left there again, or is lost."""

from lovrit.core.run.events.kind import Kind, whole
from lovrit.core.run.going import Going, Happening

LOST = 0  # a strap that tells nothing: as far as a gate goes, a heart that isn’t there


def _heart(state: Going, event: Happening) -> bool:
    who, bpm = str(event.fields.get("person", "")), whole(event.fields.get("bpm"), 0)
    lost = bpm == LOST and event.fields.get("bpm") is not None
    if who not in state.people or who in state.stopped or not (lost or 25 <= bpm <= 240):
        return False
    state.beats[who] = bpm
    return True


HEART = Kind(
    "heart",
    _heart,
    undo=None,
    takes=("person", "bpm"),
    shifts=False,
)
