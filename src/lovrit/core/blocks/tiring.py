"""How people tire over a block: each pattern of movement has so much in it, spent by reps and filled again by time.

Fresh, a person has one whole of a pattern: as many reps as they do in one go (``fresh`` of the move). A rep spends its
share; while something else works, or nothing, what is missing comes back with a time constant. Who has nothing left
waits until a third is there again. That is the shape of critical power with W' (Monod and Scherrer 1965; Skiba and
others 2012), brought down to reps; the constants are chosen against what coaches know (tests/cases/forecasts.toml).
"""

from math import exp, log
from statistics import fmean

from lovrit.core.blocks.step import Case
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.moves.once import reps_at
from lovrit.core.slate.line import Load

BACK_S = 28.0  # of what is missing, two thirds are back after so many seconds
ENOUGH = 0.35  # so much has to be there before people go on
TENTH = 1.2816  # a tenth of people lie beyond so many spreads
# how far apart people are: the spread of the logarithm of their seconds (coaches' practice, to be learnt from scores)
USUAL_SPREAD, STEADY_SPREAD, PRESSING_SPREAD, RARE_SPREAD = 0.2, 0.11, 0.3, 0.42
NOTHING = 1e-6  # of a rep
WIDER_FROM_M, WIDER, WIDEST = (
    1000,
    0.037,
    0.1,
)  # each e-fold of a distance sets people so much further apart
RARE = 5  # a move of which most do fewer in one go: some do none, some many
RIEGEL = 0.06  # how much slower a distance is for each e-fold of it (Riegel 1981)
SHORTEST, LONGEST = 0.85, 1.2
USUAL_M = (300, 1000)  # the library's seconds a metre are of distances between these
MOST_REPS = 40
WALKS = ((0.85, 9.5), (0.75, 3.5))  # seconds round the bar before each rep, from which share on
KG = 0.4536
# kilograms that a usual person of a mixed club lifts once: ours, to be replaced by what is known of people
USUAL_BEST = {
    "deadlift": 110, "romanian deadlift": 90, "sumo deadlift": 110, "back squat": 85, "front squat": 70,
    "overhead squat": 45, "squat clean": 60, "power clean": 60, "hang clean": 58, "clean and jerk": 55,
    "power snatch": 42, "strict press": 42, "push press": 52, "push jerk": 58, "bench press": 65, "thruster": 52,
    "clean and press": 42, "sumo high pull": 65,
}  # fmt: skip
SLOWER = 0.2  # the last rep of what is there takes so much longer than the first


def spread_of(move: Move | None) -> float:
    """How far apart people are at a move."""
    if move is None:
        return USUAL_SPREAD
    if move.metre is not None or move.pattern in ("gait", "machine"):
        return STEADY_SPREAD
    if move.fresh <= RARE and move.counted == "reps":
        return RARE_SPREAD
    return PRESSING_SPREAD if move.pattern == "push" and move.floor else USUAL_SPREAD


def factor_of(move: Move | None, case: Case, metres: float = 0) -> float:
    """Seconds of a quick or a slow person by those of a usual one; one in ten is quicker, or slower.

    Over a long way on foot people are further apart than over a short one.
    """
    side = {"low": -1, "likely": 0, "high": 1}[case]
    spread = spread_of(move)
    if move is not None and move.pattern == "gait" and metres > WIDER_FROM_M:
        spread += min(WIDEST, WIDER * log(metres / WIDER_FROM_M))
    return exp(side * spread * TENTH)


def distance_factor(move: Move | None, metres: float) -> float:
    """How much slower than over the usual distances a metre is; of runs, swims and machines alone."""
    steady = move is not None and (
        move.pattern in ("gait", "machine") or bool({"rower", "ski", "pool"} & set(move.kit))
    )
    if not steady or move is None or move.counted == "m":
        return 1.0
    least, most = USUAL_M
    near = min(most, max(least, metres))
    slower: float = (max(metres, 1) / near) ** RIEGEL
    return min(LONGEST, max(SHORTEST, slower))


def in_one_go(share: float) -> float:
    """How many reps are done in one go of a load that is a share of what is lifted once."""
    return min(MOST_REPS, max(1.0, reps_at(max(share, 0.1))))


def share_of(load: Load | None, name: str, library: Library) -> float | None:
    """A load as a share of what is lifted once: as written, else by what is usual; None where nobody can say."""
    if load is None or not load.values:
        return None
    if load.unit == "%":
        return max(load.values) / 100
    move = library.find(name)
    best = USUAL_BEST.get(move.name) if move else None
    if best is None or load.unit not in ("kg", "lb"):
        return None
    return min(1.0, fmean(load.values) * (KG if load.unit == "lb" else 1) / best)


def _walk_s(share: float | None) -> float:
    return next((seconds for least, seconds in WALKS if (share or 0) >= least), 0.0)


class Tiring:
    """One person on their way through a block: what each pattern has left, from 0 to 1."""

    def __init__(self, library: Library, case: Case = "likely") -> None:
        self.library, self.case = library, case
        self._left: dict[str, float] = {}

    def rest(self, seconds: float, but: str = "") -> None:
        """Time in which nothing works, or only the pattern ``but``."""
        share = exp(-seconds / BACK_S)
        for pattern, left in self._left.items():
            if pattern != but:
                self._left[pattern] = 1 - (1 - left) * share

    def reps(self, name: str, count: float, share: float | None = None) -> float:
        """Seconds of so many reps of a move, with the waits that they want; the person is more tired afterwards.

        ``share`` is the load as a share of what is lifted once: it says how many can be done in one go, and heavy
        reps take the walk round the bar.
        """
        move = self.library.find(name)
        factor = factor_of(move, self.case)
        rep_s = (self.library.rep_s(name) + _walk_s(share)) * factor
        if move is None or move.counted != "reps":
            self.rest(count * rep_s)
            return count * rep_s
        fresh = max(1.0, (move.fresh if share is None else in_one_go(share)) / factor)
        taken, to_do = 0.0, count
        left = self._left.get(move.pattern, 1.0)
        while to_do > NOTHING:
            now = min(to_do, left * fresh)
            tired = 1 - (left + left - now / fresh) / 2
            taken += now * rep_s * (1 + SLOWER * tired)
            to_do, left = to_do - now, left - now / fresh
            if to_do <= NOTHING:
                break
            # a wait is as long as it takes until a third, or all that is still to be done, is there again
            wanted = min(ENOUGH, to_do / fresh)
            wait = BACK_S * log((1 - left) / (1 - wanted)) if wanted > left else 0.0
            taken, left = taken + wait, max(left, wanted)
        self.rest(taken, but=move.pattern)
        self._left[move.pattern] = max(0.0, left)
        return taken
