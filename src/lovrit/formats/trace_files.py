"""Traces of hearts as CSV: read in the common layouts, cleaned, and told as JSON."""

import csv
from io import StringIO
from typing import Any

import numpy as np

from lovrit.core.crew.person import Person
from lovrit.core.heart.clean import Known, clean
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.heart.hearts import Floats
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError

MOST_S = 6 * 3600
SECONDS = ("second", "seconds", "s", "t", "time", "time_s", "elapsed")
BEATS = ("bpm", "beats", "hr", "heart", "heart rate", "heart_rate", "beats_per_minute", "value")


class NotATrace(LovritError):
    """A file that is no trace; the sentence says why."""


def read_trace(text: str) -> Floats:
    """A trace at 1 Hz from CSV with seconds and beats; not a number where nothing was read.

    Raises:
        NotATrace: where there are no such columns, or a second can't be.
    """
    rows = [
        row for row in csv.reader(StringIO(text.lstrip("\ufeff")), delimiter=_sign(text)) if row
    ]
    if not rows:
        raise NotATrace("There is nothing in this file.")
    second, beats, first = _columns(rows[0])
    found: dict[int, float] = {}
    for nth, row in enumerate(rows[first:], first + 1):
        if len(row) <= max(second, beats):
            continue
        at, bpm = _number(row[second]), _number(row[beats])
        if at is None or not 0 <= at <= MOST_S:
            raise NotATrace(f"Line {nth}: “{row[second]}” is no second of a class.")
        found[round(at)] = np.nan if bpm is None else bpm
    if not found:
        raise NotATrace("There is no reading in this file.")
    return np.array([found.get(at, np.nan) for at in range(max(found) + 1)])


def _sign(text: str) -> str:
    first = text.splitlines()[0] if text.splitlines() else ""
    return max(",;\t", key=first.count)


def _columns(head: list[str]) -> tuple[int, int, int]:
    """Which columns are seconds and beats, and where the readings begin."""
    names = [cell.strip().casefold() for cell in head]
    second = next((nth for nth, name in enumerate(names) if name in SECONDS), None)
    beats = next((nth for nth, name in enumerate(names) if name in BEATS), None)
    if second is not None and beats is not None:
        return second, beats, 1
    if len(head) == 2 and all(_number(cell) is not None for cell in head):
        return 0, 1, 0
    raise NotATrace("Head the columns: seconds and beats (such as second,bpm).")


def _number(cell: str) -> float | None:
    said = cell.strip().replace(",", ".")
    try:
        value = float(said)
    except ValueError:
        return None
    return value if np.isfinite(value) else None


def cleaned_object(raw: Floats, plan: Plan | None) -> dict[str, Any]:
    """What is wrong with a trace, held against a usual heart's forecast where the session is known."""
    known = Known()
    if plan is not None:
        usual = Person(id=0, name="", initials="")
        line = foresee(plan, usual, body_of(usual)).bpm
        longer = np.concatenate([line, np.full(max(0, len(raw) - len(line)), line[-1])])
        known = Known(forecast=longer[: len(raw)])
    told = clean(raw, known)
    good = [None if np.isnan(bpm) else round(float(bpm), 1) for bpm in told.clean]
    return {
        "faults": [fault._asdict() for fault in told.faults],
        "clean_s": sum(bpm is not None for bpm in good),
        "clean": good,
    }
