"""A tester's rate scaled to the group: what the whole group is likely to do, by what one or two did.

A tester takes so long where a usual person takes 1 (their own scores say so; else they count as usual);
what the block took them beyond that is the block's own, and the group takes it too. It rests on few, so its band is
wider than one from the group itself: by half in logarithms, ours, to be checked.
"""

from math import exp, log, sqrt
from typing import NamedTuple

from lovrit.core.blocks.worktime import SPREAD
from lovrit.core.clock import clock
from lovrit.core.forecast.learned import USUAL, Quickness
from lovrit.core.timeline.plan import Plan, plan_text

WIDER = 1.5
THREE_OF_FOUR = 0.6745  # of a normal distribution: three in four are below so many spreads


class Scaled(NamedTuple):
    """What a group is likely to do, low, likely, high, in words; and what the plan alone had forecast."""

    said: str
    alone: str


def slower_than(tester: Quickness | None, group: list[Quickness], club: float) -> float:
    """How long the slowest of three in four take where the tester takes 1, 1 at the least.

    ``club`` is the pace of those of whom nothing is known. What is left of the spread between people follows from how
    many scores stand behind each (learned.py).
    """
    mine = tester.factor if tester and tester.rests_on else club
    there = group or [Quickness(factor=club)]
    logs = [log(one.factor if one.rests_on else club) for one in there]
    mean = sum(logs) / len(logs)
    between = sum((one - mean) ** 2 for one in logs) / len(logs)
    left = sum(SPREAD**2 * USUAL / (USUAL + one.rests_on) for one in there) / len(there)
    return max(1.0, exp(mean + THREE_OF_FOUR * sqrt(between + left)) / mine)


def scaled(plan: Plan, at: int, score: str, tester: Quickness | None) -> Scaled | None:
    """What the group is likely to do in a block, by a tester's score; None where that says nothing of a rate."""
    library = plan.library
    ratio = plan.session.blocks[at].pace_of(score, library.at_pace(1.0, 0)) if score else None
    if not ratio:
        return None
    own = tester.factor if tester and tester.rests_on else 1.0
    slower = library.at_pace(library.pace * ratio / own, library.rests_on)
    alone, by_try = plan, plan_text(plan.reading.text, slower)
    told = _said(by_try, at, WIDER)
    return Scaled(told, _said(alone, at, 1.0)) if told else None


def _said(plan: Plan, at: int, wider: float) -> str:
    forecast = plan.timeline.blocks[at].forecast
    if forecast and forecast.rounds:
        low, likely, high = _band(forecast.rounds, wider)
        return f"{low:.0f} to {high:.0f} rounds, likely {likely:.0f}"
    if forecast and forecast.time_s:
        low, likely, high = _band(forecast.time_s, wider)
        return f"{clock(round(low))} to {clock(round(high))}, likely {clock(round(likely))}"
    return ""


def _band(told: tuple[float, float, float], wider: float) -> tuple[float, float, float]:
    low, likely, high = (max(one, 0.1) for one in told)
    return likely * (low / likely) ** wider, likely, likely * (high / likely) ** wider
