"""What clashes on the board and what helps, worked out beside the page; a better order, and what it should keep."""

from datetime import date, timedelta
from functools import partial
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, Response
from sqlmodel import Session as Work

from lovrit.core.asked.clashing import DayClash
from lovrit.core.asked.dose import asks
from lovrit.core.days import NoSuchDay
from lovrit.core.session.edit import apply_edit
from lovrit.core.timeline.plan import Plan
from lovrit.core.weeks.order import Order, Wish, best_order
from lovrit.core.weeks.ways import Around, WayOut, Weigh, ways_out
from lovrit.house.house import House
from lovrit.house.weeks import Laid, lay_out
from lovrit.store import sessions, weeks
from lovrit.store.tables import SessionRow
from lovrit.web.inhouse import FormId, Id, InHouse, WholeForm
from lovrit.web.pages import page, render
from lovrit.web.weeks.doing import Doing
from lovrit.web.weeks.routes import MOST_WEEKS, USUAL_WEEKS, Day, From, Shown, back_to, first_of
from lovrit.web.weeks.view import wish_said

router = APIRouter(include_in_schema=False)
MOST_CLASHES = 12
MOST_WAYS = 6  # of one session, whatever it clashes in
LEAST_GAIN = 0.1  # of what the week costs now: less is not worth a changed week
KINDS = ("not-before", "apart", "on")


class WayOn(NamedTuple):
    """A way out in words, a clash by which it is found again, and what it helps with where that is not all."""

    said: str
    pattern: str
    only: str


class ClashOn(NamedTuple):
    """What one session clashes in, in words, and the ways out, those that help most first."""

    text: str
    session: int
    title: str
    ways: tuple[WayOn, ...]


@router.get("/weeks/clashes")
def all_clashes(
    request: Request, house: InHouse, first: From = "", shown: Shown = USUAL_WEEKS
) -> HTMLResponse:
    """Every clash of the weeks that are shown, with what helps."""
    monday = first_of(house, first)
    with house.database.work() as work:
        laid = lay_out(house, work, monday, MOST_WEEKS)
    until = monday + timedelta(days=7 * shown - 1)
    values: dict[str, Any] = {
        "found": _clashes(house, laid, until),
        "told": _told(laid, until),
        "monday": f"{monday}",
    }
    if request.headers.get("hx-request"):
        return HTMLResponse(render(house, "weeks/clashes.html", **values))
    return page(
        request, house, "weeks/alone.html", here="weeks", part="weeks/clashes.html", **values
    )


def _clashes(house: House, laid: Laid, until: date) -> list[ClashOn]:
    around, rows = laid.around(), {f"{row.id}": row for row in laid.rows}
    at = {one.id: one.at.date() for one in around.sessions}
    shown = [
        one
        for one in around.told
        if one.session in rows and max(laid.first, laid.today) <= at[one.session] <= until
    ]
    return [_clash(house, laid, around, one, rows) for one in shown[:MOST_CLASHES]]


def _told(laid: Laid, until: date) -> list[tuple[int, str, str]]:
    """What is worth a word and no clash: skill on what is tired."""
    around, rows = laid.around(), {f"{row.id}": row for row in laid.rows}
    at = {one.id: one.at.date() for one in around.sessions}
    return [
        (
            rows[one.session].id or 0,
            rows[one.session].title or "Untitled session",
            _text(one, laid, rows),
        )
        for one in around.every
        if one.kind == "told" and one.session in rows
        if max(laid.first, laid.today) <= at[one.session] <= until
    ]


def _clash(
    house: House, laid: Laid, around: Around, worst: DayClash, rows: dict[str, SessionRow]
) -> ClashOn:
    """The worst that a session clashes in, with the ways out of it and of whatever else it clashes in."""
    some = [one for one in around.before if one.session == worst.session]
    helps: dict[str, list[str]] = {}
    for one in some:
        for way in _ways(house, laid, around, one, rows):
            helps.setdefault(_said(way, rows), []).append(one.pattern)
    row = rows[worst.session]
    ways = _most_first(helps, len(some))
    return ClashOn(_text(worst, laid, rows), row.id or 0, row.title or "Untitled session", ways)


def _most_first(helps: dict[str, list[str]], count: int) -> tuple[WayOn, ...]:
    ways = sorted(helps.items(), key=lambda one: -len(one[1]))[:MOST_WAYS]
    return tuple(
        WayOn(said, for_[0], "" if len(for_) == count else ", ".join(for_)) for said, for_ in ways
    )


def _text(clash: DayClash, laid: Laid, rows: dict[str, SessionRow]) -> str:
    """What a session clashes in; the other one goes by its title."""
    ran = {f"class-{one.class_id}": one.title for one in laid.unplanned}
    other = rows.get(clash.since)
    title = (other.title or "an untitled session") if other else ran.get(clash.since, clash.since)
    return f"{clash.because.replace('{since}', title)}."


def _ways(
    house: House, laid: Laid, around: Around, clash: DayClash, rows: dict[str, SessionRow]
) -> tuple[WayOut, ...]:
    mine = _weighed(house, laid, rows[clash.session])
    before = _weighed(house, laid, rows[clash.since]) if clash.since in rows else (None, asks)
    return ways_out(clash, around, *mine, before)


def _weighed(house: House, laid: Laid, row: SessionRow) -> tuple[Plan | None, Weigh]:
    """A session's plan where it can be read, and what it asks on its day once it is changed."""
    plan = house.plan(row.text)
    return None if plan.problems else plan, _weigh(laid, row)


def _weigh(laid: Laid, row: SessionRow) -> Weigh:
    near = laid.lately[row.id or 0]
    return partial(asks, unused=near.unused, used=near.used)


