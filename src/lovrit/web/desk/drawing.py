"""The bars and crossings of a block on its rails: the block's marks, and its groups' strands, where they stand."""

from itertools import pairwise

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.marks import Ink, Mark
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.timeline.interval import Interval
from lovrit.core.values import Value

RAIL = 100
WIDE_ENOUGH = 9  # percent of the picture in which a gap's name has room


class Bar(Value):
    """A mark on a rail: from ``x``, ``width`` percent wide. ``group`` from 0, or None for everyone."""

    rail: int
    x: float
    width: float
    group: int | None = None
    kind: Ink = "work"
    height: float = 1
    shelf: int = 0
    shelves: int = 1
    label: str = ""
    side: str = ""


class Crossing(Value):
    """A strand that crosses in a rest, as a path in a box 1000 wide with 100 for each rail."""

    path: str
    group: int


class Rows:
    """The rails of a block over the intervals shown; ``quickest_s`` is when the quickest may be done with it."""

    def __init__(
        self, block: Block, shown: list[Interval], groups: int, library: Library, quickest_s: int
    ) -> None:
        self.block, self.shown, self.library, self.quickest_s = block, shown, library, quickest_s
        self.start = shown[0].start_s
        self.length = max(1, shown[-1].end_s - self.start)
        self.groups = groups if block.moves_people else 1
        self.rails = max(1, len(block.moves))

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

    def gaps(self) -> tuple[tuple[float, str], ...]:
        """Breaks and changes that are wide enough to be named, by their middles."""
        gaps = (one for one in self.shown if one.phase in ("break", "change"))
        wide = (one for one in gaps if self.width(one.seconds) > WIDE_ENOUGH)
        return tuple(
            (self.x((one.start_s + one.end_s) / 2), f"{one.phase} {clock(one.seconds)}")
            for one in wide
        )

    def bars(self) -> list[Bar]:
        """All bars, in the order of time."""
        bars: list[Bar] = []
        for one in self.shown:
            if one.phase == "work" and self.block.moves_people:
                bars += self._strands(one)
            else:
                for mark in self.block.marks(one, self.library, self.quickest_s):
                    bars += self._bars(one, mark)
        return bars

    def _bars(self, one: Interval, mark: Mark) -> list[Bar]:
        side = one.side if mark.ink == "work" and one.side in ("left", "right") else ""
        return [
            Bar(
                rail=rail,
                x=self.x(one.start_s + mark.start_s),
                width=self.width(mark.end_s - mark.start_s),
                kind=mark.ink,
                height=mark.height,
                shelf=mark.shelf,
                shelves=mark.shelves,
                label=mark.label,
                side=side or "",
            )
            for rail in ([mark.line] if mark.line is not None else range(self.rails))
        ]

    def rail_of(self, one: Interval, group: int) -> int:
        """The rail that a group is on in an interval."""
        return self.block.line_of(group, one.turn or 1)

    def _strands(self, one: Interval) -> list[Bar]:
        """Each group where it works; those who share a station share its rail."""
        by_rail: dict[int, list[int]] = {}
        for group in range(self.groups):
            by_rail.setdefault(self.rail_of(one, group), []).append(group)
        return [
            Bar(
                rail=rail,
                x=self.x(one.start_s),
                width=self.width(one.seconds),
                group=group,
                shelf=nth,
                shelves=len(here),
                side=self.block.side_of(rail, one.round or 1) or "",
            )
            for rail, here in by_rail.items()
            for nth, group in enumerate(here)
        ]

    def turns(self) -> list[tuple[Interval, list[Bar]]]:
        """Each work in which people stand at different stations, with a strand for each group."""
        works = [one for one in self.shown if one.phase == "work" and self.block.moves_people]
        return [(one, self._strands(one)) for one in works]

    def crossings(self) -> list[Crossing]:
        """From the end of each work to the start of the group's next, over the rest between."""
        if not self.block.moves_people:
            return []
        works = [one for one in self.shown if one.phase == "work"]
        found = []
        for before, after in pairwise(works):
            for group in range(self.groups):
                found += self._crossing(before, after, group)
        return found

    def _crossing(self, before: Interval, after: Interval, group: int) -> list[Crossing]:
        """A curve down to the next rail; from the last one out at the bottom, and in again at the top."""
        here, there = self.rail_of(before, group), self.rail_of(after, group)
        x1, x2 = self.x(before.end_s) * 10, self.x(after.start_s) * 10
        y1, y2 = here * RAIL + RAIL / 2, there * RAIL + RAIL / 2
        if there >= here:
            return [Crossing(path=_curve(x1, y1, x2, y2), group=group)]
        bottom = self.rails * RAIL
        half = (x1 + x2) / 2
        down = f"M{x1:.1f} {y1:.0f}C{half:.1f} {y1:.0f} {half:.1f} {y1 + 30:.0f} {half:.1f} {bottom:.0f}"
        again = f"M{half:.1f} 0C{half:.1f} {y2 - 30:.0f} {half:.1f} {y2:.0f} {x2:.1f} {y2:.0f}"
        return [Crossing(path=down, group=group), Crossing(path=again, group=group)]


def _curve(x1: float, y1: float, x2: float, y2: float) -> str:
    half = (x1 + x2) / 2
    return f"M{x1:.1f} {y1:.0f}C{half:.1f} {y1:.0f} {half:.1f} {y2:.0f} {x2:.1f} {y2:.0f}"
