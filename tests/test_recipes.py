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


def test_a_kind_of_block_is_one_file_and_a_name(tmp_path: Path) -> None:
    source = tmp_path / "src"
    shutil.copytree(
        ROOT / "src", source, ignore=shutil.ignore_patterns("__pycache__", "built", "*.egg-info")
    )
    shutil.copytree(
        ROOT / "tests", tmp_path / "tests", ignore=shutil.ignore_patterns("__pycache__", "browser")
    )
    blocks = source / "lovrit" / "core" / "blocks"
    (blocks / "waves.py").write_text(WAVES.lstrip(), "utf-8")
    kinds = (blocks / "kinds.py").read_text("utf-8")
    kinds = kinds.replace(
        "from lovrit.core.slate",
        "from lovrit.core.blocks.waves import Waves\nfrom lovrit.core.slate",
        1,
    )
    (blocks / "kinds.py").write_text(
        kinds.replace("Tempo, Build,", "Tempo, Build, Waves,"), "utf-8"
    )
    (tmp_path / "tried.py").write_text(TRIED, "utf-8")
    slate = tmp_path / "waves.slate"
    slate.write_text("3 x (8 4 2), rest 2:00, at 8\n  squat\n", "utf-8")
    env = os.environ | {
        "PYTHONPATH": f"{source}:{tmp_path}",
        "XDG_CACHE_HOME": str(tmp_path / "cache"),
    }
    plan = [sys.executable, "-m", "lovrit.cli", "plan", str(slate), "--json"]
    told = json.loads(
        subprocess.run(plan, env=env, capture_output=True, check=True, text=True).stdout
    )
    assert told["blocks"][0]["kind"] == "waves" and len(told["intervals"]) == 18
    assert [one["phase"] for one in told["intervals"][:2]] == ["work", "rest"]
    ran = subprocess.run(
        [sys.executable, "tried.py"],
        cwd=tmp_path,
        env=env,
        capture_output=True,
        text=True,
        check=False,
    )
    assert ran.returncode == 0, ran.stderr[-2000:]


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
