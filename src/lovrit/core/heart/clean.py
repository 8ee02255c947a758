"""Readings that are no heart's: found, named and left out; the raw trace is never changed.

The reference is the forecast where there is one, with the running median of what it misses; else the running median of
the trace itself. The rules and their figures are from a prototype on made-up traces, to be checked.
"""

from itertools import groupby
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from lovrit.core.heart.hearts import Floats

Flags = NDArray[np.bool_]
Kinds = NDArray[np.object_]
LOWEST, HIGHEST = 25, 235
FLAT_S, FLAT_MOVING_S, MOVES = 20, 8, 5
SPIKE, SPIKE_WINDOW = 9, 5  # beats from the median of so many seconds to each side
DOUBLED, HALVED, RATIO_S = (1.7, 2.3), (0.40, 0.62), 2
PER_CENT, PER_CENT_S, LOW_WORK = 0.72, 30, 100
MISSES_S, ALONE_S = 90, 30
WHY = {
    "dropout": "no signal, or no heart beats so",
    "flat": "one value all along while a heart moves",
    "spike": "far from its neighbours for a moment",
    "doubled": "about twice what it should be: beats counted double",
    "halved": "about half of what it should be: every second beat counted",
    "per cent": "so low all through the work that it may be per cent, not beats; ask",
}


class Fault(NamedTuple):
    """A stretch of readings that is left out: its kind, from and to (seconds, the last one within), and why."""

    kind: str
    start_s: int
    end_s: int
    why: str


class Cleaned(NamedTuple):
    """A trace with its faults: the readings that hold, not a number where they don't."""

    faults: tuple[Fault, ...]
    clean: Floats


def clean(raw: Floats, forecast: Floats | None = None, working: Floats | None = None) -> Cleaned:
    """A trace at 1 Hz (not a number where nothing was read), held against a forecast of it where there is one.

    ``working`` says of each second whether it was work (1) or not (0).
    """
    kinds = np.full(len(raw), "", dtype=object)
    gone = np.isnan(raw) | (raw < LOWEST) | (raw > HIGHEST)
    kinds[gone] = "dropout"
    good = np.where(gone, np.nan, raw)
    reference = _reference(good, forecast)
    _mark(kinds, _ratio(good, reference, *DOUBLED), "doubled")
    if not _per_cent(kinds, good, forecast, working):
        _mark(kinds, _ratio(good, reference, *HALVED), "halved")
    _mark(kinds, _flat(good, forecast), "flat")
    left = np.where(kinds == "", good, np.nan)
    _mark(kinds, _spikes(left), "spike")
    return Cleaned(tuple(_stretches(kinds)), np.where(kinds == "", raw, np.nan))


def _mark(kinds: Kinds, where: Flags, kind: str) -> None:
    kinds[where & (kinds == "")] = kind


def _running(values: Floats, each: int) -> Floats:
    """The median of so many seconds to each side, of those that are there."""
    found = np.full(len(values), np.nan)
    for nth in range(len(values)):
        near = values[max(0, nth - each) : nth + each + 1]
        near = near[~np.isnan(near)]
        if len(near):
            found[nth] = np.median(near)
    return found


def _reference(good: Floats, forecast: Floats | None) -> Floats:
    if forecast is None:
        return _running(good, ALONE_S)
    return forecast + np.nan_to_num(_running(good - forecast, MISSES_S))


def _ratio(good: Floats, reference: Floats, low: float, high: float) -> Flags:
    """Where a reading is so many times its reference for two seconds or more."""
    with np.errstate(invalid="ignore"):
        off = (good >= low * reference) & (good <= high * reference)
    return _lasting(off, RATIO_S)


def _lasting(flags: Flags, least: int) -> Flags:
    """Stretches of so many seconds or more."""
    found = np.zeros(len(flags), dtype=bool)
    at = 0
    for on, some in groupby(flags):
        length = len(list(some))
        if on and length >= least:
            found[at : at + length] = True
        at += length
    return found


def _flat(good: Floats, forecast: Floats | None) -> Flags:
    """One value for twenty seconds; for eight while the forecast moves by five beats or more."""
    found = np.zeros(len(good), dtype=bool)
    at = 0
    for value, some in groupby(good):
        length = len(list(some))
        moves = 0.0 if forecast is None else float(np.ptp(forecast[at : at + length]))
        if not np.isnan(value) and (
            length >= FLAT_S or (length >= FLAT_MOVING_S and moves >= MOVES)
        ):
            found[at : at + length] = True
        at += length
    return found


def _spikes(good: Floats) -> Flags:
    with np.errstate(invalid="ignore"):
        return np.abs(good - _running(good, SPIKE_WINDOW)) > SPIKE


def _per_cent(kinds: Kinds, good: Floats, forecast: Floats | None, working: Floats | None) -> bool:
    """Mark what may be per cent for beats: long and far under the forecast, most of the work under a hundred."""
    if forecast is None or working is None or not working.any():
        return False
    with np.errstate(invalid="ignore"):
        low = good < PER_CENT * forecast
        in_work = good[working.astype(bool)]
        under = (
            np.nanmean(in_work < LOW_WORK) if len(in_work) and not np.isnan(in_work).all() else 0.0
        )
    if under <= 0.5:
        return False
    _mark(kinds, _lasting(low, PER_CENT_S), "per cent")
    return True


def _stretches(kinds: Kinds) -> list[Fault]:
    found, at = [], 0
    for kind, some in groupby(kinds):
        length = len(list(some))
        if kind:
            found.append(Fault(kind, at, at + length - 1, WHY[kind]))
        at += length
    return found
