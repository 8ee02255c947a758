"""Run: the coach's screen, the wall, and what both are told."""

from typing import Any

from anyio import to_thread
from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, JSONResponse, RedirectResponse, Response

from lovrit.core.run.classplan import class_plan
from lovrit.core.run.event import Event
from lovrit.core.run.talk import spoken_s, talk
from lovrit.core.tonight.kit import kit_out
from lovrit.formats.cue_track import TONES, track_of
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.house.telling import Watcher, move_cards, state_object, strip_object
from lovrit.store import classes, club, people, sessions, weeks
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import day, page
from lovrit.web.pictures import wall_drawings
from lovrit.web.rights import who_of
from lovrit.web.run.coach import coach_view
from lovrit.web.words import KEYS

router = APIRouter(include_in_schema=False)
MANY_AT_FIRST = 60


@router.get("/run")
def run(request: Request, house: InHouse) -> Response:
    """To the class that is on; to the last ones where none is."""
    floor = floor_of(request)
    with house.database.work() as work:
        on = [one for one in classes.open_ids(work) if one not in floor.aside]
        last = classes.listed(work, 6)
    if on:
        return RedirectResponse(f"/run/{on[-1]}", 303)
    return page(
        request,
        house,
        "run/none.html",
        classes=[(row, day(house, row.made_ms)) for row in last],
        aside=floor.aside,
    )


@router.get("/run/of/{session_id}")
def floor_of_session(request: Request, house: InHouse, session_id: Id) -> Response:
    """To the class of a session that is open; where none is, what it takes to open one."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        open_ = classes.open_of(work, session_id)
        kept = club.talk(work, session_id)
        coming = len(people.comers(work, session_id))
    if open_:
        return RedirectResponse(f"/run/{open_[0].id}", 303)
    plan = house.plan(row.good_text or row.text)
    lines = kept or [line.text for line in talk(class_plan(plan.session, house.library))]
    values: dict[str, Any] = {
        "session": row,
        "coming": coming,
        "kit": kit_out(plan.session, house.library),
        "lines": lines if plan.session.blocks else [],
        "spoken": spoken_s(tuple(lines)),
        "about": house.about,
    }
    return page(request, house, "run/before.html", **values)


@router.get("/run/{class_id}")
def coach(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """The coach's screen."""
    floor = floor_of(request)
    floor.follow(class_id)
    return on_screen(request, house, floor.live(class_id), "coach")


@router.get("/wall/{class_id}")
def wall(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """The wall: groups, stations, time, what is next."""
    return on_screen(request, house, floor_of(request).live(class_id), "wall")


@router.get("/station/{class_id}/{number}")
def station(request: Request, house: InHouse, class_id: Id, number: Id) -> HTMLResponse:
    """One station of a class, large: what is done there, who is here, who comes."""
    return on_screen(request, house, floor_of(request).live(class_id), "wall", number)


@router.get("/run/{class_id}/cues.flac")
def cue_track(request: Request, class_id: Id) -> Response:
    """All cues of a class as a sound file, for any loudspeaker."""
    live = floor_of(request).live(class_id)
    headers = {"Content-Disposition": f'attachment; filename="class-{class_id}-cues.flac"'}
    return Response(track_of(live.run_by), media_type="audio/flac", headers=headers)


def on_screen(
    request: Request,
    house: House,
    live: Live,
    screen: Watcher,
    station: int | None = None,
    base: str = "",
) -> HTMLResponse:
    """A screen of a class; one that was joined by a link goes by its ``base``."""
    now_ms = house.now_ms()
    live.look(now_ms)
    values: dict[str, Any] = {
        "live": live,
        "here": "run",
        "strip": strip_object(live.plan),
        "groups": live.going.groups,
        "state": state_object(live.told(now_ms), now_ms, screen, MANY_AT_FIRST),
        "zone": house.zone,
        "tones": TONES,
        "cards": move_cards(live.run_by),
    }
    if screen == "wall":
        with house.database.work() as work:
            theme = weeks.theme_of(work, f"{house.when(live.made_ms):%Y-%m-%d}")
        values |= {
            "drawings": wall_drawings(live.plan),
            "station": station,
            "base": base,
            "theme": theme,
        }
    if screen == "coach":
        with house.database.work() as work:
            values |= coach_view(live, people.everyone(work), who_of(request))
        values |= {
            "hearts": live.hearts(),
            "keys": KEYS["run"],
            "about": house.about,
        }
    return page(request, house, f"run/{screen}.html", **values)


@router.post("/run/{class_id}/happen")
async def happened(request: Request, class_id: Id, event: Event) -> JSONResponse:
    """Take something that happened; sent twice, it counts once. Where it can't count any more, why is said.

    Presses have threads of their own, so that they wait for no page that takes long.
    """
    floor, who = floor_of(request), who_of(request)
    if who.name:  # it is kept who pressed, whatever the page said
        event = event.but(by=who.name)
    told = await to_thread.run_sync(floor.happen, class_id, event, limiter=floor.presses)
    now_ms = floor.house.now_ms()
    state = await to_thread.run_sync(
        state_object, told.live.told(now_ms), now_ms, "coach", limiter=floor.presses
    )
    return JSONResponse({"state": state, "refused": told.refused})
