"""What a usual person takes, held against what coaches know; and that tired people are slower."""

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text

CASES = tomllib.loads((Path(__file__).parents[2] / "cases" / "forecasts.toml").read_text("utf-8"))
MOVES = ("pull-up", "push-up", "squat", "burpee", "swing", "sit-up", "handstand push-up", "row")


def forecast(text: str) -> tuple[float, float, float]:
    """Low, likely and high of the only block."""
    plan = plan_text(text, shipped())
    assert not plan.problems, plan.problems[0].text
    told = plan.timeline.blocks[0].forecast
    assert told
    return told.rounds or told.time_s or (0, 0, 0)


@pytest.mark.parametrize("case", CASES["case"], ids=lambda case: case["text"].replace("\n  ", ", "))
def test_a_usual_person_takes_what_coaches_know(case: dict[str, Any]) -> None:
    low, high = case.get("rounds") or case["time"]
    slow, likely, quick = forecast(case["text"])
    assert low <= likely <= high
    assert min(slow, quick) <= likely <= max(slow, quick)
    if "spread" in case:
        assert slow <= case["spread"][0] and quick >= case["spread"][1]


@given(st.sampled_from(MOVES), st.integers(1, 12), st.sampled_from([120, 180, 300]))
def test_four_times_as_long_is_less_than_four_times_as_much(
    move: str, reps: int, seconds: int
) -> None:
    (short,), (long,) = (
        plan_text(f"amrap {length // 60}:00\n  {reps} {move}", shipped()).session.blocks
        for length in (seconds, 4 * seconds)
    )
    assert isinstance(short, Amrap) and isinstance(long, Amrap)
    one, four = short.rounds(shipped(), "likely"), long.rounds(shipped(), "likely")
    assert one and four and one < four <= 4 * one


@given(st.sampled_from(MOVES), st.integers(1, 300))
def test_more_reps_take_longer_and_never_less_each(move: str, reps: int) -> None:
    times = []
    for count in (reps, reps + 1, 2 * reps):
        (block,) = plan_text(f"1 round for time\n  {count} {move}", shipped()).session.blocks
        assert isinstance(block, ForTime)
        times.append(block.needed_s(shipped()) or 0)
    assert times[0] <= times[1] <= times[2] + 1 and times[2] + 3 >= 2 * times[0] - 6


def test_standards_and_ranges_are_choices_that_narrow_the_crowd() -> None:
    one, choice = (
        forecast("1 round for time\n  16 cal row"),
        forecast("1 round for time\n  18/14 cal row"),
    )
    assert choice[2] - choice[0] < one[2] - one[0]
