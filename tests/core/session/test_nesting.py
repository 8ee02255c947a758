"""Whole blocks that are repeated: written once, done often."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.advice.look import second_look
from lovrit.core.fit.fit import Wish, fit
from lovrit.core.moves.library import shipped
from lovrit.core.session.edit import CannotEdit, apply_edit
from lovrit.core.session.edits import BlockEdit, SetFigure
from lovrit.core.session.reader import read
from lovrit.core.session.session import Nest, Session
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import plan_text
from lovrit.formats.session_json import from_json, to_json
from tests.core.session.slates import slates

NESTED = """title: Twice round

warm-up 5:00

2 times, rest 3:00
  6 x 30/30 at 8   # hard
    run

  emom 4
    8 swing
    6 push-up

cool-down 3:00
"""


SESSIONS = slates().map(read).filter(lambda one: not one.problems).map(lambda one: one.session)


@given(SESSIONS, st.integers(2, 4), st.sampled_from((0, 60, 90)), st.data())
def test_what_is_repeated_is_written_once_and_read_back(
    session: Session, times: int, rest_s: int, data: st.DataObject
) -> None:
    blocks = session.blocks
    first = data.draw(st.integers(0, max(0, len(blocks) - 1)))
    size = data.draw(st.integers(1, max(1, len(blocks) - first)))
    nest = Nest(first=first, size=size, times=times, rest_s=rest_s)
    inside = blocks[first : first + size]
    if not inside:
        return
    whole = (*blocks[:first], *nest.laid_out(inside), *blocks[first + size :])
    made = session.but(blocks=whole, nests=(nest,))
    reading = read(write(made))
    assert not reading.problems, write(made)
    assert reading.session == made
    assert from_json(to_json(made)) == made


def test_a_figure_of_it_changes_every_time_and_lines_stay() -> None:
    plan = plan_text(NESTED, shipped())
    assert not plan.problems and len(plan.session.blocks) == 7
    assert plan.timeline.total_s == 300 + 2 * (360 + 240) + 180 + 180
    longer = apply_edit(NESTED, SetFigure(block=4, figure="work", value=40))
    assert longer == NESTED.replace("6 x 30/30", "6 x 40/30")
    assert plan_text(longer, shipped()).timeline.total_s == plan.timeline.total_s + 120
    with pytest.raises(CannotEdit, match="on the slate"):
        apply_edit(NESTED, BlockEdit(what="remove", block=1))
    said = [(note.code, note.line) for note in second_look(plan, shipped())]
    assert len(said) == len(set(said))
    for one in fit(NESTED, plan, Wish(seconds=26 * 60), shipped()).fits:
        assert one.plan.timeline.total_s == 26 * 60


@pytest.mark.parametrize(
    ("text", "column", "nearest"),
    [
        ("2 times, rest 3\n  6 x 30/30\n", 15, "2 times, rest 3:00"),
        ("2 times\nrest 3:00\n", 1, None),
        ("1 times\n  6 x 30/30\n", 1, None),
        ("2 times\n  6 xx 30/30\n", 6, "  6 x 30/30"),
        ("2 times\n  3 times\n    6 x 30/30\n", 3, None),
    ],
)
def test_what_cannot_be_repeated_is_said(text: str, column: int, nearest: str | None) -> None:
    problem = read(text).problems[0]
    assert problem.column == column, problem
    assert nearest is None or problem.nearest == nearest, problem
