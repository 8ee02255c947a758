"""A club of ten years, made by a seed: how long its pages take, its board, its order, its start; its size on disk."""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from random import Random

import httpx
import numpy as np

from lovrit.core.asked.dose import Asks
from lovrit.core.crew.groups import deal
from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.review.compare import Evening, compare
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import Frozen, freeze
from lovrit.core.session.dated import with_date
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked, fields_of
from lovrit.core.weeks.board import Planned
from lovrit.core.weeks.order import best_order
from lovrit.house.recorded import up_to_date
from lovrit.settings import Settings
from lovrit.store import classes, people, sessions
from lovrit.store.database import Database
from lovrit.web.app import create_app

PORT = 8497
URL = f"http://127.0.0.1:{PORT}"
SEED, YEARS, PEOPLE, SESSIONS, CLASSES, CAME, WORN = 15, 10, 60, 2000, 1000, 15, 5
WARM, COOL = "warm-up 6:00 at 3\n\n", "\ncool-down 4:00 at 2\n"
TESTED = (
    f"title: Every few weeks\n\n{WARM}as many as possible in 8:00 at 8\n  8 swing\n  8 push-up\n  8 squat\n{COOL}",
    f"title: Turns\n\n{WARM}every 1:00 for 12:00 at 7\n  8 goblet squat\n  6 ring row\n{COOL}",
)
PAGE_MS, PERSON_MS, BOARD_MS, ORDER_MS, START_S = 200, 150, 50, 200, 2.0
TRIES = 7


def say(text: str) -> None:
    """A line, at once."""
    sys.stdout.write(f"{text}\n")
    sys.stdout.flush()


