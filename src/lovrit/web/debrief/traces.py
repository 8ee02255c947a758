"""Traces of a class brought in from files, laid where they belong; and every figure of hearts taken along as CSV."""

import re
from collections import OrderedDict
from typing import Any, Literal, NamedTuple
from uuid import uuid4

import numpy as np
from fastapi import APIRouter, Request, UploadFile
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response

from lovrit.core.crew.person import Comer
from lovrit.core.heart.align import Placed, align
from lovrit.core.heart.foresee import body_of
from lovrit.core.heart.learn import Evening, lines
from lovrit.core.review.hearts import HeartAfter, asked_of
from lovrit.core.review.turns import good
from lovrit.core.values import LovritError
from lovrit.formats.trace_kinds import read_any
from lovrit.formats.trace_reader import Trace
from lovrit.formats.trace_written import as_json, gpx, tcx
from lovrit.house.live import Live
from lovrit.house.traced import traces_of
from lovrit.store import classes
from lovrit.web.debrief.exports import CSV, clean_csv, download, turns_csv
from lovrit.web.inhouse import Id, InHouse, WholeForm, floor_of
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
MOST_WAITING, MOST_TRACES = 8, 60
WIDEST_S = 3600
FORMS = {
    "tcx": "application/vnd.garmin.tcx+xml", "gpx": "application/gpx+xml", "json": "application/json",
}  # fmt: skip


class NoPlace(LovritError):
    """A trace that can't be laid, or one that is not waiting any more."""


class Waiting(NamedTuple):
    """A trace of a file that waits to be laid: whose it may be, where it was found to belong, and how surely."""

    trace: Trace
    comer: Comer | None
    placed: Placed
    how: str


class Waitings:
    """Files that were read and wait for somebody to say where they belong; the newest few."""

    def __init__(self) -> None:
        self._files: OrderedDict[tuple[int, str], list[Waiting]] = OrderedDict()

    def keep(self, class_id: int, some: list[Waiting]) -> str:
        """Keep a file's traces, read for a class, under a name of their own."""
        name = uuid4().hex
        self._files[class_id, name] = some
        while len(self._files) > MOST_WAITING:
            self._files.popitem(last=False)
        return name

    def of(self, class_id: int, name: str) -> list[Waiting]:
        """A file's traces, of the class that they were read for.

        Raises:
            NoPlace: where they wait no more.
        """
        if (class_id, name) not in self._files:
            raise NoPlace("That file is not waiting any more; bring it in again.")
        return self._files[class_id, name]


WAITINGS = Waitings()
OFFSET = re.compile(r"-?\d{1,6}", re.ASCII)  # seconds; some days either way


@router.post("/debrief/{class_id}/traces")
def bring(request: Request, house: InHouse, class_id: Id, file: UploadFile) -> HTMLResponse:
    """Read a file of traces, and say where each seems to belong; nothing is kept yet."""
    live = floor_of(request).live(class_id)
    day = house.when(live.state.started_ms or live.made_ms).date()
    told = read_any(file.file.read(), house.zone, day)[:MOST_TRACES]
    found = [_waiting(live, one) for one in told]
    values: dict[str, Any] = {
        "live": live,
        "name": WAITINGS.keep(class_id, found),
        "waiting": found,
    }
    values["refused"] = ""
    return page(request, house, "debrief/bring.html", here="debrief", **values)


