"""The library that ships: whole, sayable, and with a way round whatever is missing."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import shipped
from lovrit.core.moves.move import PATTERNS, Move
from lovrit.core.moves.names import key_of
from lovrit.core.recast.round import way_round
from lovrit.core.session.reader import read
from lovrit.core.slate.line import Kit, Task, Way
from lovrit.core.values import checked, plain

MOVES = shipped().moves


def test_there_are_enough_moves_of_every_pattern_and_each_is_whole() -> None:
    assert len(MOVES) >= 120 and {move.pattern for move in MOVES} == set(PATTERNS)
    keys = [key_of(name) for move in MOVES for name in (move.name, *move.also)]
    assert len(keys) == len(set(keys))
    for move in MOVES:
        checked(Move, plain(move))
        assert move.cue.endswith(".") and move.easier and move.harder, move.name
        assert move.way_seconds.keys() <= {*move.easier, *move.harder}, move.name
        assert not move.caution or move.caution.endswith("."), move.name


@pytest.mark.parametrize("move", MOVES, ids=lambda move: move.name)
def test_a_move_can_be_written_and_its_ways_round_are_moves(move: Move) -> None:
    library = shipped()
    text = f"3 rounds of 40/20\n  10 {move.name} each side, or {move.easier[0]}\n"
    reading = read(text)
    assert not reading.problems and reading.session.blocks[0].moves[0].name == move.name
    if move.needs_kit:
        without = library.find(move.no_kit)
        assert without and not without.needs_kit
    if move.impact == "high":
        lower = library.find(move.low_impact)
        assert lower and lower.impact != "high"
    for way in (*move.easier, *move.harder):
        found, named = library.find_way(f"{move.name} {way}")
        assert found and (found is move or found.name != move.name) and (named == way or not named)


@given(st.sampled_from(MOVES), st.sets(st.sampled_from(shipped().kit())))
def test_a_way_round_needs_nothing_that_is_missing(move: Move, missing: set[str]) -> None:
    found = way_round(Task(name=move.name), shipped(), frozenset(missing))
    assert bool(found) == bool(set(move.needs_kit) & missing)
    if found:
        instead = shipped().find(found.instead)
        assert instead and not set(instead.needs_kit) & missing


def test_what_the_line_says_comes_before_the_library() -> None:
    task = Task(
        name="swing",
        kit=(Kit(name="rings"),),
        alternatives=(Way(name="goblet squat"), Way(name="plank")),
    )
    assert way_round(task, shipped(), frozenset({"bell"})) is None
    found = way_round(task, shipped(), frozenset({"bell", "rings"}))
    assert found and found.missing == ("rings",) and found.instead == "plank"
    unknown = way_round(
        Task(name="wobble", kit=(Kit(name="sofa"),)), shipped(), frozenset({"sofa"})
    )
    assert unknown and shipped().find(unknown.instead)
