"""A block with one or two of its knobs turned, and what each such block comes to."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

from lovrit.core.fit.knobs import Knob, Turn
from lovrit.core.moves.library import Library
from lovrit.core.session.model import AnyBlock, Intervals, Pair, Rotate, Sets, Stretch
from lovrit.core.timeline.steps import Laying, steps

Turned = tuple[tuple[Knob, Turn], ...]


class Sums(NamedTuple):
    """Seconds of a block: in all, of work, of rest."""

    total: int
    work: int
    rest: int


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
    for step in steps(block, Laying(library)):
        phases[step.phase] += step.seconds
    return Sums(sum(phases.values()), phases["work"], phases["rest"])


def variations(at: int, block: AnyBlock, turnable: list[Knob], library: Library) -> Iterator[Variation]:
    """The block with every one, and with every two, of its knobs turned every way."""
    now = sums_of(block, library)
    measure = _Linear(library) if _linear(block) else None
    for turned in _ways(turnable):
        made = block
        for knob, turn in turned:
            made = knob.put(made, turn.value)
        then = measure.sums(made) if measure else sums_of(made, library)
        change = Sums(then.total - now.total, then.work - now.work, then.rest - now.rest)
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


class _Linear:
    """Sums of a block of one pair: its phases are counted once for each shape, then times are multiplied."""

    def __init__(self, library: Library):
        self.library = library
        self.counted: dict[tuple[int, int], Counter[str]] = {}

    def sums(self, block: AnyBlock) -> Sums:
        assert isinstance(block, Rotate | Sets | Intervals)
        pair = block.pattern[0] if isinstance(block, Intervals) else block.pair
        between = getattr(block, "break_s", None) or getattr(block, "change_s", None) or 0
        count = self._phases(block)
        work, rest = count["work"] * (pair.work.seconds or 0), count["rest"] * (pair.rest.seconds or 0)
        return Sums(work + rest + (count["break"] + count["change"]) * between + block.lead_in_s, work, rest)

    def _phases(self, block: Rotate | Sets | Intervals) -> Counter[str]:
        times = block.rounds if isinstance(block, Rotate) else block.sets if isinstance(block, Sets) else block.count
        key = (times.high, len(block.moves))
        if key not in self.counted:
            self.counted[key] = Counter(step.phase for step in steps(_unit(block), Laying(self.library)))
        return self.counted[key]


def _unit(block: Rotate | Sets | Intervals) -> AnyBlock:
    """The block with every time a second, so that its steps count themselves."""
    if isinstance(block, Intervals):
        return block.model_copy(update={"pattern": (UNIT,)})
    field = "break_s" if isinstance(block, Rotate) else "change_s"
    between = {field: 1} if getattr(block, field) is not None else {}
    return block.model_copy(update={"pair": UNIT, **between})
