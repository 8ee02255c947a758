"""Moves in files: whatever a move holds comes back from CSV and JSON; whatever a file holds, nothing fails."""

import json

import jsonschema
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.moves.library import schema
from lovrit.core.moves.move import PATTERNS, Move
from lovrit.core.moves.names import key_of
from lovrit.formats.moves_file import COLUMNS, read_moves, sayable, to_csv, to_json

WORD = st.text("abcdefghijklmnoprstuvwyz", min_size=3, max_size=9)
NAME = st.lists(WORD, min_size=1, max_size=3).map(" ".join).filter(sayable)
NAMES = st.lists(WORD, max_size=3, unique=True).map(tuple)
SAID = st.text(
    st.characters(codec="utf-8", exclude_characters="\r\n\x00", categories=("L", "N", "P", "Zs")),
    max_size=60,
)
FIGURE = st.integers(1, 400).map(lambda value: value / 10)
MOVE = st.builds(
    Move,
    name=NAME,
    pattern=st.sampled_from(PATTERNS),
    floor=st.booleans(),
    grip=st.booleans(),
    skill=st.booleans(),
    impact=st.sampled_from(("none", "low", "high")),
    kit=NAMES,
    space=FIGURE.filter(lambda value: value <= 30),
    seconds=FIGURE,
    metre=st.none() | FIGURE,
    way_seconds=st.dictionaries(WORD, FIGURE, max_size=2),
    counted=st.sampled_from(("reps", "s", "m")),
    fresh=st.integers(1, 5000),
    easier=NAMES,
    harder=NAMES,
    cue=SAID.map(str.strip),
    caution=SAID.map(str.strip),
)
MOVES = st.lists(MOVE, min_size=1, max_size=6, unique_by=lambda move: key_of(move.name))


@given(MOVES)
def test_any_library_goes_round_as_csv_and_as_json(moves: list[Move]) -> None:
    for text in (to_csv(moves), to_json(moves)):
        found = read_moves(text)
        assert not found.problems
        assert list(found.moves) == moves
    jsonschema.validate(json.loads(to_json(moves)), schema(), jsonschema.Draft202012Validator)


@given(MOVES, st.data())
def test_a_row_that_is_spoilt_costs_that_row_only(moves: list[Move], data: st.DataObject) -> None:
    rows = to_csv(moves).split("\r\n")
    spoilt = data.draw(st.integers(1, len(moves)))
    cells = {
        "pattern": "waltz",
        "seconds": "never",
        "impact": "loud",
        "floor": "perhaps",
        "fresh": "-3",
    }
    column = data.draw(st.sampled_from(sorted(cells)))
    rows[spoilt] = ",".join(
        "heron" if one == "name" else cells.get(one, "") if one in ("pattern", column) else ""
        for one in COLUMNS
    )
    found = read_moves("\r\n".join(rows))
    assert [move.name for move in found.moves] == [
        move.name for nth, move in enumerate(moves, 1) if nth != spoilt
    ]
    assert len(found.problems) == 1 and found.problems[0].startswith(f"Line {spoilt + 1}: ")


@given(st.text(max_size=300) | st.binary(max_size=200).map(lambda raw: raw.decode("latin-1")))
def test_no_text_makes_reading_fail(text: str) -> None:
    for one in (text, "name,pattern\r\n" + text, "{" + text, '{"x": ' + text + "}"):
        found = read_moves(one)
        assert all(isinstance(said, str) and said for said in found.problems)
        assert all(sayable(move.name) for move in found.moves)
