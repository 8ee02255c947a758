"""Many hearts at once, second by second: the model of ``body`` over arrays, exact within a step of one demand."""

from collections.abc import Sequence
from math import sqrt
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from lovrit.core.heart.body import Body, settled
from lovrit.core.values import fields_of

Floats = NDArray[np.float64]
ROOTS = tuple(sqrt(prime) % 1 for prime in (2, 3, 5, 7, 11, 13, 17, 19, 23, 29))
# how far people are apart: a factor's logarithm, or in its own unit (figures of practice, to be checked)
FACTORS = {"tau_on": 0.22, "tau_off": 0.25, "tau_m": 0.25, "tau_s": 0.25, "g": 0.4}
STEPS = {"delay": 1.2, "w": 0.06, "gain": 0.06}
CLIPS = {
    "tau_on": (18, 60), "tau_off": (35, 120), "tau_m": (3, 14), "delay": (0, 8), "w": (0.05, 0.4), "gain": (0.75, 1.25),
}  # fmt: skip
STANDING = 0.12


def company(body: Body, count: int, rest_sd: float, highest_sd: float, skip: int = 0) -> list[Body]:
    """People like one, apart as people are; always the same ones, so that nothing jumps between looks.

    ``skip`` leaves out the first ones, so that people like somebody else are apart in other ways.
    """
    made = []
    for nth in range(skip + 1, skip + count + 1):
        draws = [NormalDist().inv_cdf(min(0.999, max(0.001, (nth * root) % 1))) for root in ROOTS]
        spread = dict(zip((*FACTORS, *STEPS), draws, strict=False))
        fields = fields_of(body)
        fields |= {name: fields[name] * np.exp(sd * spread[name]) for name, sd in FACTORS.items()}
        fields |= {name: fields[name] + sd * spread[name] for name, sd in STEPS.items()}
        fields |= {name: min(high, max(low, fields[name])) for name, (low, high) in CLIPS.items()}
        rest = body.rest + rest_sd * draws[8]
        highest = max(rest + 40, body.highest + highest_sd * draws[9])
        made.append(
            Body(
                **{
                    name: float(value)
                    for name, value in (fields | {"rest": rest, "highest": highest}).items()
                }
            )
        )
    return made


class ManyHearts:
    """Where some hearts are; ``run`` and ``until`` move them on and say their beats a minute, before the delay."""

    def __init__(self, bodies: Sequence[Body], demand: float = STANDING) -> None:
        self.n = len(bodies)
        self._p = {
            name: np.array([getattr(one, name) for one in bodies]) for name in fields_of(bodies[0])
        }
        begin = settled(demand)
        self._f = np.full(self.n, begin.f) * self._p["gain"]
        self._h, self._s, self._d = self._f.copy(), self._f.copy(), np.zeros(self.n)
        self._column = {name: value[:, None] for name, value in self._p.items()}
        fast = 0.8 * np.minimum(self._p["tau_on"], self._p["tau_off"])
        self._tau_m = np.minimum(self._p["tau_m"], fast)

    @property
    def delay(self) -> Floats:
        """Seconds by which each is read late."""
        return self._p["delay"]

    def now(self) -> Floats:
        """Beats a minute as they are."""
        return self._beats(self._h, self._s, self._d)

    def run(self, seconds: int, demand: float) -> Floats:
        """So many seconds of one demand (share of reserve): beats at the end of each, people by seconds."""
        t = np.arange(1.0, seconds + 1)[None, :]
        f, h, s, d = self._after(t, demand)
        beats = self._beats(h, s, d)
        self._f, self._h, self._s, self._d = f[:, -1], h[:, -1], s[:, -1], d[:, -1]
        return beats

    def until(self, bpm: float, demand: float, least: int, most: int, down: bool) -> Floats:
        """Seconds until each heart has come down to, or up to, so many beats, within limits; each then waits there."""
        t = np.arange(1.0, most + 1)[None, :]
        f, h, s, d = self._after(t, demand)
        beats = self._beats(h, s, d)
        there = beats <= bpm if down else beats >= bpm
        first = np.where(there.any(axis=1), there.argmax(axis=1) + 1, most)
        took = np.clip(np.ceil(first + self.delay), least, most).astype(int)
        at = (np.arange(self.n), took - 1)
        self._f, self._h, self._s, self._d = f[at], h[at], s[at], d[at]
        return took.astype(float)

    def _after(self, t: Floats, demand: float) -> tuple[Floats, Floats, Floats, Floats]:
        p = self._column
        u = demand * p["gain"]
        f, h, s, d = (one[:, None] for one in (self._f, self._h, self._s, self._d))
        tau = np.where(u > f, p["tau_on"], p["tau_off"])
        tau_m = self._tau_m[:, None]
        k = (f - u) * tau / (tau - tau_m)
        fast = np.exp(-t / tau)
        drift = p["g"] * np.maximum(0.0, u - p["u0"]) / (1 - p["u0"])
        return (
            u + (f - u) * fast,
            u + k * fast + (h - u - k) * np.exp(-t / tau_m),
            u + (s - u) * np.exp(-t / p["tau_s"]),
            drift + (d - drift) * np.exp(-t / p["tau_d"]),
        )

    def _beats(self, h: Floats, s: Floats, d: Floats) -> Floats:
        p = self._p if h.ndim == 1 else self._column
        x = p["rest"] + (p["highest"] - p["rest"]) * ((1 - p["w"]) * h + p["w"] * s) + d
        z = np.maximum(0.0, x - (p["highest"] - p["cap"]))
        return np.asarray(x - z * z / (z + p["cap"]))


def late(beats: Floats, delay: Floats) -> Floats:
    """Beats as they are read: each heart so many seconds late, with its first reading before."""
    seconds = np.arange(beats.shape[1])
    return np.array(
        [np.interp(seconds - by, seconds, line) for line, by in zip(beats, delay, strict=True)]
    )
