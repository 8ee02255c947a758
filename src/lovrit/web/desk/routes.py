"""Desk: the session's page, and the small posts that change it."""

from datetime import date
from typing import Annotated, NamedTuple

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from pydantic import TypeAdapter, ValidationError
from sqlmodel import Session as Work

from lovrit.core.advice.look import blocked, second_look
from lovrit.core.crew.person import coming
from lovrit.core.place.hall import order_of
from lovrit.core.run.event import MOST_ID
from lovrit.core.run.frozen import freeze
from lovrit.core.session.edits import Edit, MoveStation, OrderStations
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.timeline.explain import explain
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError
from lovrit.formats.fit_wish import GOALS
from lovrit.formats.sheet import to_sheet
from lovrit.formats.writers import WRITERS, When
from lovrit.house.house import House
from lovrit.house.noted import last_note
from lovrit.store import classes, halls, people, sessions, weeks
from lovrit.store.sessions import Gone, Written
from lovrit.store.tables import ClassRow
from lovrit.web.bodies import MOST
from lovrit.web.desk.ahead import ahead_of
from lovrit.web.desk.completion import completion_words
from lovrit.web.desk.desk import Desk, edited, keep_good, open_desk
from lovrit.web.desk.message import message_of
from lovrit.web.desk.parts import Shown, parts_of, values_of
from lovrit.web.inhouse import FormId, Id, InHouse
from lovrit.web.pages import day, page, render
from lovrit.web.words import KEYS

router = APIRouter(include_in_schema=False)
EDIT: TypeAdapter[Edit] = TypeAdapter(Edit)
GOAL_OF: dict[str, str] = {**dict(zip(GOALS, GOALS, strict=True)), "spare": "slot"}

Op = Annotated[str | None, Form(max_length=64)]
Base = FormId
BlockForm = Annotated[int, Form(ge=-1, le=MOST_ID)]
At = Annotated[int, Query(ge=-1, le=MOST_ID)]


class NotForTheFloor(LovritError):
    """A session that can't be taken to the floor as it is."""


@router.get("/desk/{session_id}")
def desk(
    request: Request,
    house: InHouse,
    session_id: Id,
    block: At | None = None,
    part: At = 0,
    why: str = "",
    sent: bool = False,
) -> HTMLResponse:
    """The Desk of a session; ``sent`` with the message beside that it was made from."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
        theme = weeks.theme_of(work, opened.row.day)
        noted = last_note(house, work, session_id)
        shown = main_block(opened.drawn) if block is None else block
        ahead = ahead_of(house, work, opened.row, (shown, part))
    values = values_of(opened, Shown(shown, part)) | {"ahead": ahead}
    values["why"] = explain(opened.drawn, why) if why else None
    values["goal"] = GOAL_OF.get(why)
    values["theme"], values["noted"] = theme, noted
    values |= message_of(house, session_id, opened.row.text) if sent else {"message": None}
    values["forms"] = [(form, writer.said) for form, writer in WRITERS.items()]
    values["completion"] = completion_words(house.library)
    return page(request, house, "desk/page.html", keys=KEYS["desk"], **values)


def main_block(plan: Plan) -> int:
    """The block that is opened first: the longest that people move through, else the longest with work."""
    blocks = list(enumerate(plan.timeline.blocks))
    return max(
        blocks,
        key=lambda one: (plan.session.blocks[one[0]].circuit, one[1].work_s),
        default=(0, None),
    )[0]


def _told(house: House, session_id: int, written: Written) -> None:
    house.hub.say(f"desk-{session_id}", "version", str(written.version))


class Post(NamedTuple):
    """A text as somebody wants it: on which version, which post it is, and of which burst of typing.

    ``ordered`` where it gives the stations an order by hand.
    """

    text: str
    base: int
    op: str | None
    burst: str | None
    ordered: bool = False


def _take(request: Request, house: House, session_id: int, post: Post, shown: Shown) -> Response:
    """Write a text down, planned before so that the file is held shortly; then answer."""
    plan = house.plan(post.text)
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        written = sessions.write_text(
            work, row, post.text, post.base, post.op, post.burst, house.now_ms()
        )
        as_planned = row.text == post.text
        if as_planned:
            keep_good(work, row, plan)
            if post.ordered:
                halls.keep_order(work, session_id, order_of(plan))
    return _answer(request, house, session_id, written, shown, plan if as_planned else None)


def _answer(
    request: Request,
    house: House,
    session_id: int,
    written: Written,
    shown: Shown,
    plan: Plan | None = None,
) -> Response:
    """The parts for a script; the page again for a plain form. What was written is on the disk by now."""
    _told(house, session_id, written)
    with house.database.work() as work:
        opened = open_desk(house, work, session_id, written, plan)
    if request.headers.get("x-lovrit"):
        return parts_of(house, opened, shown)
    return RedirectResponse(f"/desk/{session_id}?block={shown.block}&part={shown.part}", 303)


@router.get("/desk/{session_id}/parts")
def parts(
    house: InHouse, session_id: Id, block: At = 0, part: At = 0, line: At = 0
) -> HTMLResponse:
    """What follows the text, as it is now."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    return parts_of(house, opened, Shown(block, part, line))


@router.get("/desk/{session_id}/ahead")
def ahead(house: InHouse, session_id: Id, block: At = 0, part: At = 0) -> HTMLResponse:
    """What the open block is likely to come to for those who come."""
    with house.database.work() as work:
        told = ahead_of(house, work, sessions.get(work, session_id), (block, part))
    return HTMLResponse(render(house, "desk/ahead.html", ahead=told))


