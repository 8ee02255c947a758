"""A message read on the Desk: what was sent beside what it became, and what is asked, answered by a press each."""

import re
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.clock import clock
from lovrit.core.messages.asked import AS_NEEDED
from lovrit.core.messages.read import Message
from lovrit.core.messages.standing import changed_on, chosen_on, put_on, taken_off
from lovrit.formats.board import read_board
from lovrit.house.house import House
from lovrit.store import sessions
from lovrit.web.bodies import MOST
from lovrit.web.desk.desk import keep_good, open_desk
from lovrit.web.desk.parts import Shown, parts_of
from lovrit.web.desk.think import panel
from lovrit.web.inhouse import Id, InHouse
from lovrit.web.pages import render

router = APIRouter(include_in_schema=False)
CHOSEN = re.compile(r"(\d{1,3})\.(\d)")
UNDO = "undo"


class Answer(NamedTuple):
    """A way to read a part of a message: the block, how long it lasts, and whether it was chosen."""

    text: str
    length: str
    chosen: bool


class Part(NamedTuple):
    """A part of a message: its lines, what they became, and the question with its answers where one is open."""

    said: str
    slate: str
    question: str = ""
    answers: tuple[Answer, ...] = ()

    @property
    def open(self) -> bool:
        """Whether it still has to be answered."""
        return bool(self.question) and not any(one.chosen for one in self.answers)


def answered(chosen: dict[int, int], put: str) -> dict[int, int]:
    """The answers with one more; the same answer again takes it back."""
    found = CHOSEN.fullmatch(put)
    if not found:
        return chosen
    row, answer = int(found[1]), int(found[2])
    left = {one: which for one, which in chosen.items() if one != row}
    return left if chosen.get(row) == answer else {**left, row: answer}


def parts(house: House, made: Message, chosen: dict[int, int]) -> list[Part]:
    """The parts of a message as the panel shows them."""
    shown, stand = [], made.parts(chosen)
    for nth, row in enumerate(made.rows):
        answers = tuple(
            Answer(text, _length(house, text), chosen.get(nth) == at)
            for at, text in enumerate(row.asked.answers if row.asked else ())
        )
        shown.append(Part(row.said, stand[nth], row.asked.question if row.asked else "", answers))
    return shown


def _length(house: House, text: str) -> str:
    """How long a block lasts; what is rested as needed is no part of it, and said."""
    length = clock(house.plan(text).sums.total_s)
    return f"{length} and rests" if AS_NEEDED in text else length


def _put(text: str, made: Message, put: str) -> str:
    """The slate after a press: the message read onto it, an answer to a question, or all of it taken off."""
    chosen = chosen_on(text, made)
    if put == UNDO:
        return taken_off(text, made, chosen)
    if put:
        return changed_on(text, made, chosen, answered(chosen, put))
    return put_on(text, made)


@router.get("/desk/{session_id}/message")
def message(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """A place for a message."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    return panel(request, house, opened, "desk/message.html", sent=None, rows=[])


@router.post("/desk/{session_id}/message")
def read(
    request: Request,
    house: InHouse,
    session_id: Id,
    text: Annotated[str, Form(max_length=MOST)] = "",
    put: Annotated[str, Form(max_length=10)] = "",
    op: Annotated[str | None, Form(max_length=64)] = None,
) -> Response:
    """Read a message onto the slate, or answer a question about it; each is one step that can be undone."""
    sent = text.replace("\r\n", "\n")
    made = read_board(sent)
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        again = sessions.seen(work, session_id, op)
        changed = row.text if again else _put(row.text, made, put)
        plan = house.plan(changed)
        written = sessions.write_text(work, row, changed, row.version, op, op, house.now_ms())
        if row.text == changed:
            keep_good(work, row, plan)
    house.hub.say(f"desk-{session_id}", "version", str(written.version))
    if not request.headers.get("x-lovrit"):
        return RedirectResponse(f"/desk/{session_id}", 303)
    with house.database.work() as work:
        opened = open_desk(house, work, session_id, written)
    follows = bytes(parts_of(house, opened, Shown(0, 0)).body).decode()
    shown = None if put == UNDO else sent
    values = {"session": opened.row, "written": opened.written, "sent": shown, "oob": True}
    rows = parts(house, made, chosen_on(written.text, made)) if shown else []
    return HTMLResponse(
        follows + render(house, "desk/message.html", rows=rows, made=made, **values)
    )


def message_of(house: House, session_id: int, slate: str) -> dict[str, Any]:
    """What a template is told of the message that a session was made from; nothing once it is forgotten."""
    text = house.sent.of(session_id)
    if text is None:
        return {"message": None}
    made = read_board(text)
    return {"message": text, "made": made, "rows": parts(house, made, chosen_on(slate, made))}
