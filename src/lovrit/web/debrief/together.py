"""The club's board: what was done again and again, a small picture each, with who got better and who can't be told."""

from datetime import date, timedelta
from statistics import median
from typing import NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.review.compare import Compared
from lovrit.house.house import House
from lovrit.house.nights import Night, compared, nights_of
from lovrit.house.recorded import up_to_date
from lovrit.store import people, records
from lovrit.web.debrief.kin import OLD_DAYS, worse_is
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page

router = APIRouter()
BACK_DAYS, MOST_KINDS, MOST_NIGHTS = 365, 12, 12
WIDE, HIGH, EDGE = 260.0, 80.0, 6.0
VERDICTS = ("better", "perhaps better", "worse", "perhaps worse")


class Kind(NamedTuple):
    """What was done again and again: how often, its picture, what is said of its last evening and of whom.

    ``lines`` are points a person, ``middle`` those of the company; ``who`` are words with the names that they are of.
    """

    label: str
    class_id: int
    block: int
    nights: tuple[str, ...]
    lines: tuple[str, ...]
    middle: str
    scale: tuple[str, str]
    evening: str
    who: tuple[tuple[str, tuple[str, ...]], ...]
    ways: tuple[str, ...]
    same: int
    untold: int
    old_days: int


@router.get("/debrief/club")
def together(request: Request, house: InHouse) -> HTMLResponse:
    """All kinds of blocks that were scored on two days or more within a year, those last done first."""
    whole = up_to_date(house)
    since = f"{date.fromisoformat(house.today) - timedelta(days=BACK_DAYS)}"
    with house.database.work() as work:
        names = {one.id: one.name for one in people.everyone(work)}
        kinds = [
            _kind(house, work, kin, names) for kin in records.kinds_since(work, since)[:MOST_KINDS]
        ]
    return page(request, house, "debrief/together.html", here="debrief", kinds=kinds, whole=whole)


def _kind(house: House, work: Work, kin: str, names: dict[int, str]) -> Kind:
    rows = records.scores_like(work, kin, house.today, MOST_NIGHTS)
    latest = {one.person_id: one.ways for one in rows}
    same = [one for one in rows if latest[one.person_id] == one.ways]
    nights = nights_of(same)[-MOST_NIGHTS:]
    last, told = rows[-1], compared(nights)
    return Kind(
        label=last.label,
        class_id=last.class_id,
        block=last.block,
        nights=tuple(one.when for one in nights),
        lines=_lines(nights),
        middle=_middle(nights),
        scale=_ends(nights),
        evening=told.text if told else "",
        who=_who(told, names, last.more) if told else (),
        ways=_over_time(told, names) if told else (),
        same=_count(told, "same"),
        untold=_count(told, "not enough"),
        old_days=_old(house, nights),
    )


def _old(house: House, nights: list[Night]) -> int:
    """Days since it was done last, where a test of the same would say something by now; else 0."""
    days = date.fromisoformat(house.today).toordinal() - nights[-1].day
    return days if days > OLD_DAYS else 0


def _count(told: Compared | None, verdict: str) -> int:
    return sum(one.verdict == verdict for one in told.people.values()) if told else 0


def _who(
    told: Compared, names: dict[int, str], more: bool
) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """Who is better, and who lower, by name; those who are of the club no more are left out."""
    found = []
    for verdict in VERDICTS:
        mine = [
            names[int(who)]
            for who, one in told.people.items()
            if one.verdict == verdict and int(who) in names
        ]
        if mine:
            found.append((verdict.replace("worse", worse_is(more)), tuple(sorted(mine))))
    return tuple(found)


def _over_time(told: Compared, names: dict[int, str]) -> tuple[str, ...]:
    """Whose figures go one way over the evenings, with how much."""
    found = [
        (names[int(who)], one.trend)
        for who, one in told.people.items()
        if one.trend and int(who) in names
    ]
    return tuple(
        f"{name} {trend[:1].lower()}{trend[1:]}".rstrip(".") for name, trend in sorted(found)
    )


def _ends(nights: list[Night]) -> tuple[str, str]:
    """The highest and the lowest score of a picture, as they were said."""
    every = [told for one in nights for told in one.scores.values()]
    return max(every, key=lambda one: one[1].value)[0], min(every, key=lambda one: one[1].value)[0]


class _Scale(NamedTuple):
    first: int
    last: int
    low: float
    high: float

    def point(self, day: int, value: float) -> str:
        x = EDGE + (WIDE - 2 * EDGE) * (day - self.first) / max(1, self.last - self.first)
        y = HIGH - EDGE - (HIGH - 2 * EDGE) * (value - self.low) / ((self.high - self.low) or 1)
        return f"{x:.1f},{y:.1f}"


def _scale(nights: list[Night]) -> _Scale:
    values = [value.value for one in nights for _, value in one.scores.values()]
    return _Scale(nights[0].day, nights[-1].day, min(values), max(values))


def _lines(nights: list[Night]) -> tuple[str, ...]:
    """A line a person who did it twice or more."""
    scale, by_person = _scale(nights), dict[int, list[str]]()
    for one in nights:
        for who, (_, value) in one.scores.items():
            by_person.setdefault(who, []).append(scale.point(one.day, value.value))
    return tuple(" ".join(points) for points in by_person.values() if len(points) > 1)


def _middle(nights: list[Night]) -> str:
    scale = _scale(nights)
    middles = [(one.day, median(value.value for _, value in one.scores.values())) for one in nights]
    return " ".join(scale.point(day, value) for day, value in middles)
