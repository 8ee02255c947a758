"""Placing, measured: ten halls from seeds of each size, the gain over one greedy start, the fit sheet, pages meanwhile.

Nothing here passes or fails: it prints what is. The halls are made up; the numbers of people and stations are those of
clubs.
"""

import statistics
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path
from random import Random

from fastapi.testclient import TestClient

from lovrit.core.crew.groups import deal as dealt_by_hand
from lovrit.core.place.groups import deal
from lovrit.core.place.order import cost_of
from lovrit.core.place.place import place
from lovrit.core.place.problem import Mover, Problem, Spot, Station
from lovrit.core.place.search import Costs, _greedy, _improved, quick
from lovrit.settings import Settings
from lovrit.store import people
from lovrit.store.database import Database
from lovrit.web.app import create_app

HALLS = 10
SIZES = ((8, 24), (10, 30), (12, 50))
SECONDS = 5.0
PATTERNS = ("squat", "hinge", "push", "pull", "brace", "carry", "whole-body")
MOVES = (
    "goblet squat | bell 16 12 8", "ring row", "push-up", "rope skip or side step", "dead bug", "swing | bell 16 12",
    "bench step-up", "plank", "side lunge", "loaded carry | 2 bell 12", "squat", "mountain climber",
)  # fmt: skip


def hall(seed: int, stations: int, crowd: int) -> Problem:
    """A hall, its stations and who comes, always the same for a seed."""
    draw = Random(seed)
    weighed = [draw.random() < 0.5 for _ in range(stations)]
    made = tuple(
        Station(
            f"s{nth}",
            draw.choice(PATTERNS),
            grip=draw.random() < 0.3,
            floor=draw.random() < 0.3,
            hard=draw.random() < 0.3,
            kit=(("bell", 1),) if weighed[nth] else (),
            move=f"s{nth}",
        )
        for nth in range(stations)
    )
    ids = [f"p{nth}" for nth in range(crowd)]
    movers = tuple(
        Mover(
            who,
            draw.randint(1, 5),
            loads={one.move: draw.choice((8.0, 12.0, 16.0)) for one in made},
            together=frozenset(draw.sample(ids, 1)) - {who} if draw.random() < 0.2 else frozenset(),
            apart=frozenset(draw.sample(ids, 1)) - {who} if draw.random() < 0.1 else frozenset(),
        )
        for who in ids
    )
    spots = tuple(
        Spot(f"x{nth}", draw.uniform(0, 22), draw.uniform(0, 14)) for nth in range(stations + 3)
    )
    each = -(-crowd // stations) * sum(weighed)
    kit = {("bell", load): max(2, round(each * 0.55)) for load in (8.0, 12.0, 16.0)}
    return Problem(made, movers, spots, kit, rest_s=25, groups=stations)


def timed(work: Callable[[], object]) -> tuple[float, object]:
    """Seconds that something takes, and what came of it."""
    start = time.perf_counter()
    found = work()
    return time.perf_counter() - start, found


def halls() -> None:
    """Time to a placing and to its proof, how many were proven, and what is gained over one greedy start."""
    for stations, crowd in SIZES:
        first, whole, proven, ordered, gains = [], [], 0, 0, []
        for seed in range(HALLS):
            problem = hall(seed, stations, crowd)
            begun, plan = timed(lambda p=problem: quick(p))
            if plan is None:
                continue
            groups, _ = timed(lambda p=problem, order=plan[0]: deal(p, order, SECONDS))
            first.append(begun + groups)
            seconds, found = timed(lambda p=problem: place(p, SECONDS))
            whole.append(seconds)
            if found:
                proven += found.proven
                ordered += found.laid.proven
                gains.append(1 - found.laid.cost / once(problem))
        say(
            f"{HALLS} halls of {stations} stations, {crowd} people: a placing in {said(first)}; with proof "
            f"{said(whole)}; {proven} of {len(whole)} proven in {SECONDS:g} s, order and spots alone {ordered}; "
            f"{statistics.median(gains or [0]):.0%} better than one greedy start with exchanges (median)"
        )


def once(problem: Problem) -> float:
    """What one greedy start with exchanges costs: the baseline."""
    costs = Costs(problem)
    for spot in range(len(problem.spots)):
        plan = _greedy(problem, costs, 0, spot)
        if plan:
            return max(1.0, _improved(costs, plan, len(problem.spots))[0])
    plan = quick(problem)
    return max(1.0, cost_of(problem, *plan)) if plan else 1.0


def said(seconds: list[float]) -> str:
    """Median and worst."""
    return (
        f"{statistics.median(seconds):.2f} s, at worst {max(seconds):.2f} s" if seconds else "none"
    )


def pages() -> None:
    """The fit sheet redrawn, and a page asked for while a placing runs, beside the same page before."""
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "lovrit.sqlite")
        app = create_app(Settings(data=Path(folder)), database)
        with TestClient(app, base_url="http://127.0.0.1") as client:
            text = "6 rounds of 40/20\n" + "".join(f"  {move}\n" for move in MOVES)
            session = int(client.post("/desk", data={"text": text}).url.path.rsplit("/", 1)[1])
            with database.work() as work:
                ids = [people.add_person(work, f"Person {nth}").id for nth in range(60)]
                people.set_comers(work, session, dealt_by_hand(ids, 12))
            for nth in range(14):
                where = {"added": "1", "x": str(nth % 5 * 4), "y": str(nth // 5 * 4)}
                client.post(f"/hall/{session}/draw", data=where, headers={"x-lovrit": "1"})
            step = {"do": "easier", "person": str(ids[0]), "station": "0"}
            client.get(f"/crew/{session}/fit")
            sheet = [
                timed(
                    lambda: client.post(
                        f"/crew/{session}/fit", data=step, headers={"x-lovrit": "1"}
                    )
                )[0]
                for _ in range(20)
            ]
            before = [timed(lambda: client.get("/people"))[0] for _ in range(30)]
            placing = threading.Thread(target=lambda: client.post(f"/hall/{session}/place"))
            placing.start()
            meanwhile = []
            while placing.is_alive():
                meanwhile.append(timed(lambda: client.get("/people"))[0])
            placing.join()
    say(f"fit sheet, 60 people by 12 stations, a step and its redraw: {ms(sheet)}")
    say(
        f"a page of 60 people: {ms(before)}; while a placing runs {ms(meanwhile)}, asked {len(meanwhile)} times"
    )


def ms(seconds: list[float]) -> str:
    """Median and 95th of a hundred, in milliseconds."""
    row = sorted(seconds)
    return f"{statistics.median(row) * 1000:.0f} ms, p95 {row[min(len(row) - 1, int(len(row) * 0.95))] * 1000:.0f}"


def say(text: str) -> None:
    """Print a figure as soon as it is known."""
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


if __name__ == "__main__":
    halls()
    pages()
