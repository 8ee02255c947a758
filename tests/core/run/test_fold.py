"""The fold: any prefix, events twice, kills at any second; the same class comes out."""

from random import Random

from hypothesis import given
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from lovrit.core.moves.library import shipped
from lovrit.core.run.event import Event
from lovrit.core.run.places import Whereabouts
from lovrit.core.run.state import COUNT_IN_MS, advance, begin, fold, happen, left_ms
from lovrit.core.timeline.plan import plan_text

LENGTHS = [30, 40, 20, 40, 20]
KINDS = st.sampled_from(
    ["start", "hold", "resume", "next", "back", "longer", "stops", "returns", "mark", "end", "felt"]
)
T0 = 1_800_000_000_000


@st.composite
def happenings(draw: st.DrawFn) -> list[Event]:
    at, events = T0, [Event(id="0", kind="start", at_ms=T0)]
    for nth in range(draw(st.integers(0, 12))):
        at += draw(st.integers(0, 60_000))
        kind = draw(KINDS)
        fields = {"person": draw(st.integers(1, 3))} if kind in ("stops", "returns", "felt") else {}
        value = {"value": 7} if kind == "felt" else {}
        events.append(Event(id=str(nth + 1), kind=kind, at_ms=at, **fields, **value))
    return events


@given(happenings())
def test_every_prefix_folds_to_what_was_seen(events: list[Event]) -> None:
    state = begin(LENGTHS)
    for nth, event in enumerate(events, 1):
        state = happen(state, event)
        assert fold(LENGTHS, events[:nth]) == state


@given(happenings(), st.randoms(use_true_random=False))
def test_events_sent_twice_count_once(events: list[Event], chance: Random) -> None:
    twice = []
    for event in events:
        twice += [event] * chance.choice([1, 1, 2])
        if twice and chance.random() < 0.3:
            twice.append(chance.choice(twice))
    assert fold(LENGTHS, twice) == fold(LENGTHS, events)


@given(happenings(), st.integers(0, 400_000), st.integers(0, 400_000))
def test_looking_in_between_changes_nothing(events: list[Event], first: int, second: int) -> None:
    """Killed and started again at any moment, the class is where it would have been."""
    state = fold(LENGTHS, events)
    one, two = state.since_ms + min(first, second), state.since_ms + max(first, second)
    assert advance(advance(state, one), two) == advance(state, two)


@given(happenings())
def test_laps_follow_one_another_and_fill_the_time_that_ran(events: list[Event]) -> None:
    state = advance(fold(LENGTHS, events), T0 + 10_000_000)
    for before, after in zip(state.laps, state.laps[1:], strict=False):
        assert before.to_ms <= after.from_ms
    assert all(lap.from_ms < lap.to_ms for lap in state.laps)
    if {event.kind for event in events} <= {"start", "stops", "returns", "mark", "felt"}:
        ran = sum(lap.to_ms - lap.from_ms for lap in state.laps)
        assert ran == sum(LENGTHS) * 1000
        assert state.over_ms == T0 + COUNT_IN_MS + ran


def test_the_hands_of_a_coach() -> None:
    state = fold(LENGTHS, [Event(id="a", kind="start", at_ms=T0)])
    at = T0 + COUNT_IN_MS + 35_000
    state = happen(state, Event(id="b", kind="longer", at_ms=at, seconds=10))
    assert (state.interval, state.place_ms, state.lengths_ms[1]) == (1, 5000, 50_000)
    state = happen(state, Event(id="c", kind="hold", at_ms=at + 1000))
    assert advance(state, at + 60_000).place_ms == 6000
    state = happen(state, Event(id="d", kind="resume", at_ms=at + 60_000))
    state = happen(state, Event(id="e", kind="back", at_ms=at + 61_000))
    assert (state.interval, state.place_ms) == (1, 0)
    state = happen(state, Event(id="f", kind="back", at_ms=at + 62_000))
    assert state.interval == 0
    state = happen(state, Event(id="g", kind="stops", at_ms=at + 62_500, person=3))
    assert state.stopped == {3: at + 62_500}
    state = happen(state, Event(id="h", kind="end", at_ms=at + 63_000))
    assert state.phase == "over" and state.ended_early
    late = happen(state, Event(id="i", kind="next", at_ms=at + 64_000))
    assert late.laps == state.laps and late.phase == "over"
    said = happen(late, Event(id="j", kind="score", at_ms=at + 65_000, block=1, text="7 + 3"))
    assert said.scores[0].text == "7 + 3"


class ClassOnTheFloor(RuleBasedStateMachine):
    """A class under any hands: what is left never grows but by 'longer' and 'back', and it always ends."""

    def __init__(self) -> None:
        super().__init__()
        self.now = T0
        self.state = begin(LENGTHS)
        self.nth = 0

    def happens(self, kind: str, **fields: object) -> None:
        self.nth += 1
        self.state = happen(
            self.state, Event(id=str(self.nth), kind=kind, at_ms=self.now, **fields)
        )

    @rule(seconds=st.integers(0, 90))
    def time_passes(self, seconds: int) -> None:
        before = left_ms(advance(self.state, self.now))
        self.now += seconds * 1000
        self.state = advance(self.state, self.now)
        assert left_ms(self.state) <= before

    @rule(kind=st.sampled_from(["start", "hold", "resume", "next", "back", "longer"]))
    def hand(self, kind: str) -> None:
        self.happens(kind)

    @invariant()
    def stands_somewhere(self) -> None:
        assert 0 <= self.state.interval <= len(LENGTHS)
        if self.state.phase in ("on", "held"):
            assert (
                self.state.place_ms < self.state.lengths_ms[self.state.interval]
                or self.state.phase == "held"
            )
            assert self.state.place_ms >= -COUNT_IN_MS


TestClassOnTheFloor = ClassOnTheFloor.TestCase


def test_everyone_visits_every_station_once_a_round() -> None:
    text = "2 rounds of 40/20, break 1:00\n  squat\n  row\n  plank\n  swing\nevery 1:00 for 2:00\n  8 push-up"
    plan = plan_text(text, shipped())
    seen: dict[int, list[str]] = {group: [] for group in range(3)}
    for at, one in enumerate(plan.timeline.intervals):
        if one.block == 0 and one.phase == "work":
            here = Whereabouts(plan.session, plan.timeline, 3).at(at)
            assert [stand.station for stand in here] == ["squat", "row", "plank", "swing"]
            for stand in here:
                for group in stand.groups:
                    seen[group].append(stand.station)
    assert all(
        sorted(visited) == sorted(["squat", "row", "plank", "swing"] * 2)
        for visited in seen.values()
    )
    first = Whereabouts(plan.session, plan.timeline, 3).at(0)
    assert [stand.groups for stand in first] == [(0,), (1,), (2,), ()]
    assert [stand.then for stand in first] == [(), (0,), (1,), (2,)]
    together = Whereabouts(plan.session, plan.timeline, 3).at(len(plan.timeline.intervals) - 1)
    assert together[0].groups == (0, 1, 2)
