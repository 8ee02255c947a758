"""What has to be placed: stations, people with what they can do and lift, spots, kit; and what must hold.

Distances in metres, times in seconds, loads in kg.
"""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from math import hypot

from lovrit.core.clock import number
from lovrit.core.place.wishes import GRIP_TWICE, HARD_TWICE, MOVED, TWICE, UP_AND_DOWN, Wishes
from lovrit.core.values import LovritError

FREE = frozenset({"mat", "wall", "floor"})  # kit that is counted by nobody
Kit = tuple[str, float | None]  # a name and a load; None where it has none


def kit_said(kind: Kit) -> str:
    """A kit as it is counted: bell 12 kg."""
    name, load = kind
    return name if load is None else f"{name} {number(load)} kg"


class CannotPlace(LovritError):
    """Something that can't be placed as it is given; the sentence says what."""


@dataclass(frozen=True)
class Station:
    """A station: its name, what one person needs at it, where it may stand, and what it asks of people.

    ``loads`` are those that stand ready, lightest first; ``asks`` what some people can't do.
    """

    name: str
    pattern: str = ""
    grip: bool = False
    floor: bool = False
    hard: bool = False
    asks: frozenset[str] = frozenset()
    kit: tuple[tuple[str, int], ...] = ()
    loads: tuple[float, ...] = ()
    needs: frozenset[str] = frozenset()
    ways: tuple[tuple[str, frozenset[str]], ...] = ()
    move: str = ""


@dataclass(frozen=True)
class Mover:
    """A person: their level (1 to 5), what they can't do, and the load of each move that they use."""

    id: str
    level: int = 3
    cannot: frozenset[str] = frozenset()
    loads: dict[str, float] = field(default_factory=dict)
    together: frozenset[str] = frozenset()
    apart: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Spot:
    """A place in the hall; ``holds`` is None where anything stands there."""

    id: str
    x: float
    y: float
    holds: frozenset[str] | None = None


@dataclass(frozen=True)
class Problem:
    """All of it. ``kit`` is how many there are of each; what isn't named in it is not counted.

    ``far`` is how many metres it is from spot to spot where that is not straight on; ``stood`` where stations stood
    last time. With ``in_order`` the stations follow one another as they are given.
    """

    stations: tuple[Station, ...]
    people: tuple[Mover, ...]
    spots: tuple[Spot, ...]
    kit: dict[Kit, int]
    rest_s: int
    groups: int
    walk_m_s: float = 1.2
    reset_s: float = 3.0
    alike: bool = False
    side_by_side: bool = (
        False  # groups begin at neighbouring stations, the first of them at the first
    )
    in_order: bool = False
    pinned: dict[str, str] = field(default_factory=dict)
    stood: dict[str, str] = field(default_factory=dict)
    wishes: Wishes = field(default_factory=Wishes)
    far: dict[tuple[str, str], float] = field(default_factory=dict)

    def but(self, **changes: object) -> "Problem":
        """The same with something else."""
        return replace(self, **changes)  # type: ignore[arg-type]

    @property
    def count(self) -> int:
        """How many stations there are, and turns of a round."""
        return len(self.stations)

    def follows(self, one: Station, other: Station) -> int | None:
        """What it costs that a station comes after another; None where a must forbids it."""
        broken = {
            "patterns": (one.pattern == other.pattern and bool(one.pattern), TWICE),
            "grips": (one.grip and other.grip, GRIP_TWICE),
            "floor": (one.floor != other.floor, UP_AND_DOWN),
            "hard": (one.hard and other.hard, HARD_TWICE),
        }
        if any(is_broken and self.wishes.must(wish) for wish, (is_broken, _) in broken.items()):
            return None
        return sum(
            self.wishes.cost(wish, usual)
            for wish, (is_broken, usual) in broken.items()
            if is_broken
        )

    def follows_at(self, i: int, j: int) -> int | None:
        """What it costs that the jth station comes after the ith; None where a must or the given order forbids it."""
        if self.in_order and j != (i + 1) % self.count:
            return None
        return self.follows(self.stations[i], self.stations[j])

    def walk_cost(self, one: Spot, other: Spot) -> int:
        """What a walk costs."""
        return round(self.wishes.cost("walks", 10) / 10 * self.walk_s(one, other))

    def moved_cost(self, station: Station, spot: Spot) -> int:
        """What it costs that a station stands elsewhere than last time."""
        last = self.stood.get(station.name)
        return self.wishes.cost("stays", MOVED) if last is not None and last != spot.id else 0

    def walk_s(self, one: Spot, other: Spot) -> float:
        """Seconds from a spot to another, with setting up."""
        metres = self.far.get((one.id, other.id), hypot(one.x - other.x, one.y - other.y))
        return metres / self.walk_m_s + self.reset_s

    def holds(self, spot: Spot, station: Station) -> bool:
        """Whether a station may stand on a spot: pinned there, or it has what the station needs."""
        pinned = self.pinned.get(station.name)
        if pinned is not None:
            return pinned == spot.id
        if spot.id in self.pinned.values():
            return False
        return spot.holds is None or station.needs <= spot.holds

    def does(self, person: Mover, station: Station) -> tuple[str, str]:
        """What somebody does at a station, and why where it is another way; the way is empty where there is none."""
        no = person.cannot & station.asks
        if not no:
            return station.name, ""
        way = next((name for name, asks in station.ways if not asks & person.cannot), "")
        return way, f"no {', '.join(sorted(no))}"

    def uses(self, person: Mover, station: Station) -> dict[Kit, int]:
        """The kit that somebody takes at a station; none for one who does it another way."""
        if self.does(person, station)[1]:
            return {}
        found: dict[Kit, int] = {}
        for name, each in station.kit:
            kind: Kit = (name, self.load_of(person, station, name))
            if kind in self.kit or any(other == name for other, _ in self.kit):
                found[kind] = found.get(kind, 0) + each
        return found

    def load_of(self, person: Mover, station: Station, name: str) -> float | None:
        """The load that somebody takes of a kit: their own, else the middle of what stands ready."""
        weighed = sorted(load for other, load in self.kit if other == name and load is not None)
        if not weighed:
            return None
        own = person.loads.get(station.move, person.loads.get(station.name))
        if own is not None:
            return own
        ready = station.loads or tuple(weighed)
        return sorted(ready)[len(ready) // 2]

    def needs(self) -> dict[Kit, Counter[str]]:
        """How often each kit is taken in a round, by station."""
        found: dict[Kit, Counter[str]] = {}
        for person in self.people:
            for station in self.stations:
                for kind, many in self.uses(person, station).items():
                    found.setdefault(kind, Counter())[station.name] += many
        return found

    @property
    def counts_out(self) -> bool:
        """Whether there is enough of every kit as far as counting says; where not, no placing can be."""
        enough = all(
            sum(by.values()) <= self.count * self.kit.get(kind, 0)
            for kind, by in self.needs().items()
        )
        return enough and not any(self.crowds())

    def crowds(self) -> Iterator[tuple[Kit, str, int]]:
        """Kit that is short at a station however people are dealt: the kit, the station, so many at the least.

        All who take it there share as many turns as there are groups, so some turn has its share or more.
        """
        turns = min(self.groups, self.count)
        for kind, by_station in self.needs().items():
            for station, need in by_station.items():
                if -(-need // turns) > self.kit.get(kind, 0):
                    yield kind, station, -(-need // turns)

    def sizes(self) -> tuple[int, int]:
        """The fewest and the most people of a group: equal within one."""
        low, more = divmod(len(self.people), self.groups)
        return low, low + bool(more)
