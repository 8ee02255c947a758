"""Edits by hand rewrite only the lines that they concern."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import (
    AddOption,
    BlockEdit,
    Convention,
    Ease,
    Edit,
    InsertBlock,
    LineEdit,
    MoveOption,
    MoveStation,
    OrderStations,
    ReplaceBlock,
    ReplaceLine,
    ReplaceMove,
    SetAmount,
    SetFigure,
    SetSide,
)
from lovrit.core.session.reader import read
from lovrit.core.session.slatetext import CannotEdit
from tests.core.session.slates import slates

ODD = """title:   Monday   # mine

# before
3 rounds  of  40 / 20 ,at 8    # hard
\tgoblet squat | bell 16 12 8   # heavy
  # between
     swing
  ring row

cool-down 4:00 at 2
"""


@given(slates(), st.data())
def test_setting_a_figure_changes_that_figure_alone(text: str, data: st.DataObject) -> None:
    reading = read(text)
    places = [(at, name) for at, place in enumerate(reading.blocks) for name in place.figures]
    assume(places)
    block, name = data.draw(st.sampled_from(places))
    figure = reading.blocks[block].figures[name]
    value = figure.value + 5 if figure.value < 3 else figure.value - 1
    after = apply_edit(text, SetFigure(block=block, figure=name, value=value)).split("\n")
    before = text.split("\n")
    line = reading.blocks[block].line - 1
    assert [one for nth, one in enumerate(after) if nth != line] == [
        one for nth, one in enumerate(before) if nth != line
    ]
    assert after[line][: figure.start] == before[line][: figure.start]
    assert after[line].endswith(before[line][figure.end :])
    again = read("\n".join(after))
    if len(again.blocks) == len(reading.blocks):
        assert again.blocks[block].figures[name].value == pytest.approx(value)


@given(slates(), st.data())
def test_moving_a_station_permutes_its_lines_and_nothing_else(
    text: str, data: st.DataObject
) -> None:
    reading = read(text)
    blocks = [at for at, place in enumerate(reading.blocks) if len(place.moves) > 1]
    assume(blocks and not reading.spoken)  # what is edited is written in its own form first
    block = data.draw(st.sampled_from(blocks))
    moves = reading.blocks[block].moves
    start, to = (data.draw(st.integers(0, len(moves) - 1)) for _ in range(2))
    edit = MoveStation(block=block, start=start, to=to)
    after = apply_edit(text, edit)
    mine = {line - 1 for line in moves}
    before_lines, after_lines = text.split("\n"), after.split("\n")
    assert all(
        a == b
        for nth, (a, b) in enumerate(zip(before_lines, after_lines, strict=True))
        if nth not in mine
    )
    assert sorted(after_lines) == sorted(before_lines)
    assert apply_edit(after, MoveStation(block=block, start=to, to=start)) == text


@given(slates(), st.data(), st.floats(1, 10))
def test_easing_asks_for_no_more_anywhere_and_leaves_the_rest(
    text: str, data: st.DataObject, most: float
) -> None:
    most = round(most * 2) / 2
    before = read(text).session.blocks
    which = data.draw(st.none() | st.integers(0, len(before) - 1)) if before else None
    after = read(apply_edit(text, Ease(block=which, most=most))).session.blocks
    for at, (one, two) in enumerate(zip(before, after, strict=True)):
        here = which in (None, at)
        wanted = [
            (min(e.low, most), min(e.high, most)) if here else (e.low, e.high) for e in one.efforts
        ]
        assert [(effort.low, effort.high) for effort in two.efforts] == wanted
        assert two.but(efforts=one.efforts) == one


def test_stations_are_put_in_an_order_with_their_comments() -> None:
    ordered = apply_edit(ODD, OrderStations(block=0, order=(2, 0, 1))).split("\n")[4:8]
    assert ordered == [
        "  ring row",
        "  # between",
        "\tgoblet squat | bell 16 12 8   # heavy",
        "     swing",
    ]
    with pytest.raises(CannotEdit):
        apply_edit(ODD, OrderStations(block=0, order=(0, 0, 1)))


def test_comments_and_odd_spacing_stay() -> None:
    moved = apply_edit(ODD, MoveStation(block=0, start=0, to=2))
    assert moved.split("\n")[4:8] == [
        "     swing",
        "  # between",
        "  ring row",
        "\tgoblet squat | bell 16 12 8   # heavy",
    ]
    longer = apply_edit(ODD, SetFigure(block=0, figure="work", value=75))
    assert "3 rounds  of  75 / 20 ,at 8    # hard" in longer
    with_break = apply_edit(ODD, AddOption(block=0, text="break 1:30"))
    assert "3 rounds  of  40 / 20 ,at 8, break 1:30    # hard" in with_break
    renamed = apply_edit(ODD, ReplaceMove(block=0, move=0, name="box squat"))
    assert "\tbox squat | bell 16 12 8   # heavy" in renamed
    mended = apply_edit(ODD, ReplaceLine(line=10, text="cool-down 5:00 at 2"))
    assert mended.endswith("cool-down 5:00 at 2\n")


def test_conventions_are_switched_and_back() -> None:
    text = "3 rounds of 40/20, break 2:00, at 8   # so\n  squat\n  row\n"
    added = apply_edit(text, Convention(block=0, what="added", on=True))
    assert added.startswith("3 rounds of 40/20, break 2:00 added, at 8   # so")
    dropped = apply_edit(added, Convention(block=0, what="drop", on=True))
    assert (
        read(dropped).session.blocks[0].drop_last_rest
        and read(dropped).session.blocks[0].break_added
    )
    back = apply_edit(
        apply_edit(dropped, Convention(block=0, what="drop", on=False)),
        Convention(block=0, what="added", on=False),
    )
    assert back == text
    with pytest.raises(CannotEdit):
        apply_edit("6 x 30/60", Convention(block=0, what="added", on=True))


def test_blocks_are_doubled_parted_joined_moved_and_removed() -> None:
    doubled = apply_edit(ODD, BlockEdit(what="duplicate", block=0))
    assert [block.kind for block in read(doubled).session.blocks] == ["rotate", "rotate", "steady"]
    parted = apply_edit(ODD, BlockEdit(what="split", block=0))
    assert [block.rounds.high for block in read(parted).session.blocks[:2]] == [2, 1]
    assert read(apply_edit(parted, BlockEdit(what="join", block=0))).session == read(ODD).session
    moved = apply_edit(ODD, BlockEdit(what="move", block=1, to=0))
    assert [block.kind for block in read(moved).session.blocks] == ["steady", "rotate"]
    assert [
        block.kind
        for block in read(apply_edit(moved, BlockEdit(what="move", block=0, to=1))).session.blocks
    ] == [
        "rotate",
        "steady",
    ]
    assert len(read(apply_edit(ODD, BlockEdit(what="remove", block=0))).session.blocks) == 1
    assert (
        read(apply_edit(ODD, InsertBlock(at=0, text="warm-up 5:00"))).session.blocks[0].label
        == "warm-up"
    )
    assert (
        read(apply_edit(ODD, InsertBlock(at=9, text="rest 1:00"))).session.blocks[-1].kind == "rest"
    )


def test_lines_are_removed_doubled_and_put_in() -> None:
    names = lambda text: [line.name for line in read(text).session.blocks[0].moves]  # noqa: E731
    assert names(apply_edit(ODD, LineEdit(what="remove", block=0, move=1))) == [
        "goblet squat",
        "ring row",
    ]
    assert names(apply_edit(ODD, LineEdit(what="duplicate", block=0, move=1)))[1:3] == [
        "swing",
        "swing",
    ]
    assert (
        names(apply_edit(ODD, LineEdit(what="insert", block=0, move=0, text="plank")))[1] == "plank"
    )
    assert (
        names(apply_edit(ODD, LineEdit(what="insert", block=0, move=-1, text="plank")))[0]
        == "plank"
    )


@pytest.mark.parametrize(
    "edit",
    [
        SetFigure(block=7, figure="work", value=5),
        SetFigure(block=0, figure="cap", value=5),
        MoveStation(block=0, start=9, to=0),
        ReplaceMove(block=0, move=8, name="x"),
        BlockEdit(what="join", block=0),
        ReplaceLine(line=400, text="rest 1:00"),
    ],
)
def test_an_edit_without_a_place_says_so(edit: Edit) -> None:
    with pytest.raises(CannotEdit):
        apply_edit(ODD, edit)


@given(slates(), st.data(), st.sampled_from(["none", "each", "by-round"]))
def test_a_side_is_set_on_its_line_alone(text: str, data: st.DataObject, side: str) -> None:
    reading = read(text)
    blocks = [at for at, place in enumerate(reading.blocks) if place.moves]
    assume(blocks)
    block = data.draw(st.sampled_from(blocks))
    move = data.draw(st.integers(0, len(reading.blocks[block].moves) - 1))
    line = reading.blocks[block].moves[move]
    after = apply_edit(text, SetSide(block=block, move=move, side=side))  # type: ignore[arg-type]
    changed = [
        nth
        for nth, (a, b) in enumerate(zip(text.split("\n"), after.split("\n"), strict=True), 1)
        if a != b
    ]
    spoken = {one.line for one in reading.spoken}  # what is edited is written in its own form first
    assert set(changed) <= {line, *spoken}
    again = read(after).session.blocks
    if len(again) == len(reading.session.blocks) and len(again[block].moves) == len(
        reading.session.blocks[block].moves
    ):
        assert again[block].moves[move].side == side


def test_amounts_ways_and_whole_blocks_are_put_in_place() -> None:
    text = "every 1:00 for 6:00\n  15-25 side step   # quick\n  row\n\nrest 1:00\n"
    changed = apply_edit(text, SetAmount(block=0, move=0, value=12))
    assert "  12 side step   # quick" in changed
    assert "  row, or squat" in apply_edit(text, MoveOption(block=0, move=1, text="or squat"))
    with pytest.raises(CannotEdit):
        apply_edit(text, SetAmount(block=0, move=1, value=12))
    recast = apply_edit(text, ReplaceBlock(block=0, text="amrap 6:00\n  row"))
    assert recast == "amrap 6:00\n  row\n\nrest 1:00\n"
