"""What somebody can do as small charts: evenings on an axis with its unit, and a band in which nothing changed."""

from datetime import date, timedelta
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.person import Person
from lovrit.core.review.can import Fact, What
from lovrit.core.review.compare import SHARES

WIDE, HIGH, EDGE, TOP = 200.0, 60.0, 8.0, 8.0
# whose typical error from one evening to the next is a figure's own
FIGURES: dict[What, str] = {
    "rate": "reps",
    "most": "reps",
    "load": "top_set",
    "hold": "hold_s",
    "pace": "time_s",
}
LEAST_SPAN = 0.2  # of the value: an axis is never so narrow that a wobble looks like a change
SURELY = {"sure": "", "fair": "two evenings", "once": "one evening", "old": "old by now"}
WEEKS = 12
AXIS: dict[What, str] = {"rate": "a min", "most": "reps", "load": "kg", "hold": "s", "pace": "s"}
SAID: dict[What, str] = {
    "rate": "{value} reps a minute", "most": "{value} in one go", "load": "{value} kg, lifted once",
    "hold": "{value} s held", "pace": "{value} {unit}",
}  # fmt: skip


class Chart(NamedTuple):
    """A fact as it is drawn: its words, since when and how surely, dots, the band, what the axis says.

    ``keep`` names the figure of the person that it can be kept as, empty where it is so already or there is none.
    """

    name: str
    said: str
    rests: str
    dots: tuple[tuple[float, float], ...]
    band: tuple[float, float]
    low: str
    high: str
    first: str
    last: str
    keep: str
    keep_said: str
    move: str
    value: float


def charts_of(person: Person, facts: tuple[Fact, ...]) -> list[Chart]:
    """The facts of somebody, the newest first."""
    return [
        _chart(person, one) for one in sorted(facts, key=lambda one: one.days[-1][0], reverse=True)
    ]


def _chart(person: Person, fact: Fact) -> Chart:
    shown = fact.shown
    values = [value for _, value in fact.days]
    wobble = SHARES[FIGURES[shown.what]] * shown.value
    low, high = min(*values, shown.value - wobble), max(*values, shown.value + wobble)
    missing = max(0.0, LEAST_SPAN * shown.value - (high - low)) / 2
    low, high = low - missing, high + missing

    def y(value: float) -> float:
        return round(TOP + (HIGH - 2 * TOP) * (high - value) / (high - low), 1)

    last = fact.days[-1][0]
    first = min(fact.days[0][0], last - timedelta(weeks=WEEKS))
    span = max(1, (last - first).days)
    dots = tuple(
        (round(EDGE + (WIDE - 2 * EDGE) * (day - first).days / span, 1), y(value))
        for day, value in fact.days
    )
    top = y(shown.value + wobble)
    keep, keep_said = _kept(person, fact)
    return Chart(
        shown.name, SAID[shown.what].format(value=number(shown.value), unit=shown.unit), _rests(fact),
        dots,
        (top, round(y(shown.value - wobble) - top, 1)), number(round(low, 1)),
        f"{number(round(high, 1))} {AXIS[shown.what]}", _day(first), _day(last),
        keep, keep_said, shown.move, shown.value,
    )  # fmt: skip


def _day(day: date) -> str:
    return f"{day:%-d %b}"


def _rests(fact: Fact) -> str:
    sure = SURELY[fact.sure]
    return f"since {_day(fact.since)} {fact.since.year}" + (
        f", {sure}" if sure else f", {len(fact.days)} evenings"
    )


def _kept(person: Person, fact: Fact) -> tuple[str, str]:
    """Which figure of theirs it can be kept as, in words; nothing where that is what stands there."""
    shown = fact.shown
    if shown.what == "load":
        best = round(shown.value * 2) / 2
        same = person.bests.get(shown.move) == best
        return ("", "") if same else ("best", f"keep {number(best)} kg as their best")
    if shown.what == "pace" and shown.move == "run":
        pace = round(shown.value)
        return (
            ("", "")
            if person.pace_100_s == pace
            else ("pace", f"keep {pace} s for 100 m as their pace")
        )
    if shown.what in ("most", "hold"):
        most, unit = round(shown.value), " s" if shown.what == "hold" else ""
        same = person.mosts.get(shown.move) == most
        return ("", "") if same else ("most", f"keep {most}{unit} as what they do in one go")
    return "", ""
