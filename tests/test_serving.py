"""Started again, whatever happened: every state of the file and the machine is a sentence, and never a stack trace."""

import os
import pty
import re
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
import structlog
import uvicorn

from lovrit.cli.main import run
from lovrit.store.check import look_through
from lovrit.store.database import Database

LONG = 60
Tried = Callable[..., subprocess.CompletedProcess[str]]


def served(data: Path, *more: str, **env: str) -> subprocess.CompletedProcess[str]:
    """`lovrit serve` where it is not expected to serve."""
    command = [sys.executable, "-m", "lovrit.cli", "serve", *more]
    settings = os.environ | {"LOVRIT_DATA": str(data), "LOVRIT_PORT": "0", **env}
    return subprocess.run(
        command, env=settings, capture_output=True, text=True, timeout=LONG, check=False
    )


@pytest.fixture
def tried(monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]) -> Iterator[Tried]:
    """`lovrit serve` within this process, for what is refused before anything is served."""

    def serve(data: Path, **env: str) -> subprocess.CompletedProcess[str]:
        for name, value in ({"LOVRIT_DATA": str(data), "LOVRIT_PORT": "8599"} | env).items():
            monkeypatch.setenv(name, value)
        monkeypatch.setattr(uvicorn.Server, "run", lambda *_: pytest.fail("it served"))
        status = run(["serve"])
        said = capfd.readouterr()
        return subprocess.CompletedProcess(["serve"], status, said.out, said.err)

    before = structlog.get_config()
    yield serve
    structlog.configure(**before)  # what serves logs to what is captured here, which is closed then


def refused(done: subprocess.CompletedProcess[str], said: str) -> None:
    assert done.returncode not in (0, -9), done
    assert "Traceback" not in done.stderr and said in done.stderr, done.stderr[-2000:]
    assert "Lovrit is at" not in done.stdout


def kept(data: Path) -> Path:
    path = data / "lovrit.sqlite"
    database = Database(path)
    with database.work() as work:
        work.connection().exec_driver_sql(
            "INSERT INTO club VALUES ('x', '\"" + "y" * 60_000 + "\"')"
        )
    database.close()
    return path


def _garbage(data: Path) -> None:
    (data / "lovrit.sqlite").write_bytes(
        b"no database at all, but long enough to be taken for one" * 40
    )


def _truncated(data: Path) -> None:
    path = kept(data)
    path.write_bytes(path.read_bytes()[:20_000])


def _foreign(data: Path) -> None:
    with sqlite3.connect(data / "lovrit.sqlite") as other:
        other.execute("create table recipe (id integer, name text)")


def _future(data: Path) -> None:
    with sqlite3.connect(kept(data)) as later:
        later.execute("update alembic_version set version_num = '9999'")


def _directory(data: Path) -> None:
    (data / "lovrit.sqlite").mkdir()


TROUBLES: list[tuple[Callable[[Path], None], str]] = [
    (_garbage, "damaged"),
    (_truncated, "damaged"),
    (_foreign, "something else"),
    (_future, "newer Lovrit"),
    (_directory, "can’t be opened"),
]


@pytest.mark.parametrize(
    ("trouble", "said"), TROUBLES, ids=lambda one: getattr(one, "__name__", "")
)
def test_files_that_cannot_be_used_are_said(
    tmp_path: Path, tried: Tried, trouble: Callable[[Path], None], said: str
) -> None:
    trouble(tmp_path)
    refused(served(tmp_path, "--port", "8599") if trouble == _garbage else tried(tmp_path), said)
    checked = look_through(tmp_path / "lovrit.sqlite")
    assert not checked.sound or trouble in (_foreign, _future)


@pytest.mark.parametrize(
    ("env", "said"),
    [
        ({"LOVRIT_PORT": "many"}, "LOVRIT_PORT can't be “many”"),
        ({"LOVRIT_PORT": "70000"}, "LOVRIT_PORT can't be"),
        ({"LOVRIT_TIME_ZONE": "Middle/Earth"}, "no time zone"),
        (
            {"LOVRIT_HOST": "no.such.host.invalid", "LOVRIT_PASSPHRASE": "quiet landings"},
            "no address",
        ),
        ({"LOVRIT_PASSPHRASE": "short"}, "too short"),
        ({"LOVRIT_HOSTS": '["club.example"]'}, "not called by a name of others (club.example)"),
        ({"LOVRIT_DATA": "/proc/nowhere"}, "can’t be opened"),
    ],
)
def test_settings_that_cannot_be_are_said(
    tmp_path: Path, tried: Tried, env: dict[str, str], said: str
) -> None:
    refused(tried(tmp_path, **env), said)


