"""An end that was not meant is taken back."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening

GO_ON_S = 60.0  # how long after an end it can be taken back


def _goes_on(state: Going, event: Happening) -> bool:
    """An end that was not meant is taken back, for a minute; the class goes on where it was."""
    ended, over_s = state.ended, state.over_s
    if ended is None or over_s is None or event.at_s - over_s > GO_ON_S:
        return False
    state.phase, state.at, state.over_s, state.ended = ended.phase, ended.at, None, None
    state.lanes = [lane.copy() for lane in ended.lanes]
    for lane in state.lanes:
        lane.lap_from_s = state.now_s
    return True


GOES_ON = Kind(
    "goes-on",
    _goes_on,
    afterwards=True,
    no="It can go on for a minute after an end, and no longer.",
)
