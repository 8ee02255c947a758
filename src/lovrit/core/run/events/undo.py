"""What came of an event is taken back. The fold does it itself: it needs all that happened."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening


def _by_the_fold(_: Going, __: Happening) -> bool:
    return False


UNDO = Kind(
    "undo",
    _by_the_fold,
    takes=("of",),
    afterwards=True,
    no="It is taken back already, or never counted.",
)
