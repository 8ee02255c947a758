"""Where it came apart, and how, in a word."""

from lovrit.core.run.events.kind import Kind, Telling
from lovrit.core.run.going import Going, Happening


def _broke(state: Going, event: Happening) -> bool:
    """Where it came apart, and how, in a word: what became of the sets, form, heart, grip."""
    state.broke.append(
        {
            "at_s": event.at_s,
            "block": max(0, state.at),
            "text": str(event.fields.get("text", "")).strip(),
            "person": event.fields.get("person"),
        }
    )
    return True


def _said(event: Happening, told: Telling) -> str:
    text, who = told.text(event, "text"), told.who(event, otherwise="")
    return f"{who} problem here".strip() + (f": {text}" if text else "")


BROKE = Kind(
    "broke",
    _broke,
    undo="“problem here”",
    takes=("text", "person"),
    afterwards=True,
    shifts=False,
    pinned=True,
    on_body=True,
    said=_said,
)
