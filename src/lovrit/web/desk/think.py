"""The Desk thinks along: fits for the clock, recasts of a block, a move looked at, remarks put aside.

Each is a page of its own without script; with it, the same section is put where the rails are.
"""

from typing import Annotated, Any

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.advice.judged import doubts_of, judge_by, judged_fits
from lovrit.core.fit.fit import Fits, fit, of_use
from lovrit.core.fit.knobs import GIVES
from lovrit.core.fit.slot import in_slot
from lovrit.core.moves.guess import stand_in
from lovrit.core.moves.move import PATTERNS, Impact, Move
from lovrit.core.recast.recast import SAID, offers
from lovrit.core.run.event import MOST_ID
from lovrit.core.values import LovritError
from lovrit.formats.fit_wish import GOALS, goal_of, stay_of, wish_of
from lovrit.house.house import House
from lovrit.store import club, sessions
from lovrit.web.desk.desk import Desk, open_desk
from lovrit.web.desk.panel import FitForm, around, now_of, sides
from lovrit.web.desk.parts import Shown, parts_of
from lovrit.web.inhouse import FormId, Id, InHouse
from lovrit.web.pages import page, render

router = APIRouter(include_in_schema=False)
MOST_REP_S = 60


class NotSaid(LovritError):
    """A move of which too little was said to keep it."""


At = Annotated[int, Query(ge=0, le=MOST_ID)]
Text = Annotated[str, Query(max_length=20)]


def panel(
    request: Request, house: House, opened: Desk, template: str, **values: Any
) -> HTMLResponse:
    """A section for a script; a page with nothing else on it without one."""
    values |= {"session": opened.row, "written": opened.written, "panel": template}
    if request.headers.get("x-lovrit"):
        return HTMLResponse(render(house, template, **values))
    return page(request, house, "desk/panel.html", here="desk", **values)


@router.get("/desk/{session_id}/fit")
def fits(
    request: Request,
    house: InHouse,
    session_id: Id,
    figure: Text = "total",
    value: Text = "",
    come: Text = "",
    leave: Text = "",
    explain: Text = "0:00",
    clear: Text = "0:00",
    give: Annotated[list[str] | None, Query(max_length=20)] = None,
) -> HTMLResponse:
    """What must be and what may give; and, once a figure is said, the nearest sessions that do it."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    form = FitForm(
        figure,
        value,
        come,
        leave,
        explain,
        clear,
        tuple(GIVES if give is None else filter(None, give)),
    )
    found, refused = None, ""
    try:
        if value or come or leave:
            found = _found(opened, form)
    except LovritError as error:
        refused = str(error)
    values = {"form": form, "goals": GOALS, "gives": GIVES, "found": found, "refused": refused}
    values |= {"of_use": of_use(goal_of(figure)), "now": now_of(opened.typed, figure)}
    return panel(request, house, opened, "desk/fit.html", **values)


def _found(opened: Desk, form: FitForm) -> Fits:
    """The fits of a wish; a stay in the hall is written on the slate first."""
    stay = None
    if form.figure == "slot":
        stay = stay_of(form.come, form.leave, opened.typed, form.explain, form.clear)
    said: dict[str, Any] = {"give": ",".join(form.gives) or "none"}
    if not form.gives:
        said["give"], said["keep"] = ",".join(GIVES), ",".join(GIVES)
    if not stay:
        said[form.figure] = form.value
    wish = wish_of(said, stay)
    text = in_slot(opened.row.text, stay) if stay else opened.row.text
    library, before = opened.house.library, opened.house.plan(text)
    judge = judge_by(library, opened.company)
    return judged_fits(before, fit(text, before, wish, library), judge)


@router.get("/desk/{session_id}/recast")
def recasts(
    request: Request,
    house: InHouse,
    session_id: Id,
    block: At = 0,
    to: Annotated[str, Query(max_length=20)] = "",
) -> HTMLResponse:
    """What a block can be made into, and one of them beside what it is."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    at = max(0, min(block, len(opened.typed.session.blocks) - 1))
    made = [] if opened.typed.problems else offers(opened.typed, at, opened.row.text, house.library)
    judge = judge_by(house.library, opened.company)
    doubts = doubts_of(opened.typed, made, house.library, judge)
    made.sort(key=lambda one: one.to in doubts)  # what is sound comes first
    chosen = next((one for one in made if one.to == to), made[0] if made else None)
    label = opened.typed.timeline.blocks[at].label if opened.typed.timeline.blocks else ""
    values: dict[str, Any] = {
        "offers": made,
        "chosen": chosen,
        "block": at,
        "label": label,
        "said": SAID,
        "doubts": doubts,
    }
    values["around"] = [] if opened.typed.problems else around(opened.typed, house.library)
    shown = sides(opened.typed, at, chosen) if chosen else None
    return panel(request, house, opened, "desk/recast.html", sides=shown, **values)


