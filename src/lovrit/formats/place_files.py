"""Placing on the command line: crew and hall read from JSON, the placing or why there is none printed as JSON."""

from typing import Any

from lovrit.core.blocks.block import Block
from lovrit.core.clock import number
from lovrit.core.crew.groups import letter, usual_groups
from lovrit.core.moves.library import Library
from lovrit.core.place.around import Box, distances
from lovrit.core.place.place import Placing, place
from lovrit.core.place.problem import CannotPlace, Kit, Mover, Problem, Spot, Station
from lovrit.core.place.stations import station_of
from lovrit.core.place.ways import ways_out
from lovrit.core.place.why import Collision, why_not
from lovrit.core.session.session import Session

MOST_PEOPLE, MOST_SPOTS = 200, 60
CANNOT = {"overhead", "jump", "jumps", "grip", "floor", "depth", "hang"}


def problem_of(
    session: Session, library: Library, crew: Any, hall: Any, block: int | None
) -> Problem:
    """What has to be placed, from a session, a crew and a hall as JSON.

    Raises:
        CannotPlace: where one of them can't be read, with what is wrong in it.
    """
    chosen = _block(session, block)
    people = tuple(_people(crew))
    spots, kit = tuple(_spots(hall)), _kit(hall)
    fixed = frozenset(name for spot in spots for name in spot.holds or ())
    stations = tuple(station_of(line, library, fixed) for line in chosen.moves)
    wanted = crew.get("groups") if isinstance(crew, dict) else None
    groups = (
        wanted
        if isinstance(wanted, int) and wanted > 0
        else usual_groups(len(people), len(stations))
    )
    if groups > len(people):
        raise CannotPlace(f"{groups} groups and {len(people)} people: some group would be nobody.")
    pair = chosen.pairs[0] if chosen.pairs else None
    return Problem(
        stations,
        people,
        spots,
        kit,
        rest_s=(pair.rest.seconds if pair and pair.rest.seconds else 0),
        groups=groups,
        walk_m_s=_positive(hall, "walk_m_s", 1.2),
        reset_s=_positive(hall, "reset_s", 3.0),
        alike=crew.get("mix") == "levels alike" if isinstance(crew, dict) else False,
        pinned={str(key): str(value) for key, value in (hall.get("pinned") or {}).items()},
        far=_far(hall, spots),
    )


def _far(hall: Any, spots: tuple[Spot, ...]) -> dict[tuple[str, str], float]:
    """Metres from spot to spot round what the hall says nobody walks through."""
    try:
        boxes = [
            Box(*(float(one[name]) for name in ("x", "y", "w", "h")))
            for one in hall.get("blocked") or ()
        ]
        width, height = map(float, hall.get("size_m") or (200, 200))
    except (KeyError, TypeError, ValueError):
        raise CannotPlace("What nobody walks through needs x, y, w and h in metres.") from None
    return distances({one.id: (one.x, one.y) for one in spots}, boxes, (width, height))


def _block(session: Session, number_: int | None) -> Block:
    turning = [one for one in session.blocks if one.moves_people]
    if number_ is not None:
        if not 1 <= number_ <= len(session.blocks):
            raise CannotPlace(f"There is no block {number_}; there are {len(session.blocks)}.")
        chosen = session.blocks[number_ - 1]
        if not chosen.moves_people:
            raise CannotPlace(f"In “{chosen.head}” nobody moves from station to station.")
        return chosen
    if not turning:
        raise CannotPlace("In no block of this session do people move from station to station.")
    return turning[0]


def _people(crew: Any) -> list[Mover]:
    listed = crew.get("people") if isinstance(crew, dict) else crew
    if not isinstance(listed, list) or not listed or len(listed) > MOST_PEOPLE:
        raise CannotPlace(f"A crew is {{“people”: [...]}}, from one to {MOST_PEOPLE}.")
    found: list[Mover] = []
    for nth, one in enumerate(listed, 1):
        if not isinstance(one, dict):
            raise CannotPlace(f"Person {nth} is no object.")
        name = str(one.get("id", nth))
        if any(other.id == name for other in found):
            raise CannotPlace(f"“{name}” comes twice; an id is one person’s.")
        cannot = frozenset(str(limit) for limit in one.get("cannot") or ())
        if cannot - CANNOT:
            known = ", ".join(sorted(CANNOT))
            raise CannotPlace(
                f"“{min(cannot - CANNOT)}” is nothing that somebody can’t do; there are {known}."
            )
        found.append(
            Mover(
                name,
                _level(one.get("level", 3), name),
                frozenset("jumps" if limit == "jump" else limit for limit in cannot),
                {str(move): float(load) for move, load in (one.get("loads") or {}).items()},
                frozenset(map(str, one.get("together") or ())),
                frozenset(map(str, one.get("apart") or ())),
            )
        )
    return found


def _level(given: Any, name: str) -> int:
    if not isinstance(given, int) or isinstance(given, bool) or not 1 <= given <= 5:
        raise CannotPlace(f"The level of “{name}” is from 1 to 5, not {given}.")
    return given


