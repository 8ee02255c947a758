"""The page that tells of a session's evening in the hall, or the part of it that a script asked for."""

from typing import Any, NamedTuple

from fastapi import Request
from fastapi.responses import HTMLResponse

from lovrit.core.place.at_once import at_once
from lovrit.core.place.hall import Hall, order_of
from lovrit.core.place.lacked import lacked
from lovrit.core.place.wishes import NEVER_A_MUST, SAID, WEIGHTS
from lovrit.core.values import LovritError
from lovrit.house.evening import evening_of, stood
from lovrit.house.house import House
from lovrit.house.noted import Noted, last_note
from lovrit.store import halls
from lovrit.web.hall.view import hall_view
from lovrit.web.pages import page, render


class NoHall(LovritError):
    """A hall, or something in it, that can't be."""


class Lack(NamedTuple):
    """Kit that a note says lacked, of which the hall counts more: what it is, its place there, and how many."""

    said: str
    nth: int
    many: int


def _lacks(hall: Hall, note: Noted | None) -> list[Lack]:
    """What is offered to be counted as away, by the last note."""
    told = lacked(note.text, [one.name for one in hall.kit]) if note else []
    return [
        Lack(f"{many} × {one.said} away tonight", nth, many)
        for lack in told
        for nth, one in enumerate(hall.kit)
        for many in (max(1, lack.many),)
        if one.name == lack.kit and lack.kg in (None, one.load_kg) and one.away < many <= one.count
    ]


def answer(
    request: Request,
    house: House,
    session_id: int,
    said: str = "",
    stuck: dict[str, Any] | None = None,
    going: str = "",
) -> HTMLResponse:
    """The Hall as it stands: its part that a script asked for, or the whole page.

    ``said`` is what was just done, ``stuck`` why it can't be placed and the ways out, ``going`` how far a placing is.
    """
    with house.database.work() as work:
        now = evening_of(house, work, session_id)
        names = [one.name for one in halls.halls(work)]
        note = last_note(house, work, session_id)
    view = None
    here = stood(now, house.library)
    if here:
        view = hall_view(now, here)
    values: dict[str, Any] = {
        "session": now.row,
        "view": view,
        "hall": now.hall,
        "coming": len(now.comers),
        "took": said,
        "going": going,
        "halls": names,
        "wished": now.wished,
        "in_order": bool(now.wished.order) and now.wished.order == order_of(now.plan),
        "wishes": SAID,
        "weights": WEIGHTS,
        "never_a_must": NEVER_A_MUST,
        "at_once": at_once(now.plan, now.hall, [one for one, _ in now.comers], house.library),
        "stuck": stuck,
        "noted": note,
        "lacks": _lacks(now.hall, note),
    }
    if request.headers.get("x-lovrit"):
        return HTMLResponse(render(house, "hall/body.html", **values))
    return page(request, house, "hall/page.html", here="hall", **values)
