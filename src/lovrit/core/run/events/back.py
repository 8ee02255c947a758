"""Back to where this step began; to the one before within its first seconds."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import BACK_GRACE_S, Going, Happening


def _back(state: Going, _: Happening) -> bool:
    if not is_on(state):
        return False
    lanes = state.active
    first = lanes[0]
    near = state.ct - first.began_ct <= BACK_GRACE_S
    if near and first.at == 0 and not first.waits_s and state.at > 0:
        return _block_before(state)
    for lane in lanes:
        state.restart(lane, max(0, lane.at - 1) if near else lane.at)
    return True


def _block_before(state: Going) -> bool:
    """To the last step of the block before, or its beginning where it is not walked by the clock."""
    before = next(
        (at for at in range(state.at - 1, -1, -1) if state.plan.blocks[at].floor.steps), None
    )
    if before is None:
        return False
    state.close_laps()
    state.begin(before)
    for lane in state.active if state.floor.lanes == "all" else []:
        lane.at = len(lane.steps) - 1
    return True


BACK = Kind(
    "back",
    _back,
    undo="back",
    placed=True,
    takes=("place",),
)
