"""Who may come in: people of the house are invited, invited again, and ended; an owner's deeds."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.rights import Role
from lovrit.house.guests import NotOfTheHouse
from lovrit.web.club.routes import shown
from lovrit.web.inhouse import Id, InHouse

router = APIRouter(include_in_schema=False)


@router.post("/club/people")
def invite(
    request: Request,
    house: InHouse,
    name: Annotated[str, Form(max_length=100)] = "",
    role: Annotated[Role, Form()] = "coach",
) -> HTMLResponse:
    """Somebody new of the house is invited by a link that is shown once."""
    if house.guests is None:
        return shown(request, house)
    try:
        token = house.guests.invite(name, role, house.now_ms())
    except NotOfTheHouse as refused:
        return shown(request, house, refused=(str(refused), name))
    return shown(request, house, (" ".join(name.split()), _link(request, token)))


@router.post("/club/people/{keeper_id}/again")
def invite_again(request: Request, house: InHouse, keeper_id: Id) -> HTMLResponse:
    """A new invitation in the place of an old one, or of a passphrase that was forgotten."""
    if house.guests is None:
        return shown(request, house)
    token = house.guests.invite_again(keeper_id, house.now_ms())
    name = next(one.name for one in house.guests.of_the_house() if one.id == keeper_id)
    return shown(request, house, (name, _link(request, token)))


def _link(request: Request, token: str) -> str:
    return f"{request.url.scheme}://{request.headers.get('host', '')}/invited/{token}"


@router.post("/club/people/{keeper_id}/end")
def end_keeper(house: InHouse, keeper_id: Id) -> Response:
    """Somebody of the house may not come in any more, and is out everywhere."""
    if house.guests:
        house.guests.end(keeper_id, house.now_ms())
    return RedirectResponse("/club#who", 303)
