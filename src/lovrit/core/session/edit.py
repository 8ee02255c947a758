"""Edits by hand: each rewrites only the lines that it concerns, and of those only what it must.

Comments, blank lines and a person's own wording elsewhere stay as they were. An edit is a value, so that it
can be sent from a page, offered as a fix, and undone.
"""

import re
from collections.abc import Callable
from typing import Any

from lovrit.core.clock import clock, number
from lovrit.core.session.edits import (
    AddOption,
    BlockEdit,
    Convention,
    Edit,
    InsertBlock,
    LineEdit,
    MoveOption,
    MoveStation,
    ReplaceBlock,
    ReplaceLine,
    ReplaceMove,
    SetAmount,
    SetFigure,
    SetSide,
)
from lovrit.core.session.figures import Figure
from lovrit.core.session.movelines import name_span
from lovrit.core.session.problem import Unreadable
from lovrit.core.session.reader import BlockPlace, Reading, read, split_lines
from lovrit.core.session.writer import short
from lovrit.core.values import LovritError

ADDED = re.compile(r"^\s*added\b", re.IGNORECASE)
AMOUNT = re.compile(r"^(\s*)\d+(?:\.\d+)?(?:\s*[-–/]\s*\d+(?:\.\d+)?)?(?=[\s(smc])")
DROPPED = re.compile(r"\s*,?\s*\bdrop\s+last\s+rest\b", re.IGNORECASE)
SIDED = re.compile(r"\s*,?\s*\b(?:each\s+side|left\s+then\s+right)\b", re.IGNORECASE)
SIDES = {"none": "", "each": ", each side", "by-round": ", left then right"}
SPLIT_BY = ("rounds", "count", "sets", "total")


class CannotEdit(LovritError):
    """An edit that has no place in the text as it stands; the text is left alone."""


class _Text:
    """A slate as lines (from 1), with what was read of it."""

    def __init__(self, text: str):
        self.reading: Reading = read(text)
        self.lines = ["", *split_lines(text)]

    def place(self, block: int) -> BlockPlace:
        if block >= len(self.reading.blocks):
            raise CannotEdit("That block is no longer there.")
        return self.reading.blocks[block]

    def extent(self, block: int) -> tuple[int, int]:
        """First and last line of a block, its own indented comments and unreadable lines included."""
        first = last = self.place(block).line
        for at in range(first + 1, len(self.lines)):
            line = self.lines[at]
            if line.strip() and line[0] not in " \t":
                break
            if line.strip():
                last = at
        return first, last

    def text(self) -> str:
        return "\n".join(self.lines[1:])


def apply_edit(text: str, edit: Edit) -> str:
    """The text after an edit.

    Raises:
        CannotEdit: where the text has no place for it.
    """
    slate = _Text(text)
    EDITS[edit.do](slate, edit)
    return slate.text()


def written(figure: Figure, value: float, old: str) -> str:
    """A figure's new text, in the manner of its old one: m:ss stays m:ss, bare seconds stay bare."""
    if not figure.timed:
        return number(value)
    return short(round(value)) if ":" not in old and value < 100 else clock(value)


def _set(slate: _Text, edit: SetFigure) -> None:
    if edit.block is None:
        header = slate.reading.headers.get(edit.figure)
        found, line = (header.figure, header.line) if header else (None, 0)
    else:
        place = slate.place(edit.block)
        found, line = place.figures.get(edit.figure), place.line
    if not found:
        raise CannotEdit("That figure is no longer there.")
    raw = slate.lines[line]
    text = written(found, edit.value, raw[found.start : found.end])
    slate.lines[line] = raw[: found.start] + text + raw[found.end :]


def _with_comment(raw: str, change: Callable[[str], str]) -> str:
    """Change what stands before a comment; the gap and the comment stay."""
    code, mark, comment = raw.partition("#")
    kept = code.rstrip()
    return change(kept) + code[len(kept) :] + mark + comment


def _option(slate: _Text, edit: AddOption) -> None:
    line = slate.place(edit.block).line
    slate.lines[line] = _with_comment(slate.lines[line], lambda code: f"{code}, {edit.text}")


def _convention(slate: _Text, edit: Convention) -> None:
    place = slate.place(edit.block)
    raw = slate.lines[place.line]
    if edit.what == "drop":
        slate.lines[place.line] = _with_comment(
            raw, lambda code: f"{code}, drop last rest" if edit.on else DROPPED.sub("", code)
        )
        return
    figure = place.figures.get("break") or place.figures.get("change")
    if not figure:
        raise CannotEdit("There is no break here to add.")
    tail = ADDED.sub("", raw[figure.end :], count=1)
    slate.lines[place.line] = raw[: figure.end] + (" added" if edit.on else "") + tail


def _station(slate: _Text, edit: MoveStation) -> None:
    moves = slate.place(edit.block).moves
    if not (edit.start < len(moves) and edit.to < len(moves)):
        raise CannotEdit("That station is no longer there.")
    texts = [slate.lines[at] for at in moves]
    texts.insert(edit.to, texts.pop(edit.start))
    for at, text in zip(moves, texts, strict=True):
        slate.lines[at] = text


def _move_at(slate: _Text, block: int, move: int) -> int:
    moves = slate.place(block).moves
    if move >= len(moves):
        raise CannotEdit("That station is no longer there.")
    return moves[move]


def _rename(slate: _Text, edit: ReplaceMove) -> None:
    line = _move_at(slate, edit.block, edit.move)
    raw = slate.lines[line]
    try:
        span = name_span(raw.split("#", 1)[0].rstrip())
    except Unreadable:
        span = None
    if not span:
        raise CannotEdit("That line has no move to replace.")
    slate.lines[line] = raw[: span.start] + " ".join(edit.name.split()) + raw[span.end :]


