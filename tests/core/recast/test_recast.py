"""Recasts: the moves stay, the time stays, and what is said of the change is so."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.advice.look import blocked, second_look
from lovrit.core.blocks.worktime import line_s
from lovrit.core.moves.library import shipped
from lovrit.core.recast.prepare import cool_down, warm_up
from lovrit.core.recast.recast import MAKERS, CannotRecast, offers, recast
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import Plan, plan_text

TWENTY = """warm-up 6:00 at 3   # before

as many as possible in 20:00 at 8
  10 push-up
  15 jump squat
  12 swing | bell 16 12

cool-down 3:00 at 2
"""
NAMES = st.lists(
    st.sampled_from([move.name for move in shipped().moves]), min_size=2, max_size=6, unique=True
)


def planned(text: str) -> Plan:
    plan = plan_text(text, shipped())
    assert not plan.problems, plan.problems
    return plan


def made(text: str, to: str, at: int = 1) -> str:
    return recast(text, planned(text), at, to, shipped()).slate


def names(text: str, at: int = 1) -> list[str]:
    return [line.name for line in planned(text).session.blocks[at].moves]


@pytest.mark.parametrize("to", ["every", "amrap", "partners", "for-time"])
def test_there_and_back_twice_keeps_the_moves_and_the_time(to: str) -> None:
    text = TWENTY
    for _ in range(2):
        text = made(made(text, to), "amrap") if to != "amrap" else made(made(text, "every"), to)
    before, after = planned(TWENTY), planned(text)
    assert names(text) == names(TWENTY)
    assert after.timeline.total_s == before.timeline.total_s
    assert "# before" in text and "bell 16 12" in text


@given(
    NAMES,
    st.integers(6, 25),
    st.sampled_from(["every", "amrap", "intervals", "rounds", "partners", "for-time"]),
)
def test_any_moves_can_be_recast_within_the_time(moves: list[str], minutes: int, to: str) -> None:
    """Whatever the moves, the new block is read, has the same moves, and is no longer than the old one was."""
    text = f"amrap {minutes}:00 at 7\n" + "".join(f"  10 {name}\n" for name in moves)
    after = planned(made(text, to, 0))
    block, laid = after.session.blocks[0], after.timeline.blocks[0]
    assert [line.name for line in block.moves] == moves
    assert laid.seconds <= minutes * 60
    if to in ("every", "amrap", "partners"):
        assert laid.seconds == minutes * 60


@given(NAMES)
def test_an_every_minute_turn_is_about_half_full(moves: list[str]) -> None:
    text = "3 rounds of 40/20\n" + "".join(f"  {name}\n" for name in moves)
    for line in planned(made(text, "every", 0)).session.blocks[0].moves:
        taken, move, amount = (
            line_s(line, shipped()),
            shipped().find(line.name),
            line.tasks[0].amount,
        )
        assert taken is not None and taken <= 42 and move and amount
        assert taken >= 10 or 1 <= amount.values[0] <= max(
            1, move.fresh / 2
        )  # few can be done at all


def test_kinder_and_harder_are_what_they_say() -> None:
    plan = planned(TWENTY)
    gentler, harder, home = (
        recast(TWENTY, plan, 1, to, shipped()) for to in ("gentler", "harder", "home")
    )
    assert (
        gentler.why.startswith("Kinder") and gentler.after.effort == 7 and gentler.after.impact == 0
    )
    assert harder.why.startswith("Harder") and harder.after.effort == 9
    assert not any(
        move and move.needs_kit for line in home.block.moves for move in [shipped().find(line.name)]
    )
    assert "bell" not in home.slate
    every = recast(TWENTY, plan, 1, "every", shipped())
    assert every.after.reps < every.before.reps and "fewer reps" in every.why
    assert every.before.total_s == every.after.total_s == 1200
    assert any(change.startswith("rest 0:00 → ") for change in every.changes)


def test_everybody_ends_together_and_stations_can_stay() -> None:
    text = "5 rounds for time, cap 15:00\n  12 ring row\n  16 hollow rock\n"
    together = recast(text, planned(text), 0, "together", shipped())
    assert together.block.kind == "amrap"
    circuit = "3 rounds of 40/20, break 2:00\n  squat\n  push-up\n  plank\n"
    stay = recast(circuit, planned(circuit), 0, "stay", shipped())
    assert stay.block.kind == "sets" and abs(stay.after.total_s - stay.before.total_s) <= 10
    assert stay.after.work_s == stay.before.work_s


def test_every_offer_of_the_rack_can_be_taken_and_makes_no_stop() -> None:
    for shape in rack():
        plan = planned(shape.slate)
        for at, block in enumerate(plan.session.blocks):
            if block.kind in ("steady", "rest"):
                continue
            for one in offers(plan, at, shape.slate, shipped()):
                after = planned(one.slate)
                assert not blocked(second_look(after, shipped())), (shape.name, one.to)
                assert one.changes or one.why


@pytest.mark.parametrize(
    ("text", "at", "to"),
    [
        (TWENTY, 0, "every"),
        (TWENTY, 9, "every"),
        (TWENTY, 1, "waltz"),
        (TWENTY, 1, "stay"),
        ("6 x 30/60", 0, "every"),
    ],
)
def test_what_cannot_be_recast_is_said(text: str, at: int, to: str) -> None:
    with pytest.raises(CannotRecast):
        recast(text, planned(text), at, to, shipped())
    assert set(MAKERS) >= {
        "every",
        "intervals",
        "rounds",
        "partners",
        "for-time",
        "amrap",
        "home",
        "gentler",
        "harder",
    }


@given(NAMES, st.integers(26, 50))
def test_a_warm_up_and_a_cool_down_fit_what_the_slot_leaves(moves: list[str], slot: int) -> None:
    text = f"slot: {slot}:00\nsetup: 2:00\nevery 1:00 for 20:00 at 8\n" + "".join(
        f"  {name}\n" for name in moves
    )
    plan = planned(text)
    before, after = warm_up(plan, shipped()), cool_down(plan, shipped())
    if slot >= 36:
        assert before and after
        assert "for quality" in before and "rest 1:00" in before
    whole = "\n\n".join(one for one in (before, text.split("\n", 2)[2], after) if one)
    done = planned(f"slot: {slot}:00\nsetup: 2:00\n" + whole)
    assert done.timeline.total_s + 120 <= slot * 60
    codes = {note.code for note in second_look(done, shipped())}
    assert "over-slot" not in codes
    if before and "for quality" in before:
        assert not {"no-warm-up", "short-warm-up"} & codes


def test_a_warm_up_lasts_as_long_as_one_whatever_the_session_is_of() -> None:
    """Also where the rehearsal alone would take all of it: slow reps, long ways."""
    for move in shipped().moves:
        made = warm_up(planned(f"5 sets of 8 reps\n  {move.name}"), shipped())
        assert made and 120 <= planned(made).timeline.total_s <= 500, (move.name, made)
