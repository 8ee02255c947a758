"""A print sheet: A4, one page, stations and times that can be read on a wall from three metres, in words for people."""

from functools import cache
from importlib.resources import files
from typing import NamedTuple

from jinja2 import Environment, Template

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, minutes, number
from lovrit.core.slate.line import Kit, Line, Task, Way
from lovrit.core.slate.written import SIDE_WORDS, amount, load
from lovrit.core.timeline.plan import Plan

MOST_PT, LEAST_PT = 26, 10
ROOM_PT = 500  # so many points of letters stand above one another on the page


class SheetLine(NamedTuple):
    """A line in words: what is done, and what else there is to know."""

    said: str
    more: tuple[str, ...]


class SheetBlock(NamedTuple):
    """A block on the sheet."""

    when: str
    head: str
    length: str
    plain: bool
    lines: tuple[SheetLine, ...]


def to_sheet(plan: Plan, nonce: str = "") -> str:
    """The sheet as a page of its own; letters shrink until all of it has a chance of fitting on one page.

    Served, it has the house's letters by its nonce; as a file it takes what the machine has.
    """
    session = plan.session
    lines = sum(len(block.moves) for block in session.blocks if block.works)
    told = [minutes(plan.timeline.total_s)]
    told += (
        [f"{session.slot.start}–{session.slot.end}"] if session.slot and session.slot.start else []
    )
    told += [f"{session.people} people"] if session.people else []
    told += [session.note] if session.note else []
    return _template().render(
        title=session.title or "A session",
        told=told,
        blocks=[_block(plan, at) for at in range(len(session.blocks))],
        size=max(LEAST_PT, min(MOST_PT, round(ROOM_PT / max(1, lines + 2 * len(session.blocks))))),
        nonce=nonce,
    )


@cache
def _template() -> Template:
    text = files("lovrit.formats").joinpath("templates", "sheet.html").read_text("utf-8")
    return Environment(autoescape=True, trim_blocks=True, lstrip_blocks=True).from_string(text)


def _block(plan: Plan, at: int) -> SheetBlock:
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    length = "" if laid.label.endswith(clock(laid.seconds)) else clock(laid.seconds)
    lines = tuple(_line(line) for line in block.moves)
    lines += (SheetLine(block.note, ()),) if block.note else ()
    return SheetBlock(clock(laid.start_s), _head(block), length, not block.works, lines)


def _head(block: Block) -> str:
    """A block's first words and its options, as they are said to people."""
    return ", ".join([block.head, *block.written_options()])


def _line(line: Line) -> SheetLine:
    """A line without notation: kit with its loads, sides, the ways round it."""
    more = tuple(said for task in line.tasks for said in _more(task))
    return SheetLine(" + ".join(_task(task) for task in line.tasks), more)


def _task(task: Task) -> str:
    said = f"{amount(task.amount)} {task.name}" if task.amount else task.name
    return said + (f" at {load(task.load)}" if task.load else "")


def _more(task: Task) -> list[str]:
    said = [_kit(kit) for kit in task.kit]
    said += [SIDE_WORDS[task.side]] if task.side != "none" else []
    said += [", ".join(_way(part) for part in task.parts)] if task.parts else []
    said += [f"{task.rep_s} s a rep"] if task.rep_s else []
    for word, ways in (
        ("or", task.alternatives),
        ("easier:", task.easier),
        ("harder:", task.harder),
    ):
        said += [f"{word} {_way(way)}" for way in ways]
    return said


def _kit(kit: Kit) -> str:
    """``bell: 16, 12 or 8 kg``."""
    name = f"{kit.each} {kit.name}s" if kit.each > 1 else kit.name
    loads = [number(one) for one in kit.loads]
    if not loads:
        return name
    last = f" or {loads[-1]}" if len(loads) > 1 else loads[-1]
    return f"{name}: {', '.join(loads[:-1])}{last} kg"


def _way(way: Way) -> str:
    return f"{amount(way.amount)} {way.name}".strip() if way.amount else way.name
