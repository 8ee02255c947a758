"""Many hearts at once, second by second: the model of ``body`` over arrays, exact within a step of one demand."""

from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from math import sqrt
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from lovrit.core.heart.body import Body, drifting, settled
from lovrit.core.values import fields_of

Floats = NDArray[np.float64]
Asked = float | Floats  # of all hearts alike, or of each
ROOTS = tuple(sqrt(prime) % 1 for prime in (2, 3, 5, 7, 11, 13, 17, 19, 23, 29))
# how far people are apart: a factor's logarithm, or in its own unit (figures of practice, to be checked)
FACTORS = {"tau_on": 0.22, "tau_off": 0.25, "tau_m": 0.25, "tau_s": 0.25, "g": 0.4}
STEPS = {"delay": 1.2, "w": 0.06, "gain": 0.06}
CLIPS = {
    "tau_on": (18, 60), "tau_off": (35, 120), "tau_m": (3, 14), "delay": (0, 8), "w": (0.05, 0.4), "gain": (0.75, 1.25),
}  # fmt: skip
STANDING = 0.12
LONGEST_S = 120  # of the table of decays


@lru_cache(maxsize=2048)
def company(
    body: Body, count: int, rest_sd: float, highest_sd: float, skip: int = 0
) -> tuple[Body, ...]:
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
    return tuple(made)


