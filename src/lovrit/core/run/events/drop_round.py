"""A block that has not begun has one round fewer."""

from lovrit.core.run.events.kind import Kind, Telling, whole
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.late import with_round_less


def _drop_round(state: Going, event: Happening) -> bool:
    """The last round of a block that has not been begun is left out."""
    at = whole(event.fields.get("block"), state.at)
    return state.phase != "over" and with_round_less(state, at)


def _said(event: Happening, told: Telling) -> str:
    at = told.text(event, "block")
    known = at.isdecimal() and int(at) < len(told.labels)
    return f"one round fewer of {told.labels[int(at)]}" if known else "one round fewer"


DROP_ROUND = Kind(
    "drop-round",
    _drop_round,
    undo="one round fewer",
    takes=("block",),
    leaves_out=True,
    replans=True,
    lasts=True,
    said=_said,
)
