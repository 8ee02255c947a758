"""A series on the board: a session a little further every week, as real sessions; steps that wait, and why."""

from collections.abc import Iterator
from datetime import date, timedelta
from itertools import count, islice
from typing import Annotated, Any, NamedTuple

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.advice.judged import judge_by
from lovrit.core.session.dated import with_date
from lovrit.core.weeks.held import held_back, weigh
from lovrit.core.weeks.series import THINGS, NoSeries, Thing, Week, series
from lovrit.house.house import House
from lovrit.house.weeks import monday_of
from lovrit.store import classes, records, sessions, weeks
from lovrit.store.weeks import KeptSeries
from lovrit.web.inhouse import FormId, InHouse
from lovrit.web.pages import page
from lovrit.web.weeks.doing import Doing

router = APIRouter(include_in_schema=False)
USUAL_WEEKS, MOST_WEEKS = 6, 26
Grow = Annotated[list[str] | None, Query(max_length=8)]


class WeekOf(NamedTuple):
    """One week of a series that is laid out: its number, session, day, and how it went, where it was run."""

    nth: int
    session: int
    day: str
    text: str
    went: str
    held: str


@router.get("/weeks/series")
def shown(
    request: Request,
    house: InHouse,
    session: int,
    weeks_: Annotated[int, Query(alias="weeks", ge=2, le=MOST_WEEKS)] = USUAL_WEEKS,
    easier: Annotated[int, Query(ge=0, le=MOST_WEEKS)] = 4,
    grow: Grow = None,
) -> HTMLResponse:
    """The series that a session is of; else what one from it would be, week by week."""
    with house.database.work() as work:
        row = sessions.get(work, session)
        mine = _of(work, session)
        laid = _weeks_of(work, mine) if mine else []
        days = list(islice(free_weeks(_first(house, row.day), weeks.off(work)), weeks_))
    things = _things(grow)
    ahead: tuple[Week, ...] = ()
    refused = ""
    if mine is None:
        try:
            ahead = series(
                row.text, weeks_, things, easier, house.library, judge=judge_by(house.library)
            )
            ahead = tuple(
                one._replace(slate=with_date(one.slate, f"{on}"))
                for one, on in zip(ahead, days, strict=True)
            )
        except NoSeries as error:
            refused = str(error)
    values: dict[str, Any] = {
        "session": row, "mine": mine, "laid": laid, "ahead": ahead, "refused": refused, "things": THINGS,
        "grow": things, "weeks": weeks_, "easier": easier,
        "days": [f"{one:%a %-d %b}" for one in days],
        "monday": f"{monday_of(_first(house, row.day))}",
    }  # fmt: skip
    return page(
        request, house, "weeks/series.html", here="weeks", status=422 if refused else 200, **values
    )


def _things(grow: list[str] | None) -> tuple[Thing, ...]:
    return tuple(one for one in THINGS if one in (grow or ["rounds", "rest"]))


def _first(house: House, day: str | None) -> date:
    return date.fromisoformat(day or house.today)


def free_weeks(first: date, off: frozenset[str] | set[str]) -> Iterator[date]:
    """The same weekday week by week, over those that are off."""
    return (one for nth in count() if f"{(one := first + timedelta(days=7 * nth))}" not in off)


def _of(work: Work, session: int) -> KeptSeries | None:
    return next((one for one in weeks.all_series(work) if session in one["sessions"]), None)


def _weeks_of(work: Work, mine: KeptSeries) -> list[WeekOf]:
    found = []
    for nth, number in enumerate(mine["sessions"], 1):
        row = sessions.get(work, number)
        held = mine["held"].get(f"{nth}", "")
        found.append(WeekOf(nth, number, row.day or "", row.text, _went(work, number), held))
    return found


def _went(work: Work, session: int) -> str:
    """How a week of a series went, as far as the step after it is concerned."""
    ran = [records.outcome(work, one.id or 0) for one in classes.of_sessions(work, [session])]
    came = max(filter(None, ran), key=lambda one: one.outcome.done, default=None)
    if came is None:
        return ""
    weighed = weigh(came.outcome)
    return weighed.held or weighed.unknown or "went as asked"


