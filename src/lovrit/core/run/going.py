"""A class that is going: lanes walked on by time and by what happens. Events in, state out; any prefix gives the same.

Class time stands still while the class is held, so that a hold touches no lane. What ends a step is worked out as the
earliest of its clock, a heart, a cap, from what is known up to now; taps and presses end it at their own moment.
"""

from dataclasses import dataclass, field, replace
from math import ceil, inf
from typing import Any, Literal, NamedTuple

from lovrit.core.blocks.floor import Floor, Tap
from lovrit.core.run.classplan import ClassPlan, LaneOf, Runner, lanes_of
from lovrit.core.run.lane import WAITING, Lane, LaneLap, ends_of

BACK_GRACE_S = 3.0  # within the first seconds of a step, back goes to the one before
APART_S = 2.0  # two presses on next within this are one meant twice
LITTLE_S = 1e-9
MAPS = ("people", "away", "joined", "felt", "beats", "rounds", "moves", "worn", "changed")
COUNT_IN, COUNT_IN_S = "count-in", 5.0

Phase = Literal["ready", "on", "held", "over"]


@dataclass(frozen=True)
class Happening:
    """Something that happened, at so many seconds since the class was opened."""

    id: str
    kind: str
    at_s: float
    fields: dict[str, Any] = field(default_factory=dict)


class Span(NamedTuple):
    """From when to when something was so; ``to_s`` is None while it is; ``why`` as it was said."""

    from_s: float
    to_s: float | None = None
    why: str = ""

    def within(self, from_s: float, to_s: float) -> float:
        """How many of the seconds between two moments it takes."""
        end = to_s if self.to_s is None else min(self.to_s, to_s)
        return max(0.0, end - max(self.from_s, from_s))


@dataclass(frozen=True)
class EndedAt:
    """Where a class was as its coach ended it, so that an end which was not meant is taken back."""

    phase: Phase
    at: int
    lanes: tuple[Lane, ...]


