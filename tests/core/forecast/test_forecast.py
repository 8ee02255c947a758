"""Forecasts: checked by hand arithmetic, monotone in what makes work longer, the same for the same seed."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.outlook import Score
from lovrit.core.blocks.worktime import FACTOR, reps_s
from lovrit.core.crew.paces import OwnPace, UnclearPace, read_paces, write_paces
from lovrit.core.forecast.crowd import distance, finishes, late, rounds_of
from lovrit.core.forecast.group import Someone
from lovrit.core.forecast.learned import Quickness, Scored, learn, pace_of, ratios_of
from lovrit.core.forecast.paced import paced, paced_said
from lovrit.core.moves.library import Library, shipped
from lovrit.core.moves.move import Move
from lovrit.core.session.reader import read

CASES = ("low", "likely", "high")


def block(text: str) -> Block:
    return read(text).session.blocks[0]


def two_second_moves(seconds: float = 2.0) -> Library:
    moves = (Move(name="a", pattern="push", seconds=seconds, fresh=1000),)
    return Library(moves=(*moves, Move(name="b", pattern="pull", seconds=seconds, fresh=1000)))


def test_a_round_by_hand() -> None:
    """10 of each at 2 s: 20 + 20, and 3 s from each to the next: 46 s.

    A round a minute on takes a fiftieth more: 46.7 after the first, 47.4 after the second and so on: in 4:00 five whole
    ones are 237.2 s, and 2.8 s of the sixth are a rep.
    """
    work = block("amrap 4:00\n  10 a\n  10 b")
    assert isinstance(work, Amrap)
    assert work.score_in(two_second_moves(), "likely") == Score(5, 0, 1)
    assert work.rounds(two_second_moves(), "likely") == 5.1
    quick = FACTOR["low"]
    assert quick == pytest.approx(1 / FACTOR["high"]) == pytest.approx(0.774, abs=0.001)


def test_scores_count_parts_and_reps() -> None:
    """Part one is 10 of a at 2 s and 3 s on, 23; of 16 s more at 2.3 s a rep, 6 or 7 are done."""
    work = block("amrap 0:40\n  10 a\n  then\n  10 b")
    assert isinstance(work, Amrap)
    score = work.score_in(two_second_moves(), "likely")
    assert (score.rounds, score.parts) == (0, 1) and score.reps in range(6, 11)
    assert str(score).startswith("0 rounds + 1 part + ")


@given(
    st.integers(1, 60), st.integers(1, 60), st.sampled_from([move.name for move in shipped().moves])
)
def test_more_reps_take_longer_and_slower_people_too(some: int, more: int, name: str) -> None:
    library = shipped()
    for case in CASES:
        assert reps_s(name, some, library, case) < reps_s(name, some + more, library, case)  # type: ignore[arg-type]
    low, likely, high = (reps_s(name, some, library, case) for case in CASES)  # type: ignore[arg-type]
    assert low < likely < high


@given(st.integers(2, 30), st.integers(3, 20), st.floats(1, 5), st.floats(0.1, 3))
def test_outlooks_are_monotone(reps: int, minutes: int, seconds: float, slower: float) -> None:
    work = block(f"amrap {minutes}:00\n  {reps} a\n  {reps} b")
    assert isinstance(work, Amrap)
    fast, slow = two_second_moves(seconds), two_second_moves(seconds + slower)
    assert (work.rounds(fast, "likely") or 0) >= (work.rounds(slow, "likely") or 0)
    told = work.outlook(fast)
    assert told and told.scores
    order = [(one.rounds, one.reps) for one in told.scores]
    assert order == sorted(order)
    timed = block(f"{minutes} rounds for time\n  {reps} a")
    finish, later = timed.outlook(fast), timed.outlook(slow)
    assert finish and later and finish.times_s and later.times_s
    assert finish.times_s[0] >= finish.times_s[1] >= finish.times_s[2]
    assert later.times_s[1] >= finish.times_s[1]


def test_an_every_minute_turn_tells_who_does_not_make_it() -> None:
    """25 of a at 2 s and a little are about 50 s of 60; one in ten takes 65 and never makes it."""
    told = block("every 1:00 for 10:00\n  25 a\n  5 b").outlook(two_second_moves())
    assert told and told.turns[0].late_from == 1 and told.turns[1].late_from is None
    assert told.turns[0].left_s[1] == pytest.approx(10, abs=1)
    assert told.said.startswith("a leaves about") and "slow people are" in told.said


def test_a_ladder_says_how_far_up() -> None:
    """2, 4, 6 … of two moves at 2 s: rung n takes 8n + 6 s, so 10 minutes end on the tenth or eleventh rung."""
    told = block("amrap 10:00, ladder 2 +2\n  a\n  b").outlook(two_second_moves())
    assert told and told.scores and told.scores[1].rounds in (10, 11)
    assert "each about 8 s longer" in told.said and ("22s" in told.said or "24s" in told.said)
    ran = block("800 m for time").outlook(shipped())
    assert ran and ran.said.startswith("100 m in about 30 s, so about 4:00")


EIGHTEEN = [Someone()] * 18
UNITS = ["m/s", "/500 m", "/km", "a minute"]


def test_a_crowd_is_the_same_for_the_same_seed_and_wider_than_one() -> None:
    work = block("5 rounds for time, cap 12:00\n  12 a\n  15 b")
    assert isinstance(work, ForTime)
    one, again, other = (finishes(work, two_second_moves(), EIGHTEEN, seed) for seed in (1, 1, 2))
    assert one == again and one and other
    assert one.first_s < one.middle_s < one.last_s and one.wait_s == pytest.approx(
        one.last_s - one.first_s, abs=1
    )
    assert abs(one.middle_s - other.middle_s) < 20
    fewer = finishes(work, two_second_moves(), EIGHTEEN[:4], 1)
    assert fewer and fewer.wait_s < one.wait_s
    capped = finishes(work.but(cap_s=one.middle_s), two_second_moves(), EIGHTEEN, 1)
    assert capped and 7 < capped.capped < 11
    many = block("amrap 10:00\n  10 a")
    assert isinstance(many, Amrap)
    last, middle, first = rounds_of(many, two_second_moves(), EIGHTEEN) or (0, 0, 0)
    assert last < middle < first
    every = block("every 1:00 for 6:00\n  28 a")
    assert isinstance(every, Every)
    expected = late(every, two_second_moves(), EIGHTEEN)
    assert len(expected) == 6 and list(expected) == sorted(expected) and 0 < expected[0] < 18


@given(st.floats(0.5, 2), st.integers(1, 40))
def test_scores_draw_the_pace_towards_themselves(ratio: float, count: int) -> None:
    pace = pace_of([ratio] * count)
    more = pace_of([ratio] * (count + 5))
    assert min(1, ratio) - 0.001 <= pace.factor <= max(1, ratio) + 0.001
    assert abs(more.factor - ratio) <= abs(pace.factor - ratio) + 0.001
    assert pace.rests_on == count


def test_a_club_that_does_fewer_rounds_is_forecast_slower() -> None:
    work = block("amrap 10:00\n  10 a\n  10 b")
    library = two_second_moves()
    said = work.rounds(library, "likely") or 0
    scores = [
        Scored(person=nth % 3, block=work, text=f"{int(said * 0.8)} + 0") for nth in range(12)
    ]
    junk = [
        Scored(person=9, block=work, text="0 + 0"),
        Scored(person=9, block=block("amrap 5:00\n  a"), text="3 + 0"),
    ]
    club, people = learn(ratios_of([*scores, *junk], library))
    assert club.rests_on == 12 and club.factor > 1.1 and set(people) == {0, 1, 2}
    slower = library.at_pace(club.factor, club.rests_on)
    assert (work.rounds(slower, "likely") or 0) < said
    told = work.outlook(slower)
    assert told and "12 scores" in told.said


def test_ways_have_their_own_seconds_and_unknown_moves_are_asked_for() -> None:
    library = shipped()
    assert library.find("push-up on knees") is library.find("push-up") is not None
    assert (
        library.rep_s("push-up slow down")
        == 5
        > library.rep_s("push-up")
        > library.rep_s("Push-ups on knees")
    )
    assert library.find("push-up on a cloud") is None
    for text in (
        "amrap 10:00\n  10 squat\n  8 wobble",
        "every 1:00 for 6:00\n  8 wobble",
        "3 rounds for time\n  8 wobble",
    ):
        told = block(text).outlook(library)
        assert (
            told
            and "“wobble”" in told.said
            and not told.scores
            and not told.times_s
            and not told.turns
        )
    work = block("amrap 10:00\n  8 wobble")
    assert isinstance(work, Amrap) and work.forecast(library, (0, 0, 0)) is None


def test_distances_go_by_a_persons_own_pace() -> None:
    """Three with 20, 30 and 40 s for 100 m take 80, 120 and 160 s for 400 m; on a rower that pace says nothing."""
    three = [Someone(pace_100_s=pace) for pace in (40, 20, 30)]
    assert distance(400, "run", shipped(), three) == (80, 120, 160)
    assert distance(400, "", shipped(), three) == (80, 120, 160)
    on_a_rower = distance(400, "row", shipped(), three)
    assert on_a_rower == distance(400, "row", shipped(), [Someone()] * 3) and on_a_rower != (
        80,
        120,
        160,
    )
    first, _, last = distance(400, "run", shipped(), [Someone(pace_100_s=60), *EIGHTEEN[1:]]) or (
        0,
        0,
        0,
    )
    assert last == 240 > first
    assert distance(400, "run", shipped(), []) is None


@given(st.floats(0.7, 1.5), st.floats(0.8, 1.25), st.integers(1, 400))
def test_who_has_scores_is_drawn_round_them(factor: float, club: float, count: int) -> None:
    """One person alone ends at their own factor of the usual time, whatever the club's; the more scores the nearer."""
    work = block("5 rounds for time\n  12 a")
    assert isinstance(work, ForTime)
    library = two_second_moves()
    usual, slower = finishes(work, library, EIGHTEEN[:1]), library.at_pace(club, 9)
    known = finishes(work, slower, [Someone(pace=Quickness(factor=factor, rests_on=count))])
    assert usual and known and known.middle_s == pytest.approx(usual.middle_s * factor, rel=0.07)
    team = [Someone(pace=Quickness(factor=1.0, rests_on=count))] * 18
    drawn, sure = finishes(work, library, EIGHTEEN), finishes(work, library, team)
    assert drawn and sure and sure.wait_s <= drawn.wait_s


