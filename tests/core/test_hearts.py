"""Hearts: how the model answers, what a corridor is, what turns and scores say afterwards."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.parts import Heart
from lovrit.core.blocks.score import Impossible
from lovrit.core.crew.groups import deal, sizes, usual_groups
from lovrit.core.crew.person import Comer, Person
from lovrit.core.heart.body import Body, BodyState, beats, settled, step
from lovrit.core.heart.clean import Known, clean
from lovrit.core.heart.demand import DEMAND, corridor, demand
from lovrit.core.heart.foresee import body_of
from lovrit.core.heart.learn import Evening, lines
from lovrit.core.moves.library import shipped
from lovrit.core.review.scores import score
from lovrit.core.review.turns import folded, person_turns
from lovrit.core.run.account import Class
from lovrit.core.run.demands import Demands
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import Frozen
from lovrit.core.timeline.plan import plan_text
from lovrit.core.values import fields_of, names_of
from lovrit.straps.simulated import SimulatedStrap
from tests.core.run.ran import T0, run_through

demands = st.floats(0.05, 1.2)
PERSON = Person(id=1, name="Anouk K", initials="AK", rest_hr=60, max_hr=190)


@given(demands, demands, st.integers(2, 300), st.integers(1, 299))
def test_splitting_a_step_changes_nothing(
    first: float, then: float, seconds: int, cut: int
) -> None:
    cut = min(cut, seconds - 1)
    body, start = Body(), step(Body(), settled(0.1), first, 45)
    whole = step(body, start, then, seconds)
    parts = step(body, step(body, start, then, cut), then, seconds - cut)
    for name in names_of(BodyState):
        assert getattr(whole, name) == pytest.approx(getattr(parts, name), abs=1e-9)


@given(st.lists(st.tuples(demands, st.integers(5, 200)), min_size=1, max_size=8), st.integers(0, 7))
def test_beats_stay_between_rest_and_highest_and_more_is_never_lower(
    parts: list[tuple[float, float]], nth: int
) -> None:
    body = Body()
    easy, hard = settled(0.1), settled(0.1)
    for at, (share, seconds) in enumerate(parts):
        easy = step(body, easy, share, seconds)
        hard = step(body, hard, share + (0.2 if at == nth % len(parts) else 0), seconds)
        assert body.rest <= beats(body, easy) < body.highest
        assert beats(body, hard) >= beats(body, easy) - 1e-9


def trace(parts: list[tuple[float, int]]) -> list[float]:
    body, state, seen = Body(), settled(0.43), []
    for share, seconds in parts:
        for _ in range(seconds):
            state = step(body, state, share, 1)
            seen.append(beats(body, state))
    return seen


def test_three_hard_intervals_climb_and_fall_as_they_should() -> None:
    """30/60 three times at 8.5 and 5.5, begun with five minutes at the rest's effort: about 160, 165, 167."""
    seen = trace([(demand(5.5), 300), *[(demand(8.5), 30), (demand(5.5), 60)] * 3])
    peaks = [max(seen[300 + 90 * nth : 390 + 90 * nth]) for nth in range(3)]
    assert peaks == pytest.approx([160, 165, 167], abs=6)
    assert peaks[0] < peaks[2]
    assert seen[-1] == pytest.approx(152, abs=6)


def test_efforts_map_to_demands_and_a_sprint_has_its_own() -> None:
    assert [demand(n) for n in range(11)] == list(DEMAND)
    assert demand(8.5) == pytest.approx((DEMAND[8] + DEMAND[9]) / 2)
    assert demand(10, 12) > demand(10, 40)


def test_a_corridor_comes_from_effort_or_target_or_not_at_all() -> None:
    low, high = corridor(PERSON, 8)
    assert 60 < low < high < 190
    assert corridor(PERSON, None, Heart(of="reserve", low=50, high=60)) == (125, 138)
    assert corridor(PERSON, None, Heart(of="max", low=80, high=90)) == (152, 171)
    assert corridor(PERSON.but(effort_only=True), 8) is None
    assert corridor(PERSON, None) is None


TEXT = "warm-up 2:00 at 3\n3 rounds of 40/20 at 8\n  squat\n  swing\namrap 4:00\n  10 swing"


def ran(strap: str = "steady") -> tuple[Frozen, Class, list[tuple[int, int]], Comer]:
    comer = Comer(**fields_of(PERSON.but(strap=strap)), group=0)
    start = Event(id="s", kind="start", at_ms=T0)
    plan, state = run_through(plan_text(TEXT, shipped()), [start], T0 + 10_000_000, (comer,))
    source, asked = SimulatedStrap(comer, 7), Demands(plan.session, plan.timeline)
    begun = state.started_ms or 0
    seen = [
        (at, source.second(asked.at(state, at, 1)))
        for at in range(begun, begun + plan.timeline.total_s * 1000, 1000)
    ]
    return plan, state, comer, seen


