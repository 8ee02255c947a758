"""Setting up and clearing: what goes where in walking order, and how long two people need for it.

Figures are coaches' practice, to be checked: two carry two pieces each, and a station wants a quarter of a minute.
"""

from math import hypot
from typing import NamedTuple

from lovrit.core.place.problem import Kit, Problem, Spot

CARRIED = 4  # pieces that two people carry at once
PLACED_S = 15


class Put(NamedTuple):
    """A station to set up: on which spot, with what, and the seconds that two people need for it."""

    station: str
    spot: str
    kit: tuple[tuple[Kit, int], ...]
    seconds: int


def setting_up(
    problem: Problem,
    spots: dict[str, str],
    groups: list[list[str]],
    store: tuple[float, float] | None,
) -> tuple[Put, ...]:
    """Stations in walking order with the most of each kit that a turn takes; ``store`` is where kit comes from."""
    by_id = {one.id: one for one in problem.spots}
    people = {one.id: one for one in problem.people}
    found = []
    for station in problem.stations:
        at = by_id.get(spots.get(station.name, ""))
        if at is None:
            continue
        most: dict[Kit, int] = {}
        for some in groups:
            taken: dict[Kit, int] = {}
            for who in some:
                for kind, many in problem.uses(people[who], station).items():
                    taken[kind] = taken.get(kind, 0) + many
            for kind, many in taken.items():
                most[kind] = max(most.get(kind, 0), many)
        kit = tuple(sorted(most.items(), key=str))
        found.append(
            Put(station.name, at.id, kit, _seconds(problem, at, sum(most.values()), store))
        )
    return tuple(found)


def _seconds(problem: Problem, at: Spot, pieces: int, store: tuple[float, float] | None) -> int:
    """There and back as often as it takes, and putting it down."""
    if not pieces or store is None:
        return PLACED_S
    metres = 2 * hypot(at.x - store[0], at.y - store[1])
    return round(PLACED_S + -(-pieces // CARRIED) * metres / problem.walk_m_s)
