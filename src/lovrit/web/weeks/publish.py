"""Letting people see the weeks: a draft until the coach says so; what changed since, and who is down for it."""

from datetime import date, timedelta
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form
from fastapi.responses import RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.values import plain
from lovrit.core.weeks.publish import Shown, change_said, changed, like, published
from lovrit.house.house import House
from lovrit.house.published import shown
from lovrit.house.signed import link, picture_of
from lovrit.house.weeks import read_of
from lovrit.store import club, halls, people, sessions, weeks
from lovrit.store.tables import SessionRow
from lovrit.web.inhouse import InHouse

router = APIRouter(include_in_schema=False)
MOST_WORDS = 400
KEPT_DAYS = 30  # what is gone by for so long is shown no more


def people_see(house: House, work: Work, first: str, last: str) -> dict[str, Any]:
    """What the board says of publishing: the link, what is otherwise than people saw it, who is down for that."""
    before = shown(work)
    coming = _now(house, work, first, last)
    otherwise = changed(before, published(before, coming, first, last))
    path = link(house, "see", club.generation(work))
    return {
        "see": path if before else "",
        "nothing_comes": not before and not coming,
        "unseen": _said(work, before, otherwise) if before else [],
        "words_for": str(club.choice(work, "shown-words") or ""),
        "bring": str(club.choice(work, "shown-bring") or ""),
        "code": picture_of(path) if before else "",
        "only_here": house.settings.loopback,
    }


class Otherwise(NamedTuple):
    """What is otherwise than people saw it, in words, and who is down for it."""

    said: str
    who: tuple[str, ...]


def _said(work: Work, before: tuple[Shown, ...], otherwise: tuple[Shown, ...]) -> list[Otherwise]:
    saw = {one.uid: one for one in before}
    down = people.who_comes(work, [one.session for one in otherwise])
    names = {one.id: one.name for one in people.everyone(work)} if down else {}
    return [
        Otherwise(
            change_said(saw.get(one.uid), one),
            tuple(sorted(names[who] for who in down.get(one.session, ()) if who in names)),
        )
        for one in otherwise
    ]


def _now(house: House, work: Work, first: str, last: str) -> list[Shown]:
    off = weeks.off(work)  # on a day off there is nothing; what was shown of it is called off
    rows = [
        row
        for row in sessions.between_days(work, max(first, house.today), last)
        if row.day and row.day not in off
    ]
    where = halls.chosen(work, [row.id or 0 for row in rows])
    several = len(halls.halls(work)) > 1
    return [_shown(house, row, where[row.id or 0] if several else "") for row in rows]


def _shown(house: House, row: SessionRow, where: str) -> Shown:
    read = read_of(house, row)
    return Shown(
        uid=f"session-{row.id}@lovrit",
        session=row.id or 0,
        day=row.day or "",
        at=f"{read.begins:%H:%M}",
        minutes=max(1, round(read.seconds / 60)),
        title=row.title or "Training",
        like=like(read.asks),
        where=where,
    )


@router.post("/weeks/see")
def let_them_see(
    house: InHouse,
    at: Annotated[str, Form(max_length=40)],
    until: Annotated[str, Form(max_length=40)],
    words: Annotated[str, Form(max_length=MOST_WORDS)] = "",
    bring: Annotated[str, Form(max_length=200)] = "",
) -> Response:
    """From now on people see these weeks as they are; what they saw before and is otherwise is marked."""
    first, last = f"{house.day(at)}", f"{house.day(until)}"
    with house.database.writing() as work:
        old = f"{date.fromisoformat(house.today) - timedelta(days=KEPT_DAYS)}"
        kept = tuple(one for one in shown(work) if one.day >= old)
        after = published(kept, _now(house, work, first, last), max(first, house.today), last)
        club.choose(work, "shown", [plain(one) for one in after])
        club.choose(work, "shown-words", words.strip())
        club.choose(work, "shown-bring", " ".join(bring.split()))
    return RedirectResponse(f"/weeks?from={first}", 303)


@router.post("/weeks/renew")
def renew(house: InHouse, at: Annotated[str, Form(max_length=40)] = "") -> Response:
    """A new link; the old one shows nothing any more, nor do people's own calendars."""
    with house.database.writing() as work:
        club.renew(work)
    return RedirectResponse(f"/weeks?from={at}" if at else "/weeks", 303)
