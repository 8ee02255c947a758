"""Hall: the floor to scale as it stands tonight, and stations put on spots by hand."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.place.wishes import NEVER_A_MUST, WEIGHTS, Wishes
from lovrit.core.values import checked, names_of
from lovrit.store import halls, sessions
from lovrit.web.hall.answer import NoHall, answer
from lovrit.web.inhouse import Id, InHouse, WholeForm

router = APIRouter(include_in_schema=False)


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
        hall = halls.hall(work, session_id)
        pinned = {name: at for name, at in hall.pinned.items() if name != station and at != spot}
        if spot:
            if spot not in {one.id for one in hall.spots}:
                raise NoHall("There is no such spot any more.")
            pinned[station] = spot
        halls.set_hall(work, hall.but(pinned=pinned), session_id)
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/in")
def in_which(
    request: Request,
    house: InHouse,
    session_id: Id,
    hall: Annotated[str, Form(max_length=60)],
) -> HTMLResponse:
    """The hall that a session is in; a name that none has is a new one, to be drawn."""
    name = " ".join(hall.split())
    if not name:
        raise NoHall("A hall needs a name.")
    with house.database.writing() as work:
        halls.take(work, session_id, name)
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/out")
def take_out(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Let the hall of a session go, with what is drawn of it."""
    with house.database.writing() as work:
        halls.take_out(work, halls.hall(work, session_id).name)
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/any-order")
def any_order(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Let an order that was given by hand loose: the next placing may find another."""
    with house.database.writing() as work:
        halls.keep_order(work, session_id, ())
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/wish")
def wish(request: Request, house: InHouse, session_id: Id, form: WholeForm) -> HTMLResponse:
    """How much each wish weighs, tonight or for the club; and whether levels are mixed or alike."""
    said = {name: str(form[name]) for name in names_of(Wishes) if name in form}
    if any(weight not in WEIGHTS for weight in said.values()):
        raise NoHall(f"A wish weighs {', '.join(WEIGHTS)}.")
    if any(said.get(name) == "must" for name in NEVER_A_MUST):
        raise NoHall("That can be wished for, but is no must.")
    with house.database.writing() as work:
        halls.set_wishes(work, session_id, checked(Wishes, said), club=bool(form.get("club")))
        halls.mix(work, session_id, form.get("levels-how", "mixed") == "mixed")
    return answer(request, house, session_id)
