"""The floor: classes that are on, their straps, and everyone who watches them.

Presses are taken in threads, so that a disk that is slow or held by something else stops no clock.
"""

import asyncio
import contextlib
import itertools
import json
from collections import OrderedDict
from collections.abc import Callable, Iterator
from functools import partial
from threading import RLock
from typing import NamedTuple

import structlog
from anyio import CapacityLimiter

from lovrit.core.blocks.score import Impossible
from lovrit.core.crew.person import Comer, coming
from lovrit.core.run.event import Event
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.frozen import UnreadableClass
from lovrit.core.run.late import slot_ends
from lovrit.core.values import LovritError
from lovrit.house.guests import Guesses
from lovrit.house.hearts import Hearts
from lovrit.house.house import House
from lovrit.house.learnt import HeartsAfter, is_known, learn_newest
from lovrit.house.live import Live
from lovrit.house.telling import MANY, SOON, state_object
from lovrit.house.traced import traces_of
from lovrit.store import classes, people
from lovrit.store.trouble import Trouble

log = structlog.get_logger()
SCREENS = ("coach", "wall")
STANDS_MS = 1000
SUSPECTS_S = (
    180  # so often it is looked at whose straps seem changed: 0.4 s of work for eighteen people
)
REACH_MS = 120_000  # a screen is always told of at least two minutes that come
AT_LEISURE = 8  # screens that are told of all that comes, each second
ON_THE_SHELF = 8  # classes that are over and were looked at last


class Seen(NamedTuple):
    """A screen of a class that is looked at: a shared one, or somebody's own."""

    class_id: int
    screen: str
    mine: Comer | None = None

    @property
    def channel(self) -> str:
        """Where it hears."""
        return f"{self.screen}-{self.class_id}" + (f"-{self.mine.id}" if self.mine else "")


class StillOn(LovritError):
    """Something that can't be done to a class while it is on."""


class Happened(NamedTuple):
    """A class after an event, and why the event changed nothing where it did not."""

    live: Live
    refused: str | None


