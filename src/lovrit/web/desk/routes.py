"""Desk: the session's page, and the small posts that change it."""

import json
from datetime import UTC, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response, StreamingResponse
from pydantic import TypeAdapter, ValidationError
from sqlmodel import Session

from lovrit.core.advice.look import blocked, second_look
from lovrit.core.crew.person import Comer, Person
from lovrit.core.session.edits import Edit
from lovrit.core.session.rack import rack
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.timeline.explain import explain
from lovrit.core.values import LovritError
from lovrit.formats.fit_wish import GOALS
from lovrit.formats.sheet import to_sheet
from lovrit.formats.writers import WRITERS, When
from lovrit.settings import known_zone
from lovrit.store import classes, people, sessions
from lovrit.store.sessions import Gone, Written
from lovrit.web.crew.view import dealt
from lovrit.web.desk.completion import completion_words
from lovrit.web.desk.desk import Desk, edited, open_desk
from lovrit.web.house import House, InHouse
from lovrit.web.hub import stream
from lovrit.web.pages import page, render
from lovrit.web.words import KEYS

router = APIRouter()
EDIT: TypeAdapter[Edit] = TypeAdapter(Edit)
MOST_FORM = 2_500_000
GOAL_OF: dict[str, str] = {**dict(zip(GOALS, GOALS, strict=True)), "spare": "slot"}

Op = Annotated[str | None, Form(max_length=64)]
Base = Annotated[int, Form()]
Block = Annotated[int, Form()]


class NotForTheFloor(LovritError):
    """A session that can't be taken to the floor as it is."""


@router.get("/desk/{session_id}")
async def desk(
    request: Request, house: InHouse, session_id: int, block: int | None = None, part: int = 0, why: str = ""
) -> HTMLResponse:
    """The Desk of a session."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    shown = _main_block(opened) if block is None else block
    values = _values(opened, shown, part)
    values["why"] = explain(opened.drawn, why) if why else None
    values["goal"] = GOAL_OF.get(why)
    values["forms"] = [(form, writer.said) for form, writer in WRITERS.items()]
    values["completion"] = json.dumps(completion_words(house.library))
    return page(request, house, "desk/page.html", keys=KEYS["desk"], **values)


def _main_block(opened: Desk) -> int:
    """The block that is opened first: the longest that people move through, else the longest with work."""
    blocks = list(enumerate(opened.drawn.timeline.blocks))
    return max(blocks, key=lambda one: (one[1].kind == "rotate", one[1].work_s), default=(0, None))[0]


def _values(opened: Desk, block: int, part: int) -> dict[str, Any]:
    return {
        "rack": rack(),
        "session": opened.row,
        "written": opened.written,
        "desk": opened.view(block, part),
        "asides": opened.asides,
        "here": "desk",
    }


def _parts(house: House, opened: Desk, block: int, part: int) -> HTMLResponse:
    """Everything that follows the text, to be swapped in where it stands."""
    return HTMLResponse(render(house, "desk/parts.html", **_values(opened, block, part)))


def _told(house: House, session_id: int, written: Written) -> None:
    house.hub.say(f"desk-{session_id}", "version", str(written.version))


def _answer(
    request: Request, house: House, work: Session, session_id: int, written: Written, shown: tuple[int, int]
) -> Response:
    """The parts for a script; the page again for a plain form."""
    opened = open_desk(house, work, session_id, written)
    _told(house, session_id, written)
    if request.headers.get("x-lovrit"):
        return _parts(house, opened, *shown)
    return RedirectResponse(f"/desk/{session_id}?block={shown[0]}&part={shown[1]}", 303)


@router.get("/desk/{session_id}/parts")
async def parts(house: InHouse, session_id: int, block: int = 0, part: int = 0) -> HTMLResponse:
    """What follows the text, as it is now."""
    with house.database.work() as work:
        return _parts(house, open_desk(house, work, session_id), block, part)


@router.post("/desk/{session_id}/text")
async def write(
    request: Request,
    house: InHouse,
    session_id: int,
    text: Annotated[str, Form(max_length=MOST_FORM)],
    base: Base,
    op: Op = None,
    burst: Annotated[str | None, Form(max_length=64)] = None,
    block: Block = 0,
    part: Block = 0,
) -> Response:
    """Take a text as it was typed."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        now_ms = house.now_ms()
        plain = text.replace("\r\n", "\n")
        written = sessions.write_text(work, row, plain, base, op, burst, now_ms)
        return _answer(request, house, work, session_id, written, (block, part))


