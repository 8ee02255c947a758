"""What walls and stations show instead of the class."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening

ALL_STOP = "stop"  # what walls show where everybody stops at once, until the class goes on


def _show(state: Going, event: Happening) -> bool:
    """What walls and stations show: the class, its moves one by one, a message, nothing, that all stop."""
    shown = (str(event.fields.get("what", "class")), str(event.fields.get("text", "")).strip())
    if shown == state.shown or (shown[0] == "message" and not shown[1]):
        return False
    state.shown = shown
    return True


SHOW = Kind(
    "show",
    _show,
    undo=None,
    takes=("what", "text"),
    afterwards=True,
    shifts=False,
)
