"""Debrief: classes that were, listed and opened again; what is said of them afterwards."""

from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.score import Impossible
from lovrit.core.review.kin import worth
from lovrit.core.review.scores import read_effort, score
from lovrit.core.review.sought import sought
from lovrit.core.run.event import MOST_ID, Event
from lovrit.core.run.events.kind import Telling
from lovrit.core.values import LovritError, checked
from lovrit.formats.session_json import to_json
from lovrit.house.floor import Floor, Happened
from lovrit.house.house import House
from lovrit.house.paces import learn_class, learn_from, sum_up
from lovrit.house.recorded import up_to_date
from lovrit.house.told import clauses_of
from lovrit.house.traced import traces_of
from lovrit.store import classes, club, people, records, sessions
from lovrit.web.debrief.chronicle import chronicle
from lovrit.web.debrief.exports import CSV, download, traces_csv
from lovrit.web.debrief.hearts import changed_said, learnt_rows, one_heart, unasked
from lovrit.web.debrief.tape import run_tape
from lovrit.web.debrief.view import debrief_view, held
from lovrit.web.inhouse import FormId, Id, InHouse, floor_of
from lovrit.web.pages import day, page, render

router = APIRouter(include_in_schema=False)
TIMES_THE_LAST = 10
MOST_AWAY = 20  # so many that were put away are listed
Op = Annotated[str, Form(min_length=1, max_length=64)]


class CannotCount(LovritError):
    """Something said of a class that can't be so."""


@router.get("/debrief")
def debriefs(
    request: Request,
    house: InHouse,
    past: Annotated[int, Query(ge=0, le=MOST_ID)] = 0,
    words: Annotated[str, Query(max_length=200)] = "",
) -> HTMLResponse:
    """All classes, or those of which all the words are so, the newest first, a page at a time."""
    whole = up_to_date(house)
    wanted = sought(words, date.fromisoformat(house.today))
    with house.database.work() as work:
        ids = records.find(work, wanted)
        rows = classes.listed(work, past=past, only=ids)
        count = classes.count(work) if ids is None else len(ids)
        gone = classes.away(work, MOST_AWAY)
    aside = floor_of(request).aside
    listed = [(row, day(house, row.made_ms), aside.get(row.id or 0)) for row in rows]
    values: dict[str, Any] = {
        "classes": listed,
        "away": [(row, day(house, row.made_ms)) for row in gone],
        "past": past,
        "more": past + len(rows) if past + len(rows) < count else None,
        "count": count,
        "line": words,
        "asks": wanted.asks,
        "whole": whole,
    }
    return page(request, house, "debrief/list.html", **values)


@router.get("/debrief/of/{session_id}")
def last_of_session(request: Request, house: InHouse, session_id: Id) -> Response:
    """To the last class of a session; where it was never run, that is said."""
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        ran = classes.of_sessions(work, [session_id])
    if ran:
        return RedirectResponse(f"/debrief/{ran[-1].id}", 303)
    return page(request, house, "debrief/never.html", session=row)


@router.get("/debrief/{class_id}")
def debrief(
    request: Request,
    house: InHouse,
    class_id: Id,
    person: Annotated[int, Query(ge=0, le=MOST_ID)] | None = None,
) -> HTMLResponse:
    """What happened in a class."""
    return _shown(request, house, class_id, person)


