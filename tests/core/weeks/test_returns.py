"""What comes back, as written down before the code; patterns that leave sore because nobody did them for weeks."""

import tomllib
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest

from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.core.tries.done import Did, did
from lovrit.core.weeks.returns import lately, returns

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "returns.toml").read_text("utf-8"))
TODAY = date(2026, 11, 26)
Days = list[tuple[date, tuple[Did, ...]]]


def days_of(lines: list[str], sign: int) -> Days:
    by_day: dict[int, list[str]] = {}
    for line in lines:
        name, _, days = line.partition(":")
        for one in days.split():
            by_day.setdefault(int(one), []).append(name)
    return [
        (
            TODAY + timedelta(days=sign * days),
            did(
                plan_text("3 rounds of 40/20\n  " + "\n  ".join(names), shipped()).session.blocks,
                shipped(),
            ),
        )
        for days, names in by_day.items()
    ]


@pytest.mark.parametrize(
    "case", CASES["club"], ids=lambda case: "; ".join(case["seen"])[:60] or "nothing"
)
def test_what_has_not_been_seen_for_a_while_is_said(case: dict[str, Any]) -> None:
    found = returns(days_of(case["seen"], -1), days_of(case.get("planned", []), 1), TODAY)
    said = [one.said for one in found]
    for wanted in case.get("says", ()):
        assert any(one.startswith(wanted) for one in said), said
    assert not any(
        one.startswith(f"{name}:") or one.startswith(name + " ")
        for one in said
        for name in case.get("never", ())
    ), said
    if "says" not in case and "never" not in case:
        assert not said


def test_a_pattern_is_unused_after_three_weeks_and_in_a_young_club_none_is() -> None:
    done = days_of(["squat: 2 30", "push-up: 25"], -1)
    near = lately(done, TODAY).unused
    assert {"push", "pull", "hinge"} <= near and "squat" not in near
    assert lately(days_of(["squat: 2 9"], -1), TODAY).unused == frozenset()
    assert lately([], TODAY).unused == frozenset()
    assert lately(days_of(["squat: 2 9 16 23", "push-up: 2 9 23"], -1), TODAY).used == {"squat"}
