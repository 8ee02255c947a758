"""What one person did again in the very same way, and where it goes: for their coach, and for themselves."""

from datetime import date
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.review.compare import Evening, compare
from lovrit.core.review.kin import Worth
from lovrit.store import records

MOST_TIMES = 40
WIDE, HIGH, EDGE = 220.0, 56.0, 6.0


class Again(NamedTuple):
    """One evening on which somebody did a block: the class, its day, the score and what it is worth."""

    class_id: int
    block: int
    day: int
    when: str
    score: str
    worth: Worth


class Series(NamedTuple):
    """The same thing again and again: what it is, its scores, where it goes in words, and dots to draw it by."""

    label: str
    ways: str
    times: tuple[Again, ...]
    text: str
    dots: tuple[tuple[float, float], ...]


def series_of(work: Work, person_id: int) -> list[Series]:
    """What somebody did again, each kind in its own ways."""
    by_key: dict[tuple[str, str], list[Again]] = {}
    labels: dict[tuple[str, str], str] = {}
    for row in records.scores_of(work, person_id):
        key, when = (row.kin, row.ways), date.fromisoformat(row.day)
        labels[key] = row.label
        value = Worth(row.figure, row.value, row.more)
        again = Again(row.class_id, row.block, when.toordinal(), f"{when:%d %b}", row.said, value)
        by_key.setdefault(key, []).append(again)
    return [
        drawn(labels[key], key[1], times[-MOST_TIMES:])
        for key, times in by_key.items()
        if len({one.day for one in times}) > 1
    ]


def drawn(label: str, ways: str, times: list[Again]) -> Series:
    """A series as it is shown: in words, and as dots."""
    values = [one.worth.value for one in times]
    low, high = min(values), max(values)
    first, last = times[0].day, times[-1].day
    dots = tuple(
        (
            round(EDGE + (WIDE - 2 * EDGE) * (one.day - first) / max(1, last - first), 1),
            round(
                HIGH - EDGE - (HIGH - 2 * EDGE) * (one.worth.value - low) / ((high - low) or 1), 1
            ),
        )
        for one in times
    )
    return Series(label, ways, tuple(times), _where(times), dots)


def _where(times: list[Again]) -> str:
    """Where it goes, over four evenings or more; nothing is said of fewer."""
    figure, more = times[-1].worth.figure, times[-1].worth.more
    evenings = tuple(Evening(day=one.day, values={"me": one.worth.value}) for one in times)
    told = compare(figure, more, evenings).people["me"]
    return told.trend or (
        "No clear way up or down yet."
        if len(times) > 3
        else "Too few evenings to say where it goes."
    )
