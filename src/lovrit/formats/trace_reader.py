"""Traces of hearts from CSV as other programs write them: seconds or times of day, beats or RR intervals."""

import csv
import re
from collections import defaultdict
from collections.abc import Iterable
from datetime import date, datetime, time
from io import StringIO
from typing import NamedTuple
from zoneinfo import ZoneInfo

import numpy as np

from lovrit.core.heart.hearts import Floats
from lovrit.core.values import LovritError

MOST_S = 6 * 3600
LOWEST_RR, HIGHEST_RR = 250, 2400  # milliseconds between beats that a heart can have
LOWEST, HIGHEST = 25, 300
DAY_S = 86_400
HOURS = re.compile(r"([01]?\d|2[0-3]):[0-5]\d:[0-5]\d(\.\d{1,9})?")
RR_NEAR_S = 2.0  # beats of a second are those of the intervals that end so near to it
FROM_EPOCH_S, FROM_EPOCH_MS = 1e9, 1e12
SIGNS = ",;\t|"

ROLES: dict[str, frozenset[str]] = {
    "second": frozenset(("second", "seconds", "sec", "secs", "s", "t", "time", "time s", "elapsed", "elapsed s")),
    "clock": frozenset(("timestamp", "datetime", "date time", "time utc", "epoch", "unix", "unix ms", "when", "clock")),
    "beats": frozenset((
        "bpm", "beats", "hr", "heart", "heart rate", "heartrate", "beats per minute", "value", "pulse", "hr bpm",
        "holds",
    )),
    "rr": frozenset(("rr", "rr ms", "rr interval", "rr intervals", "rr s", "r r", "ibi", "rrinterval")),
    "person": frozenset(("name", "person", "who", "athlete", "people")),
    "other": frozenset((
        "power", "watts", "cadence", "speed", "pace", "distance", "altitude", "elevation", "temperature", "lap", "note",
        "group", "contact", "battery", "hrv", "date", "told", "fault",
        "expected",
    )),
}  # fmt: skip


class NotATrace(LovritError):
    """A file that is no trace; the sentence says why."""


class Trace(NamedTuple):
    """One person's readings at 1 Hz from ``begins_s`` on, not a number where nothing was read.

    ``name`` as the file has it; ``begins_s`` counts from the file's own start, or from 1970 where ``clock``.
    """

    name: str
    begins_s: float
    clock: bool
    beats: Floats


def read_traces(text: str, zone: str | None = None, day: date | None = None) -> list[Trace]:
    """Every trace of a CSV file; times of day without a zone are in ``zone``, without a day on ``day``, where given.

    Raises:
        NotATrace: where there are no such columns, a second can't be, or it could be either of two things.
    """
    lines = [
        line for line in text.lstrip("\ufeff").splitlines() if not line.lstrip().startswith("#")
    ]
    kept = "\n".join(line for line in lines if line.strip())
    if not kept:
        raise NotATrace("There is nothing in this file.")
    sign = max(SIGNS, key=kept.splitlines()[0].count)
    try:
        rows = [
            [cell.strip() for cell in row] for row in csv.reader(StringIO(kept), delimiter=sign)
        ]
    except csv.Error as error:
        raise NotATrace(f"This file is no table that can be read: {error}.") from None
    filled = [row for row in rows if any(row)]
    if not filled:
        raise NotATrace("There is nothing in this file but separators.")
    table = _table(filled)
    found = (
        _by_intervals(table)
        if table.columns.get("rr") is not None
        else _by_seconds(table, _Of(zone, day))
    )
    if not found:
        raise NotATrace("There is no reading in this file.")
    return found


class _Table(NamedTuple):
    columns: dict[str, int]
    people: dict[int, str]  # columns that are each a person's beats
    rows: list[list[str]]
    first: int  # the line that the first row stands on


def _table(rows: list[list[str]]) -> _Table:
    head = rows[0]
    if all(_number(cell) is not None for cell in head):
        return _headless(rows)
    names = [_plain(cell) for cell in head]
    roles = {
        nth: role
        for nth, name in enumerate(names)
        for role, known in ROLES.items()
        if name in known
    }
    columns: dict[str, int] = {}
    for nth, role in roles.items():
        if role == "beats" and role in columns:
            raise NotATrace("There are two columns of beats; leave one.")
        columns.setdefault(role, nth)
    strange = {nth: cell for nth, cell in enumerate(head) if nth not in roles and cell}
    timed = "second" in columns or "clock" in columns
    if "beats" in columns and timed:
        return _Table(columns, {}, rows[1:], 2)
    if "rr" in columns:
        return _Table(columns, {}, rows[1:], 2)
    if timed and strange and "beats" not in columns:
        return _Table(columns, strange, rows[1:], 2)
    raise NotATrace("Head the columns: seconds and beats (such as second,bpm), or rr_ms.")


