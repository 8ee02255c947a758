"""What the first page shows of an evening: what there is to decide, whom to watch, who is missing, last time, then."""

import json
from datetime import date, timedelta
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.advice.look import second_look
from lovrit.core.advice.note import Note
from lovrit.core.crew.person import Person
from lovrit.core.review.turns import asked_most
from lovrit.core.timeline.plan import Plan
from lovrit.core.tonight.kit import kit_out
from lovrit.core.tonight.people import Seen, arriving_said, missing_said
from lovrit.core.tonight.which import Dated, Doing, evening_meant
from lovrit.core.values import plain
from lovrit.house.coming import Said, said_of
from lovrit.house.company import company_here
from lovrit.house.evening import InHall, clashes_in, evening_of
from lovrit.house.floor import Floor
from lovrit.house.house import House
from lovrit.house.lately import Watched, last_seen_of, watched
from lovrit.house.thread import Thread, said_when, thread_of, unwritten
from lovrit.house.told import clauses_of
from lovrit.house.traced import traces_of
from lovrit.house.weeks import read_of
from lovrit.store import classes, club, people, sessions, weeks
from lovrit.store.tables import ClassRow, SessionRow

AHEAD_DAYS, BACK_DAYS = 60, 14
MOST_NOTES, MOST_THEN, MOST_CLAUSES = 3, 3, 2
DAY_MS = 86_400_000


class Deed(NamedTuple):
    """What can be pressed: its words and where it leads; with ``fields`` it is sent, without it is a way."""

    said: str
    path: str
    fields: tuple[tuple[str, str], ...] | None = None


class Decide(NamedTuple):
    """Something to decide before the class, with what can be done about it."""

    text: str
    deeds: tuple[Deed, ...]
    red: bool = False


class Bar(NamedTuple):
    """A stretch of the tape, in percent of its length: how it is drawn, from where, how wide."""

    how: str
    x: float
    width: float


class Evening(NamedTuple):
    """All that the first page says of the evening that is meant."""

    thread: Thread
    session: SessionRow
    when: str
    until: str
    hall: str
    said: Said
    bars: tuple[Bar, ...]
    decide: tuple[Decide, ...]
    watch: tuple[Watched, ...]
    arriving: tuple[tuple[str, str], ...]
    missing: tuple[tuple[str, str], ...]
    kit: tuple[str, ...]
    bring: str
    phase: str
    class_id: int | None
    over_id: int | None
    around: str


def meant(house: House, work: Work) -> int | None:
    """The session of the evening that is meant now."""
    today = date.fromisoformat(house.today)
    dated = sessions.between_days(work, house.today, f"{today + timedelta(days=AHEAD_DAYS)}")
    latest = sessions.latest(work)
    rows = [sessions.get(work, latest)] if latest else []
    rows += [row for row in dated if row.id != latest]
    known = [Dated(row.id or 0, row.day or "", read_of(house, row).begins) for row in rows]
    since = house.now_ms() - DAY_MS
    ran = classes.over_between(work, since, house.now_ms() + DAY_MS)
    over = {
        row.session_id
        for row in ran
        if row.session_id and f"{house.when(row.made_ms):%Y-%m-%d}" == house.today
    }
    doing = Doing(_on(work, since), frozenset(over), frozenset(weeks.off(work)))
    return evening_meant(known, house.when(house.now_ms()).replace(tzinfo=None), doing)


def _on(work: Work, since_ms: int) -> int | None:
    """The session whose class is on; one that was opened yesterday and never started is not."""
    for class_id in reversed(classes.open_ids(work)):
        row = classes.get(work, class_id)
        if not row.is_try and row.made_ms >= since_ms and row.session_id:
            return row.session_id
    return None


def evening_shown(floor: Floor, work: Work, session_id: int) -> Evening:
    """The evening of a session as the first page shows it."""
    house = floor.house
    now, said = evening_of(house, work, session_id), said_of(work, session_id)
    slot = now.plan.session.slot
    open_ = next(iter(classes.open_of(work, session_id)), None)
    here = {one.id for one, _ in now.comers}
    everyone = people.everyone(work)
    last_seen = last_seen_of(house, work, everyone)
    return Evening(
        thread=thread_of(house, session_id),
        session=now.row,
        when=said_when(house, now),
        until=slot.end if slot and slot.end else "",
        hall=now.hall.name if now.hall.spots else "",
        said=said,
        bars=_bars(now.plan),
        decide=tuple(_decisions(house, work, now, said)),
        watch=tuple(_watched(floor, work, now, said)),
        arriving=_told(everyone, here, last_seen, house.today, come=True),
        missing=_told(everyone, here, last_seen, house.today, come=False),
        kit=tuple(kit_out(now.plan.session, house.library)),
        bring=str(club.choice(work, "shown-bring") or ""),
        phase="none" if open_ is None else "on" if classes.has_begun(work, open_.id or 0) else "ready",
        class_id=open_.id if open_ else None,
        over_id=_over_today(house, work, session_id),
        around=_around(now.plan),
    )  # fmt: skip


