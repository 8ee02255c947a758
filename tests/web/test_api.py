"""The web API: described by OpenAPI, never a 500, and the same answers as the command line."""

import tempfile
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

import schemathesis
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, settings

from lovrit.formats.session_json import schema
from lovrit.settings import Settings
from lovrit.web.app import create_app
from tests.conftest import ready


@asynccontextmanager
async def _no_floor(_app: FastAPI) -> AsyncIterator[None]:
    """The API needs no classes that tick; what begins with each request of a drawn one would never end."""
    yield


_data = Path(tempfile.mkdtemp())
_app = create_app(
    Settings(data=_data, straps=False, hosts=("testserver",)), ready(_data / "api.sqlite")
)
_app.router.lifespan_context = _no_floor
described = schemathesis.openapi.from_asgi("/api/openapi.json", _app)


@described.parametrize()
@settings(
    max_examples=6, deadline=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck)
)
def test_no_request_makes_the_api_stumble(case: schemathesis.Case) -> None:
    assert case.call().status_code < 500


def test_a_program_plans_a_session_without_the_pages(client: TestClient, winter: str) -> None:
    told = client.post("/api/plan/slate", json={"slate": winter}).json()
    assert told["total_s"] == 42 * 60 + 20
    session = client.post("/api/read/slate", json={"slate": winter}).json()
    assert session["format"] == "lovrit-session"
    assert client.post("/api/plan", json=session).json()["intervals"] == told["intervals"]
    assert "goblet squat" in client.post("/api/write/md", json=session).text
    assert client.post("/api/write/slate", json=session | {"version": 2}).status_code == 422
    assert client.post("/api/write/ics", json=session).status_code == 422
    bad = client.post("/api/plan/slate", json={"slate": "3 runds of 40/20"})
    assert bad.status_code == 422 and bad.json()["errors"][0]["nearest"] == "3 rounds of 40/20"
    lasts = {
        said: client.post("/api/plan", json={"blocks": [{"kind": "rest", "total_s": said}]})
        for said in (40, False)
    }
    assert [one.status_code for one in lasts.values()] == [200, 422]
    assert client.post("/api/read/csv", json={"csv": "a,b"}).json()["left_out"]
    assert client.get("/api/schema").json() == schema()
    assert len(client.get("/api/moves").json()) >= 60