def _amount(slate: _Text, edit: SetAmount) -> None:
    line = _move_at(slate, edit.block, edit.move)
    changed, found = AMOUNT.subn(lambda match: match[1] + number(edit.value), slate.lines[line], count=1)
    if not found:
        raise CannotEdit("That line begins with no figure.")
    slate.lines[line] = changed


def _mark(slate: _Text, edit: MoveOption) -> None:
    line = _move_at(slate, edit.block, edit.move)
    slate.lines[line] = _with_comment(slate.lines[line], lambda code: f"{code}, {edit.text}")


def _side(slate: _Text, edit: SetSide) -> None:
    line = _move_at(slate, edit.block, edit.move)
    words = SIDES[edit.side]
    slate.lines[line] = _with_comment(slate.lines[line], lambda code: SIDED.sub("", code) + words)


def _line(slate: _Text, edit: LineEdit) -> None:
    if edit.move < 0:
        slate.lines.insert(slate.place(edit.block).line + 1, f"  {edit.text.strip()}")
        return
    line = _move_at(slate, edit.block, edit.move)
    raw = slate.lines[line]
    if edit.what == "remove":
        del slate.lines[line]
    elif edit.what == "duplicate":
        slate.lines.insert(line + 1, raw)
    else:
        indent = raw[: len(raw) - len(raw.lstrip())]
        slate.lines.insert(line + 1, indent + edit.text.strip())


def _block(slate: _Text, edit: BlockEdit) -> None:
    BLOCKS[edit.what](slate, edit)


def _cut(slate: _Text, block: int) -> list[str]:
    """Take a block's lines out, and one blank line that parted it from the next."""
    first, last = slate.extent(block)
    taken = slate.lines[first : last + 1]
    blank_after = last + 1 < len(slate.lines) - 1 and not slate.lines[last + 1].strip()
    del slate.lines[first : last + (2 if blank_after else 1)]
    return taken


def _put(slate: _Text, at: int, taken: list[str]) -> None:
    """Put a block's lines before a line, parted by a blank one from what stands around."""
    before = [""] if at > 1 and slate.lines[at - 1].strip() else []
    after = [""] if at < len(slate.lines) and slate.lines[at].strip() else []
    slate.lines[at:at] = [*before, *taken, *after]


def _remove_block(slate: _Text, edit: BlockEdit) -> None:
    _cut(slate, edit.block)


def _duplicate_block(slate: _Text, edit: BlockEdit) -> None:
    first, last = slate.extent(edit.block)
    _put(slate, last + 1, slate.lines[first : last + 1])


def _move_block(slate: _Text, edit: BlockEdit) -> None:
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


def _figure(slate: _Text, block: int) -> tuple[str, Figure]:
    figures = slate.place(block).figures
    for name in SPLIT_BY:
        if name in figures:
            return name, figures[name]
    raise CannotEdit("This block has no figure to part it by.")


def _split(slate: _Text, edit: BlockEdit) -> None:
    name, figure = _figure(slate, edit.block)
    step = 5 if figure.timed else 1
    half = int(figure.value / 2 / step) * step
    if not half:
        raise CannotEdit("This block is too short to part.")
    first, last = slate.extent(edit.block)
    copy = slate.lines[first : last + 1]
    _set(slate, SetFigure(block=edit.block, figure=name, value=figure.value - half))
    raw = copy[0]
    text = written(figure, half, raw[figure.start : figure.end])
    copy[0] = raw[: figure.start] + text + raw[figure.end :]
    _put(slate, last + 1, copy)


def _join(slate: _Text, edit: BlockEdit) -> None:
    blocks = slate.reading.session.blocks
    slate.place(edit.block + 1)
    name, figure = _figure(slate, edit.block)
    other = slate.place(edit.block + 1).figures.get(name)
    same = blocks[edit.block].kind == blocks[edit.block + 1].kind
    if not same or not other or blocks[edit.block].moves != blocks[edit.block + 1].moves:
        raise CannotEdit("Only two blocks of one kind with the same moves can be joined.")
    _cut(slate, edit.block + 1)
    _set(slate, SetFigure(block=edit.block, figure=name, value=figure.value + other.value))


def _insert(slate: _Text, edit: InsertBlock) -> None:
    lines = edit.text.strip("\n").split("\n")
    if edit.at < len(slate.reading.blocks):
        _put(slate, slate.place(edit.at).line, lines)
        return
    while len(slate.lines) > 1 and not slate.lines[-1].strip():
        slate.lines.pop()
    _put(slate, len(slate.lines), lines)
    slate.lines.append("")


def _recast(slate: _Text, edit: ReplaceBlock) -> None:
    first, last = slate.extent(edit.block)
    slate.lines[first : last + 1] = edit.text.strip("\n").split("\n")


def _replace(slate: _Text, edit: ReplaceLine) -> None:
    if edit.line >= len(slate.lines):
        raise CannotEdit("That line is no longer there.")
    slate.lines[edit.line] = _with_comment(slate.lines[edit.line], lambda _code: edit.text)


EDITS: dict[str, Callable[[_Text, Any], None]] = {
    "set": _set,
    "option": _option,
    "convention": _convention,
    "station": _station,
    "rename": _rename,
    "amount": _amount,
    "mark": _mark,
    "side": _side,
    "recast": _recast,
    "line": _line,
    "block": _block,
    "insert": _insert,
    "replace": _replace,
}
BLOCKS: dict[str, Callable[[_Text, BlockEdit], None]] = {
    "remove": _remove_block,
    "duplicate": _duplicate_block,
    "split": _split,
    "join": _join,
    "move": _move_block,
}
