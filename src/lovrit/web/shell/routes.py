"""The front door and the passphrase."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response
from itsdangerous import URLSafeSerializer

from lovrit.store import sessions
from lovrit.web.guard import COOKIE, right
from lovrit.web.house import InHouse
from lovrit.web.pages import page

router = APIRouter()


@router.get("/")
async def front_door(house: InHouse) -> Response:
    """To the session that was last worked on."""
    with house.database.work() as work:
        rows = sessions.listed(work)
    return RedirectResponse(f"/desk/{rows[0].id}" if rows else "/desk", 303)


@router.get("/passphrase")
async def ask(request: Request, house: InHouse) -> Response:
    """Ask for the passphrase."""
    return page(request, house, "shell/passphrase.html", wrong=False, here="")


@router.post("/passphrase")
async def answer(request: Request, house: InHouse, passphrase: Annotated[str, Form()] = "") -> Response:
    """Take the passphrase, once a browser."""
    if not right(house.settings, passphrase):
        return page(request, house, "shell/passphrase.html", status=401, wrong=True, here="")
    response = RedirectResponse("/", 303)
    signed = URLSafeSerializer(request.app.state.secret, salt="passphrase").dumps(passphrase)
    response.set_cookie(COOKIE, signed, max_age=180 * 86_400, httponly=True, samesite="strict")
    return response
