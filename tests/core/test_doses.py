"""How much of the hard work is for whom, and when a level may rise; proposed where it must be, else silent."""

import re
import tomllib
from collections import Counter
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.dose import MOST_S, dose, own_hard_s
from lovrit.core.crew.groups import evened
from lovrit.core.crew.person import Person
from lovrit.core.crew.rising import Did, rise
from tests.core.test_fits import LIBRARY, line_of

CASES = Path(__file__).parents[1] / "cases"
DOSES = tomllib.loads((CASES / "doses.toml").read_text(encoding="utf-8"))["dose"]
RISES = tomllib.loads((CASES / "rises.toml").read_text(encoding="utf-8"))["rise"]
TODAY = date(2026, 11, 26)


def who(said: str) -> Person:
    """“new for 2 weeks, 71” as a person."""
    age = re.search(r", (\d+)", said)
    weeks = re.search(r"for (\d+) week", said)
    fields: dict[str, Any] = {"age": int(age[1]) if age else None}
    if said.startswith(("new", "back")):
        fields["standing"] = said[:4].strip(", ")
    if weeks:
        fields["since"] = (TODAY - timedelta(weeks=int(weeks[1]))).isoformat()
    fields["cleared"] = {"not": "not yet", "cle": "yes"}.get(said[:3], "")
    return Person(id=1, name="Ana", initials="AN", **fields)


@pytest.mark.parametrize("case", DOSES, ids=lambda case: f"{case['who']}: {case['turns']}")
def test_the_share_of_the_hard_work_that_is_proposed(case: dict[str, Any]) -> None:
    works = [(float(effort), s) for many, s, effort in case["turns"] for _ in range(many)]
    found = dose(who(case["who"]), [one for one in works if one[0] >= 8], TODAY.isoformat())
    assert (found.share if found else "") == case["takes"]


@given(
    st.lists(st.tuples(st.sampled_from([8.0, 8.5, 9.0, 10.0]), st.integers(5, 900)), max_size=80),
    st.sampled_from([case["who"] for case in DOSES]),
)
def test_a_proposed_share_is_never_too_much_and_never_more(
    works: list[tuple[float, int]], said: str
) -> None:
    found = dose(who(said), works, TODAY.isoformat())
    if found:
        assert found.own_s == own_hard_s(works, found.share) <= MOST_S
        assert found.own_s < found.hard_s == sum(seconds for _, seconds in works)


@given(st.dictionaries(st.integers(1, 99), st.integers(0, 6), min_size=1, max_size=60))
def test_groups_are_evened_with_as_few_moved_as_can_be(groups: dict[int, int]) -> None:
    made = evened(groups)
    before, after = Counter(groups.values()), Counter(made.values())
    assert made.keys() == groups.keys() and after.keys() == before.keys()
    assert max(after.values()) - min(after.values()) <= 1
    low, more = divmod(len(groups), len(before))
    wanted = [low + (nth < more) for nth in range(len(before))]
    least = sum(
        max(0, have - want)
        for have, want in zip(sorted(before.values(), reverse=True), wanted, strict=True)
    )
    assert sum(made[who] != group for who, group in groups.items()) == least


@pytest.mark.parametrize("case", RISES, ids=lambda case: f"{case['line']}: {len(case['did'])}")
def test_a_level_rises_by_rule_and_else_stays(case: dict[str, Any]) -> None:
    person = Person(
        id=1, name="Ana", initials="AN",
        limits=tuple(case.get("limits", ())), standing=case.get("standing", "usual"),
    )  # fmt: skip
    did = [
        Did(TODAY - timedelta(weeks=weeks), said, None if felt < 0 else felt, asked, whole)
        for weeks, said, felt, asked, whole in case["did"]
    ]
    found = rise(person, line_of(case["line"]), LIBRARY, did, TODAY)
    assert (found.next if found else "") == case["rises"]
