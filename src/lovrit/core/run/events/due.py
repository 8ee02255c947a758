"""When the hall must be given back."""

from typing import Any

from lovrit.core.run.events.kind import Given, Kind, number
from lovrit.core.run.going import Going, Happening


def _due(state: Going, event: Happening) -> bool:
    """When the hall must be given back, as the coach says: seconds since the class was opened, or unsaid again."""
    due = event.fields.get("due_s")
    state.due_s = None if due is None else number(due, 0.0)
    return True


def _seconds(given: Given, opened_ms: int) -> dict[str, Any]:
    due_ms = given["due_ms"]
    return {"due_s": None if due_ms is None else (due_ms - opened_ms) / 1000}


DUE = Kind(
    "due",
    _due,
    undo="the end",
    also=_seconds,
    shifts=False,
)
