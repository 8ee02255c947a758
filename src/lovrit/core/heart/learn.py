"""Learning a person's heart from clean traces: how quickly it rises and falls, and how much it does for a demand.

Least squares (SciPy) on the logarithms of the rise, the fall and the gain, held by what people usually are. What an
evening does to all of it (a hot hall, a bad night) is taken out as an offset of that evening's own. A fit is used only
where it foretells what it has not seen better than the start does. Figures are from a prototype, to be checked.
"""

from collections.abc import Sequence
from math import exp, log, sqrt
from typing import NamedTuple

import numpy as np

from lovrit.core.crew.fit import FAR_OFF, Fitted, Pace
from lovrit.core.heart.body import Body
from lovrit.core.heart.hearts import Floats, ManyHearts

# one standard deviation of people: rise, fall, gain (logarithms)
SPREAD = np.array([0.22, 0.25, 0.10])
# far outside people: a heart that isn't built as ours is comes near with a rise that nobody's is
BOUNDS = (np.log([6.0, 15.0, 0.7]), np.log([80.0, 180.0, 1.35]))
MISS = 3.0 * sqrt(12)  # beats; errors hang together over some twelve seconds
# beats that an evening may lie off as a whole, one standard deviation
OFFSET, LONE_OFFSET = 2.5, 8.0
SURE = 0.03  # what an evening can't tell may hardly move: the gain from a lone one, the fall without long rests
STEP = 1e-3
HALF_LIFE_WEEKS = 10.0
LEAST_MIN = 6.0  # clean minutes, old ones counted less, under which nothing is claimed
BETTER, BETTER_BEATS = 0.92, 0.4  # how much better it must foretell to be used
FOLDS = 3
# evenings from which on one that is so many times further off than usual is left out
SEVERAL, ODD = 3, 2.5
MOST_OFF = FAR_OFF
KNOWN = 0.6  # of the usual spread: a figure known no better than that says nothing
QUICK, SLOW = 0.82, 1.22
LONG_REST_S, LONG_RESTS = 45, 2  # without long rests nothing is known of coming down
MOVES = 12.0  # beats by which a trace has to move to tell of rising and falling


class Evening(NamedTuple):
    """What was asked, step by step (seconds, share of reserve), the clean trace of it, weeks ago, how warm it was."""

    asked: tuple[tuple[int, float], ...]
    clean: Floats
    weeks: float = 0
    celsius: int | None = None

    @property
    def weight(self) -> float:
        """How much it counts still."""
        return float(0.5 ** (self.weeks / HALF_LIFE_WEEKS))

    @property
    def minutes(self) -> float:
        """Clean minutes."""
        return float((~np.isnan(self.clean)).sum() / 60)


def learn(body: Body, evenings: Sequence[Evening]) -> Fitted | None:
    """What these evenings say of a heart taken for ``body``; None where they say too little.

    Evenings are in the order in which they were, the newest last.
    """
    told = _as_planned(body, [one for one in evenings if moves(one)])
    if sum(one.minutes * one.weight for one in told) < LEAST_MIN:
        return None
    point, sd = _fit(body, told)
    before, after = _foretold(body, told, point)
    if after > min(BETTER * before, before - BETTER_BEATS, MOST_OFF):
        return _as_start(body, told, before, point, sd)
    rise, fall, gain = (float(exp(one)) for one in point)
    knows = sd < KNOWN * _spread(told)
    return Fitted(
        tau_on=rise,
        tau_off=fall,
        gain=gain,
        minutes=round(sum(one.minutes for one in told), 1),
        evenings=len(told),
        before=round(before, 1),
        after=round(after, 1),
        up=_word(rise / body.tau_on) if knows[0] else "",
        down=_word(fall / body.tau_off) if knows[1] and _rested(told) else "",
    )


