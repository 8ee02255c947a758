"""A lane: people who share a clock, walking through the steps of a block."""

from dataclasses import dataclass, field

from lovrit.core.blocks.floor import Floor, FloorStep, Tap

WAITING = "waiting"


@dataclass(frozen=True)
class LaneLap:
    """A stretch that a lane spent in one step: from and to, in seconds since the class was opened."""

    block: int
    lane: str
    phase: str
    from_s: float
    to_s: float
    ended_by: str
    round: int | None = None
    turn: int | None = None
    step: int = 0


@dataclass
class Lane:
    """Where a lane is in its block. Times with ``_ct`` are class time, which stands still while the class is held."""

    name: str
    people: list[str]
    steps: tuple[FloorStep, ...]
    began_ct: float
    lap_from_s: float
    at: int = 0
    waits_s: int = 0
    done: bool = False
    ended_by: str = ""
    extra: dict[int, float] = field(default_factory=dict)
    clock_s: float | None = None  # of the step it is in, where it follows from the work before
    turns: int = 0  # how often those who take turns have changed

    def copy(self) -> "Lane":
        """A lane of its own in the same place."""
        return Lane(
            self.name, list(self.people), self.steps, self.began_ct, self.lap_from_s, self.at, self.waits_s, self.done,
            self.ended_by, dict(self.extra), self.clock_s, self.turns,
        )  # fmt: skip

    @property
    def step(self) -> FloorStep | None:
        """The step that it is in; None before it begins, once it is done, or where there is none."""
        return None if self.done or self.waits_s or not self.steps else self.steps[self.at]

    def takes(self, tap: Tap) -> bool:
        """Whether a tap of this kind ends the step that it is in."""
        return self.step is not None and self.step.tap == tap

    @property
    def length_s(self) -> float | None:
        """Seconds that the clock gives the step it is in; None where no clock ends it."""
        if self.waits_s:
            return float(self.waits_s)
        step = self.step
        own = None if step is None else self.clock_s if step.share else step.clock_s
        return None if own is None else max(0.0, own + self.extra.get(self.at, 0.0))

    def left_s(self, ct: float) -> float | None:
        """Seconds that its clock leaves it; None where no clock ends the step."""
        length = self.length_s
        return None if length is None or self.done else max(0.0, self.began_ct + length - ct)

    def likely_left_s(self, ct: float) -> float:
        """Seconds that it is likely to take to the end of its last step."""
        if self.done or not self.steps:
            return 0.0
        spent = ct - self.began_ct
        here = self.length_s
        step = self.steps[self.at]
        now = max(0.0, (step.planned_s if here is None else here) - spent)
        if self.waits_s:
            return now + sum(one.planned_s for one in self.steps)
        later = range(self.at + 1, len(self.steps))
        return now + sum(self.steps[nth].planned_s + self.extra.get(nth, 0.0) for nth in later)


def gate_open_ct(lane: Lane, met: bool, ct: float) -> float | None:
    """When a heart that is there lets the lane go: now, but not before its least."""
    step = lane.step
    if step is None or step.gate is None or not met:
        return None
    return max(ct, lane.began_ct + step.gate.least_s)


def ends_of(
    lane: Lane, floor: Floor, block_ct: float, met: bool, ct: float
) -> tuple[float, str] | None:
    """When the step of a lane will end as things stand, and by what; None where only a tap would."""
    step = lane.step
    found: list[tuple[float, int, str]] = []
    length = lane.length_s
    if length is not None:
        found.append((lane.began_ct + length, 1, "clock"))
    if step is not None and step.gate is not None:
        found.append((lane.began_ct + step.gate.most_s, 1, "clock"))
        opens = gate_open_ct(lane, met, ct)
        if opens is not None:
            found.append((opens, 0, "heart"))
    if floor.cap_s is not None:
        found.append((block_ct + floor.cap_s, 2, "clock" if floor.cap_is_clock else "cap"))
    if not found:
        return None
    at, _, by = min(found)
    return at, by
