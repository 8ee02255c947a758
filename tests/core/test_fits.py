"""The fit sheet: who does what at a station; never what a limit forbids."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.fits import cell, ladder, stepped
from lovrit.core.crew.person import DOES_NOT, Chosen, Person
from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.core.session.reader import read
from lovrit.core.slate.line import Line

LIBRARY = shipped()
CASES = tomllib.loads(
    (Path(__file__).parents[1] / "cases" / "fits.toml").read_text(encoding="utf-8")
)["fit"]
NAMES = st.sampled_from([move.name for move in LIBRARY.moves])
LIMITS = st.lists(st.sampled_from(sorted(DOES_NOT)), unique=True).map(tuple)


def line_of(text: str) -> Line:
    reading = read(f"3 rounds of 40/20\n  {text}\n")
    assert not reading.problems, reading.problems
    return reading.session.blocks[0].moves[0]


def person(**fields: Any) -> Person:
    return Person(id=1, name="Ana", initials="AN", **fields)


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case['line']} {case.get('limits', '')}")
def test_a_cell_of_the_fit_sheet(case: dict[str, Any]) -> None:
    line = line_of(case["line"])
    own = {}
    if "chosen" in case:
        taken = Chosen(name=case["chosen"], load=case.get("chosen_load"))
        own = {key_of(line.tasks[0].name): taken}
    bests = {key_of(line.tasks[0].name): case["best"]} if "best" in case else {}
    limits, standing = tuple(case.get("limits", ())), case.get("standing", "usual")
    told = cell(
        person(limits=limits, standing=standing, age=case.get("age"), does=own, bests=bests),
        line,
        LIBRARY,
    )
    assert told.open == case.get("open", False), told
    if not told.open:
        assert told.does == case.get("does", told.does) and told.does != case.get("not"), told
        assert told.load == case.get("load", told.load if "not" in case else None), told
    assert case.get("because", told.because) in told.because, told


@given(
    NAMES,
    LIMITS,
    st.sampled_from(["usual", "new", "back"]),
    st.integers(10, 90),
    st.lists(st.sampled_from([1, -1]), max_size=8),
)
def test_no_version_is_one_that_a_limit_forbids(
    name: str, limits: tuple[Any, ...], standing: Any, age: int, steps: list[int]
) -> None:
    line = line_of(f"{name} | bell 16 12 8")
    who = person(limits=limits, standing=standing, age=age)
    options = ladder(line, LIBRARY)
    for by in (0, *steps):
        who = stepped(who, line, LIBRARY, by) if by else who
        told = cell(who, line, LIBRARY)
        assert told.open or not options[told.at].asks & set(limits)
        assert 0 <= told.at < told.options == len(options)


@given(NAMES)
def test_a_step_harder_and_one_easier_lead_back(name: str) -> None:
    line = line_of(f"{name} | bell 16 12 8")
    before = cell(person(), line, LIBRARY)
    up = stepped(person(), line, LIBRARY, 1)
    if up.does:
        back = cell(stepped(up, line, LIBRARY, -1), line, LIBRARY)
        assert (back.does, back.load) == (before.does, before.load)