class Floor:
    """All classes that are on. Events come in by ``happen``; what follows goes out on the hub."""

    def __init__(self, house: House, drawn: Callable[[Hearts], str]) -> None:
        """``drawn`` is how hearts are shown: a picture that the screens put where it stands."""
        self.house, self._drawn = house, drawn
        self.lives: dict[int, Live] = {}
        self.aside: dict[int, str] = {}
        self.samples = 0
        self.presses = CapacityLimiter(8)
        self.codes = Guesses()
        self._shelf: OrderedDict[int, Live] = OrderedDict()
        self._lock = RLock()
        self._tasks: list[asyncio.Task[None]] = []
        self._beside: set[asyncio.Future[None]] = set()
        self._trouble = ""
        self._behind: dict[str, Seen] = {}
        self._reaches: dict[str, int | None] = {}
        self.cleaned = HeartsAfter()
        self._to_learn = False
        self._stood: dict[tuple[int, str, int], tuple[int, str]] = {}
        house.erased.append(self.forget)

    def forget(self) -> None:
        """Classes that are over are read again: somebody in them was erased."""
        with self._lock:
            self._shelf.clear()
            self.cleaned = HeartsAfter()

    def open(self) -> None:
        """Begin to tick; classes that were on when the server went down go on where they are by now.

        A class that can't be read is set aside and said; the others run.
        """
        with self.house.database.work() as work:
            ids = classes.open_ids(work)
        for class_id in ids:
            with contextlib.suppress(UnreadableClass):
                self.live(class_id)
        self._tasks = [
            asyncio.create_task(self._tick_for_ever()),
            asyncio.create_task(self._write_for_ever()),
            asyncio.create_task(self._learn_for_ever()),
        ]

    async def close(self) -> None:
        """Stop ticking."""
        for task in self._tasks:
            task.cancel()
            with contextlib.suppress(asyncio.CancelledError):
                await task
        # a file that is let go while a thread reads it would take the process along
        await asyncio.gather(*self._beside, return_exceptions=True)
        self.write_all()

    async def _aside(self, what: Callable[..., None], *given: object) -> None:
        """Work in a thread of its own, which closing waits for though nobody else does any more."""
        running = asyncio.get_running_loop().run_in_executor(None, partial(what, *given))
        self._beside.add(running)
        running.add_done_callback(self._beside.discard)
        await asyncio.shield(running)

    def live(self, class_id: int) -> Live:
        """A class, loaded and folded if it is not in memory.

        Raises:
            Gone: if there is none of this number.
            Unreadable: if it was kept in a way that isn't read here.
        """
        with self._lock:
            found = self.lives.get(class_id) or self._shelf.get(class_id)
            if found is None:
                found = self._load(class_id)
                self._put(found)
            return found

    def _load(self, class_id: int) -> Live:
        try:
            house = self.house
            return Live(
                house.database,
                class_id,
                house.now_ms(),
                self._names,
                house.outside,
                house.settings.simulated,
            )
        except UnreadableClass as error:
            if class_id not in self.aside:
                log.warning("class set aside", class_id=class_id, why=str(error))
            self.aside[class_id] = str(error)
            raise UnreadableClass(f"This class is set aside. {error}") from None

    def _names(self) -> bool:
        return self.house.schools.wall == "names"

    def _put(self, live: Live) -> None:
        """Among those that are on while there is something to write or to wait for, else on the shelf."""
        with self._lock:
            if live.state.phase != "over" or not live.closed or live.unwritten:
                self._shelf.pop(live.id, None)
                self.lives[live.id] = live
                return
            self.lives.pop(live.id, None)
            self._shelf[live.id] = live
            self._shelf.move_to_end(live.id)
            while len(self._shelf) > ON_THE_SHELF:
                self._shelf.popitem(last=False)

    def _by_the_slot(self, class_id: int) -> None:
        """A slot that ends at a time of day ends then, however late the class begins in it."""
        live = self.live(class_id)
        slot, now_ms = live.plan.session.slot, self.house.now_ms()
        ends = slot_ends(slot, self.house.when(now_ms)) if slot else None
        if ends is None or live.going.due_s is not None or live.going.phase != "ready":
            return
        due_ms = round(ends.timestamp() * 1000)
        name = f"slot-{class_id}-{now_ms}"
        self.happen(class_id, Event(id=name, kind="due", at_ms=now_ms, due_ms=due_ms))

    def happen(self, class_id: int, event: Event) -> Happened:
        """Take an event at its own moment; one that came before changes nothing.

        Returns once it is on the disk. One that can't count is not kept, and why is told.
        """
        if event.kind == "start":
            self.follow(class_id)
            self._by_the_slot(class_id)
        live = self.live(class_id)
        with live.lock:
            now_ms = self.house.now_ms()
            if event.id in live.fold.seen:
                return Happened(live, None)
            try:
                event = live.read(live.moment(event, now_ms))
            except Impossible as error:
                return Happened(live, str(error))
            comes = self._comes(live, event)
            after, refused = live.try_out(event, comes)
            if refused:
                return Happened(live, refused)
            with self.house.database.writing() as work:
                classes.add_event(work, class_id, event)
                if comes:
                    classes.add_comer(work, class_id, comes)
                over_s = after.at(live.seconds(now_ms)).over_s
                over_ms = None if over_s is None else live.ms(over_s)
                if live.closed or over_ms is not None:
                    classes.set_over(work, class_id, over_ms)
            if comes:
                live.admit(comes)
            live.stand(after, now_ms)
            was_closed, live.closed = live.closed, live.state.phase == "over"
            self._to_learn = self._to_learn or (live.closed and not was_closed)
            self._put(live)
            self.tell(live, shifts=KNOWN[event.kind].shifts)
        log.info("class event", class_id=class_id, kind=event.kind)
        return Happened(live, None)

    def follow(self, class_id: int) -> None:
        """A class that has not begun takes over who comes, as Crew and People have it by now; a try's people stay."""
        live = self.live(class_id)
        with live.lock:
            if live.state.phase != "ready" or live.is_try or live.session_id is None:
                return
            with self.house.database.writing() as work:
                now = [coming(one, at) for one, at in people.comers(work, live.session_id)]
                late = [one for one in live.comers if str(one.id) in live.going.joined]
                wanted = (*now, *(one for one in late if one.id not in {two.id for two in now}))
                if wanted == live.came:
                    return
                classes.set_comers(work, class_id, wanted)
            self.lives.pop(class_id, None)
        fresh = self.live(class_id)
        self.tell(fresh)

    def put_away(self, class_id: int, away: bool) -> None:
        """A class that was none is put away, also one that never began; or it comes back."""
        now_ms = self.house.now_ms()
        live = self.live(class_id)
        with live.lock, self.house.database.writing() as work:
            if away and live.state.phase in ("on", "held"):
                raise StillOn("A class that is on is ended before it is put away.")
            classes.put_away(work, class_id, now_ms if away else None)
        self.lives.pop(class_id, None)
        self._shelf.pop(class_id, None)

    def _comes(self, live: Live, event: Event) -> Comer | None:
        """Who comes late, with the group that they go into; None where nobody does, or who does is here already."""
        if event.kind != "joins" or event.person in {one.id for one in live.comers}:
            return None
        with self.house.database.work() as work:
            found = [one for one in people.everyone(work) if one.id == event.person]
        group = ord(event.group or "A") - ord("A")
        return coming(found[0], group) if found else None

    def tell(self, live: Live, shifts: bool = True) -> None:
        """Send a class's state to every screen; the wall's has nothing of anybody's health.

        What comes later follows at leisure, unless nothing of it has changed.
        """
        now_ms = self.house.now_ms()
        for seen in self._watched(live):
            self._say_state(live, seen, now_ms, SOON)
            if shifts:
                self._behind[seen.channel] = seen

    def _watched(self, live: Live) -> Iterator[Seen]:
        """The screens of a class that somebody looks at: the shared ones first, then people's own pages."""
        every = [Seen(live.id, screen) for screen in SCREENS]
        every += [Seen(live.id, "hand", one) for one in live.comers]
        return (one for one in every if self.house.hub.heard(one.channel))

    def _say_state(self, live: Live, seen: Seen, now_ms: int, most: int) -> None:
        state = state_object(live.told(now_ms), now_ms, seen.screen, most, seen.mine)
        ahead = [] if state["whole"] else state["moments"]
        self._reaches[seen.channel] = ahead[-1]["at"] if ahead else None
        self.house.hub.say(seen.channel, "state", json.dumps(state))

    def stands(self, live: Live, screen: str, mine: Comer | None = None) -> str:
        """How a class stands for who comes to a screen; worked out once for all who come within a second."""
        now_ms = self.house.now_ms()
        key = (live.id, screen if mine is None else str(mine.id), len(live.fold.seen))
        kept = self._stood.get(key)
        if kept is None or now_ms - kept[0] > STANDS_MS:
            state = json.dumps(state_object(live.told(now_ms), now_ms, screen, MANY, mine))
            self._stood = {
                one: (at, said)
                for one, (at, said) in self._stood.items()
                if now_ms - at < STANDS_MS
            }
            self._stood[key] = kept = (now_ms, state)
        return kept[1]

    def tell_on(self) -> None:
        """What comes later than the next moments, for screens that will have to go on by themselves.

        Some of them each time, the shared ones first: everything at once would hold up a press.
        """
        now_ms = self.house.now_ms()
        for live in list(self.lives.values()):
            for seen in self._watched(live) if live.state.phase == "on" else ():
                until = self._reaches.get(seen.channel, 0)
                if until is not None and until - now_ms < REACH_MS:
                    self._behind[seen.channel] = seen
        for channel in list(self._behind)[:AT_LEISURE]:
            behind = self._behind.pop(channel, None)
            live_now = self.lives.get(behind.class_id) if behind else None
            if behind and live_now is not None:
                self._say_state(live_now, behind, now_ms, MANY)

    async def _tick_for_ever(self) -> None:
        while True:
            now = self.house.now_ms()
            await asyncio.sleep((1000 - now % 1000) / 1000)
            await self._aside(self._tick_all, self.house.now_ms())

    async def _write_for_ever(self) -> None:
        while True:
            await asyncio.sleep(1)
            await self._aside(self.write_all)
            await self._aside(self.tell_on)

    async def _learn_for_ever(self) -> None:
        """Apart from the writing, which must not wait some seconds for it."""
        for second in itertools.count():
            await asyncio.sleep(1)
            await self._aside(self.learn)
            if second % SUSPECTS_S == 0:
                await self._aside(self.suspect)

    def tick(self, now_ms: int) -> None:
        """One second of every class that is on, and its straps written down."""
        self._tick_all(now_ms)
        self.write_all()

    def _tick_all(self, now_ms: int) -> None:
        for live in list(self.lives.values()):
            try:
                self._tick(live, now_ms)
            except Exception:  # one class that fails starves no other
                log.exception("a tick failed", class_id=live.id)

    def _tick(self, live: Live, now_ms: int) -> None:
        if live.state.phase == "ready" or not live.lock.acquire(timeout=0.05):
            return
        try:
            went_over = live.state.phase != "over" and live.tick(now_ms)
            at_gates = list(live.at_gates(now_ms))
        finally:
            live.lock.release()
        for event in at_gates:
            self.happen(live.id, event)
        if went_over:
            self.tell(live)
        self._show(live)

    def teach(self) -> None:
        """What classes say of hearts has changed: it is learnt from anew, beside all else."""
        self._to_learn = True

    def busy(self) -> bool:
        """Whether a class is on."""
        return any(live.state.phase in ("on", "held") for live in list(self.lives.values()))

    def learn(self) -> None:
        """Learn what is to be learnt of hearts; not while a class is on, whose clocks come first."""
        if not self._to_learn or self.busy():
            return
        self._to_learn = False
        try:
            learn_newest(self.house.database, self.cleaned, self.live, self.house.now_ms())
        except Trouble as trouble:
            self._say_once(str(trouble))

    def suspect(self) -> None:
        """Whose straps seem changed in classes that are on, by what each heart did before: asked while it helps."""
        for live in list(self.lives.values()):
            try:
                self._suspect(live)
            except Trouble as trouble:
                self._say_once(str(trouble))
            except Exception:
                log.exception("straps could not be compared", class_id=live.id)

    def _suspect(self, live: Live) -> None:
        going = live.going
        if going.phase != "on" or sum(map(is_known, live.comers)) < 2:
            return
        with self.house.database.work() as work:
            traces = traces_of(work, live)
        said = {int(who) for who in (*going.worn, *going.changed)}
        pairs = self.cleaned.changed(live, traces)
        live.calls.suspect(pair for pair in pairs if not said & set(pair))

    def write_all(self) -> None:
        """Write down what straps told, and classes that went over; what can't be written now is tried again."""
        for live in list(self.lives.values()):
            try:
                self._write(live)
            except Trouble as trouble:
                self._say_once(str(trouble))
            except Exception:
                log.exception("a class could not be written", class_id=live.id)
            else:
                self._trouble = ""

    def _write(self, live: Live) -> None:
        told = live.unwritten[:]
        over = live.state.phase == "over" and not live.closed
        if told or over:
            with self.house.database.writing() as work:
                if self.house.settings.straps:
                    classes.add_samples(work, live.id, told)
                if over:
                    classes.set_over(work, live.id, live.state.over_ms)
        with live.lock:
            # what came while it was written down may be of the same moment, or of one before
            written = set(map(id, told))
            live.unwritten = [one for one in live.unwritten if id(one) not in written]
            if live.closed or over:
                self._to_learn = True
            live.closed = live.closed or over
        self.samples += sum(len(one.beats) for one in told)
        self._put(live)

    def _say_once(self, said: str) -> None:
        """The same trouble every second is one line in the log."""
        if said != self._trouble:
            log.error(said)
        self._trouble = said

    def _show(self, live: Live) -> None:
        channel = f"coach-{live.id}"
        if not self.house.hub.heard(channel):
            return
        self.house.hub.say(channel, "hearts", self.hearts(live))
        walls = self.house.hub.heard(f"wall-{live.id}")
        if (
            walls != live.walls
        ):  # a wall that fell asleep or lost its network is missed by nobody else
            live.walls = walls
            self.house.hub.say(channel, "walls", str(walls))

    def hearts(self, live: Live) -> str:
        """The threads as they stand, drawn."""
        return self._drawn(live.hearts())
