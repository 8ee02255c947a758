"""The strap wall before a class: who wears which strap, contact, battery, and whether its value can be theirs."""

from typing import Annotated, Any, NamedTuple
from urllib.parse import quote

from fastapi import APIRouter, Form, Query, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from sqlmodel import Session as Work

from lovrit.core.crew.person import Person
from lovrit.core.run.event import MOST_ID
from lovrit.core.values import LovritError
from lovrit.house.house import House
from lovrit.store import people, straps
from lovrit.store.tables import StrapRow
from lovrit.straps.outside import SHAKEN_MS, Heard
from lovrit.straps.simulated import BEHAVES
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page, render
from lovrit.web.straps.entry import key_of

router = APIRouter(include_in_schema=False)
PER_CENT_UNDER, LOW_BATTERY = 45, 15
OUTSIDE = 12  # beats under a rest or over a highest that a strap may tell before it is doubted
Strap = Annotated[str, Form(min_length=1, max_length=64)]
Whom = Annotated[int, Form(ge=0, le=MOST_ID)]


class NoStrap(LovritError):
    """A strap or a person that there isn't."""


class Worn(NamedTuple):
    """A strap on the wall: its id, what it is called, who wears it, what it tells and what to make of that."""

    id: str
    name: str
    person: Person | None
    bpm: int
    contact: str
    battery: str
    doubt: str
    alive: bool
    shaken: bool


@router.get("/straps")
def wall(
    request: Request, house: InHouse, said: Annotated[str, Query(max_length=200)] = ""
) -> HTMLResponse:
    """The strap wall."""
    return page(request, house, "straps/page.html", here="straps", done=said, **_values(house))


@router.get("/straps/now")
def now(house: InHouse) -> HTMLResponse:
    """What the straps tell by now."""
    return HTMLResponse(render(house, "straps/list.html", **_values(house)))


def _values(house: House) -> dict[str, Any]:
    with house.database.work() as work:
        everyone = [one for one in people.everyone(work) if not one.effort_only]
        rows = straps.everything(work)
    heard, now_ms = house.outside.heard(), house.now_ms()
    by_id = {one.id: one for one in everyone}
    shown = []
    for name in sorted({*heard, *rows}):
        row = rows.get(name, StrapRow(id=name))
        shown.append(_worn(row, by_id.get(row.person_id or -1), heard.get(name), now_ms))
    wearing = {one.person.id for one in shown if one.person}
    return {
        "worn": shown,
        "everyone": everyone,
        "without": [one for one in everyone if one.id not in wearing],
        "heard": sum(one.alive for one in shown),
        "waits": by_id.get(house.outside.waits or -1),
        "key": key_of(house) if house.guests else "",
        "simulated": house.settings.simulated,
        "behaves": BEHAVES,
    }


def _worn(row: StrapRow, person: Person | None, heard: Heard | None, now_ms: int) -> Worn:
    alive = heard is not None and heard.alive(now_ms)
    last = heard.last if heard else None
    bpm = last.bpm if last and alive else 0
    contact = {True: "contact", False: "no contact", None: ""}[last.contact if last else None]
    battery = f"{last.battery} %" if last and last.battery is not None else ""
    low = last is not None and last.battery is not None and last.battery <= LOW_BATTERY
    shaken = heard is not None and now_ms - heard.shaken_ms <= SHAKEN_MS
    return Worn(
        row.id, row.name, person, bpm, contact, battery + (", nearly flat" if low else ""),
        _doubt(person, bpm, contact) if alive else "quiet" if heard else "not heard yet", alive, shaken,
    )  # fmt: skip


def _doubt(person: Person | None, bpm: int, contact: str) -> str:
    """What is odd about a value; empty where it can be this person's."""
    if contact == "no contact" or not bpm:
        return "no signal: moist, and tight enough not to slide"
    if bpm < PER_CENT_UNDER:
        return "so low that it may be per cent: set the strap to beats"
    if person and bpm < person.rest - OUTSIDE:
        return f"under {person.name}’s rest of {person.rest}: is it theirs?"
    if person and bpm > person.highest + OUTSIDE:
        return f"over {person.name}’s highest of {person.highest}: does it count double?"
    return ""


def _somebody(work: Work, person_id: int) -> Person:
    return people.get(work, person_id)


def _again() -> Response:
    return RedirectResponse("/straps", 303)


@router.post("/straps/wear")
def wear(
    house: InHouse, strap: Strap, person: Annotated[str, Form(max_length=20)] = ""
) -> Response:
    """Say who wears a strap: their own, or one that is lent; nobody, where nobody is named."""
    with house.database.writing() as work:
        straps.wear(work, strap, _somebody(work, int(person)).id if person.isdecimal() else None)
    return _again()


@router.post("/straps/by-name")
def by_name(house: InHouse) -> Response:
    """Straps that are called as somebody is go to them, where they wear none and it is worn by nobody."""
    with house.database.writing() as work:
        rows, everyone = straps.everything(work), people.everyone(work)
        names = {one.initials.casefold(): one.id for one in everyone}
        names |= {one.name.casefold(): one.id for one in everyone}
        wearing = straps.worn(work)
        given = 0
        for strap in sorted(house.outside.heard()):
            row = rows.get(strap)
            called = {strap.casefold(), row.name.casefold() if row else ""}
            found = next((names[one] for one in called if one in names), None)
            if found is not None and found not in wearing and not (row and row.person_id):
                straps.wear(work, strap, found)
                wearing[found] = strap
                given += 1
    return RedirectResponse(
        f"/straps?said={quote(_given_out(given, len(house.outside.heard())))}", 303
    )


def _given_out(given: int, heard: int) -> str:
    if not heard:
        return "No strap is heard yet: put one on, moist, and it appears here."
    if not given:
        return "No free strap is called as somebody who wears none: name it by their initials, or give it out below."
    return f"{given} {'strap' if given == 1 else 'straps'} given out by name."


@router.post("/straps/swap")
def swap(house: InHouse, strap: Strap, other: Strap) -> Response:
    """Two straps go to each other's people."""
    if strap == other:
        raise NoStrap("That is the same strap twice; name another one.")
    with house.database.writing() as work:
        straps.swap(work, strap, other)
    return _again()


@router.post("/straps/call")
def call(house: InHouse, strap: Strap, name: Annotated[str, Form(max_length=40)] = "") -> Response:
    """What a strap is called here."""
    with house.database.writing() as work:
        straps.call(work, strap, " ".join(name.split()))
    return _again()


@router.post("/straps/find")
def find(house: InHouse, person: Whom) -> Response:
    """The next strap that is shaken is this person's."""
    with house.database.work() as work:
        house.outside.waits = _somebody(work, person).id
    return RedirectResponse("/straps", 303)


@router.post("/straps/forget")
def forget(house: InHouse, strap: Strap) -> Response:
    """A strap that is the club's no more."""
    house.outside.forget(strap)
    with house.database.writing() as work:
        straps.forget(work, strap)
    return _again()


@router.post("/straps/plays")
def plays(house: InHouse, person: Whom, how: Annotated[str, Form(max_length=20)]) -> Response:
    """How the strap behaves that Lovrit plays for somebody of the sample club."""
    if how not in BEHAVES:
        raise NoStrap(f"A strap that is played does one of these: {', '.join(BEHAVES)}.")
    with house.database.writing() as work:
        people.change(work, person, strap=how)
    return _again()
