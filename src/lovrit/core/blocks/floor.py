"""What a block is on the floor: who shares a clock, and what ends each step of it."""

from collections.abc import Iterable, Iterator
from typing import Literal, NamedTuple

from lovrit.core.blocks.step import Phase, Step

Lanes = Literal["all", "waves", "groups", "pairs", "persons"]
Tap = Literal["", "in", "done", "change"]


class Gate(NamedTuple):
    """A heart that ends a step, within its clock limits: when it has come down to, or up to, so many beats.

    Of a lane of more than one, ``share`` of the people must be there; one at the least.
    """

    bpm: int
    least_s: int
    most_s: int
    down: bool
    share: float = 1.0

    def there(self, bpm: int) -> bool:
        """Whether a heart is where the gate wants it; 0 is a lost signal, which is never there."""
        return bpm > 0 and (bpm <= self.bpm if self.down else bpm >= self.bpm)


class Inside(NamedTuple):
    """A set, or the rest after it, as usual people do it: when it begins, in seconds into the step that it is in."""

    at_s: int
    phase: Phase
    round: int | None


class FloorStep(NamedTuple):
    """A step of a lane. It ends by its clock, by a tap, by a heart, or by the block's cap, whichever comes first.

    ``clock_s`` is None where no clock ends it; ``likely_s`` is what it is forecast to last then. ``share`` makes its
    clock so many times the work before it. ``inside`` are the sets and rests that usual people do in it.
    """

    phase: Phase
    clock_s: int | None
    round: int | None = None
    turn: int | None = None
    move: int | None = None
    effort: float | None = None
    side: str | None = None
    beat: int | None = None
    tap: Tap = ""
    gate: Gate | None = None
    share: float | None = None
    likely_s: int = 0
    inside: tuple["Inside", ...] = ()

    @property
    def planned_s(self) -> int:
        """What it is planned to last."""
        return self.likely_s if self.clock_s is None else self.clock_s


class Floor(NamedTuple):
    """A block on the floor: its lanes, the steps that each walks through, and what ends all of them.

    ``offsets_s`` is how much later each wave begins; ``endless`` steps begin again until the cap; ``up`` where the big
    clock counts up; ``cap_is_clock`` where the cap is the block's own length rather than a limit.
    """

    lanes: Lanes
    steps: tuple[FloorStep, ...]
    cap_s: int | None = None
    offsets_s: tuple[int, ...] = (0,)
    up: bool = False
    endless: bool = False
    cap_is_clock: bool = False
    team: int = 2


def by_clock(step: Step) -> FloorStep:
    """A step that its clock ends."""
    phase, seconds, nth, turn, move, effort, side, beat = step
    return FloorStep(phase, seconds, nth, turn, move, effort, side, beat)


def merged(steps: Iterable[Step], key: Literal["move", ""]) -> Iterator[FloorStep]:
    """Steps at one station as a single one, all of them with no key: its clock is never cut in two."""
    held: FloorStep | None = None
    for step in map(by_clock, steps):
        same = held and (not key or getattr(held, key) == getattr(step, key))
        length = held.clock_s or 0 if held else 0
        inside = Inside(length, step.phase, step.round)
        if held and same and step.phase not in ("change", "break"):
            held = held._replace(
                clock_s=length + (step.clock_s or 0), inside=(*held.inside, inside)
            )
            continue
        if held:
            yield held
        held = step._replace(inside=(inside._replace(at_s=0),))
    if held:
        yield held
