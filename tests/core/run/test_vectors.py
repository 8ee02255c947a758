"""The browser's fold is the Python one: both go through the same drawn classes, moment by moment."""

import json
import subprocess
from pathlib import Path
from random import Random
from typing import Any

from lovrit.core.run.event import Event
from lovrit.core.run.state import Class, advance, begin, place_of, take
from lovrit.core.values import checked

NODE = Path(__file__).parents[3] / "tests" / "scripts" / "vectors.mjs"
KINDS = [
    "start",
    "hold",
    "resume",
    "next",
    "back",
    "longer",
    "end",
    "goes-on",
    "next",
    "longer",
    "mark",
]
SHOWN = (
    "phase",
    "interval",
    "place_ms",
    "since_ms",
    "lengths_ms",
    "started_ms",
    "over_ms",
    "ended_from",
)
T0 = 1_800_000_000_000


def shown(state: Class) -> dict[str, Any]:
    return {name: json.loads(json.dumps(getattr(state, name))) for name in SHOWN}


def drawn(chance: Random) -> dict[str, Any]:
    """A class of a few intervals, pressed at any moments, also late ones, with places that are and aren't right."""
    state = begin([chance.choice([5, 10, 20, 40]) for _ in range(chance.randint(1, 6))])
    start, steps, at = shown(state), [], T0
    kinds = ["start", *(chance.choice(KINDS) for _ in range(chance.randint(0, 14)))]
    for nth, kind in enumerate(kinds):
        at += chance.choice([-2000, 0, 300, 1400, 5000, 17_000, 61_000])
        here = place_of(advance(state, at))
        place = chance.choice([None, here, here, here + 1, here - 1 if here >= 0 else here])
        press: dict[str, Any] = {"id": str(nth), "kind": kind, "at_ms": at}
        press |= {"place": place} if place is not None else {}
        press |= (
            {"seconds": chance.choice([10, -10, 0, 30])}
            if kind == "longer" and chance.random() < 0.6
            else {}
        )
        state = take(state, checked(Event, press)).state
        now = state.since_ms + chance.choice([0, 100, 4900, 30_000, 200_000])
        steps.append(
            {
                "press": press,
                "now": now,
                "after": shown(state),
                "looked": shown(advance(state, now)),
            }
        )
    return {"start": start, "steps": steps}


def test_the_screens_fold_says_what_the_servers_says() -> None:
    cases = [drawn(Random(seed)) for seed in range(600)]
    assert any(step["after"]["phase"] == "over" for case in cases for step in case["steps"])
    done = subprocess.run(
        ["node", str(NODE)], input=json.dumps(cases), capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr[-3000:]
    assert done.stdout.strip() == "600 cases"
