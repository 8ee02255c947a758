"""What blocks are made of: counts, efforts, targets, works and rests; each read from a line and written back."""

from itertools import pairwise
from typing import Annotated, Literal

from lark import Token
from pydantic import Field

from lovrit.core.slate.line import Amount, Unit
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import (
    MOST_TIMES,
    Figure,
    Node,
    column,
    figure,
    seconds,
    span,
    tokens,
    trees,
    whole,
)
from lovrit.core.slate.written import short
from lovrit.core.slate.written import span as written_span
from lovrit.core.values import Value

Seconds = Annotated[
    int, Field(ge=0, le=86_400, strict=True)
]  # strict: false is no number of seconds
UNIT_OF: dict[str, Unit] = {
    "S": "s", "MIN": "s", "M": "m", "KM": "km", "MI": "mi", "CAL": "cal", "REPS": "reps",
}  # fmt: skip


class Count(Value):
    """How often. Planned at ``high``; where ``low`` is smaller, it may be ended from there on."""

    low: int
    high: int

    def __str__(self) -> str:
        return str(self.high) if self.low == self.high else f"{self.low}-{self.high}"

    def of(self, word: str) -> str:
        """So many of something: ``3 rounds``, ``1 round``."""
        return f"{self} {word}{'' if self.high == 1 else 's'}"


ONCE = Count(low=1, high=1)


def read_count(node: Node, what: str, most: int = MOST_TIMES) -> Count:
    """A number of times, or a range of them."""
    for token in tokens(node, "NUM"):
        whole(token, what, most=most)
    low, high = span(node, f"number of {what}")
    return Count(low=int(low), high=int(high))


def count_figure(name: str, node: Node) -> list[Figure]:
    """Only a plain number can be scrubbed; a range is written."""
    found = tokens(node, "NUM")
    return [figure(name, found[0], float(found[0]), timed=False)] if len(found) == 1 else []


class Effort(Value):
    """Perceived effort, 0 nothing to 10 all there is; a range where low and high differ."""

    low: Annotated[float, Field(ge=0, le=10)]
    high: Annotated[float, Field(ge=0, le=10)]

    def __str__(self) -> str:
        return written_span(self.low, self.high)

    @property
    def level(self) -> float:
        """The effort as one number: the middle of a range."""
        return (self.low + self.high) / 2


def read_effort(node: Node) -> Effort:
    """An effort from 0 to 10, or a range of efforts."""
    low, high = span(node, "effort")
    if high > 10:
        raise Unreadable("Effort goes from 0 to 10.", column(node), ("an effort from 0 to 10",))
    return Effort(low=low, high=high)


HeartOf = Literal["bpm", "reserve", "max", "threshold"]
HEART_OF: dict[str, HeartOf] = {
    "beats": "bpm",
    "reserve": "reserve",
    "highest": "max",
    "threshold": "threshold",
}
MOST_HEART: dict[HeartOf, int] = {"bpm": 240, "reserve": 110, "max": 110, "threshold": 40}
LEAST_BPM, EITHER_WAY = 30, 3


class Heart(Value):
    """A heart-rate target in beats a minute, per cent of reserve or of highest, or beats round the threshold."""

    of: HeartOf
    low: float
    high: float

    def __str__(self) -> str:
        if self.of == "threshold":
            return f"threshold ±{written_span(self.high, self.high)}"
        tail = {"bpm": "", "reserve": "% reserve", "max": "% max"}[self.of]
        low_high = f"{written_span(self.low, self.low)}-{written_span(self.high, self.high)}"
        return f"{low_high if self.of == 'bpm' else written_span(self.low, self.high)}{tail}"


# effort by per cent of highest and of reserve, between them straight lines (ACSM 2021, table of intensities; 0 to 10)
EFFORT_AT: dict[str, tuple[tuple[float, float], ...]] = {
    "max": ((40, 1), (57, 3), (64, 4), (77, 6), (85, 7.5), (90, 8.5), (95, 9.5), (100, 10)),
    "reserve": ((20, 1), (30, 3), (40, 4), (60, 6), (75, 7.5), (85, 8.5), (92, 9.5), (100, 10)),
}
USUAL_MAX = 186.0  # beats of somebody of whom nothing is known
AT_THRESHOLD = 7.5  # the hardest that is held for about an hour


