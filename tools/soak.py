"""Broken on purpose, for as long as one likes: kills at random moments, and anything sent to every route.

python tools/soak.py [kills] [requests]     # 200 and 20,000; exit status 1 where anything was lost
"""

import json
import os
import random
import re
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path

import httpx

from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import thaw
from lovrit.core.run.going import Going
from lovrit.core.run.late import ends_at_s
from lovrit.core.values import checked_json

ROOT = Path(__file__).parents[1]
sys.path.insert(0, str(ROOT))
from tests.browser.conftest import Server  # noqa: E402

APART_MS = 100
KINDS = ["hold", "resume", "next", "back", "longer", "mark", "hold", "resume"]


def say(text: str) -> None:
    """A line of the report."""
    sys.stdout.write(text + "\n")
    sys.stdout.flush()


class Coach(threading.Thread):
    """Presses without a pause until the server is gone; keeps what was acknowledged."""

    def __init__(self, server: Server, class_id: int, seed: int) -> None:
        super().__init__(daemon=True)
        self.server, self.class_id, self.chance = server, class_id, random.Random(seed)
        self.acknowledged: list[str] = []
        self.gone = False

    def run(self) -> None:
        """Press."""
        with httpx.Client(base_url=self.server.url, timeout=5) as client:
            nth = 0
            while not self.gone:
                nth += 1
                body = {"id": f"{self.name}-{nth}", "kind": self.chance.choice(KINDS), "at_ms": 0}
                try:
                    answer = client.post(f"/run/{self.class_id}/happen", json=body)
                except httpx.HTTPError:
                    return
                if answer.status_code == 200 and answer.json()["refused"] is None:
                    self.acknowledged.append(body["id"])


def new_class(server: Server) -> int:
    """A class that is on."""
    with httpx.Client(base_url=server.url) as client:
        text = "people: 3\n\neasy laps 20:00 at 3\n\n40 x 40/20 at 7\n"
        session = client.post("/desk", data={"text": text}).headers["location"]
        class_id = int(client.post(f"{session}/floor").headers["location"].rsplit("/", 1)[1])
        client.post(f"/run/{class_id}/happen", json={"id": "go", "kind": "start", "at_ms": 0})
    return class_id


def kept(server: Server, class_id: int, now_ms: int) -> tuple[set[str], int, Going, int]:
    """What is on the disk of a class: its events' ids, how many, how it stands by them, and when it ends, in ms."""
    path = server.data / "demo" / "lovrit.sqlite"
    with sqlite3.connect(f"file:{path}?mode=ro", uri=True) as database:
        rows = database.execute(
            "select body from class_event where class_id = ? order by seq", (class_id,)
        ).fetchall()
        frozen, made_ms = database.execute(
            "select frozen, made_ms from class where id = ?", (class_id,)
        ).fetchone()
    database.close()
    fold = Fold(thaw(json.loads(frozen)).plan(), [])
    events = [checked_json(Event, body) for (body,) in rows]
    for event in events:
        fold.take(happening(event, made_ms, kept=True))
    going = fold.at((now_ms - made_ms) / 1000)
    ids = {event.id for event in events}
    return ids, len(events), going, made_ms + round(ends_at_s(going) * 1000)


def clock_of(server: Server, class_id: int) -> dict[str, int]:
    """The class as the server says it is."""
    page = httpx.get(f"{server.url}/run/{class_id}", timeout=10).text
    found = re.search(r'id="state">(.*?)</script>', page)
    assert found, page[:500]
    state: dict[str, int] = json.loads(found[1])
    return state


def killed_in_classes(kills: int, chance: random.Random) -> int:
    """Kill the server again and again while two coaches press; how often something was not as it was said to be."""
    wrong = 0
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        server.start()
        class_id = new_class(server)
        for nth in range(kills):
            coaches = [Coach(server, class_id, nth * 2 + which) for which in (0, 1)]
            for coach in coaches:
                coach.start()
            time.sleep(chance.uniform(0.02, 1.2))
            server.kill()
            for coach in coaches:
                coach.gone = True
                coach.join()
            if chance.random() < 0.2:
                interrupted_start(server, chance)
            server.start()
            said = clock_of(server, class_id)
            ids, count, mine, ends_ms = kept(server, class_id, said["now_ms"])
            lost = [one for coach in coaches for one in coach.acknowledged if one not in ids]
            apart = abs(ends_ms - said["ends_ms"])
            if lost or apart > APART_MS or mine.phase != said["phase"]:
                wrong += 1
                say(f"kill {nth}: lost {lost}, {apart} ms apart, {mine.phase} and {said['phase']}")
            if mine.phase == "over" or count > 3000:
                class_id = new_class(server)
        server.kill()
    return wrong


def interrupted_start(server: Server, chance: random.Random) -> None:
    """A start that is killed on its way."""
    env = os.environ | {"LOVRIT_DATA": str(server.data), "LOVRIT_PORT": str(server.port)}
    process = subprocess.Popen(
        [sys.executable, "-m", "lovrit.cli", "demo"], env=env, stdout=-3, stderr=-3
    )
    time.sleep(chance.uniform(0.1, 1.5))
    process.send_signal(signal.SIGKILL)
    process.wait()


def main() -> int:
    """Everything; 1 where anything was lost."""
    kills, requests = (
        int(sys.argv[nth]) if len(sys.argv) > nth else usual
        for nth, usual in ((1, 200), (2, 20_000))
    )
    began = time.time()
    migrations = subprocess.run(
        [sys.executable, "-m", "tests.store.killed"],
        cwd=ROOT,
        capture_output=True,
        text=True,
        check=False,
    )
    say(f"migrations and first starts: {migrations.stdout.strip()}")
    wrong = killed_in_classes(kills, random.Random(9))
    say(f"{kills} kills in classes, {wrong} wrong, after {time.time() - began:.0f} s")
    env = os.environ | {"LOVRIT_FUZZ": str(requests)}
    fuzzed = subprocess.run(
        [sys.executable, "-m", "pytest", "-q", "tests/web/test_fuzz.py"],
        cwd=ROOT,
        env=env,
        capture_output=True,
        text=True,
        check=False,
    )
    say(
        f"{requests} requests of any kind: {'none stumbled' if fuzzed.returncode == 0 else fuzzed.stdout[-2000:]}"
    )
    return 1 if wrong or migrations.returncode or fuzzed.returncode else 0


if __name__ == "__main__":
    sys.exit(main())
