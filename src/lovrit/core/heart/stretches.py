"""Stretches of a trace: how long something lasts, where it jumps, the median of what is round each second."""

from collections.abc import Iterator

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from lovrit.core.heart.hearts import Floats

Flags = NDArray[np.bool_]
SLOWEST_S = 5  # straps that tell more seldom than this leave gaps
JUMP, JUMP_S = 9, 3  # beats within so many seconds: no heart's own doing when it stays there


def lengths(values: NDArray[np.generic]) -> Iterator[tuple[int, int]]:
    """Each stretch of one value: where it begins, how long it lasts. What is not a number is each its own."""
    if not len(values):
        return
    ends = np.flatnonzero(values[1:] != values[:-1]) + 1
    starts = np.concatenate([[0], ends])
    for start, end in zip(starts, [*ends, len(values)], strict=True):
        yield int(start), int(end - start)


def lasting(flags: Flags, least: int) -> Flags:
    """Of what is flagged, the stretches of so many seconds or more."""
    found = np.zeros(len(flags), dtype=bool)
    for at, length in lengths(flags):
        if flags[at] and length >= least:
            found[at : at + length] = True
    return found


def running_median(values: Floats, each: int) -> Floats:
    """The median of so many seconds to each side; gaps count as what lies straight between their ends."""
    there = ~np.isnan(values)
    if not there.any():
        return np.zeros(len(values))
    seconds = np.arange(len(values))
    whole = np.interp(seconds, seconds[there], values[there])
    windows = sliding_window_view(np.pad(whole, each, mode="edge"), 2 * each + 1)
    return np.asarray(np.median(windows, axis=1))


def told_every(raw: Floats) -> int:
    """Each how many seconds a strap tells: 1, or 2 to 5; 1 where it tells more seldom, and leaves gaps."""
    there = np.flatnonzero(~np.isnan(raw))
    every = int(np.median(np.diff(there))) if len(there) > 1 else 1
    return every if every <= SLOWEST_S else 1


def filled(raw: Floats, every: int) -> Floats:
    """A trace of a strap that tells so seldom, straight from reading to reading."""
    if every == 1:
        return raw
    there = np.flatnonzero(~np.isnan(raw))
    seconds = np.arange(len(raw))
    between = np.interp(seconds, there, raw[there])
    last = np.maximum.accumulate(np.where(np.isnan(raw), -len(raw), seconds))
    next_ = np.minimum.accumulate(np.where(np.isnan(raw), 2 * len(raw), seconds)[::-1])[::-1]
    lasts = (next_ > len(raw)) & (seconds - last < 2 * every)
    near = (next_ - last <= 2 * every) | lasts
    return np.where(near, between, raw)


def jumps(good: Floats) -> list[int]:
    """Where it has got within three seconds to somewhere at least nine beats away."""
    if len(good) <= JUMP_S:
        return []
    with np.errstate(invalid="ignore"):
        far = np.abs(good[JUMP_S:] - good[:-JUMP_S]) >= JUMP
    return [at + JUMP_S for at, _ in _on(far)] + [at + 1 for at, _ in _on(far)]


def _on(flags: Flags) -> Iterator[tuple[int, int]]:
    return ((at, length) for at, length in lengths(flags) if flags[at])


HELD_S = 10


def held_highest(clean: Floats) -> int | None:
    """The highest that was held for ten clean seconds; None where none were."""
    if len(clean) < HELD_S:
        return None
    least = np.lib.stride_tricks.sliding_window_view(clean, HELD_S).min(axis=1)
    return None if np.isnan(least).all() else int(np.nanmax(least))
