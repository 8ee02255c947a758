"""What slow requests do to everybody else, and what a club of many years costs; printed, never judged.

python tools/slow.py          # beside `make bench`, in a minute or two
"""

import asyncio
import random
import sqlite3
import statistics
import sys
import tempfile
import time
from collections.abc import Awaitable, Callable
from pathlib import Path

import httpx

from lovrit.core.moves.library import shipped
from lovrit.core.run.frozen import freeze, frozen_object
from lovrit.core.timeline.plan import plan_text
from lovrit.demo.club import fill, slate
from lovrit.store.database import Database
from lovrit.store.tables import ClassRow, SessionRow

ROOT = Path(__file__).parents[1]
sys.path.insert(0, str(ROOT))
from tests.browser.conftest import Server  # noqa: E402

TEXT = "the quick brown bell swings over a lazy mat and then we all went to the hall on monday"
WORDS = TEXT.split(" ")
SESSIONS, CLASSES = 2000, 500
WAIT_S = 60


def say(text: str) -> None:
    """A line of the report."""
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


def quantile(values: list[float], q: float) -> float:
    """A quantile by rank."""
    ranked = sorted(values)
    return ranked[min(len(ranked) - 1, int(q * len(ranked)))]


def prose(lines: int) -> str:
    """Lines that are no session."""
    chance = random.Random(1)
    return "\n".join(" ".join(chance.choice(WORDS) for _ in range(10)) for _ in range(lines))


Slow = Callable[[httpx.AsyncClient], Awaitable[httpx.Response]]


def slow_ones(version: int) -> dict[str, Slow]:
    """Requests that took long once, by name."""

    def text(body: str, base: int = version) -> Slow:
        return lambda client: client.post(
            "/desk/1/text", data={"text": body, "base": str(base)}, headers={"x-lovrit": "1"}
        )

    return {
        "rest 1, 5,300 times": text("\n".join(["rest 1"] * 5300)),
        "64 KB of short lines": text("a\n" * 32_000),
        "600 lines of prose": text(prose(600)),
        "250 KB of prose, pasted": lambda client: client.post(
            "/desk/board", data={"text": prose(4000)}
        ),
        "a merge of 60 KB": text("\n".join(f"{nth % 7} x" for nth in range(9000)), 1),
        "a merge of 240 KB": text(
            "\n".join(f"{nth % 7} xxxxxxxxxxxxxxxxxxxxxx" for nth in range(9000)), 1
        ),
        "all moves": lambda client: client.get("/moves"),
        "a fit": lambda client: client.get("/desk/4/fit?figure=total&value=40:00"),
    }


async def beside(url: str, slow: Slow) -> tuple[float, list[float]]:
    """How long a request takes, and what /clock takes meanwhile (at least two seconds of it)."""
    async with httpx.AsyncClient(base_url=url, timeout=WAIT_S) as client:
        await client.get("/clock")
        waits: list[float] = []
        begun = time.perf_counter()
        task = asyncio.create_task(slow(client))
        while not task.done() or time.perf_counter() - begun < 2:
            asked = time.perf_counter()
            await client.get("/clock")
            waits.append((time.perf_counter() - asked) * 1000)
            await asyncio.sleep(0.01)
            if task.done():
                break
        await task
        return time.perf_counter() - begun, waits


def clocks(server: Server) -> None:
    """Each slow request with the clock beside it."""
    for name, slow in slow_ones(1).items():
        took, waits = asyncio.run(beside(server.url, slow))
        say(
            f"  {name}: {took:.2f} s; /clock p99 {quantile(waits, 0.99):.0f} ms, most {max(waits):.0f} ms"
        )
    locked = sqlite3.connect(server.data / "demo" / "lovrit.sqlite")
    locked.execute("BEGIN IMMEDIATE")
    note = {"id": "n", "kind": "start", "at_ms": 0}
    took, waits = asyncio.run(
        beside(
            server.url,
            lambda client: client.post("/desk/1/text", data={"text": str(note), "base": "1"}),
        )
    )
    locked.rollback()
    say(
        f"  a locked database: {took:.2f} s; /clock p99 {quantile(waits, 0.99):.0f} ms, most {max(waits):.0f} ms"
    )


def many_years(path: Path) -> None:
    """A club with two thousand sessions and five hundred classes with scores."""
    database = Database(path)
    fill(database)
    text = slate("winter-hall-4")
    frozen = frozen_object(freeze(plan_text(text, shipped())))
    with database.work() as work:
        for nth in range(SESSIONS):
            own = text.replace("Winter hall 4", f"Evening {nth} {WORDS[nth % len(WORDS)]}")
            work.add(
                SessionRow(
                    title=f"Evening {nth}", text=own, good_text=own, created_ms=nth, changed_ms=nth
                )
            )
        for nth in range(CLASSES):
            work.add(
                ClassRow(
                    title=f"Class {nth}",
                    text=text,
                    people=[],
                    made_ms=nth,
                    over_ms=nth + 1,
                    frozen=frozen,
                )
            )
    database.close()


def get(server: Server, path: str, times: int = 9) -> str:
    """The median of some requests, and how large the page is."""
    taken, size = [], 0
    with httpx.Client(base_url=server.url, timeout=WAIT_S) as client:
        for _ in range(times):
            begun = time.perf_counter()
            size = len(client.get(path).content)
            taken.append((time.perf_counter() - begun) * 1000)
    return (
        f"median {statistics.median(taken):.0f} ms, most {max(taken):.0f} ms, {size / 1024:.0f} KB"
    )


def lists(server: Server) -> None:
    """The lists of a club of many years."""
    for path in ("/desk", "/desk?words=rope+monday", "/debrief", "/moves", "/", "/run"):
        say(f"  {path}: {get(server, path)}")
    with httpx.Client(base_url=server.url, timeout=WAIT_S) as client:
        url = client.post("/desk/2/floor").headers["location"]
        class_id = url.rsplit("/", 1)[1]
        taken = []
        for nth in range(9):
            begun = time.perf_counter()
            client.post(
                f"/debrief/{class_id}/score", data={"op": f"s{nth}", "block": "0", "text": ""}
            )
            taken.append((time.perf_counter() - begun) * 1000)
        say(f"  a score: median {statistics.median(taken):.0f} ms")


def oversized(server: Server) -> None:
    """Memory before and after a hundred posts that are too large."""

    def rss() -> float:
        assert server.process
        return int(Path(f"/proc/{server.process.pid}/statm").read_text().split()[1]) * 4096 / 2**20

    before = rss()
    with httpx.Client(base_url=server.url, timeout=WAIT_S) as client:
        for _ in range(100):
            client.post("/api/plan", content=b"x" * 5_000_000)
    say(f"memory over a hundred posts of 5 MB: {rss() - before:+.1f} MiB of {rss():.0f}")


def main() -> None:
    """Everything."""
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        server.start()
        say("/clock beside slow requests:")
        clocks(server)
        oversized(server)
        server.kill()
        begun = time.perf_counter()
        many_years(Path(folder) / "demo" / "lovrit.sqlite")
        say(
            f"{SESSIONS} sessions and {CLASSES} classes, made in {time.perf_counter() - begun:.1f} s:"
        )
        begun = time.perf_counter()
        server.start()
        say(f"  start to first answer: {time.perf_counter() - begun:.1f} s")
        time.sleep(30)  # what the sessions come to is worked out beside everything, once
        lists(server)
        server.kill()


if __name__ == "__main__":
    main()
