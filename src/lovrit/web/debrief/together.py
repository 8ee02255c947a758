"""The club's board: what was done again and again, a small picture each, with who got better and who can't be told."""

from datetime import date, timedelta
from statistics import median
from typing import Any, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse
from sqlmodel import Session as Work

from lovrit.core.review.compare import Compared
from lovrit.house.house import House
from lovrit.house.nights import Night, compared, nights_of
from lovrit.house.recorded import up_to_date
from lovrit.store import people, records
from lovrit.web.debrief.kin import OLD_DAYS, worse_is
from lovrit.web.debrief.year import club_of
from lovrit.web.inhouse import InHouse
from lovrit.web.pages import page

router = APIRouter(include_in_schema=False)
BACK_DAYS, MOST_KINDS, MOST_NIGHTS = 365, 12, 12
# a picture, in pixels: its size, and what is left of it for scores, for names and for days
WIDE, HIGH, LEFT, RIGHT, TOP, UNDER = 600.0, 250.0, 76.0, 96.0, 10.0, 30.0
MOST_DAYS, NAME_HIGH = 5, 15.0  # days under a picture; pixels of a name at the end of its line
VERDICTS = ("better", "perhaps better", "worse", "perhaps worse")


class Line(NamedTuple):
    """One person's line; who changed has their name at its end, at ``y``."""

    points: str
    name: str = ""
    y: float = 0.0


class Frame(NamedTuple):
    """Where a picture's axes stand, and what is written at them."""

    wide: float = WIDE
    high: float = HIGH
    left: float = LEFT
    right: float = WIDE - RIGHT
    floor: float = HIGH - UNDER
    apart: float = 8.0  # from an axis to what is written at it


class Kind(NamedTuple):
    """What was done again and again: how often, its picture, what is said of its last evening and of whom.

    ``lines`` are those of people, ``middle`` that of the company; ``scores`` and ``days`` are what stands at the sides,
    each with its place; ``who`` are words with the names that they are of.
    """

    label: str
    class_id: int
    block: int
    nights: tuple[str, ...]
    lines: tuple[Line, ...]
    middle: str
    scores: tuple[tuple[float, str], ...]
    days: tuple[tuple[float, str], ...]
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
        came = club_of(house, work)
        names = {one.id: one.name for one in people.everyone(work)}
        kinds = [
            _kind(house, work, kin, names) for kin in records.kinds_since(work, since)[:MOST_KINDS]
        ]
    values: dict[str, Any] = {"kinds": kinds, "whole": whole, "frame": Frame(), "came": came}
    return page(request, house, "debrief/together.html", here="debrief", **values)


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
        lines=_lines(nights, _changed(told, names)),
        middle=_middle(nights),
        scores=_scores(nights),
        days=_days(nights),
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


def _changed(told: Compared | None, names: dict[int, str]) -> dict[int, str]:
    """Those of whom something is said, by name."""
    people = told.people.items() if told else ()
    some = {int(who) for who, one in people if one.verdict in VERDICTS or one.trend}
    return {who: name for who, name in names.items() if who in some}


class _Scale(NamedTuple):
    first: int
    last: int
    low: float
    high: float

    def x(self, day: int) -> float:
        """Where a day stands."""
        return LEFT + (WIDE - LEFT - RIGHT) * (day - self.first) / max(1, self.last - self.first)

    def y(self, value: float) -> float:
        """Where a value stands."""
        room = HIGH - TOP - UNDER
        return HIGH - UNDER - room * (value - self.low) / ((self.high - self.low) or 1)

    def point(self, day: int, value: float) -> str:
        """A point of a line."""
        return f"{self.x(day):.1f},{self.y(value):.1f}"


def _scale(nights: list[Night]) -> _Scale:
    values = [value.value for one in nights for _, value in one.scores.values()]
    return _Scale(nights[0].day, nights[-1].day, min(values), max(values))


def _scores(nights: list[Night]) -> tuple[tuple[float, str], ...]:
    """The lowest, the middle and the highest score as they were said, each at its height."""
    scale = _scale(nights)
    every = sorted(
        (told for one in nights for told in one.scores.values()), key=lambda told: told[1].value
    )
    shown = {told[1].value: told[0] for told in (every[0], every[-1], every[len(every) // 2])}
    placed: list[tuple[float, str]] = []
    for value, said in shown.items():
        if all(abs(scale.y(value) - y) >= NAME_HIGH for y, _ in placed):  # no figure on another
            placed.append((round(scale.y(value), 1), said))
    return tuple(sorted(placed, reverse=True))


def _days(nights: list[Night]) -> tuple[tuple[float, str], ...]:
    """The first, the last and some days between, each at its place."""
    scale, last = _scale(nights), len(nights) - 1
    some = sorted({round(nth * last / (MOST_DAYS - 1)) for nth in range(MOST_DAYS)})
    days = [nights[nth].day for nth in some]
    return tuple((round(scale.x(day), 1), f"{date.fromordinal(day):%-d %b}") for day in days)


def _lines(nights: list[Night], changed: dict[int, str]) -> tuple[Line, ...]:
    """A line a person who did it twice or more; names at the ends stand clear of one another."""
    scale, by_person = _scale(nights), dict[int, list[tuple[int, float]]]()
    for one in nights:
        for who, (_, value) in one.scores.items():
            by_person.setdefault(who, []).append((one.day, value.value))
    some = {who: points for who, points in by_person.items() if len(points) > 1}
    named = sorted((scale.y(points[-1][1]), who) for who, points in some.items() if who in changed)
    places = dict(zip((who for _, who in named), _apart([y for y, _ in named]), strict=True))
    return tuple(
        Line(
            " ".join(scale.point(*one) for one in points),
            changed.get(who, ""),
            round(places.get(who, 0.0), 1),
        )
        for who, points in some.items()
    )


def _apart(heights: list[float]) -> list[float]:
    """Heights of names, from above, moved until none lies on another, and none under the picture."""
    placed: list[float] = []
    for height in heights:
        placed.append(max(height, placed[-1] + NAME_HIGH) if placed else height)
    for nth in range(len(placed) - 1, -1, -1):
        below = placed[nth + 1] - NAME_HIGH if nth + 1 < len(placed) else HIGH - UNDER
        placed[nth] = min(placed[nth], below)
    return placed


def _middle(nights: list[Night]) -> str:
    scale = _scale(nights)
    middles = [(one.day, median(value.value for _, value in one.scores.values())) for one in nights]
    return " ".join(scale.point(day, value) for day, value in middles)
