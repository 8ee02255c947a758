"""The rails: time runs across, each station is a rail, each group a strand that crosses in its rest."""

import itertools
from typing import Literal

from lovrit.core.clock import clock, number
from lovrit.core.moves.library import shipped
from lovrit.core.session.figures import Figure
from lovrit.core.session.model import Amrap, AnyBlock, Every, ForTime
from lovrit.core.session.move import Line
from lovrit.core.session.writer import amount, kit_words, load
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan
from lovrit.core.timeline.rounds import round_ends
from lovrit.core.values import Value
from lovrit.web.desk.tape import STEPS

MOST_TURNS = 24
RAIL = 100
SAID = {
    "rounds": "rounds",
    "sets": "sets",
    "count": "times",
    "work": "work",
    "rest": "rest",
    "break": "break",
    "change": "change",
    "total": "lasts",
    "effort": "effort",
    "lead-in": "lead-in",
    "period": "every",
    "cap": "cap",
    "hold": "first hold",
    "step": "step",
    "reps": "reps",
    "least": "least",
    "most": "most",
    "half start": "half start at",
    "each": "each",
    "steps": "steps",
}


class Rail(Value):
    """A station: its name and what stands with it. ``move`` is its line in the block."""

    name: str
    detail: str
    move: int | None


class Bar(Value):
    """A work on a rail: from ``x``, ``width`` percent wide. ``group`` from 0, or None for everyone."""

    rail: int
    x: float
    width: float
    group: int | None = None
    kind: Literal["work", "steady", "leftover", "ragged", "thins", "mark", "second"] = "work"
    height: float = 1
    shelf: int = 0
    shelves: int = 1
    label: str = ""
    side: str = ""


class Crossing(Value):
    """A strand that crosses in a rest, as a path in a box 1000 wide with 100 for each rail."""

    path: str
    group: int


class Scrub(Value):
    """A figure of the block that a hand can change."""

    name: str
    said: str
    value: float
    text: str
    timed: bool


class Window(Value):
    """A part of the block that can be shown instead."""

    label: str
    part: int
    chosen: bool


class Rails(Value):
    """A block opened: its rails, strands, scale and figures."""

    block: int
    part: int
    label: str
    kind: str
    rails: tuple[Rail, ...]
    bars: tuple[Bar, ...]
    crossings: tuple[Crossing, ...]
    ticks: tuple[tuple[float, str], ...]
    gaps: tuple[tuple[float, str], ...]
    scrubs: tuple[Scrub, ...]
    windows: tuple[Window, ...]
    start_s: int
    seconds: int
    handle_x: float | None
    rest_x: float | None
    line: int
    length: str
    said: str
    groups: int


def rails_view(plan: Plan, groups: int, block_at: int, part: int) -> Rails | None:
    """The rails of a block; None where there is no block."""
    if not plan.session.blocks:
        return None
    at = min(block_at, len(plan.session.blocks) - 1)
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    mine = [one for one in plan.timeline.intervals if one.block == at]
    windows, shown = _windows(block, mine, part)
    start, end = shown[0].start_s, shown[-1].end_s
    draw = _Drawing(block, shown, start, end - start, groups)
    draw.surely_s = laid.low_s
    figures = plan.reading.blocks[at].figures
    return Rails(
        block=at,
        part=next((one.part for one in windows if one.chosen), 0),
        label=laid.label,
        kind=block.kind,
        rails=_rails(block),
        bars=tuple(draw.bars()),
        crossings=tuple(draw.crossings()),
        ticks=_ticks(start, end),
        gaps=draw.gaps(),
        scrubs=tuple(_scrub(name, figure) for name, figure in figures.items()),
        windows=windows,
        start_s=start,
        seconds=end - start,
        handle_x=draw.end_of("work") if "work" in figures else None,
        rest_x=draw.end_of("rest") if "rest" in figures and "work" in figures else None,
        line=plan.reading.blocks[at].line,
        length=clock(laid.seconds),
        said=_said(plan, at),
        groups=groups if block.kind in ("rotate", "sets") else 0,
    )


def _said(plan: Plan, at: int) -> str:
    """What is likely to come of it, in a sentence that can be checked in the head."""
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    forecast = laid.forecast
    if forecast and forecast.rounds and isinstance(block, Amrap):
        low, likely, high = forecast.rounds
        once = block.total_s / likely
        about = f"about {clock(once)} a round, so " if not block.ladder else "up to "
        return f"{about}{number(round(likely))} rounds; from {number(int(low))} to {number(round(high))} across people"
    if forecast and forecast.time_s:
        low_s, _, high_s = forecast.time_s
        if low_s != high_s:
            first = f"the first after {clock(low_s)}, " if isinstance(block, ForTime) else f"from {clock(low_s)} "
            last = f"the last after {clock(high_s)}" if isinstance(block, ForTime) else f"to {clock(high_s)}"
            return first + last
    return ""


