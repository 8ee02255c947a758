"""The corridor strip under the rails: targets as outlined boxes, the middle of all hearts a line, a haze round it."""

import numpy as np

from lovrit.core.crew.person import Person
from lovrit.core.heart.gates_ahead import foresee_gates, gates_said
from lovrit.core.heart.group import CompanyAhead, foresee_company
from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.said import USUAL, foretold, hearts_said
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value
from lovrit.web.desk.rails import Rails

WIDE, HIGH = 1000, 100
TOP, BOTTOM = 1.04, 0.1  # shares of reserve that the strip's edges stand for
LINES = (0.25, 0.5, 0.75, 1.0)
MOST_POINTS = 500


class CorridorBox(Value):
    """A target on the strip: percent of its width and height."""

    x: float
    width: float
    y: float
    height: float


class CorridorStrip(Value):
    """What the strip draws, in a box 1000 wide and 100 high, and what it says."""

    line: str
    haze: str
    boxes: tuple[CorridorBox, ...]
    scale: tuple[tuple[float, str], ...]
    said: str
    whose: str


def corridor_strip(plan: Plan, rails: Rails, people: list[Person]) -> CorridorStrip | None:
    """The strip of the block that is open, over the part of it that the rails show; None where nothing is foretold."""
    if not foretold(plan, rails.block):
        return None
    ahead = foresee_company(plan, people or [USUAL], rails.block)
    if ahead is None:
        return None
    start, seconds = rails.start_s, rails.seconds
    shown = slice(start - ahead.start_s, start - ahead.start_s + seconds + 1)
    pen = _Pen(seconds)
    boxes = [one for one in ahead.boxes if start <= one.start_s < start + seconds]
    return CorridorStrip(
        line=pen.line(ahead.middle[shown]),
        haze=pen.haze(ahead.low[shown], ahead.high[shown]),
        boxes=tuple(
            CorridorBox(
                x=round((one.start_s - start) / seconds * 100, 3),
                width=round((one.end_s - one.start_s) / seconds * 100, 3),
                y=pen.y(one.high),
                height=round(pen.y(one.low) - pen.y(one.high), 2),
            )
            for one in boxes
        ),
        scale=tuple((pen.y(share), f"{share:.0%}") for share in LINES),
        said=_said(plan, rails.block, ahead, people),
        whose=_whose(ahead, people),
    )


def _said(plan: Plan, block: int, ahead: CompanyAhead, people: list[Person]) -> str:
    gates = foresee_gates(plan, people or [USUAL], block) if ahead.gated else None
    return gates_said(gates) if gates else hearts_said(ahead, people)


def _whose(ahead: CompanyAhead, people: list[Person]) -> str:
    if len(people) > 1:
        return f"the middle of {ahead.steer} hearts in their own reserve, and where 8 of 10 will be"
    return "one heart in its own reserve, and where 8 of 10 like it would be"


class _Pen:
    """Where a second and a share of reserve stand on the strip."""

    def __init__(self, seconds: int) -> None:
        self.seconds = max(1, seconds)
        self.every = max(1, seconds // MOST_POINTS)

    def y(self, share: float) -> float:
        """Percent from the top."""
        inside = min(TOP, max(BOTTOM, share))
        return round((TOP - inside) / (TOP - BOTTOM) * HIGH, 2)

    def points(self, shares: Floats) -> list[str]:
        """Every so many seconds a point."""
        inside = np.clip(shares[:: self.every], BOTTOM, TOP)
        ys = ((TOP - inside) / (TOP - BOTTOM) * HIGH).tolist()
        step = self.every / self.seconds * WIDE
        return [f"{nth * step:.1f} {y:.1f}" for nth, y in enumerate(ys)]

    def line(self, shares: Floats) -> str:
        """A line through all of them."""
        return "M" + "L".join(self.points(shares))

    def haze(self, low: Floats, high: Floats) -> str:
        """The ground between two lines."""
        return "M" + "L".join([*self.points(high), *reversed(self.points(low))]) + "Z"
