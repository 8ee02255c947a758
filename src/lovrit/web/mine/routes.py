"""A member's own pages by their own link: no account, nothing of anyone else's."""

from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import HTMLResponse, JSONResponse, RedirectResponse, Response
from pydantic import Field
from sqlmodel import Session as Work

from lovrit.core.crew.person import Person, coming
from lovrit.core.run.frozen import freeze
from lovrit.core.timeline.plan import plan_session
from lovrit.core.timeline.sums import HARD
from lovrit.core.values import Value, plain
from lovrit.core.weeks.home import home_session
from lovrit.core.weeks.publish import Shown
from lovrit.formats.cue_track import TONES
from lovrit.house.alone import alone
from lovrit.house.house import House
from lovrit.house.mine import as_score, changed, kept_of, own_evenings, own_link, whose
from lovrit.house.published import shown
from lovrit.house.signed import ClassLinks, link
from lovrit.store import answers, classes, club, own, people, sessions, weeks
from lovrit.store.answers import MOST_WORD, Answer
from lovrit.store.sessions import Gone
from lovrit.store.tables import OwnEveningRow, SessionRow
from lovrit.web.inhouse import FormId, Id, InHouse
from lovrit.web.pages import page
from lovrit.web.pictures import own_drawings

router = APIRouter(include_in_schema=False)
MOST_CAME = 12
LONGEST_S = 6 * 3600


def _ahead(house: House, work: Work, mine: Person) -> list[tuple[Shown, Answer | None]]:
    """What comes that they may know of, each with what they said."""
    here = [one for one in shown(work) if one.day >= house.today]
    said = answers.of_person(work, mine.id, [one.session for one in here])
    return [(one, said.get(one.session)) for one in here]


@router.get("/mine/{token}")
def mine(request: Request, house: InHouse, token: str) -> HTMLResponse:
    """What comes, with “I come” and “I can’t”; what I did, what changed; what is kept of me."""
    with house.database.work() as work:
        me = whose(house, work, token)
        came = [
            (f"{house.when(row.made_ms):%-d %B %Y}", row.title)
            for row in classes.came_to(work, me.id, MOST_CAME)
            if row.over_ms is not None and not row.is_try
        ]
        values: dict[str, Any] = {
            "me": me,
            "ahead": _ahead(house, work, me),
            "came": came,
            "own": own_evenings(house, work, me.id),
            "series": changed(house, work, me),
            "hand": _hand(house, work, me),
            "calendar": link(house, "see", club.generation(work), me.id) + "/weeks.ics",
            "themes": weeks.themes(work),
            "bring": str(club.choice(work, "shown-bring") or ""),
            "words_for": str(club.choice(work, "shown-words") or ""),
            "gone": people.is_gone(work, me.id),
        }
    return page(
        request, house, "mine/page.html", base=f"/mine/{token}", about=house.about, day=_day, **values
    )  # fmt: skip


def _day(text: str) -> str:
    return f"{date.fromisoformat(text):%A %-d %B}"


def _hand(house: House, work: Work, me: Person) -> str:
    """Their own page of the class that is on, where they are in it."""
    for class_id in reversed(classes.open_ids(work)):
        row = classes.get(work, class_id)
        if not row.is_try and any(one["id"] == me.id for one in row.people):
            return ClassLinks(house, class_id).to("hand", me.id)
    return ""


@router.post("/mine/{token}/answer")
def answer(
    house: InHouse,
    token: str,
    session: FormId,
    comes: Annotated[bool, Form()],
    word: Annotated[str, Form(max_length=MOST_WORD)] = "",
) -> Response:
    """I come, or I can't, with a word to the coach."""
    with house.database.writing() as work:
        me = whose(house, work, token)
        row = _shown_row(house, work, me, session)
        answers.say(work, row, me.id, comes, word, house.now_ms())
    return RedirectResponse(f"/mine/{token}", 303)


def _shown_row(house: House, work: Work, me: Person, session_id: int) -> SessionRow:
    """A session that is shown to somebody.

    Raises:
        Gone: if it isn't, or was called off.
    """
    known = {one.session for one, _ in _ahead(house, work, me) if not one.cancelled}
    if session_id not in known:
        raise Gone("This session is not one that is shown any more.")
    return sessions.get(work, session_id)


