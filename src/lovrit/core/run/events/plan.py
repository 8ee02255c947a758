"""A way to end on time is taken."""

from lovrit.core.run.events.kind import Kind, Telling, is_on
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.late import plan_in_words, plan_taken


def _plan(state: Going, event: Happening) -> bool:
    return is_on(state) and plan_taken(state, str(event.fields.get("way", "")))


def _said(event: Happening, told: Telling) -> str:
    return plan_in_words(told.text(event, "way"), told.session)


PLAN = Kind(
    "plan",
    _plan,
    undo="the new plan",
    takes=("way",),
    replans=True,
    lasts=True,
    said=_said,
    no="That way is not open any more.",
)
