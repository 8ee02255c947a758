"""What the docs name is so: each slate, spoken form, score, command and key of theirs is tried."""

import re
from pathlib import Path

import pytest

from lovrit.cli.main import _parser
from lovrit.core.advice.look import second_look
from lovrit.core.blocks.score import Impossible
from lovrit.core.days import read_day
from lovrit.core.moves.library import shipped
from lovrit.core.review.scores import score
from lovrit.core.session.reader import read
from lovrit.core.timeline.plan import plan_text
from lovrit.settings import Settings
from lovrit.web.words import KEYS
from tests.core.test_days import TODAY
from tests.core.test_scores import PLANS

ROOT = Path(__file__).parents[1]
DOCS = {
    name: (ROOT / name).read_text("utf-8")
    for name in ("README.md", "docs/guide.md", "docs/structures.md")
}
GUIDE = DOCS["docs/guide.md"]
SLATES = [
    (f"{name}:{text[: found.start()].count(chr(10)) + 1}", found[1])
    for name, text in DOCS.items()
    for found in re.finditer(r"```(?:slate)?\n(.*?)```", text, re.DOTALL)
]
NAMED_ALONE = {"lovrit place", "lovrit review"}  # in a sentence about them
COMMANDS = sorted(
    {said for text in DOCS.values() for said in re.findall(r"`(lovrit [^`]+)`", text)} - NAMED_ALONE
)


def test_the_settings_and_files_that_the_docs_name_are_there() -> None:
    server = ROOT / "docs" / "server"
    texts = [
        *DOCS.values(),
        *(one.read_text("utf-8") for one in [*server.iterdir(), server.with_suffix(".md")]),
    ]
    named = {said for text in texts for said in re.findall(r"LOVRIT_([A-Z_]+)", text)}
    assert len(named) >= 6
    assert named <= {name.upper() for name in Settings.model_fields}
    unit = (server / "lovrit.service").read_text("utf-8")
    command = re.findall(r"^ExecStart=/opt/lovrit/bin/lovrit (.+)$", unit, re.MULTILINE)
    assert [_parser().parse_args(one.split()).does.__name__ for one in command] == ["serve"]
    made = (server / "Containerfile").read_text("utf-8")
    copied = [one for one in re.findall(r"^COPY (\S+) /", made, re.MULTILINE) if "=" not in one]
    assert copied and all((ROOT / one).exists() for one in copied)


def codes(text: str) -> list[str]:
    return re.findall(r"`([^`]+)`", text)


def between(first: str, last: str) -> str:
    return GUIDE.split(first, 1)[1].split(last, 1)[0]


@pytest.mark.parametrize(("where", "slate"), SLATES, ids=[where for where, _ in SLATES])
def test_a_slate_of_the_docs_is_read_whole(where: str, slate: str) -> None:
    reading = read(slate)
    assert not reading.problems, reading.problems
    assert not [
        one.text
        for one in second_look(plan_text(slate, shipped()), shipped())
        if one.level == "stop"
    ]


def test_the_first_slate_is_one_that_nobody_would_question() -> None:
    first = SLATES[0][1]
    notes = second_look(plan_text(first, shipped()), shipped())
    assert not [one.text for one in notes if one.level != "tell"]


@pytest.mark.parametrize(
    "said", codes(between("may be written as it is said:", "It is\nread at once"))
)
def test_a_heading_is_read_as_it_is_said(said: str) -> None:
    reading = read(f"{said}\n  squat" if "squat" not in said else said)
    assert not reading.problems, reading.problems
    assert reading.session.blocks


def test_lines_that_are_one_and_the_same_are() -> None:
    for some in between("These are one and the same:", "What could be two things").split(
        "and these:"
    ):
        found = [
            read(f"3 rounds of 40/20\n  {said}").session.blocks[0].moves[0] for said in codes(some)
        ]
        tasks = {
            (shipped().find(task.name).name, str(task.amount), str(task.load), task.side)
            for task in (one.tasks[0] for one in found)
        }
        assert len(tasks) == 1, tasks


@pytest.mark.parametrize("said", ["break 2", "rest 2", "rest 3", "change 1"])
def test_what_could_be_minutes_or_seconds_is_asked_with_both(said: str) -> None:
    head = {"break": "3 rounds of 40/20", "change": "8 sets of 20/10", "rest": "3 sets of 8 reps"}
    problem = read(f"{head[said.split(maxsplit=1)[0]]}, {said}\n  squat\n  swing").problems[0]
    assert len(problem.expected) == 2 and problem.nearest


def test_the_half_start_lasts_as_the_guide_says() -> None:
    said = re.search(
        r"^(every 1:00 for 12:00, half start at 0:30).*second half (\d+):(\d+)", GUIDE, re.MULTILINE
    )
    assert said
    plan = plan_text(f"{said[1]}\n  8 swing", shipped())
    assert plan.timeline.total_s == 60 * int(said[2]) + int(said[3])


def test_what_is_joined_is_counted_by_its_own_reps() -> None:
    plan = plan_text(
        "warm-up 6:00 at 3\nevery 1:00 for 12:00 at 6\n  6 box step-over + 15-25 side step",
        shipped(),
    )
    assert not [
        one.text for one in second_look(plan, shipped()) if "times what most do" in one.text
    ]


@pytest.mark.parametrize("said", codes(between("Scores are read as coaches write them", "reps")))
def test_a_score_is_read_as_the_guide_writes_it(said: str) -> None:
    def taken(name: str) -> bool:
        plan = PLANS[name]
        try:
            score(plan.session.blocks[0], plan.timeline.blocks[0], said, shipped())
        except Impossible:
            return False
        return True

    assert any(taken(name) for name in PLANS), said


@pytest.mark.parametrize("said", COMMANDS)
def test_a_command_is_one(said: str) -> None:
    words = re.sub(r"\|\S+", "", said).split()[1:]
    words = [{"FILE": "-", "N": "1"}.get(word, word) for word in words]
    assert _parser().parse_args(words).does


def test_days_of_the_guide_are_days() -> None:
    said = between("in every field that takes one:", "One that is").strip(" .\n").replace("\n", " ")
    for one in said.split(", "):
        assert read_day(one, TODAY), one


def test_keys_are_named_once_each() -> None:
    for page, keys in KEYS.items():
        named = [key for key, _ in keys]
        assert len(named) == len(set(named)), page
