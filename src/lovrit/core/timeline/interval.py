"""The parts of a timeline as values. All times are whole seconds from the session's start."""

from dataclasses import dataclass
from typing import Literal, NamedTuple

Phase = Literal["work", "rest", "break", "change", "lead-in", "steady"]
Case = Literal["low", "likely", "high"]


class Step(NamedTuple):
    """A phase of a block before it has a place on the clock.

    ``round`` and ``turn`` count from 1; ``move`` is the line of the block that the first group is at;
    ``side`` says which side where sides change; ``beat`` is a metronome's beats a minute.
    """

    phase: Phase
    seconds: int
    round: int | None = None
    turn: int | None = None
    move: int | None = None
    effort: float | None = None
    side: str | None = None
    beat: int | None = None


class Interval(NamedTuple):
    """A stretch of the class with one phase. ``block`` counts from 0; the rest is as in Step."""

    start_s: int
    end_s: int
    phase: Phase
    block: int
    round: int | None = None
    turn: int | None = None
    station: str | None = None
    effort: float | None = None
    move: int | None = None
    side: str | None = None
    beat: int | None = None

    @property
    def seconds(self) -> int:
        """How long it lasts."""
        return self.end_s - self.start_s


@dataclass(frozen=True, slots=True)
class Forecast:
    """What a block is likely to come to: rounds, or seconds; each low, likely, high."""

    rounds: tuple[float, float, float] | None = None
    time_s: tuple[int, int, int] | None = None


@dataclass(frozen=True, slots=True)
class LaidBlock:
    """A block on the clock. ``rest_is_forecast`` where nobody wrote the rest and it is what is left over."""

    label: str
    kind: str
    start_s: int
    end_s: int
    work_s: int
    rest_s: int
    low_s: int
    high_s: int
    interval_block: bool = False
    rest_is_forecast: bool = False
    forecast: Forecast | None = None

    @property
    def seconds(self) -> int:
        """How long the plan has it last."""
        return self.end_s - self.start_s


@dataclass(frozen=True, slots=True)
class Timeline:
    """A session on the clock."""

    blocks: tuple[LaidBlock, ...] = ()
    intervals: tuple[Interval, ...] = ()

    @property
    def total_s(self) -> int:
        """What the plan lasts, without setup."""
        return self.intervals[-1].end_s if self.intervals else 0

    @property
    def range_s(self) -> tuple[int, int]:
        """The shortest and the longest that it may last."""
        return sum(b.low_s for b in self.blocks), sum(b.high_s for b in self.blocks)

    def of_phase(self, *phases: Phase) -> int:
        """Seconds of these phases in all."""
        return sum(one.seconds for one in self.intervals if one.phase in phases)

    @property
    def work_s(self) -> int:
        """Seconds of work in all."""
        return self.of_phase("work")

    @property
    def rest_s(self) -> int:
        """Seconds of rest in all; breaks, changes and lead-ins are not rest."""
        return self.of_phase("rest")

    @property
    def work_to_rest(self) -> float | None:
        """Work by rest inside interval blocks; None where a rest is only forecast, or there is none."""
        blocks = [one for one in self.blocks if one.interval_block]
        rest = sum(one.rest_s for one in blocks)
        if not rest or any(one.rest_is_forecast for one in blocks):
            return None
        return round(sum(one.work_s for one in blocks) / rest, 4)
