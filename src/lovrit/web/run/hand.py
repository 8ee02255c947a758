"""In somebody's hand: their own station, version and seconds by a signed link, and nothing of anyone else's."""

from anyio import to_thread
from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, JSONResponse
from pydantic import Field
from sse_starlette import EventSourceResponse

from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.run.event import Event
from lovrit.core.values import LovritError, Value, checked
from lovrit.formats.cue_track import TONES
from lovrit.house.floor import Floor
from lovrit.house.house import House
from lovrit.house.hub import KEEP_ALIVE_S, Message, stream
from lovrit.house.live import Live
from lovrit.house.signed import into_class, numbers_of, still_open
from lovrit.house.telling import MANY, SOON, own_tap, state_object, strip_object
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import InHouse, floor_of
from lovrit.web.pages import page
from lovrit.web.pictures import own_drawings

router = APIRouter(include_in_schema=False)
MAY = ("done", "in", "change", "felt")  # what somebody may press for themselves


class NotYours(LovritError):
    """A press that is the coach's to make."""


class Tap(Value):
    """A press on somebody's own page."""

    id: str = Field(min_length=1, max_length=64)
    kind: str = Field(max_length=24)
    at_ms: int = Field(ge=0, le=2**62)
    value: float | None = Field(default=None, ge=0, le=10)
    of: str | None = Field(default=None, max_length=64)
    place: str | None = Field(default=None, max_length=24)


def _whose(house: House, floor: Floor, token: str) -> tuple[Live, Comer]:
    """The class and the person of a link.

    Raises:
        Gone: if the link isn't one or was ended, or nobody of this number came.
    """
    class_id, person = into_class(house, "hand", token)
    live = floor.live(class_id)
    still_open(house, live.state.over_ms)
    found = next((one for one in live.comers if one.id == person), None)
    if found is None:
        raise Gone("Nobody of this number came to this class.")
    return live, found


@router.get("/hand/{token}")
def hand(request: Request, house: InHouse, token: str) -> HTMLResponse:
    """Somebody's own page: where they are, what they do, their box or effort, and what comes next for them."""
    live, mine = _whose(house, floor_of(request), token)
    now_ms = house.now_ms()
    return page(
        request, house, "run/hand.html", live=live, mine=mine, zone=house.zone, here="run",
        base=f"/hand/{token}", group=letter(mine.group), strip=strip_object(live.plan),
        tones=TONES, state=state_object(live.told(now_ms), now_ms, "hand", MANY, mine),
        drawings=own_drawings(live.plan, mine),
    )  # fmt: skip


@router.get("/hand/{token}/clock")
async def clock(house: InHouse, token: str) -> JSONResponse:
    """The server's clock, for who has a link."""
    numbers_of(house, "hand", token)
    return JSONResponse({"now_ms": house.now_ms()}, headers={"Cache-Control": "no-store"})


@router.get("/hand/{token}/stream")
async def told(request: Request, house: InHouse, token: str) -> EventSourceResponse:
    """How the class stands for somebody, and how it goes on."""
    floor = floor_of(request)
    live, mine = await to_thread.run_sync(_whose, house, floor, token)
    channel = f"hand-{live.id}-{mine.id}"

    async def first() -> list[Message]:
        state = await to_thread.run_sync(floor.stands, live, "hand", mine)
        return [Message(channel, "state", state)]

    said = stream(house.hub, [channel], first)
    return EventSourceResponse(
        said, ping=KEEP_ALIVE_S, sep="\n", headers={"Cache-Control": "no-store"}
    )


@router.post("/hand/{token}/happen")
async def tapped(request: Request, house: InHouse, token: str, tap: Tap) -> JSONResponse:
    """Somebody is in, or done, or says how hard it was: for themselves only."""
    floor = floor_of(request)
    live, mine = await to_thread.run_sync(_whose, house, floor, token)
    event = _event(live, mine, tap)
    happened = await to_thread.run_sync(floor.happen, live.id, event, limiter=floor.presses)
    now_ms = house.now_ms()
    state = await to_thread.run_sync(
        state_object, happened.live.told(now_ms), now_ms, "hand", SOON, mine
    )
    return JSONResponse({"state": state, "refused": happened.refused})


def _event(live: Live, mine: Comer, tap: Tap) -> Event:
    """A press on somebody's own page as an event: of theirs alone, also where they take a tap back.

    Raises:
        NotYours: if it isn't theirs to make.
    """
    last = own_tap(live.fold, live.going, str(mine.id))
    takes_back = tap.kind == "undo" and last is not None and tap.of == last.id
    if tap.kind not in MAY and not takes_back:
        raise NotYours("That is the coach’s to press.")
    own = {"person": mine.id, "lane": str(mine.id), "by": mine.name}
    said = {"id": tap.id, "kind": tap.kind, "at_ms": tap.at_ms, "value": tap.value, "of": tap.of}
    return checked(Event, said | own)
