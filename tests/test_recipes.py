"""The recipes of CONTRIBUTING.md, followed: the paths that they name are there, and a kind of block is one file."""

import importlib.util
import json
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

import httpx

ROOT = Path(__file__).parent.parent
WAVES = '''
"""Waves of reps: so many rounds of falling sets, each as heavy as it can be, with a rest after each set."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form, Repeats
from lovrit.core.blocks.options import AIMS, REST, Read
from lovrit.core.blocks.parts import Count, Seconds, count_figure, read_count
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.blocks.worktime import reps_s
from lovrit.core.slate.tree import Node, tokens, trees, whole


def _read(node: Node) -> Read:
    times = trees(node)[0]
    reps = tuple(whole(token, "reps", most=100) for token in tokens(node, "NUM"))
    return Read({"waves": read_count(times, "waves"), "reps": reps}, count_figure("waves", times))


class Waves(Block):
    """Falling sets, again and again."""

    kind: Literal["waves"] = "waves"
    waves: Count
    reps: tuple[int, ...]
    rest_s: Seconds = 0

    forms: ClassVar[tuple[Form, ...]] = (
        Form("waves", ("count X OPEN NUM NUM+ CLOSE",), _read, (*AIMS, REST), "3 x (8 4 2), rest 2:00"),
    )
    needs_stations: ClassVar[bool] = True
    lifts: ClassVar[bool] = True

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.waves} x ({' '.join(map(str, self.reps))})"

    @property
    def is_forecast(self) -> bool:
        """Reps take what they take."""
        return True

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Set by set, wave by wave."""
        name = self.moves[0].tasks[0].name
        for nth in range(1, laying.times(self.waves) + 1):
            for turn, reps in enumerate(self.reps, 1):
                work = self.work(round(reps_s(name, reps, laying.library, laying.case)), nth, turn, 0)
                yield work
                yield self.pause("rest", self.rest_s, work)
'''
TRIED = """
from hypothesis import given, settings
from lovrit.core.moves.library import shipped
from lovrit.core.session.reader import read
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked, plain
from lovrit.core.session.session import Session
from lovrit.web.desk.rails import rails_view
from tests.core.session.slates import slates

seen = set()

@settings(max_examples=400, deadline=None, derandomize=True, database=None)
@given(slates())
def tried(text):
    plan = plan_text(text, shipped())
    seen.update(block.kind for block in plan.session.blocks)
    assert read(write(plan.session)).session == plan.session
    assert checked(Session, plain(plan.session)) == plan.session
    for at in range(len(plan.session.blocks)):
        assert rails_view(plan, 2, at, 0)

tried()
assert "waves" in seen, seen
"""


RINGS = '''
"""The hall's bell rings: lessons end next door, and a coach wants to find the moment again."""

from lovrit.core.run.events.kind import Kind
from lovrit.core.run.going import Going, Happening


def _rings(state: Going, event: Happening) -> bool:
    if state.phase != "on":
        return False
    state.marks.append({"at_s": event.at_s, "text": "the bell"})
    return True


RINGS = Kind("rings", _rings, undo="the bell", shifts=False, pinned=True, no="Nothing was going on then.",
             said=lambda _, __: "the bell rang")
'''
RANG = """
from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event, happening
from lovrit.core.run.events.kind import Telling
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import freeze
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import checked
from lovrit.web.debrief.chronicle import chronicle
from lovrit.house.telling import Told, state_object
from lovrit.core.run.account import account
from tools.events import script

plan = freeze(plan_text("3 rounds of 40/20\\n  squat\\n  push-up\\n", shipped()))
fold = Fold(plan.plan(), [])
def sent(kind, at_s, **more):
    event = checked(Event, {"id": f"{kind}{at_s}", "kind": kind, "at_ms": at_s * 1000, **more})
    return fold.take(happening(event, 0))
assert not sent("rings", 1) and fold.refused == "Nothing was going on then."
assert sent("start", 2) and sent("rings", 20)
told = state_object(Told(fold, fold.at(21), 0, ()), 21000, "coach")
assert told["undo"]["said"] == "the bell", told["undo"]
said = chronicle(fold.counted, account(fold.state, plan, 0), 0, Telling({}, plan.session, ()))
assert [one.said for one in said] == ["the bell rang"], said
assert sent("undo", 22, of="rings20") and not fold.state.marks
assert '"rings"' in script()
"""