def _said(way: WayOut, rows: dict[str, SessionRow]) -> str:
    """A way in words; another session goes by its title."""
    other = rows.get(way.other)
    title = f"“{other.title}”" if other and other.title else "the untitled session"
    if other and len(way.moves) == 2:
        title += f" on {date.fromisoformat(other.day or ''):%A}"
    return way.said.replace("{other}", title)


@router.post("/weeks/way")
def way(
    house: InHouse,
    session: FormId,
    pattern: Annotated[str, Form(max_length=20)],
    said: Annotated[str, Form(max_length=200)],
    at: Day = "",
) -> Response:
    """A way out is taken, as it was offered."""
    with house.database.writing() as work:
        laid = lay_out(house, work, first_of(house, at), MOST_WEEKS)
        rows = {f"{row.id}": row for row in laid.rows}
        around = laid.around()
        wanted = (f"{session}", pattern)
        clash = next((one for one in around.before if (one.session, one.pattern) == wanted), None)
        found = _ways(house, laid, around, clash, rows) if clash else ()
        chosen = next((one for one in found if _said(one, rows) == said), None)
        if chosen is None:
            raise NoSuchDay("The weeks have changed since: look again at what clashes.")
        _take(house, work, session, chosen, said)
    return back_to(at)


def _take(house: House, work: Work, session: int, chosen: WayOut, said: str) -> None:
    doing = Doing(house, work)
    for number, when in chosen.moves:
        doing.move(int(number), f"{when:%Y-%m-%d}")
    if chosen.edits:
        changed = int(chosen.other) if chosen.at_other else session
        row = sessions.get(work, changed)
        text = row.text
        for edit in chosen.edits:
            text = apply_edit(text, edit)
        doing.write(changed, text)
        sessions.keep_revision(
            work, row, f"because of what is carried: {said}"[:200], house.now_ms()
        )
    doing.done(said)


@router.get("/weeks/better")
def better(request: Request, house: InHouse, first: From = "") -> HTMLResponse:
    """A better order of one week, with what it gains; empty where there is none."""
    monday = first_of(house, first)
    with house.database.work() as work:
        laid = lay_out(house, work, monday, 2)  # what is moved may clash with the week after
        wishes = weeks.wishes(work)
    titles = {f"{row.id}": row.title or "Untitled session" for row in laid.rows}
    order = _order(laid, wishes)
    moved = [
        (int(one.id), titles[one.id], f"{order.at[one.id]:%Y-%m-%d}", f"{order.at[one.id]:%A}")
        for one in laid.planned()
        if order and order.at[one.id].date() != one.at.date()
    ]
    values: dict[str, Any] = {
        "order": order
        if order and moved and order.now - order.best > LEAST_GAIN * order.now
        else None,
        "moved": moved,
        "monday": f"{monday}",
        "wishes": [wish_said(one, titles) for one in wishes],
    }
    if request.headers.get("hx-request"):
        return HTMLResponse(render(house, "weeks/better.html", **values))
    return page(
        request, house, "weeks/alone.html", here="weeks", part="weeks/better.html", **values
    )


def _order(laid: Laid, wishes: tuple[Wish, ...]) -> Order | None:
    """The best order of the first week's sessions that may still move; what was run, and other weeks, stay."""
    last = laid.first + timedelta(days=6)
    free = {
        one.id
        for one in laid.planned()
        if not one.fixed and max(laid.first, laid.today) <= one.at.date() <= last
    }
    if len(free) < 2:
        return None
    around = laid.around()
    some = [one.but(fixed=one.id not in free) for one in around.sessions]
    return best_order(some, around.others, wishes, laid.limit)


@router.post("/weeks/order")
def order(house: InHouse, form: WholeForm) -> Response:
    """A better order is taken: each session that it names goes to its day."""
    pairs = [
        (int(name.removeprefix("to-")), f"{house.day(str(day))}")
        for name, day in form.items()
        if name.startswith("to-") and name[3:].isdecimal()
    ]
    with house.database.writing() as work:
        doing = Doing(house, work)
        for session, day in pairs:
            doing.move(session, day)
        doing.done("the better order")
    return back_to(str(form.get("at", "")))


@router.post("/weeks/wish")
def wish(
    house: InHouse,
    session: FormId,
    kind: Annotated[str, Form(max_length=12)],
    day: Day = "",
    other: Annotated[str, Form(max_length=12)] = "",
    days: Annotated[int, Form(ge=1, le=7)] = 2,
    at: Day = "",
) -> Response:
    """What an order should keep of a session: not before a day, on a day, so many days from another."""
    if kind not in KINDS or (kind == "apart" and (not other.isdecimal() or int(other) == session)):
        raise NoSuchDay(
            "A wish is: not before a day, on a day, or so many days apart from another session."
        )
    new = Wish(
        kind=kind,
        id=f"{session}",
        other=other if kind == "apart" else "",
        day="" if kind == "apart" else f"{house.day(day)}",
        days=days if kind == "apart" else 0,
    )
    with house.database.writing() as work:
        doing = Doing(house, work)
        doing.choose(weeks.WISHES, weeks.wish_as_kept((*weeks.wishes(work), new)))
        doing.done("a wish")
    return back_to(at)


@router.post("/weeks/wish/{nth}/gone")
def wish_gone(house: InHouse, nth: Id, at: Day = "") -> Response:
    """A wish that is none any more."""
    with house.database.writing() as work:
        kept = weeks.wishes(work)
        doing = Doing(house, work)
        doing.choose(
            weeks.WISHES,
            weeks.wish_as_kept(tuple(one for at_, one in enumerate(kept) if at_ != nth)),
        )
        doing.done("a wish taken back")
    return back_to(at)
