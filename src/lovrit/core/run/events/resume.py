"""A class that was held goes on where it stood."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.events.show import ALL_STOP
from lovrit.core.run.going import Going, Happening, Span


def _resume(state: Going, _: Happening) -> bool:
    if state.phase != "held":
        return False
    state.phase, state.holds = "on", _ended_now(state)
    if state.shown[0] == ALL_STOP:
        state.shown = ("class", "")
    return True


def _ended_now(state: Going) -> tuple[Span, ...]:
    """The holds of a class, the last of which ends now."""
    return tuple(
        one if one.to_s is not None else Span(one.from_s, state.now_s) for one in state.holds
    )


RESUME = Kind(
    "resume",
    _resume,
    no="It was not held then.",
)
