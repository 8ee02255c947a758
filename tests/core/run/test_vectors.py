"""What a screen foretells is what the fold then says: the browser walks the same drawn classes, moment by moment."""

import json
import subprocess
from pathlib import Path
from random import Random
from typing import Any

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.foretold import moment
from lovrit.core.run.frozen import freeze
from lovrit.core.run.saying import big_clock
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked
from lovrit.house.telling import Told, state_object
from tests.core.run.ran import T0, fold_of
from tests.core.run.test_lanes import COOL, STRUCTURES

NODE = Path(__file__).parents[3] / "tests" / "scripts" / "vectors.mjs"
LAID = [
    "start",
    "hold",
    "resume",
    "next",
    "longer",
    "end",
]  # presses that a screen lays on what was foretold
PEOPLE = tuple(
    Comer(id=nth, name=f"P{nth}", initials=f"P{nth}", group=nth % 3) for nth in range(1, 8)
)


def shown(fold: Fold, at_ms: int) -> dict[str, Any]:
    """What a screen should say at a moment."""
    going = fold.at((at_ms - T0) / 1000)
    if going.phase == "over":
        return {"phase": "over"}
    if going.phase == "ready":
        return {"phase": "ready"}
    clock = big_clock(going)
    held, going.phase = going.phase, "on"
    return {
        "phase": held,
        "place": going.place,
        "says": moment(going).says,
        "clock": round(clock.s * 1000),
        "up": clock.kind == "up",
    }


def told(fold: Fold, at_ms: int) -> dict[str, Any]:
    stands = Told(fold, fold.at((at_ms - T0) / 1000), T0, PEOPLE)
    return json.loads(json.dumps(state_object(stands, at_ms, "coach", 80)))


def drawn(chance: Random) -> dict[str, Any]:
    """A class of a few blocks, looked at ahead, pressed, and looked at again."""
    text = "\n\n".join([*chance.sample(STRUCTURES, chance.randint(1, 3)), COOL])
    frozen, events, at = freeze(plan_text(text, shipped())), [], T0
    fold = fold_of(frozen, events, PEOPLE)
    steps = []
    for nth, kind in enumerate(
        ["start", *(chance.choice(LAID) for _ in range(chance.randint(0, 6)))]
    ):
        at += chance.choice([300, 1400, 5000, 17_000, 61_000])
        view = told(fold, at)
        looks = [at + ahead for ahead in (0, 100, 4900, 33_300, 200_000)]
        ahead = [[look, shown(fold, look)] for look in looks]
        press: dict[str, Any] = {"id": str(nth), "kind": kind, "at_ms": at + 50}
        here = fold.at((at + 50 - T0) / 1000)
        press |= {"place": here.place} if kind in ("next", "longer") else {}
        press |= {"seconds": chance.choice([10, -10, 30])} if kind == "longer" else {}
        sure = (
            not here.lanes or here.floor.lanes == "all"
        )  # of other lanes a screen leaves it to the server
        fold.take(happening(checked(Event, press), T0))
        after = [[look + 50, shown(fold, look + 50)] for look in looks] if sure else []
        steps.append({"view": view, "ahead": ahead, "press": press, "after": after})
    return {"text": text, "steps": steps}


def test_what_a_screen_foretells_is_what_the_fold_then_says() -> None:
    cases = [drawn(Random(seed)) for seed in range(250)]
    states = [
        look[1]["phase"] for case in cases for step in case["steps"] for look in step["after"]
    ]
    assert {"on", "held", "over"} <= set(states)
    done = subprocess.run(
        ["node", str(NODE)], input=json.dumps(cases), capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr[-3000:]
    assert done.stdout.strip() == "250 cases"