def test_a_taken_port_and_a_taken_folder_are_said(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        refused(
            served(tmp_path, "--port", str(taken.getsockname()[1])), "is taken by something else"
        )
    command = [sys.executable, "-m", "lovrit.cli", "serve", "--port", "8598"]
    env = os.environ | {"LOVRIT_DATA": str(tmp_path)}
    first = subprocess.Popen(
        command, env=env, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
    )
    try:
        assert first.stdout and "Lovrit is at http://127.0.0.1:8598/" in first.stdout.readline()
        refused(
            served(tmp_path, "--port", "8599"), f"process {first.pid}, at http://127.0.0.1:8598/"
        )
        modes = {
            path.name: path.stat().st_mode & 0o777
            for path in (tmp_path, tmp_path / "lovrit.sqlite")
        }
        assert modes == {tmp_path.name: 0o700, "lovrit.sqlite": 0o600}
    finally:
        first.send_signal(signal.SIGKILL)
        first.wait()


def test_for_the_hall_it_asks_what_it_needs_and_says_where_it_is(tmp_path: Path) -> None:
    """With a terminal it asks for a passphrase, twice where the first is too short; without one it says what to do."""
    refused(served(tmp_path, "--in-the-hall", "--port", "8597"), "Nobody is here to be asked")
    ours, theirs = pty.openpty()
    env = {name: said for name, said in os.environ.items() if name != "LOVRIT_PASSPHRASE"}
    asked = subprocess.Popen(
        [sys.executable, "-m", "lovrit.cli", "serve", "--in-the-hall", "--port", "8597"],
        env=env | {"LOVRIT_DATA": str(tmp_path)}, stdin=theirs, stdout=theirs, stderr=theirs, start_new_session=True,
    )  # fmt: skip
    try:
        said = ""
        for wanted, answer in (
            ("letters or more: ", b"short\n"),
            ("letters or more: ", b"quiet landings\n"),
        ):
            while not said.endswith(wanted):
                said += os.read(ours, 1000).decode()
            os.write(ours, answer)
            said += "."
        while "/join)" not in said or "\u2588" not in said:
            said += os.read(ours, 4000).decode("utf-8", "replace")
        assert "10 letters at least" in said and "In the hall, on the same network: http://" in said
        assert "quiet" not in said
        page = urllib.request.urlopen("http://127.0.0.1:8597/passphrase", timeout=5).read().decode()
        assert "passphrase" in page
    finally:
        asked.kill()
        asked.wait()


def test_a_kill_in_a_migration_leaves_a_file_that_starts_again() -> None:
    """At every eleventh statement of a first start and of each older version; `make soak` does every one."""
    done = subprocess.run(
        [sys.executable, "-m", "tests.store.killed", "11"],
        capture_output=True,
        text=True,
        check=False,
        timeout=200,
    )
    assert done.returncode == 0, done.stdout + done.stderr[-2000:]
    found = re.search(r"(\d+) kills, 0 wrong", done.stdout)
    assert found and int(found[1]) > 30


def test_a_migration_keeps_a_copy_of_the_file_before(tmp_path: Path) -> None:
    from tests.store.killed import old_file

    path = tmp_path / "club.sqlite"
    old_file(path, "0002")
    Database(path).close()
    (copy,) = tmp_path.glob("club.sqlite.before-*")
    with sqlite3.connect(copy) as before:
        assert before.execute("select version_num from alembic_version").fetchall() == [("0002",)]
        assert before.execute("select name from person").fetchall() == [("Ada B",)]


def test_check_says_what_is_wrong(tmp_path: Path) -> None:
    path = kept(tmp_path)
    assert look_through(path).sound
    with sqlite3.connect(path) as database:
        database.execute(
            "insert into class (id, title, text, people, made_ms, frozen) values"
            " (7, 'odd', '', '[{\"id\": 1}]', 1, '{\"format\": 99}')"
        )
    found = look_through(path)
    assert not found.sound and "Class 7" in found.said[0]
    shutil.copy(path, tmp_path / "other.sqlite")
    assert not look_through(tmp_path / "nothing.sqlite").sound
