"""Crew: who comes tonight; groups dealt by count and moved by hand."""

from typing import Annotated, Literal

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.crew.groups import MOST_GROUPS, deal, evened, usual_groups
from lovrit.core.crew.lists import read_people
from lovrit.core.crew.paces import read_paces
from lovrit.core.crew.person import Limit, Standing
from lovrit.core.review.turns import asked_most
from lovrit.core.tonight.people import last_whole, missed_said
from lovrit.core.values import LovritError
from lovrit.house.coming import said_of, smallest
from lovrit.house.house import House, since_day
from lovrit.house.lately import last_seen_of, last_times, watched
from lovrit.store import club, people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.crew.costs import clashes_of, waves_of
from lovrit.web.crew.onfloor import class_on, tell_floor
from lovrit.web.crew.view import crew_view
from lovrit.web.inhouse import FormId, Id, InHouse, floor_of
from lovrit.web.pages import page
from lovrit.web.words import KEYS

router = APIRouter(include_in_schema=False)


class NobodyThere(LovritError):
    """There is nobody to do this with."""


@router.get("/crew")
def crew(house: InHouse) -> Response:
    """To the crew of the session that was last worked on."""
    with house.database.work() as work:
        latest = sessions.latest(work)
    return RedirectResponse(f"/crew/{latest}" if latest else "/desk", 303)


