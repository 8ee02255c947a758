"""Like with like: a block beside the same block on evenings before, person by person, the evening taken out first."""

from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import Library
from lovrit.core.review.compare import Compared, Evening, compare
from lovrit.core.review.kin import Worth, kin_key, own_key, worth
from lovrit.core.run.frozen import Frozen, UnreadableClass
from lovrit.store import classes
from lovrit.store.sessions import Gone
from lovrit.web.house import House, Id, InHouse
from lovrit.web.pages import day, page
from lovrit.web.run.routes import floor_of

router = APIRouter()
MOST_BEFORE, MOST_LOOKED, SHOWN = 11, 200, 6
OLD_DAYS = 35  # a kin series that is older wants a test of the same thing


class Night(NamedTuple):
    """One evening of a block: when, its number of days, and each person's score and what it is worth."""

    when: str
    day: int
    scores: dict[int, tuple[str, Worth]]


class KinRow(NamedTuple):
    """A person's scores on the evenings that are shown, and what is said of the last one."""

    name: str
    scores: tuple[str, ...]
    verdict: str
    text: str
    trend: str


@router.get("/debrief/{class_id}/kin/{block}")
def kin(request: Request, house: InHouse, class_id: Id, block: int) -> HTMLResponse:
    """A block of a class beside the same block before.

    Raises:
        Gone: where the class has no such block.
    """
    live = floor_of(request).live(class_id)
    if not 0 <= block < len(live.plan.session.blocks):
        raise Gone("There is no such block in this class.")
    with house.database.work() as work:
        nights = _nights(house, work, class_id, live.plan, block)
    names = {one.id: one.name for one in live.comers}
    told = _compared(nights)
    shown = nights[-SHOWN:]
    rows = tuple(
        _row(who, names[who], shown, told) for who in names if nights and who in nights[-1].scores
    )
    values: dict[str, Any] = {
        "live": live,
        "block": live.plan.timeline.blocks[block].label,
        "nights": shown,
        "rows": rows,
        "told": told,
        "old": len(nights) > 1 and nights[-1].day - nights[-2].day > OLD_DAYS,
    }
    return page(request, house, "debrief/kin.html", here="debrief", **values)


def _nights(house: House, work: Work, class_id: int, plan: Frozen, at: int) -> list[Night]:
    """The evenings with this block, the oldest first, this class the last; only who did the very same counts."""
    block = plan.session.blocks[at]
    key = kin_key(block, plan.library)
    mine = _night(house, work, class_id, plan, at)
    own = _ways(work, class_id, plan.library, plan, at)
    found = [mine]
    head = block.head.split(",")[0].casefold()
    for row in classes.listed(work, MOST_LOOKED):
        earlier = (row.id or 0) != class_id and house.when(
            row.made_ms
        ).date().toordinal() <= mine.day
        if len(found) > MOST_BEFORE or not earlier or row.over_ms is None or row.is_try:
            continue
        if head not in row.text.casefold():  # a quick look before it is read
            continue
        try:
            other = classes.run_by(classes.get(work, row.id or 0))
            where = [
                nth
                for nth, one in enumerate(other.session.blocks)
                if kin_key(one, other.library) == key
            ]
            if not where:
                continue
            night = _night(house, work, row.id or 0, other, where[0])
            theirs = _ways(work, row.id or 0, other.library, other, where[0])
        except UnreadableClass:
            continue
        same = {who: told for who, told in night.scores.items() if theirs.get(who) == own.get(who)}
        if same:
            found.append(night._replace(scores=same))
    return sorted(found, key=lambda one: one.day)


def _night(house: House, work: Work, class_id: int, plan: Frozen, at: int) -> Night:
    row = classes.get(work, class_id)
    last = {
        event.person: event.text or ""
        for event in classes.events(work, class_id)
        if event.kind == "score" and event.block == at and event.person is not None
    }
    told = {who: (said, worth(plan.session.blocks[at], said)) for who, said in last.items()}
    scores = {who: (said, value) for who, (said, value) in told.items() if value}
    return Night(day(house, row.made_ms), house.when(row.made_ms).date().toordinal(), scores)


def _ways(work: Work, class_id: int, library: Library, plan: Frozen, at: int) -> dict[int, str]:
    comers: tuple[Comer, ...] = classes.comers(classes.get(work, class_id))
    return {one.id: own_key(plan.session.blocks[at], one, library) for one in comers}


def _compared(nights: list[Night]) -> Compared | None:
    """What is said of the last evening; None where it has no score that is worth a number."""
    worths = [value for _, value in nights[-1].scores.values()] if nights else []
    if not worths:
        return None
    evenings = tuple(
        Evening(
            day=one.day, values={str(who): value.value for who, (_, value) in one.scores.items()}
        )
        for one in nights
    )
    return compare(worths[0].figure, worths[0].more, evenings)


def _row(who: int, name: str, nights: list[Night], told: Compared | None) -> KinRow:
    one = told.people.get(str(who)) if told else None
    scores = tuple(night.scores[who][0] if who in night.scores else "" for night in nights)
    said = one.verdict if one else "not enough"
    return KinRow(name, scores, said, one.text if one else "", one.trend if one else "")
