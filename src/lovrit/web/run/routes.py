"""Run: the coach's screen, the wall, and what both are told."""

import json
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, JSONResponse, RedirectResponse, Response, StreamingResponse

from lovrit.core.run.event import Event
from lovrit.core.run.state import advance
from lovrit.store import classes
from lovrit.web.house import House, InHouse
from lovrit.web.hub import stream
from lovrit.web.pages import page
from lovrit.web.run.floor import Floor, Live
from lovrit.web.run.view import Screen, hearts_view, plan_object, state_object, wall_drawings
from lovrit.web.words import KEYS

router = APIRouter()


def floor_of(request: Request) -> Floor:
    """The floor that a request came to."""
    floor: Floor = request.app.state.floor
    return floor


@router.get("/run")
async def run(request: Request, house: InHouse) -> Response:
    """To the class that is on; to the last ones where none is."""
    with house.database.work() as work:
        on = classes.open_classes(work)
        last = classes.listed(work)[:6]
    if on:
        return RedirectResponse(f"/run/{on[-1].id}", 303)
    return page(request, house, "run/none.html", classes=last)


@router.get("/run/{class_id}")
async def coach(request: Request, house: InHouse, class_id: int) -> HTMLResponse:
    """The coach's screen."""
    return _screen(request, house, floor_of(request).live(class_id), "coach")


@router.get("/wall/{class_id}")
async def wall(request: Request, house: InHouse, class_id: int) -> HTMLResponse:
    """The wall: groups, stations, time, what is next."""
    return _screen(request, house, floor_of(request).live(class_id), "wall")


def _screen(request: Request, house: House, live: Live, screen: Screen) -> HTMLResponse:
    state = advance(live.state, house.now_ms())
    values: dict[str, Any] = {
        "live": live,
        "here": "run",
        "plan_json": json.dumps(plan_object(live.plan, live.groups)),
        "state_json": json.dumps(state_object(state, house.now_ms(), screen)),
    }
    if screen == "wall":
        values["drawings"] = wall_drawings(live.plan)
    if screen == "coach":
        values |= {
            "hearts": hearts_view(live.plan, state, live.comers, live.beats),
            "keys": KEYS["run"],
            "hardest": max((one.effort or 0 for one in live.plan.timeline.intervals), default=0),
        }
    return page(request, house, f"run/{screen}.html", **values)


@router.get("/run/{class_id}/events")
async def events(request: Request, house: InHouse, class_id: int, screen: Screen = "wall") -> StreamingResponse:
    """What happens in a class, as it happens."""
    floor = floor_of(request)
    live = floor.live(class_id)

    def first() -> list[tuple[str, str]]:
        state = advance(live.state, house.now_ms())
        told = [("state", json.dumps(state_object(state, house.now_ms(), screen)))]
        return [*told, ("hearts", floor.hearts(live))] if screen == "coach" else told

    said = stream(house.hub, f"{screen}-{class_id}", first, request.is_disconnected)
    return StreamingResponse(said, media_type="text/event-stream", headers={"Cache-Control": "no-store"})


@router.post("/run/{class_id}/happen")
async def happened(request: Request, class_id: int, event: Event) -> JSONResponse:
    """Take something that happened; sent twice, it counts once."""
    floor = floor_of(request)
    live = floor.happen(class_id, event)
    return JSONResponse(state_object(live.state, floor.house.now_ms(), "coach"))


@router.get("/clock")
async def clock(house: InHouse) -> JSONResponse:
    """The server's clock, for browsers to set theirs by."""
    return JSONResponse({"now_ms": house.now_ms()}, headers={"Cache-Control": "no-store"})