def test_a_group_forecast_is_of_its_own_people() -> None:
    """Two slow by their scores are the last; with nobody slow the last ends earlier."""
    work = block("5 rounds for time\n  12 a\n  15 b")
    assert isinstance(work, ForTime)
    slow = [Someone(pace=Quickness(factor=1.6, rests_on=20))] * 2
    quick = [Someone(pace=Quickness(factor=0.9, rests_on=20))] * 16
    mixed, even = (
        finishes(work, two_second_moves(), [*some, *quick]) for some in (slow, quick[:2])
    )
    assert (
        mixed
        and even
        and mixed.last_s > 1.3 * even.last_s
        and abs(mixed.first_s - even.first_s) < 8
    )


@given(
    st.lists(
        st.builds(
            OwnPace,
            number=st.integers(1, 9),
            value=st.integers(1, 600),
            unit=st.sampled_from(UNITS),
        )
    )
)
def test_own_paces_are_read_as_they_are_written(paces: list[OwnPace]) -> None:
    own = tuple({one.number: one for one in sorted(paces, key=lambda one: one.number)}.values())
    assert read_paces(write_paces(own)) == own


@pytest.mark.parametrize(
    "text", ["fast", "3 fast", "3 0 m/s", "3 2.8", "30 2.8 m/s", "3 2.8 m/s, 3 3 m/s", "0 2 m/s"]
)
def test_paces_that_say_nothing_are_refused_with_a_sentence(text: str) -> None:
    with pytest.raises(UnclearPace, match=r"pace|Pace"):
        read_paces(text)


