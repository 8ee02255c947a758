"""Weeks turned into what the board shows: days with upright tapes, what is carried, what clashes, a better order."""

from datetime import date, datetime, time, timedelta

from lovrit.core.clock import clock, read_clock
from lovrit.core.moves.library import Library
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import Value
from lovrit.core.weeks.board import (
    DayClash,
    Other,
    Planned,
    carried,
    clashes,
    sameness,
)
from lovrit.core.weeks.dose import Asks, asks
from lovrit.core.weeks.order import best_order
from lovrit.store.tables import SessionRow
from lovrit.store.weeks import KeptOther

USUAL_AT = time(18, 0)
WEEK_S = 7 * 86_400
BEFORE_DAYS = 12  # sessions so long ago may still be carried
EVERY_H, FULL = 3, 12.0  # the picture's steps, and the hard minutes that fill its row
SHOWN_FROM = 3.0  # hard minutes from which a pattern has a row
TALL, LONGEST_S = 64, 3600
ALIKE, MORE = 2.0, 1.3
MOST_TAPE = 60
MOST_ORDERED = 6  # sessions of a week whose orders are all tried while somebody waits


class OnBoard(Value):
    """A session on its day."""

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


class DayOn(Value):
    """A day with what is on it."""

    day: str
    label: str
    today: bool
    sessions: tuple[OnBoard, ...]
    others: tuple[KeptOther, ...]


class Carried(Value):
    """A pattern's row in a week: what fades, as a path in a box 700 wide and 20 high, and what is done, as bars."""

    pattern: str
    path: str
    bars: tuple[tuple[float, float], ...]


class WeekOn(Value):
    """A week: its days, its rows, and what is said of it."""

    label: str
    days: tuple[DayOn, ...]
    rows: tuple[Carried, ...]
    said: str
    order: tuple[tuple[int, str, str], ...]
    gain: str


class ClashOn(Value):
    """A clash in words, whose session it is, and the day that helps."""

    text: str
    session: int
    title: str
    to: str


class Board(Value):
    """The whole board."""

    weeks: tuple[WeekOn, ...]
    clashes: tuple[ClashOn, ...]


class Read(Value):
    """What a session's text comes to: what it asks, its tape, when its hall begins."""

    asks: Asks
    bars: tuple[tuple[float, float], ...]
    seconds: int
    begins: time


