"""What is left of a round is left out."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.events.skip_block import skip_block
from lovrit.core.run.going import Going, Happening


def _skip_round(state: Going, event: Happening) -> bool:
    if not is_on(state):
        return False
    here = state.active[0].steps[state.active[0].at].round
    later = [
        nth
        for nth, step in enumerate(state.active[0].steps)
        if here is not None and step.round is not None and step.round > here
    ]
    if not later:
        return skip_block(state, event)
    for lane in state.active:
        state.restart(lane, later[0])
    return True


SKIP_ROUND = Kind(
    "skip-round",
    _skip_round,
    undo="the skipped round",
    leaves_out=True,
    replans=True,
    said=lambda _, __: "a round was left out",
)
