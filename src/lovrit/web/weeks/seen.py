"""The weeks as people see them: a page by a signed link, each session at home, calendars for all and for one."""

from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.run.event import MOST_ID
from lovrit.core.values import LovritError
from lovrit.core.weeks.home import at_home
from lovrit.core.weeks.publish import Shown
from lovrit.house.house import House
from lovrit.house.published import shown, shown_to
from lovrit.house.signed import numbers_of
from lovrit.store import answers, club, people, sessions, weeks
from lovrit.store.answers import MOST_NAME, MOST_WORD
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import FormId, Id, InHouse
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)


def _by(house: House, work: Work, token: str) -> tuple[Shown, ...]:
    """What a link shows: all of it; one person's only what they are down for, and what nobody is down for yet."""
    numbers = numbers_of(house, "see", token)
    if numbers[:1] != [club.generation(work)] or len(numbers) > 2:
        raise Gone("This link has ended. Ask your coach for the new one.")
    if len(numbers) == 1:
        return shown(work)
    if not any(one.id == numbers[1] for one in people.everyone(work)):
        raise Gone("This link has ended. Ask your coach for the new one.")
    return shown_to(work, numbers[1])


class NoName(LovritError):
    """A guest without a name."""


@router.get("/see/{token}")
def see(
    request: Request,
    house: InHouse,
    token: str,
    thanks: Annotated[int, Query(ge=0, le=MOST_ID)] = 0,
) -> HTMLResponse:
    """The weeks as people see them: no script, no login, nothing of anybody."""
    with house.database.work() as work:
        found = [one for one in _by(house, work, token) if one.day >= house.today]
        themes, words, bring = (
            weeks.themes(work),
            club.choice(work, "shown-words"),
            club.choice(work, "shown-bring"),
        )
    days: dict[str, dict[str, list[Shown]]] = {}
    for one in found:
        on = date.fromisoformat(one.day)
        monday = f"{on - timedelta(days=on.weekday())}"
        days.setdefault(monday, {}).setdefault(f"{on:%A %-d %B}", []).append(one)
    values: dict[str, Any] = {
        "weeks": [(themes.get(monday, ""), some) for monday, some in days.items()],
        "words_for": words or "",
        "bring": bring or "",
        "link": f"/see/{token}",
        "said": _said,
        "thanks": thanks,
        "open": len(numbers_of(house, "see", token)) == 1,
    }
    return page(request, house, "weeks/see.html", about=house.about, **values)


def _said(when: str) -> str:
    """A moment that was, as people say it."""
    at = datetime.fromisoformat(when)
    return f"{at:%A %-d %B, %H:%M}"


@router.get("/see/{token}/home/{session_id}")
def home(request: Request, house: InHouse, token: str, session_id: Id) -> HTMLResponse:
    """One of the sessions that are shown, as it is done at home without kit."""
    with house.database.work() as work:
        one = next(
            (
                one
                for one in _by(house, work, token)
                if one.session == session_id and not one.cancelled
            ),
            None,
        )
        if one is None:
            raise Gone("This session is not one that is shown.")
        row = sessions.get(work, session_id)
    plan = house.plan(row.good_text or row.text)
    parts = at_home(plan, house.library)
    return page(
        request,
        house,
        "weeks/home.html",
        about=house.about,
        one=one,
        parts=parts,
        link=f"/see/{token}",
    )


@router.get("/see/{token}/weeks.ics")
def feed(house: InHouse, token: str) -> PlainTextResponse:
    """The same as a calendar that a phone asks for again and again."""
    with house.database.work() as work:
        found = _by(house, work, token)
    from lovrit.formats.feed import to_feed  # the calendar's library, for those who ask

    now = datetime.fromtimestamp(house.now_ms() / 1000, UTC)
    text = to_feed(found, house.about.name, house.zone, now, house.about.address)
    return PlainTextResponse(text, media_type="text/calendar; charset=utf-8")


@router.post("/see/{token}/come")
def come(
    house: InHouse,
    token: str,
    session: FormId,
    name: Annotated[str, Form(max_length=MOST_NAME)],
    word: Annotated[str, Form(max_length=MOST_WORD)] = "",
) -> Response:
    """A guest who has the club's link writes a name; the coach decides who is in."""
    if not name.strip():
        raise NoName("A name, please, so that the coach knows whom to expect.")
    with house.database.writing() as work:
        known = {one.session for one in _by(house, work, token) if not one.cancelled}
        row = sessions.get(work, session)
        if session not in known or (row.day or "") < house.today:
            raise Gone("This session is not one that is shown any more.")
        answers.say_as_guest(work, row, name, word, house.now_ms())
    return RedirectResponse(f"/see/{token}?thanks={session}", 303)
