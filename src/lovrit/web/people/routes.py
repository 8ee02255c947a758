"""People: added, pasted, brought in, changed in place, let go; what nobody has said of them stays empty."""

import csv
import io
from collections.abc import Iterable
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Form, Query, Request, UploadFile
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import ValidationError

from lovrit.core.crew.lists import (
    FIGURES,
    Newcomer,
    NotAFigure,
    Read,
    read_born,
    read_figure,
    read_people,
)
from lovrit.core.crew.person import DOES_NOT, Person
from lovrit.core.tonight.people import missed_said
from lovrit.core.values import LovritError, fields_of
from lovrit.formats.cells import told_apart
from lovrit.house.erased import erase
from lovrit.house.house import House
from lovrit.house.lately import last_seen_of
from lovrit.store import people
from lovrit.web.inhouse import Id, InHouse, WholeForm, floor_of
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
MOST_TEXT = 100_000
APART = 20  # beats between rest and highest, at the least
SORTS = {"name": lambda one: one.name.casefold(), "age": lambda one: -(one.age or 0)}
COLUMNS = ("name", "year of birth", "rest", "highest", "by effort", "note")


class NotAList(LovritError):
    """A list of people that can't be read."""


@router.get("/people")
def everyone(
    request: Request,
    house: InHouse,
    words: Annotated[str, Query(max_length=100)] = "",
    sort: Annotated[str, Query(max_length=10)] = "name",
    said: Annotated[str, Query(max_length=200)] = "",
) -> HTMLResponse:
    """The club's list, searched and sorted."""
    return _shown(request, house, words=words, sort=sort, said=said)


def _shown(
    request: Request, house: House, words: str = "", sort: str = "name", said: str = "", **more: Any
) -> HTMLResponse:
    with house.database.work() as work:
        all_of_them, gone = people.everyone(work), people.gone(work)
        seen = last_seen_of(house, work, all_of_them)
    missing = [(one, missed_said(one, seen[one.id], house.today)) for one in all_of_them]
    sought = words.casefold().split()
    found = [one for one in all_of_them if _speaks(one, sought)]
    values: dict[str, Any] = {
        "people": sorted(found, key=SORTS.get(sort, SORTS["name"])),
        "count": len(all_of_them),
        "gone": gone,
        "missing": [(one, said_) for one, said_ in missing if said_],
        "words_sought": words,
        "sort": sort,
        "took": said,
        "read": None,
        "text": "",
        "refused": {},
    } | more
    return page(request, house, "people/page.html", here="people", **values)


def _speaks(person: Person, words: list[str]) -> bool:
    """Whether every word stands in what a coach sees of somebody."""
    limits = " ".join(DOES_NOT[limit] for limit in person.limits)
    text = f"{person.name} {person.mind} {limits} {person.standing}".casefold()
    return all(word in text for word in words)


@router.post("/people")
def brought_in(
    request: Request,
    house: InHouse,
    text: Annotated[str, Form(max_length=MOST_TEXT)] = "",
    file: UploadFile | None = None,
    sure: Annotated[bool, Form()] = False,
) -> Response:
    """Take a list of people; what could be two things, or is here already, is shown first."""
    if file is not None and file.filename:
        text = _text_of(file.file.read(MOST_TEXT + 1))
    read = read_people(text, house.year)
    with house.database.work() as work:
        known = {one.name.casefold() for one in people.everyone(work)}
    here = [one.name for one in read.people if one.name.casefold() in known]
    if not sure and (read.asked or here or not read.people):
        return _shown(request, house, read=read, text=text, here_already=here)
    new = [one for one in read.people if one.name.casefold() not in known]
    with house.database.writing() as work:
        for one in new:
            people.add_person(
                work, one.name, **{k: v for k, v in fields_of(one).items() if k != "name"}
            )
    return _back(_came_in(new, read))


def _back(said: str) -> Response:
    return RedirectResponse(f"/people?said={quote(said)}", 303)


