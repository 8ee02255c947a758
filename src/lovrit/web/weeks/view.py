"""Weeks turned into what the board shows: days with upright tapes, what is carried, what a week asks, in words."""

from datetime import date, datetime, time, timedelta

from lovrit.core.asked.carried import Other, Planned
from lovrit.core.asked.clashing import CLASH
from lovrit.core.asked.dose import Asks
from lovrit.core.asked.qualities import REGIONS, WORKS
from lovrit.core.clock import clock
from lovrit.core.values import Value
from lovrit.core.weeks.board import carried_through, sameness
from lovrit.core.weeks.order import Wish
from lovrit.core.weeks.places import Held, Twice, twice
from lovrit.house.weeks import LONGEST_S, TALL, Laid, Read, other_of
from lovrit.store.tables import SessionRow
from lovrit.store.weeks import KeptOther

WEEK_S = 7 * 86_400
BEFORE_DAYS = 12  # sessions so long ago may still be carried
ROW = 28  # pixels of a region's row
EVERY_H, FULL = 3, 20.0  # the picture's steps, and the hard minutes' worth that fill its row
SHOWN_FROM = 3.0  # hard minutes' worth from which a region that the week asks for has a row; others from a clash on
ALIKE, MORE = 2.0, 1.3


class OnBoard(Value):
    """A session on its day; ``ran`` says how it was run, where it was, ``noted`` what its coach wrote down last."""

    id: int
    title: str
    day: str
    at: str
    minutes: str
    hard: str
    bars: tuple[tuple[float, float], ...]
    height: float
    clashes: bool
    past: bool
    hall: str
    coach: str
    ran: tuple[int, str] | None = None
    noted: str = ""


class DayOn(Value):
    """A day with what is on it; ``off`` where it is none, ``ran`` classes that were run without a plan."""

    day: str
    label: str
    today: bool
    off: bool
    sessions: tuple[OnBoard, ...]
    ran: tuple[tuple[int, str], ...]
    others: tuple[KeptOther, ...]


class Carried(Value):
    """A region's row in a week: what fades, as a path in a box 700 wide and ``ROW`` high, and what is done, as bars."""

    pattern: str
    path: str
    bars: tuple[tuple[float, float], ...]


class WeekOn(Value):
    """A week: its Monday, its days, its rows, its theme, what is said of it, and whether something in it clashes."""

    monday: str
    label: str
    days: tuple[DayOn, ...]
    rows: tuple[Carried, ...]
    theme: str
    said: str
    clashes: bool


class Board(Value):
    """The whole board; ``clashes`` counts those of what is shown, ``twice`` are two at one hour in one place."""

    weeks: tuple[WeekOn, ...]
    clashes: int
    twice: tuple[Twice, ...]


def board_view(
    laid: Laid,
    ran: dict[int, tuple[int, str]],
    several_halls: bool,
    noted: dict[int, str] | None = None,
) -> Board:
    """So many weeks from a Monday on; ``ran`` is how sessions that are past were run, by their numbers."""
    planned, loads = laid.planned(), [other_of(one) for one in laid.others]
    found = laid.around().told
    on = {one.id: one.at.date() for one in planned}
    shown = [one for one in found if laid.first <= on[one.session] <= laid.last]
    clashing = {one.session for one in found}
    days = _Days(laid, clashing, ran, several_halls, noted or {})
    made = []
    for nth in range(laid.weeks):
        monday = laid.first + timedelta(days=7 * nth)
        made.append(_week(laid, monday, days, planned, loads))
    return Board(weeks=tuple(made), clashes=len(shown), twice=_twice(laid))


