"""A block's steps before they have a place on the clock, and with what a block is unrolled."""

from dataclasses import dataclass
from typing import Literal, NamedTuple, Protocol

from lovrit.core.blocks.parts import Count
from lovrit.core.moves.library import Library

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


class Stage(Protocol):
    """A step, or the interval that it has become: what a drawing of it needs."""

    @property
    def phase(self) -> Phase:
        """What happens."""

    @property
    def seconds(self) -> int:
        """For how long."""

    @property
    def move(self) -> int | None:
        """On which line of the block."""

    @property
    def side(self) -> str | None:
        """On which side."""

    @property
    def beat(self) -> int | None:
        """To which beat."""


class Laying:
    """What a block is unrolled with: the library, and whether low, likely or high figures are taken."""

    def __init__(self, library: Library, case: Case = "likely") -> None:
        self.library, self.case = library, case

    def times(self, count: Count) -> int:
        """How often: a range is planned at its most."""
        return count.low if self.case == "low" else count.high


@dataclass(frozen=True, slots=True)
class Forecast:
    """What a block is likely to come to: rounds, or seconds; each low, likely, high."""

    rounds: tuple[float, float, float] | None = None
    time_s: tuple[int, int, int] | None = None
