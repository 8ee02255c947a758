"""Debrief: classes that were, listed and opened again; what is said of them afterwards."""

import csv
import io
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response

from lovrit.core.review.scores import score
from lovrit.core.run.event import Event
from lovrit.core.values import LovritError
from lovrit.formats.session_json import to_json
from lovrit.store import classes
from lovrit.web.debrief.learning import learn_again
from lovrit.web.debrief.view import debrief_view
from lovrit.web.house import House, InHouse
from lovrit.web.pages import day, page
from lovrit.web.run.floor import Floor
from lovrit.web.run.routes import floor_of

router = APIRouter()
Op = Annotated[str, Form(min_length=1, max_length=64)]


class NotAnEffort(LovritError):
    """An effort that isn't one."""


@router.get("/debrief")
async def debriefs(request: Request, house: InHouse) -> HTMLResponse:
    """All classes, the newest first."""
    with house.database.work() as work:
        rows = classes.listed(work)
    listed = [(row, day(row.made_ms)) for row in rows]
    return page(request, house, "debrief/list.html", classes=listed)


@router.get("/debrief/{class_id}")
async def debrief(request: Request, house: InHouse, class_id: int, person: int | None = None) -> HTMLResponse:
    """What happened in a class."""
    return _shown(request, house, class_id, person)


def _shown(
    request: Request,
    house: House,
    class_id: int,
    person: int | None,
    refused: tuple[int, str, str] | None = None,
) -> HTMLResponse:
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        traces = classes.traces(work, class_id)
        row = classes.get(work, class_id)
    view = debrief_view(live.plan, live.state, live.comers, traces, person)
    values = {"live": live, "view": view, "when": day(row.made_ms), "refused": refused}
    return page(request, house, "debrief/page.html", status=422 if refused else 200, **values)


def _happen(floor: Floor, class_id: int, **fields: object) -> None:
    floor.happen(class_id, Event.model_validate({"at_ms": 0, **fields}))


@router.post("/debrief/{class_id}/felt")
async def felt(
    request: Request,
    class_id: int,
    op: Op,
    person: Annotated[int, Form()],
    value: Annotated[str, Form(max_length=10)] = "",
) -> Response:
    """The effort that a person felt; empty takes it back."""
    said = value.strip().replace(",", ".")
    try:
        number = float(said) if said else None
    except ValueError:
        number = -1
    if number is not None and not 0 <= number <= 10:
        raise NotAnEffort(f"“{value}” is no effort: it goes from 0, nothing, to 10, all there is.")
    _happen(floor_of(request), class_id, id=op, kind="felt", person=person, value=number)
    return RedirectResponse(f"/debrief/{class_id}?person={person}", 303)


@router.post("/debrief/{class_id}/score")
async def scored(
    request: Request,
    house: InHouse,
    class_id: int,
    op: Op,
    block: Annotated[int, Form(ge=0)],
    text: Annotated[str, Form(max_length=60)] = "",
    person: Annotated[str, Form(max_length=12)] = "",
) -> Response:
    """A block's score, the class's or one person's; an impossible one is refused and stays in its field."""
    floor = floor_of(request)
    plan = floor.live(class_id).plan
    if block >= len(plan.session.blocks):
        raise NotAnEffort("There is no such block in this class.")
    try:
        said = score(plan.session.blocks[block], plan.timeline.blocks[block], text) if text.strip() else ""
    except LovritError as error:
        return _shown(request, house, class_id, None, (block, text, str(error)))
    whose = int(person) if person.isdigit() else None
    _happen(floor, class_id, id=op, kind="score", block=block, text=said, person=whose)
    learn_again(house)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.post("/debrief/{class_id}/note")
async def noted(request: Request, class_id: int, op: Op, text: Annotated[str, Form(max_length=4000)] = "") -> Response:
    """The coach's note."""
    _happen(floor_of(request), class_id, id=op, kind="note", text=text)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.get("/debrief/{class_id}/traces.csv")
async def traces(request: Request, house: InHouse, class_id: int) -> PlainTextResponse:
    """Every reading of every strap: raw, an empty cell where there was no signal."""
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        kept = classes.traces(work, class_id)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["person", "group", "time_utc", "second", "beats_per_minute"])
    begun = live.state.started_ms or 0
    for comer in live.comers:
        for at_ms, bpm in kept.get(comer.id, []):
            when = datetime.fromtimestamp(at_ms / 1000, UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
            second = round((at_ms - begun) / 1000)
            writer.writerow([comer.name, comer.group + 1, when, second, bpm or ""])
    return _download(out.getvalue(), "text/csv; charset=utf-8", f"class-{class_id}-traces.csv")


@router.get("/debrief/{class_id}/session.slate")
async def slate(house: InHouse, class_id: int) -> PlainTextResponse:
    """The session as it went to the floor, to the letter."""
    with house.database.work() as work:
        text = classes.get(work, class_id).text
    return _download(text, "text/plain; charset=utf-8", f"class-{class_id}.slate")


@router.get("/debrief/{class_id}/session.json")
async def session_json(request: Request, class_id: int) -> PlainTextResponse:
    """The session as it went to the floor, in the JSON form."""
    text = to_json(floor_of(request).live(class_id).plan.session)
    return _download(text, "application/json", f"class-{class_id}.json")


def _download(text: str, media_type: str, name: str) -> PlainTextResponse:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(text, media_type=media_type, headers=headers)
