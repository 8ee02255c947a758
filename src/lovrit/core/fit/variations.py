"""A block with one or two of its knobs turned, and what each such block comes to."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

from lovrit.core.fit.knobs import Knob, Turn, put_effort
from lovrit.core.moves.library import Library
from lovrit.core.session.model import AnyBlock, Count, Intervals, Pair, Rotate, Sets, Stretch
from lovrit.core.timeline.explain import HARD
from lovrit.core.timeline.interval import Step
from lovrit.core.timeline.steps import Laying, steps

Turned = tuple[tuple[Knob, Turn], ...]


class Sums(NamedTuple):
    """Seconds of a block: in all, of work, of rest, and of hard work."""

    total: int = 0
    work: int = 0
    rest: int = 0
    hard: int = 0

    def less(self, other: "Sums") -> "Sums":
        """What is between the two."""
        return Sums(self[0] - other[0], self[1] - other[1], self[2] - other[2], self[3] - other[3])

    def plus(self, other: "Sums") -> "Sums":
        """Both together."""
        return Sums(self[0] + other[0], self[1] + other[1], self[2] + other[2], self[3] + other[3])


@dataclass(frozen=True)
class Variation:
    """A block with knobs turned: what changes in its sums, and how far it is from before."""

    block: int
    turned: Turned
    change: Sums
    cost: float


def sums_of(block: AnyBlock, library: Library) -> Sums:
    """What a block comes to, by unrolling it."""
    phases: Counter[str] = Counter()
    hard = 0
    for step in steps(block, Laying(library)):
        phases[step.phase] += step.seconds
        hard += step.seconds if _is_hard(step) else 0
    return Sums(sum(phases.values()), phases["work"], phases["rest"], hard)


def _is_hard(step: Step) -> bool:
    return step.phase == "work" and (step.effort or 0) >= HARD


def variations(at: int, block: AnyBlock, turnable: list[Knob], library: Library) -> Iterator[Variation]:
    """The block with every one, and with every two, of its knobs turned every way."""
    now = sums_of(block, library)
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


def _linear(block: AnyBlock) -> bool:
    """Whether a block's sums are linear in its times: one work and one rest, both by the clock."""
    if isinstance(block, Intervals):
        if block.each or len(block.pattern) != 1:
            return False
        pair = block.pattern[0]
    elif isinstance(block, Rotate | Sets):
        pair = block.pair
    else:
        return False
    return pair.work.seconds is not None and pair.rest.seconds is not None


UNIT = Pair(work=Stretch(seconds=1), rest=Stretch(seconds=1))


class _Unrolled:
    """Sums of a block turned, by making it and unrolling it."""

    def __init__(self, block: AnyBlock, library: Library):
        self.block, self.library = block, library

    def sums(self, turned: Turned) -> Sums:
        made = self.block
        for knob, turn in turned:
            made = knob.put(made, turn.value)
        return sums_of(made, self.library)


ROLES = {"rounds": "times", "sets": "times", "count": "times", "break": "between", "change": "between"}


class _Linear:
    """Sums of a block of one pair: its phases are counted once for each shape, then times are multiplied."""

    def __init__(self, block: AnyBlock, library: Library):
        assert isinstance(block, Rotate | Sets | Intervals)
        self.block, self.library = block, library
        pair = block.pattern[0] if isinstance(block, Intervals) else block.pair
        self.now: dict[str, float] = {
            "times": _times(block).high,
            "stations": len(block.moves),
            "work": pair.work.seconds or 0,
            "rest": pair.rest.seconds or 0,
            "between": getattr(block, "break_s", None) or getattr(block, "change_s", None) or 0,
            "lead-in": block.lead_in_s,
        }
        self.counted: dict[tuple[float, float, float | None], Counter[str]] = {}

    def sums(self, turned: Turned) -> Sums:
        is_ = self.now.copy()
        for knob, turn in turned:
            is_[ROLES.get(knob.figure, knob.figure)] = turn.value
        count = self._phases(is_["times"], is_["stations"], is_.get("effort"))
        work, rest = count["work"] * is_["work"], count["rest"] * is_["rest"]
        between = (count["break"] + count["change"]) * is_["between"]
        whole = work + rest + between + is_["lead-in"]
        return Sums(round(whole), round(work), round(rest), round(count["hard"] * is_["work"]))

    def _phases(self, times: float, stations: float, asked: float | None) -> Counter[str]:
        key = (times, stations, asked)
        if key not in self.counted:
            unit = _unit(self.block, round(times), round(stations))
            unrolled = list(steps(unit if asked is None else put_effort(unit, asked), Laying(self.library)))
            self.counted[key] = Counter(step.phase for step in unrolled)
            self.counted[key]["hard"] = sum(map(_is_hard, unrolled))
        return self.counted[key]


def _times(block: Rotate | Sets | Intervals) -> Count:
    return block.rounds if isinstance(block, Rotate) else block.sets if isinstance(block, Sets) else block.count


def _unit(block: Rotate | Sets | Intervals, times: int, stations: int) -> AnyBlock:
    """The block with every time a second, so that its steps count themselves."""
    count = Count(low=times, high=times)
    shared = {"moves": block.moves[:stations], "lead_in_s": 0}
    if isinstance(block, Intervals):
        return block.but(**shared, count=count, pattern=(UNIT,))
    field, counted = ("break_s", "rounds") if isinstance(block, Rotate) else ("change_s", "sets")
    between = {field: 1} if getattr(block, field) is not None else {}
    return block.but(**shared, **{counted: count}, pair=UNIT, **between)