def _windows(block: AnyBlock, mine: list[Interval], part: int) -> tuple[tuple[Window, ...], list[Interval]]:
    """Rounds of a rotation and stations of sets one by one; other long blocks in stretches."""
    parts = _parts(block, mine)
    part = min(max(part, 0), len(parts) - 1)
    if len(parts) == 1:
        return (), parts[0][1]
    shown = tuple(Window(label=name, part=nth, chosen=nth == part) for nth, (name, _) in enumerate(parts))
    return shown[:MOST_TURNS], parts[part][1]


def _parts(block: AnyBlock, mine: list[Interval]) -> list[tuple[str, list[Interval]]]:
    by = "round" if block.kind == "rotate" else "turn" if block.kind == "sets" else ""
    if by:
        numbers = sorted({getattr(one, by) for one in mine if getattr(one, by)})
        word = "round" if by == "round" else "station"
        return [(f"{word} {nth}", [one for one in mine if (getattr(one, by) or 1) == nth]) for nth in numbers]
    if len(mine) <= 2 * MOST_TURNS:
        return [("", mine)]
    size = 2 * MOST_TURNS
    return [(f"from {clock(mine[at].start_s)}", mine[at : at + size]) for at in range(0, len(mine), size)]


def _rails(block: AnyBlock) -> tuple[Rail, ...]:
    if not block.moves:
        name = getattr(block, "label", "") or {"rest": "rest"}.get(block.kind, "work")
        return (Rail(name=name, detail="", move=None),)
    return tuple(Rail(name=line.name, detail=detail(line), move=nth) for nth, line in enumerate(block.moves))


def detail(line: Line) -> str:
    """What stands under a station's name: how much, pattern, kit, sides, other ways."""
    task = line.tasks[0]
    known = shipped().find(task.name)
    parts = [amount(task.amount)] if task.amount and len(line.tasks) == 1 else []
    parts += [known.pattern] if known and len(line.tasks) == 1 else []
    parts += [load(task.load)] if task.load else []
    parts += [kit_words(kit) for kit in task.kit]
    parts += [{"each": "each side", "by-round": "left then right"}[line.side]] if line.side != "none" else []
    parts += [f"or {way.name}" for way in task.alternatives if way.name]
    parts += [f"{len(task.parts)} parts"] if task.parts else []
    return " · ".join(parts)


def _ticks(start: int, end: int) -> tuple[tuple[float, str], ...]:
    length = max(1, end - start)
    step = next((one for one in STEPS if length / one <= 8), STEPS[-1])
    first = -(-start // step) * step
    return tuple((round((at - start) / length * 100, 3), clock(at)) for at in range(first, end + 1, step))


def _scrub(name: str, figure: Figure) -> Scrub:
    text = clock(figure.value) if figure.timed else number(figure.value)
    said = SAID.get(name, name)
    return Scrub(name=name, said=said, value=figure.value, text=text, timed=figure.timed)


class _Drawing:
    """Bars and crossings of the intervals shown."""

    def __init__(self, block: AnyBlock, shown: list[Interval], start: int, length: int, groups: int):
        self.block, self.shown = block, shown
        self.start, self.length = start, max(1, length)
        self.moving = block.kind in ("rotate", "sets") and len(block.moves) > 1
        self.groups = groups if self.moving else 1
        self.stations = max(1, len(block.moves))
        self.surely_s = 0

    def x(self, seconds: float) -> float:
        return round((seconds - self.start) / self.length * 100, 3)

    def width(self, seconds: float) -> float:
        return round(seconds / self.length * 100, 3)

    def end_of(self, phase: str) -> float | None:
        """Where the first work, or the rest after it, ends: its border can be dragged."""
        first = next((one for one in self.shown if one.phase == phase), None)
        return self.x(first.end_s) if first else None

    def rail(self, one: Interval, group: int) -> int:
        if self.moving:
            return (group + (one.turn or 1) - 1) % self.stations
        return one.move or 0

    def gaps(self) -> tuple[tuple[float, str], ...]:
        """Breaks and changes that are wide enough to be named, by their middles."""
        wide = (one for one in self.shown if one.phase in ("break", "change") and self.width(one.seconds) > 9)
        return tuple((self.x((one.start_s + one.end_s) / 2), f"{one.phase} {clock(one.seconds)}") for one in wide)

    def bars(self) -> list[Bar]:
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

    def _bar(self, one: Interval, rail: int, **fields: object) -> Bar:
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
            halves = [("work" if nth % 2 == 0 else "second", a, b) for nth, (a, b) in enumerate(rounds)]
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
        ends = round_ends(self.block, shipped())[:200]
        edges = [one.start_s, *(one.start_s + end for end in ends if end < one.seconds), one.end_s]
        return list(itertools.pairwise(edges))

    def crossings(self) -> list[Crossing]:
        """From the end of each work to the start of the group's next, over the rest between."""
        if not self.moving:
            return []
        works = [one for one in self.shown if one.phase == "work"]
        found = []
        for before, after in itertools.pairwise(works):
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