def _headless(rows: list[list[str]]) -> _Table:
    if len(rows[0]) == 2:
        return _Table({"second": 0, "beats": 1}, {}, rows, 1)
    values = [_number(row[0]) or 0 for row in rows]
    if len(rows[0]) == 1 and all(LOWEST_RR <= one <= HIGHEST_RR for one in values):
        return _Table({"rr": 0}, {}, rows, 1)
    if len(rows[0]) == 1:
        raise NotATrace(
            "One column without a heading can be either beats, each second or each five, or something else. "
            "Head it, and put its seconds before it: second,bpm."
        )
    raise NotATrace("Head the columns: seconds and beats (such as second,bpm).")


def _plain(cell: str) -> str:
    """A heading without its unit, its case and its signs."""
    bare = re.sub(r"[(\[].*?[)\]]", " ", cell.casefold())
    return " ".join(re.split(r"[\s_\-./]+", bare.strip())).strip()


class _Of(NamedTuple):
    """What times in a file are of, where they don't say."""

    zone: str | None
    day: date | None


def _by_seconds(table: _Table, of: _Of) -> list[Trace]:
    """Readings by seconds or times of day; one person's, a column each, or a name on each row."""
    clock = "clock" in table.columns
    at_column = table.columns["clock" if clock else "second"]
    who_column = table.columns.get("person")
    told: dict[str, dict[int, float]] = defaultdict(dict)
    for nth, row in enumerate(table.rows, table.first):
        if len(row) <= at_column:
            continue
        at, of_day = _moment(row[at_column], nth, of.zone)
        clock = clock or of_day
        name = row[who_column] if who_column is not None and who_column < len(row) else ""
        columns = table.people or {table.columns["beats"]: name}
        for column, whose in columns.items():
            bpm = _number(row[column]) if column < len(row) else None
            told[whose][round(at)] = np.nan if bpm is None else bpm
    if not clock and _times_of_day(row[at_column] for row in table.rows if len(row) > at_column):
        told, clock = _on_day(told, of), of.day is not None
    return [_trace(name, readings, clock) for name, readings in told.items() if _heart(readings)]


def _times_of_day(cells: Iterable[str]) -> bool:
    """Whether h:mm:ss are hours of the day: a trace that begins more than an hour into itself is none."""
    first = next(iter(cells), "")
    return bool(HOURS.fullmatch(first)) and not first.lstrip("0").startswith(":")


def _on_day(told: dict[str, dict[int, float]], of: _Of) -> dict[str, dict[int, float]]:
    """Times of day as seconds from 1970 where their day is known, else from the first; past midnight it is tomorrow."""
    first = min(next(iter(readings)) for readings in told.values())
    begins = 0.0
    if of.day is not None:
        midnight = datetime.combine(of.day, time(0), ZoneInfo(of.zone or "UTC"))
        begins = midnight.timestamp() + first
    return {
        name: {round(begins + (at - first) % DAY_S): bpm for at, bpm in readings.items()}
        for name, readings in told.items()
    }


def trace_of(name: str, some: Iterable[tuple[float, float]], clock: bool) -> Trace:
    """A trace of readings (seconds and beats), at 1 Hz.

    Raises:
        NotATrace: where there is none, none of them is a heart's, or they are of more than six hours.
    """
    readings = {round(at): bpm for at, bpm in some}
    if not readings or not _heart(readings):
        raise NotATrace("There is no reading in this file.")
    if not clock and min(readings) < 0:
        raise NotATrace("A reading can’t have been before the beginning: a second here is below 0.")
    return _trace(name, readings, clock)


def _heart(readings: dict[int, float]) -> bool:
    """Whether there is a reading at all.

    Raises:
        NotATrace: where none of them is a heart's.
    """
    held = [bpm for bpm in readings.values() if not np.isnan(bpm)]
    if held and min(held) > HIGHEST:
        raise NotATrace(
            f"{held[0]:g} is no heart’s beats a minute; milliseconds would be headed rr_ms."
        )
    if held and max(held) < LOWEST:
        raise NotATrace(f"{held[0]:g} is no heart’s beats a minute.")
    return bool(held)