@router.get("/crew/{session_id}")
def who(request: Request, house: InHouse, session_id: Id) -> Response:
    """Who comes to a session."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
    return _shown(request, house, row)


def _shown(request: Request, house: House, row: SessionRow) -> Response:
    assert row.id is not None
    with house.database.work() as work:
        everyone, comers, paces = (
            people.everyone(work),
            people.comers(work, row.id),
            club.paces(work),
        )
    plan = house.plan(row.text)
    view = crew_view(plan, everyone, comers, house.today, paces)
    whole = not request.headers.get("hx-request")
    template = "crew/page.html" if whole else "crew/people.html"
    on = class_on(floor_of(request), row.id)
    with house.database.work() as work:
        clashes, said = clashes_of(house, work, row.id), said_of(work, row.id)
        hardest = asked_most(plan.timeline) or 0.0
        watch = watched(floor_of(request), work, comers, hardest, {})
        here = {one.id for one, _ in comers}
        last = last_times(floor_of(request), work, here)
        others = [one for one in everyone if one.id not in here]
        seen = last_seen_of(house, work, others)
    missing = {one.id: missed_said(one, seen[one.id], house.today) for one in others}
    waves = waves_of(house, plan, len(view.groups))
    return page(
        request,
        house,
        template,
        session=row,
        crew=view,
        here="crew",
        on=on,
        clashes=clashes,
        waves=waves,
        keys=KEYS["crew"],
        said=said,
        watch={one.id: [mind for mind in one.minds if mind.warns or mind.last] for one in watch},
        last={who: last_whole(one, house.today) for who, one in last.items()},
        missing=missing,
        names={one.id: one.name for one in everyone},
    )


def _pace(text: str) -> int | None:
    """Seconds for 100 m; None where nothing is written."""
    said = text.strip()
    if said and not (said.isdecimal() and 8 <= int(said) <= 300):
        raise NobodyThere(f"“{text}” is no pace; write seconds for 100 m, such as 32.")
    return int(said) if said else None


def _after(
    request: Request, house: House, row: SessionRow, before: dict[int, int] | None = None
) -> Response:
    """The page again: the part that changed where a script asked, a way back without one.

    Where who comes was changed, ``before`` is who came before it, and the class that is on is told.

    Raises:
        NobodyThere: where the class that is on could not take it.
    """
    if before is not None and row.id is not None:
        with house.database.work() as work:
            after = coming(work, row.id)
        refused = tell_floor(floor_of(request), house, row.id, before, after)
        if refused:
            raise NobodyThere(f"Kept here, but not on the floor: {refused[0]}")
    if request.headers.get("hx-request"):
        return _shown(request, house, row)
    return RedirectResponse(f"/crew/{row.id}", 303)


def coming(work: Work, session_id: int) -> dict[int, int]:
    """Who comes to a session, by number, with their group (from 0)."""
    return {one.id: at for one, at in people.comers(work, session_id)}


def as_it_runs(request: Request, session_id: int, groups: dict[int, int]) -> dict[int, int]:
    """Groups as they were moved: closed up, but for a class that is on, whose letters stay what people know."""
    return groups if class_on(floor_of(request), session_id) else _closed_up(groups)


@router.post("/crew/{session_id}/deal")
def deal_groups(
    request: Request,
    house: InHouse,
    session_id: Id,
    groups: Annotated[int, Form(ge=1, le=MOST_GROUPS)],
) -> Response:
    """Deal everyone who comes into so many groups."""
    with house.database.writing() as work:
        row, before = sessions.get(work, session_id), coming(work, session_id)
        come = list(before) or [person.id for person in people.everyone(work)]
        if not come:
            raise NobodyThere("There is nobody in the club yet: bring people in first, on People.")
        people.set_comers(work, session_id, deal(come, groups))
    return _after(request, house, row, before)


@router.post("/crew/{session_id}/even")
def even_out(request: Request, house: InHouse, session_id: Id) -> Response:
    """Groups equal within one again, with as few people moved as can be."""
    with house.database.writing() as work:
        row, before = sessions.get(work, session_id), coming(work, session_id)
        people.set_comers(work, session_id, evened(before))
    return _after(request, house, row, before)


@router.post("/crew/{session_id}/who/{which}")
def who_comes(
    request: Request,
    house: InHouse,
    session_id: Id,
    which: Literal["all", "last", "none"],
    to: Annotated[Literal["crew", "tonight"], Form()] = "crew",
) -> Response:
    """Everyone comes, or those of the last session in their groups, or nobody; then back to where it was pressed."""
    with house.database.writing() as work:
        row, before = sessions.get(work, session_id), coming(work, session_id)
        everyone = [one.id for one in people.everyone(work)]
        view = crew_view(house.plan(row.text), [], [])
        last = people.came_last(work, session_id)
        if which == "last" and not last:
            raise NobodyThere("Nobody came to any session yet.")
        wanted = view.wanted if view.wanted > 1 else usual_groups(len(everyone), view.stations)
        chosen = {"all": deal(everyone, wanted), "last": last, "none": {}}[which]
        people.set_comers(work, session_id, _closed_up(chosen))
    shown = _after(request, house, row, before)
    return RedirectResponse("/", 303) if to == "tonight" else shown


@router.post("/crew/{session_id}/place")
def place(
    request: Request,
    house: InHouse,
    session_id: Id,
    person: FormId,
    group: Annotated[int, Form(ge=-1, lt=MOST_GROUPS)],
) -> Response:
    """Put a person into a group (from 0); -1 is staying away. Empty groups close up."""
    with house.database.writing() as work:
        row, before = sessions.get(work, session_id), coming(work, session_id)
        now = {who: at for who, at in before.items() if who != person}
        if group >= 0:
            now[person] = group
        people.set_comers(work, session_id, as_it_runs(request, session_id, now))
    return _after(request, house, row, before)


def _closed_up(groups: dict[int, int]) -> dict[int, int]:
    left = sorted(set(groups.values()))
    return {who: left.index(group) for who, group in groups.items()}


@router.post("/crew/{session_id}/stand")
def stand(
    request: Request,
    house: InHouse,
    session_id: Id,
    person: FormId,
    standing: Annotated[Standing, Form()] = "usual",
    since: Annotated[str, Form(max_length=40)] = "",
    limits: Annotated[list[Limit] | None, Form()] = None,
    pace: Annotated[str, Form(max_length=5)] = "",
    paces: Annotated[str, Form(max_length=300)] = "",
) -> Response:
    """Say how a person stands, since when, and what they don't do now."""
    begun = since_day(house, since, standing)
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        people.stand(
            work, person, standing, begun, tuple(limits or ()), _pace(pace), read_paces(paces)
        )
    return _after(request, house, row)


@router.post("/crew/{session_id}/join")
def join(
    request: Request, house: InHouse, session_id: Id, name: Annotated[str, Form(max_length=400)]
) -> Response:
    """One or several come along, each in the smallest group: those of the club as they are, others as new."""
    read = read_people(name, house.year)
    if read.asked:
        raise NobodyThere(read.asked[0].why)
    if not read.people:
        raise NobodyThere("A name, please.")
    with house.database.writing() as work:
        row, before = sessions.get(work, session_id), coming(work, session_id)
        now = dict(before)
        known = {one.name.casefold(): one for one in people.everyone(work)}
        for one in read.people:
            person = known.get(one.name.casefold()) or people.add_person(work, one.name)
            if person.id in now:
                raise NobodyThere(f"{person.name} already comes.")
            now[person.id] = smallest(now)
        people.set_comers(work, session_id, now)
    return _after(request, house, row, before)