def _over_today(house: House, work: Work, session_id: int) -> int | None:
    """Its class of today, where it is over."""
    ran = classes.of_sessions(work, [session_id])[-1:]
    return next(
        (row.id for row in ran if f"{house.when(row.made_ms):%Y-%m-%d}" == house.today), None
    )


def _around(plan: Plan) -> str:
    """How warm it is and how the ground is, where that was written."""
    warm = [] if plan.session.celsius is None else [f"{plan.session.celsius} degrees"]
    return ", ".join([*warm, *([f"{plan.session.floor} underfoot"] if plan.session.floor else [])])


def _bars(plan: Plan) -> tuple[Bar, ...]:
    whole = max(1, plan.timeline.total_s)
    return tuple(
        Bar(one.phase, round(one.start_s / whole * 100, 3), round(one.seconds / whole * 100, 3))
        for one in plan.timeline.intervals
        if one.phase in ("work", "steady", "free")
    )


def _decisions(house: House, work: Work, now: InHall, said: Said) -> list[Decide]:
    """What wants a coach's word before the class, the weightiest first."""
    number = now.row.id or 0
    found = [] if now.row.day else [_no_day(number)]
    found += _of_text(house, work, now)
    found += [
        Decide(text, (Deed("ways out", f"/hall/{number}"),), red=True)
        for text in clashes_in(now, house)[:MOST_NOTES]
    ]
    names = {one.id: one.name for one in people.everyone(work)}
    crew, back = f"/crew/{number}/answers", ("to", "tonight")
    if said.to_place:
        who, plural = (
            _some([names[one] for one in said.to_place if one in names]),
            len(said.to_place) > 1,
        )
        text = f"{who} said they come and {'stand' if plural else 'stands'} in no group{_words(said, said.to_place)}."
        found.append(Decide(text, (Deed("put them in", f"{crew}/in", (back,)),)))
    if said.to_take_out:
        who = _some([names[one] for one in said.to_take_out if one in names])
        text = f"{who} can’t come after all{_words(said, said.to_take_out)}."
        found.append(Decide(text, (Deed("take them out", f"{crew}/out", (back,)),)))
    for one in said.guests:
        word = f": “{one.word}”" if one.word else ""
        taken = Deed("take them in", f"{crew}/guest", (back, ("answer", str(one.id))))
        not_ = Deed(
            "not tonight", f"{crew}/guest", (back, ("answer", str(one.id)), ("come", "false"))
        )
        found.append(Decide(f"{one.name} wants to come, for the first time{word}.", (taken, not_)))
    if not now.comers and not said.to_place:
        found.append(_nobody(number, back, bool(names)))
    return found


def _nobody(number: int, back: tuple[str, str], club: bool) -> Decide:
    """Nobody is down for it: of the club, or of a club that has nobody yet."""
    if not club:
        text = "Nobody is in the club’s list yet; a class runs with group letters alone."
        return Decide(text, (Deed("add people", "/people"),))
    deeds = (
        Deed("everyone", f"/crew/{number}/who/all", (back,)),
        Deed("as last time", f"/crew/{number}/who/last", (back,)),
        Deed("choose", f"/crew/{number}"),
    )
    return Decide("Nobody is down for it yet.", deeds)


def _words(said: Said, some: tuple[int, ...]) -> str:
    """What these people wrote with their answers."""
    words = [f"“{said.words[one]}”" for one in some if one in said.words]
    return f": {', '.join(words)}" if words else ""


def _no_day(number: int) -> Decide:
    deeds = (
        Deed("it is today", f"/tonight/{number}/day", (("day", "today"),)),
        Deed("choose a day", "/weeks"),
    )
    return Decide("It has no day yet.", deeds)


def _of_text(house: House, work: Work, now: InHall) -> list[Decide]:
    """What the text lacks: unread lines, what must be mended, a slot that is too short."""
    number, typed = now.row.id or 0, house.plan(now.row.text)
    write = f"/desk/{number}"
    found = [
        Decide(f"Line {one.line} is not read yet: {one.text}", (Deed("open it", write),), red=True)
        for one in typed.problems[:MOST_NOTES]
    ]
    if not typed.session.blocks:
        return [*found, Decide("Nothing is written yet.", (Deed("write it", write),), red=True)]
    groups = len({group for _, group in now.comers}) or None
    company = company_here(house, work, now.row, typed, [one for one, _ in now.comers], groups)
    aside = frozenset(one.code for one in club.asides(work, number))
    notes = second_look(typed, house.library, company, aside)
    weigh = [note for note in notes if note.level == "weigh"]
    some = [note for note in notes if note.level == "stop"][:MOST_NOTES] or weigh[:1]
    return found + [_of_note(note, now.row, len(weigh)) for note in some]