@dataclass
class Going:
    """The state of a class. ``now_s`` is seconds since it was opened, ``ct`` seconds of class time.

    ``worn`` is whose strap somebody wears where not their own, ``changed`` whose trace is theirs by what was said
    later; ``shown`` what walls show instead of the class.
    ``away`` is when somebody stopped and came back; ``letters`` are the groups in the order of their stations, those
    too whom everybody has left, so that nobody else is sent to another station for it; ``holds`` when it was held,
    ``absent`` who came by the list and was not there.
    """

    plan: ClassPlan
    people: dict[str, Runner]
    phase: Phase = "ready"
    now_s: float = 0.0
    ct: float = 0.0
    at: int = -1
    block_ct: float = 0.0
    block_s: float = 0.0
    begins_ct: float = 0.0
    started_s: float | None = None
    over_s: float | None = None
    due_s: float | None = None
    lanes: list[Lane] = field(default_factory=list)
    laps: list[LaneLap] = field(default_factory=list)
    away: dict[str, tuple[Span, ...]] = field(default_factory=dict)
    letters: tuple[str, ...] = ()
    holds: tuple[Span, ...] = ()
    absent: tuple[str, ...] = ()
    joined: dict[str, float] = field(default_factory=dict)
    felt: dict[str, float] = field(default_factory=dict)
    beats: dict[str, int] = field(default_factory=dict)
    rounds: dict[tuple[int, str], int] = field(default_factory=dict)
    scores: list[dict[str, Any]] = field(default_factory=list)
    marks: list[dict[str, Any]] = field(default_factory=list)
    moves: dict[str, str] = field(default_factory=dict)
    note: str = ""
    worn: dict[str, str] = field(default_factory=dict)
    changed: dict[str, str] = field(default_factory=dict)
    broke: list[dict[str, Any]] = field(default_factory=list)
    shown: tuple[str, str] = ("class", "")
    last_next: tuple[float, str] = (-inf, "")
    ended: "EndedAt | None" = None

    def copy(self) -> "Going":
        """A state of its own, for what is tried or taken back."""
        made = Going(self.plan, dict(self.people))
        made.__dict__.update(self.__dict__)
        for name in MAPS:
            setattr(made, name, dict(getattr(self, name)))
        made.lanes = [lane.copy() for lane in self.lanes]
        made.laps, made.scores, made.marks = list(self.laps), list(self.scores), list(self.marks)
        made.broke = list(self.broke)
        return made

    @property
    def stopped(self) -> dict[str, float]:
        """Who does not take part as things stand, and since when."""
        return {who: some[-1].from_s for who, some in self.away.items() if some[-1].to_s is None}

    @property
    def ever_stopped(self) -> dict[str, float]:
        """Who has stopped, whether they came back or not, and when first."""
        return {who: some[0].from_s for who, some in self.away.items()}

    @property
    def taking_part(self) -> list[Runner]:
        """Those who are here and have not stopped, each in the group that they are in by now."""
        stopped = self.stopped
        return [one for one in self.people.values() if one.id not in stopped]

    @property
    def groups(self) -> list[str]:
        """The groups that somebody is in who takes part, in the order of their stations."""
        here = {one.group for one in self.taking_part}
        return [name for name in self.letters if name in here]

    def went_s(self, from_s: float, to_s: float) -> float:
        """Seconds that the class went on between two moments: what was held does not count for anybody."""
        return to_s - from_s - sum(span.within(from_s, to_s) for span in self.holds)

    # time

    @property
    def floor(self) -> Floor:
        """The block that is on, on the floor."""
        return self.plan.blocks[self.at].floor

    def advance(self, to_s: float) -> None:
        """Time goes on to a moment with nothing else happening."""
        if self.phase != "on":
            self.now_s = max(self.now_s, to_s)
            return
        self._count_in(to_s)
        while self.phase == "on":
            lane, ends_ct, by = self._next_end()
            if lane is None or ends_ct > self.ct + (to_s - self.now_s) + LITTLE_S:
                break
            self._tick(max(0.0, ends_ct - self.ct))
            self.finish(lane, by)
        if self.phase == "on":
            self._tick(max(0.0, to_s - self.now_s))
        self.now_s = max(self.now_s, to_s)

    @property
    def counting(self) -> bool:
        """Whether the seconds before the first block are being counted down."""
        return self.phase in ("on", "held") and self.at < 0

    def _count_in(self, to_s: float) -> None:
        if not self.counting:
            return
        waits_s = max(0.0, self.begins_ct - self.ct)
        if waits_s <= to_s - self.now_s + LITTLE_S:
            self._tick(waits_s)
            self.begin(0)

    def _tick(self, seconds: float) -> None:
        self.now_s = round(self.now_s + seconds, 6)
        self.ct = round(self.ct + seconds, 6)

    @property
    def next_end_ct(self) -> float:
        """When the next step of a lane ends as things stand, in class time; infinite where only a tap would end one."""
        return self._next_end()[1]

    def _next_end(self) -> tuple[Lane | None, float, str]:
        best: tuple[Lane | None, float, str] = (None, inf, "")
        for lane in self.lanes:
            if lane.done:
                continue
            found = ends_of(lane, self.floor, self.block_ct, self._met(lane), self.ct)
            if found and found[0] < best[1]:
                best = (lane, *found)
        return best

    def _met(self, lane: Lane) -> bool:
        """Whether the hearts of a lane are where its gate wants them: of those who have told one, lost ones too."""
        step = lane.step
        if step is None or step.gate is None:
            return False
        told = [
            self.beats[one] for one in lane.people if one in self.beats and one not in self.stopped
        ]
        there = sum(step.gate.there(bpm) for bpm in told)
        return there >= max(1, ceil(step.gate.share * len(told)))

    # lanes and blocks

    def begin(self, at: int) -> None:
        """The block of this number begins for all; behind the last one the class is over."""
        while at < len(self.plan.blocks) and not self.plan.blocks[at].floor.steps:
            at += 1
        if at >= len(self.plan.blocks):
            self.at, self.lanes, self.phase = len(self.plan.blocks) - 1, [], "over"
            self.over_s = self.now_s
            return
        if self.started_s is None:
            self.started_s = self.now_s
        self.at, self.block_ct, self.block_s = at, self.ct, self.now_s
        self.lanes = [self._lane(one) for one in lanes_of(self.floor, self._there())]
        stopped = self.stopped
        for lane in list(self.lanes):
            if lane.people and all(one in stopped for one in lane.people):
                lane.done, lane.ended_by = True, "coach"
        self._go_on_if_done()

    def _there(self) -> list[Runner]:
        return list(self.people.values())

    def _lane(self, of: LaneOf) -> Lane:
        return Lane(
            of.name, list(of.people), self.floor.steps, self.ct, self.now_s, waits_s=of.offset_s
        )

    def finish(self, lane: Lane, by: str) -> None:
        """The step of a lane ends now; the lane goes on to its next, or is done."""
        self._lap(lane, by)
        if by == "cap" or (by == "clock" and self._capped()):
            lane.done = True
        elif lane.waits_s:
            lane.waits_s = 0
        else:
            self._step_on(lane)
        lane.began_ct, lane.lap_from_s = self.ct, self.now_s
        lane.ended_by = by
        self._go_on_if_done()

    def _capped(self) -> bool:
        cap = self.floor.cap_s
        return cap is not None and self.ct >= self.block_ct + cap - LITTLE_S

    def _step_on(self, lane: Lane) -> None:
        step, spent = lane.steps[lane.at], self.ct - lane.began_ct
        lane.turns += 1
        if self.floor.endless:
            lane.at = (lane.at + 1) % len(lane.steps)
        elif lane.at + 1 < len(lane.steps):
            lane.at += 1
        else:
            lane.done = True
        after = lane.steps[lane.at]
        lane.clock_s = spent * after.share if after.share and step.phase == "work" else None

    def _lap(self, lane: Lane, by: str) -> None:
        if self.now_s - lane.lap_from_s <= LITTLE_S:
            return
        step = lane.step
        self.laps.append(
            LaneLap(
                self.at,
                lane.name,
                step.phase if step else WAITING,
                lane.lap_from_s,
                self.now_s,
                by,
                step.round if step else None,
                step.turn if step else None,
                lane.at,
            )
        )
        lane.lap_from_s = self.now_s

    def _go_on_if_done(self) -> None:
        if self.phase in ("on", "held") and self.lanes and all(lane.done for lane in self.lanes):
            self.begin(self.at + 1)

    def close(self) -> None:
        """All lanes end here, because the coach says so."""
        for lane in self.lanes:
            if not lane.done:
                self._lap(lane, "coach")
                lane.done, lane.ended_by = True, "coach"

    def close_laps(self) -> None:
        """What each lane is in ends as a lap here, for a state that will not go on."""
        for lane in self.lanes:
            if not lane.done:
                self._lap(lane, "coach")

    @property
    def place(self) -> str:
        """Where the class is, as a press says it: its block, and the step where one clock leads all."""
        if self.counting:
            return COUNT_IN
        if self.phase not in ("on", "held") or not self.lanes:
            return self.phase
        lane = next(iter(self.active), self.lanes[0])
        shared = self.floor.lanes == "all" and not self.floor.endless
        return f"{self.at}.{lane.at}" if shared else str(self.at)

    def lane_named(self, name: str) -> list[Lane]:
        """The lanes that a name means: itself and those inside it that are as far, or the one that somebody is in."""
        if name == "all":
            return list(self.lanes)
        exact = [lane for lane in self.lanes if lane.name == name]
        inside = [lane for lane in self.lanes if lane.people and self._are_in(lane, name)]
        if exact and self.floor.lanes == "groups":
            return [*exact, *(one for one in inside if one not in exact and one.at == exact[0].at)]
        return exact or inside or [lane for lane in self.lanes if name in lane.people]

    def _are_in(self, lane: Lane, group: str) -> bool:
        return all(self.people[one].group == group for one in lane.people if one in self.people)

    def knows(self, name: str) -> bool:
        """Whether a name means somebody here: everybody, a group, a pair or wave, a person."""
        groups = {one.group for one in self.people.values()}
        pair = name[:1] in groups and name[1:].isdecimal()
        return name in {"all", "first", "second", *groups, *self.people} or pair

    def tap(self, name: str, kind: Tap) -> bool:
        """Somebody is in, or done, or changes; whether that changed anything."""
        if kind == "change" and not self.floor.endless:
            return self._hand_over(name)
        hit = [lane for lane in self.lane_named(name) if lane.takes(kind)]
        for lane in hit:
            block, alone = self.at, kind == "in" and name in lane.people and len(lane.people) > 1
            self.finish(self.leaves(lane, name) if alone else lane, "tap")
            if self.at != block:
                break
        return bool(hit)

    def _hand_over(self, name: str) -> bool:
        """The next of a team is on, in work that goes on for the team."""
        hit = [one for one in self.lane_named(name) if self.on_in(one) and one.takes("done")]
        for lane in hit:
            lane.turns += 1
        return bool(hit)

    def on_in(self, lane: Lane) -> str:
        """Whose turn it is in a lane of which one works while the others rest; nobody who has stopped."""
        there = [one for one in lane.people if one not in self.stopped]
        by_turns = self.floor.lanes == "pairs" and len(lane.people) > 1 and not lane.done
        return there[lane.turns % len(there)] if by_turns and there else ""

    def leaves(self, lane: Lane, who: str) -> Lane:
        """Somebody goes on for themselves: a lane of their own, with what they have done with the others so far."""
        lane.people.remove(who)
        own = lane.copy()
        own.name, own.people = who, [who]
        self.lanes.append(own)
        mine = (one for one in self.laps if one.block == self.at and one.lane == lane.name)
        self.laps += [replace(one, lane=who) for one in mine]
        return own

    def stop_lanes(self) -> None:
        """Lanes of which everybody has stopped end at once."""
        for lane in self.lanes:
            gone = lane.people and all(one in self.stopped for one in lane.people)
            if gone and not lane.done:
                self._lap(lane, "coach")
                lane.done, lane.ended_by = True, "stopped"
        self._go_on_if_done()

    def restart(self, lane: Lane, at: int) -> None:
        """A lane goes to the beginning of a step; where it was is kept as a lap that the coach ended."""
        self._lap(lane, "coach")
        lane.at, lane.began_ct, lane.lap_from_s, lane.done, lane.waits_s = (
            at,
            self.ct,
            self.now_s,
            False,
            0,
        )

    @property
    def active(self) -> list[Lane]:
        """The lanes that are not done."""
        return [lane for lane in self.lanes if not lane.done]
