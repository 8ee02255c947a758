"""One text on several evenings: a change of it is taken to those that it is for."""

from typing import Annotated

from fastapi import APIRouter, Form
from fastapi.responses import RedirectResponse, Response
from pydantic import Field

from lovrit.core.run.event import MOST_ID
from lovrit.house.evenings import take_there
from lovrit.store import sessions
from lovrit.web.desk.library import describe
from lovrit.web.inhouse import Id, InHouse

router = APIRouter(include_in_schema=False)
Number = Annotated[int, Field(ge=0, le=MOST_ID)]


@router.post("/desk/{session_id}/evenings")
def take(
    house: InHouse, session_id: Id, to: Annotated[list[Number] | None, Form()] = None
) -> Response:
    """Take the text as it stands to other evenings of it."""
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        there = [sessions.get(work, one) for one in take_there(house, work, row, to or [])]
        for one in there:
            describe(one, house.plan(one.text))
        versions = [(one.id, one.version) for one in there]
    for number, version in versions:
        house.hub.say(f"desk-{number}", "version", str(version))
    return RedirectResponse(f"/desk/{session_id}", 303)
