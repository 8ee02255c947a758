"""A pasted board: free text, JSON or CSV, turned into a slate as far as it can be read; the rest is asked."""

import re
from collections.abc import Callable
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.steady import Steady
from lovrit.core.session.edit import in_own_form
from lovrit.core.session.grammar import reads
from lovrit.core.session.headings import read_heading
from lovrit.core.session.movelines import read_move
from lovrit.core.session.nearest import nearest_line
from lovrit.core.session.plainly import TIME
from lovrit.core.session.reader import MOST_OFFERS, read
from lovrit.core.session.spoken import LONE
from lovrit.core.session.writer import write
from lovrit.core.slate.problem import Unreadable
from lovrit.core.values import LovritError
from lovrit.formats.interval_csv import from_csv
from lovrit.formats.message import joined, plain_move, unmarked

# what a pause written below a block is of it
PAUSE_OF = {"rotate": "break", "sets": "change", "strength": "rest", "quality": "rest"}
PAUSE = re.compile(
    rf"(?:({TIME})\s+(?:rest|break)|(?:rest|break)\s*:?\s*({TIME}))(?:\s+(?:in\s+)?(?:between|after|each).*)?",
    re.IGNORECASE,
)
FIGURES = re.compile(
    r"\d\s*(?:x|×|'|\"|/|%|-\s*\d|s\b|m\b|km\b|k\b|cal\b|min|sec|rounds?\b|rds?\b|sets?\b|reps?\b|stations?\b)",
    re.IGNORECASE,
)
# a line that begins a block of its own, though it can't be read: a count of rounds or sets, or a pair of times
OPENS = re.compile(
    r"^\s*\d+\s*(?:rounds?|rds?|sets?)\b|\b(?:amrap|emom|for time|every)\b|\d\d\s*/\s*\d\d\b|\d\s*[x×]\s*\d"
    r"|^\s*(?:warm|cool)|^[a-z]+:",
    re.IGNORECASE,
)
VAGUE = re.compile(r"^(?:rest|break|recover\w*)\s+\S", re.IGNORECASE)
# how it is to feel, where no figure says so: kept beside the heading
HOW = re.compile(r"\b(?:easy|hard|jog|walk|slow|fast|steady)\b", re.IGNORECASE)
NO_MOVES = frozenset({"easy", "hard", "steady", "fast", "slow", "max", *LONE})
LONG_S, MANY_FIGURES = 120, 3
MOST_WORDS = 9  # longer is a sentence, and no move
PLACES = re.compile(
    r"^\d+\s+(?:stations?|exercises|rounds?|sets?|people|groups?|teams?)\b", re.IGNORECASE
)
SECTIONS = frozenset(
    {"main", "main set", "main part", "workout", "conditioning", "part 1", "part 2"}
)


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
        self.head = -1  # the line of the block that is open
        self.block: Block | None = None
        self.moves = 0
        self.inset = ""  # how far in a block stands that is repeated with others
        self.unsure = False  # a heading was asked: what stands below belongs to it

    def take(self, number: int, raw: str) -> None:
        """A line of the board."""
        line, marked = unmarked(raw)
        if not line or raw.lstrip().startswith("#"):
            self.lines.append(raw.rstrip() if raw.lstrip().startswith("#") else "")
        elif line.lower() in LONE:
            self.lines.append(f"# {line}")
        elif line.lower() in SECTIONS | AROUND:
            self._ask(number, raw, line)
        elif reads(line, "header"):
            self.lines.append(line)
        elif not any(way(line) for way in self._ways(line, marked)):
            self._ask(number, raw, line)

    def _ways(self, line: str, marked: bool) -> tuple[Callable[[str], bool], ...]:
        if self.unsure and (marked or not _opens(line)):
            return (self._below,)
        if marked and self.block and _rather_a_move(line):
            return (self._paused, self._moved, self._headed)
        return (self._slot, self._paused, self._repeated, self._headed, self._moved)

    def _below(self, line: str) -> bool:
        """What stands below a heading that was asked is kept with it."""
        self.lines.append(f"#   {line}")
        return True

    def _slot(self, line: str) -> bool:
        found = re.fullmatch(rf"({TIME})\s+(?:class|session|slot)", line, re.IGNORECASE)
        if not found or self.block or any(one.startswith("slot:") for one in self.lines):
            return False
        self.lines.append(f"slot: {found[1]}")
        return True

    def _paused(self, line: str) -> bool:
        """A pause that belongs to the block above: between rounds, or behind each set."""
        found = PAUSE.fullmatch(line)
        option = PAUSE_OF.get(self.block.kind) if self.block else None
        if not found or not option or f"{option} " in self.lines[self.head]:
            return False
        self._own(f", {option} {found[1] or found[2]}")
        return True

    def _own(self, more: str) -> None:
        """The heading of the open block in its own form, with more behind it; a move that it says goes below."""
        heading = read_heading(self.lines[self.head].strip())
        if heading.own:
            self.lines[self.head] = self.inset + heading.own
            if heading.move and not heading.move.startswith("@"):
                self.lines.insert(self.head + 1, f"{self.inset}  {heading.move}")
        self.lines[self.head] += more

    def _repeated(self, line: str) -> bool:
        """A block that is done several times as a whole: ``5 min amrap x 3, 2 min rest between``."""
        try:
            read_heading(line)
        except Unreadable as error:
            nest = (
                error.nearest if error.nearest and re.match(r"\d+ times", error.nearest) else None
            )
        else:
            return False
        first = re.split(r"\s*[x×]\s*\d", line)[0]
        if not nest:
            return False
        self.lines.append(nest)
        self.inset = "  "
        return self._headed(first, "  ")

    def _headed(self, line: str, inset: str = "") -> bool:
        try:
            heading = read_heading(line)
        except Unreadable:
            return False
        self.inset = inset
        if self.lines and self.block and not inset:
            self.lines.append("")
        dropped = " ".join(HOW.findall(line)) if heading.own else ""
        said = [
            word
            for word in dropped.split()
            if word.lower() not in f"{heading.own} {heading.move}".lower()
        ]
        self.lines.append(inset + line + (f"   # {' '.join(said)}" if said else ""))
        self.head, self.block, self.unsure = len(self.lines) - 1, heading.read.block, False
        self.moves = 1 if heading.move and not heading.move.startswith("@") else 0
        return True

    def _moved(self, line: str) -> bool:
        if not self.block:
            return False
        said = plain_move(line)
        try:
            move = read_move(said)
        except Unreadable:
            return False
        if len(said.split()) > MOST_WORDS or PLACES.search(said):
            return False
        if move is None or move.tasks[0].pair or VAGUE.match(said) or move.name in NO_MOVES:
            return False
        full = self.block.most_lines is not None and self.moves >= self.block.most_lines
        if full and not self._as_rounds():
            return False
        self.moves += 1
        self.lines.append(f"{self.inset}  {said}")
        return True

    def _as_rounds(self) -> bool:
        """Intervals with several moves are rounds of them: ``30s work 15s rest x 4``."""
        own = read_heading(self.lines[self.head].strip()).own or self.lines[self.head].strip()
        rounds = re.sub(r"^(\d+) x (?=\d)", r"\1 rounds of ", own)
        if rounds == own:
            return False
        self.lines[self.head] = self.inset + rounds
        self.block = read_heading(rounds).read.block
        return True

    def _ask(self, number: int, raw: str, line: str) -> None:
        first = not any(self.lines) and not self.asked
        if (
            first
            and not FIGURES.search(line)
            and len(re.findall(r"\d+", line)) < MANY_FIGURES
            and line.lower() not in AROUND
        ):
            self.lines.append(f"title: {line.capitalize() if line.isupper() else line}")
            return
        self.lines.append(f"# {raw.strip()}")
        if line.lower() in SECTIONS:
            self.block = None
            return
        said, near = _why(line, len(self.asked) < MOST_OFFERS)
        steady = isinstance(self.block, Steady) and raw[:1] not in (" ", "\t")
        if not self.block or steady or line.lower() in AROUND or _opens(line):
            self.unsure, self.block = True, None
        self.asked.append(Asked(number, raw.strip(), said, (near or "").strip()))


def _why(line: str, offers: bool) -> tuple[str, str | None]:
    """What stands in the way of a line, and a near one that would be read."""
    try:
        read_heading(line)
    except Unreadable as error:
        near = error.nearest
        if near is None and offers:
            near = nearest_line(line, error.column, error.expected)
        return error.text, near
    return "It is not clear what this belongs to.", None


def _opens(line: str) -> bool:
    """Whether a line begins something of its own, whether it can be read or not."""
    try:
        block = read_heading(line).read.block
    except Unreadable:
        return bool(OPENS.search(line))
    short = isinstance(block, Steady) and block.label not in AROUND and block.total_s < LONG_S
    return not block.is_pause and not short


def _lines(text: str) -> Board:
    board = _Board()
    for number, raw in joined(list(enumerate(text.split("\n"), 1))):
        board.take(number, raw)
    slate = in_own_form("\n".join(board.lines).strip("\n") + "\n")
    return Board(slate, tuple(board.asked))
