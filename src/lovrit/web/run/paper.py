"""On paper: a card a person, six to a sheet, and a sheet a station. A card tells of its own person alone."""

from collections.abc import Iterator
from typing import NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from lovrit.core.clock import clock, number
from lovrit.core.crew.dose import SHARES
from lovrit.core.crew.fits import loads_of, told
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import DOES_NOT, Comer
from lovrit.core.heart.demand import corridor
from lovrit.core.run.classplan import PlannedBlock
from lovrit.core.slate.written import way_said
from lovrit.house.live import Live
from lovrit.house.signed import ClassLinks, picture_of
from lovrit.store import halls
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page
from lovrit.web.pictures import Picture, picture

router = APIRouter(include_in_schema=False)
MOST_ROUNDS = 5  # that a card has room for


class CardBlock(NamedTuple):
    """A block on a card: what it is, and its lines with when each begins where that is known."""

    said: str
    lines: tuple[tuple[str, str], ...]


class Card(NamedTuple):
    """What one person holds."""

    name: str
    group: str
    nth: int
    box: str
    minds: str
    blocks: tuple[CardBlock, ...]
    code: str


class StationSheet(NamedTuple):
    """What hangs at a station."""

    nth: int
    name: str
    picture: Picture | None
    cue: str
    caution: str
    kit: str
    easier: tuple[str, ...]
    harder: tuple[str, ...]
    spot: str = ""


@router.get("/run/{class_id}/cards")
def cards(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """A card for everybody who comes, with a code to their own page."""
    live = floor_of(request).live(class_id)
    base, links = str(request.base_url).rstrip("/"), ClassLinks(house, live.id)
    made = [
        _card(
            live,
            one,
            picture_of(base + links.to("hand", one.id)),
        )
        for one in live.comers
    ]
    return page(request, house, "run/cards.html", live=live, here="run", cards=made)


def _card(live: Live, mine: Comer, code: str) -> Card:
    blocks = tuple(
        CardBlock(_begins(live, one), (*_lines(live, one, mine), *_noted(one)))
        for one in live.run_by.blocks
        if one.block.works and one.block.moves
    )
    told = [DOES_NOT[limit] for limit in mine.limits]
    minds = ", ".join([*told, SHARES[mine.share]] if mine.share else told)
    return Card(mine.name, letter(mine.group), mine.group, _box(live, mine), minds, blocks, code)


def _noted(planned: PlannedBlock) -> Iterator[tuple[str, str]]:
    """What is said to people while a block is done."""
    if planned.block.note:
        yield "", planned.block.note


def _begins(live: Live, planned: PlannedBlock) -> str:
    """A block with when it begins, and when its later rounds do."""
    laid = live.plan.timeline.blocks[planned.at]
    rounds: dict[int, int] = {}
    for one in live.plan.timeline.of_block(planned.at) if planned.block.moves_people else ():
        if one.round is not None and one.phase == "work":
            rounds.setdefault(one.round, one.start_s)
    again = [f"round {nth} at {clock(at)}" for nth, at in rounds.items() if nth > 1]
    more = f": {', '.join(again[:MOST_ROUNDS])}" if again else ""
    return f"{clock(laid.start_s)} {laid.label}{more}"


def _lines(live: Live, planned: PlannedBlock, mine: Comer) -> Iterator[tuple[str, str]]:
    """The lines of a block: in a rotation from where this group begins, each with its time in the class."""
    block = planned.block
    library = live.plan.library
    if not block.moves_people:
        for line in block.moves:
            yield "", " + ".join(told(mine, line, library)) if not line.is_rest else "rest"
        return
    begins: dict[int, int] = {}
    for one in live.plan.timeline.of_block(planned.at):
        if one.turn is not None and one.phase == "work":
            begins.setdefault(one.turn, one.start_s)
    for turn in range(1, len(block.moves) + 1):
        line = block.moves[block.line_of(mine.group, turn)]
        yield (
            clock(begins[turn]) if turn in begins else "",
            " + ".join(told(mine, line, library)),
        )


def _box(live: Live, mine: Comer) -> str:
    """Their heart box at the hardest work, or the effort."""
    asked = [
        one.effort for one in live.plan.timeline.intervals if one.phase == "work" and one.effort
    ]
    effort = max(asked, default=None)
    target = None if mine.effort_only or effort is None else corridor(mine, effort, None)
    if target:
        sure = "" if mine.max_hr else "; from age, so effort comes first"
        return (
            f"{round(target[0])} to {round(target[1])} beats at effort {number(effort or 0)}{sure}"
        )
    if effort:
        return f"effort {number(effort)} of 10 at the hardest"
    works = any(one.phase == "work" for one in live.plan.timeline.intervals)
    return "how hard isn’t written: ask your coach" if works else "easy throughout"


@router.get("/run/{class_id}/sheets")
def sheets(request: Request, house: InHouse, class_id: Id) -> HTMLResponse:
    """A sheet to hang at each station."""
    live = floor_of(request).live(class_id)
    moving = [one for one in live.run_by.blocks if one.block.moves_people]
    with house.database.work() as work:
        spots = halls.spots(work, live.session_id) if live.session_id else {}
    made = list(_stations(live, moving[0], spots)) if moving else []
    return page(request, house, "run/sheets.html", live=live, here="run", sheets=made)


def _stations(live: Live, planned: PlannedBlock, spots: dict[str, str]) -> Iterator[StationSheet]:
    library = live.plan.library
    for nth, line in enumerate(planned.block.moves, 1):
        task = line.tasks[0]
        move = library.find(task.name)
        easier = [way_said(way) for way in (*task.easier, *task.alternatives)]
        known = list(move.easier) if move else []
        loads = loads_of(line)
        kit = ", ".join(library.kit_of(task.name))
        yield StationSheet(
            nth,
            line.name,
            picture(task.name),
            move.cue if move else "",
            move.caution if move else "",
            f"{kit} {' '.join(number(load) for load in loads)} kg" if loads else kit,
            tuple(dict.fromkeys((*easier, *known)))[:3],
            tuple(
                dict.fromkeys(
                    (*(way_said(way) for way in task.harder), *(move.harder if move else ()))
                )
            )[:2],
            spots.get(line.name, ""),
        )
