"""The parts of a timeline as values. All times are whole seconds from the session's start."""

from dataclasses import dataclass
from typing import NamedTuple

from lovrit.core.blocks.step import Forecast, Phase


class Interval(NamedTuple):
    """A stretch of the class with one phase. ``block`` counts from 0; the rest is as in Step.

    ``asked`` is the effort that it asks for, also where that is written as a target of the heart.
    """

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
    asked: float | None = None

    @property
    def seconds(self) -> int:
        """How long it lasts."""
        return self.end_s - self.start_s


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

    def of_block(self, at: int) -> list[Interval]:
        """The intervals of a block."""
        return [one for one in self.intervals if one.block == at]

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