def _spots(hall: Any) -> list[Spot]:
    listed = hall.get("spots") if isinstance(hall, dict) else None
    if not isinstance(listed, list) or len(listed) > MOST_SPOTS:
        raise CannotPlace(f"A hall is {{“spots”: [...]}}, up to {MOST_SPOTS}.")
    found = []
    for nth, one in enumerate(listed, 1):
        try:
            holds = one.get("holds", "any")
            some = None if holds in ("any", None) else frozenset(map(str, holds))
            found.append(Spot(str(one.get("id", nth)), float(one["x"]), float(one["y"]), some))
        except (AttributeError, KeyError, TypeError, ValueError):
            raise CannotPlace(f"Spot {nth} needs x and y in metres.") from None
    return found


def _kit(hall: Any) -> dict[Kit, int]:
    found: dict[Kit, int] = {}
    for nth, one in enumerate(hall.get("kit") or (), 1):
        try:
            load = one.get("load_kg")
            kind = (str(one["name"]), None if load is None else float(load))
            found[kind] = found.get(kind, 0) + int(one["count"])
        except (AttributeError, KeyError, TypeError, ValueError):
            raise CannotPlace(f"Kit {nth} needs a name and a count.") from None
    return found


def _positive(hall: Any, name: str, usual: float) -> float:
    given = hall.get(name, usual) if isinstance(hall, dict) else usual
    if (
        not isinstance(given, int | float)
        or isinstance(given, bool)
        or given < 0
        or (name == "walk_m_s" and not given)
    ):
        raise CannotPlace(f"“{name}” is a figure above nothing, not {given}.")
    return float(given)


def placed_object(problem: Problem, seconds: float) -> dict[str, Any]:
    """A placing, or why there is none with what would help; every way out was tried."""
    nobody = _cannot_at_all(problem)
    found = None if nobody else place(problem, seconds)
    if found:
        return _placing(found)
    collisions = nobody or why_not(problem)
    ways = [] if nobody else ways_out(problem, collisions)
    return {
        "feasible": False,
        "collide": [{"text": one.text, "wishes": list(one.wishes)} for one in collisions],
        "ways": [{"text": way.text, "changes": way.changes, "cost": way.cost} for way in ways],
    }


def _cannot_at_all(problem: Problem) -> tuple[Collision, ...]:
    """People who can do a station in no way that is known."""
    found = []
    for person in problem.people:
        for station in problem.stations:
            does, because = problem.does(person, station)
            if not does:
                text = f"{person.id} can’t do {station.name} ({because}), in no way that is known here."
                found.append(Collision(text, (f"{person.id} at {station.name}",)))
    return tuple(found)


def _placing(found: Placing) -> dict[str, Any]:
    problem, laid, dealt = found.problem, found.laid, found.dealt
    stations = [problem.stations[nth] for nth in laid.order]
    spots = [problem.spots[nth] for nth in laid.spots]
    n = len(stations)
    groups = [
        (start, some) for start, ids in dealt.people.items() for some in _shared(problem, ids)
    ]
    lettered = [(letter(nth), start, some) for nth, (start, some) in enumerate(groups)]
    return {
        "feasible": True,
        "proven": found.proven,
        "gap": round(found.gap, 4),
        "order": [one.name for one in stations],
        "spots": {one.name: spot.id for one, spot in zip(stations, spots, strict=True)},
        "groups": [
            {"letter": name, "people": list(some), "start": stations[start].name}
            for name, start, some in lettered
        ],
        "turns": [_turn(problem, turn, stations, lettered) for turn in range(n)],
        "walks": [
            {"from": stations[nth].name, "to": stations[(nth + 1) % n].name,
             "seconds": round(problem.walk_s(spots[nth], spots[(nth + 1) % n]), 1)}
            for nth in range(n if n > 1 else 0)
        ],
        "swaps": [
            {"person": person.id, "station": station.name, "does": does, "because": because}
            for person in problem.people
            for station in stations
            for does, because in [problem.does(person, station)]
            if because
        ],
        "costs": {"order and walks": laid.cost} | dealt.wishes,
    }  # fmt: skip


def _turn(
    problem: Problem,
    turn: int,
    stations: list[Station],
    groups: list[tuple[str, int, tuple[str, ...]]],
) -> dict[str, Any]:
    """Who is where in a turn, and how much of each kit is taken."""
    at = {name: stations[(start + turn) % len(stations)] for name, start, _ in groups}
    people = {one.id: one for one in problem.people}
    there = [(people[who], at[name]) for name, _, some in groups for who in some]
    return {
        "turn": turn + 1,
        "at": {name: station.name for name, station in at.items()},
        "kit": _used(problem, there),
    }


def _shared(problem: Problem, ids: tuple[str, ...]) -> list[tuple[str, ...]]:
    """People who share a start as their groups: more than one where there are more groups than stations."""
    _, high = problem.sizes()
    count = -(-len(ids) // high)
    size, more = divmod(len(ids), count)
    found, at = [], 0
    for nth in range(count):
        upto = at + size + (nth < more)
        found.append(ids[at:upto])
        at = upto
    return found


def _used(problem: Problem, who: list[tuple[Mover, Station]]) -> dict[str, int]:
    used: dict[str, int] = {}
    for person, station in who:
        for (name, load), many in problem.uses(person, station).items():
            key = name if load is None else f"{name} {number(load)}"
            used[key] = used.get(key, 0) + many
    return used
