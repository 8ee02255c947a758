"""Placing: the solver asked round what is pinned, its answer taken, or why not and the ways out."""

import json
from dataclasses import field
from typing import TYPE_CHECKING, Annotated, Any, NamedTuple

from anyio import CapacityLimiter, to_thread
from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse
from pydantic import Field, ValidationError
from sqlmodel import Session as Work

from lovrit.core.crew.person import Chosen
from lovrit.core.moves.names import key_of
from lovrit.core.place.hall import Hall, HallKit, labels
from lovrit.core.place.problem import Problem
from lovrit.core.place.wishes import Weight, Wishes
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import OrderStations, SetFigure
from lovrit.core.values import Value, checked, checked_json, plain
from lovrit.house.evening import InHall, evening_of, problem_in
from lovrit.house.house import House
from lovrit.house.jobs import PATIENCE_S
from lovrit.store import halls, people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.hall.answer import NoHall, answer
from lovrit.web.inhouse import Id, InHouse

if TYPE_CHECKING:
    from lovrit.core.place.place import Placing
    from lovrit.core.place.watch import Watch

router = APIRouter(include_in_schema=False)
SECONDS = 6.0
MOST_WAYS = 6
SOME = CapacityLimiter(4)
Load = Annotated[float, Field(gt=0, le=300)]


class Changes(Value):
    """What a way out changes: kit that is there, loads by person and move, how many groups, the rest in seconds,
    what spots hold, musts that become wishes, and whether the order that was given by hand stays.
    """

    kit: Annotated[tuple[HallKit, ...], Field(max_length=60)] = ()
    loads: dict[str, dict[str, Load]] = field(default_factory=dict)
    groups: Annotated[int | None, Field(ge=1, le=26)] = None
    rest_s: Annotated[float | None, Field(ge=0, le=3600)] = None
    holds: dict[str, tuple[Annotated[str, Field(max_length=24)], ...]] = field(default_factory=dict)
    wishes: dict[str, Weight] = field(default_factory=dict)
    in_order: bool = True


class Tried(NamedTuple):
    """What came of a placing: what was placed in words, or why it can't be."""

    said: str = ""
    stuck: dict[str, Any] | None = None


