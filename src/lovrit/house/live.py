"""A class as it is held in memory: always the same as its events folded, with its straps."""

from collections.abc import Callable, Iterator
from threading import RLock
from typing import NamedTuple

from lovrit.core.blocks.score import Impossible
from lovrit.core.crew.person import Comer
from lovrit.core.heart.gate import GateSignal
from lovrit.core.review.scores import score
from lovrit.core.run.account import Class, account
from lovrit.core.run.demands import Demands
from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.going import Going
from lovrit.core.run.here import in_their_groups
from lovrit.house.calls import Calls
from lovrit.house.folded import folded
from lovrit.house.hearts import Hearts, hearts_view
from lovrit.house.own import Versions
from lovrit.house.telling import Told
from lovrit.store import classes
from lovrit.store.database import Database
from lovrit.straps.outside import Outside
from lovrit.straps.simulated import SimulatedStraps
from lovrit.straps.source import Readings

HELD_SLEEP_MS = 600_000  # a class left held for so long is one that nobody is in
MOST_BEHIND_S = 3600  # so much is caught up after a standstill; hearts before that are not made up
SAME_MS = 1000  # how it stands is worked out once a second for all screens that ask
MOST_UNWRITTEN = 14_400  # four hours of seconds are kept while the disk takes nothing


class Second(NamedTuple):
    """What the straps told in one second: its moment in ms, and beats a minute by person."""

    at_ms: int
    beats: dict[int, int]


