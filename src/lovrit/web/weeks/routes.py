"""Weeks: the board of days; sessions put there, moved, copied, changed; every step can be taken back."""

import re
from datetime import date, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.asked.carried import OTHER
from lovrit.core.asked.qualities import REGIONS
from lovrit.core.days import NoSuchDay
from lovrit.core.session.dated import with_start
from lovrit.house.house import House
from lovrit.house.noted import notes_of
from lovrit.house.recorded import up_to_date
from lovrit.house.weeks import Laid, lay_out, monday_of, read_of
from lovrit.store import classes, halls, records, sessions, weeks
from lovrit.web.inhouse import FormId, InHouse
from lovrit.web.pages import page
from lovrit.web.weeks.doing import Doing, take_back
from lovrit.web.weeks.publish import people_see
from lovrit.web.weeks.view import board_view, wish_said
from lovrit.web.words import KEYS

router = APIRouter(include_in_schema=False)
USUAL_WEEKS, MOST_WEEKS = 4, 8
Day = Annotated[str, Form(max_length=40)]
Shown = Annotated[int, Query(alias="weeks", ge=1, le=MOST_WEEKS)]
Chosen = Annotated[int | None, Query(alias="weeks", ge=1, le=MOST_WEEKS)]
From = Annotated[str, Query(alias="from", max_length=40)]
TIME = re.compile(r"([01]?\d|2[0-3])[:.h]([0-5]\d)")


@router.get("/weeks")
def board(
    request: Request, house: InHouse, first: From = "", chosen: Chosen = None
) -> HTMLResponse:
    """So many weeks from the Monday of a day on; from this week's where none is named, as many as were shown last."""
    shown = chosen or _shown_last(request)
    up_to_date(house)
    monday = first_of(house, first)
    with house.database.work() as work:
        laid = lay_out(house, work, monday, shown)
        library = sessions.found(work, False).rows
        seen = people_see(house, work, f"{monday}", f"{laid.last}")
        names = [one.name for one in halls.halls(work)]
        ahead = [row.id or 0 for row in laid.rows if row.day and row.day >= house.today]
        noted = {one: note.text for one, note in notes_of(house, work, ahead).items()}
        view = board_view(laid, _ran(work, laid), len(names) > 1, noted)
        steps, wishes = weeks.steps(work), weeks.wishes(work)
    titles = {f"{row.id}": row.title or "Untitled session" for row in laid.rows}
    values: dict[str, Any] = {
        **seen,
        "until": f"{laid.last}",
        "board": view,
        "keys": KEYS["weeks"],
        "monday": f"{monday}",
        "before": f"{monday - timedelta(days=7 * shown)}",
        "after": f"{monday + timedelta(days=7 * shown)}",
        "shown": shown,
        "days": [one for week in view.weeks for one in week.days],
        "here_now": [
            one for week in view.weeks for day in week.days for one in day.sessions if not one.past
        ],
        "library": [row for row, _ in library],
        "undo": len(steps),
        "undoes": steps[-1].get("said", "") if steps else "",
        "weights": list(OTHER),
        "can_name": [one for one in REGIONS if one != "breath"],
        "hall_names": names,
        "coach_names": sorted({name for name in laid.coaches.values() if name}),
        "limit": laid.limit,
        "wishes": [wish_said(one, titles) for one in wishes],
    }
    answer = page(request, house, "weeks/page.html", here="weeks", **values)
    answer.set_cookie("weeks", f"{shown}", samesite="strict", httponly=True)
    return answer


def _shown_last(request: Request) -> int:
    """How many weeks this browser was shown last."""
    kept = request.cookies.get("weeks", "")
    known = kept in {f"{one}" for one in range(1, MOST_WEEKS + 1)}
    return int(kept) if known else USUAL_WEEKS


def first_of(house: House, first: str) -> date:
    """The Monday from which weeks are shown."""
    return monday_of(house.day(first) if first else date.fromisoformat(house.today))


def _ran(work: Work, laid: Laid) -> dict[int, tuple[int, str]]:
    """How sessions of days gone by were run: kept, changed and how, on another day, left out."""
    days = {row.id or 0: row.day or "" for row in laid.rows}
    past = [one for one, day in days.items() if f"{laid.first}" <= day < f"{laid.today}"]
    found: dict[int, tuple[int, str]] = dict.fromkeys(past, (0, "left out"))
    for row in classes.of_sessions(work, past):
        kept = records.outcome(work, row.id or 0)
        if kept is None or row.session_id is None:
            continue
        on_its_day = kept.day == days[row.session_id]
        if on_its_day or not found[row.session_id][0]:
            found[row.session_id] = (row.id or 0, _how(kept, "" if on_its_day else kept.day))
    return found


