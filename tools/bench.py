"""Speed and memory, each with its baseline, in one run. Nothing here passes or fails: it prints what is."""

import asyncio
import gzip
import json
import os
import resource
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path

import httpx
import uvicorn
from fastapi import Request

from lovrit.core.advice.company import Company
from lovrit.core.advice.look import RULES, second_look
from lovrit.core.crew.groups import deal
from lovrit.core.fit.fit import Wish, fit
from lovrit.core.forecast.group import Someone
from lovrit.core.moves.library import shipped
from lovrit.core.session.grammar import reads
from lovrit.core.session.reader import read
from lovrit.core.slate.remembered import forget_all
from lovrit.core.timeline.lay import lay
from lovrit.core.timeline.plan import plan_text
from lovrit.demo.club import fill
from lovrit.settings import Settings
from lovrit.store import people, sessions
from lovrit.store.database import Database
from lovrit.store.tables import PersonRow
from lovrit.web.app import create_app
from lovrit.web.desk.panel import crowd_said
from lovrit.web.desk.view import People, desk_view
from lovrit.web.pages import page

PORT = 8498
SCREENS = 60
URL = f"http://127.0.0.1:{PORT}"
HOUR = """title: An hour
slot: 62:00
people: 50

warm-up 8:00 at 3
  easy laps

3 rounds of 40/20, break 1:00, at 8
  goblet squat | bell 16 12 8
  ring row | rings
  bench step-up, each side | bench
  rope skip or side step
  dead bug | mat
  loaded carry | 2 bell 12
  side lunge
  push-up

rest 1:00

every 1:00 for 12:00 at 7
  8 push-up
  10 swing

6 x 30/60 at 9
  shuttle run

cool-down 2:00 at 2
"""


def say(text: str) -> None:
    """A line of the report."""
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


def quantile(values: list[float], share: float) -> float:
    """A quantile of what was measured."""
    return sorted(values)[min(len(values) - 1, int(len(values) * share))]


