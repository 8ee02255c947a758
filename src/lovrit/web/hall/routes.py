"""Hall: the floor drawn to scale, stations placed by the solver or by hand, and what clashes with its way out."""

import json
from dataclasses import field
from math import isfinite
from typing import Annotated, Any, NamedTuple

from anyio import CapacityLimiter, to_thread
from fastapi import APIRouter, Form, Request, UploadFile
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import Field, ValidationError
from sqlmodel import Session as Work

from lovrit.core.crew.person import Chosen, Person
from lovrit.core.moves.names import key_of
from lovrit.core.place.hall import Hall, HallKit, HallSpot, labels
from lovrit.core.place.problem import Problem
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import OrderStations, SetFigure
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import LovritError, Value, checked, checked_json, plain
from lovrit.store import club, people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.hall.view import hall_view, moving_block, problem_in
from lovrit.web.house import House, Id, InHouse, WholeForm
from lovrit.web.pages import page, render

router = APIRouter()
SECONDS = 3.0
ONE_AT_A_TIME = CapacityLimiter(1)
MOST_BYTES = 200_000
MOST_ROWS = 62  # of spots or kit in the form


class NoHall(LovritError):
    """A hall, or something in it, that can't be."""


class Evening(NamedTuple):
    """A session with who comes to it and where."""

    row: SessionRow
    plan: Plan
    at: int | None
    hall: Hall
    comers: list[tuple[Person, int]]
    spots: dict[str, str]


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


def _evening(house: House, work: Work, session_id: int) -> Evening:
    row = sessions.get(work, session_id)
    plan = plan_text(row.good_text or row.text, house.library)
    return Evening(
        row,
        plan,
        moving_block(plan),
        club.hall(work),
        people.comers(work, session_id),
        club.spots(work, session_id),
    )


@router.get("/hall")
def latest(house: InHouse) -> Response:
    """To the hall of the session that was last worked on."""
    with house.database.work() as work:
        session_id = sessions.latest(work)
    return RedirectResponse(f"/hall/{session_id}" if session_id else "/desk", 303)


@router.get("/hall.json")
def as_json(house: InHouse) -> PlainTextResponse:
    """The hall as JSON, in the form that the command line reads."""
    with house.database.work() as work:
        drawn = plain(club.hall(work))
    text = json.dumps(drawn, ensure_ascii=False, indent=1)
    headers = {"Content-Disposition": 'attachment; filename="hall.json"'}
    return PlainTextResponse(text, media_type="application/json", headers=headers)


