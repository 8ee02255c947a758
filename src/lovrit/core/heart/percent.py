"""Per cent for beats: a strap that shows how much of a highest, or of the reserve, where beats should be.

It is asked about, never converted. What tells it from a heart that is slow, held down by medicine or out at the
telephone: it keeps near the percentage of the forecast itself all along, and it begins and ends with a leap.
"""

import numpy as np

from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.stretches import Flags, lasting, lengths

LOW, NEAR, LONG_S = 0.72, 14, 30
MIDDLE_NEAR = 9  # in the middle it must be nearer than any one reading
LEAP, LEAP_S, GAP_S = 25, 3, 25
SHORT_S, HALF_WITHIN = 120, 0.07


def per_cent(good: Floats, forecast: Floats, rest: float, highest: float) -> Flags:
    """The seconds that may be per cent of the highest or of the reserve."""
    scales = (forecast / highest * 100, (forecast - rest) / (highest - rest) * 100)
    both = [_of_scale(good, forecast, scale) for scale in scales]
    return max(both, key=lambda flags: int(flags.sum()))


def _of_scale(good: Floats, forecast: Floats, scale: Floats) -> Flags:
    with np.errstate(invalid="ignore"):
        like = (good < LOW * forecast) & (np.abs(good - scale) <= NEAR)
    found = np.zeros(len(good), dtype=bool)
    whole = _bridged(like)
    for at, length in lengths(whole):
        here = slice(at, at + length)
        if not whole[at] or not lasting(like[here], LONG_S).any():
            continue
        off = np.abs(good[here] - scale[here])
        off = off[~np.isnan(off)]
        if _half(good[here], forecast[here]):
            continue
        if np.median(off) <= MIDDLE_NEAR and _leaps(good, at) and _leaps(good, at + length):
            found[here] = ~np.isnan(good[here])
    return found


def _half(good: Floats, forecast: Floats) -> bool:
    """Whether a short stretch is rather every second beat: halves last seconds, per cent lasts long."""
    return len(good) < SHORT_S and abs(float(np.nanmedian(good / forecast)) - 0.5) < HALF_WITHIN


def _bridged(like: Flags) -> Flags:
    """With the short gaps between such stretches."""
    short: Flags = ~like & ~lasting(~like, GAP_S)
    return like | short


def _leaps(good: Floats, at: int) -> bool:
    """Whether a stretch that ends or begins here does so with the trace itself, or with a leap."""
    before, after = good[max(0, at - GAP_S) : at], good[at : at + GAP_S]
    before, after = before[~np.isnan(before)], after[~np.isnan(after)]
    if len(before) < LEAP_S or len(after) < LEAP_S:
        return True
    near = good[max(0, at - GAP_S) : at + GAP_S]
    near = near[~np.isnan(near)]
    return bool(np.abs(near[LEAP_S:] - near[:-LEAP_S]).max() >= LEAP)