def read_session(text: str, library: Library) -> Read:
    """A session's text as the board needs it."""
    plan = plan_text(text, library)
    slot = plan.session.slot
    begins = USUAL_AT
    if slot and slot.start:
        minutes = read_clock(slot.start)
        begins = time(minutes // 60 % 24, minutes % 60)
    return Read(asks=asks(plan), bars=_bars(plan), seconds=plan.timeline.total_s, begins=begins)


def _bars(plan: Plan) -> tuple[tuple[float, float], ...]:
    """Works on an upright tape: how far down, and how high, in pixels of an hour's tape."""
    works = [one for one in plan.timeline.intervals if one.phase == "work"]
    scale = TALL / LONGEST_S
    made = [
        (round(one.start_s * scale, 1), round(max(0.6, one.seconds * scale), 1)) for one in works
    ]
    return tuple(made[:: max(1, len(made) // MOST_TAPE)])


def board_view(
    first: date,
    weeks: int,
    rows: list[SessionRow],
    others: list[KeptOther],
    reads: dict[int, Read],
    today: date,
) -> Board:
    """So many weeks from a Monday on."""
    planned = [_planned(row, reads[row.id or 0]) for row in rows if row.day]
    loads = [_other(one) for one in others]
    found = clashes(planned, loads)
    last = first + timedelta(days=7 * weeks)
    shown = [one for one in found if first <= _day_of(one.session, planned) < last]
    clashing = {one.session for one in found}
    titles = {row.id: row.title or "Untitled session" for row in rows}
    made: list[WeekOn] = []
    orders: dict[int, str] = {}
    for nth in range(weeks):
        monday = first + timedelta(days=7 * nth)
        week = _week(monday, rows, others, reads, planned, loads, clashing, today)
        orders |= {session: to for session, _, to in week.order}
        made.append(week)
    return Board(weeks=tuple(made), clashes=tuple(_clash(one, titles, orders) for one in shown))


def _planned(row: SessionRow, read: Read) -> Planned:
    at = datetime.combine(date.fromisoformat(row.day or ""), read.begins)
    return Planned(id=str(row.id), at=at, asks=read.asks)


def _other(one: KeptOther) -> Other:
    at = datetime.combine(date.fromisoformat(one["date"]), time(12))
    return Other(at=at, what=one["what"], weight=one["weight"], patterns=tuple(one["patterns"]))


def _day_of(session: str, planned: list[Planned]) -> date:
    return next(one.at.date() for one in planned if one.id == session)


def _clash(one: DayClash, titles: dict[int | None, str], orders: dict[int, str]) -> ClashOn:
    number = int(one.session)
    since = titles.get(int(one.since), one.since) if one.since.isdecimal() else one.since
    text = f"asks {one.asked:.0f} hard minutes of {one.pattern}, and {one.carried:.0f} are still carried from {since}."
    return ClashOn(text=text, session=number, title=titles[number], to=orders.get(number, ""))


def _week(
    monday: date,
    rows: list[SessionRow],
    others: list[KeptOther],
    reads: dict[int, Read],
    planned: list[Planned],
    loads: list[Other],
    clashing: set[str],
    today: date,
) -> WeekOn:
    days = [monday + timedelta(days=nth) for nth in range(7)]
    mine = [one for one in planned if monday <= one.at.date() <= days[-1]]
    shown = tuple(_day(day, rows, others, reads, clashing, today) for day in days)
    order, gain = _order(mine, planned, loads, today)
    return WeekOn(
        label=f"{monday:%-d %B}",
        days=shown,
        rows=tuple(_rows(monday, mine, planned, loads)),
        said=_said(days, mine, planned),
        order=order,
        gain=gain,
    )


def _day(
    day: date,
    rows: list[SessionRow],
    others: list[KeptOther],
    reads: dict[int, Read],
    clashing: set[str],
    today: date,
) -> DayOn:
    here = [row for row in rows if row.day == f"{day}"]
    on = [_on(row, reads[row.id or 0], f"{row.id}" in clashing, day < today) for row in here]
    return DayOn(
        day=f"{day}",
        label=f"{day:%a %-d}",
        today=day == today,
        sessions=tuple(sorted(on, key=lambda one: one.at)),
        others=tuple(one for one in others if one["date"] == f"{day}"),
    )


def _on(row: SessionRow, read: Read, clash: bool, past: bool) -> OnBoard:
    return OnBoard(
        id=row.id or 0,
        title=row.title or "Untitled session",
        day=row.day or "",
        at=f"{read.begins:%H:%M}",
        minutes=clock(read.seconds),
        hard=f"{read.asks.hard_min:.0f}",
        bars=read.bars,
        height=round(min(1.5, read.seconds / LONGEST_S) * TALL, 1),
        clashes=clash,
        past=past,
    )


def _rows(
    monday: date, mine: list[Planned], planned: list[Planned], loads: list[Other]
) -> list[Carried]:
    """What is still carried through a week, pattern by pattern, of those that matter in it."""
    start = datetime.combine(monday, time(0))
    moments = [start + timedelta(hours=EVERY_H * nth) for nth in range(7 * 24 // EVERY_H + 1)]
    near = [one for one in planned if start - timedelta(days=BEFORE_DAYS) <= one.at]
    lines = [carried(at, near, loads) for at in moments]
    patterns = sorted({name for line in lines for name, left in line.items() if left >= SHOWN_FROM})
    found = []
    for pattern in patterns:
        points = [
            (nth * 700 / (len(lines) - 1), 20 * min(1.0, line.get(pattern, 0.0) / FULL))
            for nth, line in enumerate(lines)
        ]
        path = "M0 20" + "".join(f"L{x:.1f} {20 - y:.1f}" for x, y in points) + "L700 20Z"
        bars = tuple(
            (
                round((one.at - start).total_seconds() / WEEK_S * 100, 1),
                round(20 * min(1.0, dose / FULL), 1),
            )
            for one in mine
            if (dose := one.asks.dose.get(pattern, 0.0)) >= 1
        )
        found.append(Carried(pattern=pattern, path=path, bars=bars))
    return found


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


def _order(
    mine: list[Planned], planned: list[Planned], loads: list[Other], today: date
) -> tuple[tuple[tuple[int, str, str], ...], str]:
    """Which sessions go to which day for the least clash in a week, and what that gains; nothing where none is."""
    free = [one for one in mine if one.at.date() >= today]
    if not 2 <= len(free) <= MOST_ORDERED:
        return (), ""
    ids = {one.id for one in free}
    around = [one.but(fixed=one.id not in ids) for one in planned]
    best = best_order(around, loads, ())
    if not best.proven or best.now - best.best < 1:
        return (), ""
    moved = tuple(
        (int(one.id), f"{one.at.date()}", f"{best.at[one.id].date()}")
        for one in free
        if best.at[one.id].date() != one.at.date()
    )
    return moved, f"{best.now:.0f} hard minutes on what is carried become {best.best:.0f}"