class Live:
    """One class. ``fold`` is its state after the last event, ``going`` the same moved on by the clock.

    ``state`` is the account of it on the clock of the day. Whoever changes it holds ``lock``: presses come in threads
    of their own.
    """

    def __init__(
        self,
        database: Database,
        class_id: int,
        now_ms: int,
        names: Callable[[], bool] = lambda: False,
        outside: Outside | None = None,
        simulated: bool = True,
    ) -> None:
        """Load a class and fold what happened in it; ``names`` says whether the wall may show first names.

        ``outside`` are straps that tell by themselves; ``simulated`` where those who wear none of them are played.

        Raises:
            Gone: if there is none of this number.
            Unreadable: if it was kept in a way that isn't read here.
        """
        self.id, self.names = class_id, names
        self.lock = RLock()
        with database.work() as work:
            row = classes.get(work, class_id)
            self.title, self.session_id, self.made_ms = row.title, row.session_id, row.made_ms
            self.closed, self.is_try = row.over_ms is not None, row.is_try
            kept = folded(row, classes.events(work, class_id))
        self.plan, self._came, self.fold, self._nameless = kept
        self.run_by = self.fold.plan
        self.demands = Demands(self.plan.session, self.plan.timeline)
        self.readings = Readings()
        self.outside, self._taken = outside or Outside(), dict[int, tuple[str, int]]()
        self.simulated = simulated
        self.straps = SimulatedStraps(self._came if simulated else (), class_id, self.readings.push)
        self.at_s = 0
        self.signals: dict[int, GateSignal] = {}
        self.calls = Calls()
        self.walls = 0
        self.unwritten: list[Second] = []
        self._told: Told | None = None
        self._own = Versions(self.run_by.library)
        self.comers: tuple[Comer, ...] = ()
        self.stand(self.fold, now_ms)

    @property
    def came(self) -> tuple[Comer, ...]:
        """Who comes by the list, in the groups that they were given."""
        return self._came

    @property
    def groups(self) -> int:
        """How many groups there are; by letter alone where nobody said who comes."""
        return max(max((one.group for one in self.comers), default=0) + 1, self._nameless)

    def seconds(self, ms: int) -> float:
        """A moment in seconds since the class was opened."""
        return (ms - self.made_ms) / 1000

    def ms(self, seconds: float) -> int:
        """Seconds since the class was opened as a moment."""
        return self.made_ms + round(seconds * 1000)

    def moment(self, event: Event, now_ms: int) -> Event:
        """An event at the moment that it counts from: its own, but not before the class was made, nor in the future."""
        at_ms = min(event.at_ms or now_ms, now_ms)
        return event.but(at_ms=max(at_ms, self.made_ms, self.ms(self.fold.state.now_s)))

    def admit(self, comes: Comer) -> None:
        """Somebody who comes late is here from now on, with their strap."""
        self._came = (*self._came, comes)
        self._own = Versions(self.run_by.library)
        if self.simulated:
            self.straps.add(comes)

    def try_out(self, event: Event, comes: Comer | None = None) -> tuple[Fold, str | None]:
        """The fold after an event, and why it changed nothing where it did not; nothing is kept yet.

        ``comes`` is who comes late with it.
        """
        here = {one.id for one in (*self._came, *([comes] if comes else []))}
        if event.person is not None and event.person not in here:
            return self.fold, "Nobody of this number came to this class."
        if event.other is not None and event.other not in here:
            return self.fold, "Nobody of this number came to this class."
        after = self.fold.copy()
        after.take(happening(event, self.made_ms))
        return after, after.refused

    def read(self, event: Event) -> Event:
        """An event as it is kept: a score in its block's own writing.

        Raises:
            Impossible: if a score is none, or can't have been done.
        """
        blocks, at = self.plan.session.blocks, event.block
        if event.kind != "score" or at is None or not (event.text or "").strip():
            return event
        if at >= len(blocks):
            raise Impossible("There is no such block in this class.")
        said = score(blocks[at], self.plan.timeline.blocks[at], event.text or "", self.plan.library)
        return event.but(text=said)

    def stand(self, fold: Fold, now_ms: int) -> None:
        """From now on the class is this state, moved on by the clock."""
        self.fold = fold
        self.comers = in_their_groups(self._came, fold.state)
        self.look(now_ms)

    def look(self, now_ms: int) -> Going:
        """How it stands at a moment, which becomes how it is shown."""
        self.going = self.fold.at(self.seconds(now_ms))
        self.state: Class = account(self.going, self.plan, self.made_ms)
        return self.going

    def told(self, now_ms: int) -> Told:
        """How it stands at a moment, to be told to screens; for all who ask within a second the same."""
        last = self._told
        if last and last.fold is self.fold and last.going.phase == "on" == self.going.phase:
            since = now_ms - last.now_ms
            if 0 <= since < SAME_MS and last.names == self.names():
                return last
        going = self.fold.at(self.seconds(now_ms))
        self._told = Told(
            self.fold, going, self.made_ms, self.comers, self.names(), now_ms, self._own
        )
        return self._told

    def tick(self, now_ms: int) -> bool:
        """Time goes on; whether the class has just gone over of itself."""
        before = self.state.phase
        self.look(now_ms)
        told = [*self.catch_up(now_ms), *self.from_outside()]
        self.unwritten = [*self.unwritten, *told][-MOST_UNWRITTEN:]
        return before == "on" and self.state.phase == "over"

    def at_gates(self, now_ms: int) -> Iterator[Event]:
        """Hearts that have come to where a gate wants them, left there again, or were lost, since it was last told."""
        told = self.going.beats
        for lane in self.going.active if self.going.phase == "on" else []:
            gate = lane.step.gate if lane.step else None
            for who in lane.people if gate else []:
                signal = self.signals.get(int(who))
                if gate is None or signal is None or who in self.going.stopped:
                    continue
                bpm, before = signal.believed(gate.down), told.get(who)
                if before is None or gate.there(before) != gate.there(bpm):
                    name = f"heart-{who}-{now_ms}"
                    yield Event(id=name, kind="heart", at_ms=now_ms, person=int(who), bpm=bpm)

    def catch_up(self, now_ms: int) -> list[Second]:
        """Every whole second up to now that the straps have not yet told, with what they tell of it.

        After a restart the simulated hearts have lived on meanwhile, an hour at most; while a class is left held they
        sleep.
        """
        last = min(now_ms, self._sleeps_ms()) // 1000
        first = max((self.state.started_ms or now_ms) // 1000, self.at_s, last - MOST_BEHIND_S)
        return [Second(second * 1000, self._second(second)) for second in range(first, last + 1)]

    def hearts(self) -> Hearts:
        """The threads as they stand, with what the coach is told of them."""
        view = hearts_view(self.plan, self.state, self.comers, self.beats)
        at_s = self.at_s if self.at_s else self.state.now_ms / 1000
        return view.but(calls=self.calls.look(view.beads, self.state.felt, self.comers, at_s))

    def _strap_of(self, person: int) -> int:
        """Whose strap somebody wears tonight: their own, unless two were swapped."""
        return int(self.going.worn.get(str(person), person))

    def from_outside(self) -> list[Second]:
        """All that straps from outside told since they were last asked, each at its own moment: nothing is lost."""
        found = []
        for comer in self.comers:
            strap = self.outside.worn.get(self._strap_of(comer.id))
            if strap is None or comer.effort_only:
                continue
            before, count = self._taken.get(comer.id, (strap, 0))
            told, newest = self.outside.since(strap, count if before == strap else 0)
            self._taken[comer.id] = (strap, newest)
            found += [
                Second(one.at_ms, {comer.id: one.beat(comer.id).bpm})
                for one in told
                if one.at_ms >= (self.state.started_ms or self.made_ms)
            ]
        return found

    def _sleeps_ms(self) -> int:
        """When straps fall asleep, as things stand."""
        if self.state.phase == "over":
            return self.state.over_ms or self.state.now_ms
        if self.state.phase == "held":
            return self.ms(self.fold.state.now_s) + HELD_SLEEP_MS
        return 2**62

    @property
    def beats(self) -> dict[int, int]:
        """Beats a minute by person, as they stand in the last second; straps that were swapped tell of the other."""
        told, worn = self.readings.at((self.at_s - 1) * 1000), self.going.worn
        if not worn:
            return told
        swapped = {who: int(worn.get(str(who), who)) for who in {*told, *map(int, worn)}}
        return {who: told[strap] for who, strap in swapped.items() if strap in told}

    def _second(self, second: int) -> dict[int, int]:
        worn = self.outside.worn
        self.straps.second(
            second * 1000, lambda who: self.demands.at(self.state, second * 1000, who), worn
        )
        heard = self.outside.heard()
        for comer in self.comers:
            last = heard.get(worn.get(comer.id, ""))
            if last is not None and not comer.effort_only:
                self.readings.push(last.last.beat(comer.id))
        self.at_s = second + 1
        beats = self.beats
        for who, bpm in beats.items():
            self.signals.setdefault(who, GateSignal()).second(bpm)
            self.calls.hear(who, bpm)
        return {who: bpm for who, bpm in beats.items() if self._strap_of(who) not in worn}
