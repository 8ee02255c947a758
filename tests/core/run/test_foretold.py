"""Any session on any floor: what screens are told to its end has words, tasks and a clock at every moment."""

import json
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event
from lovrit.core.run.foretold import foretold
from lovrit.core.run.frozen import freeze, frozen_object, thaw
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import plan_text
from lovrit.house.telling import Told, state_object
from tests.conftest import examples
from tests.core.run.ran import T0, fold_of
from tests.core.session.slates import slates

SHAPES = [one.slate for one in rack()]


def people(count: int, groups: int) -> tuple[Comer, ...]:
    return tuple(
        Comer(id=nth, name=f"P{nth}", initials=f"P{nth}", group=nth % groups)
        for nth in range(1, count + 1)
    )


@examples(150)
@given(st.one_of(slates(), st.sampled_from(SHAPES)), st.integers(0, 20), st.integers(1, 6))
def test_every_moment_of_any_class_can_be_shown(text: str, count: int, groups: int) -> None:
    frozen = freeze(plan_text(text, shipped()))
    assert thaw(json.loads(json.dumps(frozen_object(frozen)))) == frozen
    fold = fold_of(frozen, [Event(id="s", kind="start", at_ms=T0)], people(count, groups))
    moments = foretold(fold.state, 300)
    for before, after in pairwise(moments):
        assert before.at_s <= after.at_s
    for one in moments:
        rows = one.board.rows
        assert one.says and (one.kind in ("over", "count") or rows), one
        assert all(row.does and all(does.strip() for does in row.does) for row in rows)
        assert one.up or one.kind == "over" or one.zero_s >= one.at_s - 1e-6
        assert one.cap_s is None or one.cap_s > 0
        letters = [letter for row in rows for letter in row.groups]
        assert len(letters) == len(set(letters)) or not fold.state.people
        assert all(cue.at_s - one.at_s >= -0.01 for cue in one.cues)
    phases = ("on", "over") if any(one.floor.steps for one in frozen.plan().blocks) else ("ready",)
    told = Told(fold, fold.at(7.0), T0, people(count, groups))
    for screen in ("coach", "wall"):
        shown = json.loads(json.dumps(state_object(told, T0 + 7000, screen)))
        assert shown["phase"] in phases
