"""How even works were: the spread between slowest and quickest, and whether the last were slower than the first."""

from statistics import fmean

from lovrit.core.clock import clock, read_clock

SLOWER, TOO_FAST = 1.03, 1.15  # coaches' practice, to be checked


def evenness(times: list[float]) -> float | None:
    """How far the slowest and the quickest of some repeats are apart, over their mean; None of fewer than two."""
    return round((max(times) - min(times)) / fmean(times), 3) if len(times) > 1 else None


def fade(times: list[float]) -> float | None:
    """The mean of the last two repeats over that of the first two; None of fewer than three."""
    return round(fmean(times[-2:]) / fmean(times[:2]), 3) if len(times) > 2 else None


def read_times(score: str) -> str:
    """Times of repeats as coaches read them; empty for a single one, which is the slowest.

    >>> read_times("1:30 1:31 1:33 1:36")
    'slowest 1:36, 6 % between slowest and quickest, the last two 4 % slower'
    """
    times = [float(read_clock(one)) for one in score.split()]
    return how_even(times) if len(times) > 1 else ""


def how_even(times: list[float]) -> str:
    """The slowest of some repeats, how even they were, and how the last two were, in words."""
    spread, faded = evenness(times), fade(times)
    said = f"slowest {clock(round(max(times)))}"
    said += f", {round(spread * 100)} % between slowest and quickest" if spread is not None else ""
    slower = faded is not None and faded > SLOWER
    return said + (f", the last two {round(((faded or 1) - 1) * 100)} % slower" if slower else "")


def read_counts(score: str, works: int) -> str:
    """Reps or metres of works: all of them where each is said, and whether the first third was too fast."""
    *said, unit = score.split() or [""]
    values = [int(one) for one in said if one.isdecimal()]
    if not values:
        return ""
    told = [f"{sum(values)} {unit} in all"] if len(values) in (1, works) and works > 1 else []
    third = max(1, len(values) // 3)
    first, last = sum(values[:third]) / third, sum(values[-third:]) / third
    if len(values) >= 3 and last and first > TOO_FAST * last:
        told.append(
            f"went out too fast: {round((first / last - 1) * 100)} % more at first than at last"
        )
    return ", ".join(told)
