"""The arithmetic of a session: worked cases, parts that add up, no gap and no overlap."""

import pytest
from hypothesis import given

from lovrit.core.moves.library import shipped
from lovrit.core.timeline.explain import SUMS, block_sum, explain
from lovrit.core.timeline.interval import Timeline
from lovrit.core.timeline.plan import Plan, plan_text
from tests.core.session.slates import slates


def plan(text: str) -> Plan:
    return plan_text(text, shipped())


def stations(count: int) -> str:
    return "".join(f"\n  move {chr(97 + nth)}" for nth in range(count))


@pytest.mark.parametrize(
    ("text", "total", "work", "rest"),
    [
        ("8 sets of 20/10\n  swing", 240, 160, 80),
        ("2 rounds of 45/15, break 1:30" + stations(8), 17 * 60 + 15, 720, 225),
        ("2 rounds of 45/15, break 1:30 added" + stations(8), 17 * 60 + 30, 720, 240),
        ("2 rounds of 45/15, break 1:30, drop last rest" + stations(8), 17 * 60, 720, 210),
        ("3 rounds of 40/20" + stations(6), 18 * 60, 720, 360),
        ("3 rounds of 60/0, break 1:00" + stations(5), 17 * 60, 900, 0),
        ("8 sets of 20/10, change 1:00\n  swing\n  row", 240 + 240 - 10 + 60, 320, 150),
        ("8 sets of 20/10, change 1:00 added\n  swing\n  row", 540, 320, 160),
        ("6 x 30/60", 540, 180, 360),
        ("6 x 45/75, lead-in 1:15", 6 * 120 + 75, 270, 450),
        ("2 x (20/10 40/20 60/30)", 360, 240, 120),
        ("5-9 x 12/70", 738, 108, 630),
        ("every 1:00 for 10:00, half start at 0:30\n  plank 30 s", 630, 300, 300),
        ("hold ladder 15 +5 every 1:00 for 8:00\n  plank", 480, 260, 220),
        ("tempo 90 to 160 in 8 steps of 20, up and down", 300, 300, 0),
        ("as many as possible in 12:00\n  5 swing", 720, 720, 0),
        ("build 12:00 to heavy 4", 720, 720, 0),
        ("warm-up 8:00 at 3\nrest 3:00\ncool-down 4 min", 900, 0, 0),
        ("800 m for time", 240, 240, 0),
        ("5 x 300 m, rest 1:30", 5 * 90 + 5 * 90, 450, 450),
    ],
)
def test_worked_cases(text: str, total: int, work: int, rest: int) -> None:
    timeline = plan(text).timeline
    assert (timeline.total_s, timeline.work_s, timeline.rest_s) == (total, work, rest)


def test_a_range_is_planned_at_its_most_and_the_total_carries_it() -> None:
    assert plan("5-9 x 12/70").timeline.range_s == (410, 738)
    assert plan("6 x 40/until 118, least 20, most 2:00").timeline.range_s == (360, 960)


def test_sides_go_by_round_and_efforts_too() -> None:
    timeline = plan("3 rounds of 30/10, at 3 4 5\n  step-up, left then right\n  row").timeline
    sides = [one.side for one in timeline.intervals if one.phase == "work" and one.move == 0]
    assert sides == ["left", "right", "left"]
    assert [one.effort for one in timeline.intervals if one.phase == "work"] == [3, 3, 4, 4, 5, 5]


def test_tempos_climb_and_play_the_top_once() -> None:
    beats = [
        one.beat for one in plan("tempo 90 to 160 in 8 steps of 20, up and down").timeline.intervals
    ]
    assert beats == [90, 100, 110, 120, 130, 140, 150, 160, 150, 140, 130, 120, 110, 100, 90]


def test_work_to_rest_counts_written_rests_only() -> None:
    assert plan("3 rounds of 40/20, break 5:00" + stations(6)).sums.work_to_rest == pytest.approx(
        720 / 320, abs=1e-3
    )
    assert plan("6 x 40/until 118, most 2:00").sums.work_to_rest is None
    assert plan("every 1:00 for 5:00\n  10 swing").sums.work_to_rest is None
    assert plan("every 1:00 for 5:00\n  plank 20 s").sums.work_to_rest == pytest.approx(0.5)


