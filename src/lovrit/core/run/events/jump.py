"""To another place of the plan, by the tape."""

from lovrit.core.run.events.kind import Kind, is_on
from lovrit.core.run.going import Going, Happening


def _jump(state: Going, event: Happening) -> bool:
    """To a step of the plan; where lanes walk for themselves, to the beginning of its block."""
    said, _, nth = str(event.fields.get("to", "")).partition(".")
    at = int(said) if said.isdecimal() else len(state.plan.blocks)
    if not is_on(state) or at >= len(state.plan.blocks) or not state.plan.blocks[at].floor.steps:
        return False
    state.close()
    state.begin(at)
    for lane in state.active if state.floor.lanes == "all" and nth.isdecimal() else []:
        lane.at = min(int(nth), len(lane.steps) - 1)
    return True


JUMP = Kind(
    "jump",
    _jump,
    undo="the jump",
    takes=("to",),
    said=lambda _, __: "jumped by the tape",
    no="There is no such place in what is left of the plan.",
)
