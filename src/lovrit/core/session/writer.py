"""A session written as a slate. What is read back is the same session."""

from collections.abc import Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock
from lovrit.core.session.nesting import nest_head
from lovrit.core.session.session import Nest, Session, Slot
from lovrit.core.slate.written import move_line


def write(session: Session) -> str:
    """The slate of a session, ending in a newline unless it is empty."""
    parts = ["\n".join(_headers(session))] if any(_headers(session)) else []
    parts += ["\n".join(lines) for lines in _blocks(session)]
    return "\n\n".join(parts) + "\n" if parts else ""


def _blocks(session: Session) -> Iterator[list[str]]:
    """The lines of each block; blocks that are repeated once, indented under what says so."""
    nests = {one.first: one for one in session.nests if one.is_in(session.blocks)}
    at = 0
    while at < len(session.blocks):
        nest = nests.get(at)
        if nest:
            yield from _nested(session, nest)
        else:
            yield block_lines(session.blocks[at])
        at = nest.end if nest else at + 1


def _nested(session: Session, nest: Nest) -> Iterator[list[str]]:
    first, *others = (
        [f"  {line}" for line in block_lines(block)]
        for block in session.blocks[nest.first : nest.first + nest.size]
    )
    yield [nest_head(nest), *first]
    yield from others


def block_lines(block: Block) -> list[str]:
    """The lines of one block: what it is, then its moves."""
    lines = [", ".join([block.head, *block.written_options()])]
    if block.note:
        lines.append(f"  note: {block.note}")
    for move in block.moves:
        if move.opens_part:
            lines.append("  then")
        lines.append(f"  {move_line(move)}")
    return lines


def _headers(session: Session) -> Iterator[str]:
    if session.title:
        yield f"title: {session.title}"
    if session.note:
        yield f"note: {session.note}"
    if session.date:
        yield f"date: {session.date}"
    if session.slot:
        yield f"slot: {_slot(session.slot)}"
    if session.people:
        yield f"people: {session.people}"
    if session.setup_s:
        yield f"setup: {clock(session.setup_s)}"
    yield from _circumstances(session)


def _circumstances(session: Session) -> Iterator[str]:
    if session.whom:
        yield f"for: {', '.join(session.whom)}"
    if session.celsius is not None:
        yield f"weather: {session.celsius} C"
    if session.floor:
        yield f"floor: {session.floor}"


def _slot(slot: Slot) -> str:
    return f"{slot.start}-{slot.end}" if slot.start and slot.end else clock(slot.seconds)
