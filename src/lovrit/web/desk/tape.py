"""The tape: the whole session as one measured strip. Work is solid, steady time hatched, breaks are gaps."""

from collections.abc import Iterator
from typing import Literal

from lovrit.core.blocks.marks import Ink, Mark, thinning
from lovrit.core.clock import clock, minutes
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value

STEPS = (15, 30, 60, 120, 300, 600, 900, 1800, 3600)
MOST_TICKS = 13
THINNEST, FEW = 0.12, 3
USUAL_WIDTH, LETTER_WIDTH = 1230, 7.4
DRAGGED = ("total", "rounds", "count", "sets")


class Strip(Value):
    """A mark on the tape, in percent of its width; ``height`` is a share of the full height."""

    kind: Ink | Literal["dense"]
    x: float
    width: float
    height: float = 1


class Span(Value):
    """A block on the tape: its span in percent, its label, and the figure that its end drags."""

    block: int
    x: float
    width: float
    label: str
    shown: str
    length: str
    chosen: bool
    figure: str = ""
    value: float = 0
    unit_s: float = 1


class Tick(Value):
    """A mark on the minute scale."""

    x: float
    label: str


class Unread(Value):
    """A line of the slate that can't be read, where it would stand on the clock, in percent."""

    line: int
    x: float


class Tape(Value):
    """The tape: its marks, its blocks, its scale, what is spare of the slot or over it, lines that can’t be read."""

    marks: tuple[Strip, ...] = ()
    stretches: tuple[Span, ...] = ()
    ticks: tuple[Tick, ...] = ()
    lines: tuple[int, ...] = ()
    seconds: int = 0
    spare_x: float | None = None
    spare: str = ""
    over_x: float | None = None
    unread: tuple[Unread, ...] = ()


def tape_view(plan: Plan, chosen: int, unread: tuple[int, ...] = ()) -> Tape:
    """The tape of a plan, with the block whose rails are shown marked, and lines that can’t be read."""
    total = plan.timeline.total_s
    if not total:
        return Tape()
    slot = plan.session.slot.seconds - plan.session.setup_s if plan.session.slot else 0
    length = max(total, slot)
    return Tape(
        marks=tuple(
            mark for at in range(len(plan.session.blocks)) for mark in _marks(plan, at, length)
        ),
        stretches=tuple(
            _stretch(plan, at, length, chosen) for at in range(len(plan.session.blocks))
        ),
        ticks=_ticks(length),
        lines=tuple(place.line for place in plan.reading.blocks),
        seconds=length,
        spare_x=_at(total, length) if slot > total else None,
        spare=f"{clock(slot - total)} spare" if slot > total else "",
        over_x=_at(slot, length) if 0 < slot < total else None,
        unread=tuple(_unread(plan, length, unread)),
    )


def _unread(plan: Plan, length: int, unread: tuple[int, ...]) -> Iterator[Unread]:
    """Lines that can't be read: where the block begins that they are part of, or the next one."""
    places = [
        (place.line, laid.start_s)
        for place, laid in zip(plan.reading.blocks, plan.timeline.blocks, strict=False)
    ]
    for line in dict.fromkeys(unread):
        inside = (
            [start for first, start in places if first <= line] if _stands_in(plan, line) else []
        )
        after = [start for first, start in places if first > line]
        yield Unread(line=line, x=_at([*inside[-1:], *after, plan.timeline.total_s][0], length))


def _stands_in(plan: Plan, line: int) -> bool:
    lines = plan.reading.text.split("\n")
    return line <= len(lines) and lines[line - 1][:1] in (" ", "\t")


def _at(seconds: float, length: int) -> float:
    return round(seconds / length * 100, 3)


def _ticks(length: int) -> tuple[Tick, ...]:
    step = next((one for one in STEPS if length / one <= MOST_TICKS), STEPS[-1])
    at = range(0, length + 1, step)
    said = minutes if step < 60 else (lambda seconds: str(seconds // 60))
    return tuple(Tick(x=_at(seconds, length), label=said(seconds)) for seconds in at)


def _stretch(plan: Plan, at: int, length: int, chosen: int) -> Span:
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    figures = plan.reading.blocks[at].figures
    drags = next((name for name in DRAGGED if name in figures), "")
    value = figures[drags].value if drags else 0
    unit = 1.0 if drags == "total" or not value else laid.seconds / value
    return Span(
        block=at,
        x=_at(laid.start_s, length),
        width=_at(laid.seconds, length),
        label=block.short_name,
        shown=_fitting(block.short_name, laid.seconds / length),
        length=clock(laid.seconds),
        chosen=at == chosen,
        figure=drags,
        value=value,
        unit_s=round(unit, 3),
    )


def _fitting(text: str, share: float) -> str:
    """As much of a label as its block has room for at a desk's width: all, the first words, or nothing."""
    room = int(share * USUAL_WIDTH / LETTER_WIDTH)
    if len(text) <= room:
        return text
    first = text.split(",", 1)[0]
    return first if len(first) <= room else ""


def _marks(plan: Plan, at: int, length: int) -> list[Strip]:
    """A block's marks; where its works are too many to be told apart, one dense mark."""
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    mine = plan.timeline.of_block(at)
    works = sum(one.phase == "work" for one in mine)
    if works > FEW and _at(laid.seconds / works, length) < 2 * THINNEST:
        return [
            Strip(
                kind="dense", x=_at(laid.start_s, length), width=_at(laid.seconds, length), height=1
            )
        ]
    drawn = ((one, block.drawn(one)) for one in mine)
    return [
        strip
        for one, mark in drawn
        if mark
        for strip in _strips(one.start_s, mark, laid.low_s, length)
    ]


def _strips(start: int, mark: Mark, quickest_s: int, length: int) -> list[Strip]:
    """A mark on the tape; what thins out is solid until the quickest end."""
    whole = mark.end_s - mark.start_s
    marks = (
        [mark]
        if mark.ink != "thins"
        else thinning(mark.start_s, min(whole, quickest_s), mark.end_s)
    )
    return [
        Strip(
            kind=one.ink,
            x=_at(start + one.start_s, length),
            width=_at(one.end_s - one.start_s, length),
            height=one.height,
        )
        for one in marks
    ]
