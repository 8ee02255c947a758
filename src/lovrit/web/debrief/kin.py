"""Like with like: a block beside the same block on evenings before, person by person, the evening taken out first."""

from datetime import date
from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.review.compare import Compared, Evening, compare
from lovrit.core.review.kin import Worth, kin_key, own_key, worth
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.house.recorded import up_to_date
from lovrit.store import records
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import day, page

router = APIRouter()
MOST_BEFORE, MOST_LOOKED, SHOWN = 11, 40, 6
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
    up_to_date(house)
    with house.database.work() as work:
        nights = _nights(house, work, live, block)
    names = {one.id: one.name for one in live.comers}
    told = compared(nights)
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
        "worse": worse_is(all(one.more for _, one in nights[-1].scores.values())),
        "old": len(nights) > 1 and nights[-1].day - nights[-2].day > OLD_DAYS,
    }
    return page(request, house, "debrief/kin.html", here="debrief", **values)


def _nights(house: House, work: Work, live: Live, at: int) -> list[Night]:
    """The evenings with this block, the oldest first, this class the last; only who did the very same counts."""
    mine = _tonight(house, live, at)
    block, library = live.plan.session.blocks[at], live.plan.library
    own = {one.id: own_key(block, one, library) for one in live.comers}
    until = f"{house.when(live.made_ms):%Y-%m-%d}"
    rows = records.scores_like(work, records.kin_of(kin_key(block, library)), until, MOST_LOOKED)
    there = [one for one in rows if one.class_id != live.id and own.get(one.person_id) == one.ways]
    return [*nights_of(there)[-MOST_BEFORE:], mine]


def worse_is(more: bool) -> str:
    """What a worse score is called: of times, where less is better, it is a slower one."""
    return "lower" if more else "slower"


def nights_of(rows: list[records.Kept]) -> list[Night]:
    """Scores by the class in which they were made, in the order of the rows."""
    by_class: dict[int, list[records.Kept]] = {}
    for one in rows:
        by_class.setdefault(one.class_id, []).append(one)
    return [_night(some) for some in by_class.values()]


def _night(rows: list[records.Kept]) -> Night:
    day = date.fromisoformat(rows[0].day)
    told = {one.person_id: (one.said, Worth(one.figure, one.value, one.more)) for one in rows}
    return Night(f"{day:%-d %b %Y}", day.toordinal(), told)


def _tonight(house: House, live: Live, at: int) -> Night:
    """This class as it stands by now: it may still be on, or have been scored a moment ago."""
    block = live.plan.session.blocks[at]
    here = {one.id for one in live.comers if not one.erased}
    scores: dict[int, tuple[str, Worth]] = {}
    for one in live.state.scores:
        value = worth(block, one.text) if one.block == at and one.person in here else None
        if value and one.person is not None:
            scores[one.person] = (one.text, value)
    return Night(day(house, live.made_ms), house.when(live.made_ms).date().toordinal(), scores)


def compared(nights: list[Night]) -> Compared | None:
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
