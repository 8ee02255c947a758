"""The page that tells of a session's evening in the hall, or the part of it that a script asked for."""

from typing import Any

from fastapi import Request
from fastapi.responses import HTMLResponse

from lovrit.core.place.at_once import at_once
from lovrit.core.place.hall import order_of
from lovrit.core.place.wishes import NEVER_A_MUST, SAID, WEIGHTS
from lovrit.core.values import LovritError
from lovrit.house.evening import evening_of, stood
from lovrit.house.house import House
from lovrit.store import halls
from lovrit.web.hall.view import hall_view
from lovrit.web.pages import page, render


class NoHall(LovritError):
    """A hall, or something in it, that can't be."""


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
    }
    if request.headers.get("x-lovrit"):
        return HTMLResponse(render(house, "hall/body.html", **values))
    return page(request, house, "hall/page.html", here="hall", **values)
