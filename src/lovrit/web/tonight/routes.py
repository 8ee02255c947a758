"""The first page: the evening that comes, what is on, what wants its scores; three beginnings where nothing is."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.session.dated import with_date
from lovrit.core.session.rack import rack
from lovrit.demo.club import slate
from lovrit.house.house import House
from lovrit.house.thread import thread_of
from lovrit.store import club, people, sessions
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page, render
from lovrit.web.tonight.view import evening_shown, last_time, meant, still_wanted, then

router = APIRouter(include_in_schema=False)
FIRST = (
    "station-circuit",
    "every-minute",
    "as-many-as-possible",
    "easy-start",
)  # shapes to begin from


@router.get("/")
def tonight(request: Request, house: InHouse) -> Response:
    """The day."""
    with house.database.work() as work:
        session_id = meant(house, work)
    if session_id is None:
        return _beginnings(request, house)
    floor = floor_of(request)
    with house.database.work() as work:
        shown = evening_shown(floor, work, session_id)
        before = last_time(floor, work, session_id)
        wanted = still_wanted(house, work)
        comes = then(house, work, session_id)
    return page(
        request, house, "tonight/page.html", now=shown, before=before, wanted=wanted, then=comes, about=house.about
    )  # fmt: skip


def _beginnings(request: Request, house: House) -> HTMLResponse:
    """A club with nothing in it: three real ways to begin."""
    with house.database.work() as work:
        here = len(people.everyone(work))
    shapes = [one for one in rack() if one.key in FIRST]
    return page(
        request,
        house,
        "tonight/begin.html",
        shapes=shapes,
        people=here,
        about=house.about,
        zone=house.zone,
        sample=slate("winter-hall-4"),
    )


@router.post("/tonight/{session_id}/day")
def on_day(
    house: InHouse, session_id: Id, day: Annotated[str, Form(max_length=40)] = "today"
) -> Response:
    """A session's day, said here: today, or as a day is written anywhere else."""
    on = f"{house.day(day)}"
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        text = with_date(row.text, on)
        written = sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
        row.good_text = with_date(row.good_text, on) if row.good_text else row.good_text
        row.day = on
        work.add(row)
    house.hub.say(f"desk-{session_id}", "version", str(written.version))
    return RedirectResponse("/", 303)


@router.get("/thread/{session_id}")
def thread(house: InHouse, session_id: Id, here: str = "") -> HTMLResponse:
    """A session's steps as they stand, for a page that is open."""
    told = thread_of(house, session_id)
    return HTMLResponse(render(house, "shell/thread.html", thread=told, here=here))


@router.get("/first")
def first_hour(request: Request, house: InHouse) -> Response:
    """How a club begins; it was the first page of an earlier Lovrit."""
    return _beginnings(request, house)


@router.post("/first/on")
def go_on(house: InHouse) -> Response:
    """Begun."""
    with house.database.writing() as work:
        club.begin(work)
    return RedirectResponse("/", 303)
