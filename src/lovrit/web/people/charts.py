"""What somebody can do as small charts: evenings on an axis with its unit, and a band in which nothing changed."""

from datetime import date
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.person import Person
from lovrit.core.review.can import Fact, What
from lovrit.web.small import Small, small

# whose typical error from one evening to the next is a figure's own
FIGURES: dict[What, str] = {
    "rate": "reps",
    "most": "reps",
    "load": "top_set",
    "hold": "hold_s",
    "pace": "time_s",
}
SURELY = {"sure": "", "fair": "two evenings", "once": "one evening", "old": "old by now"}
AXIS: dict[What, str] = {
    "rate": " a min",
    "most": " reps",
    "load": " kg",
    "hold": " s",
    "pace": " s",
}
SAID: dict[What, str] = {
    "rate": "{value} reps a minute", "most": "{value} in one go", "load": "{value} kg, lifted once",
    "hold": "{value} s held", "pace": "{value} {unit}",
}  # fmt: skip


class Chart(NamedTuple):
    """A fact as it is drawn: its words, since when and how surely, its small chart.

    ``keep`` names the figure of the person that it can be kept as, empty where it is so already or there is none.
    """

    name: str
    said: str
    rests: str
    chart: Small
    keep: str
    keep_said: str
    move: str


def charts_of(person: Person, facts: tuple[Fact, ...]) -> list[Chart]:
    """The facts of somebody, the newest first."""
    return [
        _chart(person, one) for one in sorted(facts, key=lambda one: one.days[-1][0], reverse=True)
    ]


def _chart(person: Person, fact: Fact) -> Chart:
    shown = fact.shown
    keep, keep_said = _kept(person, fact)
    return Chart(
        shown.name,
        SAID[shown.what].format(value=number(shown.value), unit=shown.unit),
        _rests(fact),
        small(FIGURES[shown.what], fact.days, shown.value, AXIS[shown.what]),
        keep,
        keep_said,
        shown.move,
    )


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
