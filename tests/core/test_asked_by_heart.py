"""What a target of the heart asks for: one measure for rules, sums and forecasts, however it is written."""

import pytest
from hypothesis import given
from hypothesis import strategies as some

from lovrit.core.blocks.parts import Heart, effort_of
from lovrit.core.heart.asked import interval_demand
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Ease
from lovrit.core.timeline.plan import plan_text

KINDS = some.sampled_from(["bpm", "max", "reserve"])


@given(KINDS, some.floats(0, 100), some.floats(0, 100))
def test_more_is_asked_by_a_higher_target(of: str, one: float, two: float) -> None:
    most = {"bpm": 186.0, "max": 100.0, "reserve": 100.0}[of]
    low, high = sorted((one / 100 * most, two / 100 * most))
    asked = [effort_of(Heart(of=of, low=at, high=at)) for at in (low, high)]  # type: ignore[arg-type]
    assert 1 <= asked[0] <= asked[1] <= 10


@pytest.mark.parametrize(
    ("target", "effort"),
    [
        ("85-95% max", 8.5),
        ("75-80% max", 6.1),
        ("60-70% reserve", 6.5),
        ("158-168", 8),
        ("50-60% max", 2.8),
    ],
)
def test_a_target_is_hard_where_its_effort_would_be(target: str, effort: float) -> None:
    plan = plan_text(f"6 x 4:00/2:00 heart {target}\n  run\n", shipped())
    asked = plan.session.blocks[0].top_asked
    assert asked == pytest.approx(effort, abs=0.6)
    assert plan.sums.hard_s == (24 * 60 if asked and asked >= 8 else 0)
    assert plan.sums.top_effort is None  # nobody wrote one


def test_three_targets_are_three_demands() -> None:
    def asked(target: str) -> float:
        plan = plan_text(f"4 x 4:00/2:00 heart {target}\n  run\n", shipped())
        return interval_demand(plan.session, plan.timeline.intervals[0])

    demands = [asked(one) for one in ("50-60% max", "120-130", "65-75% reserve", "85-95% max")]
    assert demands == sorted(demands) and len(set(demands)) == 4


@pytest.mark.parametrize(
    "target", ["90-95% max", "170-180", "85-95% reserve", "85-90% max 90-95% max"]
)
def test_easing_a_target_writes_an_effort_in_its_place(target: str) -> None:
    text = f"6 x 4:00/2:00 heart {target}\n  run\n"
    eased = apply_edit(text, Ease(block=0, most=7))
    plan = plan_text(eased, shipped())
    assert not plan.problems and eased.startswith("6 x 4:00/2:00 at 7\n")
    assert plan.session.blocks[0].heart is None and plan.session.blocks[0].top_effort == 7
