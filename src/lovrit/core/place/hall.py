"""A hall to scale: its size, its spots and what each holds, doors, kit with counts and loads. Metres, kg, seconds."""

from dataclasses import dataclass, field
from typing import Annotated

from pydantic import Field

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.company import share_of
from lovrit.core.crew.fits import Option, cell, ladder
from lovrit.core.crew.person import Person
from lovrit.core.moves.library import Library
from lovrit.core.place.around import Box, Ways, distances
from lovrit.core.place.problem import Kit, Mover, Problem, Spot
from lovrit.core.place.stations import station_of
from lovrit.core.place.wishes import Wishes
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value

USUAL_LEVEL = 3  # where nobody said
Metres = Annotated[float, Field(ge=0, le=200)]
MOST_SPOTS = 40


class HallSpot(Value):
    """A place for a station; ``holds`` is empty where anything stands there that needs nothing fixed."""

    id: Annotated[str, Field(min_length=1, max_length=24)]
    x: Metres
    y: Metres
    holds: tuple[Annotated[str, Field(max_length=24)], ...] = ()


INSET_M = 2.0  # of a ring of spots from the walls, where the hall is wide enough; ours
MOST_IN_RING = 40


def ring(size_m: tuple[float, float], many: int) -> tuple[HallSpot, ...]:
    """So many spots (at most ``MOST_IN_RING``) evenly along the walls, clockwise from the upper left; metres to 0.1."""
    many = max(1, min(many, MOST_IN_RING))
    inset = min(INSET_M, *(one / 4 for one in size_m))
    wide, deep = size_m[0] - 2 * inset, size_m[1] - 2 * inset
    corners = ((0.0, 0.0), (wide, 0.0), (wide, deep), (0.0, deep))
    sides = (wide, deep, wide, deep)

    def at(gone: float) -> tuple[float, float]:
        for nth, side in enumerate(sides):
            if gone <= side or nth == len(sides) - 1:
                (x, y), (to_x, to_y) = corners[nth], corners[(nth + 1) % len(corners)]
                return x + (to_x - x) * gone / side, y + (to_y - y) * gone / side
            gone -= side
        raise AssertionError

    places = (at(2 * (wide + deep) * nth / many) for nth in range(many))
    return tuple(
        HallSpot(id=str(nth), x=round(x + inset, 1), y=round(y + inset, 1))
        for nth, (x, y) in enumerate(places, 1)
    )


class HallKit(Value):
    """So many of a kit in one load; ``away`` of them are not there tonight."""

    name: Annotated[str, Field(min_length=1, max_length=24)]
    load_kg: Annotated[float | None, Field(ge=0, le=300)] = None
    count: Annotated[int, Field(ge=0, le=200)] = 1
    away: Annotated[int, Field(ge=0, le=200)] = 0

    @property
    def there(self) -> int:
        """How many there are tonight."""
        return max(0, self.count - self.away)

    @property
    def said(self) -> str:
        """In words, with its load."""
        return self.name if self.load_kg is None else f"{self.name} {self.load_kg:g} kg"


class Way(Value):
    """A door, or where the defibrillator hangs: what has to be kept free."""

    what: Annotated[str, Field(min_length=1, max_length=24)]
    x: Metres
    y: Metres


class Area(Value):
    """Where nobody walks and nothing stands: a stage, a wall within the hall, a wet corner."""

    what: Annotated[str, Field(min_length=1, max_length=24)]
    x: Metres
    y: Metres
    w: Annotated[float, Field(gt=0, le=200)]
    h: Annotated[float, Field(gt=0, le=200)]

    @property
    def box(self) -> Box:
        """As a box that walks go round."""
        return Box(self.x, self.y, self.w, self.h)


