"""One finder for all pages: sessions, people, moves, classes and the commonest deeds, by words."""

from datetime import date
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Query, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.days import NoSuchDay
from lovrit.core.moves.names import key_of
from lovrit.core.review.sought import sought
from lovrit.house.house import House
from lovrit.store import classes, people, records, sessions
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page, render

router = APIRouter(include_in_schema=False)
MOST, MOST_SESSIONS, MOST_SHOWN = 5, 8, 200


class Hit(NamedTuple):
    """What was found: of which kind, its words, more of it, where it leads; ``post`` where it is done by pressing."""

    kind: str
    said: str
    more: str
    path: str
    post: bool = False


# what can be done by words: each with the words that ask for it, in a coach's own way of saying
DEEDS: tuple[tuple[str, str, str, bool], ...] = (
    ("new session", "a new session write begin empty slate", "/desk", True),
    ("paste a message or a board", "paste message board import file read", "/desk#pasted", False),
    ("all sessions", "list sessions archive", "/desk", False),
    ("archived sessions", "archive restore put away", "/desk?away=true", False),
    ("all classes that were run", "debrief classes history", "/debrief", False),
    ("add people", "people add import names members", "/people#list", False),
    ("the weeks", "plan publish calendar theme series days", "/weeks", False),
    ("equipment that is missing", "kit missing equipment broken", "/moves#kit", False),
    ("a move of our own", "new move add", "/moves/new", False),
    ("screens in the hall: join one", "wall screen join code", "/join", False),
    ("heart-rate straps", "straps heart sensors pair", "/straps", False),
    ("the club, its rules and its data", "club name zone defibrillator passphrase copy", "/club", False),
    ("progress over time", "club over time progress compare", "/debrief/club", False),
)  # fmt: skip


def found(house: House, work: Work, words: str) -> list[Hit]:
    """What words find, the likeliest first; with none, the evenings near and the commonest deeds."""
    said = words.strip().casefold()
    hits = [*_sessions(house, work, said), *_people(work, said), *_days(house, work, said)]
    if said:
        hits += [*_classes(house, work, words), *_moves(house, said)]
    return hits + _deeds(said)


def _sessions(house: House, work: Work, said: str) -> list[Hit]:
    rows = sessions.found(work, away=False, words=said, most=MOST_SESSIONS).rows
    return [_session(house, row.id or 0, row.title, row.day, ran) for row, ran in rows]


def _session(house: House, number: int, title: str, day: str | None, ran: int | None) -> Hit:
    when = f"on {date.fromisoformat(day):%A %-d %B}" if day else ""
    last = f"run {house.when(ran):%-d %B}" if ran else ""
    return Hit(
        "session",
        title or "Untitled session",
        ", ".join(filter(None, (when, last))),
        f"/desk/{number}",
    )


def _days(house: House, work: Work, said: str) -> list[Hit]:
    """Sessions of a day that was written as a day."""
    if not said:
        return []
    try:
        day = f"{house.day(said)}"
    except NoSuchDay:
        return []
    return [
        _session(house, row.id or 0, row.title, row.day, None)
        for row in sessions.between_days(work, day, day)
    ]


def _people(work: Work, said: str) -> list[Hit]:
    if not said:
        return []
    here = [one for one in people.everyone(work) if _has(one.name, said)]
    return [Hit("person", one.name, "", f"/people/{one.id}") for one in here[:MOST]]


def _classes(house: House, work: Work, words: str) -> list[Hit]:
    wanted = sought(words, date.fromisoformat(house.today))
    ids = records.find(work, wanted) or []
    rows = classes.listed(work, MOST, only=ids)
    return [
        Hit("class", row.title, f"run {house.when(row.made_ms):%A %-d %B %Y}", f"/debrief/{row.id}")
        for row in rows
    ]


def _moves(house: House, said: str) -> list[Hit]:
    here = [move for move in house.library.moves if _has(move.name, said)]
    here.sort(key=lambda move: (not move.name.casefold().startswith(said), len(move.name)))
    return [
        Hit("move", move.name, move.pattern, f"/moves/{key_of(move.name)}") for move in here[:MOST]
    ]


def _deeds(said: str) -> list[Hit]:
    return [
        Hit("do", name, "", path, post)
        for name, words, path, post in DEEDS
        if _has(f"{name} {words}", said)
    ][:MOST]


def _has(name: str, said: str) -> bool:
    """Whether all words begin a word of a name."""
    parts = name.casefold().replace("-", " ").split()
    return all(any(part.startswith(word) for part in parts) for word in said.split())


@router.get("/find")
def find(
    request: Request, house: InHouse, words: Annotated[str, Query(max_length=200)] = ""
) -> HTMLResponse:
    """What is found, under the line that asks; as a page of its own where there is no script."""
    with house.database.work() as work:
        hits = found(house, work, words)
    values: dict[str, Any] = {"hits": hits, "words_sought": words}
    if request.headers.get("hx-request"):
        return HTMLResponse(render(house, "tonight/found.html", **values))
    return page(request, house, "tonight/find.html", here="", **values)
