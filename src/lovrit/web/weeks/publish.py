"""Letting people see the weeks: a page by a signed link, a calendar feed; a week is a draft until the coach says so."""

from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import TypeAdapter
from sqlmodel import Session as Work

from lovrit.core.values import plain
from lovrit.core.weeks.publish import Shown, changes, like, published
from lovrit.formats.feed import to_feed
from lovrit.store import club, sessions
from lovrit.store.sessions import Gone
from lovrit.store.tables import SessionRow
from lovrit.web.house import House, InHouse
from lovrit.web.pages import page
from lovrit.web.run.signed import link, numbers_of, picture_of
from lovrit.web.weeks.reading import day_of, read_of

router = APIRouter()
SHOWN: TypeAdapter[list[Shown]] = TypeAdapter(list[Shown])
MOST_WORDS = 400
KEPT_DAYS = 30  # what is gone by for so long is shown no more


def shown(work: Work) -> tuple[Shown, ...]:
    """What people see by now."""
    return tuple(SHOWN.validate_python(club.choice(work, "shown") or []))


def _generation(work: Work) -> int:
    value = club.choice(work, "shown-link")
    return value if isinstance(value, int) else 1


def people_see(house: House, work: Work, first: str, last: str) -> dict[str, Any]:
    """What the board says of publishing: the link, and how much is otherwise than people saw it last."""
    before = shown(work)
    after = published(before, _now(house, work, first, last), first, last)
    path = link(house, "see", _generation(work))
    return {
        "see": path if before else "",
        "unseen": changes(before, after),
        "words_for": str(club.choice(work, "shown-words") or ""),
        "theme": str(club.choice(work, "shown-theme") or ""),
        "code": picture_of(path) if before else "",
        "only_here": house.settings.loopback,
    }


def _now(house: House, work: Work, first: str, last: str) -> list[Shown]:
    rows = sessions.between_days(work, max(first, house.today), last)
    return [_shown(house, row) for row in rows if row.day]


def _shown(house: House, row: SessionRow) -> Shown:
    read = read_of(house, row)
    return Shown(
        uid=f"session-{row.id}@lovrit",
        session=row.id or 0,
        day=row.day or "",
        at=f"{read.begins:%H:%M}",
        minutes=max(1, round(read.seconds / 60)),
        title=row.title or "Training",
        like=like(read.asks),
    )


@router.post("/weeks/see")
def let_them_see(
    house: InHouse,
    at: Annotated[str, Form(max_length=10)],
    until: Annotated[str, Form(max_length=10)],
    theme: Annotated[str, Form(max_length=80)] = "",
    words: Annotated[str, Form(max_length=MOST_WORDS)] = "",
) -> Response:
    """From now on people see these weeks as they are; what they saw before and is otherwise is marked."""
    first, last = f"{day_of(at)}", f"{day_of(until)}"
    with house.database.writing() as work:
        old = f"{date.fromisoformat(house.today) - timedelta(days=KEPT_DAYS)}"
        kept = tuple(one for one in shown(work) if one.day >= old)
        after = published(kept, _now(house, work, first, last), max(first, house.today), last)
        club.choose(work, "shown", [plain(one) for one in after])
        club.choose(work, "shown-theme", " ".join(theme.split()))
        club.choose(work, "shown-words", words.strip())
    return RedirectResponse(f"/weeks?from={first}", 303)


@router.post("/weeks/renew")
def renew(house: InHouse, at: Annotated[str, Form(max_length=10)] = "") -> Response:
    """A new link; the old one shows nothing any more."""
    with house.database.writing() as work:
        club.choose(work, "shown-link", _generation(work) + 1)
    return RedirectResponse(f"/weeks?from={at}" if at else "/weeks", 303)


def _by(house: House, work: Work, token: str) -> tuple[Shown, ...]:
    if numbers_of(house, "see", token) != [_generation(work)]:
        raise Gone("This link has ended. Ask your coach for the new one.")
    return shown(work)


@router.get("/see/{token}")
def see(request: Request, house: InHouse, token: str) -> HTMLResponse:
    """The weeks as people see them: no script, no login, nothing of anybody."""
    with house.database.work() as work:
        found = [one for one in _by(house, work, token) if one.day >= house.today]
        theme, words = club.choice(work, "shown-theme"), club.choice(work, "shown-words")
    days: dict[str, list[Shown]] = {}
    for one in found:
        days.setdefault(f"{date.fromisoformat(one.day):%A %-d %B}", []).append(one)
    values: dict[str, Any] = {"days": days, "theme": theme or "", "words_for": words or ""}
    return page(
        request,
        house,
        "weeks/see.html",
        about=house.about,
        feed=f"/see/{token}/weeks.ics",
        said=_said,
        **values,
    )


def _said(when: str) -> str:
    """A moment that was, as people say it."""
    at = datetime.fromisoformat(when)
    return f"{at:%A %-d %B, %H:%M}"


@router.get("/see/{token}/weeks.ics")
def feed(house: InHouse, token: str) -> PlainTextResponse:
    """The same as a calendar that a phone asks for again and again."""
    with house.database.work() as work:
        found = _by(house, work, token)
    now = datetime.fromtimestamp(house.now_ms() / 1000, UTC)
    text = to_feed(found, house.about.name, house.zone, now, house.about.address)
    return PlainTextResponse(text, media_type="text/calendar; charset=utf-8")
