"""A pasted board: free text, JSON or CSV, turned into a slate as far as it can be read; the rest is asked."""

import re
from typing import NamedTuple

from lovrit.core.blocks.steady import Steady
from lovrit.core.session.edit import in_own_form
from lovrit.core.session.grammar import reads
from lovrit.core.session.headings import read_heading
from lovrit.core.session.movelines import read_move
from lovrit.core.session.nearest import nearest_line
from lovrit.core.session.reader import MOST_OFFERS, read
from lovrit.core.session.spoken import LONE
from lovrit.core.session.writer import write
from lovrit.core.slate.problem import Unreadable
from lovrit.core.values import LovritError
from lovrit.formats.interval_csv import from_csv

# what stands before a line in a message: bullets, ticks, numbers; and what is put round it for show
MARK = re.compile(
    r"^\s*(?:[-*•·–—>+☐☑✓✔✅👉▪◦]\ufe0f?\s*|\(?\d{1,2}[.)]\s+(?=\D|\d+\s*x\b|\d+\s+\D))+"
)
SHOW = re.compile(r"^[*_~]+|[*_~:]+$|[\U0001F000-\U0001FAFF\u2600-\u27bf\ufe0f]")


class Asked(NamedTuple):
    """A line that was not understood: its number in what was pasted, its text, what stands in the way."""

    line: int
    text: str
    said: str
    nearest: str


class Board(NamedTuple):
    """What could be made of a board: a slate, and what has to be asked."""

    slate: str
    asked: tuple[Asked, ...] = ()


def read_board(text: str) -> Board:
    """A slate made of whatever was pasted: a slate, the JSON form, CSV, or lines from a board."""
    stripped = text.strip().removeprefix("\ufeff")
    if stripped.startswith("{"):
        return _json(stripped)
    if stripped.split("\n", 1)[0].count(",") >= 2 and "phase" in stripped.split("\n", 1)[0]:
        made = from_csv(stripped)
        return Board(made.slate, tuple(Asked(0, "", said, "") for said in made.left_out))
    if not read(text).problems:
        return Board(text)
    return _lines(stripped.replace("\r\n", "\n"))


def _json(text: str) -> Board:
    from lovrit.formats.session_json import from_json

    try:
        return Board(write(from_json(text)))
    except LovritError as error:
        return Board("", (Asked(1, "", str(error), ""),))


def _rather_a_move(line: str) -> bool:
    """Whether a line with a bullet is a move, though it could be a heading: “bike 10 min”, not “cool down 5 min”."""
    try:
        block = read_heading(line).read.block
    except Unreadable:
        return True
    return isinstance(block, Steady) and block.label not in AROUND


AROUND = frozenset({"warm-up", "cool-down", "warm up", "cool down"})


class _Board:
    """Lines taken one by one: a heading opens a block, a move goes below it, the rest is asked."""

    def __init__(self) -> None:
        self.lines: list[str] = []
        self.asked: list[Asked] = []
        self.in_block = False

    def take(self, number: int, raw: str) -> None:
        """A line of the board."""
        marked = MARK.match(raw)
        line = " ".join(SHOW.sub(" ", MARK.sub("", raw)).split()).strip(" *_~")
        indented = bool(marked) or raw[:1] in (" ", "\t")
        if not line or raw.lstrip().startswith("#"):
            self.lines.append(raw.rstrip() if raw.lstrip().startswith("#") else "")
        elif line.lower() in LONE:
            self.lines.append(f"# {line}")
        elif reads(line, "header"):
            self.lines.append(line)
        else:
            ways = (
                (self._moved, self._headed)
                if indented and _rather_a_move(line)
                else (self._headed, self._moved)
            )
            if not any(way(line) for way in ways):
                self._ask(number, raw, line)

    def _headed(self, line: str) -> bool:
        try:
            read_heading(line)
        except Unreadable:
            return False
        self.lines += [""] if self.lines and self.in_block else []
        self.lines.append(line)
        self.in_block = True
        return True

    def _moved(self, line: str) -> bool:
        if not self.in_block:
            return False
        try:
            read_move(line)
        except Unreadable:
            return False
        self.lines.append(f"  {line}")
        return True

    def _ask(self, number: int, raw: str, line: str) -> None:
        first = not any(self.lines) and not self.asked
        if first and not re.search(r"\d", line):
            self.lines.append(f"title: {line.capitalize() if line.isupper() else line}")
            return
        self.lines.append(f"# {raw.strip()}")
        if self.asked and not self.in_block and not re.search(r"\d", line):
            return  # it belongs to what has been asked already
        try:
            read_heading(line)
            said, near = "", None
        except Unreadable as error:
            offers = len(self.asked) < MOST_OFFERS
            near = error.nearest or (
                nearest_line(line, error.column, error.expected) if offers else None
            )
            said = error.text
        self.asked.append(Asked(number, raw.strip(), said, (near or "").strip()))


def _lines(text: str) -> Board:
    board = _Board()
    for number, raw in enumerate(text.split("\n"), 1):
        board.take(number, raw)
    slate = in_own_form("\n".join(board.lines).strip("\n") + "\n")
    return Board(slate, tuple(board.asked))
