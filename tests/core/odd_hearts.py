"""Hearts of other kinetics than the forecast's, what people do unlike the plan, and what straps do to a signal.

The forecast is three exponentials and a delay; here a heart runs after its aim at a speed of its own that tires, and
comes down in two parts, one at once and one slowly. So what holds here holds not only for hearts that are ours.
"""

from random import Random
from typing import Any

import numpy as np

from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.hearts import Floats
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import Plan, plan_text

SESSIONS = {
    "usual": "warm-up 5:00 at 3\n8 x 60/60 at 8\n\nrest 2:00\n\n6 x 30/30 at 9\n\ncool-down 4:00 at 2",
    "long": "warm-up 5:00 at 3\n4 x 3:00/2:00 at 8\n\ncool-down 4:00 at 2",
    "laps": "warm-up 5:00 at 3\neasy laps 15:00 at 3\n\ncool-down 4:00 at 1",
    "hard": "warm-up 5:00 at 3\n4 x 4:00/3:00 at 8\n\ncool-down 4:00 at 2",
    "sprints": "warm-up 6:00 at 3\n6 x 15/75 at 10\n\ncool-down 4:00 at 2",
    "steady": "warm-up 5:00 at 3\nlaps 15:00 at 5\n\ncool-down 4:00 at 2",
}
HEART = {"rest": 58.0, "highest": 188.0, "on": 28.0, "off": 60.0}


def plan_of(name: str) -> Plan:
    return plan_text(SESSIONS[name], shipped())


def demands(plan: Plan) -> Floats:
    """What is asked in each second."""
    asked = np.zeros(plan.timeline.total_s + 1)
    for one in plan.timeline.intervals:
        asked[one.start_s : one.end_s + 1] = interval_demand(plan.session, one)
    return asked


def beating(asked: Floats, heart: dict[str, float], seed: int, noise: float = 1.0) -> Floats:
    """Beats a minute, second by second, with a heart's own unrest."""
    chance = Random(seed)
    at, tired, unrest = 0.12, 0.0, 0.0
    found = np.zeros(len(asked))
    aim_s = 8.0  # what is asked arrives at the heart over some seconds
    aim = asked[0]
    for second, demand in enumerate(asked):
        aim += (demand - aim) / aim_s
        apart = min(1.15, aim) - at
        # up: after its aim, quicker where far away; down: a third at once, the rest slowly
        pace = heart["on"] * (1 - 0.3 * min(1.0, abs(apart))) if apart > 0 else 0
        if apart < 0:
            pace = heart["off"] * (0.75 if apart < -0.25 else 1.25)
        at += apart / pace if apart else 0.0
        tired += max(0.0, at - 0.6) * 0.004
        unrest = 0.9 * unrest + chance.gauss(0, 0.45 * noise)
        top = heart["rest"] + (heart["highest"] - heart["rest"]) * min(0.995, at) + min(9.0, tired)
        found[second] = min(heart["highest"], top) + unrest
    return found


def did(asked: Floats, things: list[list[Any]]) -> Floats:
    """What was done instead of what was asked."""
    done = asked.copy()
    for kind, first, last, *figure in things:
        if kind == "stands":
            done[first:last] = 0.12
        elif kind == "lies":
            done[first:last] = 0.0
        elif kind == "harder":
            done[first:last] = 0.85
        elif kind == "later":
            done = np.concatenate([np.full(figure[0], 0.12), asked])[: len(asked)]
    return done


def felt(beats: Floats, things: list[list[Any]]) -> Floats:
    """What the evening does to a heart, whatever is done."""
    told = beats.copy()
    for kind, first, last, *figure in things:
        here = np.arange(first, min(last, len(told)))
        if kind == "lifted":
            ramp = np.minimum(1, np.minimum(here - first + 1, here[-1] - here + 1) / 12)
            told[here] += figure[0] * (ramp if last < 9999 else 1)
        elif kind == "waves":
            told[here] += figure[0] * np.sin(here / 14 * 2 * np.pi)
    return told


def _wild(here: Floats, by: float, chance: Random) -> list[int]:
    return [round(one + chance.choice([-1, 1]) * chance.uniform(0.5, 1) * by) for one in here]


# what a strap makes of a stretch: from the true beats, what it told so far, the figure, the heart, chance
STRAP: dict[str, Any] = {
    "gone": lambda true, told, by, heart, chance: 0,
    "missing": lambda true, told, by, heart, chance: np.nan,
    "set": lambda true, told, by, heart, chance: by,
    "stuck": lambda true, told, by, heart, chance: told[0],
    "add": lambda true, told, by, heart, chance: told + by,
    "times": lambda true, told, by, heart, chance: np.round(true * by),
    "of-highest": lambda true, told, by, heart, chance: np.round(true / heart["highest"] * 100),
    "of-reserve": lambda true, told, by, heart, chance: np.round(
        (true - heart["rest"]) / (heart["highest"] - heart["rest"]) * 100
    ),
    "steps": lambda true, told, by, heart, chance: [round(by + chance.gauss(0, 1)) for _ in true],
    "wild": lambda true, told, by, heart, chance: _wild(true, by, chance),
    "every-two": lambda true, told, by, heart, chance: np.where(
        np.arange(len(true)) % 2, np.nan, told
    ),
}


def strapped(beats: Floats, things: list[list[Any]], heart: dict[str, float], seed: int) -> Floats:
    """What the strap tells of a heart."""
    chance = Random(seed + 77)
    told = np.round(beats)
    for kind, first, last, *figure in things:
        here = slice(first, min(last, len(told)))
        by = figure[0] if figure else 0
        told[here] = STRAP[kind](beats[here], told[here], by, heart, chance)
    return told


def trace_of(case: dict[str, Any], seed: int) -> tuple[Floats, Plan, dict[str, float]]:
    """A case's trace, the plan that it is of, and the heart as it is known."""
    plan = plan_of(case.get("session", "usual"))
    heart = HEART | case.get("heart", {})
    done = did(demands(plan), case.get("did", []))
    beats = felt(beating(done, heart, seed, case.get("noise", 1.0)), case.get("did", []))
    told = strapped(beats, case.get("strap", []), heart, seed)
    return told, plan, heart | case.get("known", {})
