"""A text that may be a slate or the JSON form, planned."""

from lovrit.core.moves.library import Library
from lovrit.core.session.reader import Reading
from lovrit.core.session.session import Session
from lovrit.core.slate.problem import Problem
from lovrit.core.timeline.plan import Plan, plan_reading, plan_session, plan_text
from lovrit.core.values import LovritError


def plan_any(text: str, library: Library) -> Plan:
    """Plan a slate or the JSON form; what is no session is a problem of line 1.

    An empty text is a problem too: there is nothing to plan.
    """
    if not text.strip():
        return _nothing(
            "There is nothing here: a session begins with a block, such as warm-up 8:00 at 3.",
            library,
        )
    if not text.lstrip().startswith("{"):
        plan = plan_text(text, library)
        if not plan.session.blocks and not plan.problems:
            return _nothing(
                "There is no block here: a session begins with one, such as warm-up 8:00 at 3.",
                library,
            )
        return plan
    from lovrit.formats.session_json import from_json  # the schema is not needed for a slate

    try:
        return plan_session(from_json(text), library)
    except LovritError as error:
        return _nothing(str(error), library)


def _nothing(text: str, library: Library) -> Plan:
    problem = Problem(
        line=1, column=1, text=text, expected=("a block",), nearest="warm-up 8:00 at 3"
    )
    return plan_reading(Reading(session=Session(), problems=(problem,)), library)
