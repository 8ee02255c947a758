"""A class as it was left, and what of it many sentences rest on: scores as said or tapped, repeats, forecasts."""

from dataclasses import dataclass, field
from typing import NamedTuple

from lovrit.core.clock import clock, read_clock
from lovrit.core.run.account import done_taps, repeats_taken
from lovrit.core.run.classplan import ClassPlan
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.going import Going, Happening
from lovrit.core.timeline.plan import Plan


class Clause(NamedTuple):
    """A sentence of the paragraph, the figures that stand behind it, and how much it weighs beside others."""

    text: str
    figures: tuple[str, ...] = ()
    weight: int = 0


class Heart(NamedTuple):
    """What a heart says of somebody's class: turns over their box of all that were read, the highest it held, of what.

    ``highest`` is what was measured of them; None where it is from age, or where the heart can't be trusted.
    """

    over: int = 0
    turns: int = 0
    held: int | None = None
    highest: int | None = None


@dataclass(frozen=True)
class After:
    """A class as it was left: the plan it began with, how it stands, what counted, what people are called.

    ``lost`` is the share of each heart that doesn't hold, with why, for those who wore a strap; ``drifted`` by how many
    beats a turn hearts went up at equal work. ``hearts`` is what each says of the class, ``changed`` who changed beyond
    what the evening did to everybody, in words.
    """

    begun: ClassPlan
    laid: Plan | Frozen
    going: Going
    counted: tuple[Happening, ...]
    names: dict[str, str]
    lost: dict[str, tuple[float, str]] = field(default_factory=dict)
    hearts: dict[str, Heart] = field(default_factory=dict)
    changed: tuple[str, ...] = ()
    drifted: dict[str, float] = field(default_factory=dict)

    def into(self, at_s: float) -> str:
        """A moment as time into the class."""
        return clock(max(0, round(at_s - (self.going.started_s or 0))))

    def called(self, who: str) -> str:
        """What somebody is called."""
        return self.names.get(who, who)


def scored(after: After, at: int) -> list[tuple[str, str]]:
    """Who scored what in a block: as it was said, else as it was tapped."""
    going = after.going
    said = [
        ("" if one["person"] is None else after.called(str(one["person"])), str(one["text"]))
        for one in going.scores
        if one["block"] == at
    ]
    tapped = [
        (after.called(lane), f"{many} round{'s' if many != 1 else ''}")
        for (block, lane), many in going.rounds.items()
        if block == at
    ]
    return said or tapped or done_at(after, at)


def done_at(after: After, at: int) -> list[tuple[str, str]]:
    """When lanes tapped that they were done, as time into their block."""
    return [
        (after.called(lane), clock(round(took)))
        for block, lane, took in done_taps(after.going)
        if block == at
    ]


def repeats(after: After, at: int) -> dict[str, list[float]]:
    """How long each repeat took, by lane, in seconds: as it was tapped, else as all of them were said."""
    taken = repeats_taken(after.going)
    tapped = {lane: took for (block, lane), took in taken.items() if block == at}
    said = {
        str(one["person"]): [float(read_clock(time)) for time in str(one["text"]).split()]
        for one in after.going.scores
        if one["block"] == at and one["person"] is not None and _times(str(one["text"]))
    }
    return tapped | said


def _times(text: str) -> bool:
    return len(text.split()) > 1 and all(":" in one for one in text.split())


def forecast_said(after: After, at: int) -> str:
    """What was forecast of a block; empty where nobody could."""
    forecast = after.laid.timeline.blocks[at].forecast
    if forecast and forecast.rounds:
        low, _, high = forecast.rounds
        return f"{int(low)} to {int(high)} rounds"
    if forecast and forecast.time_s:
        low_s, _, high_s = forecast.time_s
        return f"{clock(low_s)} to {clock(high_s)}"
    return ""


MOST_NAMED = 6


def called_all(listed: list[str]) -> str:
    """Some of a list by name, and how many more there are."""
    more = len(listed) - MOST_NAMED
    return ", ".join(listed[:MOST_NAMED]) + (f" and {more} more" if more > 0 else "")