class ManyHearts:
    """Where some hearts are; ``run`` and ``until`` move them on and say their beats a minute, before the delay."""

    def __init__(
        self, bodies: Sequence[Body], demand: float = STANDING, celsius: int | None = None
    ) -> None:
        self.n = len(bodies)
        self._p = {
            name: np.array([getattr(one, name) for one in bodies]) for name in fields_of(bodies[0])
        }
        self._p["g"] = self._p["g"] * drifting(celsius)
        begin = settled(demand)
        self._f = np.full(self.n, begin.f) * self._p["gain"]
        self._h, self._s, self._d = self._f.copy(), self._f.copy(), np.zeros(self.n)
        self._column = {name: value[:, None] for name, value in self._p.items()}
        fast = 0.8 * np.minimum(self._p["tau_on"], self._p["tau_off"])
        self._tau_m = np.minimum(self._p["tau_m"], fast)
        # what each step asks again, worked out once: shares of the span, and how the smoothing leans on the fast part
        self._span = self._p["highest"] - self._p["rest"]
        self._quick = self._span * (1 - self._p["w"])
        self._up = self._p["tau_on"] / (self._p["tau_on"] - self._tau_m)
        self._down = self._p["tau_off"] / (self._p["tau_off"] - self._tau_m)
        self._drifts = self._p["g"] / (1 - self._p["u0"])

    @property
    def delay(self) -> Floats:
        """Seconds by which each is read late."""
        return self._p["delay"]

    def now(self) -> Floats:
        """Beats a minute as they are."""
        return self._beats(self._h, self._s, self._d)

    def line(self, steps: Iterable[tuple[int, Asked]]) -> Floats:
        """Beats as they are read at 1 Hz from now on, through steps of so many seconds of one demand each.

        What a step does is a sum of decays: they stand in a table, made once, and each step is one batched product with
        it. Long steps are walked in pieces, which changes nothing and keeps the table short.
        """
        walked = [piece for seconds, demand in steps for piece in _pieces(seconds, demand)]
        table = self._decays(max((seconds for seconds, _ in walked), default=0))
        x = np.empty((self.n, 1 + sum(seconds for seconds, _ in walked)))
        x[:, 0] = self._before_cap(self._h, self._s, self._d)
        at = 1
        for seconds, demand in walked:
            np.matmul(
                self._walk(table, seconds, demand),
                table[:, :, :seconds],
                out=x[:, None, at : at + seconds],
            )
            at += seconds
        return late(self._capped(x), self.delay)

    def _decays(self, longest: int) -> Floats:
        """People by decays by seconds: of rising, falling, the smoothing, the slow part, the drift, and what stays."""
        t = np.arange(1.0, longest + 1)[None, :]
        p = self._column
        taus = (p["tau_on"], p["tau_off"], self._tau_m[:, None], p["tau_s"], p["tau_d"])
        return np.stack([*(np.exp(-t / tau) for tau in taus), np.ones((self.n, longest))], axis=1)

    def _walk(self, table: Floats, seconds: int, demand: Asked) -> Floats:
        """How much of each decay a step of one demand is; the hearts are behind it from here on."""
        p = self._p
        u = demand * p["gain"]
        up = u > self._f
        a = self._f - u
        k = a * np.where(up, self._up, self._down)
        smooth, slow = self._h - u - k, self._s - u
        to = self._drifts * np.maximum(0.0, u - p["u0"])
        drift = self._d - to
        much = np.empty((self.n, 1, 6))
        quick = self._quick * k
        much[:, 0, 0] = np.where(up, quick, 0.0)
        much[:, 0, 1] = quick - much[:, 0, 0]
        much[:, 0, 2] = self._quick * smooth
        much[:, 0, 3] = (self._span - self._quick) * slow
        much[:, 0, 4] = drift
        much[:, 0, 5] = p["rest"] + self._span * u + to
        on, off, of_m, of_s, of_d, _ = table[:, :, seconds - 1].T
        fast = np.where(up, on, off)
        self._f, self._h = u + a * fast, u + k * fast + smooth * of_m
        self._s, self._d = u + slow * of_s, to + drift * of_d
        return much

    def run(self, seconds: int, demand: Asked) -> Floats:
        """So many seconds of one demand (share of reserve, of all or of each): beats of each second, a row a heart."""
        t = np.arange(1.0, seconds + 1)[None, :]
        f, h, s, d = self._after(t, demand)
        beats = self._beats(h, s, d)
        self._f, self._h, self._s, self._d = f[:, -1], h[:, -1], s[:, -1], d[:, -1]
        return beats

    def until(self, bpm: float, demand: Asked, least: int, most: int, down: bool) -> Floats:
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

    def _after(self, t: Floats, demand: Asked) -> tuple[Floats, Floats, Floats, Floats]:
        p = self._column
        u = (demand if isinstance(demand, float) else demand[:, None]) * p["gain"]
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
        return self._capped(self._before_cap(h, s, d))

    def _before_cap(self, h: Floats, s: Floats, d: Floats) -> Floats:
        p = self._p if h.ndim == 1 else self._column
        return np.asarray(
            p["rest"] + (p["highest"] - p["rest"]) * ((1 - p["w"]) * h + p["w"] * s) + d
        )

    def _capped(self, x: Floats) -> Floats:
        """Softly held under the highest; most hearts are nowhere near it."""
        if x.ndim == 1:
            return _soft(x, self._p["highest"], self._p["cap"])
        near = np.flatnonzero(x.max(axis=1) > self._p["highest"] - self._p["cap"])
        if len(near):
            x[near] = _soft(x[near], self._column["highest"][near], self._column["cap"][near])
        return x


def _pieces(seconds: int, demand: Asked) -> Iterator[tuple[int, Asked]]:
    """A step in pieces of no more than the table's length."""
    for begun in range(0, seconds, LONGEST_S):
        yield min(LONGEST_S, seconds - begun), demand


def _soft(x: Floats, highest: Floats, cap: Floats) -> Floats:
    z = np.maximum(0.0, x - (highest - cap))
    return np.asarray(x - z * z / (z + cap))


def late(beats: Floats, delay: Floats) -> Floats:
    """Beats as they are read: each heart so many seconds late, with its first reading before."""
    read = np.empty_like(beats)
    for line, by, told in zip(beats, delay, read, strict=True):
        whole = int(by)
        part = by - whole
        told[: whole + 1] = line[0]
        rest = len(line) - whole - 1
        if rest > 0:
            np.multiply(line[1 : rest + 1], 1 - part, out=told[whole + 1 :])
            told[whole + 1 :] += part * line[:rest]
    return read
