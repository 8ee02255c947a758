"""Why somebody stopped, said once they have: a knee, breath, done for tonight."""

from lovrit.core.run.events.kind import Kind, Telling
from lovrit.core.run.going import Going, Happening

# what people stop for most, as they say it: the first that are pressed; anything else is typed
REASONS = (
    "done for tonight", "knee", "ankle or shin", "hip", "back", "shoulder", "wrist or elbow", "hands", "out of breath",
    "dizzy", "cramp", "had to leave",
)  # fmt: skip


def _why(state: Going, event: Happening) -> bool:
    """The reason stands by the last time that they stopped, also where they have come back since."""
    who, text = str(event.fields.get("person", "")), str(event.fields.get("text", "")).strip()
    if not state.away.get(who):
        return False
    *before, last = state.away[who]
    state.away[who] = (*before, last._replace(why=text))
    return last.why != text


def _said(event: Happening, told: Telling) -> str:
    text = told.text(event, "text")
    return f"{told.who(event)} stopped for: {text}" if text else ""


WHY = Kind(
    "why",
    _why,
    undo="the reason",
    takes=("person", "text"),
    afterwards=True,
    shifts=False,
    on_body=True,
    said=_said,
    no="Nobody of this number has stopped.",
)
