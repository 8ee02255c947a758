"""What all tests share: settings for Hypothesis, a house in memory, the demo's slates."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, settings

from lovrit.demo.club import SLATES, fill, slate
from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.web.app import create_app

settings.register_profile(
    "lovrit",
    deadline=None,
    derandomize=True,
    max_examples=60,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much],
)
settings.load_profile("lovrit")


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


@pytest.fixture
def client(tmp_path: Path, clock: Clock) -> Iterator[TestClient]:
    """The demo club on a clock of the test's own; classes tick only when the test says so."""
    database = Database(None)
    fill(database)
    app = create_app(Settings(data=tmp_path), database, clock)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        client.app_state = app.state  # type: ignore[attr-defined]
        yield client
