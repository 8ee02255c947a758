"""What people said of coming, taken over into the groups by one press; from Who and from Tonight."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from lovrit.core.crew.groups import most_stations
from lovrit.house.coming import said_of, take_in, with_them
from lovrit.house.house import House
from lovrit.store import answers, people, sessions
from lovrit.web.crew.onfloor import tell_floor
from lovrit.web.crew.routes import NobodyThere, as_it_runs, coming
from lovrit.web.inhouse import FormId, Id, InHouse, floor_of

router = APIRouter(include_in_schema=False)
Back = Annotated[str, Form(pattern="^(crew|tonight)$")]


def _back(session_id: int, to: str) -> Response:
    return RedirectResponse("/" if to == "tonight" else f"/crew/{session_id}", 303)


def _set(request: Request, house: House, session_id: int, after: dict[int, int]) -> None:
    """Keep who comes, and tell the class that is on."""
    with house.database.writing() as work:
        before = coming(work, session_id)
        people.set_comers(work, session_id, as_it_runs(request, session_id, dict(after)))
    refused = tell_floor(floor_of(request), house, session_id, before, after)
    if refused:
        raise NobodyThere(f"Kept here, but not on the floor: {refused[0]}")


@router.post("/crew/{session_id}/answers/in")
def those_who_come(request: Request, house: InHouse, session_id: Id, to: Back = "crew") -> Response:
    """Those who said that they come and stand in no group are put into the smallest ones."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        some, now = said_of(work, session_id).to_place, coming(work, session_id)
    _set(request, house, session_id, with_them(now, some, most_stations(house.plan(row.text))))
    return _back(session_id, to)


@router.post("/crew/{session_id}/answers/out")
def those_who_cannot(
    request: Request, house: InHouse, session_id: Id, to: Back = "crew"
) -> Response:
    """Those who said that they can't are taken out of their groups."""
    with house.database.work() as work:
        gone, now = said_of(work, session_id).to_take_out, coming(work, session_id)
    left = {who: group for who, group in now.items() if who not in gone}
    _set(request, house, session_id, left)
    return _back(session_id, to)


@router.post("/crew/{session_id}/answers/guest")
def guest(
    request: Request,
    house: InHouse,
    session_id: Id,
    answer: FormId,
    come: Annotated[bool, Form()] = True,
    to: Back = "crew",
) -> Response:
    """A guest is taken in as somebody new, or not."""
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        if not come:
            answers.take_out(work, answer)
            return _back(session_id, to)
        who, now = take_in(work, session_id, answer), coming(work, session_id)
    if who is not None and who not in now:
        stations = most_stations(house.plan(row.text))
        _set(request, house, session_id, with_them(now, (who,), stations))
    return _back(session_id, to)
