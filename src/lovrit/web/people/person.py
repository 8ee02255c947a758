"""One person's page: how they stand, what they don't do and until when, whom to call, what they do at stations."""

import json
import re
from typing import Annotated, Any, Literal
from urllib.parse import urlsplit

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from pydantic import BaseModel, Field

from lovrit.core.clock import number
from lovrit.core.crew.dose import SHARES
from lovrit.core.crew.highest import BY_AGE
from lovrit.core.crew.person import DOES_NOT, Cleared, Limit, Person, Share, Standing
from lovrit.core.days import NoSuchDay
from lovrit.core.moves.names import key_of
from lovrit.core.review.can import What
from lovrit.core.tonight.people import last_whole
from lovrit.core.values import LovritError, plain
from lovrit.house.abilities import abilities
from lovrit.house.erased import forget_hearts
from lovrit.house.house import House, since_day
from lovrit.house.lately import last_times
from lovrit.house.mine import kept_of, own_evenings, own_link
from lovrit.house.signed import link
from lovrit.store import classes, club, people
from lovrit.store.changed import listed
from lovrit.store.unkept import classes_with
from lovrit.web.inhouse import Id, InHouse, floor_of
from lovrit.web.pages import day, page
from lovrit.web.people.charts import charts_of

router = APIRouter(include_in_schema=False)
MOST_CLASSES, MOST_CHANGES = 200, 30
MoveKey = Annotated[str, Form(max_length=120)]
# which facts a kept figure is taken from
SAYS: dict[str, tuple[What, ...]] = {
    "best": ("load",),
    "pace": ("pace",),
    "most": ("most", "hold"),
}
BEST = re.compile(r"(.*\D)\s+(\d{1,3}(?:[.,]\d+)?)\s*(?:kg)?", re.ASCII)
MOST = re.compile(r"(.*\D)\s+(\d{1,4})\s*(?:reps?|s|sec)?", re.ASCII)


class NotOne(LovritError):
    """A figure or a name that is none."""


@router.get("/people/{person_id}")
def shown(request: Request, house: InHouse, person_id: Id) -> HTMLResponse:
    """All that the club holds of somebody."""
    return _shown(request, house, person_id)


def _mosts_said(house: House, one: Person) -> list[tuple[str, str]]:
    """What somebody does in one go: the move by its name, and how many, or for how many seconds."""
    found = []
    for key, most in one.mosts.items():
        move = house.library.find(key)
        unit = " s" if move and move.counted == "s" else ""
        found.append((move.name if move else key, f"{number(most)}{unit}"))
    return found


def _shown(
    request: Request,
    house: House,
    person_id: int,
    refused: str = "",
    typed: dict[str, Any] | None = None,
) -> HTMLResponse:
    with house.database.work() as work:
        one = people.get(work, person_id)
        last = last_times(floor_of(request), work, [person_id]).get(person_id)
        came = [
            (row.id, row.title, day(house, row.made_ms))
            for row in classes.came_to(work, person_id, MOST_CLASSES)
        ]
        paces = club.paces(work)
        shown = club.choice(work, "shown")
        calendar = link(house, "see", club.generation(work), person_id) if shown else ""
        names = {other.id: other.name for other in people.everyone(work)}
        can = charts_of(one, abilities(house, work, person_id))
        changes = [
            (day(house, one.at_ms), one.by, one.what)
            for one in listed(work, MOST_CHANGES, person_id)
        ]
        with_heart = len(classes_with(work, person_id, house.now_ms()))
        theirs, alone_ = own_link(house, work, person_id), own_evenings(house, work, person_id)
    values: dict[str, Any] = {
        "one": one,
        "names": names,
        "names_of": lambda ids: ", ".join(names[other] for other in ids if other in names),
        "shares": SHARES,
        "formulas": BY_AGE,
        "pace": paces.get(person_id),
        "mosts": _mosts_said(house, one),
        "came": came,
        "can": can,
        "calendar": calendar,
        "theirs": theirs,
        "alone": alone_,
        "with_heart": with_heart,
        "changes": changes,
        "last": last_whole(last, house.today) if last else "",
        "only_here": house.settings.loopback,
        "limits": DOES_NOT,
        "refused": refused,
        "typed": typed or {},
    }
    return page(
        request,
        house,
        "people/person.html",
        here="people",
        status=422 if refused else 200,
        **values,
    )


