"""What a gate believes: whatever a strap does for some seconds, nobody is let go while their heart is far off."""

from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.floor import Gate
from lovrit.core.heart.gate import GateSignal
from lovrit.core.heart.gates_ahead import foresee_gates, gates_said
from lovrit.core.heart.said import USUAL
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from tests.conftest import examples

FAULTS = st.lists(
    st.tuples(st.integers(10, 110), st.integers(1, 6), st.one_of(st.just(0), st.integers(26, 230))),
    max_size=4,
)


def falling(second: int) -> float:
    return 112 + 60 * 0.98**second


@examples(300)
@given(FAULTS, st.integers(120, 160), st.integers(0, 10_000))
def test_nobody_goes_while_their_heart_is_far_above(
    faults: list[tuple[int, int, int]], gate: int, seed: int
) -> None:
    chance, signal = Random(seed), GateSignal()
    for second in range(120):
        true = falling(second)
        told = round(true + chance.gauss(0, 1))
        for at, long, value in faults:
            if at <= second < at + long:
                told = value
        signal.second(told)
        bpm = signal.believed(down=True)
        if bpm and bpm <= gate:
            # a fault within the leap that is no leap can be believed, but no further off than that
            assert true <= gate + 12.5
            return
    assert falling(119) > gate - 3 or faults


@given(st.lists(st.integers(0, 300), max_size=40))
def test_a_lost_or_leaping_signal_is_not_there(readings: list[int]) -> None:
    signal = GateSignal()
    for bpm in readings:
        signal.second(bpm)
    signal.second(0)
    assert signal.believed(True) == 0 and signal.believed(False) == 0


def test_it_costs_about_a_second_on_a_good_signal() -> None:
    signal, true_at, opened_at = GateSignal(), None, None
    for second in range(120):
        told = round(falling(second))
        signal.second(told)
        true_at = second if true_at is None and told <= 130 else true_at
        if opened_at is None and 0 < signal.believed(True) <= 130:
            opened_at = second
    assert true_at is not None and opened_at is not None and 0 <= opened_at - true_at <= 3


def test_a_real_leap_is_believed_after_a_while() -> None:
    signal = GateSignal()
    for bpm in [150] * 20 + [120] * 20:
        signal.second(bpm)
    assert signal.believed(True) == 120


@pytest.mark.parametrize(("when", "share"), [("", 1.0), (", when all", 1.0), (", when half", 0.5)])
def test_a_lane_goes_by_its_share(when: str, share: float) -> None:
    text = f"6 x 40/until 118, least 20, most 2:00{when}"
    plan = plan_text(text, shipped())
    assert not plan.problems
    block = plan.session.blocks[0]
    assert getattr(block, "when", None) == when.removeprefix(", when ")
    gate = Gate(118, 20, 120, True, share)
    assert gate.there(118) and not gate.there(0) and not gate.there(119)


def test_one_is_enough_for_work_only() -> None:
    assert not plan_text("4 x until 170/2:00, most 3:00, when one", shipped()).problems
    refused = plan_text("6 x 40/until 118, least 20, most 2:00, when one", shipped()).problems
    assert refused and "all or for half" in refused[0].text
    assert plan_text("6 x 40/20, when half", shipped()).problems


def test_what_gates_will_take_is_said_within_their_limits() -> None:
    text = "warm-up 5:00 at 3\n6 x 40/until 125, least 20, most 2:00, at 8"
    plan = plan_text(text, shipped())
    ahead = foresee_gates(plan, [USUAL], 1)
    assert ahead is not None and ahead.down
    low, likely, high = ahead.each_s
    assert 20 <= low <= likely <= high <= 120
    first, middle, last = ahead.block_s
    assert 6 * 60 <= first <= middle <= last <= 6 * 160
    assert last - first < 6 * (high - low)  # totals, not sums of the worst
    assert "Each rest takes" in gates_said(ahead)
    rest_of = plan.timeline.blocks[0].seconds
    assert [one - rest_of for one in ahead.session_s] == pytest.approx(list(ahead.block_s))
    assert "the session" in gates_said(ahead)
    harder = foresee_gates(plan_text(text.replace("125", "105"), shipped()), [USUAL], 1)
    assert harder is not None and harder.by_clock > ahead.by_clock
    assert harder.each_s[1] >= likely
    assert "hardly a gate" in gates_said(harder._replace(by_clock=0.8))
    assert foresee_gates(plan, [], 1) is None and foresee_gates(plan, [USUAL], 0) is None