def _text_of(body: bytes) -> str:
    try:
        return body[:MOST_TEXT].decode("utf-8-sig")
    except UnicodeDecodeError:
        return body[:MOST_TEXT].decode("cp1252", "replace")  # what spreadsheets of before write


def _came_in(new: Iterable[Newcomer], read: Read) -> str:
    count = len(list(new))
    left = len(read.people) - count
    said = f"{count} {'person' if count == 1 else 'people'} came in"
    return said + (f", {left} were here already" if left else "")


@router.post("/people/{person_id}")
def changed(request: Request, house: InHouse, person_id: Id, form: WholeForm) -> Response:
    """Change what stands in somebody's row; a figure that can't be is said beside it and stays as it was typed."""
    typed = {name: str(value).strip() for name, value in form.items()}
    refused = _wrong(typed, house.year)
    with house.database.writing() as work:
        person = people.get(work, person_id)
        others = [one for one in people.everyone(work) if one.id != person_id]
        if any(one.name.casefold() == typed.get("name", "").casefold() for one in others):
            refused["name"] = "Somebody has this name already; tell them apart by a letter."
        if not refused:
            try:
                person = people.change(work, person_id, **_fields(typed, house.year))
            except ValidationError:
                refused["name"] = "That can’t be kept; look at each figure."
    floor_of(request).teach()
    if not request.headers.get("hx-request"):
        return RedirectResponse("/people", 303)
    shown: dict[str, Any] = {"one": person, "typed": typed if refused else {}, "refused": refused}
    return page(request, house, "people/row.html", **shown)


def _wrong(typed: dict[str, str], year: int) -> dict[str, str]:
    """What can't be so, by field, in words."""
    wrong = {}
    if not typed.get("name"):
        wrong["name"] = "A name, please."
    for field in FIGURES:
        try:
            read_figure(field, typed.get(field, ""))
        except NotAFigure as why:
            wrong[field] = str(why)
    try:
        read_born(typed.get("age", ""), year)
    except NotAFigure as why:
        wrong["age"] = str(why)
    rest, highest = typed.get("rest_hr"), typed.get("max_hr")
    if not wrong and rest and highest and int(highest) - int(rest) < APART:
        wrong["max_hr"] = "The highest is twenty above the rest or more; are they turned round?"
    return wrong


def _fields(typed: dict[str, str], year: int) -> dict[str, object]:
    figures = {name: read_figure(name, typed.get(name, "")) for name in FIGURES}
    return {
        "name": typed["name"][:60],
        "mind": typed.get("mind", "")[:200],
        "effort_only": "effort_only" in typed,
        "born": read_born(typed.get("age", ""), year),
        **figures,
    }


@router.post("/people/{person_id}/let-go")
def let_go(house: InHouse, person_id: Id) -> Response:
    """Let somebody go: for an hour it can be taken back, then they are erased."""
    now_ms = house.now_ms()
    erase(house)
    with house.database.writing() as work:
        person = people.let_go(work, person_id, now_ms)
    return _back(f"{person.name} is let go")


@router.post("/people/{person_id}/back")
def back(house: InHouse, person_id: Id) -> Response:
    """Somebody who was let go is here again, as they were."""
    with house.database.writing() as work:
        person = people.let_go(work, person_id, None)
    return _back(f"{person.name} is here again")


@router.get("/people.csv")
def as_csv(house: InHouse) -> PlainTextResponse:
    """The club's list as CSV, which comes in again by the same headings."""
    with house.database.work() as work:
        listed = people.everyone(work)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for one in listed:
        by_effort = "yes" if one.effort_only else ""
        row = (
            told_apart(one.name),
            one.born or one.age,
            one.rest_hr,
            one.max_hr,
            by_effort,
            told_apart(one.mind),
        )
        writer.writerow(["" if cell is None else cell for cell in row])
    headers = {"Content-Disposition": 'attachment; filename="people.csv"'}
    return PlainTextResponse(out.getvalue(), media_type="text/csv; charset=utf-8", headers=headers)