@router.get("/hall/{session_id}")
def shown(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """The hall of a session tonight."""
    return _shown(request, house, session_id)


def _shown(
    request: Request,
    house: House,
    session_id: int,
    said: str = "",
    stuck: dict[str, Any] | None = None,
) -> HTMLResponse:
    with house.database.work() as work:
        now = _evening(house, work, session_id)
    view = None
    if now.at is not None:
        view = hall_view(now.plan, now.at, now.hall, now.comers, now.spots, house.library)
    values: dict[str, Any] = {
        "session": now.row,
        "view": view,
        "hall": now.hall,
        "coming": len(now.comers),
        "took": said,
        "stuck": stuck,
    }
    if request.headers.get("x-lovrit"):
        return HTMLResponse(render(house, "hall/body.html", **values))
    return page(request, house, "hall/page.html", here="hall", **values)


@router.post("/hall/{session_id}/place")
async def place_all(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """Stations, order and groups placed anew round what is pinned; or why not, with ways out that were each tried."""
    return await to_thread.run_sync(_placed, request, house, session_id, limiter=ONE_AT_A_TIME)


def _placed(
    request: Request, house: House, session_id: int, groups: int | None = None, before: str = ""
) -> HTMLResponse:
    from lovrit.core.place.place import place  # the solver, for those who ask
    from lovrit.core.place.why import ways_out, why_not

    with house.database.work() as work:
        now = _evening(house, work, session_id)
    if now.at is None:
        raise NoHall("In no block of this session do people move from station to station.")
    if not now.comers:
        raise NoHall("Nobody comes yet, so there is nobody to place: say who comes, on Crew.")
    problem = problem_in(now.plan, now.at, now.hall, now.comers, house.library)
    problem = problem.but(groups=min(groups, len(problem.people))) if groups else problem
    found = place(problem, SECONDS)
    if found is None:
        collisions = why_not(problem)
        stuck = {
            "texts": [one.text for one in collisions],
            "ways": [(way.text, json.dumps(way.changes)) for way in ways_out(problem, collisions)][
                :6
            ],
        }
        return _shown(request, house, session_id, stuck=stuck)
    order = found.laid.order
    spots = {
        problem.stations[nth].name: problem.spots[spot].id
        for nth, spot in zip(order, found.laid.spots, strict=True)
    }
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        _take_order(house, work, row, now, order)
        _take_groups(work, session_id, now, problem, found.dealt.people)
        club.set_spots(work, session_id, spots)
    proof = (
        "the best of all, proven"
        if found.proven
        else f"the best found in {SECONDS:g} s, at most {round(found.gap * 100)} % from the best"
    )
    return _shown(
        request, house, session_id, f"{before}Placed: {proof}. Undo of the order is on the Desk."
    )


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
    now = _evening(house, work, session_id)
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


@router.post("/hall/{session_id}/pin")
def pin(
    request: Request,
    house: InHouse,
    session_id: Id,
    station: Annotated[str, Form(max_length=200)],
    spot: Annotated[str, Form(max_length=24)] = "",
) -> HTMLResponse:
    """A station put on a spot by hand, where it stays; with no spot it is let loose again."""
    with house.database.writing() as work:
        hall = club.hall(work)
        pinned = {name: at for name, at in hall.pinned.items() if name != station and at != spot}
        if spot:
            if spot not in {one.id for one in hall.spots}:
                raise NoHall("There is no such spot any more.")
            pinned[station] = spot
        club.set_hall(work, hall.but(pinned=pinned))
    return _shown(request, house, session_id)


@router.post("/hall/{session_id}/draw")
def draw(request: Request, house: InHouse, session_id: Id, form: WholeForm) -> HTMLResponse:
    """The hall as it was drawn: its size, walking, every spot and kit as rows of fields, or a spot moved by hand.

    What can't be is refused with why; the rows stay as they were typed.
    """
    fields = {name: str(value).strip() for name, value in form.items()}
    with house.database.writing() as work:
        hall = club.hall(work)
        try:
            club.set_hall(work, _drawn(hall, fields))
        except (ValidationError, ValueError, KeyError) as error:
            raise NoHall(_why(error)) from None
    return _shown(request, house, session_id)


def _why(error: Exception) -> str:
    where = error.errors()[0]["loc"] if isinstance(error, ValidationError) else ()
    at = f" ({', '.join(str(one) for one in where)})" if where else ""
    return f"A figure there can’t be{at}: metres from 0 to 200, counts from 0 to 200, an id for each spot."


def _drawn(hall: Hall, fields: dict[str, str]) -> Hall:
    """A hall after what was typed or moved.

    Raises:
        KeyError: where a field is missing.
        ValueError: where a figure is none.
        ValidationError: where a figure can't be.
        NoHall: where two spots have one name.
    """
    if "moved" in fields:
        return hall.but(spots=tuple(_moved(hall, one, fields) for one in hall.spots))
    if "added" in fields:
        names = {one.id for one in hall.spots}
        name = next(str(nth) for nth in range(1, 100) if str(nth) not in names)
        spot = {
            "id": name,
            "x": _within(fields["x"], hall.size_m[0]),
            "y": _within(fields["y"], hall.size_m[1]),
        }
        return checked(Hall, plain(hall) | {"spots": [*map(plain, hall.spots), spot]})
    spots = [_spot(fields, nth) for nth in range(MOST_ROWS) if fields.get(f"spot-{nth}")]
    ids = {one["id"] for one in spots}
    if len(ids) < len(spots):
        raise NoHall("Two spots have one name; each needs its own.")
    said = {
        "name": fields.get("name", ""),
        "size_m": (_number(fields["width"]), _number(fields["height"])),
        "walk_m_s": _number(fields["walk"]),
        "reset_s": _number(fields["reset"]),
        "spots": spots,
        "kit": [_kit(fields, nth) for nth in range(MOST_ROWS) if fields.get(f"kit-{nth}")],
        "pinned": {name: at for name, at in hall.pinned.items() if at in ids},
    }
    return checked(Hall, plain(hall) | said)


def _moved(hall: Hall, spot: HallSpot, fields: dict[str, str]) -> HallSpot:
    if spot.id != fields["moved"]:
        return spot
    return spot.but(x=_within(fields["x"], hall.size_m[0]), y=_within(fields["y"], hall.size_m[1]))


def _spot(fields: dict[str, str], nth: int) -> dict[str, Any]:
    """A row of the spots as it was typed."""
    return {
        "id": fields[f"spot-{nth}"],
        "x": _number(fields[f"x-{nth}"]),
        "y": _number(fields[f"y-{nth}"]),
        "holds": fields.get(f"holds-{nth}", "").replace(",", " ").split(),
    }


def _kit(fields: dict[str, str], nth: int) -> dict[str, Any]:
    """A row of the kit as it was typed."""
    return {
        "name": fields[f"kit-{nth}"],
        "load_kg": _or_none(fields.get(f"load-{nth}", "")),
        "count": fields.get(f"count-{nth}") or 0,
        "away": fields.get(f"away-{nth}") or 0,
    }


def _number(text: str) -> float:
    value = float(text.replace(",", "."))
    if not isfinite(value):
        raise ValueError(text)
    return value


def _or_none(text: str) -> float | None:
    return _number(text) if text else None


def _within(text: str, most: float) -> float:
    """Metres, kept inside the hall, to a tenth."""
    return round(min(most, max(0.0, _number(text))), 1)


@router.post("/hall/{session_id}/read")
async def read(house: InHouse, session_id: Id, file: UploadFile) -> Response:
    """A hall from a file in the form of the command line."""
    raw = await file.read(MOST_BYTES)
    try:
        given = json.loads(raw.decode("utf-8-sig"))
        spots = [
            {**one, "holds": [] if one.get("holds") in ("any", None) else one["holds"]}
            for one in given.get("spots", [])
        ]
        hall = checked_json(Hall, json.dumps({**given, "spots": spots}))
    except (ValueError, AttributeError, TypeError, KeyError) as error:
        raise NoHall(
            f"This is no hall that can be read: {str(error).splitlines()[0][:120]}."
        ) from None
    with house.database.writing() as work:
        club.set_hall(work, hall)
    return RedirectResponse(f"/hall/{session_id}", 303)
