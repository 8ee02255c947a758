"""The floor: classes that are on, their straps, and everyone who watches them."""

import asyncio
import contextlib
import json

import structlog

from lovrit.core.crew.person import Comer
from lovrit.core.run.demands import Demands
from lovrit.core.run.event import AFTERWARDS, Event
from lovrit.core.run.state import Class, advance, fold, happen
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.store import classes
from lovrit.straps.simulated import SimulatedStrap
from lovrit.web.house import House
from lovrit.web.pages import render
from lovrit.web.run.view import hearts_view, state_object

log = structlog.get_logger()


class Live:
    """A class as it is held in memory: always the same as its events folded."""

    def __init__(self, house: House, class_id: int):
        self.id = class_id
        with house.database.work() as work:
            row = classes.get(work, class_id)
            self.title, self.session_id = row.title, row.session_id
            self.comers: tuple[Comer, ...] = classes.comers(row)
            self.plan: Plan = plan_text(row.text, house.library)
            happened = classes.events(work, class_id)
        self.lengths = [one.seconds for one in self.plan.timeline.intervals]
        self.state: Class = fold(self.lengths, happened)
        self.demands = Demands(self.plan.session, self.plan.timeline)
        self.straps = {one.id: SimulatedStrap(one, class_id) for one in self.comers if not one.effort_only}
        self.beats: dict[int, int] = {}
        self.at_s = 0

    @property
    def groups(self) -> int:
        """How many groups there are."""
        return max((one.group for one in self.comers), default=0) + 1

    def catch_up(self, now_ms: int) -> list[tuple[int, dict[int, int]]]:
        """Every whole second up to now that the straps have not yet told, with what they tell of it.

        After a restart the simulated hearts have lived on meanwhile.
        """
        first = max((self.state.started_ms or now_ms) // 1000, self.at_s)
        return [(second * 1000, self._second(second)) for second in range(first, now_ms // 1000 + 1)]

    def _second(self, second: int) -> dict[int, int]:
        for who, strap in self.straps.items():
            self.beats[who] = strap.second(self.demands.at(self.state, second * 1000, who))
        self.at_s = second + 1
        return dict(self.beats)

    def tick(self, now_ms: int) -> tuple[list[tuple[int, dict[int, int]]], bool]:
        """Time goes on: the seconds since the last tick, and whether the class went over of itself."""
        before = self.state.phase
        self.state = advance(self.state, now_ms)
        told = self.catch_up(now_ms)
        return told, before == "on" and self.state.phase == "over"


class Floor:
    """All classes that are on. Events come in by ``happen``; what follows goes out on the hub."""

    def __init__(self, house: House):
        self.house = house
        self.lives: dict[int, Live] = {}
        self._ticking: asyncio.Task[None] | None = None
        self.samples = 0

    def open(self) -> None:
        """Begin to tick; classes that were on when the server went down go on where they are by now."""
        with self.house.database.work() as work:
            ids = [row.id for row in classes.open_classes(work) if row.id is not None]
        for class_id in ids:
            self.live(class_id)
        self._ticking = asyncio.create_task(self._tick_for_ever())

    async def close(self) -> None:
        """Stop ticking."""
        if self._ticking:
            self._ticking.cancel()
            with contextlib.suppress(asyncio.CancelledError):
                await self._ticking

    def live(self, class_id: int) -> Live:
        """A class, loaded and folded if it is not in memory; at most the ones still on are kept."""
        found = self.lives.get(class_id)
        if found is None:
            found = Live(self.house, class_id)
            if found.state.phase != "over":
                self.lives[class_id] = found
                self._settle(found)
        return found

    def _settle(self, live: Live) -> None:
        """A class that came to its end while nobody looked is over."""
        live.state = advance(live.state, self.house.now_ms())
        if live.state.phase == "over":
            self._close(live)

    def happen(self, class_id: int, event: Event) -> Live:
        """Take an event; one that came before changes nothing."""
        live = self.live(class_id)
        now_ms = self.house.now_ms()
        at_ms = min(event.at_ms or now_ms, now_ms)
        event = event.model_copy(update={"at_ms": max(at_ms, live.state.since_ms)})
        if live.state.phase == "over" and event.kind not in AFTERWARDS:
            return live
        with self.house.database.work() as work:
            if not classes.add_event(work, class_id, event):
                return live
        live.state = advance(happen(live.state, event), now_ms)
        log.info("class event", class_id=class_id, kind=event.kind)
        if live.state.phase == "over" and class_id in self.lives:
            self._close(live)
        self.tell(live)
        return live

    def tell(self, live: Live) -> None:
        """Send a class's state to every screen; the wall's has nothing of anybody's health."""
        now_ms = self.house.now_ms()
        for screen in ("coach", "wall"):
            data = json.dumps(state_object(live.state, now_ms, screen))
            self.house.hub.say(f"{screen}-{live.id}", "state", data)

    def _close(self, live: Live) -> None:
        with self.house.database.work() as work:
            row = classes.get(work, live.id)
            row.over_ms = live.state.over_ms
            work.add(row)
        self.lives.pop(live.id, None)

    async def _tick_for_ever(self) -> None:
        while True:
            now = self.house.now_ms()
            await asyncio.sleep((1000 - now % 1000) / 1000)
            try:
                self.tick(self.house.now_ms())
            except Exception:
                log.exception("a tick failed")

    def tick(self, now_ms: int) -> None:
        """One second of every class that is on."""
        for live in list(self.lives.values()):
            if live.state.phase == "ready":
                continue
            told, went_over = live.tick(now_ms)
            if self.house.settings.straps:
                self._keep(live, told)
            if went_over:
                self._close(live)
                self.tell(live)
            self._show(live)

    def _keep(self, live: Live, told: list[tuple[int, dict[int, int]]]) -> None:
        with self.house.database.work() as work:
            for at_ms, beats in told:
                classes.add_samples(work, live.id, at_ms, beats)
                self.samples += len(beats)

    def _show(self, live: Live) -> None:
        channel = f"coach-{live.id}"
        if self.house.hub.heard(channel):
            self.house.hub.say(channel, "hearts", self.hearts(live))

    def hearts(self, live: Live) -> str:
        """The threads as they stand, drawn."""
        return render(self.house, "run/hearts.svg", hearts=hearts_view(live.plan, live.state, live.comers, live.beats))
