"""A moment that a coach wants to find again, with a word or without."""

from lovrit.core.run.events.kind import Kind, Telling
from lovrit.core.run.going import Going, Happening


def _mark(state: Going, event: Happening) -> bool:
    state.marks.append({"at_s": event.at_s, "text": str(event.fields.get("text", ""))})
    return True


def _said(event: Happening, told: Telling) -> str:
    text = told.text(event, "text")
    return f"marked: {text}" if text else "marked"


MARK = Kind(
    "mark",
    _mark,
    undo="the mark",
    takes=("text",),
    afterwards=True,
    shifts=False,
    pinned=True,
    said=_said,
)
