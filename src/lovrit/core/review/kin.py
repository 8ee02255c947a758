"""What is of a kind and may be compared: the same structure, work, rest, rounds, moves in their order, ways and loads.

What was asked (effort, heart, pace) is none of it: it is what was done that is compared.
"""

import re
from typing import NamedTuple

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.build import Build
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.strength import Strength
from lovrit.core.clock import read_clock
from lovrit.core.crew.fits import at_line
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.session.writer import block_lines
from lovrit.core.slate.line import reps_of

ROUNDS = re.compile(r"(\d+) \+ (\d+)")
TIME = re.compile(r"\d+:[0-5]\d")
TIMES = re.compile(r"\d+:[0-5]\d(?: \d+:[0-5]\d)*")
HELD = re.compile(r"(\d+(?: \d+)*) s")
LIFTED = re.compile(r"(\d+(?:\.\d+)?) kg(?: x (\d+))?(?:, \d+ sets?)?")
KEPT = re.compile(r"(\d+) of \d+(?: \+ \d+)?")
COUNTED = re.compile(r"(\d+(?: \d+)*) (?:reps|m|cal)")
ASKED = {
    "efforts": (),
    "rest_effort": None,
    "heart": None,
    "heart_later": (),
    "rest_heart": None,
    "pace": None,
}


class Worth(NamedTuple):
    """A score as a number: which figure of comparing it is, its value, whether more of it is better."""

    figure: str
    value: float
    more: bool


def kin_key(block: Block, library: Library) -> str:
    """What two blocks have in common where they are of a kind; names of moves as the library has them."""
    bare = block.but(**ASKED)
    lines = tuple(
        line.but(
            tasks=tuple(
                task.but(name=move.name) if (move := library.find(task.name)) else task
                for task in line.tasks
            )
        )
        for line in bare.moves
    )
    return "\n".join(block_lines(bare.but(moves=lines)))


def own_key(block: Block, person: Person, library: Library) -> str:
    """The ways and loads in which somebody does a block."""
    return "; ".join(
        at_line(person, line, library).said for line in block.moves if not line.is_rest
    )


def worth(block: Block, score: str) -> Worth | None:
    """What a score in its usual writing is worth; None where it can't be said as one number."""
    said = score.strip()
    found: Worth | None = None
    if rounds := ROUNDS.fullmatch(said):
        found = _reps(block, int(rounds[1]), int(rounds[2]))
    elif TIME.fullmatch(said) and block.kind == "for-time":
        found = Worth("time_s", read_clock(said), False)
    elif TIMES.fullmatch(said) and isinstance(block, Intervals) and block.each:
        found = Worth("slowest_s", max(map(read_clock, said.split())), False)
    elif held := HELD.fullmatch(said):
        found = Worth("hold_s", max(map(float, held[1].split())), True)
    elif lifted := LIFTED.fullmatch(said):
        found = _lifted(block, float(lifted[1]), int(lifted[2] or 0))
    elif kept := KEPT.fullmatch(said):
        found = Worth("turns", float(kept[1]), True)
    elif counted := COUNTED.fullmatch(said):
        found = _counted(block, [float(one) for one in counted[1].split()])
    return found if found and found.value > 0 else None


def _lifted(block: Block, kg: float, reps: int) -> Worth | None:
    """A top set, where it had as many reps as were asked for, or none were said."""
    asked = (
        block.reps.high
        if isinstance(block, Strength)
        else block.reps
        if isinstance(block, Build)
        else 0
    )
    return None if reps and asked and reps < asked else Worth("top_set", kg, True)


def _counted(block: Block, values: list[float]) -> Worth | None:
    """Reps or metres in all, where all works were counted or all in one figure; of rounds to the most the best."""
    if isinstance(block, Quality) and block.to_the_most:
        return Worth("reps", max(values), True)
    works = block.count.high * len(block.pattern) if isinstance(block, Intervals) else 0
    return Worth("reps", sum(values), True) if len(values) in (1, works) else None


def _reps(block: Block, rounds: int, more: int) -> Worth | None:
    """Rounds and reps as reps in all, where every line counts reps and every round the same."""
    lines = [line for line in block.moves if not line.is_rest]
    a_round = [reps_of(line) for line in lines]
    if not isinstance(block, Amrap) or block.ladder or not lines or not all(a_round):
        return None
    return Worth("reps", rounds * sum(a_round) + more, True)
