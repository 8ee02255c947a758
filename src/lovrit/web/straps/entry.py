"""The door for straps: anything that reads hearts sends its readings here, over HTTP or a WebSocket.

A message is {"straps": [{"id", "bpm", …}]}; docs/straps.md says what else may stand in it.
"""

import hmac
from hashlib import sha256
from typing import Annotated, Any
from urllib.parse import urlsplit

from anyio import to_thread
from fastapi import APIRouter, Request, WebSocket, WebSocketDisconnect
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from lovrit.house.house import House
from lovrit.store import straps
from lovrit.straps.outside import Reading
from lovrit.straps.payload import NotAMeasurement, read_measurement
from lovrit.web.guard import LOCAL_HOSTS
from lovrit.web.inhouse import InHouse

MOST_TEXT = 64 * 1024  # letters of one message over a WebSocket; a few straps tell a few hundred
router = APIRouter(include_in_schema=False)
MOST_AT_ONCE = 500


class Told(BaseModel):
    """What one strap tells: beats, or the bytes of a standard measurement as hexadecimal."""

    model_config = ConfigDict(extra="forbid")

    id: Annotated[str, Field(min_length=1, max_length=64, pattern=r"^[\w .:\-]+$")]
    bpm: Annotated[int | None, Field(ge=0, le=300)] = None
    measurement: Annotated[str | None, Field(max_length=120, pattern=r"^([0-9a-fA-F]{2})+$")] = None
    at_ms: Annotated[int | None, Field(ge=0, le=2**53)] = None
    contact: bool | None = None
    battery: Annotated[int | None, Field(ge=0, le=100)] = None
    shaken: bool = False


class Message(BaseModel):
    """What is sent at once."""

    model_config = ConfigDict(extra="forbid")

    straps: Annotated[list[Told], Field(max_length=MOST_AT_ONCE)]


def key_of(house: House) -> str:
    """What a strap shows to be let in where the club has a passphrase; it opens nothing else."""
    return hmac.new(house.secret.encode(), b"straps", sha256).hexdigest()[:32]


def _let_in(house: House, said: str | None) -> bool:
    shown = (said or "").removeprefix("Bearer ")
    return house.guests is None or hmac.compare_digest(shown.encode(), key_of(house).encode())


def take(house: House, message: Message) -> dict[str, Any]:
    """Take readings; how many, and why any was not."""
    now_ms, taken, refused = house.now_ms(), 0, []
    for one in message.straps:
        try:
            reading = _reading(one, now_ms)
        except NotAMeasurement as error:
            refused.append({"id": one.id, "why": str(error)})
            continue
        if house.outside.take(reading, now_ms):
            taken += 1
            if reading.shaken and house.outside.waits is not None:
                _found(house, one.id)
        else:
            refused.append({"id": one.id, "why": "There are too many straps."})
    return {"taken": taken, "refused": refused}


def _reading(one: Told, now_ms: int) -> Reading:
    at_ms = one.at_ms if one.at_ms is not None else now_ms
    if one.measurement is not None:
        read = read_measurement(bytes.fromhex(one.measurement))
        return Reading(one.id, at_ms, min(read.bpm, 300), read.contact, one.battery, one.shaken)
    if one.bpm is None:
        raise NotAMeasurement("There are neither beats nor a measurement in it.")
    return Reading(one.id, at_ms, one.bpm, one.contact, one.battery, one.shaken)


def _found(house: House, strap: str) -> None:
    """The strap that was shaken is that of whom was asked for."""
    person, house.outside.waits = house.outside.waits, None
    with house.database.writing() as work:
        straps.wear(work, strap, person)


@router.post("/straps/beats")
def beats(request: Request, house: InHouse, message: Message) -> JSONResponse:
    """Readings over HTTP."""
    if not _let_in(house, request.headers.get("authorization")):
        return JSONResponse(
            {"why": "The straps’ key is missing or wrong; it stands on the page Straps."}, 401
        )
    return JSONResponse(take(house, message))


@router.get("/straps/beats/asked")
def asked(request: Request, house: InHouse) -> JSONResponse:
    """What each wearer is asked for at this moment (share of reserve), so that a strap that is played can answer."""
    if not _let_in(house, request.headers.get("authorization")):
        return JSONResponse({"why": "The straps’ key is missing or wrong."}, 401)
    now_ms = house.now_ms()
    on = [
        live
        for live in request.app.state.floor.lives.values()
        if live.state.phase in ("on", "held")
    ]
    asked = {
        str(comer.id): round(live.demands.at(live.state, now_ms, comer.id), 3)
        for live in on
        for comer in live.comers
    }
    return JSONResponse({"people": asked, "on": bool(on)})


@router.websocket("/straps/beats")
async def live(socket: WebSocket) -> None:
    """The same messages over a WebSocket, each answered with what was taken of it."""
    house: House = socket.app.state.house
    if not _may_come(house, socket):
        await socket.close(4401)
        return
    await socket.accept()
    try:
        while True:
            text = await socket.receive_text()
            if len(text) > MOST_TEXT:
                await socket.close(1009)
                return
            await socket.send_json(await to_thread.run_sync(_taken, house, text))
    except WebSocketDisconnect:
        return


def _taken(house: House, text: str) -> dict[str, Any]:
    """What was taken of a message, in a thread: a disk that is held by something else stops no clock."""
    try:
        return take(house, Message.model_validate_json(text))
    except ValidationError as error:
        return {"taken": 0, "why": error.errors()[0]["msg"]}


def _may_come(house: House, socket: WebSocket) -> bool:
    """Whether a socket comes by this machine's name, from its own pages or none, with the key where it is asked."""
    host = socket.headers.get("host", "")
    bare = host.rsplit(":", 1)[0] if not host.endswith("]") else host
    if house.settings.loopback and bare not in LOCAL_HOSTS | set(house.settings.hosts):
        return False
    origin = socket.headers.get("origin")
    if origin and urlsplit(origin).netloc != host:
        return False
    return _let_in(house, socket.headers.get("authorization") or socket.query_params.get("key"))