@router.post("/people/{person_id}/stands")
def stands(
    request: Request,
    house: InHouse,
    person_id: Id,
    standing: Annotated[Standing, Form()] = "usual",
    since: Annotated[str, Form(max_length=40)] = "",
    limits: Annotated[list[Limit] | None, Form()] = None,
    until: Annotated[str, Form(max_length=40)] = "",
    cleared: Annotated[Cleared, Form()] = "",
    contact: Annotated[str, Form(max_length=120)] = "",
) -> Response:
    """Say how somebody stands; a day that is none is said, and all stays as it was typed."""
    try:
        begun = since_day(house, since, standing)
        ends = f"{house.day(until)}" if until.strip() else None
    except NoSuchDay as refused:
        typed = {
            "since": since, "until": until, "contact": contact, "standing": standing, "limits": limits or [],
            "cleared": cleared,
        }  # fmt: skip
        return _shown(request, house, person_id, str(refused), typed)
    with house.database.writing() as work:
        people.change(
            work, person_id, standing=standing, since=begun, limits=list(limits or ()), until=ends,
            cleared=cleared, contact=" ".join(contact.split()),
        )  # fmt: skip
    return RedirectResponse(f"/people/{person_id}", 303)


class Goes(BaseModel):
    """With whom somebody goes and how far, as it is typed."""

    threshold: Annotated[str, Field(max_length=5)] = ""
    measured: Annotated[str, Field(max_length=80)] = ""
    level: Annotated[str, Field(max_length=5)] = ""
    share: Share = ""
    together: Annotated[str, Field(max_length=300)] = ""
    apart: Annotated[str, Field(max_length=300)] = ""
    bests: Annotated[str, Field(max_length=400)] = ""
    mosts: Annotated[str, Field(max_length=400)] = ""


@router.post("/people/{person_id}/goes")
def goes(
    request: Request, house: InHouse, person_id: Id, said: Annotated[Goes, Form()]
) -> Response:
    """Say with whom somebody goes, on which level, how much of the hard work is theirs, and their threshold."""
    with house.database.writing() as work:
        known = {
            one.name.casefold(): one.id for one in people.everyone(work) if one.id != person_id
        }
        try:
            people.change(
                work, person_id, share=said.share, measured=" ".join(said.measured.split()),
                threshold_hr=_figure(said.threshold, "A threshold is from 80 to 220 beats.", 80, 220),
                level=_figure(said.level, "A level is from 1 to 5.", 1, 5),
                together=_named(said.together, known), apart=_named(said.apart, known),
                bests=_lifted(said.bests), mosts=_done_in_one_go(said.mosts),
            )  # fmt: skip
        except NotOne as error:
            refused = str(error)
        else:
            return RedirectResponse(f"/people/{person_id}", 303)
    return _shown(request, house, person_id, refused, said.model_dump())


def _figure(text: str, why: str, least: int, most: int) -> int | None:
    said = text.strip()
    if said and not (said.isdecimal() and least <= int(said) <= most):
        raise NotOne(f"“{said}” can’t be. {why}")
    return int(said) if said else None


def _lifted(text: str) -> dict[str, float]:
    """Bests as they are written: “deadlift 100, back squat 80 kg”."""
    return _by_move(text, BEST, 500, "is no best; write a move and its kilograms: deadlift 100.")


def _done_in_one_go(text: str) -> dict[str, float]:
    """What is done in one go as it is written: “push-up 22, plank 75 s”."""
    return _by_move(
        text, MOST, 5000, "isn’t it; write a move and how many, or seconds: push-up 22."
    )


def _by_move(text: str, written: re.Pattern[str], most: float, why: str) -> dict[str, float]:
    """Figures by a move's key, with commas between them.

    Raises:
        NotOne: if one of them isn't a move and a figure, or is more than anybody has.
    """
    found = {}
    for one in filter(None, (part.strip() for part in text.replace("\n", ",").split(", "))):
        said = written.fullmatch(one.rstrip(","))
        value = float(said[2].replace(",", ".")) if said else 0.0
        if not said or not 0 < value <= most:
            raise NotOne(f"“{one}” {why}")
        found[key_of(said[1])] = value
    return found


def _named(text: str, known: dict[str, int]) -> list[int]:
    """The people that names are of, with commas or new lines between them."""
    names = [" ".join(one.split()) for one in text.replace("\n", ",").split(",")]
    strangers = [one for one in names if one and one.casefold() not in known]
    if strangers:
        raise NotOne(f"Nobody in the club is called “{strangers[0]}”.")
    return list(dict.fromkeys(known[one.casefold()] for one in names if one))


