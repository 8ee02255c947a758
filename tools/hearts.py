"""Hearts: how quick the sums are beside a stated baseline, and how true they are of hearts that are not ours.

The people are of other kinetics than the forecast's, and the seed is today's unless one is given, so nothing was tuned
on them. What is bad is printed like what is good.
"""

import argparse
import os
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from random import Random
from typing import Any

import numpy as np
from fastapi.testclient import TestClient
from scipy.signal import lfilter

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.core.odd_hearts import beating, demands

from lovrit.core.crew.person import Person
from lovrit.core.heart.asked import interval_demand
from lovrit.core.heart.clean import Known, clean
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.heart.hearts import Floats, ManyHearts, company
from lovrit.core.heart.learn import Evening, error, learn, learnt_body
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.formats.trace_reader import read_traces
from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.straps.faults import Player
from lovrit.web.app import create_app
from lovrit.web.desk.corridor import corridor_strip
from lovrit.web.desk.rails import rails_view

PEOPLE, SECONDS = 50, 3600
HOUR = (
    "warm-up 8:00 at 3\n"
    + "3 rounds of 40/20, break 2:00, at 8\n"
    + "".join(f"  {name}\n" for name in ("squat", "ring row", "lunge", "push-up", "plank", "swing"))
    + "10 x 60/60 at 8\ncool-down 4:00 at 2"
)
KINDS = ("drops", "slips", "per cent", "doubled", "steps")
MEANT = {
    "drops": "dropout",
    "slips": "spike",
    "per cent": "per cent",
    "doubled": "doubled",
    "steps": "steps",
}


def say(text: str) -> None:
    """A line of what is."""
    sys.stdout.write(f"{text}\n")
    sys.stdout.flush()


def timed(what: Callable[[], object], times: int) -> tuple[float, float]:
    """The middle and the 95th of a hundred, in milliseconds."""
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        what()
        spent.append((time.perf_counter() - begun) * 1000)
    spent.sort()
    return statistics.median(spent), spent[min(len(spent) - 1, round(0.95 * len(spent)))]


def speeds() -> None:
    """Sums beside their baselines."""
    plan = plan_text(HOUR, shipped())
    bodies = company(body_of(Person(id=0, name="", initials="")), PEOPLE, 6, 9)
    steps = [(one.seconds, interval_demand(plan.session, one)) for one in plan.timeline.intervals]

    def lines() -> Floats:
        return ManyHearts(bodies).line(steps)

    bare = np.random.default_rng(1).random((PEOPLE, plan.timeline.total_s))
    own, _ = timed(lines, 15)
    base, _ = timed(lambda: lfilter([0.03], [1, -0.97], bare, axis=1), 15)
    say(
        f"forecast of {PEOPLE} people, {plan.timeline.total_s} s at 1 Hz: {own:.1f} ms, "
        f"{own / base:.1f} times a bare lfilter ({base:.1f} ms); aim 6"
    )
    people = [
        Person(id=nth, name="", initials="", rest_hr=60, max_hr=180 + nth) for nth in range(18)
    ]
    rails = rails_view(plan, 6, 2, 0)
    assert rails
    middle, worst = timed(lambda: corridor_strip(plan, rails, people), 40)
    say(f"corridor strip of 18 people, last long block: {middle:.1f} ms, p95 {worst:.1f}; aim 50")
    asked = tuple(steps)
    trace = lines()[0]
    trace = trace + np.random.default_rng(2).normal(0, 2, len(trace))
    body = body_of(Person(id=0, name="", initials=""))
    hour = Evening(asked, trace)
    from lovrit.core.heart.learn import _fit

    middle, worst = timed(lambda: _fit(body, [hour]), 10)
    say(f"one person's hour fitted: {middle:.0f} ms, p95 {worst:.0f}; aim 200")
    long = np.tile(np.round(lines()[0]), 2)[:SECONDS]
    forecast = np.tile(lines()[1], 2)[:SECONDS]
    middle, _ = timed(lambda: [clean(long, Known(forecast)) for _ in range(50)], 3)
    say(f"50 hours of traces cleaned: {middle / 1000:.2f} s; aim 1")
    text = "second,bpm\n" + "".join(f"{at},{bpm:.0f}\n" for at, bpm in enumerate(long))
    middle, _ = timed(lambda: [read_traces(text) for _ in range(50)], 3)
    say(f"50 one-hour files read: {middle / 1000:.2f} s; aim 2")


