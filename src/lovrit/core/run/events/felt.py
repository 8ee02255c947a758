"""How hard it was for somebody, as they say."""

from typing import Any

from lovrit.core.run.events.kind import Given, Kind, number
from lovrit.core.run.going import Going, Happening


def _felt(state: Going, event: Happening) -> bool:
    who, value = str(event.fields.get("person", "")), number(event.fields.get("value"), -1)
    if event.fields.get("value", -1) is None and who in state.people:
        state.felt.pop(who, None)  # what was said is taken back
        return True
    if who not in state.people or not 0 <= value <= 10:
        return False
    state.felt[who] = value
    return True


def _value(given: Given, _: int) -> dict[str, Any]:
    return {"value": given["value"]}


FELT = Kind(
    "felt",
    _felt,
    undo=None,
    takes=("person",),
    also=_value,
    afterwards=True,
    shifts=False,
)
