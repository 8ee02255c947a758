"""Readings that are no heart's: found, named and left out; the raw trace is never changed.

The reference is the forecast where there is one, with the running median of what it misses; else the running median of
the trace itself. The rules and their figures are from a prototype on made-up traces, to be checked.
"""

from itertools import groupby
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.percent import per_cent
from lovrit.core.heart.stretches import (
    Flags,
    filled,
    jumps,
    lasting,
    lengths,
    running_median,
    told_every,
)

Kinds = NDArray[np.object_]
LOWEST, HIGHEST = 25, 235
FLAT_S, FLAT_MOVING_S, MOVES, LETS_GO = 20, 8, 5, 3
FLAT_SELDOM_S = (
    40  # where a strap tells every two to five seconds: few readings are alike by chance
)
SPIKE, SPIKE_WINDOW = 9, 5  # beats from the median of so many seconds to each side
WILD, WILD_S = 12, 4  # beats from second to second, in the mean, and for how long at least
DOUBLED, HALVED, RATIO_S = (1.7, 2.3), (0.40, 0.62), 2
MISSES_S, ALONE_S = 90, 30
STEPS_NEAR, STEPS_OFF, STEPS_S = 4, 10, 8  # of a rate that is known
UNKNOWN_OFF, BEFORE_S = 14, 60  # of one that is not, held against what was before its jump
WHY = {
    "dropout": "no signal, or no heart beats so",
    "flat": "one value all along while a heart moves",
    "spike": "far from its neighbours for a moment",
    "doubled": "about twice what it should be: beats counted double",
    "halved": "about half of what it should be: every second beat counted",
    "steps": "it keeps to one rate, far from the heart: it may count the steps",
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


class Known(NamedTuple):
    """What a trace is held against: the forecast of it at 1 Hz, which seconds were work (1), whose heart, which steps.

    ``rest`` and ``highest`` in beats a minute, ``steps`` a minute; None where nobody knows. ``steers`` is false where
    the heart can't steer: then nothing is taken for per cent.
    """

    forecast: Floats | None = None
    working: Floats | None = None
    rest: float = 62
    highest: float = 186
    steps: float | None = None
    steers: bool = True


NOTHING_KNOWN = Known()


def clean(raw: Floats, known: Known = NOTHING_KNOWN) -> Cleaned:
    """A trace at 1 Hz (not a number where nothing was read), held against what is known of it."""
    every = told_every(raw)
    told = filled(raw, every)
    kinds = np.full(len(raw), "", dtype=object)
    gone = np.isnan(told) | (told < LOWEST) | (told > HIGHEST)
    kinds[gone] = "dropout"
    good = np.where(gone, np.nan, told)
    if not gone.all():
        _judge(kinds, good, known, FLAT_S if every == 1 else FLAT_SELDOM_S)
    kept = np.where(kinds == "", told, np.nan)
    return Cleaned(tuple(_stretches(kinds)), kept)


def _judge(kinds: Kinds, good: Floats, known: Known, alike_s: int) -> None:
    forecast = known.forecast
    if forecast is not None and known.steers:
        _mark(kinds, per_cent(good, forecast, known.rest, known.highest), "per cent")
    left = np.where(kinds == "", good, np.nan)
    if np.isnan(left).all():
        return
    reference = _reference(left, forecast)
    _mark(kinds, _ratio(left, reference, *DOUBLED), "doubled")
    _mark(kinds, _ratio(left, reference, *HALVED), "halved")
    _mark(kinds, _flat(left, forecast, alike_s), "flat")
    _mark(kinds, _wild(np.where(kinds == "", good, np.nan)), "spike")
    if forecast is not None:
        _mark(kinds, _follows(np.where(kinds == "", good, np.nan), forecast, known.steps), "steps")
    _mark(kinds, _spikes(np.where(kinds == "", good, np.nan)), "spike")


def _mark(kinds: Kinds, where: Flags, kind: str) -> None:
    kinds[where & (kinds == "")] = kind


def _reference(good: Floats, forecast: Floats | None) -> Floats:
    if forecast is None:
        return running_median(good, ALONE_S)
    return forecast + running_median(good - forecast, MISSES_S)


def _ratio(good: Floats, reference: Floats, low: float, high: float) -> Flags:
    """Where a reading is so many times its reference for two seconds or more."""
    with np.errstate(invalid="ignore"):
        off = (good >= low * reference) & (good <= high * reference)
    return lasting(off, RATIO_S)


def _flat(good: Floats, forecast: Floats | None, alike_s: int) -> Flags:
    """One value for so many seconds; for eight while the forecast moves by five beats or more."""
    found = np.zeros(len(good), dtype=bool)
    for at, length in lengths(good):
        if length < FLAT_MOVING_S or np.isnan(good[at]):
            continue
        moves = 0.0 if forecast is None else float(np.ptp(forecast[at : at + length]))
        if length >= alike_s or (moves >= MOVES and _lets_go(good, at, at + length)):
            found[at : at + length] = True
    return found


def _lets_go(good: Floats, at: int, end: int) -> bool:
    """Whether a value that stood still goes on with a jump; a heart at rest meanwhile goes on from where it is."""
    after = good[end : end + 1]
    return not len(after) or bool(np.isnan(after[0])) or abs(float(after[0] - good[at])) >= LETS_GO


def _wild(good: Floats) -> Flags:
    """Where it leaps about from second to second: a strap that slips, and no reading of such a while can be trusted."""
    leaps = np.abs(np.diff(good, prepend=good[:1]))
    leaps = np.nan_to_num(leaps)
    window = np.ones(2 * WILD_S + 1) / (2 * WILD_S + 1)
    mean = np.convolve(leaps, window, "full")[WILD_S : WILD_S + len(good)]
    wild: Flags = lasting((mean > WILD) & ~np.isnan(good), WILD_S)
    return wild


def _spikes(good: Floats) -> Flags:
    with np.errstate(invalid="ignore"):
        return np.abs(good - running_median(good, SPIKE_WINDOW)) > SPIKE


def _follows(good: Floats, forecast: Floats, steps: float | None) -> Flags:
    """Where it keeps to the steps: near a rate that is known, else after a jump to somewhere that it stays."""
    if steps is not None:
        with np.errstate(invalid="ignore"):
            near = np.abs(good - steps) <= STEPS_NEAR
            elsewhere = np.where(near, np.nan, good - forecast)
            if np.isnan(elsewhere).all():
                return np.zeros(len(good), dtype=bool)
            off = np.abs(good - forecast - running_median(elsewhere, MISSES_S)) > STEPS_OFF
        return lasting(near & off, STEPS_S)
    found = np.zeros(len(good), dtype=bool)
    for at in sorted(jumps(good)):
        until = _stays(good, at)
        before = np.where(found, np.nan, good - forecast)[:at]
        before = before[~np.isnan(before)][-BEFORE_S:]
        if until - at < STEPS_S or len(before) < STEPS_S:
            continue
        off = np.abs(good[at:until] - forecast[at:until] - np.median(before))
        far = lasting(off > UNKNOWN_OFF, STEPS_S)
        found[at:until] |= far
    return found


def _stays(good: Floats, at: int) -> int:
    """How long it stays within the steps' own unrest of where it has jumped to."""
    first = good[at : at + STEPS_S]
    if len(first) < STEPS_S or np.isnan(first).any():
        return at
    rate = float(np.median(first))
    with np.errstate(invalid="ignore"):
        away = np.flatnonzero(~(np.abs(good[at:] - rate) <= STEPS_NEAR))
    return at + int(away[0]) if len(away) else len(good)


def _stretches(kinds: Kinds) -> list[Fault]:
    found, at = [], 0
    for kind, some in groupby(kinds):
        length = len(list(some))
        if kind:
            found.append(Fault(kind, at, at + length - 1, WHY[kind]))
        at += length
    return found
