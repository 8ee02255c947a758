"""Is it a change? A person's kin values over evenings, held against what wobbles anyway, the evening taken out first.

Typical errors are what coaches expect (Hopkins 2000 for the idea; the figures are practice, to be checked) until a
person's own differences say more. A change is told where it is larger than 1.65 typical errors of a difference, perhaps
one from 1 on; less is about the same. What moves in rungs (a hold that grows by five seconds) is told in rungs.
"""

from itertools import pairwise
from math import exp, gcd, log, sqrt
from statistics import median
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.values import LovritError, Value

# as shares of the value, or in its own unit
SHARES = {"reps": 0.04, "time_s": 0.02, "slowest_s": 0.025, "top_set": 0.03, "hold_s": 0.10}
UNITS = {"drop_60": 5.0, "heart": 4.0, "share": 12.0, "felt": 0.8, "turns": 1.0}
TIMES = frozenset({"time_s", "slowest_s"})  # of these less is better, and is called quicker
SURE, PERHAPS = 1.65, 1.0
PRIOR, LAST, COMPANY, TREND_FROM = 6, 3, 4, 4
KENDALL_TENTH = 1.645
MONTH_DAYS, WEEK_DAYS = 30.4, 7
# holds stand on rungs where so many of them, on so many steps, lie on a grid of so many seconds or more; ours
RUNG_FROM, RUNGS_FROM, RUNG_S = 4, 3, 5
LESS_THAN_A_RUNG = 0.75

Values = dict[str, float]


def usual_wobble(figure: str, value: float) -> float:
    """How far a figure goes up and down from one evening to the next where nothing has changed, in its own unit."""
    return SHARES[figure] * value if figure in SHARES else UNITS[figure]


class CannotCompare(LovritError):
    """Evenings that can't be compared; the sentence says why."""


class Evening(Value):
    """One evening: its day (YYYY-MM-DD) as a number of days, and each person's value."""

    day: int
    values: Values


class Verdict(Value):
    """What is said of a person."""

    now: float
    before: tuple[float, ...]
    verdict: str
    text: str
    trend: str = ""


class Compared(Value):
    """The evening's own shift where it can be told, in words, and each person's verdict."""

    shift: float | None
    text: str
    people: dict[str, Verdict]


def compare(figure: str, more_is_better: bool, evenings: tuple[Evening, ...]) -> Compared:
    """The last evening held against those before it.

    Raises:
        CannotCompare: where the figure isn't one, there is no evening, or a value can't be.
    """
    if figure not in SHARES and figure not in UNITS:
        known = ", ".join((*SHARES, *UNITS))
        raise CannotCompare(f"“{figure}” is no figure that is compared; there are {known}.")
    if not evenings:
        raise CannotCompare("There is no evening to look at.")
    scale = _Scale(figure, _rung(figure, evenings))
    lines = [{who: scale.to(value) for who, value in one.values.items()} for one in evenings]
    now, past = lines[-1], lines[:-1]
    before = {who: [line[who] for line in past if who in line] for who in now}
    changes = {who: now[who] - _mean(some[-LAST:]) for who, some in before.items() if some}
    shift = median(changes.values()) if len(changes) >= COMPANY else None
    told = {
        who: _verdict(
            scale, who, evenings, before[who], changes.get(who), shift, past, more_is_better
        )
        for who in now
    }
    return Compared(
        shift=scale.shift(shift), text=_evening(scale, shift, len(changes)), people=told
    )


class _Scale:
    """Values as they are compared: logarithms where the error is a share of the value, else as they are."""

    def __init__(self, figure: str, rung: "_Rung | None" = None) -> None:
        self.figure, self.rung = figure, rung
        self.error = SHARES.get(figure) or UNITS[figure]
        self.by_share = figure in SHARES and rung is None
        if rung:
            self.error = max(self.error * rung.usual, rung.seconds)  # less than a rung is none

    def to(self, value: float) -> float:
        if self.by_share and value <= 0:
            raise CannotCompare(
                f"{number(value)} is no value of {self.figure}: it is above nothing."
            )
        return log(value) if self.by_share else value

    def shift(self, change: float | None) -> float | None:
        """A change in percent, or in the figure's unit."""
        if change is None:
            return None
        return round((exp(change) - 1) * 100, 1) if self.by_share else round(change, 2)

    def said(self, change: float) -> str:
        """How large a change is, without its direction."""
        if self.rung:
            return self.rung.said(abs(change))
        size = abs(self.shift(change) or 0.0)
        return f"{number(round(size, 1))} {'%' if self.by_share else self.unit}".strip()

    def way(self, change: float) -> str:
        """Which way a change goes: of times a smaller one is quicker."""
        up, down = ("slower", "quicker") if self.figure in TIMES else ("higher", "lower")
        return up if change > 0 else down

    @property
    def unit(self) -> str:
        return {"drop_60": "beats", "heart": "beats", "share": "points"}.get(self.figure, "")