def _as_start(
    body: Body, told: Sequence[Evening], before: float, point: Floats, sd: Floats
) -> Fitted:
    """What is assumed to begin with, which foretells no worse; “usual” where these evenings know so much."""
    rise, fall, _ = np.exp(point)
    knows = sd < KNOWN * _spread(told)
    up = knows[0] and _word(rise / body.tau_on) == "usual"
    down = knows[1] and _rested(told) and _word(fall / body.tau_off) == "usual"
    return Fitted(
        tau_on=body.tau_on,
        tau_off=body.tau_off,
        gain=body.gain,
        minutes=round(sum(one.minutes for one in told), 1),
        evenings=len(told),
        before=round(before, 1),
        after=round(before, 1),
        up="usual" if up else "",
        down="usual" if down else "",
        as_start=True,
    )


def _as_planned(body: Body, evenings: list[Evening]) -> list[Evening]:
    """Without evenings on which something else was done than was asked: far further off than somebody's others are."""
    if len(evenings) < SEVERAL:
        return evenings
    off = [error(body, one, offset=True) for one in evenings]
    usual = float(np.median(off))
    return [one for one, by in zip(evenings, off, strict=True) if by <= max(ODD * usual, MOST_OFF)]


def learnt_body(body: Body, fit: Fitted | None) -> Body:
    """A heart as it was learnt; as it was taken for where nothing was."""
    if fit is None or fit.as_start:
        return body
    return body.but(tau_on=fit.tau_on, tau_off=fit.tau_off, gain=fit.gain)


def _word(ratio: float) -> Pace:
    return "quick" if ratio < QUICK else "slow" if ratio > SLOW else "usual"


def moves(one: Evening) -> bool:
    """Whether a trace moves at all: one that sat it out, or kept to one rate, says nothing of rising and falling."""
    held = one.clean[~np.isnan(one.clean)]
    return len(held) > 60 and float(np.quantile(held, 0.9) - np.quantile(held, 0.1)) >= MOVES


def _rested(evenings: Sequence[Evening]) -> bool:
    """Whether there were rests that are long enough to tell how a heart comes down, and were read."""
    count = 0
    for one in evenings:
        at, before = 0, 0.0
        for seconds, demand in one.asked:
            here = one.clean[at : at + LONG_REST_S]
            falls = demand < before - 0.2 and seconds >= LONG_REST_S
            count += falls and len(here) == LONG_REST_S and np.isnan(here).sum() * 3 < LONG_REST_S
            at, before = at + seconds, demand
    return count >= LONG_RESTS


def _spread(evenings: Sequence[Evening]) -> Floats:
    """How far the figures may be from the start.

    A lone evening can't tell a heart that does more for an effort from a bad evening, so it moves no gain.
    """
    fall = 1.0 if _rested(evenings) else SURE
    own: Floats = SPREAD * np.array([1.0, fall, 1.0 if len(evenings) > 1 else SURE])
    return own


def lines(bodies: list[Body], one: Evening) -> Floats:
    """Each body's beats at 1 Hz, cut or held to the trace's length."""
    found = ManyHearts(bodies, celsius=one.celsius).line(one.asked)[:, : len(one.clean)]
    short = len(one.clean) - found.shape[1]
    if short > 0:
        found = np.concatenate([found, np.repeat(found[:, -1:], short, axis=1)], axis=1)
    return found


def _body(body: Body, point: Floats) -> Body:
    rise, fall, gain = np.exp(point)
    return body.but(tau_on=float(rise), tau_off=float(fall), gain=float(gain))