def _waiting(live: Live, trace: Trace) -> Waiting:
    called = {name.casefold(): one for one in live.comers for name in (one.initials, one.name)}
    comer = called.get(trace.name.casefold())
    begun_s = (live.state.started_ms or live.made_ms) / 1000
    if trace.clock:
        offset = round(trace.begins_s - begun_s)
        return Waiting(trace, comer, Placed(offset, 1.0, abs(offset) <= WIDEST_S), "by its clock")
    as_it_stands = Placed(round(trace.begins_s), 0.0, False)
    someone = comer or next((one for one in live.comers if not one.effort_only), None)
    if someone is None or live.state.started_ms is None:
        return Waiting(trace, comer, as_it_stands, "as it stands in the file")
    last = (live.state.over_ms or live.state.now_ms) - live.state.started_ms
    asked = asked_of(live.plan, live.state, someone, max(1, last // 1000))
    expected = lines([body_of(someone)], Evening(asked, np.zeros(max(1, last // 1000))))[0]
    placed = align(trace.beats, expected)
    if placed.sure:
        return Waiting(trace, comer, placed, f"by its pattern, {placed.like:.0%} alike")
    return Waiting(
        trace, comer, as_it_stands, "as it stands in the file; its pattern says too little"
    )


@router.post("/debrief/{class_id}/traces/lay")
def lay(request: Request, house: InHouse, class_id: Id, form: WholeForm) -> Response:
    """Lay traces where somebody said that they belong. What a strap has told is never written over."""
    live = floor_of(request).live(class_id)
    found = WAITINGS.of(class_id, str(form.get("name", "")))
    called = {str(one.id): one for one in live.comers}
    begun = live.state.started_ms or live.made_ms
    told: list[tuple[int, dict[int, int]]] = []
    with house.database.work() as work:
        kept = traces_of(work, live)
    for nth, one in enumerate(found):
        whose, offset = (
            str(form.get(f"person-{nth}", "")),
            str(form.get(f"offset-{nth}", "")).strip(),
        )
        if not whose:
            continue
        if whose not in called or not OFFSET.fullmatch(offset):
            return _again(
                request,
                house,
                live,
                found,
                str(form["name"]),
                f"“{offset[:20]}” is no number of seconds.",
            )
        who = called[whose]
        if any(good(bpm) for _, bpm in kept.get(who.id, [])):
            why = (
                f"{who.name}’s strap told of this class already; what it told is not written over."
            )
            return _again(request, house, live, found, str(form["name"]), why)
        told += [
            (begun + (int(offset) + at) * 1000, {who.id: round(float(bpm))})
            for at, bpm in enumerate(one.trace.beats)
            if not np.isnan(bpm)
        ]
    with house.database.writing() as work:
        classes.add_samples(work, class_id, told)
    floor_of(request).teach()
    return RedirectResponse(f"/debrief/{class_id}", 303)


def _again(
    request: Request, house: InHouse, live: Live, found: list[Waiting], name: str, why: str
) -> HTMLResponse:
    values: dict[str, Any] = {"live": live, "name": name, "waiting": found, "refused": why}
    return page(request, house, "debrief/bring.html", here="debrief", status=422, **values)


def _hearts(request: Request, house: InHouse, class_id: int) -> tuple[Live, dict[int, HeartAfter]]:
    live = floor_of(request).live(class_id)
    with house.database.work() as work:
        traces = traces_of(work, live)
    return live, floor_of(request).cleaned.of(live, traces)


@router.get("/debrief/{class_id}/clean.csv")
def clean(request: Request, house: InHouse, class_id: Id) -> PlainTextResponse:
    """Every second of every heart: as it was told, as it holds (empty where it doesn't), why not, and as expected."""
    live, hearts = _hearts(request, house, class_id)
    return download(clean_csv(live, hearts), CSV, f"class-{class_id}-clean.csv")


@router.get("/debrief/{class_id}/turns.csv")
def turns(request: Request, house: InHouse, class_id: Id) -> PlainTextResponse:
    """Each work of each heart in figures, with how many clean seconds it rests on; empty where too few."""
    live, hearts = _hearts(request, house, class_id)
    return download(turns_csv(live, hearts), CSV, f"class-{class_id}-turns.csv")


@router.get("/debrief/{class_id}/trace-{person}.{form}")
def one_trace(
    request: Request, house: InHouse, class_id: Id, person: Id, form: Literal["tcx", "gpx", "json"]
) -> PlainTextResponse:
    """One person's readings in an open form that other programs read."""
    live = floor_of(request).live(class_id)
    comer = next((one for one in live.comers if one.id == person), None)
    with house.database.work() as work:
        kept = traces_of(work, live).get(person)
    if comer is None or not kept:
        raise NoPlace("No strap told anything of that person in this class.")
    written = {
        "tcx": lambda: tcx(kept),
        "gpx": lambda: gpx(comer.name, kept),
        "json": lambda: as_json(comer.name, kept),
    }[form]()
    return download(written, FORMS[form], f"class-{class_id}-trace.{form}")
