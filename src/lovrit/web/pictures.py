"""A move's two positions as lines on a square of 100 by 100, floor and kit included."""

from functools import cache
from typing import NamedTuple

from lovrit.core.crew.fits import cells
from lovrit.core.crew.person import Comer
from lovrit.core.moves.figure import HEAD, Drawing, Point, Posture, Prop, drawings, figure
from lovrit.core.moves.names import key_of
from lovrit.core.run.frozen import Frozen

SIDE = 100.0
MARGIN = 5.0
LOW = 0.66
TALLEST = 1.0


class Stroke(NamedTuple):
    """A line through points, as SVG writes them; ``kind`` is near, far, kit or floor."""

    points: str
    kind: str


class Round(NamedTuple):
    """A head, or round kit."""

    x: float
    y: float
    r: float
    kind: str


class Picture(NamedTuple):
    """All lines and rounds of a drawing."""

    lines: tuple[Stroke, ...]
    rounds: tuple[Round, ...]


class _Cell(NamedTuple):
    """Where a figure stands on the square: its left foot's place, the floor's height, and the scale."""

    x: float
    floor: float
    scale: float

    def at(self, point: Point) -> tuple[float, float]:
        return round(self.x + point.x * self.scale, 1), round(self.floor - point.y * self.scale, 1)

    def line(self, kind: str, *points: Point) -> Stroke:
        return Stroke(" ".join("{},{}".format(*self.at(point)) for point in points), kind)


@cache
def picture(name: str) -> Picture | None:
    """The drawing of a move, where there is one."""
    drawn = drawings().get(key_of(name))
    return picture_of(drawn) if drawn else None


def picture_of(drawn: Drawing) -> Picture:
    """A drawing on its square: side by side where people stand, one above the other where they lie."""
    both = (figure(drawn.start), figure(drawn.end))
    lines: list[Stroke] = []
    rounds: list[Round] = []
    for one, cell in zip(both, _cells(*both, 0.14 if drawn.props else 0), strict=True):
        lines += _floor(one, cell)
        for prop in drawn.props:
            _kit(prop, one, cell, lines, rounds)
        lines += [cell.line("far", *limb.joints) for limb in one.limbs if limb.far]
        lines += [cell.line("near", *limb.joints) for limb in one.limbs if not limb.far]
        x, y = cell.at(one.head)
        rounds.append(Round(x, y, round(HEAD * cell.scale, 1), "head"))
    return Picture(tuple(lines), tuple(rounds))


def _cells(one: Posture, two: Posture, above: float) -> tuple[_Cell, _Cell]:
    """Where both stand; ``above`` is room for kit over a raised hand."""
    room = SIDE - 2 * MARGIN
    if max(one.top, two.top) < LOW:
        scale = min(room / max(one.right, two.right), (room / 2 - 6) / max(one.top, two.top))
        x = [MARGIN + (room - each.right * scale) / 2 for each in (one, two)]
        return _Cell(x[0], SIDE / 2 - 4, scale), _Cell(x[1], SIDE - MARGIN, scale)
    gap = 0.14
    scale = min(
        room / (one.right + two.right + gap), room / max(one.top + above, two.top + above, TALLEST)
    )
    x1 = MARGIN + (room - (one.right + two.right + gap) * scale) / 2
    return _Cell(x1, SIDE - MARGIN, scale), _Cell(
        x1 + (one.right + gap) * scale, SIDE - MARGIN, scale
    )


def _floor(one: Posture, cell: _Cell) -> list[Stroke]:
    return [cell.line("floor", Point(-0.05, -0.035), Point(one.right + 0.05, -0.035))]


def _kit(prop: Prop, one: Posture, cell: _Cell, lines: list[Stroke], rounds: list[Round]) -> None:
    hand = one.hands[0]
    match prop.what:
        case "bell":
            up = 1 if hand.y > one.head.y else -1
            lines.append(cell.line("kit", hand, Point(hand.x, hand.y + up * 0.05)))
            rounds.append(
                Round(
                    *cell.at(Point(hand.x, hand.y + up * 0.09)), round(0.055 * cell.scale, 1), "kit"
                )
            )
        case "ball" | "bar":
            size = 0.1 if prop.what == "ball" else 0.13
            rounds.append(Round(*cell.at(hand), round(size * cell.scale, 1), prop.what))
        case "bench" | "box" | "seat":
            lines.append(_under(prop, one, cell))
        case "bag" | "plate":
            lines.append(_block(cell, hand.x - 0.08, 0.2, hand.y - 0.14, hand.y + 0.1))
        case "wall":
            x = one.seat.x - 0.05 if prop.under == "seat" else hand.x + 0.02
            lines.append(cell.line("kit", Point(x, 0), Point(x, prop.high)))
        case "rail":
            lines.append(
                cell.line("kit", Point(hand.x - 0.14, hand.y), Point(hand.x + 0.14, hand.y))
            )
        case _:
            _thin(prop, one, cell, lines)


def _thin(prop: Prop, one: Posture, cell: _Cell, lines: list[Stroke]) -> None:
    """Kit that is a line: rings on their straps, a band to its anchor or the other hand, a rope's turn."""
    hand = one.hands[0]
    match prop.what:
        case "rings":
            lines.append(cell.line("thin", hand, Point(hand.x, prop.high)))
        case "band":
            ahead = (
                Point(one.right + 0.12, prop.high)
                if prop.under == "hand"
                else Point(-0.12, prop.high)
            )
            lines.append(cell.line("thin", hand, ahead if prop.high else one.hands[-1]))
        case "rope":
            turn = (Point(one.right + 0.07, 0.3), Point(one.right / 2, -0.02), Point(-0.06, 0.3))
            lines.append(cell.line("thin", hand, *turn, hand))


def _under(prop: Prop, one: Posture, cell: _Cell) -> Stroke:
    """A bench or a box under a joint, or ahead of a foot that isn't on it yet."""
    if prop.under == "foot":
        on_it = one.foot.y > 0.08
        return _block(cell, one.foot.x - 0.04 if on_it else one.foot.x + 0.16, 0.18, 0, prop.high)
    if prop.under == "seat":
        return _block(cell, one.seat.x - 0.14, 0.18, 0, min(prop.high, one.seat.y))
    hand = one.hands[0]
    return _block(cell, hand.x - 0.06, 0.18, 0, min(prop.high, hand.y))


def _block(cell: _Cell, x: float, wide: float, low: float, high: float) -> Stroke:
    corners = (
        Point(x, low),
        Point(x, high),
        Point(x + wide, high),
        Point(x + wide, low),
        Point(x, low),
    )
    return cell.line("kit", *corners)


def wall_drawings(plan: Frozen) -> dict[str, Picture]:
    """The drawings of a class's stations by their names, for those whose first move has one."""
    drawn = {station: picture(name) for station, name in plan.drawn.items()}
    return {station: one for station, one in drawn.items() if one}


def own_drawings(plan: Frozen, mine: Comer) -> dict[str, Picture]:
    """The same for one person, with those of their own versions."""
    run_by = plan.plan()
    lines = [line for block in run_by.blocks for line in block.block.moves if not line.is_rest]
    names = {one.does for line in lines for one in cells(mine, line, run_by.library)}
    own = {name: drawn for name in names if (drawn := picture(name))}
    return own | wall_drawings(plan)
