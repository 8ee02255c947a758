"""The fit sheet: people down, stations across, in each cell what exactly this person does; stepped, and remembered."""

from typing import Annotated, NamedTuple

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response

from lovrit.core.crew.dose import SHARES, Dose, dose, hard_works
from lovrit.core.crew.fits import (
    Cell,
    at_line,
    cell,
    choices,
    chosen,
    ladder,
    loads_of,
    put,
    stepped,
)
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Person, Share
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError, plain
from lovrit.house.house import House
from lovrit.store import people, sessions
from lovrit.store.tables import SessionRow
from lovrit.web.inhouse import Id, InHouse
from lovrit.web.pages import page, render
from lovrit.web.words import KEYS

router = APIRouter(include_in_schema=False)
MOST_STATIONS = 12
EVERYBODY = 0


class NoSuchCell(LovritError):
    """A person or a station that is not on the sheet."""


class Row(NamedTuple):
    """A person's line of the sheet."""

    person: Person
    group: str
    cells: tuple[Cell, ...]
    dose: Dose | None = None


class Differs(NamedTuple):
    """Somebody who does something in another version, or has to choose: where, and why."""

    row: Row
    cells: tuple[Cell, ...]


class Loads(NamedTuple):
    """Who takes which load at a station: (kg, names), the heaviest first."""

    station: str
    by_load: tuple[tuple[float, tuple[str, ...]], ...]


class Sheet(NamedTuple):
    """The sheet: its stations with the loads that stand ready, its rows, and how much on it wants a look."""

    stations: tuple[tuple[str, str], ...]
    rows: tuple[Row, ...]
    swapped: int
    open: int
    choices: dict[tuple[int, int], tuple[str, ...]]

    @property
    def differs(self) -> tuple[Differs, ...]:
        """Those who do something otherwise than it is written, of whom a share is proposed, or who have to choose."""
        found = (
            Differs(row, tuple(one for one in row.cells if one.swapped or one.open))
            for row in self.rows
        )
        return tuple(one for one in found if one.cells or one.row.dose or one.row.person.share)

    @property
    def as_written(self) -> tuple[str, ...]:
        """The names of all others."""
        otherwise = {one.row.person.id for one in self.differs}
        return tuple(row.person.name for row in self.rows if row.person.id not in otherwise)

    @property
    def loads(self) -> tuple[Loads, ...]:
        """Who takes which load, at each station where several stand ready."""
        return tuple(filter(None, map(self._loads_at, range(len(self.stations)))))

    def _loads_at(self, nth: int) -> Loads | None:
        by_load: dict[float, list[str]] = {}
        for row in self.rows:
            one = row.cells[nth]
            if one.load is not None and not one.swapped:
                by_load.setdefault(one.load, []).append(row.person.name)
        heavy = sorted(by_load.items(), reverse=True)
        said = tuple((load, tuple(names)) for load, names in heavy)
        return Loads(self.stations[nth][0], said) if said else None


def stations_in(session: Session) -> tuple[Line, ...]:
    """The move lines that somebody may do in their own way, each once."""
    return session.stations[:MOST_STATIONS]


def sheet_of(house: House, plan: Plan, comers: list[tuple[Person, int]]) -> Sheet:
    """Who does what, for those who come, and how much of the hard work is proposed for whom."""
    lines, works = stations_in(plan.session), hard_works(plan.timeline.intervals)
    usual = [ladder(line, house.library) for line in lines]
    rows = tuple(
        Row(
            person,
            letter(group),
            tuple(
                at_line(person, line, house.library, options)
                for line, options in zip(lines, usual, strict=True)
            ),
            dose(person, works, house.today),
        )
        for person, group in comers
    )
    cells = [one for row in rows for one in row.cells]
    offered = {
        (person.id, nth): choices(person, line, house.library)
        for person, _ in comers
        for nth, line in enumerate(lines)
        if cell(person, line, house.library, usual[nth]).open
    }
    ready = tuple(
        (line.name, " ".join(f"{load:g}" for load in loads_of(line)) if loads_of(line) else "")
        for line in lines
    )
    swapped, left = sum(one.swapped for one in cells), sum(one.open for one in cells)
    return Sheet(ready, rows, swapped, left, offered)


@router.get("/crew/{session_id}/fit")
def shown(request: Request, house: InHouse, session_id: Id) -> HTMLResponse:
    """The sheet of a session."""
    return _shown(request, house, session_id)


