"""A session further every week: what each week says and holds back, and that none is more than it may be."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.session.reader import read
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.series import A_WEEK, ABOUT, THINGS, series
from tests.conftest import examples

LIBRARY = shipped()
FILE = tomllib.loads(
    (Path(__file__).parents[2] / "cases" / "series.toml").read_text(encoding="utf-8")
)


@pytest.mark.parametrize(
    "case", FILE["week"], ids=lambda one: f"{one['slate']} {one['grow']} {one['week']}"
)
def test_a_week_of_a_series(case: dict[str, Any]) -> None:
    grow = tuple(case["grow"].split(","))
    found = series(
        FILE["slates"][case["slate"]], case["week"], grow, case.get("easier", 4), LIBRARY
    )
    week = found[-1]
    said = "; ".join(week.changes)
    assert case["has"] in week.slate, (week.slate, said)
    assert case["says"] in said, (week.slate, said)
    assert case["never"] not in week.slate + said


@examples(60)
@given(
    st.sampled_from(sorted(FILE["slates"])),
    st.lists(st.sampled_from(THINGS), min_size=1, max_size=3, unique=True).map(tuple),
    st.integers(1, 12),
    st.sampled_from([0, 3, 4]),
)
def test_every_week_is_a_session_of_its_own_and_none_grows_too_fast(
    name: str, grow: tuple[str, ...], weeks: int, easier: int
) -> None:
    found = series(FILE["slates"][name], weeks, grow, easier, LIBRARY)
    assert [one.week for one in found] == list(range(1, weeks + 1))
    first = plan_text(found[0].slate, LIBRARY).sums
    for one in found:
        reading = read(one.slate)
        assert not reading.problems and write(reading.session) == one.slate and one.changes
        plan = plan_text(one.slate, LIBRARY)
        assert one.hard_min == round(plan.sums.hard_s / 60, 2)
        assert plan.sums.hard_s <= first.hard_s * (A_WEEK ** (one.week - 1) + ABOUT) + 1
        assert plan.sums.spare_s is None or plan.sums.spare_s >= 0
        if easier and one.week % easier == 0:
            before = plan_text(found[one.week - 2].slate, LIBRARY)
            assert plan.sums.hard_s <= before.sums.hard_s
    assert found == series(FILE["slates"][name], weeks, grow, easier, LIBRARY)
