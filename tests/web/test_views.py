"""What the pages draw, as values: tape, rails, read-out, threads, folds."""

import itertools

import pytest

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import freeze
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import checked
from lovrit.house.hearts import BOX_BOTTOM, BOX_TOP, hearts_view
from lovrit.house.telling import Told, state_object
from lovrit.web.debrief.view import debrief_view
from lovrit.web.desk.completion import completion_words
from lovrit.web.desk.rails import Rails, rails_view
from lovrit.web.desk.tape import tape_view
from lovrit.web.desk.view import People, desk_view, readout
from tests.core.run.ran import T0, fold_of, run_through

START = [Event(id="s", kind="start", at_ms=T0)]
CIRCLE = "2 rounds of 40/20, break 1:00\n  squat\n  row\n  plank"


def plan(text: str) -> Plan:
    return plan_text(text, shipped())


def rails(text: str, groups: int = 1, block: int = 0, part: int = 0) -> Rails:
    view = rails_view(plan(text), groups, block, part)
    assert view
    return view


@pytest.mark.parametrize("minutes", [4, 12, 45, 75, 180])
def test_the_scale_stays_readable(minutes: int) -> None:
    tape = tape_view(plan(f"easy laps {minutes} min"), 0)
    assert 3 <= len(tape.ticks) <= 14
    assert tape.ticks[0].x == 0 and tape.ticks[-1].x <= 100


def test_blocks_and_marks_fill_the_tape_and_never_leave_it() -> None:
    tape = tape_view(
        plan("slot: 30:00\nwarm-up 5:00 at 3\n" + CIRCLE + "\nevery 1:00 for 6:00\n  8 push-up"), 1
    )
    assert all(0 <= mark.x <= 100 and mark.x + mark.width <= 100.01 for mark in tape.marks)
    edges = [(one.x, one.x + one.width) for one in tape.stretches]
    for before, after in itertools.pairwise(edges):
        assert before[1] == pytest.approx(after[0], abs=0.01)
    assert tape.spare_x == pytest.approx(edges[-1][1], abs=0.01)
    assert [one.chosen for one in tape.stretches] == [False, True, False]


def test_a_slot_that_is_passed_is_marked_where_it_ends() -> None:
    tape = tape_view(plan("slot: 5:00\nwarm-up 10:00 at 3"), 0)
    assert tape.over_x == pytest.approx(50) and tape.spare_x is None


def test_hundreds_of_short_works_become_one_dense_mark() -> None:
    tape = tape_view(plan("600 x 5/5\nwarm-up 60:00 at 3"), 0)
    assert [mark.kind for mark in tape.marks].count("dense") == 1


def test_heights_climb_with_a_tempo_and_grow_with_a_hold() -> None:
    tempo = tape_view(plan("tempo 90 to 160 in 8 steps of 20"), 0).marks
    hold = tape_view(plan("hold ladder 15 +5 every 1:00 for 8:00\n  plank"), 0).marks
    for marks in (tempo, hold):
        heights = [mark.height for mark in marks if mark.kind == "work"]
        assert heights == sorted(heights) and heights[0] < heights[-1] <= 1


def test_strands_move_one_station_on_each_turn_and_cross_in_the_rest() -> None:
    view = rails(CIRCLE, groups=3)
    turns = sorted({bar.x for bar in view.bars})
    for nth, x in enumerate(turns):
        here = {bar.group: bar.rail for bar in view.bars if bar.x == x}
        assert here == {group: (group + nth) % 3 for group in range(3)}
    wrapped = 2 * 2  # each crossing back to the top is drawn in two halves
    assert len(view.crossings) == 2 * 3 - wrapped // 2 + wrapped
    assert [one.label for one in view.windows] == ["round 1", "round 2"]
    assert view.gaps and view.gaps[0][1] == "break 1:00"


def test_two_groups_at_one_station_are_seen() -> None:
    crowd = [bar for bar in rails(CIRCLE, groups=5).bars if bar.shelves > 1]
    assert crowd and {bar.shelf for bar in crowd} == {0, 1}


