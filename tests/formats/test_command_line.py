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
from lovrit.core.moves.library import shipped
from lovrit.core.session.reader import read
from lovrit.formats.moves_file import read_moves
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
        "plan",
        "-",
        "--json",
        text="title: x\nwarm-up 1:00\n2 rounds of 40/20, break 1:00, at 8\n  squat\n  row",
    )
    told = json.loads(done.stdout)
    assert done.exit_code == 0
    assert set(told) == {
        "title", "total_s", "work_s", "rest_s", "work_to_rest", "total_range_s", "blocks", "intervals", "notes",
    }  # fmt: skip
    assert (told["total_s"], told["work_s"], told["rest_s"]) == (60 + 280, 160, 60)
    assert told["blocks"][1]["kind"] == "rotate" and told["blocks"][1]["forecast"] is None
    place = {"block": 1, "round": 1, "turn": 1, "station": "squat"}
    assert told["intervals"][1] == {
        "start_s": 60,
        "end_s": 100,
        "phase": "work",
        **place,
        "effort": 8.0,
    }
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
        jsonschema.validate(
            json.loads(to_json(read(text).session)), printed, jsonschema.Draft202012Validator
        )


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
        ("3 runds of 40/20", "how many rounds"),
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
    done = subprocess.run(
        [sys.executable, "-c", code, str(ROOT / WINTER)], capture_output=True, text=True, check=True
    )
    assert done.stdout.strip().endswith("[]")


def test_listening_to_the_world_wants_a_passphrase() -> None:
    done = run("serve", "--host", "0.0.0.0")
    assert done.exit_code == 2


AMRAP = "amrap 20:00 at 8\n  10 push-up\n  15 swing\n"


def test_fit_prints_the_nearest_first_and_leaves_three_where_there_is_none() -> None:
    slate = "warm-up 6:00 at 3\n3 rounds of 40/20, break 1:00, at 8\n  squat\n  push-up\n  plank\ncool-down 3:00\n"
    done = run(
        "fit",
        "-",
        "--total",
        "20:00",
        "--give",
        "rounds,rest,breaks",
        "--keep",
        "rest",
        "--json",
        text=slate,
    )
    told = json.loads(done.stdout)
    assert done.exit_code == 0 and told["least"] is None
    assert {"slate", "total_s", "changes", "figures"} == set(told["fits"][0])
    assert all(one["total_s"] == 1200 and "40/20" in one["slate"] for one in told["fits"])
    none = run("fit", "-", "--total", "19:00", "--give", "cool-down", "--json", text="6 x 30/60\n")
    least = json.loads(none.stdout)
    assert none.exit_code == 3 and least["fits"] == [] and least["least"]["gives"]
    stay = run(
        "fit",
        "-",
        "--in",
        "18:10",
        "--out",
        "18:40",
        "--explain",
        "1:00",
        "--clear",
        "2:00",
        "--json",
        text=slate,
    )
    fitted = json.loads(stay.stdout)["fits"][0]
    assert (
        fitted["total_s"] == 27 * 60
        and "slot: 18:10-18:40" in fitted["slate"]
        and "setup: 3:00" in fitted["slate"]
    )
    assert "1. " in run("fit", "-", "--work", "10:00", text=slate).stdout
    halved = run("fit", "-", "--ratio", "1:1", "--give", "rest", "--json", text="6 x 30/60 at 9\n")
    assert json.loads(halved.stdout)["fits"][0]["figures"]["work_to_rest"] == 1
    eased = run("fit", "-", "--effort", "8", "--json", text="6 x 30/60 at 9\n")
    assert json.loads(eased.stdout)["fits"][0]["slate"] == "6 x 30/60 at 8\n"
    assert json.loads(run("fit", "-", "--hard", "2:00", "--json", text="6 x 30/60 at 9\n").stdout)[
        "fits"
    ]
    for wrong in (
        ["--total", "soon"],
        ["--total", "20:00", "--work", "9:00"],
        ["--give", "luck"],
        ["--in", "18:10"],
    ):
        refused = run("fit", "-", *wrong, text=slate)
        assert refused.exit_code == 2 and refused.stderr


def test_recast_prints_before_and_after() -> None:
    done = run("recast", "-", "--to", "every", "--json", text=AMRAP)
    told = json.loads(done.stdout)
    assert (
        set(told) == {"slate", "changes", "before", "after"}
        and "every 1:00 for 20:00" in told["slate"]
    )
    assert told["before"]["rest_s"] == 0 < told["after"]["rest_s"]
    as_json = run("export", "-", text=AMRAP).stdout
    assert (
        json.loads(run("recast", "-", "--to", "every", "--json", text=as_json).stdout)["after"]
        == told["after"]
    )
    assert "every 1:00" in run("recast", "-", "--block", "1", "--to", "every", text=AMRAP).stdout
    assert run("recast", "-", "--block", "2", "--to", "every", text=AMRAP).exit_code == 2
    assert run("recast", "-", "--to", "waltz", text=AMRAP).exit_code == 2


