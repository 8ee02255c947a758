"""Anything sent to every route: an answer below 500, nothing lost. The routes come from the application itself."""

import asyncio
import json
import os
import random
import re
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from typing import Any

import pytest
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient
from sqlmodel import Session as Work

from lovrit.settings import Settings
from lovrit.store.database import Database
from lovrit.web.app import create_app
from tests.conftest import ready

ROUNDS = int(os.environ.get("LOVRIT_FUZZ", "900"))
DEEP = "[" * 3000 + "]" * 3000
NUMBERS = [
    "0",
    "1",
    "4",
    "-1",
    "99999",
    "9" * 19,
    str(2**63),
    "9" * 309,
    "1e400",
    "1" * 5000,
    "-" + "9" * 400,
    "²",
    "٣",
    "1.5",
    "false",
    "",
    "null",
    "NaN",
]
WORDS = [
    "",
    " ",
    "x",
    "title: a\n\nrest 1:00",
    "rest 1",
    "\x00",
    "\ud800",
    "é\u0301\u202e",
    "</script><meta http-equiv=refresh>",
    "=1+1",
    "'; drop table person; --",
    "a" * 5000,
    "3 rounds of 40/20\n  squat",
    "3 rounds of " + "7" * 6000,
    "x" * 140_000 + ",1\n2,3",
    ",,,\n,,,",
    "rr_ms,second\n800,-5\n900,1e300",
    "second,bpm\n" + "1" * 5000 + ",80",
    "9" * 309 + " x 10/10",
    "start",
    "undo",
    "slate",
    "ics",
    "csv",
    "json",
    "coach-1",
    "desk-" + "9" * 40,
    "{}",
    "[]",
    DEEP,
    '{"do":"replace","line":1,"text":"x"}',
    '{"do":"insert","at":' + "9" * 400 + ',"text":"x"}',
    "a,b\rc",
    'start_s,end_s,phase\n"',
    '{"a":1e999}',
    "12",
    "7 + 12",
    "1" * 5000,
    "-" + "9" * 400,
    "²",
]
FIELDS = [
    "text",
    "base",
    "op",
    "burst",
    "block",
    "part",
    "edit",
    "anew",
    "code",
    "scope",
    "reason",
    "person",
    "group",
    "groups",
    "name",
    "since",
    "standing",
    "limits",
    "pace",
    "paces",
    "value",
    "figure",
    "come",
    "leave",
    "explain",
    "clear",
    "give",
    "words",
    "away",
    "past",
    "left",
    "right",
    "line",
    "to",
    "on",
    "why",
    "missing",
    "pattern",
    "seconds",
    "drawing",
    "passphrase",
    "steer",
    "key",
    "kit",
    "only",
]
EVENTS = [
    "start",
    "hold",
    "resume",
    "next",
    "back",
    "longer",
    "stops",
    "returns",
    "mark",
    "end",
    "goes-on",
    "felt",
    "score",
]


@pytest.fixture(scope="module")
def fuzzed(tmp_path_factory: pytest.TempPathFactory) -> Any:
    data: Path = tmp_path_factory.mktemp("fuzz")
    database = ready(data / "x.sqlite")
    app = create_app(Settings(data=data, straps=False), database)
    with TestClient(
        app, base_url="http://127.0.0.1", raise_server_exceptions=False, follow_redirects=False
    ) as client:
        client.post("/desk/4/floor")
        on_the_loop(database)
        yield app, client


def on_the_loop(database: Database) -> None:
    """From here on the file is never waited for on the loop: it would stop every clock of every screen."""
    worked = database._worked

    def watched() -> Iterator[Work]:
        with suppress(RuntimeError):
            asyncio.get_running_loop()
            raise AssertionError("the database was asked on the loop")
        return worked()

    database._worked = watched  # type: ignore[method-assign]


Known = tuple[str, str, tuple[str, ...]]


