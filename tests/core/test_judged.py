"""What Lovrit makes, it judges: no fit, recast or step of a series that the second look would question anew."""

import pytest
from hypothesis import given
from hypothesis import strategies as some

from lovrit.core.advice.judged import doubts, doubts_of, judge_by, judged_fits
from lovrit.core.fit.fit import Wish, fit
from lovrit.core.moves.library import shipped
from lovrit.core.recast.recast import offers
from lovrit.core.session.rack import rack
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.series import THINGS, Thing, series
from tests.conftest import examples

LIBRARY = shipped()
JUDGE = judge_by(LIBRARY)
SLATES = [one.whole for one in rack()]
SPRINTS = "warm-up 8:00 at 3\n  easy laps\n  high knee\n\n6 x 10/2:30 at 10\n  sprint\n\ncool-down 4:00 at 2"
HEAVY = (
    "warm-up 8:00 at 3\n\n5 sets of 5 reps, rest 3:00\n  back squat @ 85%\n\ncool-down 4:00 at 2"
)
NEW = "for: beginners\n\nwarm-up 8:00 at 3\n\n4 x 20/20 at 7\n  squat\n\ncool-down 4:00 at 2"


@examples(40)
@given(some.sampled_from(SLATES), some.integers(12, 60))
def test_a_fit_brings_no_new_doubt_where_another_does_it(text: str, minutes: int) -> None:
    plan = plan_text(text, LIBRARY)
    found = fit(text, plan, Wish(seconds=minutes * 60), LIBRARY)
    judged = judged_fits(plan, found, JUDGE)
    assert bool(judged.fits) == bool(found.fits)
    new = [doubts(plan, one.plan, LIBRARY) for one in judged.fits]
    if not all(new):  # one is sound, so all that are shown are
        assert not any(new)
    for one, why in zip(judged.fits, new, strict=True):
        assert not why or why[0].text.rstrip(".") in one.cautions


@pytest.mark.parametrize("text", SLATES)
def test_a_recast_that_is_questioned_says_so(text: str) -> None:
    plan = plan_text(text, LIBRARY)
    for at in range(len(plan.session.blocks)):
        made = offers(plan, at, text, LIBRARY)
        told = doubts_of(plan, made, LIBRARY, JUDGE)
        for one in made:
            new = doubts(plan, plan_text(one.slate, LIBRARY), LIBRARY)
            assert bool(new) == (one.to in told)


@examples(30)
@given(
    some.sampled_from([*SLATES, SPRINTS, HEAVY, NEW]),
    some.permutations(THINGS),
    some.integers(1, 3),
)
def test_no_week_of_a_series_is_questioned_more_than_its_first(
    text: str, things: list[Thing], count: int
) -> None:
    weeks = series(text, 8, tuple(things[:count]), 4, LIBRARY, judge=JUDGE)
    first = plan_text(weeks[0].slate, LIBRARY)
    for one in weeks[1:]:
        if not one.changes[0].startswith("easier week"):
            assert not doubts(first, plan_text(one.slate, LIBRARY), LIBRARY), one.changes


@pytest.mark.parametrize(
    ("text", "thing", "why"),
    [(HEAVY, "load", "most do"), (NEW, "rest", ""), (SPRINTS, "rest", "")],
)
def test_a_step_that_would_be_questioned_is_held_and_says_why(
    text: str, thing: Thing, why: str
) -> None:
    weeks = series(text, 10, (thing,), 0, LIBRARY, judge=JUDGE)
    held = [said for one in weeks for said in one.changes if "held" in said]
    assert held and (not why or any("questioned" in said and why in said for said in held)), held