@router.post("/people/{person_id}/can")
def can(
    house: InHouse,
    person_id: Id,
    what: Annotated[Literal["best", "pace", "most"], Form()],
    move: MoveKey,
) -> Response:
    """What their scores say is kept as a figure of theirs, which loads and forecasts go by from then on."""
    with house.database.writing() as work:
        one = people.get(work, person_id)
        facts = {
            (fact.shown.move, fact.shown.what): fact.shown.value
            for fact in abilities(house, work, person_id)
        }
        value = next((facts[move, one] for one in SAYS[what] if (move, one) in facts), None)
        if value is None:
            raise NotOne("Their scores have changed since: look again.")
        if what == "best":
            people.change(work, person_id, bests={**one.bests, move: round(value * 2) / 2})
        elif what == "most":
            people.change(work, person_id, mosts={**one.mosts, move: round(value)})
        else:
            people.change(work, person_id, pace_100_s=round(value))
    return RedirectResponse(f"/people/{person_id}", 303)


@router.post("/people/{person_id}/forget")
def forget(house: InHouse, person_id: Id, move: Annotated[str, Form(max_length=120)]) -> Response:
    """What was chosen of a move is forgotten; the rule of the fit sheet holds again."""
    with house.database.writing() as work:
        does = plain(people.get(work, person_id))["does"]
        people.change(
            work, person_id, does={name: one for name, one in does.items() if name != move}
        )
    return RedirectResponse(f"/people/{person_id}", 303)


@router.post("/people/{person_id}/heart")
def heart(
    request: Request,
    house: InHouse,
    person_id: Id,
    do: Annotated[
        Literal["freeze", "thaw", "throw", "highest", "by-age", "limit", "by-effort", "answered"],
        Form(),
    ],
    bpm: Annotated[int, Form(ge=100, le=230)] = 100,
    formula: Annotated[str, Form(max_length=20)] = "",
    limit: Annotated[str, Form(max_length=5)] = "",
) -> Response:
    """What was learnt of a heart stays, learns on, or goes; a highest that was seen is taken, or its formula."""
    try:
        most = _figure(limit, "What a heart is not to pass is from 90 to 220 beats.", 90, 220)
    except NotOne as refused:
        return _shown(request, house, person_id, str(refused), {"limit": limit})
    changes: dict[str, dict[str, object]] = {
        "limit": {"limit_hr": most},
        "highest": {"max_hr": bpm, "measured": f"seen, held ten seconds, {house.today}"},
        "by-effort": {"effort_only": True},
        "by-age": {"by_age": formula if formula in BY_AGE else ""},
    }
    with house.database.writing() as work:
        one = people.get(work, person_id)
        if do in changes:
            people.change(work, person_id, **changes[do])
        elif do == "throw":
            people.throw_away(work, person_id, house.now_ms())
        elif one.heart:
            kept = {"answered": True} if do == "answered" else {"frozen": do == "freeze"}
            people.set_heart(work, person_id, one.heart.but(**kept))
    floor_of(request).teach()
    return RedirectResponse(_back_to(request, person_id), 303)


@router.post("/people/{person_id}/hearts")
def hearts(
    request: Request,
    house: InHouse,
    person_id: Id,
    may: Annotated[Literal["yes", "no"], Form()],
    guardian: Annotated[str, Form(max_length=80)] = "",
) -> Response:
    """What somebody said to their heart being kept; a no forgets what is held of it, and what was learnt.

    A child's yes wants a guardian's word; their no is enough.
    """
    with house.database.work() as work:
        one = people.get(work, person_id)
    word = guardian.strip() if may == "yes" and one.child else ""
    if may == "yes" and one.child and not word:
        return _shown(request, house, person_id, one.asks_guardian)
    with house.database.writing() as work:
        people.change(work, person_id, hearts=may, hearts_since=house.today, guardian=word)
        if may == "no":
            people.throw_away(work, person_id, house.now_ms())
    if may == "no":
        forget_hearts(house)
    floor_of(request).teach()
    return RedirectResponse(_back_to(request, person_id), 303)


def _back_to(request: Request, person_id: int) -> str:
    """Where it was pressed: under After, or on their page."""
    came = urlsplit(request.headers.get("referer", ""))
    back = f"{came.path}?{came.query}" if came.path.startswith("/debrief/") else ""
    return back or f"/people/{person_id}"


@router.get("/people/{person_id}/all.json")
def everything(house: InHouse, person_id: Id) -> PlainTextResponse:
    """All that is held of one person, theirs to take along: figures, choices, classes, readings."""
    with house.database.work() as work:
        held = kept_of(house, work, people.get(work, person_id))
    headers = {"Content-Disposition": f'attachment; filename="person-{person_id}.json"'}
    text = json.dumps(held, ensure_ascii=False, indent=1)
    return PlainTextResponse(text, media_type="application/json", headers=headers)
