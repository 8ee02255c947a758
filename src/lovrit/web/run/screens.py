"""Screens in the hall: joined by a short code or a signed link, they show the class and nothing of anybody's health."""

from typing import Annotated

from anyio import to_thread
from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, JSONResponse, RedirectResponse, Response
from sse_starlette import EventSourceResponse

from lovrit.core.crew.groups import letter
from lovrit.house.house import House
from lovrit.house.hub import KEEP_ALIVE_S, Message, stream
from lovrit.house.live import Live
from lovrit.house.signed import ClassLinks, into_class, numbers_of, picture_of, still_open
from lovrit.store import classes, club
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page
from lovrit.web.run.routes import on_screen

router = APIRouter(include_in_schema=False)
WALL = 0  # where a station's number would be


class _Code:
    """An address, and the code that a phone reads it from."""

    def __init__(self, name: str, which: str, url: str, group: str = "") -> None:
        self.name, self.which, self.url, self.group = name, which, url, group
        self.picture = picture_of(url)


@router.get("/run/{class_id}/screens")
def screens(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """All screens of a class as addresses and codes to scan: wall, stations, and each person's own."""
    live = floor_of(request).live(class_id)
    base, links = str(request.base_url).rstrip("/"), ClassLinks(house, live.id)
    shared = {WALL: "Wall"} | {nth: f"Station {nth}" for nth in range(1, stations_in(live) + 1)}
    return page(
        request, house, "run/screens.html", live=live, here="run", code=links.code, join=f"{base}/join",
        shared=[_Code(name, f"screen-{nth}", base + links.to("screen", nth)) for nth, name in shared.items()],
        own=[
            _Code(one.name, f"hand-{one.id}", base + links.to("hand", one.id), letter(one.group))
            for one in live.comers
        ],
        only_here=house.settings.loopback,
    )  # fmt: skip


@router.post("/run/{class_id}/links/end")
def end_links(
    request: Request,
    house: InHouse,
    class_id: Id,
    which: Annotated[str, Form(pattern=r"^(all|(screen|hand)-[0-9]{1,9})$")],
) -> RedirectResponse:
    """A link that was given out ends, or all into this class; screens that are open by it go out at once."""
    live = floor_of(request).live(class_id)
    with house.database.writing() as work:
        club.end_class_links(work, live.id, which)
    own = [f"hand-{live.id}-{one.id}" for one in live.comers if which in ("all", f"hand-{one.id}")]
    shared = [] if which.startswith("hand") else [f"wall-{live.id}"]
    for channel in (*own, *shared):
        house.hub.say(channel, "ended", "")
    return RedirectResponse(f"/run/{live.id}/screens", 303)


def stations_in(live: Live) -> int:
    """The most stations of any block that people move through."""
    moving = (len(block.moves) for block in live.plan.session.blocks if block.moves_people)
    return max(moving, default=0)


@router.get("/join")
def join(request: Request, house: InHouse) -> HTMLResponse:
    """Where a screen in the hall is joined."""
    return page(request, house, "run/join.html", said="", refused="")


@router.post("/join")
def joined(
    request: Request, house: InHouse, code: Annotated[str, Form(max_length=40)] = ""
) -> Response:
    """The wall of the class that a code is of; wrong codes slow down whoever gives them."""
    address, now_ms = request.client.host if request.client else "", house.now_ms()
    guesses = floor_of(request).codes
    wait_s = guesses.begin(address, now_ms)
    said = "".join(code.upper().split())
    if wait_s:
        return _not_joined(request, house, code, f"Too many wrong codes. In {wait_s} s again.", 429)
    with house.database.work() as work:
        open_ids = classes.open_ids(work)
    found = [links for links in (ClassLinks(house, one) for one in open_ids) if links.code == said]
    if not found:
        refused = "No class that is on has this code. It stands on the coach’s screen, under “Other screens”."
        return _not_joined(request, house, code, refused, 422)
    guesses.right(address)
    return RedirectResponse(found[-1].to("screen", WALL), 303)


def _not_joined(
    request: Request, house: House, said: str, refused: str, status: int
) -> HTMLResponse:
    return page(request, house, "run/join.html", status=status, said=said, refused=refused)


@router.get("/screen/{token}")
def screen(request: Request, house: InHouse, token: str) -> HTMLResponse:
    """A wall, or one station, by its link."""
    class_id, station = into_class(house, "screen", token)
    live = floor_of(request).live(class_id)
    still_open(house, live.state.over_ms)
    return on_screen(request, house, live, "wall", station or None, base=f"/screen/{token}")


@router.get("/screen/{token}/clock")
async def clock(house: InHouse, token: str) -> JSONResponse:
    """The server's clock, for a screen in the hall."""
    numbers_of(house, "screen", token)
    return JSONResponse({"now_ms": house.now_ms()}, headers={"Cache-Control": "no-store"})


@router.get("/screen/{token}/stream")
async def told(request: Request, house: InHouse, token: str) -> EventSourceResponse:
    """How the class stands, and how it goes on, as a wall is told it."""
    class_id = (await to_thread.run_sync(into_class, house, "screen", token))[0]
    floor = floor_of(request)
    live = await to_thread.run_sync(floor.live, class_id)
    still_open(house, live.state.over_ms)

    async def first() -> list[Message]:
        state = await to_thread.run_sync(floor.stands, live, "wall")
        return [Message(f"wall-{class_id}", "state", state)]

    said = stream(house.hub, [f"wall-{class_id}"], first)
    return EventSourceResponse(
        said, ping=KEEP_ALIVE_S, sep="\n", headers={"Cache-Control": "no-store"}
    )