class Years:
    """Makes the club."""

    def __init__(self, database: Database) -> None:
        self.database, self.chance, self.library = database, Random(SEED), shipped()
        self.today = datetime.now(UTC).date()
        self.slates = [f"title: {one.name}\n\n{one.whole}" for one in rack()]
        self.frozen: dict[str, Frozen] = {}

    def make(self) -> None:
        """People, sessions over the years and into the next weeks, classes with scores and hearts."""
        with self.database.work() as work:
            for nth in range(PEOPLE):
                people.add_person(
                    work, f"Person {nth + 1}", age=20 + nth % 45, rest_hr=58 + nth % 12
                )
        days = sorted(self._days())
        with self.database.work() as work:
            numbers = []
            for nth, day in enumerate(days):
                text = with_date(self._slate(nth), f"{day}")
                row = sessions.create(
                    work, text, text.split("\n", 1)[0].removeprefix("title: "), self._ms(day)
                )
                row.good_text, row.day, row.length_s = text, f"{day}", 1800
                numbers.append((row.id or 0, day, text))
        past = [one for one in numbers if one[1] < self.today]
        for nth, (number, day, text) in enumerate(past[-CLASSES:]):
            self._class(nth, number, day, text)

    def _days(self) -> Iterator[date]:
        first = self.today - timedelta(days=365 * YEARS)
        for nth in range(SESSIONS):
            yield first + timedelta(days=round(nth * (365 * YEARS + 42) / SESSIONS))

    def _slate(self, nth: int) -> str:
        return TESTED[nth // 2 % 2] if nth % 2 else self.slates[nth % len(self.slates)]

    def _ms(self, day: date) -> int:
        return round(datetime(day.year, day.month, day.day, 17, tzinfo=UTC).timestamp() * 1000)

    def _class(self, nth: int, session: int, day: date, text: str) -> None:
        bare = with_date(text, None)
        if bare not in self.frozen:
            self.frozen[bare] = freeze(plan_text(bare, self.library))
        frozen, at_ms = self.frozen[bare], self._ms(day)
        with self.database.writing() as work:
            everyone = people.everyone(work)
            there = self.chance.sample(everyone, CAME)
            groups = deal([one.id for one in there], 3)
            comers = [Comer(**fields_of(one), group=groups[one.id]) for one in there]
            row = classes.make(
                work,
                session,
                text.split("\n", 1)[0].removeprefix("title: "),
                text,
                comers,
                at_ms,
                frozen,
            )
            over = at_ms + 20_000 + frozen.timeline.total_s * 1000
            classes.add_events(work, row.id or 0, self._events(frozen, comers, at_ms, over, nth))
            row.over_ms = over
            seconds = np.arange(frozen.timeline.total_s)
            for one in comers[:WORN]:
                beats = 120 + 30 * np.sin(seconds / 90) + self.chance.random() * 10
                told = [
                    (at_ms + 10_000 + int(second) * 1000, {one.id: int(bpm)})
                    for second, bpm in zip(seconds, beats, strict=True)
                ]
                classes.add_samples(work, row.id or 0, told)

    def _events(
        self, frozen: Frozen, comers: list[Comer], at_ms: int, over: int, nth: int
    ) -> Iterator[Event]:
        yield checked(Event, {"id": "s", "kind": "start", "at_ms": at_ms + 10_000})
        for block, one in enumerate(frozen.session.blocks):
            for comer in comers if one.kind in ("amrap", "every") else ():
                rounds = 5 + comer.id % 4 + nth / CLASSES + self.chance.gauss(0, 0.3)
                said = (
                    f"{int(rounds)} + {int(rounds % 1 * 20)}"
                    if one.kind == "amrap"
                    else f"{9 + comer.id % 4} of 12"
                )
                yield checked(
                    Event,
                    {
                        "id": f"{block}-{comer.id}",
                        "kind": "score",
                        "at_ms": over,
                        "block": block,
                        "person": comer.id,
                        "text": said,
                    },
                )
        for comer in comers:
            yield checked(
                Event,
                {
                    "id": f"f{comer.id}",
                    "kind": "felt",
                    "at_ms": over,
                    "person": comer.id,
                    "value": 7.5,
                },
            )
        yield checked(
            Event,
            {
                "id": "n",
                "kind": "note",
                "at_ms": over,
                "text": self.chance.choice(["cold hall", "rings slipped", "calm", "knee of one"]),
            },
        )


def served(data: Path) -> tuple[subprocess.Popen[bytes], float]:
    """Lovrit on these data, and the seconds until it answered."""
    began = time.perf_counter()
    env = {**os.environ, "LOVRIT_DATA": str(data)}
    command = [str(Path(sys.executable).parent / "lovrit"), "serve", "--port", str(PORT)]
    process = subprocess.Popen(
        command, env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
    )
    while True:
        try:
            httpx.get(f"{URL}/clock")
            return process, time.perf_counter() - began
        except httpx.TransportError:
            time.sleep(0.02)


def timed(client: httpx.Client, path: str) -> tuple[float, float]:
    """The first time that a page takes, and the middle of some more, in ms."""
    found = []
    for _ in range(TRIES):
        began = time.perf_counter()
        answer = client.get(path)
        found.append((time.perf_counter() - began) * 1000)
        assert answer.status_code == 200, (path, answer.status_code)
    return found[0], statistics.median(found[1:])


def pages(session: int, last: int) -> list[tuple[str, int]]:
    """Every page that grows with the years, and what it may take in ms."""
    return [
        *((path, PAGE_MS) for path in (
            "/", "/desk", f"/desk/{session}", f"/desk/{session}/try", f"/desk/{session}/revisions", f"/crew/{session}",
            f"/crew/{session}/fit", f"/hall/{session}", "/people", "/people/7", "/run", "/debrief",
            "/debrief?words=rings+october", "/debrief?words=person+7", f"/debrief/{last}", f"/debrief/{last}/kin/1",
            "/debrief/club", "/moves", "/club", "/straps",
        )),
        ("/people/7/progress", PERSON_MS), ("/people/7/progress/hearts", PAGE_MS), ("/people/7/returns", PAGE_MS),
        ("/weeks?weeks=8", BOARD_MS), ("/weeks/clashes?weeks=8", PAGE_MS), ("/weeks/better", PAGE_MS),
        ("/weeks/returns", PAGE_MS), ("/weeks/paper?weeks=1", PAGE_MS),
    ]  # fmt: skip


def order_ms() -> float:
    """A week of eight sessions that ask at random, its best order proven."""
    chance = Random(SEED)
    names = ("squat", "push", "pull", "hinge", "breath", "grip")
    week = [
        Planned(
            id=f"{nth}",
            at=datetime.fromisoformat(f"2026-12-0{1 + nth}T18:00"),
            asks=Asks(
                dose={name: chance.uniform(0, 14) for name in names},
                sore={},
                load=1,
                hard_min=1,
                minutes=40,
                unsaid=(),
            ),
        )
        for nth in range(8)
    ]
    best_order(week, [], ())
    began = time.perf_counter()
    assert best_order(week, [], ()).proven
    return (time.perf_counter() - began) * 1000


def truth(evening_effect: float, changed: float, clubs: int = 300) -> tuple[float, float]:
    """False alarms and changes found, over clubs of twelve with three evenings before: shares of what is told as one.

    A tenth of the people change by so many typical errors; the evening moves everybody by so many at random.
    """
    rng = np.random.default_rng(SEED + round(10 * evening_effect))
    wrong = right = still = moved = 0
    for _ in range(clubs):
        level = rng.normal(100, 12, 12)
        change = np.where(rng.random(12) < 0.1, changed * 0.04, 0.0)
        evenings = []
        for nth in range(4):
            shift = rng.normal(0, 0.04 * evening_effect)
            values = level * np.exp(rng.normal(0, 0.04, 12) + shift + (change if nth == 3 else 0.0))
            evenings.append(
                Evening(
                    day=nth * 7,
                    values={f"{who}": float(max(1.0, value)) for who, value in enumerate(values)},
                )
            )
        told = compare("reps", True, tuple(evenings)).people
        for who, one in told.items():
            said = one.verdict in ("better", "worse")
            if change[int(who)]:
                moved, right = moved + 1, right + said
            else:
                still, wrong = still + 1, wrong + said
    return wrong / still, right / max(1, moved)


def main() -> None:
    """All of it."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        settings = Settings(data=data, season=False)
        database = Database(settings.database)
        began = time.perf_counter()
        Years(database).make()
        house = create_app(settings, database).state.house
        made = time.perf_counter()
        while not up_to_date(house, 50):
            pass
        recorded = time.perf_counter() - made
        with database.work() as work:
            last, session = (
                max(one.id or 0 for one in classes.listed(work)),
                sessions.latest(work) or 1,
            )
        database.close()
        size = sum(one.stat().st_size for one in data.rglob("*") if one.is_file()) / 2**20
        say(
            f"a club of {YEARS} years: {SESSIONS} sessions, {CLASSES} classes of {CAME}, {PEOPLE} people"
        )
        say(
            f"  {WORN} straps at 1 Hz in each class; {size:.0f} MB on disk, made in {made - began:.0f} s"
        )
        say(f"  all records worked out in {recorded:.0f} s")
        process, started = served(data)
        try:
            say(f"  start until the first answer: {started:.2f} s (aim {START_S:.0f})")
            with httpx.Client(base_url=URL, timeout=60, follow_redirects=True) as client:
                for path, aim in pages(session, last):
                    first, later = timed(client, path)
                    over = "  OVER" if later > aim else ""
                    say(
                        f"  {path:34} {later:6.0f} ms, the first time {first:6.0f} (aim {aim}){over}"
                    )
        finally:
            process.kill()
    say(f"  order of eight sessions, proven: {order_ms():.0f} ms (aim {ORDER_MS})")
    for effect in (0.0, 1.0, 2.0):
        wrong, right = truth(effect, 3.0)
        say(
            f"  evening effect of {effect:g} typical errors: {wrong:.0%} false alarms, {right:.0%} found of three such"
        )


if __name__ == "__main__":
    main()
