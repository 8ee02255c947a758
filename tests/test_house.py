"""What holds for the house as a whole: nothing from outside, nothing inline, nothing that no page uses."""

import ast
import importlib
import json
import re
import tomllib
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
WEB = ROOT / "src" / "lovrit" / "web"
TEMPLATES = sorted(WEB.glob("*/templates/**/*.*"))
HOST = re.compile(
    r"https?://(?!127\.0\.0\.1|www\.w3\.org|json-schema\.org)[\w.-]+\.\w+", re.IGNORECASE
)


@pytest.mark.parametrize("path", TEMPLATES, ids=lambda path: path.name)
def test_no_template_has_inline_style_script_or_foreign_address(path: Path) -> None:
    text = path.read_text("utf-8")
    assert not re.search(r"\sstyle=|\son\w+=|javascript:", text)
    assert not HOST.search(text)
    assert all(
        "src=" in tag or "application/json" in tag for tag in re.findall(r"<script[^>]*>", text)
    )


def test_every_template_is_used() -> None:
    said = "\n".join(path.read_text("utf-8") for path in (*TEMPLATES, *WEB.glob("**/*.py")))
    for path in TEMPLATES:
        assert (
            f"{path.parent.name}/{path.name}" in said or f"{path.parent.name}/{{screen}}" in said
        ), path.name


def test_scripts_and_styles_fetch_nothing_from_elsewhere() -> None:
    for path in (*WEB.glob("static/scripts/*.js"), *WEB.glob("static/styles/*.scss")):
        assert not HOST.search(path.read_text("utf-8")), path.name


def test_lock_files_name_no_registry() -> None:
    packages = json.loads((ROOT / "package-lock.json").read_text("utf-8"))["packages"]
    assert all("resolved" not in one for one in packages.values())
    for name in ("app", "dev"):
        text = (ROOT / "requirements" / f"{name}.txt").read_text("utf-8")
        assert "--index" not in text and "://" not in text
        pinned = re.findall(r"(?m)^[a-z][\w.-]*==", text)
        assert len(pinned) == len(set(pinned)) and text.count("--hash=sha256:") > len(pinned)


def test_screenshots_are_few_and_all_in_the_readme() -> None:
    kept = {path.name for path in (ROOT / "docs" / "screenshots").glob("*.png")}
    shown = set(
        re.findall(r"docs/screenshots/([\w-]+\.png)", (ROOT / "README.md").read_text("utf-8"))
    )
    assert kept == shown and len(kept) < 20


def test_links_between_the_papers_lead_somewhere() -> None:
    for paper in (ROOT / "README.md", *(ROOT / "docs").glob("*.md")):
        for link in re.findall(r"\]\(([^)#]+)\)", paper.read_text("utf-8")):
            assert (paper.parent / link).exists(), f"{paper.name}: {link}"


def test_the_structures_page_is_what_the_code_says() -> None:
    from lovrit.core.clock import minutes
    from lovrit.core.moves.library import shipped
    from lovrit.core.session.rack import rack
    from lovrit.core.timeline.plan import plan_text

    page = (ROOT / "docs" / "structures.md").read_text("utf-8")
    for shape in rack():
        assert shape.slate.strip() in page
        assert f"{minutes(plan_text(shape.slate, shipped()).timeline.total_s)}" in page


def test_makefile_targets_are_the_ones_the_readme_names() -> None:
    targets = set(re.findall(r"(?m)^([a-z]+):", (ROOT / "Makefile").read_text("utf-8")))
    papers = (ROOT / "README.md").read_text("utf-8") + (ROOT / "CONTRIBUTING.md").read_text("utf-8")
    assert set(re.findall(r"`?make ([a-z]+)", papers)) <= targets
    assert {"setup", "demo", "test", "check", "bench", "shots", "ratio", "clean"} <= targets


def test_the_package_ships_its_data() -> None:
    told = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))
    shipped = told["tool"]["setuptools"]["package-data"]["lovrit"]
    house = ROOT / "src" / "lovrit"
    taken = {path for pattern in shipped for path in house.glob(pattern)}
    ours = {
        path for path in house.rglob("*.*") if path.is_file() and "__pycache__" not in path.parts
    }
    left = {path.suffix for path in ours - taken}
    assert left <= {".py", ".js", ".scss"}, left


def test_what_is_said_of_the_second_look_is_what_it_does() -> None:
    from tools.judgement import OUT, page

    assert OUT.read_text("utf-8") == page(), "make judgement"


def test_what_scripts_know_of_events_is_what_there_is() -> None:
    from tools.events import PATH, script

    assert PATH.read_text("utf-8") == script(), "make events"


CORE = ROOT / "src" / "lovrit" / "core"
ROOMS = {path.parent.name: path.parent for path in CORE.glob("*/__init__.py")}


def _taken() -> Iterator[tuple[str, str, Path]]:
    """Every room and file of the core that something outside of that room takes from."""
    for path in (ROOT / "src").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("lovrit.core."):
                _, _, room, *file = str(node.module).split(".")
                if room in ROOMS and ROOMS[room] not in path.parents:
                    yield room, ".".join(file), path


def test_rooms_of_the_core_are_entered_by_their_doors() -> None:
    taken = list(_taken())
    doors = {room: importlib.import_module(f"lovrit.core.{room}").DOOR for room in ROOMS}
    for room, file, path in taken:
        assert file in doors[room], f"{path.name} takes from behind the door of {room}: {file}"
    for room, door in doors.items():
        unused = set(door) - {file for other, file, _ in taken if other == room}
        assert not unused, f"nobody outside takes from {unused} of {room}"
