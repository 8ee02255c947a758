"""Placing: the solver asked round what is pinned, its answer taken, or why not and the ways out."""

import json
from dataclasses import field
from typing import TYPE_CHECKING, Annotated, Any

from anyio import CapacityLimiter, to_thread
from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse
from pydantic import Field, ValidationError
from sqlmodel import Session as Work

from lovrit.core.crew.person import Chosen
from lovrit.core.moves.names import key_of
from lovrit.core.place.hall import Hall, HallKit, labels
from lovrit.core.place.problem import Problem
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import OrderStations, SetFigure
from lovrit.core.values import Value, checked, checked_json, plain
from lovrit.store import club, people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.hall.evening import Evening, NoHall, answer, evening_of
from lovrit.web.hall.view import problem_in
from lovrit.web.house import House, Id, InHouse

if TYPE_CHECKING:
    from lovrit.core.place.place import Placing

router = APIRouter()
SECONDS = 3.0
MOST_WAYS = 6
ONE_AT_A_TIME = CapacityLimiter(1)
Load = Annotated[float, Field(gt=0, le=300)]


class Changes(Value):
    """What a way out changes: kit that is there, loads by person and move, how many groups, the rest in seconds,
    and what spots hold.
    """

    kit: Annotated[tuple[HallKit, ...], Field(max_length=60)] = ()
    loads: dict[str, dict[str, Load]] = field(default_factory=dict)
    groups: Annotated[int | None, Field(ge=1, le=26)] = None
    rest_s: Annotated[float | None, Field(ge=0, le=3600)] = None
    holds: dict[str, tuple[Annotated[str, Field(max_length=24)], ...]] = field(default_factory=dict)


@router.post("/hall/{session_id}/place")
async def place_all(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Stations, order and groups placed anew round what is pinned; or why not, with ways out that were each tried."""
    return await to_thread.run_sync(_placed, request, house, session_id, limiter=ONE_AT_A_TIME)


def _placed(
    request: Request, house: House, session_id: int, groups: int | None = None
) -> HTMLResponse:
    from lovrit.core.place.place import place  # the solver, for those who ask

    with house.database.work() as work:
        now = evening_of(house, work, session_id)
    if now.at is None:
        raise NoHall("In no block of this session do people move from station to station.")
    if not now.comers:
        raise NoHall("Nobody comes yet, so there is nobody to place: say who comes, on Crew.")
    problem = problem_in(now.plan, now.at, now.hall, now.comers, house.library)
    problem = problem.but(groups=min(groups, len(problem.people))) if groups else problem
    found = place(problem, SECONDS)
    if found is None:
        return answer(request, house, session_id, stuck=_stuck(problem))
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        _take_order(house, work, row, now, found.laid.order)
        _take_groups(work, session_id, now, problem, found.dealt.people)
        club.set_spots(work, session_id, _spots(found))
    return answer(
        request, house, session_id, f"Placed: {_proof(found)}. Undo of the order is on the Desk."
    )


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
    return f"the best found in {SECONDS:g} s, at most {off} % from the best"


def _stuck(problem: Problem) -> dict[str, Any]:
    """What collides, and the ways out with what each changes."""
    from lovrit.core.place.why import ways_out, why_not

    collisions = why_not(problem)
    ways = [(way.text, json.dumps(way.changes)) for way in ways_out(problem, collisions)]
    return {"texts": [one.text for one in collisions], "ways": ways[:MOST_WAYS]}


def _take_order(
    house: House, work: Work, row: SessionRow, now: Evening, order: tuple[int, ...]
) -> None:
    """The slate's stations in the order that was found."""
    assert now.at is not None
    if order != tuple(range(len(order))):
        text = apply_edit(row.text, OrderStations(block=now.at, order=order))
        sessions.write_text(work, row, text, row.version, None, None, house.now_ms())
        row.good_text = row.text


def _take_groups(
    work: Work, session_id: int, now: Evening, problem: Problem, dealt: dict[int, tuple[str, ...]]
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
    with house.database.writing() as work:
        _change(house, work, session_id, wanted)
    return await to_thread.run_sync(
        _placed, request, house, session_id, wanted.groups, limiter=ONE_AT_A_TIME
    )


def _change(house: House, work: Work, session_id: int, wanted: Changes) -> None:
    now = evening_of(house, work, session_id)
    if wanted.kit:
        new = {(one.name, one.load_kg): one.but(away=0) for one in wanted.kit}
        kept = [one for one in now.hall.kit if (one.name, one.load_kg) not in new]
        club.set_hall(work, checked(Hall, plain(now.hall.but(kit=(*kept, *new.values())))))
    if wanted.holds:
        hall = club.hall(work)
        spots = (one.but(holds=wanted.holds.get(one.id, one.holds)) for one in hall.spots)
        club.set_hall(work, checked(Hall, plain(hall.but(spots=tuple(spots)))))
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
