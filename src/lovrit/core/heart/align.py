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
    scores = _alike(trace, forecast, widest_s)
    best = int(scores.argmax())
    elsewhere = np.concatenate([scores[: max(0, best - NEAR_S)], scores[best + NEAR_S + 1 :]])
    beyond = float(elsewhere.max()) if len(elsewhere) else -1.0
    like = float(scores[best])
    return Placed(best - widest_s, round(like, 3), like >= SURE and like - beyond >= APART)


def _alike(trace: Floats, forecast: Floats, widest_s: int) -> Floats:
    """How alike both are at each offset, from the least to the greatest: all at once, by sums that slide."""
    there = np.isfinite(trace)
    mine = np.where(there, running_median(trace, SMOOTH_S), 0.0)
    mine[there] -= mine[there].mean()  # of small figures differences are exact
    weight, asked, ones = there.astype(float), forecast - forecast.mean(), np.ones(len(forecast))
    slide = _Slide(len(trace), len(forecast), widest_s)
    shared = np.rint(slide.sums(ones, weight))
    many = np.maximum(shared, 1.0)
    a, b = slide.sums(ones, mine) / many, slide.sums(asked, weight) / many
    spread_a = slide.sums(ones, mine**2) / many - a**2
    spread_b = slide.sums(asked**2, weight) / many - b**2
    spread = np.sqrt(np.maximum(spread_a, 0.0) * np.maximum(spread_b, 0.0))
    likeness = (slide.sums(asked, mine) / many - a * b) / np.maximum(spread, 1.0)
    # a place where little is shared looks alike by chance, so it counts a little less
    share = np.minimum(1.0, shared / min(len(trace), len(forecast)))
    scores: Floats = np.where(
        (shared >= LEAST_S) & (spread >= 1.0), likeness * (0.7 + 0.3 * share), -1.0
    )
    return scores


class _Slide(NamedTuple):
    """Sums of products of a forecast and a trace that is slid along it, at each offset (correlation by FFT)."""

    trace_s: int
    forecast_s: int
    widest_s: int

    def sums(self, along: Floats, slid: Floats) -> Floats:
        """The sum at each offset from ``-widest_s`` to ``widest_s``; where they don't meet it is 0."""
        size = self.trace_s + self.forecast_s + 2 * self.widest_s
        found = np.fft.irfft(np.fft.rfft(along, size) * np.conj(np.fft.rfft(slid, size)), size)
        return np.concatenate([found[-self.widest_s :], found[: self.widest_s + 1]])


def shifted(trace: Floats, offset_s: int, length_s: int) -> Floats:
    """A trace on the seconds of a class, not a number where it says nothing."""
    found = np.full(length_s, np.nan)
    first, last = max(0, offset_s), min(length_s, offset_s + len(trace))
    if last > first:
        found[first:last] = trace[first - offset_s : last - offset_s]
    return found
