"""The account of a class: what it was on the clock of the day, for hearts and the debrief. Made from what is going."""

from dataclasses import field
from typing import Literal, NamedTuple

from lovrit.core.blocks.floor import Tap
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

    ``own_laps`` are by person, where people had lanes of their own; ``changed`` is whose strap told of somebody where
    two had changed them.
    """

    phase: Literal["ready", "on", "held", "over"] = "ready"
    interval: int = 0
    now_ms: int = 0
    started_ms: int | None = None
    over_ms: int | None = None
    ended_early: bool = False
    laps: tuple[Lap, ...] = ()
    own_laps: dict[int, tuple[Lap, ...]] = field(default_factory=dict)
    away: dict[int, tuple[tuple[int, int | None], ...]] = field(default_factory=dict)
    marks: tuple[Mark, ...] = ()
    felt: dict[int, float] = field(default_factory=dict)
    scores: tuple[ScoreTold, ...] = ()
    taps: tuple[Tapped, ...] = ()
    note: str = ""
    changed: dict[int, int] = field(default_factory=dict)

    @property
    def stopped(self) -> dict[int, int]:
        """Who does not take part as things stand, and since when."""
        return {who: some[-1][0] for who, some in self.away.items() if some[-1][1] is None}

    @property
    def ever_stopped(self) -> dict[int, int]:
        """Who has stopped, whether they came back or not, and when first."""
        return {who: some[0][0] for who, some in self.away.items()}

    def is_out(self, person: int, at_ms: int) -> bool:
        """Whether somebody had stopped by a moment, and had not come back."""
        return any(
            from_ms <= at_ms and (to_ms is None or at_ms < to_ms)
            for from_ms, to_ms in self.away.get(person, ())
        )

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
        away={
            int(who): tuple(
                (ms(one.from_s), None if one.to_s is None else ms(one.to_s)) for one in some
            )
            for who, some in going.away.items()
        },
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
        changed={int(one): int(whose) for one, whose in going.changed.items()},
    )


def tapped(going: Going) -> tuple[Tapped, ...]:
    """Rounds that were counted, times at which people were done, how long each repeat took; by lane."""
    found = [
        Tapped(at, name, f"{count} {_counted(going, at)}{'s' if count != 1 else ''}")
        for (at, name), count in going.rounds.items()
    ]
    found += [Tapped(at, lane, clock(round(took))) for at, lane, took in done_taps(going)]
    found += [
        Tapped(at, lane, ", ".join(clock(round(one)) for one in took))
        for (at, lane), took in repeats_taken(going).items()
    ]
    return tuple(sorted(found))


def done_taps(going: Going) -> list[tuple[int, str, float]]:
    """When lanes tapped that they were done: block, lane, seconds into the block without what was held."""
    begins: dict[int, float] = {}
    for lap in going.laps:
        begins[lap.block] = min(lap.from_s, begins.get(lap.block, lap.from_s))
    return [
        (lap.block, lap.lane, going.went_s(begins[lap.block], lap.to_s))
        for lap in going.laps
        if _tapped_with(going, lap, "done")
    ]


def repeats_taken(going: Going) -> dict[tuple[int, str], list[float]]:
    """How long each repeat took by block and lane, in seconds without what was held."""
    found: dict[tuple[int, str], list[float]] = {}
    for lap in going.laps:
        if _tapped_with(going, lap, "in"):
            took = round(going.went_s(lap.from_s, lap.to_s), 1)
            found.setdefault((lap.block, lap.lane), []).append(took)
    return found


def _tapped_with(going: Going, lap: LaneLap, tap: Tap) -> bool:
    steps = going.plan.blocks[lap.block].floor.steps
    return lap.ended_by == "tap" and lap.step < len(steps) and steps[lap.step].tap == tap


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
            return (
                who if who in names else group
            )  # who has gone on for themselves has laps of their own
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
