"""Figures of one heart after the class, each from so many clean seconds, none from fewer than it needs.

A trace is beats a minute at 1 Hz, not a number where a reading does not hold. Definitions are coaches' practice, to be
checked; slopes as Theil (1950) and Sen (1968).
"""

from itertools import combinations
from statistics import median
from typing import NamedTuple

import numpy as np

from lovrit.core.heart.hearts import Floats

SMOOTH_S, LEAST_IN_5 = 5, 3
BEFORE_S, AFTER_S, DROP_S, MOST_LOST = 5, 15, 60, 10
LAG_BOUT_S, RISE = 90, 0.63
LEAST_RISE, LEAST_BOUTS, CLEAR = 10.0, 3, 0.6
LEAST_CLEAN = 5


class Bout(NamedTuple):
    """A work and its rest, in seconds of the trace."""

    start_s: int
    end_s: int
    rest_s: int


class Figures(NamedTuple):
    """A bout in figures; None where too little was clean, or the figure is not for such a bout."""

    average: float | None
    highest: float | None
    peak: float | None
    peak_after_end_s: int | None
    drop_60: float | None
    lag_s: int | None
    clean_s: int


def smoothed(trace: Floats) -> Floats:
    """The mean of five seconds round each; not a number where fewer than three hold."""
    half = SMOOTH_S // 2
    padded = np.concatenate([np.full(half, np.nan), trace, np.full(half, np.nan)])
    windows = np.lib.stride_tricks.sliding_window_view(padded, SMOOTH_S)
    held = (~np.isnan(windows)).sum(axis=1)
    sums = np.nansum(windows, axis=1)
    return np.where(held >= LEAST_IN_5, sums / np.maximum(held, 1), np.nan)


def figures(trace: Floats, bout: Bout, smooth: Floats | None = None) -> Figures:
    """A bout in figures; ``smooth`` is the trace smoothed, where somebody has it already."""
    inside = trace[bout.start_s : bout.end_s]
    clean = int((~np.isnan(inside)).sum())
    smooth = smoothed(trace) if smooth is None else smooth
    peak_at = _peak(smooth, bout)
    enough = clean >= LEAST_CLEAN
    return Figures(
        round(float(np.nanmean(inside)), 1) if enough else None,
        round(float(np.nanmax(inside)), 1) if enough else None,
        None if peak_at is None else round(float(smooth[peak_at]), 1),
        None if peak_at is None else peak_at - bout.end_s,
        _drop(trace, smooth, bout, peak_at),
        _lag(smooth, bout),
        clean,
    )


def _peak(smooth: Floats, bout: Bout) -> int | None:
    """Where the heart is highest, from shortly before a work's end to a while after it."""
    first = max(bout.start_s, bout.end_s - BEFORE_S)
    near = smooth[first : bout.end_s + AFTER_S + 1]
    return None if np.isnan(near).all() else first + int(np.nanargmax(near))


def _drop(trace: Floats, smooth: Floats, bout: Bout, peak_at: int | None) -> float | None:
    """How far it falls in a minute from its peak; none where the rest is shorter or ten seconds are lost."""
    if peak_at is None or bout.rest_s < DROP_S or peak_at + DROP_S >= len(trace):
        return None
    lost = int(np.isnan(trace[peak_at : peak_at + DROP_S + 1]).sum())
    low = smooth[peak_at + DROP_S]
    return None if lost >= MOST_LOST or np.isnan(low) else round(float(smooth[peak_at] - low), 1)


def _lag(smooth: Floats, bout: Bout) -> int | None:
    """Seconds to 63 in 100 of the rise from the ten seconds before; only for bouts of a minute and a half and more."""
    before = smooth[max(0, bout.start_s - 10) : bout.start_s]
    inside = smooth[bout.start_s : bout.end_s]
    if bout.end_s - bout.start_s < LAG_BOUT_S or np.isnan(before).all() or np.isnan(inside).all():
        return None
    low, high = float(np.nanmean(before)), float(np.nanmax(inside))
    if high - low < LEAST_RISE:
        return None
    there = np.flatnonzero(inside >= low + RISE * (high - low))
    return int(there[0]) if len(there) else None


def drift(peaks: list[float]) -> float | None:
    """Beats from bout to bout at equal work: the median slope between pairs, the first bout left out.

    None where there are fewer than three to go by, or no clear drift: under 0.6 beats a bout.
    """
    later = peaks[1:]
    if len(later) < LEAST_BOUTS:
        return None
    slopes = [(later[j] - later[i]) / (j - i) for i, j in combinations(range(len(later)), 2)]
    slope = median(slopes)
    return round(slope, 2) if abs(slope) >= CLEAR else None