@router.post("/hall/{session_id}/place")
async def place_all(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Stations, order and groups placed anew round what is pinned; or why not, with ways out that were each tried.

    A page with a script is told how far it is once it takes longer; without one the answer waits.
    """
    return await to_thread.run_sync(_begun, request, house, session_id, None, limiter=SOME)


@router.get("/hall/{session_id}/placing")
async def placing(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """How far a placing is, or what came of it."""
    return await to_thread.run_sync(_told, request, house, session_id, limiter=SOME)


@router.post("/hall/{session_id}/stop")
async def stop(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Stop placing: the best that was found is taken."""
    job = house.placings.under_way(session_id)
    if job:
        job.watch.stop()
        await to_thread.run_sync(job.wait, limiter=SOME)
    return await to_thread.run_sync(_told, request, house, session_id, limiter=SOME)


def _begun(request: Request, house: House, session_id: int, groups: int | None) -> HTMLResponse:
    with house.database.work() as work:
        now = evening_of(house, work, session_id)
    if now.at is None:
        raise NoHall("In no block of this session do people move from station to station.")
    if not now.comers:
        raise NoHall("Nobody comes yet, so there is nobody to place: say who comes, on Crew.")
    problem = problem_in(now, house.library, now.wished)
    problem = problem.but(groups=min(groups, len(problem.people))) if groups else problem
    job = house.placings.begin(session_id, lambda watch: _tried(house, session_id, problem, watch))
    job.wait(PATIENCE_S if request.headers.get("x-lovrit") else None)
    return _told(request, house, session_id)


def _told(request: Request, house: House, session_id: int) -> HTMLResponse:
    job = house.placings.under_way(session_id)
    if job is None:
        return answer(request, house, session_id)
    if not job.done:
        return answer(request, house, session_id, going=job.watch.said)
    house.placings.over(session_id)
    tried = job.taken()
    assert isinstance(tried, Tried)
    return answer(request, house, session_id, tried.said, tried.stuck)


def _tried(house: House, session_id: int, problem: Problem, watch: "Watch") -> Tried:
    """A placing looked for, and taken where one is found and nothing of it has changed meanwhile."""
    from lovrit.core.place.place import place  # the solver, for those who ask

    found = place(problem, SECONDS, watch)
    if found is None:
        if watch.stopped:
            return Tried("Stopped before anything was found; all stands as it stood.")
        watch.tell("it can’t be placed like this; looking for what would help")
        return Tried(stuck=_stuck(problem))
    with house.database.writing() as work:
        now = evening_of(house, work, session_id)
        if now.at is None or problem != _as_it_was(house, now, problem):
            return Tried(
                "Something was changed while it was placed, so nothing was moved. Place it again."
            )
        _take_order(house, work, sessions.get(work, session_id), now, found.laid.order)
        _take_groups(work, session_id, now, problem, found.dealt.people)
        halls.set_spots(work, session_id, _spots(found))
    turned = found.laid.order != tuple(range(problem.count))
    undo = " The order can be undone under Write." if turned else ""
    return Tried(f"Placed: {_proof(found)}.{undo}")


def _as_it_was(house: House, now: InHall, problem: Problem) -> Problem:
    assert now.at is not None
    made = problem_in(now, house.library, now.wished)
    return made.but(groups=problem.groups)


def _spots(found: "Placing") -> dict[str, str]:
    """The spot of each station, by their names."""
    stations, spots = found.problem.stations, found.problem.spots
    both = zip(found.laid.order, found.laid.spots, strict=True)
    return {stations[nth].name: spots[at].id for nth, at in both}


def _proof(found: "Placing") -> str:
    """What is known of how good it is."""
    if found.proven:
        return "the best of all, proven"
    off = round(found.gap * 100)
    return f"the best that was found, at most {off} % from the best"


def _stuck(problem: Problem) -> dict[str, Any]:
    """What collides, and the ways out with what each changes."""
    from lovrit.core.place.ways import ways_out
    from lovrit.core.place.why import why_not

    collisions = why_not(problem)
    ways = [(way.text, json.dumps(way.changes)) for way in ways_out(problem, collisions)]
    return {"texts": [one.text for one in collisions], "ways": ways[:MOST_WAYS]}


def _take_order(
    house: House, work: Work, row: SessionRow, now: InHall, order: tuple[int, ...]
) -> None:
    """The slate's stations in the order that was found."""
    assert now.at is not None
    if order != tuple(range(len(order))):
        text = apply_edit(row.text, OrderStations(block=now.at, order=order))
        sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
        row.good_text = row.text


def _take_groups(
    work: Work, session_id: int, now: InHall, problem: Problem, dealt: dict[int, tuple[str, ...]]
) -> None:
    """People into the groups that begin where they were placed; more groups than stations begin side by side."""
    who = {name: number for number, name in labels([one for one, _ in now.comers]).items()}
    groups: dict[int, int] = {}
    for start, some in dealt.items():
        many = len(range(start, problem.groups, problem.count)) or 1
        for nth, name in enumerate(some):
            groups[who[name]] = start + problem.count * (nth * many // len(some))
    people.set_comers(work, session_id, groups)


@router.post("/hall/{session_id}/way")
async def way_out(
    request: Request,
    house: InHouse,
    session_id: Id,
    changes: Annotated[str, Form(max_length=20_000)],
) -> HTMLResponse:
    """A way out taken: what it changes is changed, and all is placed with it."""
    try:
        wanted = checked_json(Changes, changes)
    except (ValidationError, ValueError):
        raise NoHall("That way is none of those offered.") from None
    return await to_thread.run_sync(_begun_with, request, house, session_id, wanted, limiter=SOME)


def _begun_with(request: Request, house: House, session_id: int, wanted: Changes) -> HTMLResponse:
    with house.database.writing() as work:
        _change(house, work, session_id, wanted)
    return _begun(request, house, session_id, wanted.groups)


def _change(house: House, work: Work, session_id: int, wanted: Changes) -> None:
    now = evening_of(house, work, session_id)
    if wanted.kit:
        new = {(one.name, one.load_kg): one.but(away=0) for one in wanted.kit}
        kept = [one for one in now.hall.kit if (one.name, one.load_kg) not in new]
        changed = checked(Hall, plain(now.hall.but(kit=(*kept, *new.values()))))
        halls.set_hall(work, changed, session_id)
    if not wanted.in_order:
        halls.keep_order(work, session_id, ())
    if wanted.wishes:
        weighed = checked(Wishes, plain(now.wished.wishes) | wanted.wishes)
        halls.set_wishes(work, session_id, weighed, club=False)
    if wanted.holds:
        hall = halls.hall(work, session_id)
        spots = (one.but(holds=wanted.holds.get(one.id, one.holds)) for one in hall.spots)
        halls.set_hall(work, checked(Hall, plain(hall.but(spots=tuple(spots)))), session_id)
    if wanted.rest_s and now.at is not None:
        edit = SetFigure(block=now.at, figure="rest", value=wanted.rest_s)
        text = apply_edit(now.row.text, edit)
        sessions.write_text(work, now.row, text, now.row.version, None, None, house.now_ms())
        now.row.good_text = now.row.text
    called = labels([one for one, _ in now.comers])
    for one, _ in now.comers:
        loads = wanted.loads.get(called[one.id], {})
        taken = {
            key_of(move): plain(Chosen(name=move, load=load, brought=True))
            for move, load in loads.items()
        }
        if taken:
            people.change(work, one.id, does=plain(one)["does"] | taken)
