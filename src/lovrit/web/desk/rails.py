"""The rails: time runs across, each station is a rail, each group a strand that crosses in its rest."""

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, number
from lovrit.core.crew.groups import letter
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line
from lovrit.core.slate.tree import Figure
from lovrit.core.slate.written import SIDE_WORDS, amount, kit_words, load
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value
from lovrit.web.desk.drawing import Bar, Crossing, Rows
from lovrit.web.desk.tape import STEPS

MOST_TURNS = 24
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
    side: str = "none"


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
    who_where: tuple[str, ...]  # the picture in words, a turn each


def rails_view(plan: Plan, groups: int, block_at: int, part: int) -> Rails | None:
    """The rails of a block; None where there is no block."""
    if not plan.session.blocks:
        return None
    at = min(block_at, len(plan.session.blocks) - 1)
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    mine = plan.timeline.of_block(at)
    windows, shown = _windows(block, mine, part)
    start, end = shown[0].start_s, shown[-1].end_s
    rows = Rows(block, shown, groups, plan.library, laid.low_s)
    figures = plan.reading.blocks[at].figures
    rails = _rails(block, plan.library)
    return Rails(
        block=at,
        part=next((one.part for one in windows if one.chosen), 0),
        label=laid.label,
        kind=block.kind,
        rails=rails,
        bars=tuple(rows.bars()),
        crossings=tuple(rows.crossings()),
        ticks=_ticks(start, end),
        gaps=rows.gaps(),
        scrubs=tuple(_scrub(name, figure) for name, figure in figures.items()),
        windows=windows,
        start_s=start,
        seconds=end - start,
        handle_x=rows.end_of("work") if "work" in figures else None,
        rest_x=rows.end_of("rest") if "rest" in figures and "work" in figures else None,
        line=plan.reading.blocks[at].line,
        length=clock(laid.seconds),
        said=_said(plan, at),
        groups=groups if block.rotates else 0,
        who_where=tuple(_turn_said(one, strands, rails) for one, strands in rows.turns()),
    )


def _turn_said(turn: Interval, strands: list[Bar], rails: tuple[Rail, ...]) -> str:
    """A turn for those who don't see the picture: when, and each group with its station."""
    there = sorted((one.group or 0, rails[one.rail].name, one.side) for one in strands)
    said = (f"{letter(group)} {name}{f', {side}' if side else ''}" for group, name, side in there)
    return f"{clock(turn.start_s)} {'; '.join(said)}"


def _said(plan: Plan, at: int) -> str:
    """Between which lengths a block may last, where the outlook doesn't say it better."""
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    told = laid.forecast and laid.forecast.time_s
    if not told or told[0] == told[2] or block.races:
        return ""
    return f"from {clock(told[0])} to {clock(told[2])}"


def _windows(
    block: Block, mine: list[Interval], part: int
) -> tuple[tuple[Window, ...], list[Interval]]:
    """Rounds of a rotation and stations of sets one by one; other long blocks in stretches."""
    parts = _parts(block, mine)
    part = min(max(part, 0), len(parts) - 1)
    if len(parts) == 1:
        return (), parts[0][1]
    shown = tuple(
        Window(label=name, part=nth, chosen=nth == part) for nth, (name, _) in enumerate(parts)
    )
    return shown[:MOST_TURNS], parts[part][1]


def _parts(block: Block, mine: list[Interval]) -> list[tuple[str, list[Interval]]]:
    by = block.shown_by
    if by:
        numbers = sorted({getattr(one, by) for one in mine if getattr(one, by)})
        word = "round" if by == "round" else "station"
        return [
            (f"{word} {nth}", [one for one in mine if (getattr(one, by) or 1) == nth])
            for nth in numbers
        ]
    if len(mine) <= 2 * MOST_TURNS:
        return [("", mine)]
    size = 2 * MOST_TURNS
    return [
        (f"from {clock(mine[at].start_s)}", mine[at : at + size])
        for at in range(0, len(mine), size)
    ]


def _rails(block: Block, library: Library) -> tuple[Rail, ...]:
    if not block.moves:
        return (Rail(name=block.name, detail="", move=None),)
    return tuple(
        Rail(name=line.name, detail=detail(line, library), move=nth, side=line.side)
        for nth, line in enumerate(block.moves)
    )


def detail(line: Line, library: Library) -> str:
    """What stands under a station's name: how much, pattern, kit, sides, other ways."""
    task = line.tasks[0]
    known = library.find(task.name)
    parts = [amount(task.amount)] if task.amount and len(line.tasks) == 1 else []
    parts += [known.pattern] if known and len(line.tasks) == 1 else []
    parts += [load(task.load)] if task.load else []
    parts += [kit_words(kit) for kit in task.kit]
    parts += [SIDE_WORDS[line.side]] if line.side != "none" else []
    parts += [f"or {way.name}" for way in task.alternatives if way.name]
    parts += [f"{len(task.parts)} parts"] if task.parts else []
    return " · ".join(parts)


def _ticks(start: int, end: int) -> tuple[tuple[float, str], ...]:
    length = max(1, end - start)
    step = next((one for one in STEPS if length / one <= 8), STEPS[-1])
    first = -(-start // step) * step
    return tuple(
        (round((at - start) / length * 100, 3), clock(at)) for at in range(first, end + 1, step)
    )


def _scrub(name: str, figure: Figure) -> Scrub:
    text = clock(figure.value) if figure.timed else number(figure.value)
    said = SAID.get(name, name)
    return Scrub(name=name, said=said, value=figure.value, text=text, timed=figure.timed)
