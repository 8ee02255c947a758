"""The hall as it is drawn: metres on a page, stations on their spots, the loop with its seconds."""

from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.crew.groups import letter
from lovrit.core.place.around import Ways
from lovrit.core.place.evening import Evening
from lovrit.core.place.hall import Hall, HallSpot
from lovrit.core.place.problem import Kit, Problem, kit_said
from lovrit.core.place.setting_up import setting_up
from lovrit.core.timeline.plan import Plan
from lovrit.house.evening import InHall, Stood

MARGIN = 0.6  # metres round the floor


class Stand(NamedTuple):
    """A station on the floor: its number, its name, where, whether the coach put it there, who begins there."""

    nth: int
    name: str
    spot: str
    x: float
    y: float
    pinned: bool
    groups: tuple[str, ...]
    options: tuple[str, ...]


class LegDrawn(NamedTuple):
    """A leg of the loop as it is walked, with its seconds beside its middle (metres)."""

    points: str
    x: float
    y: float
    said: str
    fits: bool


class UseRow(NamedTuple):
    """A kit against the clock: each turn's figure, and whether there are enough."""

    kit: str
    there: int
    by_turn: tuple[tuple[int, bool], ...]


class SettingUp(NamedTuple):
    """What goes where in walking order, and how long it takes."""

    rows: tuple[tuple[str, str, str], ...]
    said: str


class HallView(NamedTuple):
    """All that the Hall shows of an evening."""

    hall: Hall
    block: str
    box: str
    stands: tuple[Stand, ...]
    legs: tuple[LegDrawn, ...]
    turns: tuple[str, ...]
    uses: tuple[UseRow, ...]
    told: Evening
    walk: str
    setting_up: SettingUp
    stations: int


def hall_view(now: InHall, here: Stood) -> HallView:
    """An evening as it stands."""
    hall, plan, (problem, groups, told) = now.hall, now.plan, here
    places = {one.id: one for one in hall.spots}
    stands = tuple(_stands(problem, told, places, len(groups)))
    by_name = {one.name: one for one in stands}
    walks = hall.walks
    legs = [
        _leg(walks, by_name[leg.start], by_name[leg.end], f"{leg.seconds:.0f}\u2009s", leg.fits)
        for leg in told.legs
    ]
    whole = sum(leg.seconds for leg in told.legs)
    longest = max((leg.seconds for leg in told.legs), default=0)
    width, height = hall.size_m
    return HallView(
        hall=hall,
        block=plan.timeline.blocks[now.at or 0].label,
        box=f"{-MARGIN} {-MARGIN} {width + 2 * MARGIN} {height + 2 * MARGIN}",
        stands=stands,
        legs=tuple(legs),
        turns=tuple(_turns(plan, now.at or 0, problem.count)),
        uses=tuple(
            UseRow(use.kit, use.there, tuple((many, many <= use.there) for many in use.by_turn))
            for use in told.uses
        ),
        told=told,
        stations=len(problem.stations),
        walk=f"{whole:.0f} s round the loop, the longest leg {longest:.0f} of {problem.rest_s} s"
        if told.legs
        else "",
        setting_up=_setting_up(plan, hall, problem, told, groups),
    )


def _stands(
    problem: Problem, told: Evening, places: dict[str, HallSpot], groups: int
) -> list[Stand]:
    found = []
    for nth, station in enumerate(problem.stations):
        at = told.spots.get(station.name)
        if at is None:
            continue
        begins = tuple(letter(one) for one in range(nth, groups, problem.count))
        options = tuple(
            one.id for one in problem.spots if station.needs <= (one.holds or frozenset())
        )
        spot = places[at]
        found.append(
            Stand(
                nth + 1,
                station.name,
                at,
                spot.x,
                spot.y,
                station.name in problem.pinned,
                begins,
                options,
            )
        )
    return found


def _leg(walks: Ways, one: Stand, other: Stand, said: str, fits: bool) -> LegDrawn:
    path = walks.path((one.x, one.y), (other.x, other.y))
    middle = (len(path) - 1) // 2
    (x1, y1), (x2, y2) = path[middle], path[middle + 1]
    points = " ".join(f"{x:g},{y:g}" for x, y in path)
    return LegDrawn(points, round((x1 + x2) / 2, 2), round((y1 + y2) / 2, 2), said, fits)


def _setting_up(
    plan: Plan, hall: Hall, problem: Problem, told: Evening, groups: list[list[str]]
) -> SettingUp:
    """What goes where, and whether the time that the slate gives for it will do."""
    puts = setting_up(problem, told.spots, groups, hall.store)
    whole = sum(one.seconds for one in puts)
    given, spare = plan.session.setup_s, plan.sums.spare_s
    said = f"Some {clock(whole)} for two people, as usual, and as long to clear it"
    said += "." if hall.store else "; draw a store or a door, and the way there is counted too."
    if given:
        enough = "which will do" if given >= whole else "which is short"
        said += f" The slate gives {clock(given)} to set up, {enough}."
    elif spare is not None:
        said += (
            f" The slot leaves {clock(spare)}." if spare > 0 else " The slot leaves nothing for it."
        )
    rows = tuple((one.station, one.spot, ", ".join(_pieces(one.kit))) for one in puts)
    return SettingUp(rows, said)


def _pieces(kit: tuple[tuple[Kit, int], ...]) -> list[str]:
    return [f"{many} {kit_said(kind)}" for kind, many in kit]


def _turns(plan: Plan, at: int, count: int) -> list[str]:
    """When each turn of the first round begins, as time into the class."""
    found: dict[int, int] = {}
    for one in plan.timeline.of_block(at):
        if one.turn is not None and one.round in (None, 1):
            found.setdefault(one.turn, one.start_s)
    return [clock(found[nth]) if nth in found else str(nth) for nth in range(1, count + 1)]
