"""What people see of the weeks: a change raises its number once, what falls out is called off, nothing else stirs."""

from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.asked.dose import asks
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.core.weeks.publish import Shown, changed, like, published

FIRST, LAST = "2027-03-01", "2027-03-28"
DAYS = st.integers(1, 28).map(lambda day: f"2027-03-{day:02}")
ONE = st.builds(
    Shown,
    uid=st.integers(1, 8).map(lambda nth: f"session-{nth}@lovrit"),
    session=st.just(1), day=DAYS, at=st.sampled_from(["18:10", "07:00"]), minutes=st.integers(10, 90),
    title=st.sampled_from(["Legs", "Pull"]), like=st.just("forty minutes, hard legs"),
)  # fmt: skip
WEEK = st.lists(ONE, max_size=8, unique_by=lambda one: one.uid)


@given(WEEK, WEEK, WEEK)
def test_numbers_rise_with_changes_alone_and_nothing_is_dropped(
    first: list[Shown], second: list[Shown], third: list[Shown]
) -> None:
    seen: tuple[Shown, ...] = ()
    for week in (first, second, third):
        before = {one.uid: one for one in seen}
        after = published(seen, week, FIRST, LAST)
        assert published(after, week, FIRST, LAST) == after
        assert {one.uid for one in after} == {*before, *(one.uid for one in week)}
        for one in after:
            was = before.get(one.uid)
            on = any(other.uid == one.uid for other in week)
            assert one.cancelled == (not on)
            if was is None:
                assert one.sequence == 0 and one.fresh == bool(seen)
            else:
                same = on and not was.cancelled and was.told == one.told
                gone = not on and was.cancelled
                assert one.sequence == was.sequence + (not same and not gone)
                moved = on and not was.cancelled and (was.day, was.at) != (one.day, one.at)
                assert not moved or one.was == f"{was.day} {was.at}"
        assert len(changed(seen, after)) == sum(
            one.uid not in before or before[one.uid].sequence != one.sequence for one in after
        )
        seen = after


def test_what_is_not_of_these_days_stays_as_it_was() -> None:
    old = Shown(
        uid="a", session=1, day="2027-02-20", at="18:10", minutes=40, title="Legs", like="x"
    )
    assert published((old,), [], FIRST, LAST) == (old,)


def test_what_it_will_be_like_is_said_from_its_figures() -> None:
    def said(text: str) -> str:
        return like(asks(plan_text(text, shipped())))

    assert said(
        "warm-up 6:00 at 3\n5 rounds of 60/20 at 9\n  squat\n  lunge\n  squat\ncool-down 14:00 at 2"
    ).startswith("forty minutes, hard legs, out of breath")
    assert "unhurried all through" in said("easy laps 30:00 at 3")
    assert "brisk running" in said(
        "10 x 2:00/1:00 at 7\n  easy laps"
    )  # nothing of it is hard on Weeks either
    assert said("easy laps 15:00 at 3").startswith("a quarter of an hour")
    assert "hard in places" in said(
        "warm-up 10:00 at 3\n4 rounds of 30/30 at 7\n  squat\n  push-up\n  ring row"
    )
