"""A coach’s words on the whole class."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening


def _note(state: Going, event: Happening) -> bool:
    state.note = str(event.fields.get("text", "")).strip()
    return True


NOTE = Kind(
    "note",
    _note,
    undo=None,
    takes=("text",),
    afterwards=True,
    shifts=False,
)
