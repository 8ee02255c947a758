"""A class as it is held in memory: always the same as its events folded, with its straps."""

from threading import RLock
from typing import NamedTuple

from lovrit.core.crew.person import Comer
from lovrit.core.run.demands import Demands
from lovrit.core.run.event import Event
from lovrit.core.run.state import Class, advance, fold, take
from lovrit.store import classes
from lovrit.store.database import Database
from lovrit.straps.simulated import SimulatedStraps
from lovrit.straps.source import Readings

HELD_SLEEP_MS = 600_000  # a class left held for so long is one that nobody is in
MOST_BEHIND_S = 3600  # so much is caught up after a standstill; hearts before that are not made up
MOST_UNWRITTEN = 14_400  # four hours of seconds are kept while the disk takes nothing


class Second(NamedTuple):
    """What the straps told in one second: its moment in ms, and beats a minute by person."""

    at_ms: int
    beats: dict[int, int]


class Live:
    """One class. ``base`` is its state after the last event, ``state`` the same moved on by the clock.

    Whoever changes it holds ``lock``: presses come in threads of their own.
    """

    def __init__(self, database: Database, class_id: int) -> None:
        """Load a class and fold what happened in it.

        Raises:
            Gone: if there is none of this number.
            Unreadable: if it was kept in a way that isn't read here.
        """
        self.id = class_id
        self.lock = RLock()
        with database.work() as work:
            row = classes.get(work, class_id)
            self.title, self.session_id, self.made_ms = row.title, row.session_id, row.made_ms
            self.closed = row.over_ms is not None
            self.comers: tuple[Comer, ...] = classes.comers(row)
            self.plan = classes.run_by(row)
            happened = classes.events(work, class_id)
        self.base: Class = fold([one.seconds for one in self.plan.timeline.intervals], happened)
        self.state = self.base
        self.demands = Demands(self.plan.session, self.plan.timeline)
        self.readings = Readings()
        self.straps = SimulatedStraps(self.comers, class_id, self.readings.push)
        self.at_s = 0
        self.unwritten: list[Second] = []

    @property
    def groups(self) -> int:
        """How many groups there are."""
        return max((one.group for one in self.comers), default=0) + 1

    def moment(self, event: Event, now_ms: int) -> Event:
        """An event at the moment that it counts from: its own, but not before the class was made, nor in the future."""
        at_ms = min(event.at_ms or now_ms, now_ms)
        return event.but(at_ms=max(at_ms, self.made_ms, self.base.since_ms))

    def try_out(self, event: Event) -> tuple[Class, str | None]:
        """The state after an event, and why it changed nothing where it did not; nothing is kept yet."""
        if event.person is not None and event.person not in {one.id for one in self.comers}:
            return self.base, "Nobody of this number came to this class."
        if (
            event.kind == "score"
            and event.block is not None
            and event.block >= len(self.plan.session.blocks)
        ):
            return self.base, "There is no such block in this class."
        return take(self.base, event)

    def stand(self, base: Class, now_ms: int) -> None:
        """From now on the class is this state, moved on by the clock."""
        self.base, self.state = base, advance(base, now_ms)

    def tick(self, now_ms: int) -> bool:
        """Time goes on; whether the class has just gone over of itself."""
        before = self.state.phase
        self.state = advance(self.base, now_ms)
        self.unwritten = [*self.unwritten, *self.catch_up(now_ms)][-MOST_UNWRITTEN:]
        return before == "on" and self.state.phase == "over"

    def catch_up(self, now_ms: int) -> list[Second]:
        """Every whole second up to now that the straps have not yet told, with what they tell of it.

        After a restart the simulated hearts have lived on meanwhile, an hour at most; while a class is left held they
        sleep.
        """
        last = min(now_ms, self._sleeps_ms()) // 1000
        first = max((self.state.started_ms or now_ms) // 1000, self.at_s, last - MOST_BEHIND_S)
        return [Second(second * 1000, self._second(second)) for second in range(first, last + 1)]

    def _sleeps_ms(self) -> int:
        """When straps fall asleep, as things stand."""
        if self.state.phase == "over":
            return self.state.over_ms or self.state.since_ms
        if self.state.phase == "held":
            return (
                max(self.state.since_ms, self.state.laps[-1].to_ms if self.state.laps else 0)
                + HELD_SLEEP_MS
            )
        return 2**62

    @property
    def beats(self) -> dict[int, int]:
        """Beats a minute by person, as they stand in the last second."""
        return self.readings.at((self.at_s - 1) * 1000)

    def _second(self, second: int) -> dict[int, int]:
        self.straps.second(
            second * 1000, lambda who: self.demands.at(self.state, second * 1000, who)
        )
        self.at_s = second + 1
        return self.beats