def door(minutes: int = 10, straps: int = 50) -> None:
    """Fifty straps through the entry: what is lost, what it takes, whether memory grows."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Settings(data=Path(folder)), Database(Path(folder) / "club.sqlite"))
        client = TestClient(app, base_url="http://127.0.0.1")
        now = round(time.time() * 1000)
        begun, cpu = now - minutes * 60_000, time.process_time()
        taken, grown = 0, []
        kept: dict[str, int] = {}
        for second in range(minutes * 60):
            at_ms = begun + second * 1000
            told = [{"id": f"S{nth}", "bpm": 90 + nth, "at_ms": at_ms} for nth in range(straps)]
            taken += client.post("/straps/beats", json={"straps": told}).json()["taken"]
            if second % 60 == 59:
                grown.append(_memory_kb())
                for nth in range(straps):
                    since, kept[f"S{nth}"] = app.state.house.outside.since(
                        f"S{nth}", kept.get(f"S{nth}", 0)
                    )
                    assert len(since) == 60
        share = (time.process_time() - cpu) / (minutes * 60)
        say(
            f"{straps} straps at 1 Hz for {minutes} minutes: {taken} of {straps * minutes * 60} taken, lost "
            f"{straps * minutes * 60 - taken}; {share:.1%} of one core (client and server together); "
            f"memory from {grown[1] / 1024:.0f} to {grown[-1] / 1024:.0f} MB"
        )


def _memory_kb() -> int:
    lines = Path("/proc/self/status").read_text().splitlines()
    return int(next(line for line in lines if line.startswith("VmRSS")).split()[1])


def someone(chance: Random) -> dict[str, float]:
    """A person of other kinetics."""
    return {
        "rest": round(chance.gauss(60, 6)), "highest": round(chance.gauss(186, 9)),
        "on": 28 * np.exp(chance.gauss(0, 0.3)), "off": 60 * np.exp(chance.gauss(0, 0.35)),
    }  # fmt: skip


def session(chance: Random) -> Plan:
    """An evening as clubs have them."""
    work, rest = chance.choice([(40, 20), (60, 60), (30, 30), (90, 90), (120, 120), (180, 120)])
    effort = chance.choice([7, 7.5, 8, 8.5])
    times = max(4, 1000 // (work + rest))
    text = (
        f"warm-up {chance.randint(5, 9)}:00 at 3\n{times} x {work}/{rest} at {effort}\n\nrest 2:00\n\n"
        "6 x 60/120 at 8\n\ncool-down 4:00 at 2"
    )
    return plan_text(text, shipped())


def truth_of_learning(seed: int, people: int = 40) -> None:
    """How far the forecast is off before and after classes, on an evening that nobody saw."""
    chance = Random(seed)
    errors: dict[int, list[float]] = {0: [], 1: [], 3: [], 6: []}
    used = dict.fromkeys((1, 3, 6), 0)
    for _ in range(people):
        heart = someone(chance)
        known = Person(id=1, name="", initials="", rest_hr=round(heart["rest"]), age=35)
        evenings = [evening(chance, heart, known) for _ in range(7)]
        start = body_of(known)
        errors[0].append(error(start, evenings[6]))
        for count in (1, 3, 6):
            fit = learn(start, evenings[:count])
            used[count] += fit is not None
            errors[count].append(error(learnt_body(start, fit), evenings[6]))
    told = ", ".join(
        f"{statistics.median(errors[count]):.1f} after {count}"
        + (f" ({used[count]} of {people} used)" if count else "")
        for count in errors
    )
    say(
        f"forecast off by (median RMSE, beats; highest from age; other kinetics; seed {seed}): {told}"
    )


def evening(chance: Random, heart: dict[str, float], known: Person) -> Evening:
    """An evening of somebody, clean but for what cleaning takes out."""
    plan = session(chance)
    told = np.round(beating(demands(plan), heart, chance.randrange(10**9)) + chance.gauss(0, 3))
    line = foresee(plan, known, body_of(known)).bpm
    asked = tuple(
        (one.seconds, interval_demand(plan.session, one)) for one in plan.timeline.intervals
    )
    return Evening(asked, clean(told, Known(line, None, known.rest, known.highest)).clean)


def truth_of_cleaning(seed: int, each: int = 30) -> None:
    """Precision and recall of each detector, by seconds; faults are those that the played straps make."""
    chance = Random(seed + 1)
    hits: dict[str, list[int]] = {}
    false, clean_seconds = 0, 0
    for kind in (*KINDS, "steady"):
        found = wrong = missed = named = 0
        for _ in range(each):
            heart, plan = someone(chance), session(chance)
            true = np.round(beating(demands(plan), heart, chance.randrange(10**9)))
            player = Player(kind, round(heart["highest"]), chance)
            told = np.array([player.second(int(bpm)) for bpm in true], dtype=float)
            known = Person(
                id=1,
                name="",
                initials="",
                rest_hr=round(heart["rest"]),
                max_hr=round(heart["highest"] + chance.gauss(0, 5)),
            )
            line = foresee(plan, known, body_of(known)).bpm
            cleaned = clean(told, Known(line, None, known.rest, known.highest))
            marked = np.isnan(cleaned.clean)
            bad = np.abs(told - true) > 9
            found += int((marked & bad).sum())
            wrong += int((marked & ~bad).sum())
            missed += int((~marked & bad).sum())
            for fault in cleaned.faults:
                named += (
                    int(bad[fault.start_s : fault.end_s + 1].sum())
                    if fault.kind == MEANT.get(kind)
                    else 0
                )
            if kind == "steady":
                false, clean_seconds = false + int(marked.sum()), clean_seconds + len(true)
        if kind != "steady":
            hits[kind] = [found, wrong, missed, named]
    for kind, (found, wrong, missed, named) in hits.items():
        recall, precision = found / max(1, found + missed), found / max(1, found + wrong)
        say(
            f"  {kind}: recall {recall:.2f}, precision {precision:.2f}, "
            f"named right {named / max(1, found + missed):.2f}"
        )
    say(f"  nothing wrong: {false / max(1, clean_seconds):.2%} of seconds marked all the same")


def main() -> None:
    """All of it."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--seed", type=int, default=int(time.time()) // 86_400)
    asked: Any = parser.parse_args()
    os.environ.setdefault("LOVRIT_LOG_JSON", "1")
    speeds()
    door()
    truth_of_learning(asked.seed)
    say(f"faults found, by seconds (seed {asked.seed + 1}):")
    truth_of_cleaning(asked.seed)


if __name__ == "__main__":
    main()
