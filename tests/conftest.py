"""What all tests share: settings for Hypothesis, a house in memory, the demo's slates."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from threading import local
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, settings

from lovrit.demo.club import SLATES, fill, slate
from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.web.app import create_app

# two workers that make the grammar's table at the same moment would write into one file
if worker := os.environ.get("PYTEST_XDIST_WORKER"):
    kept = Path(__file__).parent.parent / "build" / "tests" / worker
    os.environ["XDG_CACHE_HOME"] = str(kept)

# the profile of a quick look draws an eighth of what all tests draw, that of a long one eight times as much
LESS = {"ci": 8, "dev": 64, "long": 1}
PROFILE = os.environ.get("LOVRIT_HYPOTHESIS", "ci")
for name, less in LESS.items():
    settings.register_profile(
        name,
        deadline=None,
        derandomize=True,
        max_examples=480 // less,
        suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much],
    )
settings.load_profile(PROFILE)


def examples(most: int) -> settings:
    """So many examples in all tests, fewer in a quick look, more in a long one."""
    return settings(max_examples=max(4, 8 * most // LESS[PROFILE]))


@pytest.fixture(scope="session")
def winter() -> str:
    return slate("winter-hall-4")


@pytest.fixture(scope="session")
def slates() -> dict[str, str]:
    return {name: slate(name) for name in SLATES}


class Clock:
    """A clock that stands until it is told to go."""

    def __init__(self, ms: int = 1_800_000_000_000) -> None:
        self.ms = ms

    def __call__(self) -> int:
        return self.ms

    def on(self, seconds: float) -> None:
        self.ms += round(seconds * 1000)


@pytest.fixture
def clock() -> Clock:
    return Clock()


@cache
def _template(filled: bool) -> Database:
    """A database as a start makes it, made once: with nothing in it, or with the demo's club."""
    database = Database(None)
    if filled:
        fill(database)
    return database


def ready(path: Path | None = None, *, filled: bool = True) -> Database:
    """A database of a test's own, copied from the template: a start's migrations and filling are tried elsewhere.

    A file that is there already is opened as it is.
    """
    return Database(path, None if path and path.exists() else _template(filled))


ON_THE_WAY = frozenset(
    {"session"}
)  # what a text comes to is kept by whoever looks first; it can wait


def written_beside(database: Database, patch: pytest.MonkeyPatch) -> list[frozenset[str]]:
    """What is written outside the queue of writers, from now on: there it polls, and a busy file refuses presses."""
    writing, here = Database.writing, local()
    beside: list[frozenset[str]] = []

    @contextmanager
    def queued(self: Database) -> Iterator[Any]:
        here.depth = getattr(here, "depth", 0) + 1
        try:
            with writing(self) as work:
                yield work
        finally:
            here.depth -= 1

    def moved(tables: frozenset[str]) -> None:
        if tables - ON_THE_WAY and not getattr(here, "depth", 0):
            beside.append(tables)

    patch.setattr(Database, "writing", queued)
    database.revisions.tell(moved)
    return beside


@pytest.fixture
def client(tmp_path: Path, clock: Clock, monkeypatch: pytest.MonkeyPatch) -> Iterator[TestClient]:
    """The demo club on a clock of its own: classes tick when the test says so, and presses write in their turn."""
    app = create_app(Settings(data=tmp_path), ready(), clock)
    beside = written_beside(app.state.house.database, monkeypatch)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        client.app_state = app.state  # type: ignore[attr-defined]
        yield client
    assert not beside, f"written outside the queue of writers: {beside}"