class _Rung(NamedTuple):
    """A step between values that stand on a grid, in seconds, and how large the values usually are."""

    seconds: int
    usual: float

    def said(self, change: float) -> str:
        """A change in whole rungs; less than one is said to be so."""
        rungs = round(change / self.seconds)
        step = f"of {self.seconds} s"
        if change < LESS_THAN_A_RUNG * self.seconds:
            return f"less than a rung {step}"
        return f"a rung {step}" if rungs < 2 else f"{rungs} rungs {step}"

    def a_month(self, slope: float) -> str:
        """A slope in seconds a month: so many rungs a month, or a rung in so many weeks."""
        if abs(slope) >= LESS_THAN_A_RUNG * self.seconds:
            return f"{self.said(abs(slope))} a month"
        weeks = round(self.seconds / abs(slope) * MONTH_DAYS / WEEK_DAYS)
        return f"a rung of {self.seconds} s in {weeks} weeks"


def _rung(figure: str, evenings: tuple[Evening, ...]) -> _Rung | None:
    """The rungs that holds stand on, where they do."""
    values = [value for one in evenings for value in one.values.values()]
    steps = sorted(set(values))
    whole = all(value == int(value) for value in steps)
    if figure != "hold_s" or len(values) < RUNG_FROM or len(steps) < RUNGS_FROM or not whole:
        return None
    seconds = gcd(*(int(value - steps[0]) for value in steps[1:]))
    return _Rung(seconds, median(values)) if seconds >= RUNG_S else None


def _mean(some: list[float]) -> float:
    return sum(some) / len(some)


def wobble(scale: _Scale, who: str, past: list[Values]) -> float:
    """A person's typical error: the usual one, moved by their own differences from evening to evening."""
    own: list[float] = []
    for one, other in pairwise(past):
        if who not in one or who not in other:
            continue
        both = [other[name] - one[name] for name in one if name in other]
        company = median(both) if len(both) >= COMPANY else 0.0
        own.append(other[who] - one[who] - company)
    return sqrt((PRIOR * scale.error**2 + sum(d * d for d in own) / 2) / (PRIOR + len(own)))


def _verdict(
    scale: _Scale,
    who: str,
    evenings: tuple[Evening, ...],
    before: list[float],
    change: float | None,
    shift: float | None,
    past: list[Values],
    more_is_better: bool,
) -> Verdict:
    now = evenings[-1].values[who]
    raw = tuple(one.values[who] for one in evenings[:-1] if who in one.values)
    if change is None:
        text = "There is nothing of the same kind to compare with yet."
        return Verdict(now=now, before=raw, verdict="not enough", text=text)
    own = change - (shift or 0.0)
    size = abs(own) / (wobble(scale, who, past) * sqrt(1 + 1 / min(LAST, len(before))))
    word = "better" if (own > 0) == more_is_better else "worse"
    verdict = word if size > SURE else f"perhaps {word}" if size > PERHAPS else "same"
    trend = _trend(scale, [(one.day, one.values[who]) for one in evenings if who in one.values])
    return Verdict(
        now=now, before=raw, verdict=verdict, text=_said(scale, verdict, own, shift), trend=trend
    )


def _said(scale: _Scale, verdict: str, own: float, shift: float | None) -> str:
    """A verdict in words; a worse one with its innocent reasons first."""
    beside = " beside what the evening did to everybody" if shift and scale.shift(shift) else ""
    if verdict == "same":
        return f"About the same{beside}."
    way = scale.way(own)
    said = f"{scale.said(own)} {way} than lately{beside}"
    if verdict.endswith("worse"):
        return f"{said}: slept badly, first week back, or a strap? One evening says no more."
    return f"{said}, perhaps a change." if verdict.startswith("perhaps") else f"{said}: a change."


def _evening(scale: _Scale, shift: float | None, common: int) -> str:
    if shift is None:
        if not common:
            return "Nobody was there before: there is nothing to compare with."
        return f"With {common} in common the evening can’t be told from the person."
    if not abs(scale.shift(shift) or 0.0):
        return "The evening was as usual."
    way = scale.way(shift)
    return f"Everybody was about {scale.said(shift)} {way}: the evening, not the person."


def _trend(scale: _Scale, points: list[tuple[int, float]]) -> str:
    """The median slope (Theil 1950, Sen 1968) where Kendall's test says at ten in a hundred that there is one."""
    if len(points) < TREND_FROM:
        return ""
    pairs = [(a, b) for nth, a in enumerate(points) for b in points[nth + 1 :] if b[0] > a[0]]
    signs = sum((b[1] > a[1]) - (b[1] < a[1]) for a, b in pairs)
    n = len(points)
    spread = sqrt(n * (n - 1) * (2 * n + 5) / 18)
    if not pairs or (abs(signs) - 1) / spread <= KENDALL_TENTH:
        return ""
    slope = median((scale.to(b[1]) - scale.to(a[1])) / (b[0] - a[0]) for a, b in pairs) * MONTH_DAYS
    way = "up" if slope > 0 else "down"
    if scale.rung:
        return f"About {scale.rung.a_month(slope)} {way}, over {n} evenings."
    return f"About {scale.said(slope)} a month {way}, over {n} evenings."
