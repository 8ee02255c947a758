"""The wheel in a clean environment: installed with its pinned dependencies, started elsewhere, asked for its pages."""

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from pathlib import Path

HERE = Path(__file__).parent.parent
ASKED = (
    "/",
    "/desk",
    "/crew/1",
    "/moves",
    "/club",
    "/static/lovrit.css",
    "/static/page.js",
    "/static/mark.svg",
)


def _free_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


def _installed(wheel: Path, where: Path) -> Path:
    """The command of a fresh environment that has the wheel."""
    subprocess.run([sys.executable, "-m", "venv", str(where)], check=True)
    pip = [str(where / "bin" / "pip"), "install", "--quiet", "--disable-pip-version-check"]
    subprocess.run(
        [*pip, "--no-compile", "--require-hashes", "-r", str(HERE / "requirements" / "app.txt")],
        check=True,
    )
    subprocess.run([*pip, "--no-deps", str(wheel)], check=True)
    return where / "bin" / "lovrit"


def _answers(url: str) -> int:
    with urllib.request.urlopen(url, timeout=10) as answer:
        assert answer.read(), url
        return int(answer.status)


def _wait(process: "subprocess.Popen[bytes]", url: str) -> None:
    for _ in range(300):
        try:
            _answers(f"{url}/clock")
        except OSError:
            assert process.poll() is None, "it ended before it answered"
            time.sleep(0.1)
        else:
            return
    raise AssertionError("it never answered")


def main(folder: str) -> None:
    """Install, start, ask."""
    (wheel,) = Path(folder).resolve().glob("*.whl")
    with tempfile.TemporaryDirectory() as made:
        lovrit = _installed(wheel, Path(made) / "venv")
        port = _free_port()
        env = {
            "PATH": "/usr/bin:/bin",
            "HOME": made,
            "LOVRIT_PORT": str(port),
            "LOVRIT_DATA": f"{made}/data",
        }
        process = subprocess.Popen(
            [str(lovrit), "demo"], cwd=made, env=env | {"LANG": os.environ.get("LANG", "C.UTF-8")}
        )
        try:
            _wait(process, f"http://127.0.0.1:{port}")
            told = {path: _answers(f"http://127.0.0.1:{port}{path}") for path in ASKED}
        finally:
            process.terminate()
            process.wait()
        assert set(told.values()) == {200}, told
        size = wheel.stat().st_size // 1024
        sys.stdout.write(
            f"{wheel.name}, {size} KiB: installed alone, {len(told)} pages and files answered\n"
        )


if __name__ == "__main__":
    try:
        main(sys.argv[1])
    except urllib.error.HTTPError as error:
        sys.exit(f"{error.url}: {error.code}")
