"""A slate as lines with what was read of it: what every edit by hand works on."""

from collections.abc import Callable

from lovrit.core.clock import clock, number
from lovrit.core.session.edits import (
    SetFigure,
)
from lovrit.core.session.figures import Figure
from lovrit.core.session.reader import BlockPlace, Reading, read, split_lines
from lovrit.core.session.writer import short
from lovrit.core.values import LovritError


class CannotEdit(LovritError):
    """An edit that has no place in the text as it stands; the text is left alone."""


class SlateText:
    """A slate as lines (from 1), with what was read of it."""

    def __init__(self, text: str):
        self.reading: Reading = read(text)
        self.lines = ["", *split_lines(text)]

    def place(self, block: int) -> BlockPlace:
        """Where a block stands; CannotEdit where it is gone."""
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
        """The lines as one text again."""
        return "\n".join(self.lines[1:])


def written(figure: Figure, value: float, old: str) -> str:
    """A figure's new text, in the manner of its old one: m:ss stays m:ss, bare seconds stay bare."""
    if not figure.timed:
        return number(value)
    return short(round(value)) if ":" not in old and value < 100 else clock(value)


def set_figure(slate: SlateText, edit: SetFigure) -> None:
    """Give a figure another value, in the manner of its old one."""
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


def with_comment(raw: str, change: Callable[[str], str]) -> str:
    """Change what stands before a comment; the gap and the comment stay."""
    code, mark, comment = raw.partition("#")
    kept = code.rstrip()
    return change(kept) + code[len(kept) :] + mark + comment