def _trace(name: str, readings: dict[int, float], clock: bool) -> Trace:
    first, last = min(readings), max(readings)
    if last - first > MOST_S:
        raise NotATrace("It is longer than six hours, or its times are of different days.")
    beats = np.array([readings.get(at, np.nan) for at in range(first, last + 1)])
    return Trace(name, first, clock, beats)


def _moment(cell: str, line: int, zone: str | None) -> tuple[float, bool]:
    """Seconds that a cell says, and whether they are of the day (from 1970) rather than of the class."""
    number = _number(cell)
    if number is not None and FROM_EPOCH_S <= number < FROM_EPOCH_MS * 100:
        return (number / 1000 if number >= FROM_EPOCH_MS else number), True
    said = re.fullmatch(r"(?:(\d{1,4}):)?(\d{1,4}):(\d\d(?:\.\d{1,9})?)", cell)
    if said:
        number = int(said[1] or 0) * 3600 + int(said[2]) * 60 + float(said[3])
    if number is not None and 0 <= number <= (DAY_S if said and said[1] else MOST_S):
        return number, False
    if re.match(r"\d{1,2}[/.]\d{1,2}[/.]\d{2,4}", cell):
        raise NotATrace(f"Line {line}: “{cell}” can be two days; write the day as 2026-11-26.")
    return _of_day(cell, line, zone), True


def _of_day(cell: str, line: int, zone: str | None) -> float:
    try:
        at = datetime.fromisoformat(cell.replace("Z", "+00:00"))
        if at.tzinfo is None and zone is None:
            raise NotATrace(f"Line {line}: “{cell}” needs its zone: end it with Z or +01:00.")
        return (at if at.tzinfo else at.replace(tzinfo=ZoneInfo(zone or "UTC"))).timestamp()
    except (ValueError, OverflowError):
        raise NotATrace(f"Line {line}: “{cell[:40]}” is no second of a class.") from None


def _by_intervals(table: _Table) -> list[Trace]:
    """Beats at 1 Hz from the intervals between them, by person where rows are named."""
    rr, at_column = table.columns["rr"], table.columns.get("second")
    told: dict[str, list[tuple[float | None, float]]] = defaultdict(list)
    who = table.columns.get("person")
    for row in table.rows:
        value = _number(row[rr]) if rr < len(row) else None
        if value is None:
            continue
        at = _number(row[at_column]) if at_column is not None and at_column < len(row) else None
        told[row[who] if who is not None else ""].append((at, value))
    return [_from_rr(name, some) for name, some in told.items()]


def _from_rr(name: str, told: list[tuple[float | None, float]]) -> Trace:
    values = np.array([value for _, value in told])
    long = (
        values * 1000 if np.median(values) < 10 else values
    )  # seconds are milliseconds from here on
    ends = np.cumsum(long) / 1000
    if all(at is not None for at, _ in told):
        ends = np.array([at or 0.0 for at, _ in told])
    sound = (long >= LOWEST_RR) & (long <= HIGHEST_RR)
    if not sound.any():
        raise NotATrace("None of these intervals is one between two beats of a heart.")
    if ends.min() < 0:
        raise NotATrace("A beat can’t have been before the beginning: a second here is below 0.")
    if ends.max() > MOST_S:
        raise NotATrace("It is longer than six hours.")
    return Trace(name, 0, False, _each_second(ends[sound], long[sound], int(ends.max())))


def _each_second(ends: Floats, long: Floats, seconds: int) -> Floats:
    """Beats a minute of each second: of the intervals that end near it, found by their order in one pass."""
    order = np.argsort(ends, kind="stable")
    ends, until = ends[order], np.concatenate([[0.0], np.cumsum(long[order])])
    at = np.arange(seconds)
    first = np.searchsorted(ends, at - RR_NEAR_S, "left")
    last = np.searchsorted(ends, at + RR_NEAR_S, "right")
    count, total = last - first, until[last] - until[first]
    beats = np.full(seconds, np.nan)
    near = count > 0
    beats[near] = np.round(60_000 * count[near] / total[near], 1)
    return beats


def _number(cell: str) -> float | None:
    try:
        value = float(cell.replace(",", "."))
    except ValueError:
        return None
    return value if np.isfinite(value) else None
