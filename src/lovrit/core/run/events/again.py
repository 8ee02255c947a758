"""A turn is done once more."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening


def _again(state: Going, _: Happening) -> bool:
    """This turn once more, from its work."""
    if not is_on(state):
        return False
    for lane in state.active:
        here = lane.steps[lane.at]
        first = next(
            nth
            for nth, step in enumerate(lane.steps)
            if (step.round, step.turn) == (here.round, here.turn)
        )
        state.restart(lane, first)
    return True


AGAIN = Kind(
    "again",
    _again,
    undo="once more",
    placed=True,
    takes=("place",),
)
