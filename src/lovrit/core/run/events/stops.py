"""Somebody stops: done, hurt, unwell."""

from lovrit.core.run.events.kind import Kind, Telling, is_on
from lovrit.core.run.going import Going, Happening, Span


def _stops(state: Going, event: Happening) -> bool:
    who = str(event.fields.get("person", ""))
    if who not in state.people or who in state.stopped:
        return False
    why = str(event.fields.get("why", "")).strip()
    state.away[who] = (*state.away.get(who, ()), Span(event.at_s, why=why))
    state.beats.pop(who, None)
    if is_on(state):
        state.stop_lanes()
    return True


def _said(event: Happening, told: Telling) -> str:
    why = told.text(event, "why")
    return f"{told.who(event)} stopped" + (f": {why}" if why else "")


STOPS = Kind(
    "stops",
    _stops,
    undo="the stop",
    takes=("person", "why"),
    pinned=True,
    on_body=True,
    said=_said,
)