def _how(kept: records.Came, day: str) -> str:
    """How a class was run, beside its plan."""
    when = f" on {date.fromisoformat(day):%a %-d %b}" if day else ""
    off = [
        f"{seconds // 60} min {word}"
        for seconds, word in ((kept.outcome.late_s, "over"), (kept.outcome.missed_s, "short"))
        if seconds >= 60
    ]
    return f"run{when}: {', '.join([*kept.changes, *off]) or 'as planned'}"


def back_to(at: str) -> Response:
    """The board again, from where it was looked at."""
    return RedirectResponse(f"/weeks?from={at}" if at else "/weeks", 303)


@router.post("/weeks/move")
def move(
    house: InHouse,
    session: FormId,
    day: Day = "",
    at: Day = "",
    was: Annotated[str | None, Form(max_length=10)] = None,
) -> Response:
    """A session goes to another day; to none where the day is empty."""
    wanted = f"{house.day(day)}" if day.strip() else None
    with house.database.writing() as work:
        doing = Doing(house, work)
        doing.move(session, wanted, was)
        doing.done("a session moved" if wanted else "a session taken off")
    return back_to(at)


@router.post("/weeks/put")
def put(
    house: InHouse,
    session: FormId,
    day: Day = "",
    words: Annotated[str, Form(max_length=200)] = "",
    at: Day = "",
) -> Response:
    """A session of the library on a day, itself where it has none yet, else a copy; by words where some are typed."""
    wanted = f"{house.day(day)}"
    with house.database.writing() as work:
        doing = Doing(house, work)
        doing.put(_by_words(work, words) if words.strip() else session, wanted)
        doing.done("a session put there")
    return back_to(at)


def _by_words(work: Work, words: str) -> int:
    """The session that was changed last of those that have all the words.

    Raises:
        NoSuchDay: where none has.
    """
    found = sessions.found(work, False, words, 1).rows
    if not found:
        raise NoSuchDay(f"No session has all of “{words.strip()}”.")
    return found[0][0].id or 0


@router.post("/weeks/swap")
def swap(house: InHouse, session: FormId, other: FormId, at: Day = "") -> Response:
    """Two sessions change days, each at its own hour."""
    with house.database.writing() as work:
        days = [sessions.get(work, one).day for one in (session, other)]
        doing = Doing(house, work)
        doing.move(session, days[1])
        doing.move(other, days[0])
        doing.done("two days changed places")
    return back_to(at)


@router.post("/weeks/on")
def on(
    house: InHouse,
    session: FormId,
    day: Day = "",
    begins: Annotated[str, Form(max_length=8)] = "",
    hall: Annotated[str, Form(max_length=80)] = "",
    coach: Annotated[str, Form(max_length=60)] = "",
    at: Day = "",
    was: Annotated[str | None, Form(max_length=10)] = None,
) -> Response:
    """What a session has on its day: the day itself, when it begins, its hall, its coach."""
    wanted = f"{house.day(day)}" if day.strip() else None
    with house.database.writing() as work:
        row = sessions.get(work, session)
        doing = Doing(house, work)
        if begins.strip():
            read = read_of(house, row)
            text = with_start(row.text, _time_of(begins), -(-read.seconds // 300) * 5)
            if f"{read.begins:%H:%M}" != _time_of(begins):
                doing.write(session, text)
        doing.move(session, wanted, was)
        _who_and_where(doing, work, session, hall.strip(), " ".join(coach.split()))
        doing.done("what a session has on its day")
    return back_to(at)


def _who_and_where(doing: Doing, work: Work, session: int, hall: str, coach: str) -> None:
    if hall and hall != halls.hall(work, session).name:
        if hall not in {one.name for one in halls.halls(work)}:
            raise NoSuchDay(f"There is no hall called “{hall}”.")
        doing.choose(f"hall-{session}", hall)
    known = weeks.coaches(work)
    if coach != known.get(session, ""):
        named = {f"{one}": name for one, name in known.items() if one != session}
        doing.choose(weeks.COACHES, named | ({f"{session}": coach} if coach else {}))


def _time_of(text: str) -> str:
    """A time of day as it is written.

    Raises:
        NoSuchDay: where it is none.
    """
    found = TIME.fullmatch(text.strip())
    if not found:
        raise NoSuchDay(f"“{text}” is no time of day; write it as 18:10.")
    return f"{int(found[1]):02d}:{found[2]}"


@router.post("/weeks/undo")
def undo(
    house: InHouse, at: Day = "", seen: Annotated[int | None, Form(ge=0, le=10_000)] = None
) -> Response:
    """The last step is taken back, where it is still the one that was seen."""
    with house.database.writing() as work:
        take_back(house, work, seen)
    return back_to(at)
