"""A small chart of one figure over evenings: dots on an axis of days, and the band in which nothing changed.

An axis is never so narrow that a wobble looks like a change.
"""

from collections.abc import Sequence
from datetime import date, timedelta
from typing import NamedTuple

from lovrit.core.clock import clock, number
from lovrit.core.review.compare import TIMES, usual_wobble

WIDE, HIGH, EDGE, TOP = 200.0, 60.0, 8.0, 8.0
LEAST_SPAN = 0.2  # of the value
WEEKS = 12
FINE = 20  # ends below it are written to a tenth
UNITS = {
    "hold_s": " s",
    "heart": " beats",
    "drop_60": " beats",
    "top_set": " kg",
    "reps": " reps",
    "share": " %",
}


class Small(NamedTuple):
    """Dots, the band (its top and height), what stands at the ends of both axes."""

    dots: tuple[tuple[float, float], ...]
    band: tuple[float, float]
    low: str
    high: str
    first: str
    last: str
    wide: float = WIDE
    high_px: float = HIGH
    edge: float = EDGE

    @property
    def path(self) -> str:
        """The dots, as a line through them."""
        return " ".join(f"{x},{y}" for x, y in self.dots)

    @property
    def said(self) -> str:
        """What the axes reach over, in words."""
        return f"from {self.first} to {self.last}, between {self.low} and {self.high}"


def small(
    figure: str, days: Sequence[tuple[date, float]], value: float, unit: str | None = None
) -> Small:
    """The chart of a figure of ``core/review/compare`` over evenings, the oldest first, with its band about a value."""
    values, off = [one for _, one in days], usual_wobble(figure, value)
    low, high = min(*values, value - off), max(*values, value + off)
    missing = max(0.0, LEAST_SPAN * value - (high - low), 0.1 - (high - low)) / 2
    low, high = low - missing, high + missing
    last = days[-1][0]
    first = min(days[0][0], last - timedelta(weeks=WEEKS))

    def y(value: float) -> float:
        return round(TOP + (HIGH - 2 * TOP) * (high - value) / (high - low), 1)

    def x(day: date) -> float:
        return round(EDGE + (WIDE - 2 * EDGE) * (day - first).days / (last - first).days, 1)

    said = UNITS.get(figure, "") if unit is None else unit
    ends = [
        clock(round(end))
        if figure in TIMES and unit is None
        else f"{number(round(end, 1) if end < FINE else round(end))}{said}"
        for end in (low, high)
    ]
    top = y(value + off)
    return Small(
        tuple((x(day), y(one)) for day, one in days),
        (top, round(y(value - off) - top, 1)),
        ends[0],
        ends[1],
        f"{first:%-d %b}",
        f"{last:%-d %b}",
    )
