"""One person over time, made to be shown to them: what they did again in the very same way, and where it goes."""

from contextlib import suppress
from datetime import date
from statistics import median
from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse

from lovrit.core.review.hearts import heart_after
from lovrit.core.review.kin import Worth, kin_key, own_key
from lovrit.core.review.turns import Trace
from lovrit.core.review.year import year_said
from lovrit.core.run.frozen import UnreadableClass
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.house.over_time import Again, Series, series_from, series_of
from lovrit.house.recorded import up_to_date
from lovrit.store import classes, people
from lovrit.web.debrief.year import drawn as year_drawn
from lovrit.web.debrief.year import evenings_of
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import page, render
from lovrit.web.small import Small, small

router = APIRouter(include_in_schema=False)
MOST_WITH_HEARTS, FEWEST = 16, 2
LAST = 3  # evenings, whose middle is what stands
AVERAGE, DROP = "average heart, without the first turn", "drop in 60 s of rest"


class Shown(NamedTuple):
    """A series with its small chart."""

    series: Series
    chart: Small


@router.get("/people/{person_id}/progress")
def progress(request: Request, house: InHouse, person_id: Id) -> HTMLResponse:
    """What one person did again, the longest series first."""
    up_to_date(house)
    with house.database.work() as work:
        one = people.get(work, person_id)
        found = series_of(work, person_id)
        evenings = evenings_of(house, work, person_id)
    values: dict[str, Any] = {
        "one": one,
        "series": _drawn(found),
        "year": year_drawn(evenings, date.fromisoformat(house.today)),
        "year_said": year_said(evenings),
    }
    return page(request, house, "debrief/progress.html", here="people", **values)


@router.get("/people/{person_id}/progress/hearts")
def hearts(request: Request, house: InHouse, person_id: Id) -> HTMLResponse:
    """What one heart did at equal work and in equal rests, by evening; worked out aside, since it reads traces."""
    floor = floor_of(request)
    by_key: dict[tuple[str, str], list[Again]] = {}
    labels: dict[tuple[str, str], str] = {}
    with house.database.work() as work:
        rows = [
            (row, classes.trace_of(work, row.id or 0, person_id))
            for row in classes.came_to(work, person_id, MOST_WITH_HEARTS)
            if not row.is_try and row.over_ms is not None
        ]
    for row, trace in rows:
        with suppress(UnreadableClass):
            _hearts_of(house, floor.live(row.id or 0), person_id, trace, by_key, labels)
    found = [
        series_from(labels[key], key[1], sorted(times, key=lambda one: one.day))
        for key, times in by_key.items()
        if len(times) > 1
    ]
    return HTMLResponse(render(house, "debrief/series.html", series=_drawn(found)))


def _drawn(found: list[Series]) -> list[Shown]:
    """Series as they are shown, the longest first; the band is about the middle of the last three."""
    shown = []
    for one in sorted(found, key=lambda series: -len(series.times)):
        days = [(date.fromordinal(time.day), time.worth.value) for time in one.times]
        middle = float(median(value for _, value in days[-LAST:]))
        shown.append(Shown(one, small(one.times[-1].worth.figure, days, middle)))
    return shown


def _hearts_of(
    house: House,
    live: Live,
    person_id: int,
    trace: Trace,
    by_key: dict[tuple[str, str], list[Again]],
    labels: dict[tuple[str, str], str],
) -> None:
    """The average of each block's works and the drop in its rests, each to what it is of a kind with."""
    mine = next((one for one in live.comers if one.id == person_id), None)
    heart = heart_after(live.plan, live.state, mine, trace) if mine else None
    if mine is None or heart is None:
        return
    when, library = house.when(live.made_ms), live.plan.library
    for at in sorted({one.block for one in heart.works}):
        block, label = live.plan.session.blocks[at], live.plan.timeline.blocks[at].label
        works = [one.figures for one in heart.works if one.block == at]
        figures = (
            ("heart", [one.average for one in works[1:]], False, AVERAGE, "{:.0f} beats"),
            ("drop_60", [one.drop_60 for one in works], True, DROP, "{:.0f} in 60 s"),
        )  # fmt: skip
        for figure, values, more, said, how in figures:
            told = [one for one in values if one is not None]
            if len(told) < FEWEST:
                continue
            value = float(median(told))
            key = (f"{figure}\n{kin_key(block, library)}", own_key(block, mine, library))
            labels[key] = f"{label}: {said}"
            again = Again(
                live.id,
                at,
                when.date().toordinal(),
                f"{when:%-d %b}",
                how.format(value),
                Worth(figure, value, more),
            )
            by_key.setdefault(key, []).append(again)
