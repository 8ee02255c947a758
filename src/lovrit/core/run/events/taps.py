"""What people end by a tap: they are done, in, or change with their partner."""

from lovrit.core.blocks.floor import Tap
from lovrit.core.run.events.kind import Deed, Kind, is_on
from lovrit.core.run.going import Going, Happening


def _tapped(tap: Tap) -> Deed:
    def deed(state: Going, event: Happening) -> bool:
        named = str(event.fields.get("lane", ""))
        return is_on(state) and state.phase == "on" and state.tap(named, tap)

    return deed


DONE = Kind("done", _tapped("done"), undo="“done”", takes=("lane", "person"))
IN = Kind("in", _tapped("in"), undo="“in”", takes=("lane", "person"))
CHANGE = Kind("change", _tapped("change"), undo="the change", takes=("lane", "person"))
