"""How a heart answers a demand: a fast part, a short smoothing, a slow part, a drift, a soft cap.

Exact over a step of constant demand, so that splitting a step changes nothing. A model of ours, tried on
made-up people: the numbers are starting points, not findings.
"""

from math import exp

from lovrit.core.values import Value


class Body(Value):
    """A person's heart. Seconds for the times, beats a minute for the rest, shares for ``w``, ``u0`` and ``gain``."""

    rest: float = 60
    highest: float = 190
    tau_on: float = 28
    tau_off: float = 65
    tau_m: float = 6
    delay: float = 3
    w: float = 0.22
    tau_s: float = 150
    g: float = 27
    tau_d: float = 5400
    u0: float = 0.3
    cap: float = 6
    gain: float = 1


class BodyState(Value):
    """Where a heart is: the fast part, its smoothing, the slow part (shares of reserve), the drift (beats)."""

    f: float = 0
    h: float = 0
    s: float = 0
    d: float = 0


def settled(demand: float) -> BodyState:
    """A heart in balance with a demand that has lasted, before any drift."""
    return BodyState(f=demand, h=demand, s=demand)


def step(body: Body, state: BodyState, demand: float, seconds: float) -> BodyState:
    """The state after ``seconds`` of a constant demand (share of reserve, before the person's gain)."""
    u = demand * body.gain
    tau = body.tau_on if u > state.f else body.tau_off
    tau_m = min(body.tau_m, 0.8 * min(body.tau_on, body.tau_off))
    a = state.f - u
    k = a * tau / (tau - tau_m)
    fast = exp(-seconds / tau)
    drift = body.g * max(0.0, u - body.u0) / (1 - body.u0)
    return BodyState(
        f=u + a * fast,
        h=u + k * fast + (state.h - u - k) * exp(-seconds / tau_m),
        s=u + (state.s - u) * exp(-seconds / body.tau_s),
        d=drift + (state.d - drift) * exp(-seconds / body.tau_d),
    )


def beats(body: Body, state: BodyState) -> float:
    """Beats a minute in a state, softly held under the highest."""
    x = (
        body.rest
        + (body.highest - body.rest) * ((1 - body.w) * state.h + body.w * state.s)
        + state.d
    )
    z = max(0.0, x - (body.highest - body.cap))
    return x - z * z / (z + body.cap) if z else x


HOT_FROM, HOTTER = 22, 0.1  # degrees, and how much further a heart drifts for each above


def drifting(celsius: int | None) -> float:
    """How many times further a heart drifts in such weather (Coyle and Gonzalez-Alonso 2001 for that it does; ours)."""
    return 1.0 if celsius is None else 1 + HOTTER * max(0, celsius - HOT_FROM)


USUAL_RECOVERY_S, SLOWER_FROM, SLOWER_A_YEAR = 65.0, 55, 1.01


def recovery_s(age: int | None) -> float:
    """Seconds in which a usual heart comes two thirds of the way down; one in a hundred more a year from 55 on."""
    return USUAL_RECOVERY_S * SLOWER_A_YEAR ** max(0, (age or 0) - SLOWER_FROM)