@router.post("/desk/{session_id}/edit")
async def edit(
    request: Request,
    house: InHouse,
    session_id: int,
    edit: Annotated[str, Form(max_length=MOST_FORM)],
    base: Base,
    op: Op = None,
    burst: Annotated[str | None, Form(max_length=64)] = None,
    block: Block = 0,
    part: Block = 0,
) -> Response:
    """Take an edit by hand, made on version ``base``."""
    try:
        wanted = EDIT.validate_json(edit)
    except ValidationError:
        raise CannotEdit("That edit could not be read.") from None
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        text = row.text if base == row.version else sessions.version_text(work, session_id, base)
        changed = text if sessions.seen(work, session_id, op) else edited(row, text, wanted)
        written = sessions.write_text(work, row, changed, base, op, burst, house.now_ms())
        return _answer(request, house, work, session_id, written, (block, part))


@router.post("/desk/{session_id}/{way}", name="step")
async def step(
    request: Request,
    house: InHouse,
    session_id: int,
    way: str,
    op: Op = None,
    block: Block = 0,
    part: Block = 0,
) -> Response:
    """Undo or redo a step; or take the session to the floor."""
    if way == "floor":
        return _to_the_floor(house, session_id)
    if way not in ("undo", "redo"):
        raise Gone("There is nothing at this address.")
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        written = sessions.step_back(work, row, -1 if way == "undo" else 1, op, house.now_ms())
        return _answer(request, house, work, session_id, written, (block, part))


def _to_the_floor(house: House, session_id: int) -> Response:
    """A class from the session as it stands, unless something has to stop it."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
        comers = people.comers(work, session_id)
        _refuse(opened, house)
        waiting = _waiting(work, session_id, opened.row.text)
        if waiting:
            return RedirectResponse(f"/run/{waiting}", 303)
        sessions.keep_revision(work, opened.row, "taken to the floor", house.now_ms())
        made = classes.make(
            work,
            session_id,
            opened.typed.session.title or "Untitled session",
            opened.row.text,
            _comers(opened, comers, people.everyone(work)),
            house.now_ms(),
        )
    return RedirectResponse(f"/run/{made.id}", 303)


def _waiting(work: Session, session_id: int, text: str) -> int | None:
    """A class of this very session that waits to be started, so that a form sent twice makes one class."""
    for row in classes.open_classes(work):
        same = row.session_id == session_id and row.text == text
        if same and row.id is not None and not classes.events(work, row.id):
            return row.id
    return None


def _comers(opened: Desk, comers: list[tuple[Person, int]], everyone: list[Person]) -> list[Comer]:
    """Who comes; where nobody has said, everyone dealt as a coach would begin."""
    if comers:
        return [Comer(**dict(person), group=group) for person, group in comers]
    return dealt(everyone, opened.typed)


def _refuse(opened: Desk, house: House) -> None:
    if opened.typed.problems:
        first = opened.typed.problems[0]
        raise NotForTheFloor(f"Line {first.line} can't be read yet: {first.text}")
    if not opened.typed.timeline.intervals:
        raise NotForTheFloor("There is nothing on the clock yet.")
    stops = blocked(second_look(opened.typed, house.library, opened.company))
    if stops:
        raise NotForTheFloor(f"It can't be run like this: {stops[0].text}")


@router.get("/desk/{session_id}/why/{figure}")
async def why(house: InHouse, session_id: int, figure: str) -> Response:
    """How a figure came about."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    told = explain(opened.drawn, figure)
    if told is None:
        raise Gone("There is no such figure any more.")
    lines = [opened.drawn.reading.blocks[at].line for at in told.blocks]
    values = {"session": opened.row, "why": told, "lines": lines, "goal": GOAL_OF.get(figure)}
    return HTMLResponse(render(house, "desk/why.html", **values))


@router.get("/desk/{session_id}/session.{form}")
async def download(request: Request, house: InHouse, session_id: int, form: str) -> Response:
    """The session in another form; the print sheet opens as a page."""
    if form not in WRITERS:
        raise Gone("There is no such form.")
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    writer = WRITERS[form]
    when = When(datetime.fromtimestamp(house.now_ms() / 1000, UTC), known_zone(house.settings.time_zone))
    if form == "sheet":
        return HTMLResponse(to_sheet(opened.drawn, request.state.nonce))
    body = opened.row.text if form == "slate" else writer.write(opened.drawn, when)
    name = f"session-{session_id}{writer.suffix}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(body, media_type=writer.media_type, headers=headers)


@router.get("/desk/{session_id}/events")
async def events(request: Request, house: InHouse, session_id: int) -> StreamingResponse:
    """Tells other windows that there is a newer version."""
    with house.database.work() as work:
        version = sessions.get(work, session_id).version
    said = stream(
        house.hub,
        f"desk-{session_id}",
        lambda: [("version", str(version))],
        request.is_disconnected,
    )
    return StreamingResponse(said, media_type="text/event-stream", headers={"Cache-Control": "no-store"})
