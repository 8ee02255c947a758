"""The way people walk: straight where that is free, else round the corners of what nobody walks through. Metres."""

from collections.abc import Iterable
from heapq import heappop, heappush
from itertools import pairwise
from math import hypot, inf
from typing import NamedTuple

Point = tuple[float, float]
EDGE = 1e-6  # who walks along an edge is not inside


class Box(NamedTuple):
    """Something that nobody walks through: its upper left corner, how wide and how deep."""

    x: float
    y: float
    w: float
    h: float

    @property
    def corners(self) -> tuple[Point, ...]:
        """Its four corners."""
        right, lower = self.x + self.w, self.y + self.h
        return ((self.x, self.y), (right, self.y), (right, lower), (self.x, lower))

    def holds(self, point: Point) -> bool:
        """Whether a point is inside."""
        x, y = point
        return (
            self.x + EDGE < x < self.x + self.w - EDGE
            and self.y + EDGE < y < self.y + self.h - EDGE
        )

    def crossed(self, one: Point, other: Point) -> bool:
        """Whether a straight walk goes through it (clipping as Liang and Barsky 1984)."""
        (x, y), dx, dy = one, other[0] - one[0], other[1] - one[1]
        low, high = 0.0, 1.0
        for step, least, most, at in (
            (dx, self.x + EDGE, self.x + self.w - EDGE, x),
            (dy, self.y + EDGE, self.y + self.h - EDGE, y),
        ):
            if abs(step) < EDGE:
                if not least < at < most:
                    return False
                continue
            first, last = sorted(((least - at) / step, (most - at) / step))
            low, high = max(low, first), min(high, last)
        return low < high - EDGE


class Ways:
    """Walks in a hall with boxes in it; what is outside of its walls is not walked."""

    def __init__(self, boxes: Iterable[Box], size_m: tuple[float, float]) -> None:
        self.boxes = tuple(boxes)
        width, height = size_m
        corners = {corner for box in self.boxes for corner in box.corners}
        self._corners = sorted(
            (x, y)
            for x, y in corners
            if 0 < x < width and 0 < y < height and not any(box.holds((x, y)) for box in self.boxes)
        )
        self._near = {
            one: [(other, hypot(one[0] - other[0], one[1] - other[1])) for other in self._corners
                  if other != one and self._free(one, other)]
            for one in self._corners
        }  # fmt: skip

    def _free(self, one: Point, other: Point) -> bool:
        return not any(box.crossed(one, other) for box in self.boxes)

    def path(self, start: Point, end: Point) -> tuple[Point, ...]:
        """The shortest walk (Dijkstra 1959); straight on where there is none round."""
        if self._free(start, end):
            return start, end
        goes_on = {corner for corner in self._corners if self._free(corner, end)}
        best: dict[Point, float] = {start: 0.0}
        came: dict[Point, Point] = {}
        row: list[tuple[float, Point]] = [(0.0, start)]
        while row:
            far, here = heappop(row)
            if here == end:
                return self._walked(came, start, end)
            if far > best[here]:
                continue
            for there, metres in self._from(here, start, end, goes_on):
                if far + metres < best.get(there, inf):
                    best[there], came[there] = far + metres, here
                    heappush(row, (far + metres, there))
        return start, end

    def _from(
        self, here: Point, start: Point, end: Point, goes_on: set[Point]
    ) -> Iterable[tuple[Point, float]]:
        if here == start:
            near = [corner for corner in self._corners if self._free(start, corner)]
            yield from ((one, hypot(one[0] - here[0], one[1] - here[1])) for one in near)
        else:
            yield from self._near.get(here, ())
        if here in goes_on:
            yield end, hypot(end[0] - here[0], end[1] - here[1])

    @staticmethod
    def _walked(came: dict[Point, Point], start: Point, end: Point) -> tuple[Point, ...]:
        path = [end]
        while path[-1] != start:
            path.append(came[path[-1]])
        return tuple(reversed(path))

    def metres(self, start: Point, end: Point) -> float:
        """How long the shortest walk is."""
        path = self.path(start, end)
        return sum(hypot(a[0] - b[0], a[1] - b[1]) for a, b in pairwise(path))


def distances(
    places: dict[str, Point], boxes: Iterable[Box], size_m: tuple[float, float]
) -> dict[tuple[str, str], float]:
    """Metres from each place to each other; nothing where there is nothing to go round."""
    some = tuple(boxes)
    if not some:
        return {}
    walks = Ways(some, size_m)
    return {(a, b): walks.metres(places[a], places[b]) for a in places for b in places if a != b}