def routes(app: Any) -> list[Known]:
    """Every route: method, path, and the names of what it takes."""
    return [
        (
            method,
            one.path,
            tuple(
                field.alias for field in (*one.dependant.query_params, *one.dependant.body_params)
            ),
        )
        for one in app.routes
        if isinstance(one, APIRoute) and one.path != "/stream"
        for method in sorted(one.methods)
    ]


class Chance:
    def __init__(self, seed: int) -> None:
        self.of = random.Random(seed)

    def word(self) -> str:
        return self.of.choice(self.of.choice([WORDS, NUMBERS]))

    def address(self, path: str) -> str:
        def filled(_: re.Match[str]) -> str:
            said = self.of.choice(["1", "1", "4", self.word()])
            return (
                "".join(f"%{byte:02x}" for byte in said[:300].encode("utf-8", "surrogatepass"))
                or "0"
            )

        return re.sub(r"\{[^}]+\}", filled, path)

    def fields(self, taken: tuple[str, ...] = ()) -> dict[str, str]:
        """What the route takes, mostly something that could be meant, and now and then something strange."""
        said = {
            name: self.of.choice(["1", "1", "x", self.word()])
            for name in taken
            if self.of.random() < 0.95
        }
        said |= {name: self.word() for name in self.of.sample(FIELDS, self.of.choice([0, 0, 3]))}
        return {name: word.encode("utf-8", "replace").decode() for name, word in said.items()}

    def event(self) -> bytes:
        said: dict[str, Any] = {
            "id": self.of.choice(["a", "b", str(self.of.random())]),
            "kind": self.of.choice(EVENTS),
        }
        said["at_ms"] = self.of.choice([0, 1, 2**62, -1, 10**18, 1_800_000_000_000])
        for name in self.of.sample(["person", "place", "seconds", "value", "block", "text"], 3):
            said[name] = self.of.choice(
                [0, 1, -1, 3, 2**63 - 1, 2**64, 0.5, None, False, "x", "\ud800", [], {"a": 1}]
            )
        return json.dumps(said).encode()

    def body(self) -> bytes:
        whole = [
            b"{",
            b"",
            b"null",
            DEEP.encode(),
            b"\xff\xfe",
            b'{"slate": "\\ud800"}',
            b"[1]",
            self.event(),
            self.event(),
        ]
        words = json.dumps(
            {self.of.choice(["slate", "csv", "wish", "title", "blocks"]): self.word()}
        ).encode()
        return self.of.choice([*whole, words])


def send(client: TestClient, chance: Chance, known: Known) -> tuple[int, str]:
    method, path, taken = known
    address = chance.address(path)
    headers = chance.of.choice([{}, {"x-lovrit": "1"}, {"hx-request": "true"}])
    if method in ("GET", "HEAD"):
        params = {name: said[:5000] for name, said in chance.fields(taken).items()}
        answer = client.request(method, address, params=params, headers=headers)
    elif "happen" in path or path.startswith("/api") or chance.of.random() < 0.15:
        as_json = headers | {"content-type": "application/json"}
        answer = client.request(method, address, content=chance.body(), headers=as_json)
    elif chance.of.random() < 0.15:
        file = chance.word().encode("utf-8", "surrogatepass")
        answer = client.request(
            method, address, data=chance.fields(taken), files={"file": ("x", file)}, headers=headers
        )
    else:
        answer = client.request(method, address, data=chance.fields(taken), headers=headers)
    return answer.status_code, f"{method} {address}"


@pytest.mark.slow
def test_no_route_stumbles_over_anything(fuzzed: Any) -> None:
    """Every route equally often; more with LOVRIT_FUZZ set."""
    app, client = fuzzed
    known = routes(app)
    assert len(known) > 50
    stumbled = []
    for nth in range(ROUNDS):
        status, said = send(client, Chance(nth), known[nth % len(known)])
        if status >= 500:
            stumbled.append((nth, status, said[:200]))
    assert not stumbled, stumbled[:20]
    assert client.get("/desk").status_code == 200 and client.get("/clock").status_code == 200
