"""What scores say of a club's pace: how long it takes where a usual person takes 1, and how much that rests on.

A score is held against what was forecast. Few scores move the figure little: it is the mean of their logarithms drawn
towards 1 as if four usual scores stood beside them (shrinkage, Efron and Morris 1977); a person's towards the club's.
"""

from collections.abc import Iterable
from math import exp, log

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.kinds import AnyBlock
from lovrit.core.moves.library import Library
from lovrit.core.values import Value

USUAL = 4
LIMITS = (0.4, 2.5)


class Quickness(Value):
    """How long people take where a usual person takes 1, and on how many scores that rests."""

    factor: float = 1.0
    rests_on: int = 0


class Scored(Value):
    """A person's score in a block of a class."""

    person: int
    block: AnyBlock
    text: str


def ratio_of(block: Block, text: str, library: Library) -> float | None:
    """How long somebody took where a usual person takes 1; None where the score says nothing of it."""
    ratio = block.pace_of(text, library)
    return ratio if ratio and LIMITS[0] <= ratio <= LIMITS[1] else None


def pace_of(ratios: Iterable[float], usual: float = 1.0) -> Quickness:
    """The pace that these ratios say, drawn towards what is usual."""
    logs = [log(one) for one in ratios]
    mean = (sum(logs) + USUAL * log(usual)) / (len(logs) + USUAL)
    return Quickness(factor=round(exp(mean), 3), rests_on=len(logs))


Ratio = tuple[int, float]


def ratios_of(scores: Iterable[Scored], library: Library) -> list[Ratio]:
    """What scores say of those who made them: (person, ratio) for each that says something."""
    found = ((one.person, ratio_of(one.block, one.text, library)) for one in scores)
    return [(person, ratio) for person, ratio in found if ratio is not None]


def learn(said: Iterable[Ratio]) -> tuple[Quickness, dict[int, Quickness]]:
    """The club's pace, and each person's who has scores."""
    by_person: dict[int, list[float]] = {}
    for person, ratio in said:
        by_person.setdefault(person, []).append(ratio)
    club = pace_of(ratio for ratios in by_person.values() for ratio in ratios)
    return club, {person: pace_of(ratios, club.factor) for person, ratios in by_person.items()}
