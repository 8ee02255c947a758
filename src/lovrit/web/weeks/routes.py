"""Weeks: the board of days, sessions put there and moved, other load, a better order; every step can be taken back."""

from datetime import date, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.session.dated import with_date
from lovrit.core.weeks.board import OTHER, PATTERNS
from lovrit.store import sessions, weeks
from lovrit.store.weeks import KeptOther, Step
from lovrit.web.house import FormId, House, Id, InHouse, WholeForm
from lovrit.web.pages import page
from lovrit.web.weeks.publish import people_see
from lovrit.web.weeks.reading import NoSuchDay, day_of, read_of
from lovrit.web.weeks.view import BEFORE_DAYS, board_view
from lovrit.web.words import KEYS

router = APIRouter()
USUAL_WEEKS, MOST_WEEKS = 4, 8
Day = Annotated[str, Form(max_length=10)]


@router.get("/weeks")
def board(
    request: Request,
    house: InHouse,
    first: Annotated[str, Query(alias="from", max_length=10)] = "",
    shown: Annotated[int, Query(alias="weeks", ge=1, le=MOST_WEEKS)] = USUAL_WEEKS,
) -> HTMLResponse:
    """So many weeks from the Monday of a day on; from this week's where none is named."""
    today = date.fromisoformat(house.today)
    begin = day_of(first) if first else today
    monday = begin - timedelta(days=begin.weekday())
    with house.database.work() as work:
        rows = sessions.between_days(
            work, f"{monday - timedelta(days=21)}", f"{monday + timedelta(days=7 * shown - 1)}"
        )
        others, steps = weeks.others(work), weeks.steps(work)
        library = sessions.found(work, False).rows
        last = f"{monday + timedelta(days=7 * shown - 1)}"
        seen = people_see(house, work, f"{monday}", last)
    reads = {row.id or 0: read_of(house, row) for row in rows}
    near = f"{monday - timedelta(days=BEFORE_DAYS)}"
    view = board_view(
        monday, shown, rows, [one for one in others if one["date"] >= near], reads, today
    )
    values: dict[str, Any] = {
        **seen,
        "until": last,
        "board": view,
        "keys": KEYS["weeks"],
        "monday": f"{monday}",
        "before": f"{monday - timedelta(days=7 * shown)}",
        "after": f"{monday + timedelta(days=7 * shown)}",
        "shown": shown,
        "days": [one for week in view.weeks for one in week.days],
        "library": [row for row, _ in library],
        "undo": bool(steps),
        "weights": list(OTHER),
        "can_name": [one for one in PATTERNS if one != "breath"],
    }
    return page(request, house, "weeks/page.html", here="weeks", **values)


def _move(
    work: Work, house: House, session_id: int, day: str | None
) -> tuple[int, str | None, str | None]:
    """A session goes to a day, on its slate too; what can be undone there is one step more."""
    row = sessions.get(work, session_id)
    before, text = row.day, with_date(row.text, day)
    sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
    row.day, row.good_text = day, with_date(row.good_text, day) if row.good_text else row.good_text
    work.add(row)
    return session_id, before, day


def _done(work: Work, step: Step) -> None:
    weeks.set_steps(work, [*weeks.steps(work), step])


def _back(form_from: str) -> Response:
    return RedirectResponse(f"/weeks?from={form_from}" if form_from else "/weeks", 303)


@router.post("/weeks/move")
def move(house: InHouse, session: FormId, day: Day = "", at: Day = "") -> Response:
    """A session goes to another day; to none where the day is empty."""
    wanted = f"{day_of(day)}" if day.strip() else None
    with house.database.writing() as work:
        moved = _move(work, house, session, wanted)
        _done(work, {"moves": [moved], "made": [], "others": None})
    return _back(at)


@router.post("/weeks/put")
def put(house: InHouse, session: FormId, day: Day = "", at: Day = "") -> Response:
    """A session of the library on a day: itself where it has none yet, else a copy of it."""
    wanted = f"{day_of(day)}"
    with house.database.writing() as work:
        row = sessions.get(work, session)
        if row.day is None:
            step: Step = {
                "moves": [_move(work, house, session, wanted)],
                "made": [],
                "others": None,
            }
        else:
            made = sessions.create(work, with_date(row.text, wanted), row.title, house.now_ms())
            made.day = wanted
            step = {"moves": [], "made": [made.id or 0], "others": None}
        _done(work, step)
    return _back(at)


@router.post("/weeks/order")
def order(house: InHouse, form: WholeForm) -> Response:
    """A better order is taken: each session that it names goes to its day."""
    pairs = [
        (int(name.removeprefix("to-")), str(day))
        for name, day in form.items()
        if name.startswith("to-") and name[3:].isdecimal()
    ]
    with house.database.writing() as work:
        moves = [_move(work, house, session, f"{day_of(day)}") for session, day in pairs]
        _done(work, {"moves": moves, "made": [], "others": None})
    return _back(str(form.get("at", "")))


@router.post("/weeks/other")
def other(house: InHouse, form: WholeForm) -> Response:
    """Other load on a day, in plain words, with its weight and the patterns that it names."""
    what, weight = " ".join(str(form.get("what", "")).split())[:80], str(form.get("weight", "hard"))
    day = f"{day_of(str(form.get('day', '')))}"
    if not what or weight not in OTHER:
        raise NoSuchDay("Other load needs a word for it, and a weight: none, some or hard.")
    patterns = [str(one) for one in form.getlist("patterns") if one in PATTERNS]
    with house.database.writing() as work:
        before = weeks.others(work)
        number = max((one["id"] for one in before), default=0) + 1
        new: KeptOther = {
            "id": number,
            "date": day,
            "what": what,
            "weight": weight,
            "patterns": patterns,
        }
        weeks.set_others(work, [*before, new])
        _done(work, {"moves": [], "made": [], "others": before})
    return _back(str(form.get("at", "")))


@router.post("/weeks/other/{number}/gone")
def other_gone(house: InHouse, number: Id, at: Day = "") -> Response:
    """Other load that is none after all."""
    with house.database.writing() as work:
        before = weeks.others(work)
        weeks.set_others(work, [one for one in before if one["id"] != number])
        _done(work, {"moves": [], "made": [], "others": before})
    return _back(at)


@router.post("/weeks/undo")
def undo(house: InHouse, at: Day = "") -> Response:
    """The last step is taken back."""
    with house.database.writing() as work:
        steps = weeks.steps(work)
        if steps:
            last = steps.pop()
            for session, before, _ in last["moves"]:
                _move(work, house, session, before)
            for session in last["made"]:
                sessions.put_away(work, sessions.get(work, session), house.now_ms())
            if last["others"] is not None:
                weeks.set_others(work, last["others"])
            weeks.set_steps(work, steps)
    return _back(at)
