"""Every telling of a figure says the same: read-out, explanation, JSON, Markdown, fit, rails."""

from hypothesis import given

from lovrit.core.clock import clock, minutes, ratio
from lovrit.core.crew.groups import letter
from lovrit.core.fit.feel import feel
from lovrit.core.moves.library import shipped
from lovrit.core.run.board import board_of
from lovrit.core.run.classplan import Runner, class_plan
from lovrit.core.run.fold import Fold
from lovrit.core.run.going import Happening
from lovrit.core.run.saying import leading
from lovrit.core.timeline.explain import explain
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.formats.plan_json import plan_object
from lovrit.formats.plan_text import plan_lines
from lovrit.web.desk.panel import now_of
from lovrit.web.desk.rails import rails_view
from lovrit.web.desk.view import People, readout
from tests.conftest import examples
from tests.core.session.slates import slates

TWO = "6 x 60/0\n\n6 x 30/30"


def planned(text: str) -> Plan:
    """A plan with the shipped library."""
    return plan_text(text, shipped())


def test_a_block_without_rest_counts_in_the_ratio_everywhere() -> None:
    plan = planned(TWO)
    told = explain(plan, "ratio")
    assert told and told.value == "3 : 1" and told.lines[0].startswith("9:00 of work to 3:00")
    assert plan_object(plan, ())["work_to_rest"] == 3
    assert "3 : 1" in "".join(part.text for part in readout(plan, People(0, ())))
    assert now_of(plan, "ratio") == "3 : 1" and "3 : 1" in str(feel(plan, plan))
    assert any("3 : 1" in line for line in plan_lines(plan, ()))


@given(slates())
@examples(120)
def test_all_tellings_of_a_plan_agree(text: str) -> None:
    plan = planned(text)
    if not plan.timeline.intervals:
        return
    said, sums = "".join(part.text for part in readout(plan, People(0, ()))), plan.sums
    told = {
        name: explain(plan, name)
        for name in ("total", "work", "rest", "ratio", "hard", "effort", "spare")
    }
    values = {name: one.value for name, one in told.items() if one}
    assert said.startswith(values["total"]) and values["total"] == minutes(sums.total_s)
    assert f"{values['work']} of work" in said
    assert (f", {values['hard']} of it hard" in said) == bool(sums.hard_s)
    assert values["ratio"] == ratio(*sums.ratio) == now_of(plan, "ratio")
    assert f"{values['ratio']} work to rest" in said or not sums.ratio[0]
    shown = plan_object(plan, ())
    assert (shown["total_s"], shown["work_s"], shown["rest_s"]) == (
        sums.total_s,
        sums.work_s,
        sums.rest_s,
    )
    assert (
        shown["work_to_rest"] is None
        or (known := told["ratio"]) is None
        or known.value == ratio(*sums.ratio)
    )
    assert {name: now_of(plan, name) for name in ("total", "work", "hard")} == {
        name: clock(sums.seconds(name)) for name in ("total", "work", "hard")
    }
    assert sum(map(sum, sums.breaks.values())) == plan.timeline.of_phase("break", "change")


@given(slates())
@examples(60)
def test_rails_and_floor_have_everybody_in_the_same_place(text: str) -> None:
    plan, groups = planned(text), 3
    made = class_plan(plan.session, plan.library)
    people = [Runner(str(group), letter(group)) for group in range(groups)]
    for at, block in enumerate(plan.session.blocks):
        works = [one for one in plan.timeline.intervals if one.block == at and one.phase == "work"]
        view = rails_view(plan, groups, at, 0)
        if not works or not view or not block.moves_people:
            continue
        first = works[0]
        drawn = {
            (bar.rail, bar.group, bar.side)
            for bar in view.bars
            if bar.x == view.bars[0].x and bar.group is not None
        }
        fold = Fold(made, people)
        fold.take(Happening("0", "start", 0))
        fold.state.begin(at)
        while fold.state.lanes[0].step.phase != "work":
            fold.state.finish(fold.state.lanes[0], "clock")
        on_floor = {
            (rail, ord(group) - 65, row.side or "")
            for rail, row in enumerate(board_of(fold.state, leading(fold.state)).rows)
            for group in row.groups
        }
        assert drawn == on_floor, (text, first)
        assert {letter(group) for _, group, _ in drawn} == {"A", "B", "C"}