def effort_of(heart: Heart) -> float:
    """The effort that a target of the heart comes to, from 0 to 10, at its middle.

    >>> effort_of(Heart(of="max", low=90, high=90)), effort_of(Heart(of="reserve", low=50, high=70))
    (8.5, 6.0)
    """
    if heart.of == "threshold":
        return AT_THRESHOLD
    middle = (heart.low + heart.high) / 2
    share = middle / USUAL_MAX * 100 if heart.of == "bpm" else middle
    points = EFFORT_AT["reserve" if heart.of == "reserve" else "max"]
    for (low, at_low), (high, at_high) in pairwise(points):
        if share <= high:
            return round(at_low + (max(share, low) - low) / (high - low) * (at_high - at_low), 1)
    return 10.0


def read_heart(node: Node) -> Heart:
    """A heart-rate target; a single figure in beats means three either way."""
    of = HEART_OF[str(node.data)]
    low, high = span(node, "target")
    if of == "threshold":
        low = -low
    elif of == "bpm" and low == high:
        low, high = low - EITHER_WAY, high + EITHER_WAY
    if high > MOST_HEART[of] or (of == "bpm" and low < LEAST_BPM):
        raise Unreadable(
            "No heart is asked for that.", column(node), ("a heart rate such as 150-162",)
        )
    return Heart(of=of, low=low, high=high)


class Pace(Value):
    """A person's own numbered pace, as the coach numbers them."""

    low: float
    high: float

    def __str__(self) -> str:
        return written_span(self.low, self.high)


class Stretch(Value):
    """A work or a rest: so many seconds, or until the heart is there, within its clock limits."""

    seconds: Seconds | None = None
    until_bpm: int | None = None

    def __str__(self) -> str:
        return f"until {self.until_bpm}" if self.seconds is None else short(self.seconds)


def read_stretch(node: Node, what: str) -> Stretch:
    """A work or a rest: a time, or a heart rate that ends it."""
    if tokens(node, "UNTIL"):
        return Stretch(until_bpm=whole(tokens(node, "NUM")[0], "beats", 40, 230))
    value = seconds(trees(node)[0])
    if what == "work" and not value:
        raise Unreadable("There is no time to work in.", column(node), ("a time such as 0:40",))
    return Stretch(seconds=value)


class Pair(Value):
    """A work and the rest that follows it."""

    work: Stretch
    rest: Stretch

    def __str__(self) -> str:
        return f"{self.work}/{self.rest}"

    @property
    def timed(self) -> tuple[int, int] | None:
        """Seconds of both, where the clock ends both."""
        if self.work.seconds is None or self.rest.seconds is None:
            return None
        return self.work.seconds, self.rest.seconds


def read_pair(node: Node, tag: str = "") -> tuple[Pair, list[Figure]]:
    """A work and a rest, with a figure for each that is a time."""
    work, rest = trees(node)
    value = Pair(work=read_stretch(work, "work"), rest=read_stretch(rest, "rest"))
    both = (("work", work, value.work), ("rest", rest, value.rest))
    shown = [
        figure(name + tag, trees(n)[0], one.seconds)
        for name, n, one in both
        if one.seconds is not None
    ]
    return value, shown


def read_over(number: Token, unit: Node) -> Amount:
    """An amount that is repeated, or done once for time: metres, calories or reps."""
    kind = UNIT_OF[unit.children[0].type]  # type: ignore[union-attr]
    if kind == "s":
        raise Unreadable(
            "A time needs its rest: write 6 x 0:40/0:20.",
            column(unit),
            ("metres", "calories", "reps"),
        )
    if not float(number):
        raise Unreadable("That is nothing to do.", column(number))
    return Amount(values=(float(number),), unit=kind)


def read_length(node: Node) -> tuple[int, list[Figure]]:
    """How long a block lasts, as a figure called total."""
    inner = next(child for child in trees(node) if child.data == "time")
    total = seconds(inner)
    if not total:
        raise Unreadable("There is no time in it.", column(inner), ("a time such as 8:00",))
    return total, [figure("total", inner, total)]
