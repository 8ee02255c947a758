"""Weeks on paper: one to a sheet of A4, readable on a door; nothing of anybody who comes."""

from datetime import date
from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from lovrit.core.weeks.publish import like
from lovrit.house.weeks import Laid, lay_out
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page
from lovrit.web.weeks.routes import From, Shown, first_of
from lovrit.web.weeks.view import board_view

router = APIRouter(include_in_schema=False)


class OnDoor(NamedTuple):
    """A session on a door: when, what, where, with whom, and what it will be like."""

    at: str
    title: str
    where: str
    coach: str
    like: str


class DayOnDoor(NamedTuple):
    """A day on a door, and what is on it."""

    name: str
    date: str
    off: bool
    sessions: tuple[OnDoor, ...]


@router.get("/weeks/paper")
def paper(request: Request, house: InHouse, first: From = "", shown: Shown = 1) -> HTMLResponse:
    """So many weeks, each a sheet."""
    monday = first_of(house, first)
    with house.database.work() as work:
        laid = lay_out(house, work, monday, shown)
    board = board_view(laid, {}, several_halls=len(set(laid.halls.values())) > 1)
    sheets = [
        (week.label, week.theme, [_day(laid, one) for one in week.days]) for week in board.weeks
    ]
    values: dict[str, Any] = {"sheets": sheets, "about": house.about, "monday": f"{monday}"}
    return page(request, house, "weeks/paper.html", here="weeks", **values)


def _day(laid: Laid, one: Any) -> DayOnDoor:
    day = date.fromisoformat(one.day)
    on = tuple(
        OnDoor(each.at, each.title, each.hall, each.coach, like(laid.reads[each.id].asks))
        for each in one.sessions
    )
    return DayOnDoor(f"{day:%A}", f"{day:%-d %B}", one.off, on)
