"""What somebody scored in a block, or all of them."""

from lovrit.core.run.events.kind import Kind, whole
from lovrit.core.run.going import Going, Happening


def _score(state: Going, event: Happening) -> bool:
    block, text = whole(event.fields.get("block"), -1), str(event.fields.get("text", "")).strip()
    if not 0 <= block < len(state.plan.blocks):
        return False
    who = event.fields.get("person")
    state.scores = [
        one for one in state.scores if (one["block"], one["person"]) != (block, who)
    ] + ([{"block": block, "person": who, "text": text}] if text else [])
    return True


SCORE = Kind(
    "score",
    _score,
    undo="the score",
    takes=("block", "person", "text"),
    afterwards=True,
    shifts=False,
)