def _shown(request: Request, house: House, session_id: int) -> HTMLResponse:
    row, sheet = _sheet(house, session_id)
    if request.headers.get("x-lovrit"):
        return HTMLResponse(
            render(house, "crew/sheet.html", session=row, sheet=sheet, shares=SHARES)
        )
    return page(
        request,
        house,
        "crew/fit.html",
        session=row,
        sheet=sheet,
        shares=SHARES,
        here="crew",
        keys=KEYS["crew"],
    )


def _sheet(house: House, session_id: int) -> tuple[SessionRow, Sheet]:
    with house.database.work() as work:
        row = sessions.get(work, session_id)
        comers = people.comers(work, session_id)
    return row, sheet_of(house, house.plan(row.text), comers)


@router.post("/crew/{session_id}/fit")
def step(
    request: Request,
    house: InHouse,
    session_id: Id,
    do: Annotated[str, Form(pattern="^(easier|harder|rule|all|choose)$")],
    person: Annotated[int, Form(ge=0)] = EVERYBODY,
    station: Annotated[int, Form(ge=-1, lt=MOST_STATIONS)] = -1,
    move: Annotated[str, Form(max_length=120)] = "",
) -> Response:
    """A cell, a row or a column one step easier or harder, or as the rule has it; or all of a column as this cell is.

    What a limit forbids is passed over. A person 0 is everybody, a station -1 every one.
    """
    with house.database.writing() as work:
        row = sessions.get(work, session_id)
        lines = stations_in(house.plan(row.text).session)
        comers = [one for one, _ in people.comers(work, session_id)]
        if station >= len(lines) or person not in {EVERYBODY, *(one.id for one in comers)}:
            raise NoSuchCell("The session or its people have changed; this cell is gone.")
        whose = [one for one in comers if do == "all" or person in (EVERYBODY, one.id)]
        pattern = next((one for one in comers if one.id == person), None)
        for one in whose:
            changed = one
            for line in lines if station < 0 else lines[station : station + 1]:
                changed = _changed(house, changed, line, do, (pattern, move))
            if changed != one:
                people.change(work, one.id, does=plain(changed)["does"])
    if request.headers.get("x-lovrit"):
        return _shown(request, house, session_id)
    return RedirectResponse(f"/crew/{session_id}/fit", 303)


@router.post("/crew/{session_id}/share")
def share(
    request: Request,
    house: InHouse,
    session_id: Id,
    person: Annotated[int, Form(ge=1)],
    share: Annotated[Share, Form()] = "",
) -> Response:
    """How much of the hard work is somebody's, from now on; it is on their own page and card."""
    with house.database.writing() as work:
        people.change(work, person, share=share)
    if request.headers.get("x-lovrit"):
        return _shown(request, house, session_id)
    return RedirectResponse(f"/crew/{session_id}/fit", 303)


@router.post("/crew/{session_id}/rise")
def rises(
    house: InHouse,
    session_id: Id,
    person: Annotated[int, Form(ge=1)],
    station: Annotated[int, Form(ge=0, lt=MOST_STATIONS)],
    at: Annotated[int, Form(ge=0, le=40)],
) -> Response:
    """A level that may rise is taken: the version at a place among the station's options."""
    with house.database.writing() as work:
        lines = stations_in(house.plan(sessions.get(work, session_id).text).session)
        if station >= len(lines):
            raise NoSuchCell("The session has changed; this station is gone.")
        changed = put(people.get(work, person), lines[station], house.library, at)
        people.change(work, person, does=plain(changed)["does"])
    return RedirectResponse(f"/crew/{session_id}/fit", 303)


def _changed(
    house: House, person: Person, line: Line, do: str, by: tuple[Person | None, str]
) -> Person:
    pattern, move = by
    if do == "choose":
        return chosen(person, line, house.library, move)
    if do in ("easier", "harder"):
        return stepped(person, line, house.library, 1 if do == "harder" else -1)
    if do == "all" and pattern:
        wanted = cell(pattern, line, house.library)
        usual = cell(person, line, house.library)
        if wanted.open or (wanted.does, wanted.load) == (usual.does, usual.load):
            return person  # nothing to take over, or it is so already by the rule
        return put(person, line, house.library, wanted.at)
    return put(person, line, house.library, None)
