"""Like with like: a block beside the same block on evenings before, person by person, the evening taken out first."""

from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from lovrit.core.review.compare import Compared
from lovrit.house.nights import Night, compared, nights
from lovrit.house.recorded import up_to_date
from lovrit.store.sessions import Gone
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
SHOWN = 6
OLD_DAYS = 35  # a kin series that is older wants a test of the same thing


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
        past = nights(house, work, live, block)
    names = {one.id: one.name for one in live.comers}
    told = compared(past)
    shown = past[-SHOWN:]
    rows = tuple(
        _row(who, names[who], shown, told) for who in names if past and who in past[-1].scores
    )
    values: dict[str, Any] = {
        "live": live,
        "block": live.plan.timeline.blocks[block].label,
        "nights": shown,
        "rows": rows,
        "told": told,
        "worse": worse_is(all(one.more for _, one in past[-1].scores.values())),
        "old": len(past) > 1 and past[-1].day - past[-2].day > OLD_DAYS,
    }
    return page(request, house, "debrief/kin.html", here="debrief", **values)


def worse_is(more: bool) -> str:
    """What a worse score is called: of times, where less is better, it is a slower one."""
    return "lower" if more else "slower"


def _row(who: int, name: str, nights: list[Night], told: Compared | None) -> KinRow:
    one = told.people.get(str(who)) if told else None
    scores = tuple(night.scores[who][0] if who in night.scores else "" for night in nights)
    said = one.verdict if one else "not enough"
    return KinRow(name, scores, said, one.text if one else "", one.trend if one else "")
