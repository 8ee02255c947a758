"""A session alone: each structure of the rack, step after step, adds up, tells all, asks for what one may."""

import pytest
from hypothesis import given
from hypothesis import strategies as some

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.classplan import class_plan
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import plan_session, plan_text
from lovrit.core.weeks.home import home_session
from lovrit.house.alone import AloneStep, alone
from lovrit.house.own import Versions

SHAPES = {one.key: one.whole for one in rack()}
TAPPED = ("for-time", "repeats", "warm-up-rounds")  # what a clock alone does not end
HALF_LATER = 30  # a primer's second half begins so much later; who is alone is its first


def steps_of(text: str, **fields: object) -> tuple[AloneStep, ...]:
    plan = plan_text(text, shipped())
    return alone(
        class_plan(plan.session, plan.library),
        Comer(id=7, name="Mara", initials="MA", group=0, **fields),
    )  # type: ignore[arg-type]


@pytest.mark.parametrize("key", SHAPES)
def test_every_structure_runs_alone_to_its_end(key: str) -> None:
    plan, steps = plan_text(SHAPES[key], shipped()), steps_of(SHAPES[key])
    lasts = sum(one.seconds for one in steps)
    assert lasts in (plan.timeline.total_s, plan.timeline.total_s - HALF_LATER)
    assert [one.block for one in steps] == sorted(one.block for one in steps)
    assert all(one.what for one in steps if one.phase == "work")
    assert any(one.ends == "tap" for one in steps) == (key in TAPPED)


@given(
    some.sampled_from(sorted(SHAPES)),
    some.sets(some.sampled_from(["overhead", "jumps", "depth", "floor"])),
)
def test_alone_one_is_told_ones_own_version(key: str, limits: set[str]) -> None:
    plan = plan_text(SHAPES[key], shipped())
    mine = Comer(id=7, name="Mara", initials="MA", group=0, limits=tuple(sorted(limits)))
    versions = Versions(plan.library)
    allowed = {
        name
        for block in plan.session.blocks
        for line in block.moves
        for name, _ in versions.of(mine, line)
    }
    for one in alone(class_plan(plan.session, plan.library), mine):
        if one.phase == "work" and one.of:
            assert any(name.split(",")[0] in " ".join(one.what) for name in allowed), (one, allowed)


@pytest.mark.parametrize("key", SHAPES)
def test_at_home_no_kit_is_asked_where_there_is_a_way_round(key: str) -> None:
    plan = plan_text(SHAPES[key], shipped())
    session = home_session(plan, plan.library)
    steps = alone(
        class_plan(session, plan.library), Comer(id=7, name="Mara", initials="MA", group=0)
    )
    assert steps and len(session.blocks) == len(plan.session.blocks)
    assert sum(one.seconds for one in steps) > 0
    assert plan_session(session, plan.library).timeline.intervals
