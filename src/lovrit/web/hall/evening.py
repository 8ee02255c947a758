"""A session's evening in the hall: who comes, what has to be placed, and the page that tells of it."""

from typing import Any, NamedTuple

from fastapi import Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.crew.person import Person
from lovrit.core.place.at_once import at_once
from lovrit.core.place.hall import Hall, Wished, moving_block, order_of
from lovrit.core.place.wishes import NEVER_A_MUST, SAID, WEIGHTS
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError
from lovrit.house.house import House
from lovrit.store import halls, people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.hall.view import hall_view
from lovrit.web.pages import page, render


class NoHall(LovritError):
    """A hall, or something in it, that can't be."""


class Evening(NamedTuple):
    """A session with who comes to it and where."""

    row: SessionRow
    plan: Plan
    at: int | None
    hall: Hall
    wished: Wished
    comers: list[tuple[Person, int]]
    spots: dict[str, str]


def evening_of(house: House, work: Work, session_id: int) -> Evening:
    """A session with who comes to it, its hall, and where its stations were placed."""
    row = sessions.get(work, session_id)
    plan = house.plan(row.good_text or row.text)
    return Evening(
        row,
        plan,
        moving_block(plan),
        halls.hall(work, session_id),
        Wished(
            halls.wishes(work, session_id),
            halls.mixed(work, session_id),
            halls.stood(work, session_id),
            halls.order(work, session_id),
        ),
        people.comers(work, session_id),
        halls.spots(work, session_id),
    )


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
    if now.at is not None:
        view = hall_view(now.plan, now.at, now.hall, now.comers, now.spots, house.library)
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