class Hall(Value):
    """A hall. ``pinned`` is where the coach put a station, by the station's name."""

    name: Annotated[str, Field(max_length=60)] = "Hall"
    size_m: tuple[Annotated[float, Field(ge=1, le=200)], Annotated[float, Field(ge=1, le=200)]] = (
        20.0,
        12.0,
    )
    walk_m_s: Annotated[float, Field(gt=0, le=5)] = 1.2
    reset_s: Annotated[float, Field(ge=0, le=60)] = 3.0
    spots: Annotated[tuple[HallSpot, ...], Field(max_length=MOST_SPOTS)] = ()
    kit: Annotated[tuple[HallKit, ...], Field(max_length=60)] = ()
    ways: Annotated[tuple[Way, ...], Field(max_length=12)] = ()
    blocked: Annotated[tuple[Area, ...], Field(max_length=12)] = ()
    pinned: dict[str, str] = field(default_factory=dict)

    @property
    def walks(self) -> Ways:
        """How people walk in it."""
        return Ways((one.box for one in self.blocked), self.size_m)

    @property
    def store(self) -> tuple[float, float] | None:
        """Where kit comes from: a way that is called a store, else the first door; None where neither is drawn."""
        named = sorted(self.ways, key=lambda one: ("store" not in one.what, "door" not in one.what))
        usable = [one for one in named if "store" in one.what or "door" in one.what]
        return (usable[0].x, usable[0].y) if usable else None

    @property
    def free(self) -> tuple[HallSpot, ...]:
        """The spots that nothing is in the way of."""
        return tuple(
            one
            for one in self.spots
            if not any(area.box.holds((one.x, one.y)) for area in self.blocked)
        )

    def far(self) -> dict[tuple[str, str], float]:
        """Metres from spot to spot where something is in the way of walking straight on."""
        places = {one.id: (one.x, one.y) for one in self.spots}
        return distances(places, [one.box for one in self.blocked], self.size_m)

    def stock(self) -> dict[Kit, int]:
        """How many of each there are tonight."""
        found: dict[Kit, int] = {}
        for one in self.kit:
            found[one.name, one.load_kg] = found.get((one.name, one.load_kg), 0) + one.there
        return found


def moving_block(plan: Plan) -> int | None:
    """The first block in which people move from station to station."""
    blocks = plan.session.blocks
    return next((at for at, block in enumerate(blocks) if block.moves_people), None)


def order_of(plan: Plan) -> tuple[str, ...]:
    """The stations in the order in which people move from one to the next; none where nobody does."""
    at = moving_block(plan)
    lines = () if at is None else plan.session.blocks[at].moves
    return tuple(line.name for line in lines if not line.is_rest)


@dataclass(frozen=True)
class Wished:
    """What is wished of a placing: how much each wish weighs, levels mixed or alike, where stations stood last time.

    ``order`` are the stations in an order that a coach gave them by hand; while they stand in it, it stays.
    """

    wishes: Wishes = field(default_factory=Wishes)
    mixed: bool = True
    stood: dict[str, str] = field(default_factory=dict)
    order: tuple[str, ...] = ()


def problem_of(
    block: Block,
    hall: Hall,
    people: list[Person],
    groups: int,
    library: Library,
    wished: Wished | None = None,
) -> Problem:
    """What has to be placed of a block that people move through, in a hall, with what each person takes."""
    wished = wished or Wished()
    spots = tuple(Spot(one.id, one.x, one.y, frozenset(one.holds)) for one in hall.free)
    fixed = frozenset(name for one in hall.spots for name in one.holds)
    lines = [line for line in block.moves if not line.is_rest]
    stations = tuple(station_of(line, library, fixed) for line in lines)
    names = {one.name for one in stations}
    called = labels(people)
    usual = [(line, ladder(line, library)) for line in lines]
    movers = tuple(
        Mover(
            called[one.id],
            one.level or USUAL_LEVEL,
            frozenset(one.limits),
            _loads(one, usual, library),
            _called(one.together, called),
            _called(one.apart, called),
        )
        for one in people
    )
    pair = block.pairs[0] if block.pairs else None
    return Problem(
        stations,
        movers,
        spots,
        hall.stock(),
        rest_s=pair.rest.seconds if pair and pair.rest.seconds else 0,
        groups=max(1, min(groups, len(movers) or 1)),
        walk_m_s=hall.walk_m_s,
        reset_s=hall.reset_s,
        side_by_side=True,
        in_order=bool(wished.order) and wished.order == tuple(one.name for one in lines),
        pinned={name: at for name, at in hall.pinned.items() if name in names},
        alike=not wished.mixed,
        stood={name: at for name, at in wished.stood.items() if name in names},
        wishes=wished.wishes,
        far=hall.far(),
    )


def sharing(block: Block) -> int:
    """How many people share a place and one set of kit: partners, or a team of whom one works."""
    return round(1 / share_of(block)) if hasattr(block, "team") else 1


def _called(ids: tuple[int, ...], called: dict[int, str]) -> frozenset[str]:
    return frozenset(called[one] for one in ids if one in called)


def labels(people: list[Person]) -> dict[int, str]:
    """What people are called where it must be known who is meant: by name, and by number where two have one name."""
    names = [one.name for one in people]
    return {
        one.id: one.name if names.count(one.name) == 1 else f"{one.name} ({one.id})"
        for one in people
    }


def _loads(
    person: Person, lines: list[tuple[Line, tuple[Option, ...]]], library: Library
) -> dict[str, float]:
    told = (
        (line.tasks[0].name, cell(person, line, library, options).load) for line, options in lines
    )
    return {name: load for name, load in told if load is not None}
