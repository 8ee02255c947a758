"""On to the next step, as its coach wants it."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.events.skip_block import skip_block
from lovrit.core.run.going import APART_S, Going, Happening


def _next(state: Going, event: Happening) -> bool:
    """On to the next step; of those who end by a tap, to the next block. Two presses for one turn are one."""
    if state.counting:
        state.begin(0)
        return True
    if not is_on(state):
        return False
    last_s, _ = state.last_next
    if event.at_s - last_s < APART_S and "place" not in event.fields:
        return False
    state.last_next = (event.at_s, event.id)
    if state.floor.endless or any(lane.takes("done") for lane in state.active):
        return skip_block(state, event)
    block = state.at
    for lane in state.active:
        state.finish(lane, "coach")
        if state.at != block:
            break
    return True


NEXT = Kind(
    "next",
    _next,
    undo="next",
    placed=True,
    takes=("place",),
)
