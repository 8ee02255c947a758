"""The account of a class: what it was on the clock of the day, for hearts and the debrief. Made from what is going."""

from dataclasses import field
from typing import Literal, NamedTuple

from lovrit.core.clock import clock
from lovrit.core.run.classplan import lanes_of
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.going import Going
from lovrit.core.run.lane import LaneLap
from lovrit.core.values import Value


class Lap(Value):
    """A stretch of real time that was spent in one interval: from and to, in ms since 1970."""

    interval: int
    from_ms: int
    to_ms: int


class Mark(NamedTuple):
    """A moment that the coach marked, in ms since 1970, and a word with it."""

    at_ms: int
    text: str = ""


class Tapped(NamedTuple):
    """What was tapped of a lane in a block, in words: rounds, a time, arrivals."""

    block: int
    lane: str
    said: str


class ScoreTold(Value):
    """A score of a block, as it was said; ``person`` where it is one person's."""

    block: int
    text: str
    person: int | None = None


class Class(Value):
    """A class as far as it has come. ``laps`` are those of the lane that each block was longest in.

    ``own_laps`` are by person, where people had lanes of their own.
    """

    phase: Literal["ready", "on", "held", "over"] = "ready"
    interval: int = 0
    now_ms: int = 0
    started_ms: int | None = None
    over_ms: int | None = None
    ended_early: bool = False
    laps: tuple[Lap, ...] = ()
    own_laps: dict[int, tuple[Lap, ...]] = field(default_factory=dict)
    stopped: dict[int, int] = field(default_factory=dict)
    ever_stopped: dict[int, int] = field(default_factory=dict)
    marks: tuple[Mark, ...] = ()
    felt: dict[int, float] = field(default_factory=dict)
    scores: tuple[ScoreTold, ...] = ()
    taps: tuple[Tapped, ...] = ()
    note: str = ""

    def laps_of(self, person: int) -> tuple[Lap, ...]:
        """The laps of one person: their own where they had a lane, else everybody's."""
        return self.own_laps.get(person, self.laps)


def account(going: Going, frozen: Frozen, opened_ms: int) -> Class:
    """What a class is, as told on the clock of the day; opened at so many ms since 1970."""

    def ms(seconds: float) -> int:
        return opened_ms + round(seconds * 1000)

    told = going.copy()
    told.close_laps()
    started = going.started_s
    if going.counting:
        started = going.now_s + going.begins_ct - going.ct
    teller = _Teller(told, frozen, opened_ms)
    return Class(
        phase=going.phase,
        interval=teller.here(),
        now_ms=ms(going.now_s),
        started_ms=None if started is None else ms(started),
        over_ms=None if going.over_s is None else ms(going.over_s),
        ended_early=going.phase == "over" and going.ended is not None,
        laps=teller.longest(),
        own_laps=teller.own(),
        stopped={int(who): ms(at) for who, at in going.stopped.items()},
        ever_stopped={int(who): ms(at) for who, at in going.ever_stopped.items()},
        marks=tuple(Mark(ms(one["at_s"]), one["text"]) for one in going.marks),
        felt={int(who): value for who, value in going.felt.items()},
        scores=tuple(
            ScoreTold(
                block=one["block"],
                text=one["text"],
                person=None if one["person"] is None else int(one["person"]),
            )
            for one in going.scores
        ),
        taps=tapped(going),
        note=going.note,
    )


def tapped(going: Going) -> tuple[Tapped, ...]:
    """Rounds that were counted, times at which people were done, how long each repeat took; by lane."""
    found = [
        Tapped(at, name, f"{count} {_counted(going, at)}{'s' if count != 1 else ''}")
        for (at, name), count in going.rounds.items()
    ]
    begins: dict[int, float] = {}
    arrivals: dict[tuple[int, str], list[str]] = {}
    for lap in going.laps:
        begins[lap.block] = min(lap.from_s, begins.get(lap.block, lap.from_s))
        step = going.plan.blocks[lap.block].floor.steps[lap.step : lap.step + 1]
        if lap.ended_by != "tap" or not step or step[0].tap == "change":
            continue
        if step[0].tap == "done":
            found.append(Tapped(lap.block, lap.lane, clock(round(lap.to_s - begins[lap.block]))))
        else:
            took = clock(round(lap.to_s - lap.from_s))
            arrivals.setdefault((lap.block, lap.lane), []).append(took)
    found += [Tapped(at, name, ", ".join(took)) for (at, name), took in arrivals.items()]
    return tuple(sorted(found))


def _counted(going: Going, at: int) -> str:
    return "set" if going.plan.blocks[at].block.lifts else "round"


class _Teller:
    def __init__(self, going: Going, frozen: Frozen, opened_ms: int) -> None:
        self._going, self._opened_ms = going, opened_ms
        self._interval = {step: nth for nth, step in enumerate(frozen.steps)}
        self._count = len(frozen.steps)

    def here(self) -> int:
        """The interval that the class is in; behind the last once it is over."""
        going = self._going
        if going.phase == "over":
            return self._count
        if going.at < 0:
            return 0
        lane = next(iter(going.active), None)
        return self._interval.get((going.at, lane.at if lane else 0), 0)

    def longest(self) -> tuple[Lap, ...]:
        """The laps of the lane that took longest in each block."""
        leads: dict[int, str] = {}
        latest: dict[int, float] = {}
        for lap in self._going.laps:
            if lap.to_s > latest.get(lap.block, -1.0):
                latest[lap.block], leads[lap.block] = lap.to_s, lap.lane
        return self._told([lap for lap in self._going.laps if lap.lane == leads[lap.block]])

    def own(self) -> dict[int, tuple[Lap, ...]]:
        """The laps of each person, where any block had more lanes than one."""
        lanes: dict[int, set[str]] = {}
        for lap in self._going.laps:
            lanes.setdefault(lap.block, set()).add(lap.lane)
        if all(len(names) == 1 for names in lanes.values()):
            return {}
        return {int(who): self._mine(who, lanes) for who in self._going.people}

    def _mine(self, who: str, lanes: dict[int, set[str]]) -> tuple[Lap, ...]:
        group = self._going.people[who].group
        mine = {block: self._lane_of(block, who, group, names) for block, names in lanes.items()}
        return self._told([lap for lap in self._going.laps if lap.lane == mine[lap.block]])

    def _lane_of(self, block: int, who: str, group: str, names: set[str]) -> str:
        """The lane of a block that somebody was in."""
        if who in names or group in names:
            return who if who in names else group
        held = lanes_of(self._going.plan.blocks[block].floor, list(self._going.people.values()))
        return next((one.name for one in held if who in one.people), min(names))

    def _told(self, laps: list[LaneLap]) -> tuple[Lap, ...]:
        """Laps in their order; one that was cut by nothing but a look is one."""
        made: list[Lap] = []
        for lap in laps:
            nth = self._interval.get((lap.block, lap.step))
            from_ms = self._opened_ms + round(lap.from_s * 1000)
            to_ms = self._opened_ms + round(lap.to_s * 1000)
            if nth is None or to_ms <= from_ms or lap.phase == "waiting":
                continue
            if made and made[-1].interval == nth and made[-1].to_ms == from_ms:
                made[-1] = made[-1].but(to_ms=to_ms)
            else:
                made.append(Lap(interval=nth, from_ms=from_ms, to_ms=to_ms))
        return tuple(made)
