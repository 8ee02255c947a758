"""Edits of whole blocks: taken out, doubled, moved, parted, joined, put in, put in another's place."""

from collections.abc import Callable

from lovrit.core.session.edits import (
    BlockEdit,
    InsertBlock,
    ReplaceBlock,
    SetFigure,
)
from lovrit.core.session.slatetext import CannotEdit, SlateText, set_figure, written
from lovrit.core.slate.tree import Figure

SPLIT_BY = ("rounds", "count", "sets", "total")


def edit_block(slate: SlateText, edit: BlockEdit) -> None:
    """Do to a block what is asked."""
    BLOCKS[edit.what](slate, edit)


def _cut(slate: SlateText, block: int) -> list[str]:
    """Take a block's lines out, and one blank line that parted it from the next."""
    first, last = slate.extent(block)
    taken = slate.lines[first : last + 1]
    blank_after = last + 1 < len(slate.lines) - 1 and not slate.lines[last + 1].strip()
    del slate.lines[first : last + (2 if blank_after else 1)]
    return taken


def _put(slate: SlateText, at: int, taken: list[str]) -> None:
    """Put a block's lines before a line, parted by a blank one from what stands around."""
    before = [""] if at > 1 and slate.lines[at - 1].strip() else []
    after = [""] if at < len(slate.lines) and slate.lines[at].strip() else []
    slate.lines[at:at] = [*before, *taken, *after]


def _remove_block(slate: SlateText, edit: BlockEdit) -> None:
    _cut(slate, edit.block)


def _duplicate_block(slate: SlateText, edit: BlockEdit) -> None:
    first, last = slate.extent(edit.block)
    _put(slate, last + 1, slate.lines[first : last + 1])


def _move_block(slate: SlateText, edit: BlockEdit) -> None:
    count = len(slate.reading.blocks)
    if edit.to >= count:
        raise CannotEdit("There is no such place.")
    if edit.to == edit.block:
        return
    behind = slate.extent(edit.to)[1] + 1
    before = slate.place(edit.to).line
    length = len(slate.lines)
    first = slate.place(edit.block).line
    taken = _cut(slate, edit.block)
    shift = length - len(slate.lines)
    _put(slate, behind - shift if edit.to > edit.block else before, taken)
    assert first


def _figure(slate: SlateText, block: int) -> tuple[str, Figure]:
    figures = slate.place(block).figures
    for name in SPLIT_BY:
        if name in figures:
            return name, figures[name]
    raise CannotEdit("This block has no figure to part it by.")


def _split(slate: SlateText, edit: BlockEdit) -> None:
    name, figure = _figure(slate, edit.block)
    step = 5 if figure.timed else 1
    half = int(figure.value / 2 / step) * step
    if not half:
        raise CannotEdit("This block is too short to part.")
    first, last = slate.extent(edit.block)
    copy = slate.lines[first : last + 1]
    set_figure(slate, SetFigure(block=edit.block, figure=name, value=figure.value - half))
    raw = copy[0]
    text = written(figure, half, raw[figure.start : figure.end])
    copy[0] = raw[: figure.start] + text + raw[figure.end :]
    _put(slate, last + 1, copy)


def _join(slate: SlateText, edit: BlockEdit) -> None:
    blocks = slate.reading.session.blocks
    slate.place(edit.block + 1)
    name, figure = _figure(slate, edit.block)
    other = slate.place(edit.block + 1).figures.get(name)
    same = blocks[edit.block].kind == blocks[edit.block + 1].kind
    if not same or not other or blocks[edit.block].moves != blocks[edit.block + 1].moves:
        raise CannotEdit("Only two blocks of one kind with the same moves can be joined.")
    _cut(slate, edit.block + 1)
    set_figure(slate, SetFigure(block=edit.block, figure=name, value=figure.value + other.value))


def insert_blocks(slate: SlateText, edit: InsertBlock) -> None:
    """Put lines of slate before a block, or at the end."""
    lines = edit.text.strip("\n").split("\n")
    if edit.at < len(slate.reading.blocks):
        _put(slate, slate.place(edit.at).line, lines)
        return
    while len(slate.lines) > 1 and not slate.lines[-1].strip():
        slate.lines.pop()
    _put(slate, len(slate.lines), lines)
    slate.lines.append("")


def recast_block(slate: SlateText, edit: ReplaceBlock) -> None:
    """Put lines of slate in place of a block."""
    first, last = slate.extent(edit.block)
    slate.lines[first : last + 1] = edit.text.strip("\n").split("\n")


BLOCKS: dict[str, Callable[[SlateText, BlockEdit], None]] = {
    "remove": _remove_block,
    "duplicate": _duplicate_block,
    "split": _split,
    "join": _join,
    "move": _move_block,
}
