"""The talk before a class: written from its figures, changed line by line, kept with the session."""

from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.review.turns import asked_most
from lovrit.core.run.talk import Said, spoken_s, talk
from lovrit.house.coming import said_of
from lovrit.house.house import House
from lovrit.house.lately import watched
from lovrit.house.live import Live
from lovrit.house.noted import last_note
from lovrit.store import club
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
LONGEST = 8000


def lines_of(house: House, live: Live) -> tuple[Said, ...]:
    """What is said: as it was changed for this session, else as it is written from the class."""
    with house.database.work() as work:
        kept = club.talk(work, live.session_id)
    if not kept:
        return talk(live.run_by)
    return tuple(Said(about="own", text=line) for line in kept)


def spoken(house: House, live: Live) -> int:
    """Seconds that the talk takes."""
    return spoken_s(tuple(line.text for line in lines_of(house, live)))


@router.get("/run/{class_id}/talk")
def shown(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """The talk, to be read off in a minute or two, with whom to watch."""
    live = floor_of(request).live(class_id)
    lines = lines_of(house, live)
    floor = floor_of(request)
    with house.database.work() as work:
        words = {} if live.session_id is None else said_of(work, live.session_id).words
        hardest = asked_most(live.plan.timeline) or 0.0
        noted = last_note(house, work, live.session_id, before=live.id)
        watch = watched(floor, work, [(one, one.group) for one in live.comers], hardest, words)
    values: dict[str, Any] = {
        "live": live,
        "lines": lines,
        "own": any(line.about == "own" for line in lines),
        "spoken": spoken_s(tuple(line.text for line in lines)),
        "setup": live.plan.session.setup_s,
        "watch": watch,
        "noted": noted,
    }
    return page(request, house, "run/talk.html", here="run", **values)


@router.post("/run/{class_id}/talk")
def changed(
    request: Request,
    house: InHouse,
    class_id: Id,
    text: Annotated[str, Form(max_length=LONGEST)] = "",
) -> Response:
    """Keep it as it was changed; with nothing in it it is written anew."""
    live = floor_of(request).live(class_id)
    lines = [" ".join(line.split()) for line in text.splitlines() if line.strip()]
    written = [line.text for line in talk(live.run_by)]
    with house.database.writing() as work:
        club.set_talk(work, live.session_id, [] if lines == written else lines)
    return RedirectResponse(f"/run/{class_id}/talk", 303)