def test_a_numbered_pace_comes_to_metres_or_seconds() -> None:
    """2 m/s for 2:00 is 240 m, 3 m/s 360 m; 500 m at 2:05 a 500 m take 2:05; who has none is counted."""
    group = [read_paces("3 2 m/s, 4 3 m/s"), read_paces("3 2:05/500 m"), ()]
    timed, over = block("6 x 2:00/2:00 pace 3-4"), block("4 x 500 m, rest 1:00, pace 3")
    told, far = paced(timed, group), paced(over, group)
    assert told and (told.have, told.people, told.metres) == (2, 3, (240, 480))
    assert paced_said(timed, told) == (
        "Pace 3–4, 2 of 3 have theirs: 2:00 is 240 m for the slowest of them, 480 m for the quickest."
    )
    assert far and far.seconds == (125, 250)
    assert paced_said(over, far) == "Pace 3, 2 of 3 have theirs: 500 m take 2:05 to 4:10."
    beat = paced(timed, [read_paces("3 30 a minute, 4 34 /min")])
    assert beat and paced_said(timed, beat) == "Pace 3–4, everyone’s own: 30 to 34 a minute."
    nobody = paced(timed, [(), ()])
    assert nobody and "Nobody of 2 has a pace 3–4" in paced_said(timed, nobody)
    assert paced(block("6 x 30/60"), group) is None
