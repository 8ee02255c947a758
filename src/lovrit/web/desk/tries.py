"""Tries: a session, or one block of it, run by one to three people before the group meets it; and what came of them."""

from typing import Annotated, NamedTuple

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.clock import clock
from lovrit.core.crew.person import coming
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import UnreadableClass, freeze
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.session import Session
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import plan_session
from lovrit.core.values import LovritError
from lovrit.house.live import Live
from lovrit.store import classes, people, sessions
from lovrit.store.tables import ClassRow
from lovrit.web.desk.desk import Desk, open_desk
from lovrit.web.desk.proposed import OfBlock, of_blocks
from lovrit.web.desk.think import panel
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import day

router = APIRouter(include_in_schema=False)
MOST_TRYING = 3
MOST_SHOWN = 8
WHOLE = -1
MOST_REASON = 200


class NotTried(LovritError):
    """What can't be tried like this."""


class Tried(NamedTuple):
    """A try as it is told beside its session: when, what of it, by whom, and what happened, line by line."""

    class_id: int
    title: str
    when: str
    by: str
    over: bool
    lines: tuple[str, ...]
    blocks: tuple[OfBlock, ...] = ()


@router.get("/desk/{session_id}/try")
def to_try(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """What is tried and by whom; and the tries that were."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
        everyone = people.everyone(work)
        rows = classes.tries_of(work, session_id, MOST_SHOWN)
    blocks = [(at, laid.label) for at, laid in enumerate(opened.typed.timeline.blocks)]
    tried = [_tried(request, opened, row) for row in rows]
    return panel(
        request, house, opened, "desk/try.html", blocks=blocks, everyone=everyone, tried=tried
    )


@router.post("/desk/{session_id}/try")
def begin(
    house: InHouse,
    session_id: Id,
    block: Annotated[int, Form(ge=WHOLE, le=5000)] = WHOLE,
    who: Annotated[list[int] | None, Form()] = None,
) -> Response:
    """A try from the session as it stands: only what can be read and run, no group, no second look in its way."""
    with house.database.work() as work:
        opened = open_desk(house, work, session_id)
        chosen = [one for one in people.everyone(work) if one.id in (who or [])]
    if len(chosen) > MOST_TRYING:
        raise NotTried(f"A try is for {MOST_TRYING} people at most; more of them are a class.")
    if opened.typed.problems:
        raise NotTried(f"Line {opened.typed.problems[0].line} can’t be read yet.")
    part = _part(opened.typed.session, block)
    plan = plan_session(part, house.library)
    if not plan.timeline.intervals:
        raise NotTried("There is nothing on the clock yet.")
    title = part.title or "Untitled session"
    if block != WHOLE:
        title = f"{title}: {plan.timeline.blocks[0].label}"
    comers = [coming(one, 0) for one in chosen]
    with house.database.writing() as work:
        sessions.keep_revision(work, opened.row, "tried", house.now_ms())
        made = classes.make(
            work, session_id, title, write(part), comers, house.now_ms(), freeze(plan), is_try=True
        )
    return RedirectResponse(f"/run/{made.id}", 303)


@router.post("/desk/{session_id}/try/{class_id}/take")
def take(
    request: Request,
    house: InHouse,
    session_id: Id,
    class_id: Id,
    block: Annotated[int, Form(ge=0, le=5000)],
    said: Annotated[str, Form(max_length=400)],
) -> Response:
    """What a try proposes is taken: the session is changed, and a revision says why."""
    live = floor_of(request).live(class_id)
    with house.database.writing() as work:
        opened = open_desk(house, work, session_id)
        found = [
            one for told in of_blocks(opened, live) if told.at == block for one in told.proposals
        ]
        chosen = next((one for one in found if one.said == said), None)
        if chosen is None:
            raise NotTried(
                "The session has changed since; what the try proposes now stands beside it."
            )
        by = ", ".join(one.name for one in live.comers) or "the coach"
        reason = f"tried by {by}, {day(house, live.made_ms)}: {chosen.said}. {chosen.why}"[
            :MOST_REASON
        ]
        if chosen.edit is None:
            sessions.put_away(work, opened.row, house.now_ms())
        else:
            text = apply_edit(opened.row.text, chosen.edit)
            sessions.write_text(
                work, opened.row, text, opened.row.version, None, None, house.now_ms()
            )
        sessions.keep_revision(work, opened.row, reason, house.now_ms())
        version = str(opened.row.version)
    house.hub.say(f"desk-{session_id}", "version", version)
    return RedirectResponse("/desk" if chosen.edit is None else f"/desk/{session_id}", 303)


def _part(session: Session, block: int) -> Session:
    """A session, or one block of it alone, without its slot.

    Raises:
        NotTried: where there is no such block.
    """
    if block == WHOLE:
        return session.but(slot=None)
    if block >= len(session.blocks):
        raise NotTried("There is no such block any more.")
    return session.but(blocks=(session.blocks[block],), nests=(), slot=None)


def _tried(request: Request, opened: Desk, row: ClassRow) -> Tried:
    assert row.id is not None
    when = day(opened.house, row.made_ms)
    try:
        live = floor_of(request).live(row.id)
    except UnreadableClass as error:
        return Tried(row.id, row.title, when, "", row.over_ms is not None, (str(error),))
    over = live.state.over_ms is not None  # the row was read before: it may have ended since
    by = ", ".join(one.name for one in live.comers) or "the coach"
    found = of_blocks(opened, live) if over else ()
    return Tried(row.id, row.title, when, by, over, tuple(_came_of(live)), found)


def _came_of(live: Live) -> list[str]:
    """Where it broke, what was tapped and scored, how long it was."""
    state, labels = live.state, [block.label for block in live.plan.timeline.blocks]
    names = {str(one.id): one.name for one in live.comers}
    lines = []
    for one in live.going.broke:
        whose = f"{names[one['person']]}, " if one["person"] in names else ""
        said = f": {one['text']}" if one["text"] else ""
        lines.append(
            f"broke at {_into(live, one['at_s'])} of it, {whose}{labels[one['block']]}{said}"
        )
    lines += [f"{labels[tap.block]}{_whose(tap.lane, names)}: {tap.said}" for tap in state.taps]
    for score in state.scores:
        whose = f"{names.get(str(score.person), 'somebody')} " if score.person is not None else ""
        lines.append(f"{labels[score.block]}: {whose}{score.text}")
    lines += [
        f"{names.get(str(who), 'somebody')} felt {value:g} of 10"
        for who, value in state.felt.items()
    ]
    return [*lines, *_how_long(state)]


def _whose(lane: str, names: dict[str, str]) -> str:
    """Whose a tap is, where there is more than one whose it could be."""
    return f", {names.get(lane, lane)}" if len(names) > 1 else ""


def _into(live: Live, at_s: float) -> str:
    begun_s = live.going.started_s or 0.0
    return clock(max(0, int(at_s - begun_s)))


def _how_long(state: Class) -> list[str]:
    if state.started_ms is None:
        return ["not begun"]
    if state.over_ms is None:
        return ["still on"]
    early = ", ended early" if state.ended_early else ""
    return [f"{clock((state.over_ms - state.started_ms) // 1000)} in all{early}"]