def test_forecasts_come_low_likely_high() -> None:
    rounds = plan("amrap 12:00\n  10 swing\n  10 push-up").timeline.blocks[0].forecast.rounds
    assert 0 < rounds[0] < rounds[1] < rounds[2]
    ladder = plan("amrap 12:00, ladder 2 +2\n  swing\n  push-up").timeline.blocks[0].forecast.rounds
    assert ladder[1] < rounds[1] * 2
    time_s = (
        plan("4 rounds for time, cap 18:00\n  12 ring row\n  16 hollow rock")
        .timeline.blocks[0]
        .forecast.time_s
    )
    assert time_s[0] < time_s[1] < time_s[2] <= 18 * 60


def test_limits_cost_the_block_that_passes_them() -> None:
    many = plan("rest 1:00\n5000 x 30/30\n6 x 30/30")
    assert [problem.line for problem in many.problems] == [2]
    assert "5,000 intervals" in many.problems[0].text
    assert len(many.session.blocks) == 2
    long = plan("warm-up 11:00:00\nrun 2:00:00\nrest 1:00")
    assert [problem.line for problem in long.problems] == [2]
    assert long.timeline.total_s == 11 * 3600 + 60


def seconds_by_phase(timeline: Timeline) -> dict[str, int]:
    """An independent sum: what each second of the session is, counted one by one."""
    found: dict[str, int] = {}
    for second in range(min(timeline.total_s, 20_000)):
        here = [one.phase for one in timeline.intervals if one.start_s <= second < one.end_s]
        assert len(here) == 1
        found[here[0]] = found.get(here[0], 0) + 1
    return found


@given(slates())
def test_parts_add_up_without_gap_or_overlap(text: str) -> None:
    timeline = plan(text).timeline
    edges = [0, *(one.end_s for one in timeline.intervals)]
    assert [one.start_s for one in timeline.intervals] == edges[:-1]
    assert all(one.seconds > 0 for one in timeline.intervals)
    assert sum(block.seconds for block in timeline.blocks) == timeline.total_s
    low, high = timeline.range_s
    assert low <= timeline.total_s <= high
    if timeline.total_s < 4000 and len(timeline.intervals) < 60:
        counted = seconds_by_phase(timeline)
        assert (
            counted.get("work", 0)
            == timeline.work_s
            == sum(block.work_s for block in timeline.blocks)
        )
        assert counted.get("rest", 0) == timeline.rest_s


@given(slates())
def test_a_rotation_has_a_turn_for_each_station_and_round(text: str) -> None:
    planned = plan(text)
    for at, block in enumerate(planned.session.blocks):
        if block.kind != "rotate":
            continue
        works = [
            one for one in planned.timeline.intervals if one.block == at and one.phase == "work"
        ]
        assert len(works) == block.rounds.high * len(block.moves)
        assert {one.turn for one in works} == set(range(1, len(block.moves) + 1))


@given(slates())
def test_every_figure_explains_itself(text: str) -> None:
    planned = plan(text)
    for name in SUMS:
        told = explain(planned, name)
        assert told and told.value and told.lines
    for at in range(len(planned.session.blocks)):
        assert block_sum(planned, at).lines


def test_a_sum_can_be_checked_in_the_head() -> None:
    told = explain(plan("3 rounds of 40/20, break 2:00" + stations(6)), "block-0")
    assert told.lines[:3] == (
        "3 rounds × 6 stations × 1:00",
        "+ 2 × 2:00 break",
        "- 2 × 0:20: a break takes the place of the last station's rest",
    )
    assert told.value == "21:20"


def test_work_is_told_by_station_pattern_and_side() -> None:
    told = explain(plan("3 rounds of 40/20\n  squat\n  bell row, left then right"), "work").lines
    assert "Each person, by station: squat 2:00, bell row 2:00" in told
    assert "By movement pattern: squat 2:00, pull 2:00" in told
    assert "Sides: left 2, right 1, which is uneven" in told


def test_conventions_stand_beside_their_sum() -> None:
    said = [
        switch.said
        for switch in explain(
            plan("2 rounds of 40/20, break 1:00\n  squat\n  row"), "block-0"
        ).switches
    ]
    assert said == ["add the break to the last rest", "drop the last rest"]


def test_a_set_of_as_many_as_one_can_takes_what_most_do_in_one_go() -> None:
    move = shipped().find("push-up")
    assert move is not None
    most = plan_text("4 sets of 10 reps, rest 2:00, at 9\n  max push-up", shipped()).timeline
    same = plan_text(f"4 sets of {move.fresh} reps, rest 2:00, at 9\n  push-up", shipped()).timeline
    assert most.work_s == same.work_s > 0
