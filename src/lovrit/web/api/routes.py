"""Plan, write and read sessions over HTTP; described by OpenAPI at /api/openapi.json."""

from enum import Enum
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, Path
from fastapi.responses import JSONResponse, Response
from pydantic import BaseModel, Field

from lovrit.core.advice.look import second_look
from lovrit.core.fit.fit import Wish, fit
from lovrit.core.moves.move import Move
from lovrit.core.recast.recast import recast
from lovrit.core.session.session import Session
from lovrit.core.slate.problem import Problem
from lovrit.core.timeline.plan import Plan, plan_session
from lovrit.core.values import LovritError, plain
from lovrit.formats.board import message_object, read_board
from lovrit.formats.fit_json import fits_object, recast_object
from lovrit.formats.interval_csv import from_csv
from lovrit.formats.plan_json import errors_object, plan_object
from lovrit.formats.reading import plan_any
from lovrit.formats.session_json import from_object, schema, session_object
from lovrit.formats.writers import WRITERS, When
from lovrit.house.house import House
from lovrit.web.inhouse import InHouse

FormName = Enum("Form", {name: name for name in WRITERS}, type=str)  # type: ignore[misc]  # the names of the writers


class Errors(BaseModel):
    """What could not be read, by line."""

    errors: list[Problem]


class SlateBody(BaseModel):
    """A slate's text."""

    slate: str = Field(max_length=200_000)


class MessageText(BaseModel):
    """A message, as it was sent."""

    text: str = Field(max_length=200_000)


class CsvText(BaseModel):
    """The text of a CSV file with an interval a row."""

    csv: str = Field(max_length=2_000_000)


class SessionBody(Session):
    """A session in its JSON form; what it says of its form and version may be there, and must be right."""

    format: Literal["lovrit-session"] = "lovrit-session"
    version: Literal[1] = 1


class FitBody(SlateBody):
    """A slate, and what must be."""

    wish: Wish


class RecastBody(SlateBody):
    """A slate, which of its blocks (from 1), and what it is to become."""

    block: Annotated[int, Field(ge=1, le=5000)] = 1
    to: str = Field(max_length=20)


ALWAYS: dict[int | str, dict[str, Any]] = {
    400: {"model": Errors, "description": "It is no JSON, or nested too deep."},
    413: {"model": Errors, "description": "It is more than a megabyte."},
}
router = APIRouter(prefix="/api", tags=["sessions"], responses=ALWAYS)
REFUSED: dict[int | str, dict[str, Any]] = {
    422: {"model": Errors, "description": "It could not be read."}
}


def _planned(house: House, plan: Plan) -> Response:
    if plan.problems:
        return JSONResponse(errors_object(plan.problems), 422)
    return JSONResponse(plan_object(plan, second_look(plan, house.library)))


def _session(house: House, session: SessionBody) -> Plan:
    """A session's plan, the session first brought to what a slate can say."""
    return plan_session(from_object(plain(session)), house.library)


@router.post("/plan", responses=REFUSED)
def plan(house: InHouse, session: Annotated[SessionBody, Body()]) -> Response:
    """Lay a session in its JSON form on the clock."""
    return _planned(house, _session(house, session))


@router.post("/plan/slate", responses=REFUSED)
def plan_slate(house: InHouse, body: SlateBody) -> Response:
    """Lay a slate on the clock."""
    return _planned(house, plan_any(body.slate, house.library))


@router.post("/read/slate", responses=REFUSED)
def read_slate(house: InHouse, body: SlateBody) -> Response:
    """A slate in its JSON form."""
    plan = plan_any(body.slate, house.library)
    if plan.problems:
        return JSONResponse(errors_object(plan.problems), 422)
    return JSONResponse(session_object(plan.session))


@router.post("/read/message")
def read_message(body: MessageText) -> Response:
    """A message as people send it: a slate, what has to be asked with answers, what was kept beside."""
    return JSONResponse(message_object(read_board(body.text)))


@router.post("/read/csv", responses=REFUSED)
def read_csv(body: CsvText) -> Response:
    """Rows of intervals as a slate, with an account of what was not understood."""
    made = from_csv(body.csv)
    return JSONResponse({"slate": made.slate, "left_out": list(made.left_out)})


@router.post(
    "/write/{form}",
    responses={
        **REFUSED,
        200: {
            "description": "The session in that form.",
            "content": {one.media_type: {} for one in WRITERS.values()},
        },
    },
)
def write(
    house: InHouse, form: Annotated[FormName, Path()], session: Annotated[SessionBody, Body()]
) -> Response:
    """A session in another form."""
    planned = _session(house, session)
    if planned.problems:
        return JSONResponse(errors_object(planned.problems), 422)
    writer = WRITERS[form.value]
    when = When(house.when(house.now_ms()), house.zone)
    return Response(writer.write(planned, when), media_type=writer.media_type)


@router.post("/fit", responses=REFUSED)
def fit_slate(house: InHouse, body: FitBody) -> Response:
    """The nearest sessions in which a figure is what it must be; where there are none, the least that must give."""
    plan = plan_any(body.slate, house.library)
    try:
        return JSONResponse(fits_object(fit(body.slate, plan, body.wish, house.library)))
    except LovritError as error:
        return _refused(plan, error)


@router.post("/recast", responses=REFUSED)
def recast_slate(house: InHouse, body: RecastBody) -> Response:
    """A session with one block made into another structure, with the same moves."""
    plan = plan_any(body.slate, house.library)
    try:
        return JSONResponse(
            recast_object(recast(body.slate, plan, body.block - 1, body.to, house.library))
        )
    except LovritError as error:
        return _refused(plan, error)


def _refused(plan: Plan, error: LovritError) -> Response:
    """The lines that can't be read, or the one thing that can't be done."""
    said = plan.problems or (Problem(line=1, column=1, text=str(error)),)
    return JSONResponse(errors_object(said), 422)


@router.get("/schema")
def session_schema() -> dict[str, Any]:
    """The JSON Schema (2020-12) of the JSON form."""
    return schema()


@router.get("/moves")
def moves(house: InHouse) -> list[Move]:
    """The library of moves."""
    return list(house.library.moves)