@router.post("/weeks/series")
def lay(
    house: InHouse,
    session: FormId,
    weeks_: Annotated[int, Form(alias="weeks", ge=2, le=MOST_WEEKS)] = USUAL_WEEKS,
    easier: Annotated[int, Form(ge=0, le=MOST_WEEKS)] = 4,
    grow: Annotated[list[str] | None, Form(max_length=8)] = None,
) -> Response:
    """A series is laid out: the session itself is its first week, a new one each week after it."""
    things = _things(grow)
    with house.database.writing() as work:
        row = sessions.get(work, session)
        made = series(
            row.text, weeks_, things, easier, house.library, judge=judge_by(house.library)
        )
        doing, first = Doing(house, work), _first(house, row.day)
        doing.move(session, f"{first}")
        numbers = [session]
        days = free_weeks(first + timedelta(days=7), weeks.off(work))
        for one, on in zip(made[1:], days, strict=False):
            numbers.append(doing.make(one.slate, row.title, f"{on}"))
        kept = weeks.all_series(work)
        new: KeptSeries = {"sessions": numbers, "grow": list(things), "easier": easier, "held": {}}
        doing.choose(weeks.SERIES, [*(dict(one) for one in kept), dict(new)])
        doing.done("a series")
    return RedirectResponse(f"/weeks?from={monday_of(first)}&weeks={min(8, weeks_)}", 303)


@router.post("/weeks/series/on")
def goes_on(house: InHouse, session: FormId) -> Response:
    """The rest of a series follows from one of its weeks, as it was changed by hand."""
    with house.database.writing() as work:
        mine = _of(work, session)
        if mine is None:
            raise NoSeries("This session is of no series.")
        nth = mine["sessions"].index(session)
        left = mine["sessions"][nth:]
        things = tuple(one for one in THINGS if one in mine["grow"])
        row = sessions.get(work, session)
        made = series(
            row.text,
            len(left),
            things,
            mine["easier"],
            house.library,
            nth + 1,
            judge_by(house.library),
        )
        doing = Doing(house, work)
        _rewrite(doing, work, left, [row.text, *(one.slate for one in made[1:])])
        doing.done("the rest of a series")
    return RedirectResponse(f"/weeks/series?session={session}", 303)


def _rewrite(doing: Doing, work: Work, numbers: list[int], texts: list[str]) -> None:
    """Sessions get other texts, each on the day that it has; one that was run stays."""
    for number, text in zip(numbers, texts, strict=True):
        row = sessions.get(work, number)
        if not classes.of_sessions(work, [number]):
            doing.write(number, with_date(text, row.day))


def hold_where_too_much(house: House, work: Work, class_id: int) -> None:
    """After a class of a series: where it was too much the next step waits, which is kept with its reason.

    Each class holds once: who takes that back has decided, whatever is typed of it afterwards. A try holds nothing.
    """
    row = classes.get(work, class_id)
    number = None if row.is_try or class_id in weeks.held_by(work) else row.session_id
    mine = _of(work, number) if number is not None else None
    came = records.outcome(work, class_id)
    if mine is None or number is None or came is None:
        return
    nth = mine["sessions"].index(number)
    why = weigh(came.outcome).held
    if not why or f"{nth + 1}" in mine["held"] or nth == len(mine["sessions"]) - 1:
        return
    doing = Doing(house, work)
    texts = [sessions.get(work, one).text for one in mine["sessions"]]
    _rewrite(doing, work, mine["sessions"][nth + 1 :], held_back(texts, nth)[nth + 1 :])
    others = [dict(one) for one in weeks.all_series(work) if one["sessions"] != mine["sessions"]]
    doing.choose(weeks.SERIES, [*others, dict(mine) | {"held": mine["held"] | {f"{nth + 1}": why}}])
    doing.done(f"week {nth + 1} of a series was too much: {why}")
    weeks.hold_by(work, class_id)
