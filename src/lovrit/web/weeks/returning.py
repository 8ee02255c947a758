"""What comes back: patterns, moves and skills by how long since; put into a session with a press."""

from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, Response

from lovrit.core.days import NoSuchDay
from lovrit.core.session.edit import apply_edit
from lovrit.core.tries.done import Did
from lovrit.core.weeks.again import AS, put_again
from lovrit.core.weeks.returns import returns
from lovrit.house.weeks import lay_out
from lovrit.store import people, records, sessions
from lovrit.web.inhouse import FormId, Id, InHouse
from lovrit.web.pages import page, render
from lovrit.web.weeks.doing import Doing
from lovrit.web.weeks.routes import Day, From, Shown, back_to, first_of

router = APIRouter(include_in_schema=False)
LOOKED_WEEKS, MOST_SHOWN, BACK_DAYS = 8, 14, 365


@router.get("/weeks/returns")
def coming_back(
    request: Request, house: InHouse, first: From = "", shown: Shown = LOOKED_WEEKS
) -> HTMLResponse:
    """What the club has not done for a while, with the sessions into which it can be put."""
    monday, today = first_of(house, first), date.fromisoformat(house.today)
    with house.database.work() as work:
        laid = lay_out(house, work, first_of(house, ""), shown)
        done = _done(records.done(work, f"{date.fromordinal(today.toordinal() - BACK_DAYS)}"))
    ahead = [row for row in laid.rows if row.day and row.day >= house.today]
    planned = [(date.fromisoformat(row.day or ""), laid.reads[row.id or 0].did) for row in ahead]
    values: dict[str, Any] = {
        "found": [
            (one, _as_move(one.name, one.what, done))
            for one in returns(done, planned, today)[:MOST_SHOWN]
        ],
        "known": bool(done),
        "into": sorted(ahead, key=lambda row: row.day or ""),
        "monday": f"{monday}",
    }
    if request.headers.get("hx-request"):
        return HTMLResponse(render(house, "weeks/returns.html", **values))
    return page(
        request, house, "weeks/alone.html", here="weeks", part="weeks/returns.html", **values
    )


def _done(some: list[records.DidThen]) -> list[tuple[date, tuple[Did, ...]]]:
    return [(date.fromisoformat(one.day), one.did) for one in some]


def _as_move(name: str, what: str, done: list[tuple[date, tuple[Did, ...]]]) -> str:
    """The move with which it comes back: of a pattern, the one that was done last."""
    if what != "pattern":
        return name
    last = [
        one.said
        for _, some in sorted(done, key=lambda on: on[0])
        for one in some
        if one.pattern == name
    ]
    return last[-1] if last else name


@router.get("/people/{person_id}/returns")
def for_a_person(house: InHouse, person_id: Id) -> HTMLResponse:
    """What one person has not done for a while: they may have been away when the club did it."""
    today = date.fromisoformat(house.today)
    with house.database.work() as work:
        one = people.get(work, person_id)
        done = records.done(work, f"{date.fromordinal(today.toordinal() - BACK_DAYS)}", person_id)
    found = returns(_done(done), (), today)[:MOST_SHOWN]
    return HTMLResponse(
        render(house, "weeks/returns_of.html", one=one, found=found, known=bool(done))
    )


@router.post("/weeks/again")
def again(
    house: InHouse,
    session: FormId,
    name: Annotated[str, Form(min_length=1, max_length=80)],
    how: Annotated[str, Form(max_length=8)] = "skill",
    at: Day = "",
) -> Response:
    """A move goes into a session that is still to come: as skill minutes, or as a block."""
    with house.database.writing() as work:
        row = sessions.get(work, session)
        plan = house.plan(row.text)
        edit = (
            put_again(plan, name, how, house.library) if how in AS and not plan.problems else None
        )
        if edit is None:
            where = row.title or "this session"
            raise NoSuchDay(f"{name} can’t be put into {where} as it stands; open it under Write.")
        doing = Doing(house, work)
        doing.write(session, apply_edit(row.text, edit))
        doing.done(f"{name} again")
    return back_to(at)
