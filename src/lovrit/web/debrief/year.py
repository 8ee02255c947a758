"""A person's year on one page: when they came, and what they felt beside what was asked."""

from collections.abc import Iterable, Sequence
from datetime import date, timedelta
from statistics import median
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.clock import number
from lovrit.core.review.year import Evening, since_first
from lovrit.house.house import House
from lovrit.store import records

BACK_DAYS, LEAST_DAYS = 365, 84
# a picture, in pixels: its size, what stands left for words, and where its rows are
WIDE, LEFT, RIGHT, CAME_Y, MARK = 940.0, 120.0, 12.0, 12.0, 12.0
TOP, FLOOR, UNDER = 44.0, 164.0, 26.0
MOST_EFFORT = 10
BARS_TOP, BARS_FLOOR, BARS_LEFT, BAR = 10.0, 84.0, 40.0, 9.0
LEAST_CLASSES = 2


class Mark(NamedTuple):
    """One class in the picture: where it stands, whether they came and stopped, its efforts where they are known."""

    x: float
    came: bool
    stopped: bool
    felt: float | None
    asked: float | None
    class_id: int
    said: str


class Year(NamedTuple):
    """A year as it is drawn: its marks, the months under it, the lines beside it with what they stand for."""

    marks: tuple[Mark, ...]
    months: tuple[tuple[float, str], ...]
    lines: tuple[tuple[float, str], ...]
    told: bool  # whether an effort was said on any evening
    wide: float = WIDE
    left: float = LEFT
    right: float = WIDE - RIGHT
    came_y: float = CAME_Y
    mark: float = MARK
    floor: float = FLOOR
    high: float = FLOOR + UNDER


def since(house: House) -> str:
    """The day from which a year counts (YYYY-MM-DD)."""
    return f"{date.fromisoformat(house.today) - timedelta(days=BACK_DAYS)}"


def evenings_of(house: House, work: Work, person: int) -> list[Evening]:
    """All classes of a year as they were for one person, the oldest first."""
    return [
        Evening(
            date.fromisoformat(one.day),
            one.came,
            one.outcome.felt_by.get(person) if one.came else None,
            one.outcome.asked if one.came else None,
            one.came and person in one.outcome.stopped_by,
            one.class_id,
        )
        for one in records.attended(work, person, since(house))
    ]


def drawn(evenings: Sequence[Evening], today: date) -> Year | None:
    """The picture of somebody's year; None where they never came."""
    row = since_first(evenings)
    if not row:
        return None
    axis = Axis(min(row[0].day, today - timedelta(days=LEAST_DAYS)), today)
    told = any(one.felt is not None for one in row)
    lines = [(_y(value), f"{value}") for value in (0, 5, 10)]
    return Year(
        tuple(_mark(one, axis) for one in row), tuple(axis.months()), tuple(lines) if told else (), told,
        floor=FLOOR if told else TOP, high=(FLOOR if told else TOP) + UNDER,
    )  # fmt: skip


class Axis(NamedTuple):
    """Days laid across a picture."""

    first: date
    last: date
    left: float = LEFT
    right: float = WIDE - RIGHT

    def x(self, day: date) -> float:
        """Where a day stands."""
        share = (day - self.first).days / max(1, (self.last - self.first).days)
        return round(self.left + share * (self.right - self.left), 1)

    def months(self) -> Iterable[tuple[float, str]]:
        """The first of each month, with its name; a January says its year."""
        day = (self.first.replace(day=1) + timedelta(days=32)).replace(day=1)
        while day <= self.last:
            yield self.x(day), f"{day:%b %Y}" if day.month == 1 else f"{day:%b}"
            day = (day + timedelta(days=32)).replace(day=1)


def _y(effort: float) -> float:
    return round(FLOOR - (FLOOR - TOP) * effort / MOST_EFFORT, 1)


def _mark(one: Evening, axis: Axis) -> Mark:
    said = f"{one.day:%-d %b}: " + ("came" if one.came else "wasn’t there")
    if one.felt is not None:
        said += f", felt {one.felt:g}" + (
            f" of {one.asked:g} asked" if one.asked is not None else ""
        )
    felt, asked = (None if value is None else _y(value) for value in (one.felt, one.asked))
    return Mark(
        axis.x(one.day), one.came, one.stopped, felt, asked, one.class_id,
        said + (", stopped early" if one.stopped else ""),
    )  # fmt: skip


class Came(NamedTuple):
    """How many came to each class of a year, as bars: where each stands, how high it is, and what it says."""

    said: str
    bars: tuple[tuple[float, float, str], ...]
    months: tuple[tuple[float, str], ...]
    most: int
    top: float = BARS_TOP
    floor: float = BARS_FLOOR
    high: float = BARS_FLOOR + UNDER
    wide: float = WIDE
    left: float = BARS_LEFT
    right: float = WIDE - RIGHT
    mark: float = BAR


def club_of(house: House, work: Work) -> Came | None:
    """How many came over a year; None before the second class."""
    row = [one for one in records.attended(work, None, since(house)) if one.outcome.came]
    if len(row) < LEAST_CLASSES:
        return None
    today, days = date.fromisoformat(house.today), [date.fromisoformat(one.day) for one in row]
    axis = Axis(min(days[0], today - timedelta(days=LEAST_DAYS)), today, BARS_LEFT)
    came = [one.outcome.came for one in row]
    most = max(came)

    def bar(day: date, many: int) -> tuple[float, float, str]:
        high = round((BARS_FLOOR - BARS_TOP) * many / most, 1)
        return axis.x(day), high, f"{day:%-d %b}: {many} came"

    said = (
        f"{len(row)} classes since {days[0]:%-d %B %Y}; in the middle {number(median(came))} came"
    )
    if min(came) < most:
        said += f", from {min(came)} to {most}"
    return Came(said, tuple(map(bar, days, came)), tuple(axis.months()), most)
