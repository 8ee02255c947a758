"""Sessions as a list: searched, put away and brought back, begun from the rack or from a file."""

from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Query, Request, UploadFile
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.blocks.called import CALLED
from lovrit.core.clock import minutes
from lovrit.core.run.event import MOST_ID
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError
from lovrit.formats.board import read_board
from lovrit.house.house import House
from lovrit.store import sessions
from lovrit.store.tables import SessionRow
from lovrit.web.inhouse import Id, InHouse
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
MOST_BYTES = 256 * 1024


class NotTaken(LovritError):
    """A file that can't be taken in."""


class Listed(NamedTuple):
    """A session in the list."""

    row: SessionRow
    length: str
    ran: str


@router.get("/desk")
def desks(
    request: Request,
    house: InHouse,
    words: Annotated[str, Query(max_length=200)] = "",
    away: bool = False,
    past: Annotated[int, Query(ge=0, le=MOST_ID)] = 0,
) -> HTMLResponse:
    """All sessions by words, a page at a time, and a rack to begin a new one from."""
    with house.database.work() as work:
        found = sessions.found(work, away, words, past=past)
        for row, _ in found.rows:
            described(house, work, row)
        listed = [_listed(house, row, ran) for row, ran in found.rows]
    more = past + len(listed) if past + len(listed) < found.in_all else None
    values: dict[str, Any] = {"listed": listed, "words_sought": words, "away": away, "rack": rack()}
    return page(
        request, house, "desk/list.html", more=more, count=found.in_all, past=past, **values
    )


def _listed(house: House, row: SessionRow, ran: int | None) -> Listed:
    when = f"{house.when(ran):%-d %B}" if ran else "never run"
    return Listed(row, minutes(row.length_s or 0), when)


def described(house: House, work: Work, row: SessionRow) -> None:
    """What a session comes to, worked out where nobody has yet."""
    if row.length_s is None:
        describe(row, house.plan(row.good_text or row.text))
        work.add(row)


def describe(row: SessionRow, plan: Plan) -> None:
    """Keep beside a session what its plan comes to."""
    kinds = dict.fromkeys(CALLED.get(block.kind, "") for block in plan.timeline.blocks)
    sessions.describe(row, plan.session, plan.timeline.total_s, ", ".join(filter(None, kinds)))


def begin(house: House, text: str, title: str = "") -> int:
    """A new session that begins with a text; its number."""
    plan = house.plan(text)
    with house.database.writing() as work:
        row = sessions.create(work, text, title or plan.session.title, house.now_ms())
        describe(row, plan)
        assert row.id is not None
        return row.id


@router.post("/desk")
def new(house: InHouse, text: Annotated[str, Form(max_length=70_000)] = "") -> Response:
    """A new session: empty, from the rack, or from an earlier one."""
    return RedirectResponse(f"/desk/{begin(house, text.replace(chr(13), ''))}", 303)


@router.post("/desk/board")
def board(
    house: InHouse,
    text: Annotated[str, Form(max_length=MOST_BYTES)] = "",
    file: UploadFile | None = None,
) -> Response:
    """A pasted board or a dropped file, read as far as possible; what is not understood is asked line by line."""
    if file and file.filename:
        text = _decoded(file.file.read(MOST_BYTES + 1))
    if not text.strip():
        raise NotTaken("There is nothing in it.")
    made = read_board(text)
    if not made.slate:
        raise NotTaken(made.asked[0].question if made.asked else "There is nothing in it.")
    session_id = begin(house, made.slate)
    if not made.asked and not made.kept:
        return RedirectResponse(f"/desk/{session_id}", 303)
    house.sent.keep(session_id, text)
    return RedirectResponse(f"/desk/{session_id}?sent=1", 303)


def _decoded(raw: bytes) -> str:
    if len(raw) > MOST_BYTES:
        raise NotTaken("That file is larger than 256 KiB, far more than a session needs.")
    try:
        return raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise NotTaken(
            f"That file is not UTF-8 text (byte {error.start + 1}); save it as UTF-8 and try again."
        ) from None


@router.post("/desk/{session_id}/copy")
def copy(house: InHouse, session_id: Id) -> Response:
    """A new session that begins as an earlier one stands."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
    return RedirectResponse(f"/desk/{begin(house, row.text, row.title)}", 303)


@router.post("/desk/{session_id}/away")
def away(house: InHouse, session_id: Id) -> Response:
    """Put a session away; it can be brought back from the list."""
    return _put(house, session_id, house.now_ms(), "/desk")


@router.post("/desk/{session_id}/bring-back")
def bring_back(house: InHouse, session_id: Id) -> Response:
    """Bring a session back."""
    return _put(house, session_id, None, f"/desk/{session_id}")


def _put(house: House, session_id: int, at_ms: int | None, to: str) -> Response:
    with house.database.writing() as work:
        sessions.put_away(work, sessions.get(work, session_id), at_ms)
    return RedirectResponse(to, 303)