def test_every_path_in_the_papers_is_there() -> None:
    for paper in ("CONTRIBUTING.md", "docs/glossary.md", "README.md"):
        text = (ROOT / paper).read_text("utf-8")
        named = re.findall(r"`((?:src|tests|docs|tools|core|store|web)/[\w/.]+)`", text)
        named += [
            f"{(ROOT / paper).parent}/{link}"
            for link in re.findall(r"\]\((?!http)([\w/.-]+)\)", text)
        ]
        for path in named:
            assert (ROOT / path).exists() or (ROOT / "src" / "lovrit" / path).exists(), (
                paper,
                path,
            )


def _copied(tmp_path: Path, *more: str) -> tuple[Path, dict[str, str]]:
    """The house's sources to write into, and the environment in which they are the ones that run."""
    source = tmp_path / "src"
    leave = shutil.ignore_patterns("built", "*.egg-info", "browser")
    for folder in ("src", *more):
        shutil.copytree(ROOT / folder, tmp_path / folder, ignore=leave)
    cache = str(tmp_path / "cache")
    return source, os.environ | {"PYTHONPATH": f"{source}:{tmp_path}", "XDG_CACHE_HOME": cache}


def _named(path: Path, before: str, line: str, name: tuple[str, str]) -> None:
    """A name is put into a tuple of kinds, with its import."""
    text = path.read_text("utf-8").replace(before, f"{line}\n{before}", 1)
    path.write_text(text.replace(*name), "utf-8")


def _runs(script: str, folder: Path, env: dict[str, str]) -> None:
    (folder / "tried.py").write_text(script, "utf-8")
    ran = subprocess.run(
        [sys.executable, "tried.py"], cwd=folder, env=env, capture_output=True, text=True, check=False
    )  # fmt: skip
    assert ran.returncode == 0, ran.stderr[-2000:]


def test_a_kind_of_event_is_one_file_and_a_name(tmp_path: Path) -> None:
    source, env = _copied(tmp_path, "tools")
    events = source / "lovrit" / "core" / "run" / "events"
    (events / "rings.py").write_text(RINGS.lstrip(), "utf-8")
    first = "from lovrit.core.run.events.absent"
    line = "from lovrit.core.run.events.rings import RINGS"
    _named(events / "kinds.py", first, line, ("SWAP, SHOW,", "SWAP, SHOW, RINGS,"))
    _runs(RANG, tmp_path, env)


def test_a_kind_of_block_is_one_file_and_a_name(tmp_path: Path) -> None:
    source, env = _copied(tmp_path, "tests")
    blocks = source / "lovrit" / "core" / "blocks"
    (blocks / "waves.py").write_text(WAVES.lstrip(), "utf-8")
    line = "from lovrit.core.blocks.waves import Waves"
    _named(
        blocks / "kinds.py",
        "from lovrit.core.slate",
        line,
        ("Tempo, Build,", "Tempo, Build, Waves,"),
    )
    slate = tmp_path / "waves.slate"
    slate.write_text("3 x (8 4 2), rest 2:00, at 8\n  squat\n", "utf-8")
    plan = [sys.executable, "-m", "lovrit.cli", "plan", str(slate), "--json"]
    told = json.loads(
        subprocess.run(plan, env=env, capture_output=True, check=True, text=True).stdout
    )
    assert told["blocks"][0]["kind"] == "waves" and len(told["intervals"]) == 18
    assert [one["phase"] for one in told["intervals"][:2]] == ["work", "rest"]
    _runs(TRIED, tmp_path, env)


def test_what_is_measured_answers(tmp_path: Path) -> None:
    """The bench's own server and its empty page: it had broken twice, and nobody saw it until it was run."""
    spec = importlib.util.spec_from_file_location("bench", ROOT / "tools" / "bench.py")
    assert spec and spec.loader
    bench = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(bench)
    served = bench.Served(tmp_path)
    try:
        assert httpx.get(f"{bench.URL}/bench/empty", timeout=10).status_code == 200
        assert httpx.get(f"{bench.URL}/desk/{served.session}", timeout=10).status_code == 200
    finally:
        served.server.should_exit = True