def _shown(
    request: Request,
    house: House,
    class_id: int,
    person: int | None,
    refused: tuple[int, str, str, int | None] | None = None,
) -> HTMLResponse:
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        traces = traces_of(work, live)
        row = classes.get(work, class_id)
        everyone = people.everyone(work)
    hearts = floor_of(request).cleaned.of(live, traces)
    with house.database.work() as work:
        clauses = clauses_of(house, work, live, hearts)
    seems = floor_of(request).cleaned.changed(live, traces) if live.state.phase == "over" else []
    view = debrief_view(live.plan, live.state, live.comers, held(traces, hearts), person, hearts)
    chosen = next((one for one in live.comers if one.id == view.chosen), None)
    names_came = {str(one.id): one.name for one in live.came}
    labels = [one.label for one in live.plan.timeline.blocks]
    happened = chronicle(
        live.fold.counted, live.state, live.made_ms, Telling(names_came, live.plan.session, labels)
    )
    values = {
        "live": live,
        "view": view,
        "when": day(house, row.made_ms),
        "refused": refused,
        "chronicle": happened,
        "absent": [
            (one.id, names_came.get(str(one.fields.get("person")), "somebody"))
            for one in live.fold.counted
            if one.kind == "absent"
        ],
        "away": row.away_ms is not None,
        "tape": run_tape(live),
        "clauses": clauses,
        "heart": one_heart(live.plan, chosen, hearts.get(chosen.id)) if chosen else None,
        "learnt": learnt_rows(everyone, live.comers, hearts),
        "unasked": unasked(everyone, live.comers, hearts),
        "straps": changed_said(live, seems),
    }
    return page(request, house, "debrief/page.html", status=422 if refused else 200, **values)


def _happen(floor: Floor, class_id: int, **fields: object) -> Happened:
    """Something that is said of a class afterwards.

    Raises:
        CannotCount: if it can't count.
    """
    told = floor.happen(class_id, checked(Event, {"at_ms": 0, **fields}))
    if told.refused:
        raise CannotCount(told.refused)
    return told


@router.post("/debrief/{class_id}/away")
def away(request: Request, house: InHouse, class_id: Id) -> RedirectResponse:
    """A class that was none is put away: no list, load, series, kin or forecast counts it."""
    _put_away(request, house, class_id, away=True)
    return RedirectResponse("/debrief", 303)


@router.post("/debrief/{class_id}/back")
def back(request: Request, house: InHouse, class_id: Id) -> RedirectResponse:
    """A class that was put away comes back, with all that it teaches."""
    _put_away(request, house, class_id, away=False)
    return RedirectResponse(f"/debrief/{class_id}", 303)


def _put_away(request: Request, house: House, class_id: int, *, away: bool) -> None:
    floor = floor_of(request)
    floor.put_away(class_id, away)
    with house.database.writing() as work:
        if away:
            club.keep_learnt(work, class_id, [])
        else:
            learn_class(house, work, class_id)
        sum_up(work)
    floor.teach()


def _corrected(request: Request, house: House, class_id: int, **fields: object) -> None:
    """A correction of who was there, and what scores teach without them."""
    live = _happen(floor_of(request), class_id, **fields).live
    learn_from(house, class_id, live.plan, live.state.scores)
    floor_of(request).teach()


@router.post("/debrief/{class_id}/absent")
def absent(
    request: Request, house: InHouse, class_id: Id, op: Op, person: FormId
) -> RedirectResponse:
    """Somebody wasn't there: every figure that rests on them follows; it is taken back like a press."""
    _corrected(request, house, class_id, id=op, kind="absent", person=person)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.post("/debrief/{class_id}/changed")
def changed(
    request: Request, house: InHouse, class_id: Id, op: Op, person: FormId, other: FormId
) -> RedirectResponse:
    """Two wore each other's straps: each trace is the other's from now on; once more, and it was not so."""
    if person == other:
        raise LovritError("Two people are needed: a strap is changed with somebody else’s.")
    _corrected(request, house, class_id, id=op, kind="changed", person=person, other=other)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.post("/debrief/{class_id}/there")
def there(
    request: Request,
    house: InHouse,
    class_id: Id,
    op: Op,
    of: Annotated[str, Form(max_length=64)],
) -> RedirectResponse:
    """They were there after all."""
    _corrected(request, house, class_id, id=op, kind="undo", of=of)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.post("/debrief/{class_id}/felt")
