"""A block with one or two of its knobs turned, and what each such block comes to."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import combinations
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.paired import Paired
from lovrit.core.blocks.parts import Pair, Stretch
from lovrit.core.blocks.step import Laying
from lovrit.core.fit.knobs import Knob, Setting, put_effort
from lovrit.core.moves.library import Library
from lovrit.core.timeline.sums import is_hard

Turned = tuple[tuple[Knob, Setting], ...]


class Change(NamedTuple):
    """Seconds of a block, or what a change adds to them: in all, of work, of rest, and of hard work."""

    total: int = 0
    work: int = 0
    rest: int = 0
    hard: int = 0

    def less(self, other: "Change") -> "Change":
        """What is between the two."""
        return Change(
            self[0] - other[0], self[1] - other[1], self[2] - other[2], self[3] - other[3]
        )

    def plus(self, other: "Change") -> "Change":
        """Both together."""
        return Change(
            self[0] + other[0], self[1] + other[1], self[2] + other[2], self[3] + other[3]
        )


@dataclass(frozen=True)
class Variation:
    """A block with knobs turned: what changes in its sums, and how far it is from before."""

    block: int
    turned: Turned
    change: Change
    cost: float

    def done(self, times: int) -> "Variation":
        """The same in a block that is repeated so many times."""
        return replace(self, change=Change(*(one * times for one in self.change)))


def seconds_of(block: Block, library: Library) -> Change:
    """What a block comes to, by unrolling it."""
    phases: Counter[str] = Counter()
    hard = 0
    for step in block.unroll(Laying(library)):
        phases[step.phase] += step.seconds
        hard += step.seconds if is_hard(step) else 0
    return Change(sum(phases.values()), phases["work"], phases["rest"], hard)


def variations(
    at: int, block: Block, turnable: list[Knob], library: Library
) -> Iterator[Variation]:
    """The block with every one, and with every two, of its knobs turned every way."""
    now = seconds_of(block, library)
    measure = _Linear(block, library) if _linear(block) else _Unrolled(block, library)
    for turned in _ways(turnable):
        change = measure.sums(turned).less(now)
        yield Variation(at, turned, change, sum(turn.cost for _, turn in turned))


def _ways(turnable: list[Knob]) -> Iterator[Turned]:
    for knob in turnable:
        for turn in knob.turns:
            yield ((knob, turn),)
    for one, two in combinations(turnable, 2):
        for first in one.turns:
            for second in two.turns:
                yield (one, first), (two, second)


def _linear(block: Block) -> bool:
    """Whether a block's sums are linear in its times: one work and one rest, both by the clock."""
    return len(block.pairs) == 1 and not block.gated


UNIT = Pair(work=Stretch(seconds=1), rest=Stretch(seconds=1))


class _Unrolled:
    """Sums of a block turned, by making it and unrolling it."""

    def __init__(self, block: Block, library: Library) -> None:
        self.block, self.library = block, library

    def sums(self, turned: Turned) -> Change:
        made = self.block
        for knob, turn in turned:
            made = knob.put(made, turn.value)
        return seconds_of(made, self.library)


class _Linear:
    """Sums of a block of one pair: its phases are counted once for each shape, then times are multiplied."""

    def __init__(self, block: Block, library: Library) -> None:
        assert isinstance(block, Paired) and block.repeats
        self.block, self.library = block, library
        work, rest = block.pairs[0].timed or (0, 0)
        self.times, between = block.repeats.name, block.between
        self.pause = between.name if between else ""
        self.now: dict[str, float] = {
            self.times: block.repeats.times.high,
            "stations": len(block.moves),
            "work": work,
            "rest": rest,
            self.pause: (between.seconds or 0) if between else 0,
            "lead-in": block.lead_in_s,
        }
        self.counted: dict[tuple[float, float, float | None], Counter[str]] = {}

    def sums(self, turned: Turned) -> Change:
        is_ = self.now.copy()
        for knob, turn in turned:
            is_[knob.figure] = turn.value
        count = self._phases(is_[self.times], is_["stations"], is_.get("effort"))
        work, rest = count["work"] * is_["work"], count["rest"] * is_["rest"]
        between = (count["break"] + count["change"]) * is_[self.pause]
        whole = work + rest + between + is_["lead-in"]
        return Change(round(whole), round(work), round(rest), round(count["hard"] * is_["work"]))

    def _phases(self, times: float, stations: float, asked: float | None) -> Counter[str]:
        key = (times, stations, asked)
        if key not in self.counted:
            unit = self._unit(times, round(stations))
            made = unit if asked is None else put_effort(unit, asked)
            unrolled = list(made.unroll(Laying(self.library)))
            self.counted[key] = Counter(step.phase for step in unrolled)
            self.counted[key]["hard"] = sum(map(is_hard, unrolled))
        return self.counted[key]

    def _unit(self, times: float, stations: int) -> Block:
        """The block with every time a second, so that its steps count themselves."""
        unit = self.block.with_pairs((UNIT,)).but(moves=self.block.moves[:stations], lead_in_s=0)
        unit = unit.with_figure(self.times, times)
        return (
            unit.with_figure(self.pause, 1)
            if unit.between and unit.between.seconds is not None
            else unit
        )
