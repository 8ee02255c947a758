"""Classes kept: events once and in order, samples as they came."""

import pytest

from lovrit.core.crew.person import Comer
from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import freeze
from lovrit.core.timeline.plan import plan_text
from lovrit.demo.club import fill
from lovrit.store import classes, club, people, sessions
from lovrit.store.sessions import Gone
from lovrit.store.unkept import OLD_MS, thin_old
from tests.conftest import ready

BY = freeze(plan_text("rest 1:00", shipped()))
COMER = Comer(id=1, name="Anouk K", initials="AK", group=2)


def test_events_count_once_and_keep_their_order() -> None:
    database = ready()
    with database.work() as work:
        row = classes.make(work, 1, "x", "rest 1:00", [COMER], 5, BY)
        first, second = (
            Event(id="a", kind="start", at_ms=10),
            Event(id="b", kind="longer", at_ms=9, seconds=10),
        )
        assert [classes.add_event(work, row.id, one) for one in (first, second, first)] == [
            True,
            True,
            False,
        ]
    with database.work() as work:
        assert classes.events(work, row.id) == (first, second)
        assert classes.comers(classes.get(work, row.id)) == (COMER,)
        assert classes.open_ids(work) == [row.id]
        with pytest.raises(Gone):
            classes.get(work, 99)


def test_samples_are_kept_raw_and_a_second_only_once() -> None:
    database = ready()
    with database.work() as work:
        row = classes.make(work, 1, "x", "rest 1:00", [COMER], 5, BY)
        classes.add_samples(work, row.id, [(1000, {1: 120, 2: 0})])
        classes.add_samples(work, row.id, [(1000, {1: 150}), (2000, {1: 121}), (3000, {})])
        assert classes.traces(work, row.id) == {1: [(1000, 120), (2000, 121)], 2: [(1000, 0)]}


def test_a_session_that_goes_leaves_its_classes() -> None:
    database = ready()
    with database.work() as work:
        row = classes.make(work, 2, "x", "rest 1:00", [COMER], 5, BY)
        work.delete(sessions.get(work, 2))
    with database.work() as work:
        assert classes.get(work, row.id).session_id is None


def test_who_comes_is_said_anew_each_time() -> None:
    database = ready()
    fill(database)
    with database.work() as work:
        assert len(people.everyone(work)) == 20
        people.set_comers(work, 1, {3: 0, 5: 1})
        assert [(one.id, group) for one, group in people.comers(work, 1)] == [(3, 0), (5, 1)]
        people.set_comers(work, 1, {5: 0})
        assert [(one.id, group) for one, group in people.comers(work, 1)] == [(5, 0)]


@pytest.mark.parametrize(("rule", "left"), [("whole", 120), ("thinned", 24), ("gone", 0)])
def test_old_traces_go_by_the_clubs_rule_and_new_ones_stay(rule: str, left: int) -> None:
    database, now_ms = ready(), OLD_MS + 10_000_000
    told = [(second * 1000, {1: 100 + second % 7}) for second in range(120)]
    with database.work() as work:
        club.set_about(work, club.about(work).but(traces=rule))
        old, new = (classes.make(work, 1, "x", "rest 1:00", [COMER], 5, BY).id or 0 for _ in "ab")
        for number, over_ms in ((old, 200_000), (new, now_ms - 1000)):
            classes.add_samples(work, number, told)
            classes.set_over(work, number, over_ms)
    with database.work() as work:
        thin_old(work, now_ms)
        assert thin_old(work, now_ms) == 0  # once
    with database.work() as work:
        traces = [classes.trace_of(work, number, 1) for number in (old, new)]
    assert [len(one) for one in traces] == [left, 120]
    assert traces[0] == traces[1][:: 5 if rule == "thinned" else 1][:left]
    with database.work() as work:  # another rule looks again
        club.set_about(work, club.about(work).but(traces="gone"))
        assert thin_old(work, now_ms) == (rule != "gone")