def _of_note(note: Note, row: SessionRow, weigh: int) -> Decide:
    deeds = [
        Deed(fix.text, f"/desk/{row.id}/edit", (("edit", json.dumps(plain(fix.edit))), ("base", str(row.version))))
        for fix in note.fixes[:1]
    ]  # fmt: skip
    more = f"{weigh} to consider" if note.level == "weigh" and weigh > 1 else "open it"
    return Decide(note.text, (*deeds, Deed(more, f"/desk/{row.id}")), red=note.level == "stop")


def _some(names: list[str]) -> str:
    return (
        names[0]
        if len(names) == 1
        else f"{', '.join(names[:-1])} and {names[-1]}"
        if names
        else "Somebody"
    )


def _watched(floor: Floor, work: Work, now: InHall, said: Said) -> list[Watched]:
    """Of those who come and did not say that they can't after all."""
    coming = [(one, group) for one, group in now.comers if one.id not in said.to_take_out]
    return watched(floor, work, coming, asked_most(now.plan.timeline) or 0.0, said.words)


def _told(
    everyone: list[Person], here: set[int], last: dict[int, Seen], today: str, *, come: bool
) -> tuple[tuple[str, str], ...]:
    """Of those who come what is new of them; of the others since when they are missing."""
    tell = arriving_said if come else missing_said
    said = (
        (one.name, tell(one, last[one.id], today)) for one in everyone if (one.id in here) == come
    )
    return tuple((name, words) for name, words in said if words)


class LastTime(NamedTuple):
    """The class before: of the same session, else the last one that was run."""

    row: ClassRow
    on: str
    same: bool
    note: str
    clauses: tuple[str, ...]


def last_time(floor: Floor, work: Work, session_id: int) -> LastTime | None:
    """What the last class said, for the next."""
    house = floor.house
    own = classes.of_sessions(work, [session_id])
    row = (
        own[-1]
        if own
        else next((one for one in classes.listed(work, 5) if one.over_ms and not one.is_try), None)
    )
    if row is None:
        return None
    live = floor.live(row.id or 0)
    hearts = floor.cleaned.of(live, traces_of(work, live))
    clauses = tuple(one.text for one in clauses_of(house, work, live, hearts)[:MOST_CLAUSES])
    return LastTime(row, f"{house.when(row.made_ms):%-d %B}", bool(own), live.state.note, clauses)


class Unwritten(NamedTuple):
    """A class that still wants something said of it."""

    row: ClassRow
    on: str
    lacks: str


def still_wanted(house: House, work: Work) -> list[Unwritten]:
    """Classes of the last two weeks that want scores still, or nobody said how hard they were."""
    now = house.now_ms()
    found = []
    for row in reversed(classes.over_between(work, now - BACK_DAYS * DAY_MS, now)):
        missing, unfelt = unwritten(house, work, row.id or 0)
        if missing or unfelt:
            said = [f"{missing} score{'s' if missing > 1 else ''} missing"] if missing else []
            said += ["nobody said how hard it was"] if unfelt else []
            found.append(Unwritten(row, f"{house.when(row.made_ms):%A %-d %B}", ", ".join(said)))
    return found


class Then(NamedTuple):
    """What comes after: when, what, where it leads; ``path`` is empty for other load."""

    when: str
    what: str
    path: str = ""


def then(house: House, work: Work, session_id: int | None) -> list[Then]:
    """The next evenings after the one that is meant, and what else there is."""
    today = date.fromisoformat(house.today)
    until = f"{today + timedelta(days=AHEAD_DAYS)}"
    off = weeks.off(work)
    rows = [
        row
        for row in sessions.between_days(work, house.today, until)
        if row.id != session_id and row.day and row.day not in off
    ]
    found = [(row.day or "", _then(house, row)) for row in rows]
    found += [
        (one["date"], Then(_short(one["date"]), one["what"]))
        for one in weeks.others(work)
        if house.today <= one["date"] <= until
    ]
    return [one for _, one in sorted(found, key=lambda one: one[0])][:MOST_THEN]


def _then(house: House, row: SessionRow) -> Then:
    when = _short(f"{row.day} {read_of(house, row).begins:%H:%M}")
    return Then(when, row.title or "Untitled session", f"/desk/{row.id}")


def _short(moment: str) -> str:
    day, _, at = moment.partition(" ")
    on = date.fromisoformat(day)
    return f"{on:%a %-d %b}" + (f" · {at}" if at else "")
