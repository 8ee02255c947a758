"""The door: a passphrase, with a name where people of the house have one; invitations; going out."""

from typing import Annotated

from fastapi import APIRouter, Form, Path, Request
from fastapi.responses import RedirectResponse, Response

from lovrit.core.rights import Who
from lovrit.house.guests import DAYS_MS, NotOfTheHouse, key_of
from lovrit.house.house import House
from lovrit.settings import LEAST_PASSPHRASE
from lovrit.web.guard import cookie_name, token_of
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
Token = Annotated[str, Path(max_length=64)]


@router.get("/passphrase")
def ask(request: Request, house: InHouse) -> Response:
    """Ask for the passphrase."""
    return _asked(request, house)


def _asked(
    request: Request, house: House, wrong: str = "", name: str = "", status: int = 200
) -> Response:
    named = bool(house.guests and house.guests.named)
    values = {"wrong": wrong, "name": name, "named": named}
    return page(request, house, "shell/passphrase.html", status=status, here="", **values)


@router.post("/passphrase")
def answer(
    request: Request,
    house: InHouse,
    passphrase: Annotated[str, Form(max_length=1000)] = "",
    name: Annotated[str, Form(max_length=100)] = "",
) -> Response:
    """Take a passphrase, once a browser; whoever guesses waits longer each time."""
    now_ms, address = house.now_ms(), _address(request)
    wait_s = house.guesses.begin(address, now_ms)
    if wait_s:
        said = f"Too many wrong ones. Try again in {wait_s} seconds."
        return _asked(request, house, said, name, 429)
    who = house.guests.right(name, passphrase) if house.guests else None
    if who is None:
        return _asked(request, house, "That is not it. Mind capital letters.", name, 401)
    house.guesses.right(address)
    return _in(request, house, who)


def _address(request: Request) -> str:
    return request.client.host if request.client else ""


def _in(request: Request, house: House, who: Who) -> Response:
    """This browser is in, as somebody."""
    assert house.guests is not None
    response = RedirectResponse("/", 303)
    said = request.headers.get("user-agent", "a browser that says nothing")
    token = house.guests.come_in(said, house.now_ms(), who)
    response.set_cookie(
        cookie_name(request),
        token,
        max_age=DAYS_MS // 1000,
        httponly=True,
        samesite="strict",
        secure=request.url.scheme == "https",
    )
    return response


@router.get("/invited/{token}")
def invited(request: Request, house: InHouse, token: Token) -> Response:
    """An invitation: the one who holds it chooses a passphrase."""
    return _invited(request, house, token)


def _invited(request: Request, house: House, token: str, wrong: str = "") -> Response:
    row = house.guests.invited(token, house.now_ms()) if house.guests else None
    values = {"row": row, "token": token, "wrong": wrong, "least": LEAST_PASSPHRASE}
    status = 404 if row is None else 422 if wrong else 200
    return page(request, house, "shell/invited.html", status=status, here="", **values)


@router.post("/invited/{token}")
def accepted(
    request: Request,
    house: InHouse,
    token: Token,
    passphrase: Annotated[str, Form(max_length=1000)] = "",
) -> Response:
    """They come in with the passphrase that they chose."""
    if house.guests is None:
        return _invited(request, house, token)
    try:
        who = house.guests.accept(token, passphrase, house.now_ms())
    except NotOfTheHouse as refused:
        return _invited(request, house, token, str(refused))
    return _in(request, house, who)


@router.post("/out")
def out(request: Request, house: InHouse) -> Response:
    """This browser goes out."""
    if house.guests:
        house.guests.let_go(key_of(token_of(request)))
    return RedirectResponse("/passphrase" if house.guests else "/", 303)
