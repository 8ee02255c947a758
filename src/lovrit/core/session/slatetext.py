"""A slate as lines with what was read of it: what every edit by hand works on."""

import re
from collections.abc import Callable

from lovrit.core.clock import clock, number
from lovrit.core.session.edits import Ease, SetFigure
from lovrit.core.session.reader import BlockPlace, Reading, read, split_lines
from lovrit.core.slate.tree import Figure
from lovrit.core.slate.written import short
from lovrit.core.values import LovritError

# what is read as minutes where it stands bare, so that seconds are never written so
LENGTHS = frozenset({"total", "cap", "slot", "setup", "period"})


class CannotEdit(LovritError):
    """An edit that has no place in the text as it stands; the text is left alone."""


class SlateText:
    """A slate as lines (from 1), with what was read of it."""

    def __init__(self, text: str) -> None:
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


# a target of the heart as it stands on a block's first line, with those of later rounds
HEART = re.compile(
    r"\bheart(?:\s+(?:threshold\s*±?\s*\d+|\d+(?:\s*-\s*\d+)?(?:\s*%\s*(?:max|reserve)?)?))+",
    re.IGNORECASE,
)


def written(figure: Figure, value: float, old: str) -> str:
    """A figure's new text, in the manner of its old one: m:ss stays m:ss, bare seconds stay bare."""
    if not figure.timed:
        return number(value)
    bare = ":" not in old and value < 100 and figure.name not in LENGTHS
    return short(round(value)) if bare else clock(value)


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


def ease(slate: SlateText, edit: Ease) -> None:
    """Bring every effort of a block, or of all blocks, down to what is asked at most; a range may become one figure."""
    places = slate.reading.blocks if edit.block is None else (slate.place(edit.block),)
    for place in places:
        if not any(name.startswith("effort") for name in place.figures):
            _by_effort(slate, place, edit.most)
        for start, end in reversed(_above(place, edit.most)):
            raw = slate.lines[place.line]
            slate.lines[place.line] = raw[:start] + number(edit.most) + raw[end:]


def _by_effort(slate: SlateText, place: BlockPlace, most: float) -> None:
    """A target of the heart that asks for more becomes an effort."""
    raw = slate.lines[place.line]
    block = slate.reading.session.blocks[slate.reading.blocks.index(place)]
    if (block.top_asked or 0.0) > most:
        slate.lines[place.line] = HEART.sub(f"at {number(most)}", raw, count=1)


def _above(place: BlockPlace, most: float) -> list[tuple[int, int]]:
    """The columns of efforts above a limit; the whole of a range that lies above it."""
    found = []
    for name, one in place.figures.items():
        if not name.startswith("effort") or one.value <= most:
            continue
        begin = (
            place.figures.get(name.removesuffix(" to") + " from") if name.endswith(" to") else None
        )
        if not name.endswith(" from"):
            found.append((begin.start if begin and begin.value >= most else one.start, one.end))
    return found


def with_comment(raw: str, change: Callable[[str], str]) -> str:
    """Change what stands before a comment; the gap and the comment stay."""
    code, mark, comment = raw.partition("#")
    kept = code.rstrip()
    return change(kept) + code[len(kept) :] + mark + comment