def test_each_kind_has_its_own_drawing() -> None:
    kinds = lambda text: {bar.kind for bar in rails(text).bars}  # noqa: E731
    assert kinds("every 1:00 for 4:00\n  8 push-up") == {"work", "leftover"}
    assert kinds("every 1:00 for 4:00, half start at 0:30\n  8 push-up") == {
        "work",
        "second",
        "leftover",
    }
    assert kinds("6 x 40/until 118, least 20, most 2:00") == {"work", "ragged"}
    assert kinds("4 rounds for time\n  12 row") == {"work", "thins"}
    assert kinds("amrap 12:00, partners alternate\n  10 swing") == {"work", "second"}
    assert kinds("amrap 12:00\n  10 swing") == {"work", "mark"}
    assert kinds("warm-up 5:00\n  laps") == {"steady"}


def test_a_ladders_rungs_grow() -> None:
    marks = [bar.x for bar in rails("amrap 10:00, ladder 2 +2\n  squat").bars if bar.kind == "mark"]
    gaps = [b - a for a, b in zip([0, *marks], marks, strict=False)]
    assert len(gaps) > 3 and gaps == sorted(gaps)


def test_sides_stand_on_the_strands() -> None:
    text = "2 rounds of 40/20\n  bench step-up, left then right\n  squat"
    first, second = rails(text, groups=2, part=0), rails(text, groups=2, part=1)
    assert {bar.side for bar in first.bars} == {"left", ""}
    assert {bar.side for bar in second.bars} == {"right", ""}


def test_long_blocks_are_shown_in_stretches() -> None:
    view = rails("120 x 20/10")
    assert len(view.windows) > 1 and len(view.bars) <= 48
    assert rails("120 x 20/10", part=99).windows[-1].chosen


def test_the_read_out_is_one_sentence_with_its_figures() -> None:
    text = "slot: 20:00\nwarm-up 5:00 at 3\n" + CIRCLE.replace("40/20,", "40/20, at 8,")
    parts = readout(plan(text), People(6, (2, 2, 2)))
    said = "".join(part.text for part in parts)
    assert said.startswith("11:40 of a 20:00 slot, 8:20 spare · 6 people in 3 twos · ")
    assert {part.key for part in parts if part.key} >= {
        "total",
        "slot",
        "spare",
        "people",
        "ratio",
        "work",
        "hard",
        "effort",
    }
    over = readout(plan(text.replace("20:00", "5:00")), People(0, ()))
    assert any(part.stop for part in over)


def test_a_range_shows_in_the_read_out() -> None:
    said = "".join(part.text for part in readout(plan("5-9 x 12/70"), People(0, ())))
    assert said.startswith("12:18 (6:50–12:18)")


def test_an_empty_session_has_a_desk_too() -> None:
    view = desk_view(plan(""), shipped(), People(0, ()), (0, 0))
    assert (
        view.rails is None
        and not view.tape.marks
        and "Nothing on the clock" in view.readout[0].text
    )


def test_completion_offers_what_may_stand_there() -> None:
    words = completion_words(shipped())
    assert "ring row" in words["move"] and "bell" in words["kit"]
    assert any(one.startswith("3 rounds of") for one in words["start"])
    assert {"break", "at", "drop last rest"} <= set(words["option"])


def comer(number: int, **more: object) -> Comer:
    fields = {
        "id": number,
        "name": f"P{number}",
        "initials": f"P{number}",
        "rest_hr": 60,
        "max_hr": 190,
        "group": 0,
    }
    return checked(Comer, {**fields, **more})