def _twice(laid: Laid) -> tuple[Twice, ...]:
    return twice(
        [
            Held(
                row.id or 0, row.title or "Untitled session", one.at, max(1, laid.reads[row.id or 0].seconds // 60),
                laid.halls[row.id or 0], laid.coaches.get(row.id or 0, ""),
            )
            for row, one in zip([row for row in laid.rows if row.day], laid.planned(), strict=False)
            if laid.today <= one.at.date() <= laid.last
        ]
    )  # fmt: skip


def _week(
    laid: Laid, monday: date, days: "_Days", planned: list[Planned], loads: list[Other]
) -> WeekOn:
    every = [monday + timedelta(days=nth) for nth in range(7)]
    mine = [one for one in planned if monday <= one.at.date() <= every[-1]]
    return WeekOn(
        monday=f"{monday}",
        label=f"{monday:%-d %B}",
        days=tuple(days.day(day) for day in every),
        rows=tuple(_rows(monday, mine, planned, loads)),
        theme=laid.themes.get(f"{monday}", ""),
        said=_said(every, mine, planned),
        clashes=any(one.id in days.clashing for one in mine if one.at.date() >= laid.today),
    )


class _Days:
    """Draws days: what is on each, and how it stands."""

    def __init__(
        self,
        laid: Laid,
        clashing: set[str],
        ran: dict[int, tuple[int, str]],
        several_halls: bool,
        noted: dict[int, str],
    ) -> None:
        self.laid, self.clashing, self.ran, self.several = laid, clashing, ran, several_halls
        self.noted = noted
        self._by_day: dict[str, list[SessionRow]] = {}
        for row in laid.rows:
            self._by_day.setdefault(row.day or "", []).append(row)

    def day(self, day: date) -> DayOn:
        on = [
            self._on(row, self.laid.reads[row.id or 0], day)
            for row in self._by_day.get(f"{day}", ())
        ]
        return DayOn(
            day=f"{day}",
            label=f"{day:%a %-d}",
            today=day == self.laid.today,
            off=f"{day}" in self.laid.off,
            sessions=tuple(sorted(on, key=lambda one: one.at)),
            ran=tuple(
                (one.class_id, one.title) for one in self.laid.unplanned if one.at.date() == day
            ),
            others=tuple(one for one in self.laid.others if one["date"] == f"{day}"),
        )

    def _on(self, row: SessionRow, read: Read, day: date) -> OnBoard:
        number = row.id or 0
        return OnBoard(
            id=number,
            title=row.title or "Untitled session",
            day=row.day or "",
            at=f"{read.begins:%H:%M}",
            minutes=clock(read.seconds),
            hard=f"{(self.laid.done_of(number) or read.asks).hard_min:.0f}",
            bars=read.bars,
            height=round(min(1.5, read.seconds / LONGEST_S) * TALL, 1),
            clashes=f"{number}" in self.clashing,
            past=day < self.laid.today,
            hall=self.laid.halls[number] if self.several else "",
            coach=self.laid.coaches.get(number, ""),
            ran=self.ran.get(number),
            noted=self.noted.get(number, ""),
        )


def _rows(
    monday: date, mine: list[Planned], planned: list[Planned], loads: list[Other]
) -> list[Carried]:
    """What is still carried through a week, region by region, of those that matter in it."""
    start = datetime.combine(monday, time(0))
    moments = [start + timedelta(hours=EVERY_H * nth) for nth in range(7 * 24 // EVERY_H + 1)]
    end = start + timedelta(days=7)
    near = [one for one in planned if start - timedelta(days=BEFORE_DAYS) <= one.at < end]
    lines = carried_through(moments, near, [one for one in loads if one.at < end])
    found = []
    asked = {name for one in mine for name in REGIONS if _asked(one.asks, name) >= 1}
    for pattern in (one for one in REGIONS if one in lines):
        if lines[pattern].max() < (SHOWN_FROM if pattern in asked else CLASH):
            continue
        points = [
            (nth * 700 / (len(moments) - 1), ROW * min(1.0, float(kept) / FULL))
            for nth, kept in enumerate(lines[pattern])
        ]
        path = f"M0 {ROW}" + "".join(f"L{x:.1f} {ROW - y:.1f}" for x, y in points) + f"L700 {ROW}Z"
        bars = tuple(
            (
                round((one.at - start).total_seconds() / WEEK_S * 100, 1),
                round(ROW * min(1.0, dose / FULL), 1),
            )
            for one in mine
            if (dose := _asked(one.asks, pattern)) >= 1
        )
        found.append(Carried(pattern=pattern, path=path, bars=bars))
    return found


def _asked(asks: Asks, region: str) -> float:
    """What a session asks of a region, in hard minutes' worth, however much more than a region can carry."""
    minutes = sum(
        minutes * share
        for pattern, minutes in asks.dose.items()
        for name, share in WORKS.get(pattern, {}).items()
        if name == region
    )
    return max(minutes, asks.left.worth(region))


def _said(days: list[date], mine: list[Planned], planned: list[Planned]) -> str:
    """What a week asks, in a sentence; a word where every day asks the same, or it is much more than before."""
    if not mine:
        return ""
    load = sum(one.asks.load for one in mine)
    hard = sum(one.asks.hard_min for one in mine)
    parts = [f"{len(mine)} {'session' if len(mine) == 1 else 'sessions'}, {hard:.0f} hard minutes"]
    by_day = [sum(one.asks.load for one in mine if one.at.date() == day) for day in days]
    alike = sameness(by_day) if len(mine) > 2 else None
    if alike is not None and alike > ALIKE:
        parts.append("every day asks the same")
    before = [
        sum(one.asks.load for one in planned if 0 < (days[0] - one.at.date()).days - 7 * back <= 7)
        for back in range(3)
    ]
    if all(before) and load > MORE * sum(before) / 3:
        parts.append(
            f"{load / (sum(before) / 3) - 1:.0%} more than the mean of the three weeks before"
        )
    return "; ".join(parts)


def wish_said(wish: Wish, titles: dict[str, str]) -> str:
    """A wish in words; a session goes by its title where it is near."""
    one, other = titles.get(wish.id, "a session"), titles.get(wish.other, "another")
    if wish.kind == "apart":
        return f"{one} and {other} {wish.days} days apart"
    day = date.fromisoformat(wish.day)
    return f"{one} {'not before' if wish.kind == 'not-before' else 'on'} {day:%A %-d %B}"
