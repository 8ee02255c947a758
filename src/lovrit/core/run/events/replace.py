"""Another move at a station for the rest of the class; or nobody works there."""

from lovrit.core.run.board import CLOSED
from lovrit.core.run.events.kind import Kind, Telling
from lovrit.core.run.going import Going, Happening


def _replace(state: Going, event: Happening) -> bool:
    station, move = str(event.fields.get("station", "")), str(event.fields.get("move", "")).strip()
    names = {line.name for block in state.plan.blocks for line in block.block.moves}
    if not move or station not in names:
        return False
    state.moves[station] = move
    return True


def _said(event: Happening, told: Telling) -> str:
    station, move = told.text(event, "station"), told.text(event, "move")
    return f"{station} {'was closed' if move == CLOSED else f'became {move}'}"


REPLACE = Kind(
    "replace",
    _replace,
    undo="the other move",
    takes=("station", "move"),
    replans=True,
    said=_said,
)
