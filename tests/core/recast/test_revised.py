"""What changed between two states of a session, in sentences."""

from hypothesis import given

from lovrit.core.moves.library import shipped
from lovrit.core.recast.revised import revised
from lovrit.core.timeline.plan import plan_text
from tests.core.session.slates import slates

BEFORE = """warm-up 6:00 at 3

5 rounds of 40/20, break 1:00, at 8
  squat
  row

rest 2:00

6 x 30/30 at 9
  run
"""


def said(after: str) -> tuple[str, ...]:
    return revised(plan_text(BEFORE, shipped()), plan_text(after, shipped()))


def test_each_change_is_a_sentence_with_what_it_comes_to() -> None:
    assert said(BEFORE) == ()
    assert said(BEFORE.replace("5 rounds", "4 rounds")) == (
        "5 rounds of 40/20 became 4 rounds of 40/20: 1:20 less work, 0:20 less rest",
    )
    assert said(BEFORE.replace("rest 2:00\n\n", "")) == ("without rest 2:00",)
    assert said(BEFORE + "\ncool-down 3:00\n") == ("cool-down 3:00 is new",)
    assert said(BEFORE.replace("  row\n", "  row\n  plank\n").replace("at 8", "at 7")) == (
        "5 rounds of 40/20, with plank, effort 8 → 7: 3:20 more work, 1:40 more rest",
    )


@given(slates(), slates())
def test_nothing_is_said_of_a_session_beside_itself(one: str, two: str) -> None:
    left, right = plan_text(one, shipped()), plan_text(two, shipped())
    assert revised(left, left) == ()
    assert bool(revised(left, right)) == (left.session.blocks != right.session.blocks)
