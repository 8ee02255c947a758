"""The hall drawn: in figures, by moving and adding spots, or from a file."""

import json
import re
from html import unescape
from math import isfinite
from typing import Annotated, Any

from fastapi import APIRouter, Form, Request, UploadFile
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import ValidationError

from lovrit.core.place.hall import Area, Hall, HallSpot, Way, ring
from lovrit.core.values import checked, checked_json, plain, schema_of
from lovrit.house.evening import evening_of, stood
from lovrit.store import halls
from lovrit.web.hall.answer import NoHall, answer
from lovrit.web.hall.view import hall_view
from lovrit.web.inhouse import Id, InHouse, WholeForm
from lovrit.web.pages import render

router = APIRouter(include_in_schema=False)
MOST_KIT = 200  # kinds, and pieces of one
MOST_BYTES = 200_000
HELD = re.compile(r"<metadata>(.*?)</metadata>", re.DOTALL)
MOST_ROWS = 62  # of spots or kit in the form


@router.get("/hall.schema.json")
def schema() -> PlainTextResponse:
    """What a hall is as JSON, as a JSON Schema."""
    text = json.dumps(schema_of(Hall), ensure_ascii=False, indent=1)
    return PlainTextResponse(text, media_type="application/schema+json")


@router.get("/hall/{session_id}/plan.svg")
def as_svg(house: InHouse, session_id: Id) -> Response:
    """The floor of a session to scale as a picture, with the hall itself inside, so that it can be read again."""
    with house.database.work() as work:
        now = evening_of(house, work, session_id)
    view = None
    here = stood(now, house.library)
    if here:
        view = hall_view(now, here)
    held = json.dumps(plain(now.hall), ensure_ascii=False)
    text = render(house, "hall/plan.svg", hall=now.hall, view=view, held=held)
    headers = {"Content-Disposition": f'attachment; filename="hall-{session_id}.svg"'}
    return Response(text, media_type="image/svg+xml", headers=headers)


@router.get("/hall/{session_id}/hall.json")
def as_json(house: InHouse, session_id: Id) -> PlainTextResponse:
    """The hall as JSON, in the form that the command line reads."""
    with house.database.work() as work:
        drawn = plain(halls.hall(work, session_id))
    text = json.dumps(drawn, ensure_ascii=False, indent=1)
    headers = {"Content-Disposition": 'attachment; filename="hall.json"'}
    return PlainTextResponse(text, media_type="application/json", headers=headers)


@router.post("/hall/{session_id}/draw")
def draw(request: Request, house: InHouse, session_id: Id, form: WholeForm) -> HTMLResponse:
    """The hall as it was drawn: its size, walking, every spot and kit as rows of fields, or a spot moved by hand.

    What can't be is refused with why; the rows stay as they were typed.
    """
    fields = {name: str(value).strip() for name, value in form.items()}
    with house.database.writing() as work:
        hall = halls.hall(work, session_id)
        try:
            halls.set_hall(work, _drawn(hall, fields), session_id)
        except (ValidationError, ValueError, LookupError) as error:
            raise NoHall(_why(error)) from None
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/ring")
def in_a_ring(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """A hall in which nothing is drawn yet: a spot for each station, in a ring along its walls."""
    with house.database.work() as work:
        stations = stood(evening_of(house, work, session_id), house.library)
    with house.database.writing() as work:
        hall = halls.hall(work, session_id)
        if not hall.spots and stations:
            spots = ring(hall.size_m, len(stations.problem.stations))
            halls.set_hall(work, hall.but(spots=spots), session_id)
    return answer(request, house, session_id)


@router.post("/hall/{session_id}/lacks")
def lacks(
    request: Request,
    house: InHouse,
    session_id: Id,
    nth: Annotated[int, Form(ge=0, le=MOST_KIT)],
    many: Annotated[int, Form(ge=1, le=MOST_KIT)],
) -> HTMLResponse:
    """Kit that lacked last time is counted as away, until somebody says otherwise below."""
    with house.database.writing() as work:
        hall = halls.hall(work, session_id)
        if nth >= len(hall.kit):
            raise NoHall("There is no such kit any more.")
        kit = list(hall.kit)
        kit[nth] = kit[nth].but(away=min(kit[nth].count, many))
        halls.set_hall(work, hall.but(kit=tuple(kit)), session_id)
    return answer(request, house, session_id, f"{kit[nth].away} × {kit[nth].said} away tonight.")


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
    if "shifted" in fields:
        return _shifted(hall, fields)
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
        "ways": [_way(fields, nth) for nth in range(MOST_ROWS) if fields.get(f"way-{nth}")],
        "blocked": [_area(fields, nth) for nth in range(MOST_ROWS) if fields.get(f"area-{nth}")],
        "pinned": {name: at for name, at in hall.pinned.items() if at in ids},
    }
    return checked(Hall, plain(hall) | said)


def _shifted(hall: Hall, fields: dict[str, str]) -> Hall:
    """A door or an area that was drawn elsewhere, kept inside the hall."""
    kind, _, nth = fields["shifted"].partition("-")
    dx, dy = _number(fields["dx"]), _number(fields["dy"])
    rows: dict[str, tuple[Way | Area, ...]] = {"way": hall.ways, "area": hall.blocked}
    one = rows[kind][int(nth)]
    width, height = hall.size_m
    moved = one.but(
        x=round(min(width, max(0.0, one.x + dx)), 1), y=round(min(height, max(0.0, one.y + dy)), 1)
    )
    new = (*rows[kind][: int(nth)], moved, *rows[kind][int(nth) + 1 :])
    return hall.but(ways=new) if kind == "way" else hall.but(blocked=new)


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


def _way(fields: dict[str, str], nth: int) -> dict[str, Any]:
    """A row of doors and what has to be kept free, as it was typed."""
    x, y = _number(fields[f"way-x-{nth}"]), _number(fields[f"way-y-{nth}"])
    return {"what": fields[f"way-{nth}"], "x": x, "y": y}


def _area(fields: dict[str, str], nth: int) -> dict[str, Any]:
    """A row of what nobody walks through, as it was typed."""
    figures = {name: _number(fields[f"area-{name}-{nth}"]) for name in ("x", "y", "w", "h")}
    return {"what": fields[f"area-{nth}"], **figures}


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
def read(house: InHouse, session_id: Id, file: UploadFile) -> Response:
    """A hall from a file in the form of the command line, or from a picture that has one inside."""
    raw = file.file.read(MOST_BYTES)
    try:
        given = json.loads(_held(raw.decode("utf-8-sig")))
        spots = [
            {**one, "holds": [] if one.get("holds") in ("any", None) else one["holds"]}
            for one in given.get("spots", [])
        ]
        hall = checked_json(Hall, json.dumps({**given, "spots": spots}))
    except (ValueError, AttributeError, TypeError, KeyError, RecursionError) as error:
        raise NoHall(
            f"This is no hall that can be read: {str(error).splitlines()[0][:120]}."
        ) from None
    with house.database.writing() as work:
        known = {one.name for one in halls.halls(work)} - {halls.hall(work, session_id).name}
        if hall.name in known:
            halls.take(work, session_id, hall.name)
        halls.set_hall(work, hall, session_id)
    return RedirectResponse(f"/hall/{session_id}", 303)


def _held(text: str) -> str:
    """The hall that a picture holds; other text as it is.

    Raises:
        NoHall: where a picture holds none.
    """
    if not text.lstrip().startswith(("<svg", "<?xml")):
        return text
    inside = HELD.search(text)
    if inside is None:
        raise NoHall("This picture has no hall inside; Lovrit reads those that it drew.")
    return unescape(inside[1])
