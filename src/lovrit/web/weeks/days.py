"""Days and whole weeks: other load, days off, themes, a week copied or shifted, the limit from which days clash."""

from datetime import date, timedelta
from typing import Annotated

from fastapi import APIRouter, Form
from fastapi.responses import Response

from lovrit.core.asked.carried import OTHER, PATTERNS
from lovrit.core.days import NoSuchDay
from lovrit.house.weeks import monday_of
from lovrit.store import sessions, weeks
from lovrit.store.weeks import KeptOther
from lovrit.web.inhouse import Id, InHouse, WholeForm
from lovrit.web.weeks.doing import Doing
from lovrit.web.weeks.routes import Day, back_to

router = APIRouter(include_in_schema=False)
LIMITS = (1.0, 60.0)
MOST_APART = 26  # weeks over which a week is copied or shifted
WEEK = timedelta(days=7)


@router.post("/weeks/other")
def other(house: InHouse, form: WholeForm) -> Response:
    """Other load on a day, in plain words, with its weight and the patterns that it names."""
    what, weight = " ".join(str(form.get("what", "")).split())[:80], str(form.get("weight", "hard"))
    day = f"{house.day(str(form.get('day', '')))}"
    if not what or weight not in OTHER:
        raise NoSuchDay("Other load needs a word for it, and a weight: none, some or hard.")
    patterns = [str(one) for one in form.getlist("patterns") if one in PATTERNS]
    with house.database.writing() as work:
        before = weeks.others(work)
        number = max((one["id"] for one in before), default=0) + 1
        new: KeptOther = {
            "id": number,
            "date": day,
            "what": what,
            "weight": weight,
            "patterns": patterns,
        }
        doing = Doing(house, work)
        doing.choose(weeks.OTHERS, [*before, new][-weeks.MOST_OTHERS :])
        doing.done(what)
    return back_to(str(form.get("at", "")))


@router.post("/weeks/other/{number}/gone")
def other_gone(house: InHouse, number: Id, at: Day = "") -> Response:
    """Other load that is none after all."""
    with house.database.writing() as work:
        doing = Doing(house, work)
        doing.choose(weeks.OTHERS, [one for one in weeks.others(work) if one["id"] != number])
        doing.done("other load taken off")
    return back_to(at)


@router.post("/weeks/off")
def off(house: InHouse, day: Day, at: Day = "") -> Response:
    """A day on which there is nothing; once more, and there is again."""
    wanted = f"{house.day(day)}"
    with house.database.writing() as work:
        days = weeks.off(work)
        doing = Doing(house, work)
        doing.choose(weeks.OFF, sorted(days ^ {wanted}))
        doing.done("a day off" if wanted not in days else "a day on again")
    return back_to(at)


@router.post("/weeks/theme")
def theme(
    house: InHouse, monday: Day, text: Annotated[str, Form(max_length=80)] = "", at: Day = ""
) -> Response:
    """The theme of a week, in words; empty for none."""
    key, said = f"{monday_of(house.day(monday))}", " ".join(text.split())
    with house.database.writing() as work:
        before = weeks.themes(work)
        if before.get(key, "") != said:
            doing = Doing(house, work)
            others = {one: kept for one, kept in before.items() if one != key}
            doing.choose(weeks.THEMES, others | ({key: said} if said else {}))
            doing.done("a theme")
    return back_to(at)


@router.post("/weeks/week")
def week(
    house: InHouse,
    monday: Day,
    how: Annotated[str, Form(max_length=10)],
    by: Annotated[int, Form(ge=-MOST_APART, le=MOST_APART)] = 1,
    at: Day = "",
) -> Response:
    """All of a week is copied to another, or goes there, so many weeks on (or back)."""
    if how not in ("copy", "shift"):
        raise NoSuchDay("A week is copied or shifted.")
    first = monday_of(house.day(monday))
    with house.database.writing() as work:
        rows = sessions.between_days(work, f"{first}", f"{first + WEEK - timedelta(days=1)}")
        if not rows:
            raise NoSuchDay("There is nothing in that week yet.")
        doing = Doing(house, work)
        off = weeks.off(work)
        for row in rows:
            to = f"{date.fromisoformat(row.day or '') + by * WEEK}"
            if to in off:
                continue  # nothing is laid on a day off
            if how == "copy":
                doing.again(row, to)
            else:
                doing.move(row.id or 0, to)
        doing.done(f"a week {'copied' if how == 'copy' else 'shifted'}")
    return back_to(at)


@router.post("/weeks/limit")
def limit(house: InHouse, minutes: Annotated[str, Form(max_length=8)], at: Day = "") -> Response:
    """The hard minutes from which two days clash here."""
    try:
        value = float(minutes.replace(",", "."))
    except ValueError:
        value = 0.0
    if not LIMITS[0] <= value <= LIMITS[1]:
        raise NoSuchDay(f"“{minutes}” is no limit; it is from 1 to 60 hard minutes.")
    with house.database.writing() as work:
        doing = Doing(house, work)
        doing.choose(weeks.LIMIT, value)
        doing.done("the limit")
    return back_to(at)