def _fit(
    body: Body, evenings: Sequence[Evening], near: Floats | None = None
) -> tuple[Floats, Floats]:
    """The logarithms that fit best, and one standard deviation of each; looked for from ``near`` on, if known."""
    from scipy.optimize import least_squares

    start = np.array([log(body.tau_on), log(body.tau_off), log(body.gain)])
    low, high = BOUNDS
    kept: dict[bytes, tuple[Floats, Floats]] = {}

    def both(point: Floats) -> tuple[Floats, Floats]:
        key = point.tobytes()
        if key not in kept:
            kept.clear()
            kept[key] = _residuals(body, evenings, start, point)
        return kept[key]

    free = np.zeros(len(evenings))
    found = least_squares(
        lambda point: both(point)[0],
        np.concatenate([np.clip(start if near is None else near, low + 1e-6, high - 1e-6), free]),
        jac=lambda point: both(point)[1],
        bounds=(np.concatenate([low, free - 40]), np.concatenate([high, free + 40])),
        loss="soft_l1",
        tr_solver="lsmr",  # of so few columns: a whole decomposition of each second is not needed
        max_nfev=25,
        xtol=1e-4,
        ftol=1e-4,
    )
    spread = np.sqrt(np.diag(np.linalg.pinv(found.jac.T @ found.jac)))
    return found.x[:3], spread[:3]


def _residuals(
    body: Body, evenings: Sequence[Evening], start: Floats, point: Floats
) -> tuple[Floats, Floats]:
    """What is missed, in its usual error, and how that changes with each figure: four hearts are run at once."""
    nudged = [point[:3], *(point[:3] + STEP * np.eye(3)[nth] for nth in range(3))]
    bodies = [_body(body, one) for one in nudged]
    missed, slopes = [], []
    for nth, one in enumerate(evenings):
        there = ~np.isnan(one.clean)
        told = lines(bodies, one)[:, there]
        scale = sqrt(one.weight) / MISS
        missed.append((told[0] + point[3 + nth] - one.clean[there]) * scale)
        mine = np.zeros((int(there.sum()), len(point)))
        mine[:, :3] = ((told[1:] - told[0]) / STEP * scale).T
        mine[:, 3 + nth] = scale
        slopes.append(mine)
    spread = _spread(evenings)
    offset = OFFSET if len(evenings) > 1 else LONE_OFFSET
    held = np.concatenate([(point[:3] - start) / spread, point[3:] / offset])
    own = np.diag(np.concatenate([1 / spread, np.full(len(point) - 3, 1 / offset)]))
    return np.concatenate([*missed, held]), np.concatenate([*slopes, own])


def _foretold(body: Body, evenings: Sequence[Evening], near: Floats) -> tuple[float, float]:
    """The error (root of the mean square, beats) on what a fit has not seen: before it, and with it.

    Each of the last evenings is foretold by the others; a lone one's halves by each other, where its
    own offset counts for neither.
    """
    lone = len(evenings) == 1
    if not lone:
        folds = range(max(0, len(evenings) - FOLDS), len(evenings))
        pairs = [([*evenings[:nth], *evenings[nth + 1 :]], evenings[nth]) for nth in folds]
    else:
        one = evenings[0]
        middle = len(one.clean) // 2
        nothing = np.full(len(one.clean), np.nan)
        first, second = nothing.copy(), nothing.copy()
        first[:middle], second[middle:] = one.clean[:middle], one.clean[middle:]
        pairs = [
            ([one._replace(clean=first)], one._replace(clean=second)),
            ([one._replace(clean=second)], one._replace(clean=first)),
        ]
    errors = [
        (error(body, unseen, lone), error(_body(body, _fit(body, seen, near)[0]), unseen, lone))
        for seen, unseen in pairs
        if unseen.minutes and any(one.minutes for one in seen)
    ]
    if not errors:
        return 0.0, 0.0
    before, after = np.median(np.array(errors), axis=0)  # one odd evening decides nothing
    return float(before), float(after)


def error(body: Body, one: Evening, offset: bool = False) -> float:
    """How far a heart is off on an evening, in beats (root of the mean square), with or without its ``offset``."""
    there = ~np.isnan(one.clean)
    missed = lines([body], one)[0][there] - one.clean[there]
    return float(np.sqrt(((missed - np.median(missed) * offset) ** 2).mean()))