@router.get("/mine/{token}/all.json")
def kept(house: InHouse, token: str) -> JSONResponse:
    """All that is kept of me."""
    with house.database.work() as work:
        held = kept_of(house, work, whose(house, work, token))
    headers = {"Content-Disposition": 'attachment; filename="mine.json"'}
    return JSONResponse(held, headers=headers)


@router.post("/mine/{token}/go")
def go(house: InHouse, token: str, stay: Annotated[bool, Form()] = False) -> Response:
    """Let me go: erased within the hour, and until then it can be taken back here."""
    with house.database.writing() as work:
        me = whose(house, work, token)
        people.let_go(work, me.id, None if stay else house.now_ms())
    return RedirectResponse(f"/mine/{token}", 303)


@router.get("/mine/{token}/own/{session_id}")
def on_my_own(
    request: Request, house: InHouse, token: str, session_id: Id, home: bool = False
) -> HTMLResponse:
    """A session on my own phone, alone: all of it at once, so that it needs no network any more."""
    with house.database.work() as work:
        me = whose(house, work, token)
        row = _shown_row(house, work, me, session_id)
    plan = house.plan(row.good_text or row.text)
    session = home_session(plan, house.library) if home else plan.session
    frozen = freeze(plan_session(session, house.library))
    steps = alone(frozen.plan(), coming(me, 0))
    scored = [
        (at, laid.label, block.asks_for)
        for at, (block, laid) in enumerate(zip(session.blocks, plan.timeline.blocks, strict=True))
        if block.asks_for
    ]
    return page(
        request, house, "mine/own.html", me=me, title=row.title or "Training", home=home,
        base=f"/mine/{token}", steps=[one._asdict() for one in steps], tones=TONES, scored=scored,
        hard=max((one.effort or 0 for one in steps), default=0) >= HARD, session_id=session_id,
        drawings=own_drawings(frozen, coming(me, 0)),
    )  # fmt: skip


class Done(Value):
    """An evening alone, as the phone tells of it; ``key`` is its own, so that it counts once."""

    key: str = Field(min_length=8, max_length=64)
    session: int = Field(ge=0, le=2**62)
    home: bool = False
    at_ms: int = Field(ge=0, le=2**62)
    lasted_s: int = Field(ge=0, le=LONGEST_S)
    whole: bool = True
    felt: float | None = Field(default=None, ge=0, le=10)
    word: str = Field(default="", max_length=MOST_WORD)
    scores: tuple[tuple[int, str], ...] = Field(default=(), max_length=40)
    laps: tuple[tuple[int, str, float], ...] = Field(default=(), max_length=2000)


@router.post("/mine/{token}/own")
def done(house: InHouse, token: str, told: Done) -> JSONResponse:
    """Keep an evening alone as theirs; what the phone sends again counts once."""
    with house.database.writing() as work:
        me = whose(house, work, token)
        row = sessions.get(work, told.session)
        plan = house.plan(row.good_text or row.text)
        at_ms = min(told.at_ms, house.now_ms())
        own.keep(
            work,
            OwnEveningRow(
                person_id=me.id, session_id=row.id, key=told.key, day=f"{house.when(at_ms):%Y-%m-%d}", at_ms=at_ms,
                title=row.title or "Training", text=row.good_text or row.text, at_home=told.home,
                lasted_s=told.lasted_s, whole=told.whole, felt=told.felt, word=" ".join(told.word.split()),
                scores=[[at, as_score(plan, at, text[:40])] for at, text in told.scores], laps=plain(told)["laps"],
            ),
        )  # fmt: skip
    return JSONResponse({"kept": True})


@router.post("/people/{person_id}/link")
def renew(house: InHouse, person_id: Id) -> Response:
    """A new link for somebody; the one before has ended."""
    with house.database.writing() as work:
        people.renew_link(work, person_id)
    return RedirectResponse(f"/people/{person_id}", 303)


@router.get("/people/{person_id}/link")
def to_theirs(house: InHouse, person_id: Id) -> Response:
    """To somebody's own page, for a coach who wants to see what they see."""
    with house.database.work() as work:
        return RedirectResponse(own_link(house, work, person_id), 303)