def test_the_library_is_listed_and_goes_round_as_a_file() -> None:
    listed = run("moves", "--missing", "bell").stdout
    assert "no bell: hip hinge" in listed and "1.8 s a rep" in listed
    assert run("moves", "--missing", "sofa").exit_code == 2
    for form in ("csv", "json"):
        read_back = read_moves(run("moves", "--format", form).stdout)
        assert read_back.moves == shipped().moves and not read_back.problems


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("name,pattern\r\nhop,gait\r\nskip,dance\r\n", "Line 3: pattern"),
        ("name,pattern,seconds\r\nhop,gait,0\r\n", "Line 2: seconds"),
        ("name,pattern\r\nhop,gait\r\nHops,gait\r\n", "Line 3: “Hops” is there already"),
        ('name,pattern\r\n"hop, high",gait\r\n', "can't be written on a slate"),
        ("name,colour\r\nhop,red\r\n", "there must be name and pattern"),
        ('{"hop": {"pattern": "gait"}, "skip": 3}', "Move 2, “skip”"),
        ("{", "not JSON"),
    ],
)
def test_a_library_with_errors_names_them_and_takes_the_rest(text: str, said: str) -> None:
    found = read_moves(text)
    assert any(said in problem for problem in found.problems)
    assert all(move.name == "hop" for move in found.moves)


@pytest.mark.parametrize("crew", ["18 people, 2 new", "3 no jumps", "1 older", "2 just back"])
def test_rules_about_people_can_be_tried_from_outside(tmp_path: Path, crew: str) -> None:
    slate = tmp_path / "a.slate"
    slate.write_text(
        "warm-up 8:00\n\n3 rounds of 40/20, at 7\n  jump squat\n  push-up\n  plank\n", "utf-8"
    )
    said, alone = (
        {
            note["text"]
            for note in json.loads(run("plan", str(slate), "--json", *more).stdout)["notes"]
        }
        for more in (("--crew", crew), ())
    )
    assert any("ump squat" in text for text in said - alone)
    assert run("plan", str(slate), "--crew", "some of them").exit_code == 2
    people = tmp_path / "crew.json"
    people.write_text('[{"name": "A", "initials": "A", "standing": "new"}]', "utf-8")
    assert "hard landings" in run("plan", str(slate), "--json", "--crew", str(people)).stdout
    people.write_text('[{"name": "A", "shoe": 44}]', "utf-8")
    assert "no list of people" in run("plan", str(slate), "--crew", str(people)).stderr


def test_a_class_is_reviewed_from_outside(tmp_path: Path) -> None:
    heart = [[s, 100 + min(60, max(0, s - 60)) + s % 3] for s in range(400)]
    given = {
        "session": "warm-up 1:00 at 3\n\n2 x 2:00 / 1:00 at 8\n  run\n",
        "crew": {
            "people": [{"id": "ana", "name": "Ana", "rest_hr": 60, "max_hr": 190}, {"id": "bo"}]
        },
        "events": [
            {"id": "s", "kind": "start", "at_s": 0},
            {"id": "b", "kind": "stops", "at_s": 100, "person": "bo", "why": "calf"},
            {"id": "f", "kind": "felt", "at_s": 390, "person": "ana", "value": 6},
        ],
        "traces": {"ana": heart, "bo": [[s, 0] for s in range(100)]},
    }
    file = tmp_path / "class.json"
    file.write_text(json.dumps(given))
    told = json.loads(run("review", str(file), "--json").stdout)
    assert told["paragraph"].startswith(
        "2 came, bo stopped at 1:40: calf. Ended as planned, at 7:00."
    )
    assert "Felt easier than asked: Ana 6 at 8." in told["paragraph"]
    ana, bo = told["people"]["ana"], told["people"]["bo"]
    assert [turn["clean_s"] > 0 for turn in ana["turns"]] == [True, True] and ana["load"] == 42.0
    assert len(bo["turns"]) == 1 and bo["turns"][0]["average"] is None and bo["load"] is None
    assert [one["person"] for one in told["unsure"]] == ["bo"]
    for wrong in ("[]", '{"session": "3 rounds squat"}', '{"session": "rest 1:00", "traces": [1]}'):
        file.write_text(wrong)
        assert run("review", str(file)).exit_code == 2


def test_a_session_goes_further_week_by_week_from_outside() -> None:
    done = run("series", WINTER, "--weeks", "5", "--grow", "rest,rounds", "--easier", "4", "--json")
    weeks = json.loads(done.stdout)
    assert [one["week"] for one in weeks] == [1, 2, 3, 4, 5]
    assert all(not read(one["slate"]).problems and one["changes"] for one in weeks)
    assert (
        weeks[3]["changes"][0].startswith("easier week")
        and weeks[3]["hard_min"] < weeks[2]["hard_min"]
    )
    for wrong in (["--grow", "speed"], ["--grow", ""], ["--grow", "rest", "--weeks", "0"]):
        refused = run("series", WINTER, *wrong)
        assert refused.exit_code == 2 and refused.stderr