def test_turns_say_average_highest_and_share() -> None:
    plan, state, comer, seen = ran()
    turns = person_turns(plan.session, plan.timeline, state, comer, seen)
    assert len(turns) == 7
    assert turns[0].average < turns[2].average
    assert all(turn.highest >= turn.average for turn in turns)
    assert turns[0].share < turns[5].share
    folds = folded(plan.timeline, state, seen, 1)
    assert len(folds) == 6 and folds[0].points[0][0] == 0 and folds[0].points[-1][0] == 60


def test_a_lost_strap_says_nothing_rather_than_something_false() -> None:
    plan, state, comer, _ = ran()
    turns = person_turns(plan.session, plan.timeline, state, comer, [])
    assert all(turn.lost and turn.average is None for turn in turns)
    quiet = person_turns(plan.session, plan.timeline, state, comer, [(at, 0) for at, _ in ran()[3]])
    assert all(turn.lost for turn in quiet)


def test_simulated_straps_repeat_drop_out_and_go_over() -> None:
    assert ran()[3] == ran()[3]
    assert any(bpm == 0 for _, bpm in ran("drops")[3])
    assert max(bpm for _, bpm in ran("over")[3]) > max(bpm for _, bpm in ran()[3])


def test_scores_are_kept_and_impossible_ones_refused_kindly() -> None:
    plan = plan_text(
        "amrap 4:00\n  5 swing\n2 rounds for time, cap 5:00\n  9 row\nhold ladder 15 +5 every 1:00 for 8:00\n"
        "build 5:00 to heavy 4\n5 x 300 m, rest 1:30, score slowest\nrest 1:00",
        shipped(),
    )
    blocks, laid = plan.session.blocks, plan.timeline.blocks
    assert [block.asks_for is not None for block in blocks] == [True] * 5 + [False]
    good = ["7+ 3", "4:10", "45 s", "42.5 kg", "1:21"]
    assert [score(*pair, text, shipped()) for *pair, text in zip(blocks, laid, good, strict=False)] == [
        "7 + 3", "4:10", "45 s", "42.5 kg", "1:21",
    ]  # fmt: skip
    for nth, text in (
        (0, "lots"),
        (1, "6:00"),
        (2, "70"),
        (3, "900 kg"),
        (4, "20:00"),
        (0, "900 + 1"),
    ):
        with pytest.raises(Impossible):
            score(blocks[nth], laid[nth], text, shipped())


@given(st.integers(0, 60), st.integers(1, 26))
def test_groups_are_dealt_equal_within_one(people: int, groups: int) -> None:
    dealt = deal(list(range(people)), groups)
    counts = [list(dealt.values()).count(group) for group in set(dealt.values())]
    assert len(dealt) == people
    assert not counts or max(counts) - min(counts) <= 1
    assert len(counts) == min(groups, people)


def test_groups_are_called_by_their_size() -> None:
    assert sizes([3] * 6) == "6 threes"
    assert sizes([3, 3, 2]) == "2 threes and a two"
    assert usual_groups(18, 6) == 6 and usual_groups(3, 6) == 1


def test_the_library_is_sound() -> None:
    library = shipped()
    assert len(library.moves) >= 60
    names = [move.name for move in library.moves]
    assert len(set(names)) == len(names)
    assert library.find("Push-ups") is library.find("push-up")
    assert all(move.no_kit or not move.kit for move in library.moves if move.kit not in (("mat",),))
    assert all(move.low_impact for move in library.moves if move.impact == "high")


@given(st.floats(0, 10), st.integers(90, 220))
def test_nobody_is_asked_for_more_than_their_own_limit(effort: float, limit: int) -> None:
    free = Person(id=1, name="", initials="", rest_hr=60, max_hr=190)
    held = free.but(limit_hr=limit)
    asked, own = corridor(free, effort), corridor(held, effort)
    assert asked and own and own[0] < own[1] <= max(limit, 0)
    assert own == asked or own[1] == limit


def test_a_played_strap_that_works_is_believed_also_while_people_stand() -> None:
    asked = ((60, 0.61), (40, 0.89), (60, 0.34), (600, 0.12))
    for nth in range(1, 13):
        someone = Person(id=nth, name="", initials="", rest_hr=54 + nth, max_hr=176 + nth)
        strap = SimulatedStrap(someone, 1)
        told = np.array(
            [strap.second(demand) for seconds, demand in asked for _ in range(seconds)], dtype=float
        )
        expected = lines([body_of(someone)], Evening(asked, told))[0]
        found = clean(told, Known(expected, None, someone.rest, someone.highest))
        assert np.isnan(found.clean).mean() < 0.02, found.faults
