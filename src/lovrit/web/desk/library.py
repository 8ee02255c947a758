"""Sessions as a list: searched, put away and brought back, begun from the rack or from a file."""

from datetime import UTC, datetime
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Request, UploadFile
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.clock import minutes
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import LovritError
from lovrit.formats.board import read_board
from lovrit.store import sessions
from lovrit.store.tables import SessionRow
from lovrit.web.house import House, InHouse
from lovrit.web.pages import page

router = APIRouter()
MOST_BYTES = 256 * 1024


# what a coach calls each kind of block
SHAPES = {
    "rotate": "stations",
    "sets": "sets at a station",
    "intervals": "intervals",
    "every": "a task a minute",
    "amrap": "as many as possible",
    "for-time": "for time",
    "quality": "for quality",
    "strength": "strength sets",
    "hold-ladder": "growing hold",
    "tempo": "tempo ladder",
    "build": "build to heavy",
}


class NotTaken(LovritError):
    """A file that can't be taken in."""


class Listed(NamedTuple):
    """A session in the list."""

    row: SessionRow
    length: str
    structures: str
    ran: str

    def has(self, words: str) -> bool:
        """Whether it has all the words: in its text, its structures, its length, or when it was last run."""
        said = " ".join((self.row.text, self.structures, self.length, self.ran)).lower()
        return all(word in said for word in words.lower().split())


@router.get("/desk")
async def desks(request: Request, house: InHouse, words: str = "", away: bool = False) -> HTMLResponse:
    """All sessions by words, and a rack to begin a new one from."""
    with house.database.work() as work:
        rows = sessions.kept(work, away)
    listed = [one for one in (_listed(house, row, ran) for row, ran in rows) if one.has(words)]
    values: dict[str, Any] = {"listed": listed, "words_sought": words, "away": away, "rack": rack()}
    return page(request, house, "desk/list.html", **values)


def _listed(house: House, row: SessionRow, ran: int | None) -> Listed:
    plan = plan_text(row.good_text or row.text, house.library)
    kinds = dict.fromkeys(SHAPES.get(block.kind, "") for block in plan.timeline.blocks)
    when = f"{datetime.fromtimestamp(ran / 1000, UTC):%-d %B}" if ran else "never run"
    return Listed(row, minutes(plan.timeline.total_s), ", ".join(filter(None, kinds)), when)


@router.post("/desk")
async def new(house: InHouse, text: Annotated[str, Form(max_length=70_000)] = "") -> Response:
    """A new session: empty, from the rack, or from an earlier one."""
    plain = text.replace("\r\n", "\n")
    with house.database.work() as work:
        row = sessions.create(work, plain, plan_text(plain, house.library).session.title, house.now_ms())
    return RedirectResponse(f"/desk/{row.id}", 303)


@router.post("/desk/board")
async def board(
    request: Request,
    house: InHouse,
    text: Annotated[str, Form(max_length=MOST_BYTES)] = "",
    file: UploadFile | None = None,
) -> Response:
    """A pasted board or a dropped file, read as far as possible; what is not understood is asked line by line."""
    if file and file.filename:
        text = _decoded(await file.read(MOST_BYTES + 1))
    if not text.strip():
        raise NotTaken("There is nothing in it.")
    made = read_board(text)
    if made.asked or not made.slate:
        return page(request, house, "desk/board.html", here="desk", made=made, text=text)
    with house.database.work() as work:
        row = sessions.create(work, made.slate, plan_text(made.slate, house.library).session.title, house.now_ms())
    return RedirectResponse(f"/desk/{row.id}", 303)


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
async def copy(house: InHouse, session_id: int) -> Response:
    """A new session that begins as an earlier one stands."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        made = sessions.create(work, row.text, row.title, house.now_ms())
    return RedirectResponse(f"/desk/{made.id}", 303)


@router.post("/desk/{session_id}/away")
async def away(house: InHouse, session_id: int) -> Response:
    """Put a session away; it can be brought back from the list."""
    return _put(house, session_id, house.now_ms(), "/desk")


@router.post("/desk/{session_id}/bring-back")
async def bring_back(house: InHouse, session_id: int) -> Response:
    """Bring a session back."""
    return _put(house, session_id, None, f"/desk/{session_id}")


def _put(house: House, session_id: int, at_ms: int | None, to: str) -> Response:
    with house.database.work() as work:
        sessions.put_away(work, sessions.get(work, session_id), at_ms)
    return RedirectResponse(to, 303)
