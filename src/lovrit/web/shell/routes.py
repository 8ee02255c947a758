"""The passphrase at the door."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from lovrit.house.guests import DAYS_MS
from lovrit.web.guard import cookie_name
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page

router = APIRouter()


@router.get("/passphrase")
def ask(request: Request, house: InHouse) -> Response:
    """Ask for the passphrase."""
    return page(request, house, "shell/passphrase.html", wrong="", here="")


@router.post("/passphrase")
def answer(
    request: Request, house: InHouse, passphrase: Annotated[str, Form(max_length=1000)] = ""
) -> Response:
    """Take the passphrase, once a browser; whoever guesses waits longer each time."""
    now_ms, address = house.now_ms(), request.client.host if request.client else ""
    wait_s = house.guesses.wait_s(address, now_ms)
    if wait_s:
        said = f"Too many wrong ones. Try again in {wait_s} seconds."
        return page(request, house, "shell/passphrase.html", status=429, wrong=said, here="")
    if house.guests is None or not house.guests.right(passphrase):
        house.guesses.wrong(address, now_ms)
        said = "That is not it. Mind capital letters."
        return page(request, house, "shell/passphrase.html", status=401, wrong=said, here="")
    house.guesses.right(address)
    response = RedirectResponse("/", 303)
    token = house.guests.come_in(
        request.headers.get("user-agent", "a browser that says nothing"), now_ms
    )
    over_tls = request.url.scheme == "https"
    response.set_cookie(
        cookie_name(request),
        token,
        max_age=DAYS_MS // 1000,
        httponly=True,
        samesite="strict",
        secure=over_tls,
    )
    return response
