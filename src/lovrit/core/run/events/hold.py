"""The class stands still: time goes on for nobody."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening, Span


def _hold(state: Going, _: Happening) -> bool:
    if state.phase != "on":
        return False
    state.phase, state.holds = "held", (*state.holds, Span(state.now_s))
    return True


HOLD = Kind(
    "hold",
    _hold,
    no="It was not going then.",
)
