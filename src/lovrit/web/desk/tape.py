"""The tape: the whole session as one measured strip. Work is solid, steady time hatched, breaks are gaps."""

from typing import Literal

from lovrit.core.clock import clock, minutes
from lovrit.core.session.model import AnyBlock
from lovrit.core.timeline.interval import Interval, LaidBlock
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value

STEPS = (15, 30, 60, 120, 300, 600, 900, 1800, 3600)
MOST_TICKS = 13
THINNEST = 0.12
USUAL_WIDTH, LETTER_WIDTH = 1230, 7.4
DRAGGED = ("total", "rounds", "count", "sets")


class Mark(Value):
    """A mark on the tape, in percent of its width; ``height`` is a share of the full height."""

    kind: Literal["work", "steady", "lead-in", "dense", "ragged", "thins", "leftover"]
    x: float
    width: float
    height: float = 1


class Stretch(Value):
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


class Tape(Value):
    """The tape: its marks, its blocks, its scale, and what is spare of the slot or over it."""

    marks: tuple[Mark, ...] = ()
    stretches: tuple[Stretch, ...] = ()
    ticks: tuple[Tick, ...] = ()
    lines: tuple[int, ...] = ()
    seconds: int = 0
    spare_x: float | None = None
    spare: str = ""
    over_x: float | None = None


def tape_view(plan: Plan, chosen: int) -> Tape:
    """The tape of a plan, with the block whose rails are shown marked."""
    total = plan.timeline.total_s
    if not total:
        return Tape()
    slot = plan.session.slot.seconds - plan.session.setup_s if plan.session.slot else 0
    length = max(total, slot)
    return Tape(
        marks=tuple(mark for at in range(len(plan.session.blocks)) for mark in _marks(plan, at, length)),
        stretches=tuple(_stretch(plan, at, length, chosen) for at in range(len(plan.session.blocks))),
        ticks=_ticks(length),
        lines=tuple(place.line for place in plan.reading.blocks),
        seconds=length,
        spare_x=_at(total, length) if slot > total else None,
        spare=f"{clock(slot - total)} spare" if slot > total else "",
        over_x=_at(slot, length) if 0 < slot < total else None,
    )


def _at(seconds: float, length: int) -> float:
    return round(seconds / length * 100, 3)


def _ticks(length: int) -> tuple[Tick, ...]:
    step = next((one for one in STEPS if length / one <= MOST_TICKS), STEPS[-1])
    at = range(0, length + 1, step)
    said = minutes if step < 60 else (lambda seconds: str(seconds // 60))
    return tuple(Tick(x=_at(seconds, length), label=said(seconds)) for seconds in at)


def _stretch(plan: Plan, at: int, length: int, chosen: int) -> Stretch:
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    figures = plan.reading.blocks[at].figures
    drags = next((name for name in DRAGGED if name in figures), "")
    value = figures[drags].value if drags else 0
    unit = 1.0 if drags == "total" or not value else laid.seconds / value
    return Stretch(
        block=at,
        x=_at(laid.start_s, length),
        width=_at(laid.seconds, length),
        label=label(block, laid),
        shown=_fitting(label(block, laid), laid.seconds / length),
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


def label(block: AnyBlock, laid: LaidBlock) -> str:
    """A block's short name on the tape."""
    match block.kind:
        case "steady":
            return block.label
        case "rotate":
            return f"{laid.label}, {len(block.moves)} stations"
        case "amrap":
            return "as many as possible" + (", partners" if block.partners else "")
        case "rest":
            return "rest"
    return laid.label


def _marks(plan: Plan, at: int, length: int) -> list[Mark]:
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    mine = [one for one in plan.timeline.intervals if one.block == at]
    if block.kind == "for-time":
        return _thinning(laid, length)
    works = [one for one in mine if one.phase == "work"]
    if len(works) > 3 and _at(laid.seconds / len(works), length) < 2 * THINNEST:
        span = {"x": _at(laid.start_s, length), "width": _at(laid.seconds, length)}
        return [Mark(kind="dense", **span, height=1)]
    return [mark for one in mine for mark in _interval(block, one, length)]


def _interval(block: AnyBlock, one: Interval, length: int) -> list[Mark]:
    span = {"x": _at(one.start_s, length), "width": _at(one.seconds, length)}
    if one.phase in ("steady", "lead-in"):
        return [Mark(kind=one.phase, **span, height=0.5)]
    if one.phase == "work":
        return [Mark(kind="work", **span, height=_height(block, one))]
    if one.phase == "rest" and block.kind == "every":
        return [Mark(kind="leftover", **span, height=0.12)]
    if one.phase == "rest" and _gated(block):
        return [Mark(kind="ragged", **span, height=0.5)]
    return []


def _gated(block: AnyBlock) -> bool:
    return getattr(block, "most_s", None) is not None


def _height(block: AnyBlock, one: Interval) -> float:
    """How high a work stands: full, but for what climbs or grows."""
    if block.kind == "tempo" and one.beat is not None:
        low, high = sorted((block.start, block.end))
        return round(0.3 + 0.7 * (one.beat - low) / max(1, high - low), 3)
    if block.kind == "hold-ladder":
        return round(0.35 + 0.65 * one.seconds / block.period_s, 3)
    return 1


def _thinning(laid: LaidBlock, length: int) -> list[Mark]:
    """For time: solid until the quickest ends, thinning out until the last."""
    sure = min(laid.low_s, laid.seconds)
    x = _at(laid.start_s, length)
    marks = [Mark(kind="work", x=x, width=_at(sure, length))]
    if laid.seconds > sure:
        rest = _at(laid.seconds - sure, length)
        marks.append(Mark(kind="thins", x=round(x + _at(sure, length), 3), width=rest))
    return marks
