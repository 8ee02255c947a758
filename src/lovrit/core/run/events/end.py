"""The class ends here, because its coach says so."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import EndedAt, Going, Happening


def _end(state: Going, _: Happening) -> bool:
    if not is_on(state) and not state.counting:
        return False
    lanes = tuple(lane.copy() for lane in state.lanes)
    state.ended = EndedAt(state.phase, state.at, lanes)
    state.close()
    state.phase, state.over_s = "over", state.now_s
    return True


END = Kind(
    "end",
    _end,
    said=lambda _, __: "ended here",
)
