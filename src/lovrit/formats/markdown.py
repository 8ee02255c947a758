"""Markdown, for a message or a notebook; and a card for any plain interval timer."""

from collections.abc import Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.rotate import Rotate
from lovrit.core.blocks.sets import Sets
from lovrit.core.clock import clock, minutes
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.interval import Interval, LaidBlock
from lovrit.core.timeline.plan import Plan


def to_markdown(plan: Plan) -> str:
    """The session as headings and lists."""
    session = plan.session
    lines = [f"# {_plain(session.title) or 'A session'}", ""]
    told = [f"{minutes(plan.timeline.total_s)} in all"]
    told += [session.date] if session.date else []
    told += [f"{session.people} people"] if session.people else []
    lines += [" · ".join(told), ""]
    lines += [_plain(session.note), ""] if session.note else []
    for block, laid in zip(session.blocks, plan.timeline.blocks, strict=True):
        lines += [f"## {clock(laid.start_s)} {_plain(laid.label)}", ""]
        lines += [f"{nth}. {_plain(move_line(move))}" for nth, move in enumerate(block.moves, 1)]
        lines += [""] if block.moves else []
        lines += [_plain(block.note), ""] if block.note else []
    return "\n".join(lines).rstrip() + "\n"


def _plain(text: str) -> str:
    return "".join(f"\\{char}" if char in "\\`*_[]<>|#!&" else char for char in text)


def to_card(plan: Plan) -> str:
    """What to key into a plain interval timer, block by block."""
    lines = [plan.session.title or "A session", ""]
    mine: dict[int, list[Interval]] = {}
    for one in plan.timeline.intervals:
        mine.setdefault(one.block, []).append(one)
    for nth, (block, laid) in enumerate(
        zip(plan.session.blocks, plan.timeline.blocks, strict=True), 1
    ):
        lines.append(f"{nth}. {laid.label}  ({clock(laid.seconds)})")
        lines += [f"   {line}" for line in _keys(block, laid, mine.get(nth - 1, []))]
        lines += [f"   ({block.note})"] if block.note else []
    return "\n".join(lines) + "\n"


def _keys(block: Block, laid: LaidBlock, mine: list[Interval]) -> Iterator[str]:
    match block:
        case Rotate() if block.pair.work.seconds and block.pair.rest.seconds is not None:
            times = f"work {clock(block.pair.work.seconds)}, rest {clock(block.pair.rest.seconds)}"
            yield f"{times}, {len(block.moves)} times; {block.rounds.high} rounds"
            if block.break_s is not None and block.rounds.high > 1:
                yield f"between rounds {clock(block.break_s)}" + (
                    " more" if block.break_added else " instead of the rest"
                )
        case Sets() if block.pair.work.seconds and block.pair.rest.seconds is not None:
            times = f"work {clock(block.pair.work.seconds)}, rest {clock(block.pair.rest.seconds)}"
            yield f"{times}, {block.sets.high} times; at each of {max(1, len(block.moves))} stations"
        case Intervals(each=None) if len(block.pattern) == 1 and laid.low_s == laid.high_s:
            pair = block.pattern[0]
            both = f"work {clock(pair.work.seconds or 0)}, rest {clock(pair.rest.seconds or 0)}"
            yield f"{both}, {block.count.high} times"
        case _ if len(mine) == 1:
            yield f"one stretch of {clock(laid.seconds)}"
        case _:
            more = " …" if len(mine) > 12 else ""
            yield ", ".join(f"{one.phase} {clock(one.seconds)}" for one in mine[:12]) + more