@router.get("/desk/{session_id}/move")
def move(house: InHouse, session_id: Id, line: At = 1) -> HTMLResponse:
    """The move that stands on a line, for the Desk to show beside the slate."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
    return HTMLResponse(render(house, "desk/move.html", oob=True, shown=opened.move_on(line)))


@router.post("/desk/{session_id}/aside")
def aside(
    request: Request,
    house: InHouse,
    session_id: Id,
    code: Annotated[str, Form(max_length=60)],
    scope: Annotated[str, Form(max_length=10)] = "session",
    reason: Annotated[str, Form(max_length=200)] = "",
    block: FormId = 0,
    part: FormId = 0,
) -> Response:
    """Put a kind of remark aside, for this session or always."""
    with house.database.writing() as work:
        sessions.get(work, session_id)
        whose = None if scope == "always" else session_id
        club.put_aside(work, code, whose, " ".join(reason.split()), house.now_ms())
        return _again(request, house, work, session_id, (block, part))


@router.post("/desk/{session_id}/says")
def says(
    request: Request,
    house: InHouse,
    session_id: Id,
    name: Annotated[str, Form(min_length=1, max_length=80)],
    pattern: Annotated[str, Form(max_length=20)] = "",
    seconds: Annotated[str, Form(max_length=8)] = "",
    lands: bool = False,
    overhead: bool = False,
    block: FormId = 0,
    part: FormId = 0,
) -> Response:
    """Say once, in a line, what an unknown move is; it is the club's own from then on."""
    move = _said(name, pattern, seconds, lands=lands, overhead=overhead)
    with house.database.work() as work:
        sessions.get(work, session_id)
        club.keep_move(work, move, house.now_ms())
    if not request.headers.get("x-lovrit"):
        return RedirectResponse(f"/desk/{session_id}", 303)
    with house.database.work() as work:
        return parts_of(house, open_desk(house, work, session_id), Shown(block, part))


def _said(name: str, pattern: str, seconds: str, *, lands: bool, overhead: bool) -> Move:
    """A move as its line says it; where a figure is missing it is asked again, and nothing is kept."""
    known = next((one for one in PATTERNS if one == pattern), None)
    try:
        rep_s = float(seconds.replace(",", "."))
    except ValueError:
        rep_s = 0.0
    if known is None or not 0 < rep_s <= MOST_REP_S:
        raise NotSaid(f"Say what “{name}” is, and seconds a rep from 0.1 to {MOST_REP_S}.")
    guessed = stand_in(name) or Move(name=name, pattern=known)
    impact: Impact = "high" if lands else "none" if guessed.impact == "high" else guessed.impact
    return guessed.but(pattern=known, seconds=rep_s, impact=impact, overhead=overhead)


@router.post("/desk/{session_id}/asides/{aside_id}/back")
def back(
    request: Request,
    house: InHouse,
    session_id: Id,
    aside_id: Id,
    block: FormId = 0,
    part: FormId = 0,
) -> Response:
    """Let a kind of remark speak again."""
    with house.database.work() as work:
        club.bring_back(work, aside_id)
        return _again(request, house, work, session_id, (block, part))


def _again(
    request: Request, house: House, work: Work, session_id: int, shown: tuple[int, int]
) -> Response:
    """The parts of the Desk for a script; the Desk again without one."""
    if not request.headers.get("x-lovrit"):
        return RedirectResponse(f"/desk/{session_id}", 303)
    opened = open_desk(house, work, session_id)
    values = {
        "session": opened.row,
        "written": opened.written,
        "desk": opened.view(*shown),
        "asides": opened.asides,
    }
    return HTMLResponse(render(house, "desk/look.html", oob=True, **values))
