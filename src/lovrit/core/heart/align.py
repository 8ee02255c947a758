"""Where a trace belongs in a class, by its pattern: it is slid along the forecast to where both rise and fall alike."""

from typing import NamedTuple

import numpy as np

from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.stretches import running_median

SMOOTH_S = 3
LEAST_S = 240  # seconds that both must share for a place to count
SURE, APART = 0.6, 0.05  # how alike they must be, and by how much more than anywhere else
NEAR_S = 45  # places so near to the best one are the same place


class Placed(NamedTuple):
    """By how many seconds a trace begins after the class did (less than 0: before), and whether that can be trusted.

    ``like`` is their correlation there, -1 to 1.
    """

    offset_s: int
    like: float
    sure: bool


def align(trace: Floats, forecast: Floats, widest_s: int = 1800) -> Placed:
    """Where a trace at 1 Hz lies best along a forecast, so many seconds either way (normalised cross-correlation)."""
    if not np.isfinite(trace).any() or len(forecast) < LEAST_S:
        return Placed(0, 0.0, False)
    smooth = running_median(trace, SMOOTH_S)
    offsets = range(-widest_s, widest_s + 1)
    scores = np.array([_like(smooth, trace, forecast, offset) for offset in offsets])
    best = int(scores.argmax())
    elsewhere = np.concatenate([scores[: max(0, best - NEAR_S)], scores[best + NEAR_S + 1 :]])
    beyond = float(elsewhere.max()) if len(elsewhere) else -1.0
    like = float(scores[best])
    return Placed(offsets[best], round(like, 3), like >= SURE and like - beyond >= APART)


def _like(smooth: Floats, trace: Floats, forecast: Floats, offset: int) -> float:
    first, last = max(0, offset), min(len(forecast), offset + len(trace))
    if last - first < LEAST_S:
        return -1.0
    mine = smooth[first - offset : last - offset]
    there = ~np.isnan(trace[first - offset : last - offset])
    if there.sum() < LEAST_S:
        return -1.0
    a, b = mine[there], forecast[first:last][there]
    spread = float(a.std() * b.std())
    if spread < 1.0:
        return -1.0
    # a place where little is shared looks alike by chance, so it counts a little less
    share = min(1.0, float(there.sum()) / min(len(trace), len(forecast)))
    return float(((a - a.mean()) * (b - b.mean())).mean() / spread) * (0.7 + 0.3 * share)


def shifted(trace: Floats, offset_s: int, length_s: int) -> Floats:
    """A trace on the seconds of a class, not a number where it says nothing."""
    found = np.full(length_s, np.nan)
    first, last = max(0, offset_s), min(length_s, offset_s + len(trace))
    if last > first:
        found[first:last] = trace[first - offset_s : last - offset_s]
    return found
