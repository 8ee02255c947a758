"""A real server, that can be killed, and a real browser."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path
from threading import Thread

import pytest
import uvicorn
from playwright.sync_api import Browser, Page, expect

from lovrit.house.floor import Floor
from lovrit.settings import Settings
from lovrit.web.app import create_app
from tests.conftest import ready

# how long something may take is the bench's to say: a test waits until it is so, on a machine that is busy too
expect.set_options(timeout=30_000)
CHROMIUM = os.environ.get("LOVRIT_CHROMIUM", "/usr/bin/chromium-headless-shell")


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict:
    quiet = [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-background-networking",
        "--disable-component-update",
    ]
    return {
        "executable_path": CHROMIUM,
        "args": [*quiet, "--autoplay-policy=no-user-gesture-required"],
    }


@pytest.fixture(scope="session")
def browser_context_args() -> dict:
    return {"viewport": {"width": 1280, "height": 800}}


@pytest.fixture(autouse=True)
def nothing_left_open(request: pytest.FixtureRequest) -> Iterator[None]:
    """A page that a test leaves open goes on drawing, or is as busy as it was made, beside all tests that follow."""
    yield
    if "browser" in request.fixturenames:
        for context in request.getfixturevalue("browser").contexts:
            context.close()


STARTS_S = (
    60  # a machine that is busy with other tests may take its time; one that died is told at once
)


class Server:
    """`lovrit demo` as a process of its own, that can be killed and started again."""

    def __init__(self, data: Path) -> None:
        self.data = data
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        env = os.environ | {"LOVRIT_DATA": str(self.data), "LOVRIT_PORT": str(self.port)}
        env["LOVRIT_SEASON"] = "False"
        command = [sys.executable, "-m", "lovrit.cli", "demo"]
        log = (self.data / "server.log").open("ab")
        self.process = subprocess.Popen(command, env=env, stdout=log, stderr=log)
        until = time.monotonic() + STARTS_S
        while time.monotonic() < until and self.process.poll() is None:
            try:
                urllib.request.urlopen(f"{self.url}/clock", timeout=1).read()
                return
            except urllib.error.HTTPError:
                return  # it asks for the passphrase, so it is there
            except OSError:
                time.sleep(0.1)
        raise AssertionError((self.data / "server.log").read_text())

    def kill(self) -> None:
        assert self.process
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


class Here:
    """The demo's house in this process: there at once, for tests that kill nothing."""

    def __init__(self, data: Path, clock: Callable[[], int] | None = None) -> None:
        settings = Settings(data=data, simulated=True, hosts=("127.0.0.1",))
        database = ready(data / "club.sqlite")
        self.app = (
            create_app(settings, database, clock) if clock else create_app(settings, database)
        )
        config = uvicorn.Config(self.app, port=0, log_level="error", timeout_graceful_shutdown=1)
        self.server = uvicorn.Server(config)
        self.thread = Thread(target=self.server.run, daemon=True)
        self.thread.start()
        while not self.server.started:
            time.sleep(0.02)
        self.url = f"http://127.0.0.1:{self.server.servers[0].sockets[0].getsockname()[1]}"

    def close(self) -> None:
        self.server.should_exit = True
        self.thread.join(5)


def post(server: Here, path: str, fields: dict[str, str]) -> None:
    body = urllib.parse.urlencode(fields).encode()
    urllib.request.urlopen(urllib.request.Request(f"{server.url}{path}", body), timeout=10).read()


@pytest.fixture(scope="module")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Here]:
    served = Here(tmp_path_factory.mktemp("data"))
    yield served
    served.close()


@pytest.fixture
def mortal(tmp_path: Path) -> Iterator[Server]:
    served = Server(tmp_path)
    served.start()
    yield served
    served.kill()


DAY_S, NINE_S = 86_400, 9 * 3600


class Stopped:
    """A clock that stands still until a test moves it on: how quick the machine is changes nothing, nor at what hour.

    It is nine in the morning of today: the demo's hall is ours from 18:10 to 18:55, and who tests then would be late.
    """

    def __init__(self) -> None:
        self.at_ms = round(time.time() // DAY_S * DAY_S + NINE_S) * 1000

    def __call__(self) -> int:
        return self.at_ms


class Hall(Here):
    """The house and its pages, all on one clock that only a test moves."""

    def __init__(self, data: Path) -> None:
        self.clock, self.pages = Stopped(), list[Page]()
        super().__init__(data, self.clock)
        self.floor: Floor = self.app.state.floor

    def page(self, browser: Browser, address: str) -> Page:
        """A page that follows the house's clock."""
        page = browser.new_page()
        page.add_init_script(f"window.stopped = {self.clock()}; Date.now = () => window.stopped")
        page.goto(self.url + address)
        self.pages.append(page)
        return page

    def on(self, seconds: float) -> None:
        """Time goes on for the house and for every page."""
        self.clock.at_ms += round(seconds * 1000)
        for page in self.pages:
            # what it asks the clock by itself may be under way: its answer would be of before
            page.evaluate(
                f"stopped = {self.clock()}; run.setClock = async () => {{}}; run.offset = 0"
            )
        self.floor.tick(self.clock())
        self.floor.tell_on()

    def close(self) -> None:
        for page in self.pages:
            page.context.close()
        super().close()


@pytest.fixture
def hall(tmp_path: Path) -> Iterator[Hall]:
    made = Hall(tmp_path)
    yield made
    made.close()
