"""Revisions: kept by name, compared side by side with what changed in figures, taken back."""

from difflib import SequenceMatcher
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.clock import minutes, ratio
from lovrit.core.recast.revised import revised
from lovrit.core.run.event import MOST_ID
from lovrit.core.timeline.plan import Plan
from lovrit.store import sessions
from lovrit.web.desk.tape import Tape, Tick, tape_view
from lovrit.web.inhouse import Id, InHouse
from lovrit.web.pages import day, page

router = APIRouter(include_in_schema=False)
MOST_PAIRS = 2000
At = Annotated[int, Query(ge=0, le=MOST_ID)]


class Beside(NamedTuple):
    """A line on both sides; ``how`` is same, changed, gone or new."""

    how: str
    left: str
    right: str


class Changed(NamedTuple):
    """A figure on both sides."""

    name: str
    left: str
    right: str


def side_by_side(left: str, right: str) -> list[Beside]:
    """Two texts, line beside line."""
    a, b = left.split("\n"), right.split("\n")
    pairs: list[Beside] = []
    for tag, a1, a2, b1, b2 in SequenceMatcher(None, a, b).get_opcodes():
        how = {"equal": "same", "replace": "changed", "delete": "gone", "insert": "new"}[tag]
        for nth in range(min(MOST_PAIRS - len(pairs), max(a2 - a1, b2 - b1))):
            one = a[a1 + nth] if a1 + nth < a2 else ""
            two = b[b1 + nth] if b1 + nth < b2 else ""
            pairs.append(Beside(how, one, two))
    return pairs


def figures(plans: list[Plan]) -> list[Changed]:
    """What two sessions come to: total, work, rest, ratio."""
    lines = [plan.timeline for plan in plans]
    ratios = [ratio(*plan.sums.ratio) for plan in plans]
    return [
        Changed("in all", *(minutes(line.total_s) for line in lines)),
        Changed("work", *(minutes(line.work_s) for line in lines)),
        Changed("rest", *(minutes(line.rest_s) for line in lines)),
        Changed("work to rest", *ratios),
    ]


class Overlaid(NamedTuple):
    """Two tapes on one scale: each with its words, and how much of the width it has in percent."""

    tapes: tuple[tuple[str, Tape, float], ...]
    ticks: tuple[Tick, ...]


def overlaid(plans: list[Plan], words: tuple[str, str]) -> Overlaid:
    """The tapes of two sessions over one another, the longer of them as wide as there is."""
    tapes = [tape_view(plan, -1) for plan in plans]
    longest = max(1, *(tape.seconds for tape in tapes))
    scale = max(tapes, key=lambda tape: tape.seconds).ticks
    shares = (round(100 * tape.seconds / longest, 3) for tape in tapes)
    return Overlaid(tuple(zip(words, tapes, shares, strict=True)), scale)


@router.get("/desk/{session_id}/revisions")
def revisions(
    request: Request, house: InHouse, session_id: Id, left: At = 0, right: At = 0
) -> HTMLResponse:
    """Revisions of a session, any two side by side; 0 is the session as it stands."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        kept = sessions.revisions(work, session_id)
        if not left and kept:
            left = kept[0].id or 0
        texts = [
            sessions.revision(work, session_id, at).text if at else row.text for at in (left, right)
        ]
    listed = [(one, day(house, one.at_ms)) for one in kept]
    values: dict[str, Any] = {
        "session": row,
        "kept": listed,
        "left": left,
        "right": right,
        "here": "desk",
    }
    plans = [house.plan(text) for text in texts]
    named = {one.id or 0: one.reason for one in kept} | {0: "as it stands"}
    values |= {
        "pairs": side_by_side(*texts),
        "changes": figures(plans),
        "overlaid": overlaid(plans, (named.get(left, ""), named.get(right, ""))),
        "said": revised(*plans),
    }
    return page(request, house, "desk/revisions.html", **values)


@router.post("/desk/{session_id}/revisions")
def keep(
    house: InHouse, session_id: Id, reason: Annotated[str, Form(max_length=200)] = ""
) -> Response:
    """Keep the session as it stands, with a reason."""
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        sessions.keep_revision(work, row, " ".join(reason.split()) or "kept", house.now_ms())
    return RedirectResponse(f"/desk/{session_id}/revisions", 303)


@router.post("/desk/{session_id}/revisions/{revision_id}/take")
def take_back(house: InHouse, session_id: Id, revision_id: Id) -> Response:
    """Take a revision's text back; that too can be undone."""
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        text = sessions.revision(work, session_id, revision_id).text
        sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
    house.hub.say(f"desk-{session_id}", "version", str(row.version))
    return RedirectResponse(f"/desk/{session_id}", 303)