def felt(
    request: Request,
    house: InHouse,
    class_id: Id,
    op: Op,
    person: FormId,
    value: Annotated[str, Form(max_length=10)] = "",
) -> Response:
    """The effort that a person felt; empty takes it back. A script gets the read-out line as it now is."""
    told = _happen(
        floor_of(request), class_id, id=op, kind="felt", person=person, value=read_effort(value)
    )
    if not request.headers.get("x-lovrit"):
        return RedirectResponse(f"/debrief/{class_id}?person={person}", 303)
    live = told.live
    with house.database.work() as work:
        traces = traces_of(work, live)
    hearts = floor_of(request).cleaned.of(live, traces)
    view = debrief_view(live.plan, live.state, live.comers, held(traces, hearts), person, hearts)
    return HTMLResponse(render(house, "debrief/readout.html", view=view))


@router.post("/debrief/{class_id}/score")
def scored(
    request: Request,
    house: InHouse,
    class_id: Id,
    op: Op,
    block: FormId,
    text: Annotated[str, Form(max_length=60)] = "",
    person: Annotated[str, Form(max_length=12)] = "",
) -> Response:
    """A block's score, the class's or one person's; an impossible one is refused and stays in its field."""
    floor = floor_of(request)
    plan = floor.live(class_id).plan
    if block >= len(plan.session.blocks):
        raise CannotCount("There is no such block in this class.")
    whose = int(person) if person.isascii() and person.isdecimal() else None
    try:
        said = (
            score(plan.session.blocks[block], plan.timeline.blocks[block], text, plan.library)
            if text.strip()
            else ""
        )
        _like_the_last(house, class_id, plan.session.blocks[block], said, whose)
    except LovritError as error:
        if request.headers.get("x-lovrit"):
            return PlainTextResponse(str(error), status_code=422)
        return _shown(request, house, class_id, None, (block, text, str(error), whose))
    told = _happen(floor, class_id, id=op, kind="score", block=block, text=said, person=whose)
    learn_from(house, class_id, told.live.plan, told.live.state.scores)
    if request.headers.get("x-lovrit"):
        return Response(status_code=204)
    return RedirectResponse(f"/debrief/{class_id}", 303)


def _like_the_last(house: House, class_id: int, block: Block, said: str, whose: int | None) -> None:
    """A load ten times somebody's last is no load of theirs.

    Raises:
        Impossible: where it is so much.
    """
    value = worth(block, said) if whose is not None and block.lifts else None
    if value is None or whose is None:
        return
    up_to_date(house)
    with house.database.work() as work:
        every = records.scores_of(work, whose)
    before = [one for one in every if one.figure == value.figure and one.class_id != class_id]
    if before and value.value > TIMES_THE_LAST * before[-1].value:
        last = before[-1]
        raise Impossible(
            f"{said} would be more than {TIMES_THE_LAST} times the last, {last.said} on {last.day}."
        )


@router.post("/debrief/{class_id}/note")
def noted(
    request: Request, class_id: Id, op: Op, text: Annotated[str, Form(max_length=4000)] = ""
) -> Response:
    """The coach's note."""
    _happen(floor_of(request), class_id, id=op, kind="note", text=text)
    if request.headers.get("x-lovrit"):
        return Response(status_code=204)
    return RedirectResponse(f"/debrief/{class_id}", 303)


@router.get("/debrief/{class_id}/traces.csv")
def traces(request: Request, house: InHouse, class_id: Id) -> PlainTextResponse:
    """Every reading of every strap: raw, an empty cell where there was no signal."""
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        kept = traces_of(work, live)
    return download(traces_csv(live, kept), CSV, f"class-{class_id}-traces.csv")


@router.get("/debrief/{class_id}/session.slate")
def slate(house: InHouse, class_id: Id) -> PlainTextResponse:
    """The session as it went to the floor, to the letter."""
    with house.database.work() as work:
        text = classes.get(work, class_id).text
    return download(text, "text/plain; charset=utf-8", f"class-{class_id}.slate")


@router.get("/debrief/{class_id}/session.json")
def session_json(request: Request, class_id: Id) -> PlainTextResponse:
    """The session as it went to the floor, in the JSON form."""
    text = to_json(floor_of(request).live(class_id).plan.session)
    return download(text, "application/json", f"class-{class_id}.json")
