"""The command line: what it prints, what it refuses, and that planning never loads the web."""

import io
import json
import subprocess
import sys
import tomllib
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from pathlib import Path
from unittest.mock import patch

import jsonschema
import pytest

from lovrit.cli import run as lovrit
from lovrit.core.session.reader import read
from lovrit.formats.session_json import schema, to_json

WINTER = "src/lovrit/demo/winter-hall-4.slate"
ROOT = Path(__file__).parents[2]


@dataclass
class Done:
    """What a command printed, and the status it left."""

    exit_code: int
    stdout: str
    stderr: str


def run(*args: str, text: str = "") -> Done:
    out, err = io.StringIO(), io.StringIO()
    stdin = io.TextIOWrapper(io.BytesIO(text.encode()), "utf-8")
    with redirect_stdout(out), redirect_stderr(err), patch("sys.stdin", stdin):
        status = lovrit(list(args))
    return Done(status, out.getvalue(), err.getvalue())


def test_plan_prints_one_object_as_the_notation_says() -> None:
    done = run(
        "plan", "-", "--json", text="title: x\nwarm-up 1:00\n2 rounds of 40/20, break 1:00, at 8\n  squat\n  row"
    )
    told = json.loads(done.stdout)
    assert done.exit_code == 0
    assert set(told) == {
        "title", "total_s", "work_s", "rest_s", "work_to_rest", "total_range_s", "blocks", "intervals", "notes",
    }  # fmt: skip
    assert (told["total_s"], told["work_s"], told["rest_s"]) == (60 + 280, 160, 60)
    assert told["blocks"][1]["kind"] == "rotate" and told["blocks"][1]["forecast"] is None
    place = {"block": 1, "round": 1, "turn": 1, "station": "squat"}
    assert told["intervals"][1] == {"start_s": 60, "end_s": 100, "phase": "work", **place, "effort": 8.0}
    assert {"code", "level", "text", "line", "fix"} == set(told["notes"][0])


def test_forms_go_round(tmp_path: Path) -> None:
    slate = (ROOT / WINTER).read_text("utf-8")
    as_json = run("export", "-", "--format", "json", text=slate).stdout
    file = tmp_path / "s.json"
    file.write_text(as_json)
    back = run("export", str(file), "--format", "slate").stdout
    assert read(back).session == read(slate).session
    plans = [run("plan", "-", "--json", text=text).stdout for text in (slate, as_json, back)]
    totals = [json.loads(text)["intervals"] for text in plans]
    assert totals[0] == totals[1] == totals[2]


def test_the_schema_holds_what_is_written(slates: dict[str, str]) -> None:
    printed = json.loads(run("schema").stdout)
    assert printed == schema()
    jsonschema.Draft202012Validator.check_schema(printed)
    for text in slates.values():
        jsonschema.validate(json.loads(to_json(read(text).session)), printed, jsonschema.Draft202012Validator)


def test_the_library_keeps_to_its_schema() -> None:
    printed = json.loads(run("schema", "moves").stdout)
    data = tomllib.loads((ROOT / "src/lovrit/core/moves/moves.toml").read_text("utf-8"))
    jsonschema.validate(data, printed, jsonschema.Draft202012Validator)
    assert run("schema", "waltz").exit_code == 2


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "There is nothing here"),
        ("# only a comment", "There is no block here"),
        ("3 runds of 40/20", "does not belong here"),
        ("{", "This is not JSON"),
        ('{"blocks": [{"kind": "waltz"}]}', "blocks.0"),
        ('{"format": "lovrit-session", "version": 99}', "not lovrit-session version 1"),
        ("rest 1:00\x07", "control character"),
    ],
)
def test_what_cannot_be_read_exits_with_two_and_says_why(text: str, said: str) -> None:
    done = run("plan", "-", "--json", text=text)
    assert done.exit_code == 2
    errors = json.loads(done.stderr)["errors"]
    assert set(errors[0]) == {"line", "column", "text", "expected", "nearest"}
    assert said in errors[0]["text"]
    plain = run("plan", "-", text=text)
    assert plain.exit_code == 2 and said in plain.stderr


def test_files_that_are_none_are_said_plainly(tmp_path: Path) -> None:
    assert "No such file" in run("plan", str(tmp_path / "none")).stderr
    latin = tmp_path / "latin"
    latin.write_bytes(b"title: K\xf6ln\n")
    done = run("plan", str(latin))
    assert done.exit_code == 2 and "not UTF-8" in done.stderr
    assert run("export", WINTER, "--format", "pdf").exit_code == 2


def test_planning_loads_neither_the_web_nor_the_store() -> None:
    code = (
        "import sys; from lovrit.cli import run\n"
        "run(['plan', sys.argv[1]])\n"
        "print([name for name in ('fastapi', 'sqlalchemy', 'jinja2', 'numpy', 'scipy') if name in sys.modules])"
    )
    done = subprocess.run([sys.executable, "-c", code, str(ROOT / WINTER)], capture_output=True, text=True, check=True)
    assert done.stdout.strip().endswith("[]")


def test_listening_to_the_world_wants_a_passphrase() -> None:
    done = run("serve", "--host", "0.0.0.0")
    assert done.exit_code == 2
