"""What is proposed on the fit sheet: levels that may rise by what people did lately, and sets beyond what they do."""

from collections.abc import Iterator
from datetime import date, timedelta
from typing import NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.crew.fits import Option, cell
from lovrit.core.crew.person import Person
from lovrit.core.crew.rising import Did, Rise, rise, said
from lovrit.core.run.event import Event
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.frozen import Frozen, UnreadableClass
from lovrit.core.tonight.people import last_whole, says_not_yet
from lovrit.core.tries.in_one_go import TooMuch, too_much
from lovrit.house.folded import folded
from lovrit.house.house import House
from lovrit.house.lately import last_times
from lovrit.store import classes, people, sessions
from lovrit.store.tables import ClassRow
from lovrit.web.crew.fits import stations_in
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import render

router = APIRouter(include_in_schema=False)
WEEKS, MOST_CLASSES = 12, 40


class RiseRow(NamedTuple):
    """Somebody's level that may rise, and at which station of the session (from 0)."""

    person: Person
    station: int
    rise: Rise


class BeyondRow(NamedTuple):
    """Somebody of whom a station (from 0) asks more than they do in one go."""

    person: Person
    station: int
    much: TooMuch


Done = dict[tuple[int, str], list[Did]]  # by person and station


@router.get("/crew/{session_id}/rises")
def rises(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """What is proposed to those who come to a session, with a press each; a part of the fit sheet."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        coming = [one for one, _ in people.comers(work, session_id)]
        did = _did(house, work)
        last = last_times(floor_of(request), work, [one.id for one in coming])
    today = date.fromisoformat(house.today)
    session = house.plan(row.text).session
    lines = stations_in(session)
    beyond = [
        BeyondRow(one, nth, much)
        for one in coming
        if one.mosts
        for nth, line in enumerate(lines)
        for much in [too_much(one, line, session.blocks, house.library)]
        if much
    ]
    found = [
        RiseRow(one, nth, told)
        for one in coming
        if one.id not in last or not says_not_yet(last[one.id])
        for nth, line in enumerate(lines)
        for told in [rise(one, line, house.library, did.get((one.id, line.name), ()), today)]
        if told
    ]
    before = {who: last_whole(one, house.today) for who, one in last.items()}
    return HTMLResponse(
        render(house, "crew/rises.html", session=row, rises=found, beyond=beyond, last=before)
    )


def _did(house: House, work: Work) -> Done:
    """What everybody did at stations in the classes of the last weeks; a class that can't be read is left out."""
    since = date.fromisoformat(house.today) - timedelta(weeks=WEEKS)
    found: Done = {}
    for listed in classes.listed(work, MOST_CLASSES):
        day = house.when(listed.made_ms).date()
        if day < since or listed.over_ms is None or listed.is_try:
            continue
        try:
            row = classes.get(work, listed.id or 0)
            for who, did in _of_class(row, classes.events(work, row.id or 0), day):
                found.setdefault(who, []).append(did)
        except UnreadableClass:
            continue
    return found


def _of_class(
    row: ClassRow, happened: tuple[Event, ...], day: date
) -> Iterator[tuple[tuple[int, str], Did]]:
    """What each person did at each station of a class."""
    plan, came, fold, _ = folded(row, happened)
    going = fold.state
    shorter = any(KNOWN[one.kind].leaves_out for one in fold.counted)
    for line in stations_in(plan.session):
        asked = _asked(plan, line.name)
        for comer in came:
            own, who = cell(comer, line, plan.library), str(comer.id)
            whole = not shorter and who not in going.away
            done = said(Option(own.does, own.load, frozenset()))
            yield (comer.id, line.name), Did(day, done, going.felt.get(who), asked, whole)


def _asked(plan: Frozen, station: str) -> float | None:
    """The effort that the blocks of a station asked for, the highest."""
    tops = [
        block.top_effort
        for block in plan.session.blocks
        if block.top_effort is not None and any(line.name == station for line in block.moves)
    ]
    return max(tops, default=None)
