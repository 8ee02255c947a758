"""The one stream of a browser, on which all its pages hear of their classes and sessions."""

import re
from typing import Annotated

from anyio import to_thread
from fastapi import APIRouter, Query, Request
from fastapi.responses import JSONResponse
from sse_starlette import EventSourceResponse

from lovrit.core.run.event import MOST_ID
from lovrit.core.run.frozen import UnreadableClass
from lovrit.house.floor import Floor
from lovrit.house.house import House
from lovrit.house.hub import KEEP_ALIVE_S, Message, stream
from lovrit.store import sessions
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import InHouse, floor_of

router = APIRouter(include_in_schema=False)
CHANNEL = re.compile(r"^(coach|wall|desk)-([0-9]{1,19})$", re.ASCII)
MOST_CHANNELS = 40


@router.get("/stream")
async def told(
    request: Request,
    house: InHouse,
    on: Annotated[list[str] | None, Query(max_length=MOST_CHANNELS)] = None,
) -> EventSourceResponse:
    """All that is said on some channels (coach-1, wall-1, desk-1): first how things stand, then as it happens."""
    channels = [one for one in dict.fromkeys(on or []) if CHANNEL.match(one)]
    floor = floor_of(request)

    async def first() -> list[Message]:
        return await to_thread.run_sync(_first, house, floor, channels)

    said = stream(house.hub, channels, first)
    return EventSourceResponse(
        said, ping=KEEP_ALIVE_S, sep="\n", headers={"Cache-Control": "no-store"}
    )


def _first(house: House, floor: Floor, channels: list[str]) -> list[Message]:
    return [message for channel in channels for message in _stands(house, floor, channel)]


def _stands(house: House, floor: Floor, channel: str) -> list[Message]:
    """How things stand on a channel; nothing where there is no such class or session any more."""
    kind, _, number = channel.partition("-")
    if int(number) > MOST_ID:
        return []
    try:
        if kind == "desk":
            with house.database.work() as work:
                return [Message(channel, "version", str(sessions.get(work, int(number)).version))]
        live = floor.live(int(number))
    except (Gone, UnreadableClass):
        return []
    said = [Message(channel, "state", floor.stands(live, kind))]
    return [*said, Message(channel, "hearts", floor.hearts(live))] if kind == "coach" else said


@router.get("/clock")
async def clock(house: InHouse) -> JSONResponse:
    """The server's clock, for browsers to set theirs by."""
    return JSONResponse({"now_ms": house.now_ms()}, headers={"Cache-Control": "no-store"})
