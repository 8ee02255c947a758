"""What is left of a block is left out."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening


def skip_block(state: Going, _: Happening) -> bool:
    """The next block begins."""
    if not is_on(state):
        return False
    state.close()
    state.begin(state.at + 1)
    return True


SKIP_BLOCK = Kind(
    "skip-block",
    skip_block,
    undo="the skipped block",
    leaves_out=True,
    replans=True,
    said=lambda _, __: "a block was left out",
)
