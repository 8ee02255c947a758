"""One person over time, made to be shown to them: what they did again in the very same way, and where it goes."""

from typing import NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.moves.library import Library
from lovrit.core.review.compare import Evening, compare
from lovrit.core.review.kin import Worth, kin_key, own_key, worth
from lovrit.core.run.frozen import UnreadableClass
from lovrit.store import classes, people
from lovrit.store.tables import ClassRow
from lovrit.web.house import House, Id, InHouse
from lovrit.web.pages import page

router = APIRouter()
MOST_CLASSES = 60
WIDE, HIGH, EDGE = 220.0, 56.0, 6.0


class Again(NamedTuple):
    """One evening on which somebody did a block: the class, its day, the score and what it is worth."""

    class_id: int
    block: int
    day: int
    when: str
    score: str
    worth: Worth


class Series(NamedTuple):
    """The same thing again and again: what it is, its scores, where it goes in words, and dots to draw it by."""

    label: str
    ways: str
    times: tuple[Again, ...]
    text: str
    dots: tuple[tuple[float, float], ...]


@router.get("/people/{person_id}/progress")
def progress(request: Request, house: InHouse, person_id: Id) -> HTMLResponse:
    """What one person did again, the longest series first."""
    with house.database.work() as work:
        one = people.get(work, person_id)
        found = _series(house, work, person_id)
    rows = sorted(found, key=lambda series: -len(series.times))
    return page(request, house, "debrief/progress.html", here="people", one=one, series=rows)


def _series(house: House, work: Work, person_id: int) -> list[Series]:
    by_key: dict[tuple[str, str], list[Again]] = {}
    labels: dict[tuple[str, str], str] = {}
    for row in classes.came_to(work, person_id, MOST_CLASSES):
        if row.is_try or row.over_ms is None:
            continue
        try:
            _gather(house, work, row, person_id, by_key, labels)
        except UnreadableClass:
            continue
    return [
        _drawn(labels[key], key[1], sorted(times, key=lambda one: one.day))
        for key, times in by_key.items()
        if len(times) > 1
    ]


def _gather(
    house: House,
    work: Work,
    row: ClassRow,
    person_id: int,
    by_key: dict[tuple[str, str], list[Again]],
    labels: dict[tuple[str, str], str],
) -> None:
    """The scores of one class, each to what it is of a kind with."""
    happened = classes.events(work, row.id or 0)
    scores = {
        event.block: event.text or ""
        for event in happened
        if event.kind == "score" and event.person == person_id and event.block is not None
    }
    if not any(scores.values()):
        return
    plan = classes.run_by(row)
    library: Library = plan.library
    mine = next(one for one in classes.comers(row) if one.id == person_id)
    when = house.when(row.made_ms)
    for at, said in scores.items():
        if at >= len(plan.session.blocks):
            continue
        block = plan.session.blocks[at]
        value = worth(block, said)
        if value:
            key = (kin_key(block, library), own_key(block, mine, library))
            labels[key] = plan.timeline.blocks[at].label
            again = Again(row.id or 0, at, when.date().toordinal(), f"{when:%d %b}", said, value)
            by_key.setdefault(key, []).append(again)


def _drawn(label: str, ways: str, times: list[Again]) -> Series:
    values = [one.worth.value for one in times]
    low, high = min(values), max(values)
    first, last = times[0].day, times[-1].day
    dots = tuple(
        (
            round(EDGE + (WIDE - 2 * EDGE) * (one.day - first) / max(1, last - first), 1),
            round(
                HIGH - EDGE - (HIGH - 2 * EDGE) * (one.worth.value - low) / ((high - low) or 1), 1
            ),
        )
        for one in times
    )
    return Series(label, ways, tuple(times), _where(times), dots)


def _where(times: list[Again]) -> str:
    """Where it goes, over four evenings or more; nothing is said of fewer."""
    figure, more = times[-1].worth.figure, times[-1].worth.more
    evenings = tuple(Evening(day=one.day, values={"me": one.worth.value}) for one in times)
    told = compare(figure, more, evenings).people["me"]
    return told.trend or (
        "No clear way up or down yet."
        if len(times) > 3
        else "Too few evenings to say where it goes."
    )
