"""The bars and crossings of a block on its rails: each kind of block has its own drawing."""

from itertools import pairwise
from typing import Any, Literal

from lovrit.core.clock import clock
from lovrit.core.moves.library import Library, shipped
from lovrit.core.session.model import Amrap, AnyBlock, Every, ForTime
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.rounds import round_ends
from lovrit.core.values import Value

RAIL = 100
BarKind = Literal["work", "steady", "leftover", "ragged", "thins", "mark", "second"]


class Bar(Value):
    """A work on a rail: from ``x``, ``width`` percent wide. ``group`` from 0, or None for everyone."""

    rail: int
    x: float
    width: float
    group: int | None = None
    kind: BarKind = "work"
    height: float = 1
    shelf: int = 0
    shelves: int = 1
    label: str = ""
    side: str = ""


class Crossing(Value):
    """A strand that crosses in a rest, as a path in a box 1000 wide with 100 for each rail."""

    path: str
    group: int


class Drawing:
    """Bars and crossings of the intervals shown."""

    def __init__(self, block: AnyBlock, shown: list[Interval], start: int, length: int, groups: int):
        self.block, self.shown = block, shown
        self.start, self.length = start, max(1, length)
        self.moving = block.kind in ("rotate", "sets") and len(block.moves) > 1
        self.groups = groups if self.moving else 1
        self.stations = max(1, len(block.moves))
        self.surely_s = 0
        self.library: Library = shipped()

    def x(self, seconds: float) -> float:
        """Where a second of the session stands, in percent."""
        return round((seconds - self.start) / self.length * 100, 3)

    def width(self, seconds: float) -> float:
        """How wide so many seconds are, in percent."""
        return round(seconds / self.length * 100, 3)

    def end_of(self, phase: str) -> float | None:
        """Where the first work, or the rest after it, ends: its border can be dragged."""
        first = next((one for one in self.shown if one.phase == phase), None)
        return self.x(first.end_s) if first else None

    def rail(self, one: Interval, group: int) -> int:
        """The rail that a group is on in an interval."""
        if self.moving:
            return (group + (one.turn or 1) - 1) % self.stations
        return one.move or 0

    def gaps(self) -> tuple[tuple[float, str], ...]:
        """Breaks and changes that are wide enough to be named, by their middles."""
        wide = (one for one in self.shown if one.phase in ("break", "change") and self.width(one.seconds) > 9)
        return tuple((self.x((one.start_s + one.end_s) / 2), f"{one.phase} {clock(one.seconds)}") for one in wide)

    def bars(self) -> list[Bar]:
        """All bars, in the order of time."""
        bars: list[Bar] = []
        for one in self.shown:
            if one.phase == "work":
                bars += self._work(one)
            elif one.phase in ("steady", "lead-in"):
                bars += [self._whole(one, rail) for rail in range(self.stations)]
            elif one.phase == "rest" and self.block.kind == "every":
                bars.append(self._bar(one, self.rail(one, 0), kind="leftover", height=0.2))
            elif one.phase == "rest" and getattr(self.block, "most_s", None) is not None:
                bars.append(self._bar(one, self.rail(one, 0), kind="ragged", height=0.7))
        return bars

    def _bar(self, one: Interval, rail: int, **fields: Any) -> Bar:
        return Bar(rail=rail, x=self.x(one.start_s), width=self.width(one.seconds), **fields)

    def _whole(self, one: Interval, rail: int) -> Bar:
        return self._bar(one, rail, kind="steady", height=0.6)

    def _work(self, one: Interval) -> list[Bar]:
        if self.moving:
            return self._strands(one)
        if isinstance(self.block, Amrap):
            return self._amrap(one)
        if isinstance(self.block, ForTime):
            return [bar for rail in range(self.stations) for bar in self._thinning(one, rail)]
        if self.block.kind == "every" and self.block.half_start_s:
            return self._halves(one)
        height = self._height(one)
        rails = [one.move] if one.move is not None else range(self.stations)
        side = one.side if one.side in ("left", "right") else ""
        return [self._bar(one, rail, height=height, side=side or "", label=str(one.beat or "")) for rail in rails]

    def _thinning(self, one: Interval, rail: int) -> list[Bar]:
        """For time: solid until the quickest ends, then thinning out until the last."""
        sure = min(one.seconds, self.surely_s)
        solid = Bar(rail=rail, x=self.x(one.start_s), width=self.width(sure))
        left = Bar(rail=rail, x=self.x(one.start_s + sure), width=self.width(one.seconds - sure), kind="thins")
        return [solid, left]

    def _halves(self, one: Interval) -> list[Bar]:
        """The first half of the group, and below it the second, which starts later."""
        assert isinstance(self.block, Every)
        rail, late = one.move or 0, one.start_s + self.block.half_start_s
        first = self._bar(one, rail, shelf=0, shelves=2)
        second = Bar(rail=rail, x=self.x(late), width=self.width(one.seconds), kind="second", shelf=1, shelves=2)
        return [first, second]

    def _height(self, one: Interval) -> float:
        if self.block.kind == "tempo" and one.beat is not None:
            low, high = sorted((self.block.start, self.block.end))
            return round(0.35 + 0.65 * (one.beat - low) / max(1, high - low), 3)
        return 1

    def _strands(self, one: Interval) -> list[Bar]:
        by_rail: dict[int, list[int]] = {}
        for group in range(self.groups):
            by_rail.setdefault(self.rail(one, group), []).append(group)
        return [
            self._bar(one, rail, group=group, shelf=nth, shelves=len(here), side=self._side(rail, one))
            for rail, here in by_rail.items()
            for nth, group in enumerate(here)
        ]

    def _side(self, rail: int, one: Interval) -> str:
        side = self.block.moves[rail].side
        if side == "none":
            return ""
        return "each" if side == "each" else ("left" if (one.round or 1) % 2 else "right")

    def _amrap(self, one: Interval) -> list[Bar]:
        """Rounds as they are likely to go: partners interlock, a ladder's rungs grow."""
        assert isinstance(self.block, Amrap)
        rounds = self._rounds(one)
        if self.block.partners:
            halves: list[tuple[BarKind, float, float]] = [
                ("work" if nth % 2 == 0 else "second", a, b) for nth, (a, b) in enumerate(rounds)
            ]
            return [
                Bar(
                    rail=rail,
                    x=self.x(a),
                    width=self.width(b - a),
                    kind=kind,
                    shelf=int(kind == "second"),
                    shelves=2,
                )
                for rail in range(self.stations)
                for kind, a, b in halves
            ]
        whole = [self._bar(one, rail) for rail in range(self.stations)]
        marks = [
            Bar(rail=rail, x=self.x(b), width=0, kind="mark") for rail in range(self.stations) for _, b in rounds[:-1]
        ]
        return whole + marks

    def _rounds(self, one: Interval) -> list[tuple[float, float]]:
        ends = round_ends(self.block, self.library)[:200]
        edges = [one.start_s, *(one.start_s + end for end in ends if end < one.seconds), one.end_s]
        return list(pairwise(edges))

    def crossings(self) -> list[Crossing]:
        """From the end of each work to the start of the group's next, over the rest between."""
        if not self.moving:
            return []
        works = [one for one in self.shown if one.phase == "work"]
        found = []
        for before, after in pairwise(works):
            for group in range(self.groups):
                found += self._crossing(before, after, group)
        return found

    def _crossing(self, before: Interval, after: Interval, group: int) -> list[Crossing]:
        here, there = self.rail(before, group), self.rail(after, group)
        x1, x2 = self.x(before.end_s) * 10, self.x(after.start_s) * 10
        y1, y2 = here * RAIL + RAIL / 2, there * RAIL + RAIL / 2
        if there >= here:
            return [Crossing(path=_curve(x1, y1, x2, y2), group=group)]
        bottom = self.stations * RAIL
        half = (x1 + x2) / 2
        return [
            Crossing(
                path=f"M{x1:.1f} {y1:.0f}C{half:.1f} {y1:.0f} {half:.1f} {y1 + 30:.0f} {half:.1f} {bottom:.0f}",
                group=group,
            ),
            Crossing(
                path=f"M{half:.1f} 0C{half:.1f} {y2 - 30:.0f} {half:.1f} {y2:.0f} {x2:.1f} {y2:.0f}",
                group=group,
            ),
        ]


def _curve(x1: float, y1: float, x2: float, y2: float) -> str:
    half = (x1 + x2) / 2
    return f"M{x1:.1f} {y1:.0f}C{half:.1f} {y1:.0f} {half:.1f} {y2:.0f} {x2:.1f} {y2:.0f}"
