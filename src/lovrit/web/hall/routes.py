"""Hall: the floor to scale as it stands tonight, and stations put on spots by hand."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.store import club, sessions
from lovrit.web.hall.evening import NoHall, answer
from lovrit.web.house import Id, InHouse

router = APIRouter()


@router.get("/hall")
def latest(house: InHouse) -> Response:
    """To the hall of the session that was last worked on."""
    with house.database.work() as work:
        session_id = sessions.latest(work)
    return RedirectResponse(f"/hall/{session_id}" if session_id else "/desk", 303)


@router.get("/hall/{session_id}")
def shown(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """The hall of a session tonight."""
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/pin")
def pin(
    request: Request,
    house: InHouse,
    session_id: Id,
    station: Annotated[str, Form(max_length=200)],
    spot: Annotated[str, Form(max_length=24)] = "",
) -> HTMLResponse:
    """A station put on a spot by hand, where it stays; with no spot it is let loose again."""
    with house.database.writing() as work:
        hall = club.hall(work)
        pinned = {name: at for name, at in hall.pinned.items() if name != station and at != spot}
        if spot:
            if spot not in {one.id for one in hall.spots}:
                raise NoHall("There is no such spot any more.")
            pinned[station] = spot
        club.set_hall(work, hall.but(pinned=pinned))
    return answer(request, house, session_id)
