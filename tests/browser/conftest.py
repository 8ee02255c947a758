"""A real server, that can be killed, and a real browser."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

CHROMIUM = os.environ.get("LOVRIT_CHROMIUM", "/usr/bin/chromium")


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


class Server:
    """`lovrit demo` as a process of its own."""

    def __init__(self, data: Path, season: bool = False) -> None:
        self.data, self.season = data, season
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        env = os.environ | {"LOVRIT_DATA": str(self.data), "LOVRIT_PORT": str(self.port)}
        env["LOVRIT_SEASON"] = str(self.season)
        command = [sys.executable, "-m", "lovrit.cli", "demo"]
        log = (self.data / "server.log").open("ab")
        self.process = subprocess.Popen(command, env=env, stdout=log, stderr=log)
        for _ in range(150):
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


@pytest.fixture(scope="module")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    served = Server(tmp_path_factory.mktemp("data"))
    served.start()
    yield served
    served.kill()