def timed(what: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each of so many calls."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        what()
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def forget() -> None:
    """Empty the memory of lines, so that reading is cold."""
    forget_all()
    reads.cache_clear()


def core() -> None:
    """Reading, laying out, looking twice, drawing, each apart."""
    long = HOUR + "\n".join(
        f"3 rounds of 4{n % 10}/20, break 1:00\n  {n} squat\n  row\n  plank\n" for n in range(36)
    )
    library = shipped()
    lines = len(long.splitlines())

    def cold() -> None:
        forget()
        read(long)

    cold_ms = statistics.median(timed(cold, 5))
    reading = read(long)
    warm_ms = statistics.median(timed(lambda: read(long), 9))
    say(f"slate of {lines} lines: read cold {cold_ms:.1f} ms, warm {warm_ms:.1f} ms")
    say(f"  lay out {statistics.median(timed(lambda: lay(reading.session, library), 9)):.1f} ms")
    plan = plan_text(long, library)
    say(
        f"  second look {statistics.median(timed(lambda: second_look(plan, library, Company(groups=6)), 9)):.1f} ms"
    )
    view = People(50, (9, 9, 8, 8, 8, 8))
    say(
        f"  view {statistics.median(timed(lambda: desk_view(plan, library, view, (1, 0)), 9)):.1f} ms"
    )


def thinking() -> None:
    """Rules, forecasts and fits, each against laying the same session out."""
    library = shipped()
    hour = plan_text(HOUR, library)
    base = statistics.median(timed(lambda: lay(hour.session, library), 30))
    company = Company(
        groups=6, people=50, new=3, older=1, to_ask=9, limits={"overhead": 2, "jumps": 3}
    )
    rules = timed(lambda: second_look(hour, library, company), 30)
    reps = plan_text(REPS, library)
    fifty = [Someone()] * 50
    crowd = timed(
        lambda: [crowd_said(reps, at, fifty) for at in range(len(reps.session.blocks))], 20
    )
    told = timed(lambda: [block.outlook(library) for block in reps.session.blocks], 20)
    say(f"an hour laid out {base:.1f} ms; all {len(RULES)} rules {statistics.median(rules):.1f} ms")
    say(
        f"  forecast for 50 people {statistics.median(crowd):.1f} ms, its sentences {statistics.median(told):.1f} ms"
    )
    hours = [Wish(seconds=(30 + nth) * 60) for nth in range(25)] + [
        *(Wish(figure="work", seconds=(15 + nth) * 60) for nth in range(4)),
        *(Wish(figure="rest", seconds=(6 + nth) * 60) for nth in range(3)),
        *(Wish(figure="hard", seconds=(8 + nth) * 60) for nth in range(4)),
        *(Wish(figure="ratio", to=to) for to in ((2, 1), (3, 2), (1, 1))),
        Wish(figure="effort", effort=8),
    ]
    wishes = hours + [Wish(seconds=(5 + nth) * 60) for nth in range(10)]
    slates = [HOUR] * len(hours) + [REPS] * 10
    taken = [
        timed(lambda t=t, w=w: fit(t, plan_text(t, library), w, library), 1)[0]
        for t, w in zip(slates, wishes, strict=True)
    ]
    say(
        f"  fits of {len(taken)} wishes: median {statistics.median(taken):.0f} ms, p95 {quantile(taken, 0.95):.0f} ms"
    )


REPS = """warm-up 6:00
as many as possible in 12:00 at 7
  8 push-up
  10 squat
  12 swing
5 rounds for time, cap 18:00
  12 ring row
  16 hollow rock
every 1:00 for 12:00
  12 push-up
  15 swing
"""


def run_quietly(command: list[str]) -> None:
    """A process, its output thrown away."""
    subprocess.run(command, stdout=subprocess.DEVNULL, check=True)


def plan_process() -> None:
    """`lovrit plan` as a whole process, beside a bare Python."""
    with tempfile.NamedTemporaryFile("w", suffix=".slate") as file:
        file.write(HOUR)
        file.flush()
        command = [str(Path(sys.executable).with_name("lovrit")), "plan", file.name, "--json"]
        ours = timed(lambda: run_quietly(command), 9)
        bare = timed(lambda: run_quietly([sys.executable, "-c", "import pydantic.main"]), 9)
    a, b = statistics.median(ours), statistics.median(bare)
    say(
        f"lovrit plan, 60 minutes: {a:.0f} ms median; Python with Pydantic alone {b:.0f} ms; ratio {a / b:.1f}"
    )


class Served:
    """The application in a thread of this process."""

    def __init__(self, data: Path) -> None:
        self.database = Database(data / "bench.sqlite")
        fill(self.database)
        with self.database.work() as work:
            for nth in range(34):
                work.add(PersonRow(name=f"Bench {nth:02d}", initials=f"{nth:02d}"))
            row = sessions.create(work, HOUR, "An hour", 0)
            assert row.id
            self.session = row.id
            everyone = [person.id for person in people.everyone(work) if not person.effort_only][
                :50
            ]
            people.set_comers(work, row.id, deal(everyone, 6))
        self.app = create_app(Settings(data=data), self.database)
        house = self.app.state.house

        @self.app.get("/bench/empty", response_model=None)
        async def empty(request: Request) -> object:
            return page(request, house, "shell/error.html", title="x", text="", theirs=False)

        config = uvicorn.Config(self.app, port=PORT, log_config=None)
        self.server = uvicorn.Server(config)
        threading.Thread(target=self.server.run, daemon=True).start()
        while not self.server.started:
            time.sleep(0.02)


def edits(served: Served) -> None:
    """From an edit to its redrawn parts, beside an empty page of the same application."""
    with httpx.Client(base_url=URL) as client:
        empty = timed(lambda: client.get("/bench/empty"), 60)
        url, taken, version = f"/desk/{served.session}/edit", [], 1
        before = rss()
        for nth in range(1000):
            value = json.dumps({"do": "set", "block": 1, **_turned(nth)})
            fields = {"edit": value, "base": str(version), "block": "1"}
            start = time.perf_counter()
            answer = client.post(url, data=fields, headers={"x-lovrit": "1"})
            taken.append((time.perf_counter() - start) * 1000)
            version = int(answer.text.split('data-version="')[1].split('"')[0])
            if nth == 199:
                before = rss()
        p95, median, base = (
            quantile(taken, 0.95),
            statistics.median(taken),
            statistics.median(empty),
        )
        say(f"edit to redrawn parts, 60 min, 50 people: median {median:.1f} ms, p95 {p95:.1f} ms")
        say(f"  empty page {base:.1f} ms; ratio of medians {median / base:.1f}")
        say(f"memory over edits 200 to 1,000: {rss() - before:+.1f} MiB of {rss():.0f}")


def _turned(nth: int) -> dict[str, object]:
    """A figure that a hand turns, so that no text comes twice."""
    if nth % 20:
        return {"figure": "work", "value": 30 + nth % 20}
    return {"figure": "rest", "value": 10 + nth // 20}


def rss() -> float:
    """Memory of this process in MiB."""
    with Path("/proc/self/statm").open() as file:
        return int(file.read().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 2**20


async def listen(client: httpx.AsyncClient, path: str, seen: list[tuple[str, float]]) -> None:
    """A screen: every message with the moment it came."""
    async with client.stream("GET", path, timeout=None) as answer:
        async for line in answer.aiter_lines():
            if line.startswith("data: "):
                seen.append((json.loads(line[6:])["event"], time.time() * 1000))


async def crowd(class_id: int, seconds: int) -> tuple[list[float], int]:
    """Sixty screens on a class; presses while it runs, and how long each took to be seen everywhere."""
    limits = httpx.Limits(max_connections=100)
    async with httpx.AsyncClient(base_url=URL, limits=limits) as client:
        screens: list[list[tuple[str, float]]] = [[] for _ in range(SCREENS)]
        paths = [
            f"/stream?on={'coach' if nth % 2 else 'wall'}-{class_id}" for nth in range(SCREENS)
        ]
        tasks = [
            asyncio.create_task(listen(client, path, seen))
            for path, seen in zip(paths, screens, strict=True)
        ]
        await asyncio.sleep(1)
        waits: list[float] = []
        for nth in range(seconds):
            before = [sum(one[0] == "state" for one in seen) for seen in screens]
            start = time.time() * 1000
            body = {"id": f"b{nth}", "kind": "mark", "at_ms": 0}
            await client.post(f"/run/{class_id}/happen", json=body)
            await asyncio.sleep(0.9)
            for seen, had in zip(screens, before, strict=True):
                states = [at for event, at in seen if event == "state"]
                waits.append(states[had] - start if len(states) > had else 10_000)
        for task in tasks:
            task.cancel()
        return waits, sum(event == "hearts" for seen in screens for event, _ in seen)


def a_class(served: Served, seconds: int = 30) -> None:
    """Fifty simulated straps and sixty open screens."""
    with httpx.Client(base_url=URL) as client:
        shown = client.get(f"/desk/{served.session}/parts", headers={"x-lovrit": "1"}).text
        base = shown.split('data-version="')[1].split('"')[0]
        client.post(f"/desk/{served.session}/text", data={"text": HOUR, "base": base})
        url = client.post(f"/desk/{served.session}/floor").headers["location"]
        class_id = int(url.rsplit("/", 1)[1])
        client.post(f"/run/{class_id}/happen", json={"id": "go", "kind": "start", "at_ms": 0})
        floor = served.app.state.floor
        time.sleep(1)
        cpu, begun, samples = time.process_time(), time.time(), floor.samples
        waits, hearts = asyncio.run(crowd(class_id, seconds))
        lasted = time.time() - begun
        share = (time.process_time() - cpu) / lasted
        straps = len(floor.lives[class_id].straps)
        say(f"class of {straps} straps, {SCREENS} screens, {lasted:.0f} s, synchronous=FULL:")
        say(
            f"  event to screen median {statistics.median(waits):.1f} ms, "
            f"p99 {quantile(waits, 0.99):.1f} ms; {100 * share:.0f} % of one core with the clients in it; "
            f"samples {floor.samples - samples}, hearts drawn {hearts}"
        )
        gaps = client.get(f"/debrief/{class_id}/traces.csv").text.splitlines()[1:]
        by_person: dict[str, list[int]] = {}
        for row in gaps:
            name, _, _, second, _ = row.split(",")
            by_person.setdefault(name, []).append(int(second))
        lost = sum(max(s) - min(s) + 1 - len(s) for s in by_person.values())
        say(f"  seconds lost in the traces: {lost}")
        client.post(f"/run/{class_id}/happen", json={"id": "e", "kind": "end", "at_ms": 0})


def first_page() -> None:
    """From the start of the demo to its first page, and the bytes of the Desk with all it loads."""
    with tempfile.TemporaryDirectory() as data:
        env = os.environ | {"LOVRIT_DATA": data, "LOVRIT_PORT": str(PORT + 1)}
        start = time.perf_counter()
        process = subprocess.Popen(
            [sys.executable, "-m", "lovrit.cli", "demo"], env=env, stdout=subprocess.DEVNULL
        )
        try:
            while True:
                try:
                    page = httpx.get(f"http://127.0.0.1:{PORT + 1}/desk/4", timeout=2)
                    break
                except httpx.HTTPError:
                    time.sleep(0.02)
            say(f"first page of the demo: {time.perf_counter() - start:.1f} s after its start")
        finally:
            process.kill()
    built = Path("src/lovrit/web/static/built")
    used = ["lovrit.css", "page.js", "desk.js", *(path.name for path in built.glob("part-*.js"))]
    sizes = {name: len(gzip.compress((built / name).read_bytes())) for name in used}
    sizes["page"] = len(gzip.compress(page.content))
    sizes["font"] = (built / "recursive-latin-mono-normal.woff2").stat().st_size
    say(f"bytes of the Desk, compressed: {sum(sizes.values()) / 1024:.0f} KB ({sizes})")


def main() -> None:
    """Everything."""
    core()
    thinking()
    plan_process()
    with tempfile.TemporaryDirectory() as data:
        served = Served(Path(data))
        try:
            edits(served)
            a_class(served)
        finally:
            served.server.should_exit = True
            time.sleep(1)
    first_page()
    say(
        f"peak memory of this run: {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MiB"
    )


if __name__ == "__main__":
    main()