@router.post("/desk/{session_id}/text")
def write(
    request: Request,
    house: InHouse,
    session_id: Id,
    base: Base,
    text: Annotated[str, Form(max_length=MOST)] = "",
    op: Op = None,
    burst: Annotated[str | None, Form(max_length=64)] = None,
    block: BlockForm = 0,
    part: BlockForm = 0,
    line: BlockForm = 0,
) -> Response:
    """Take a text as it was typed, with the cursor on a line."""
    return _take(
        request,
        house,
        session_id,
        Post(text.replace("\r\n", "\n"), base, op, burst),
        Shown(block, part, line),
    )


@router.post("/desk/{session_id}/edit")
def edit(
    request: Request,
    house: InHouse,
    session_id: Id,
    edit: Annotated[str, Form(max_length=MOST)],
    base: Base,
    op: Op = None,
    burst: Annotated[str | None, Form(max_length=64)] = None,
    block: BlockForm = 0,
    part: BlockForm = 0,
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
    if not text.strip():
        block = main_block(
            house.plan(changed)
        )  # a session from the rack: what it is about is shown
    ordered = isinstance(wanted, (MoveStation, OrderStations))
    post = Post(changed, base, op, burst, ordered)
    return _take(request, house, session_id, post, Shown(block, part))


@router.post("/desk/{session_id}/{way}", name="step")
def step(
    request: Request,
    house: InHouse,
    session_id: Id,
    way: str,
    op: Op = None,
    block: BlockForm = 0,
    part: BlockForm = 0,
    anew: Annotated[bool, Form()] = False,
) -> Response:
    """Undo or redo a step; or take the session to the floor."""
    if way == "floor":
        return _to_the_floor(request, house, session_id, anew)
    if way not in ("undo", "redo"):
        raise Gone("There is nothing at this address.")
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        written = sessions.step_back(work, row, -1 if way == "undo" else 1, op, house.now_ms())
    return _answer(request, house, session_id, written, Shown(block, part))


def _to_the_floor(request: Request, house: House, session_id: int, anew: bool) -> Response:
    """A class from the session as it stands, unless something has to stop it.

    A form sent twice makes one class. Where a class of this session is on already, which one is meant is asked.
    """
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
        comers = [coming(one, at) for one, at in people.comers(work, session_id)]
        on = [] if anew else _on(work, session_id)
    _refuse(opened, house)
    waiting = next((row.id for row, begun in on if not begun and row.text == opened.row.text), None)
    if waiting:
        return RedirectResponse(f"/run/{waiting}", 303)
    if on:
        listed = [(row, day(house, row.made_ms), begun) for row, begun in on]
        return page(request, house, "run/which.html", here="run", session=opened.row, on=listed)
    with house.database.writing() as work:
        sessions.keep_revision(work, opened.row, "taken to the floor", house.now_ms())
        title = opened.typed.session.title or "Untitled session"
        frozen = freeze(opened.typed)
        made = classes.make(
            work, session_id, title, opened.row.text, comers, house.now_ms(), frozen
        )
    return RedirectResponse(f"/run/{made.id}", 303)


def _on(work: Work, session_id: int) -> list[tuple[ClassRow, bool]]:
    """The classes of a session that are not over, and whether each has begun."""
    return [
        (row, classes.has_begun(work, row.id or 0)) for row in classes.open_of(work, session_id)
    ]


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
def why(house: InHouse, session_id: Id, figure: str) -> Response:
    """How a figure came about."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    told = explain(opened.drawn, figure)
    if told is None:
        raise Gone("There is no such figure any more.")
    both = (opened.drawn.reading.blocks, opened.drawn.timeline.blocks)
    lines = [(both[0][at].line, both[1][at].label) for at in told.blocks]
    values = {
        "oob": True,
        "session": opened.row,
        "why": told,
        "lines": lines,
        "goal": GOAL_OF.get(figure),
    }
    return HTMLResponse(render(house, "desk/why.html", **values))


@router.get("/desk/{session_id}/session.{form}")
def download(
    request: Request,
    house: InHouse,
    session_id: Id,
    form: str,
    day: Annotated[str, Query(max_length=10)] = "",
) -> Response:
    """The session in another form; the print sheet opens as a page, and a calendar without a day asks for one."""
    if form not in WRITERS:
        raise Gone("There is no such form.")
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    if form == "ics" and opened.drawn.session.date is None:
        known = _day(day)
        if known is None:
            wrong = f"“{day}” is no day; write it as 2026-11-30." if day else ""
            return page(
                request,
                house,
                "desk/day.html",
                here="desk",
                session=opened.row,
                day=day,
                wrong=wrong,
            )
        opened.drawn = opened.drawn.on_day(known)
    writer = WRITERS[form]
    when = When(house.when(house.now_ms()), house.zone)
    if form == "sheet":
        return HTMLResponse(to_sheet(opened.drawn, request.state.nonce))
    body = opened.row.text if form == "slate" else writer.write(opened.drawn, when)
    name = f"session-{session_id}{writer.suffix}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(body, media_type=writer.media_type, headers=headers)


def _day(text: str) -> str | None:
    """A day as it is written on a slate; None where it is none."""
    try:
        return f"{date.fromisoformat(text)}" if len(text) == 10 else None
    except ValueError:
        return None
