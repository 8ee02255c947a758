"""A whole group at a block of reps: many evenings drawn with a seed, since order among people has no closed form.

A person's seconds are the usual ones times a factor, log-normal with the spread of worktime.py; whose scores are known
is drawn round what they say, the closer the more there are. Each round varies besides by a twentieth. The same seed
gives the same answer.
"""

from dataclasses import dataclass
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.worktime import SPREAD, line_s, round_s, slowing
from lovrit.core.forecast.group import Group
from lovrit.core.forecast.learned import USUAL
from lovrit.core.moves.library import Library

ROUND_SPREAD = 0.05
EVENINGS = 400
Draws = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Finish:
    """When the first, the middle and the last of a group finish, in seconds; ``wait_s`` from first to last.

    ``capped`` is how many of the group the cap is likely to end.
    """

    first_s: int
    middle_s: int
    last_s: int
    wait_s: int
    capped: float


def speeds(group: Group, library: Library, seed: int) -> Draws:
    """Factors of the library's seconds, an evening a row, a person a column, slowest last.

    Round a person's own pace, with what the spread between people leaves when so many scores stand beside the usual
    ones of learned.py (the posterior of a normal mean with known variance, Gelman and others 2013).
    """
    known = [one.pace.factor / library.pace if one.pace.rests_on else 1.0 for one in group]
    left = [SPREAD * sqrt(USUAL / (USUAL + one.pace.rests_on)) for one in group]
    drawn = np.random.default_rng(seed).standard_normal((EVENINGS, len(group)))
    factors: Draws = np.exp(np.log(known) + np.array(left) * drawn)
    factors.sort(axis=1)
    return factors


def finishes(block: ForTime, library: Library, group: Group, seed: int = 1) -> Finish | None:
    """Who of a group finishes when; None where nobody said how much there is to do."""
    once = round_s(block.moves, library)
    people = len(group)
    if once is None or not people:
        return None
    rounds = np.array([slowing(nth) for nth in range(1, block.rounds.high + 1)])
    draw = np.random.default_rng(seed + 1)
    noise = draw.lognormal(0, ROUND_SPREAD, (EVENINGS, people, len(rounds))) @ rounds
    times = np.sort(once * speeds(group, library, seed) * noise, axis=1)
    capped = 0.0
    if block.cap_s:
        capped = float((times > block.cap_s).sum(axis=1).mean())
        times = np.minimum(times, block.cap_s)
    first, middle, last = (float(np.median(times[:, at])) for at in (0, people // 2, -1))
    return Finish(round(first), round(middle), round(last), round(last - first), round(capped, 1))


def rounds_of(
    block: Amrap, library: Library, group: Group, seed: int = 1
) -> tuple[int, int, int] | None:
    """Whole rounds of the last, the middle and the first of a group."""
    lengths = np.cumsum(np.fromiter(_until(block, library), float))
    if not len(lengths) or not group:
        return None
    evening = _middle_evening(group, library, seed)
    ranked = sorted(
        int(np.searchsorted(lengths, block.total_s / factor, "right")) for factor in evening
    )
    return ranked[0], ranked[len(ranked) // 2], ranked[-1]


def _until(block: Amrap, library: Library) -> list[float]:
    """Rounds of a usual person for four times the block's length, further than the quickest get."""
    taken: list[float] = []
    for once in block.round_lengths(library, "likely"):
        taken.append(once)
        if sum(taken) > 4 * block.total_s:
            break
    return taken


def _middle_evening(group: Group, library: Library, seed: int) -> list[float]:
    if not group:
        return []
    return [float(one) for one in np.median(speeds(group, library, seed), axis=0)]


def late(block: Every, library: Library, group: Group, seed: int = 1) -> tuple[float, ...]:
    """How many of a group are likely not to make each turn of an every-minute block."""
    count = len(block.moves)
    needed = [line_s(line, library) for line in block.moves]
    factors = speeds(group, library, seed)
    expected = []
    for nth in range(block.total_s // block.period_s if count else 0):
        once = needed[nth % count]
        over = factors * ((once or 0) * slowing(nth // count + 1)) > block.period_s
        expected.append(round(float(over.sum(axis=1).mean()), 1))
    return tuple(expected)


def on_foot(move: str, library: Library) -> bool:
    """Whether a move, or a run where none is named, is on foot, so that a pace over 100 m says something of it."""
    found = library.find(move or "run")
    return found is not None and "on foot" in found.uses


def distance(
    metres: float, move: str, library: Library, group: Group, seed: int = 1
) -> tuple[int, int, int] | None:
    """Seconds that the first, the middle and the last of a group take for a distance.

    A pace of their own over 100 m counts on foot alone; the others are drawn round the library's.
    """
    if not group:
        return None
    afoot = on_foot(move, library)
    own = [metres / 100 * one.pace_100_s for one in group if afoot and one.pace_100_s]
    drawn = [one for one in group if not (afoot and one.pace_100_s)]
    others = [
        metres * library.metre_s(move) * factor for factor in _middle_evening(drawn, library, seed)
    ]
    times = sorted(own + others)
    return round(times[0]), round(times[len(times) // 2]), round(times[-1])