def test_threads_place_each_heart_in_its_own_corridor() -> None:
    happened = [
        Event(id="s", kind="start", at_ms=T0),
        Event(id="x", kind="stops", at_ms=T0 + 9000, person=6),
    ]
    people = (
        comer(1),
        comer(2),
        comer(3),
        comer(4, effort_only=True),
        comer(5),
        comer(6),
        comer(7),
    )
    planned, state = run_through(
        plan("6 x 2:00/2:00 heart 140-160\n  run"), happened, T0 + 9000, people
    )
    view = hearts_view(planned, state, people, {1: 150, 2: 120, 3: 175, 5: 0, 6: 130})
    how = {bead.person: bead.how for bead in view.beads}
    assert how == {
        1: "in",
        2: "rising",  # a heart at work lags
        3: "over",
        4: "effort",
        5: "lost",
        6: "stopped",
        7: "waiting",
    }
    y = {bead.person: bead.y for bead in view.beads}
    assert y[3] < BOX_TOP < y[1] < BOX_BOTTOM < y[2] < 100
    assert view.over == ("P3",)
    for later_s, then in ((90, "under"), (150, "resting")):
        slate = plan("6 x 2:00/2:00 heart 140-160\n  run")
        planned, state = run_through(slate, happened, T0 + later_s * 1000, people)
        late = hearts_view(planned, state, people, {2: 120})
        assert {bead.person: bead.how for bead in late.beads}[2] == then


@pytest.mark.parametrize("bpm", range(130, 176))
def test_a_bead_is_red_just_where_it_stands_above_the_box(bpm: int) -> None:
    planned, state = run_through(plan("6 x 2:00/2:00 heart 140-160\n  run"), START, T0)
    bead = hearts_view(planned, state, (comer(1),), {1: bpm}).beads[0]
    assert (bead.how == "over") == (bead.y < BOX_TOP)


def test_who_has_a_pace_of_their_own_goes_by_it() -> None:
    planned, state = run_through(plan("6 x 2:00/2:00 pace 3"), START, T0)
    own = [{"number": 3, "value": 125, "unit": "/500 m"}]
    view = hearts_view(planned, state, (comer(1, paces=own), comer(2)), {})
    assert [bead.asked for bead in view.beads] == [("/500 m", "2:05"), ("effort", "–")]


def test_the_wall_is_told_nothing_of_anybodys_health() -> None:
    people = tuple(comer(nth, group=nth % 3) for nth in range(1, 7))
    stops = Event(id="x", kind="stops", at_ms=T0 + 7000, person=1)
    fold = fold_of(freeze(plan(CIRCLE)), [*START, stops], people)
    told = Told(fold, fold.at(10.0), T0, people)
    coach = state_object(told, T0 + 10_000, "coach")
    assert coach["stopped"] == [1] and coach["heard"] == [one.id for one in START] + ["x"]
    wall = state_object(told, T0 + 10_000, "wall")
    assert set(wall) == {
        "now_ms", "phase", "moments", "rows", "groups", "whole", "total_s", "ends_ms", "started_ms", "over_ms",
        "rounds", "shown",
    }  # fmt: skip
    first = wall["moments"][0]
    assert first["where"] == "round 1 of 2, turn 1 of 3" and first["place"] == "0.0"
    assert wall["rows"][first["rows"]][0] == {
        "nth": 1, "station": "squat", "who": "", "groups": ["A"], "then": ["C"],
        "what": [{"does": "squat", "station": "squat"}],
    }  # fmt: skip


def test_a_turn_that_was_cut_short_has_no_peak_of_its_own() -> None:
    """Three turns of 40/20; the class ends ten seconds into the third. The peak told is the second's, in its rest."""
    ada = Comer(id=1, name="Ada", initials="AD", rest_hr=60, max_hr=180)
    happened = [*START, Event(id="e", kind="end", at_ms=T0 + 5_000 + 130_000)]
    planned, state = run_through(plan("3 x 40/20 at 8"), happened, T0 + 200_000, (ada,))
    begun = state.laps[0].from_ms
    trace = [
        (begun + second * 1000, 120 + (40 if second == 105 else second % 60 // 4))
        for second in range(131)
    ]
    view = debrief_view(planned, state, (ada,), {1: trace}, 1)
    assert view.fold and len(view.fold.curves) == 3
    assert view.fold.peak and "160, 5 s into the rest" in view.fold.peak[1]
