"""The slate read line by line: a session, the problems on the way, and where everything stands.

A line that can't be read costs that line only; what was typed is never touched here.
"""

import re
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.reading.alone import is_label
from lovrit.core.reading.heading import heading_ways
from lovrit.core.session.headings import LONE, read_header_line, read_heading
from lovrit.core.session.lines import BlockLine
from lovrit.core.session.movelines import read_move, said_line
from lovrit.core.session.nearest import nearest_line
from lovrit.core.session.nesting import OpenNest, read_nest
from lovrit.core.session.session import Nest, Session
from lovrit.core.slate.line import Line
from lovrit.core.slate.problem import Problem, Unreadable
from lovrit.core.slate.tree import Figure
from lovrit.core.slate.words import HEADERS

MOST_BYTES = 64 * 1024
MOST_LINE = 400  # letters; what a person writes on a line fits a screen
MOST_PROBLEMS = 200  # lines that can't be read; a text with more of them is no slate
MOST_OFFERS = 12  # looking for a near line takes as long as reading a hundred
HEADER = re.compile(r"^([^\W\d_](?:[^\W\d_]|[ -])*?)[ \t]*:", re.UNICODE)
TITLE = re.compile(r"[^\W\d_][^:@|/+=]*")
NOTE = re.compile(r"^[ \t]+note[ \t]*:[ \t]*(\S.*)$", re.IGNORECASE)
DIGITS = re.compile(r"\d{8}")  # no figure of a session is as long; digits in any writing
CONTROL = re.compile("[\x00-\x08\x0a-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069]")


@dataclass(frozen=True)
class HeaderPlace:
    """Where a header stands."""

    line: int
    figure: Figure | None = None


@dataclass(frozen=True)
class BlockPlace:
    """Where a block stands: its first line, its move lines, and the figures on the first (lines from 1)."""

    line: int
    moves: tuple[int, ...] = ()
    figures: dict[str, Figure] = field(default_factory=dict)


class Spoken(NamedTuple):
    """A heading that was said as on a board: its line, its own form (with its move below it), a load for all moves."""

    line: int
    own: str
    load: str = ""


@dataclass(frozen=True)
class Reading:
    """What a text says: a session of all that could be read, and the problems with the rest.

    ``spoken`` are headings, ``said`` lines of moves that are not in the slate's own form; ``text`` is the slate that
    was read, empty for a session that stands on none.
    """

    session: Session
    problems: tuple[Problem, ...] = ()
    headers: dict[str, HeaderPlace] = field(default_factory=dict)
    blocks: tuple[BlockPlace, ...] = ()
    spoken: tuple[Spoken, ...] = ()
    said: tuple[Spoken, ...] = ()
    text: str = ""


class _Open:
    """A block while its lines are being read."""

    def __init__(self, read: BlockLine | None, line: int) -> None:
        self.read, self.line = read, line
        self.moves: list[tuple[int, Line]] = []
        self.then_at: int | None = None
        self.bad_moves = False
        self.load = ""
        self.notes: list[str] = []


class _Reader:
    def __init__(self, offers: int) -> None:
        self.fields: dict[str, Any] = {}
        self.problems: list[Problem] = []
        self.headers: dict[str, HeaderPlace] = {}
        self.places: list[BlockPlace] = []
        self.blocks: list[Block] = []
        self.open: _Open | None = None
        self.offers = offers
        self.spoken: list[Spoken] = []
        self.said: list[Spoken] = []
        self.nest: OpenNest | None = None
        self.nests: list[Nest] = []

    def line(self, number: int, raw: str) -> None:
        text = raw.split("#", 1)[0].rstrip()
        try:
            _refuse_control(raw)
            if not text.strip():
                return
            _refuse_long(text)
            if self.nest and not self.nest.holds(text):
                self._end_nest()
            if self.nest and self.nest.begins_block(text):
                self._nested(number, text)
            elif text[0] in " \t":
                self._below(number, text)
            elif not self._nests(number, text):
                self._at_the_edge(number, text)
        except Unreadable as error:
            self._problem(number, error, text)

    def _below(self, number: int, text: str) -> None:
        note = NOTE.match(text)
        if self.open and note:
            self.open.notes.append(note[1].strip())
        else:
            self._move(number, text)

    def _at_the_edge(self, number: int, text: str) -> None:
        if HEADER.match(text) and not _is_heading(text):
            self._header(number, text)
        else:
            self._block(number, text)

    def _problem(self, number: int, error: Unreadable, text: str = "") -> None:
        if self.open and text[:1] in (" ", "\t"):
            self.open.bad_moves = True
        nearest = error.nearest
        if text and nearest is None and self.offers > 0:
            self.offers -= 1
            nearest = nearest_line(text, error.column, error.expected)
        self.problems.append(
            Problem(
                line=number,
                column=error.column,
                text=error.text,
                expected=error.expected,
                nearest=nearest or None,
            )
        )

    def _header(self, number: int, text: str) -> None:
        key = HEADER.match(text)[1].lower()  # type: ignore[index]
        if f"{key}:" not in HEADERS:
            self.close()
            self.open = _Open(None, number)
            raise Unreadable(f"“{key}” is no header.", 1, HEADERS)
        read = read_header_line(text)
        if read.field in self.headers:
            before = self.headers[read.field].line
            raise Unreadable(
                f"“{key}” is already written on line {before}; one of them has to go.", 1
            )
        if self.blocks or (self.open and self.open.read):
            raise Unreadable("Headers come first, above the first block.", 1)
        self.headers[read.field] = HeaderPlace(line=number, figure=read.figure)
        self.fields[read.field] = read.value

    def _block(self, number: int, text: str) -> None:
        self.close()
        self.open = _Open(None, number)
        try:
            heading = read_heading(text)
        except Unreadable:
            if not self._is_title(text):
                raise
            self.open = None
            self.fields["title"] = " ".join(text.split())
            self.headers["title"] = HeaderPlace(line=number)
            return
        self.open.read = heading.read
        if heading.own:
            load = next((one for one in heading.below if one.startswith("@")), "")
            below = "".join(f"\n  {one}" for one in heading.below if one != load)
            self.spoken.append(Spoken(number, heading.own + below, load))
        for one in heading.below:
            self._said_below(number, one)

    def _is_title(self, text: str) -> bool:
        """Whether a line is the session’s name: the first, without a figure, and no word of it says a kind of block."""
        first = not (self.fields or self.blocks or self.problems or self.nests)
        plain = not any(one.isdigit() for one in text) and TITLE.fullmatch(text)
        return bool(first and plain and is_label(text) and text.lower() not in LONE)

    def _nests(self, number: int, text: str) -> bool:
        """Whether a line says that what stands below it is repeated."""
        nest = read_nest(
            text, number, len(self.blocks) + (1 if self.open and self.open.read else 0)
        )
        if nest is None:
            return False
        self.close()
        self.nest = nest
        nest.first = len(self.blocks)
        return True

    def _nested(self, number: int, text: str) -> None:
        """A block inside a nest: read as one at the edge, its columns moved along."""
        stands = len(text) - len(text.lstrip())
        try:
            if read_nest(text, number, 0):
                raise Unreadable(
                    "What is repeated can’t be repeated again inside; write it out.", 1
                )
            self._block(number, text.lstrip())
        except Unreadable as error:
            near = error.nearest or nearest_line(text.lstrip(), error.column, error.expected)
            offered = near and text[:stands] + near.lstrip()
            raise Unreadable(error.text, error.column + stands, error.expected, offered) from None
        if self.open and self.open.read:
            self.open.read = self.open.read.moved(stands)
        if self.spoken and self.spoken[-1].line == number:
            own = self.spoken[-1].own.replace("\n", f"\n{text[:stands]}")
            self.spoken[-1] = self.spoken[-1]._replace(own=text[:stands] + own)

    def _end_nest(self) -> None:
        """Lay out what is repeated as often as it is done."""
        self.close()
        nest, self.nest = self.nest, None
        assert nest
        once, places = self.blocks[nest.first :], self.places[nest.first :]
        try:
            made = nest.closed(len(once))
        except Unreadable as error:
            if not any(
                one.line > nest.line for one in self.problems
            ):  # what is said of its lines is enough
                self._problem(nest.line, error)
            return
        between = [BlockPlace(line=nest.line)] if nest.rest_s else []
        self.blocks[nest.first :] = made.laid_out(once)
        self.places[nest.first :] = [*places, *([*between, *places] * (nest.times - 1))]
        self.nests.append(made)

    def _said_below(self, number: int, said: str) -> None:
        """What a heading itself says of its lines: a move, the load of all, a note."""
        assert self.open
        if said.startswith("@"):
            self.open.load = said
        elif note := NOTE.match(f"  {said}"):
            self.open.notes.append(note[1].strip())
        else:
            self._move(number, f"  {said}")

    def _move(self, number: int, text: str) -> None:
        if self.open is None:
            raise Unreadable(
                "A move stands below a block, and there is none above.", 1, ("warm-up 8:00 at 3",)
            )
        move = read_move(f"{text} {self.open.load}" if self.open.load else text)
        block = self.open.read.block if self.open.read else None
        if move is None:
            self._then(number, block)
            return
        if block and block.most_lines is not None and len(self.open.moves) >= block.most_lines:
            raise Unreadable(
                "Plain intervals have one move at most; for several, write rounds of.", 1
            )
        if self.open.then_at:
            move = move.but(opens_part=True)
            self.open.then_at = None
        self.open.moves.append((number, move))
        own = said_line(text)
        if own and number != self.open.line:  # what a heading says of its moves is told with it
            self.said.append(Spoken(number, own))

    def _then(self, number: int, block: Block | None) -> None:
        assert self.open
        if block and not block.in_parts:
            raise Unreadable("“then” parts a round, and this block has no such rounds.", 1)
        if not self.open.moves or self.open.then_at:
            raise Unreadable("“then” stands between two parts of a round.", 1)
        self.open.then_at = number

    def end(self) -> None:
        """End what is open at the last line."""
        if self.nest:
            self._end_nest()
        self.close()

    def close(self) -> None:
        """End the block that is open; a block that can't be laid on the clock is a problem."""
        block, self.open = self.open, None
        if not block or not block.read:
            return
        if block.then_at:
            self._problem(
                block.then_at, Unreadable("“then” stands between two parts of a round.", 1)
            )
        value = block.read.block.but(
            moves=tuple(move for _, move in block.moves), note="; ".join(block.notes)
        )
        try:
            value.check_lines(block.bad_moves)
        except Unreadable as error:
            self._problem(block.line, error)
            return
        self.blocks.append(value)
        self.places.append(
            BlockPlace(
                line=block.line, moves=tuple(n for n, _ in block.moves), figures=block.read.figures
            )
        )


def _is_heading(text: str) -> bool:
    """Whether a line that looks like a header is a heading as it is said: ``cool down: 5 min``."""
    key = HEADER.match(text)
    return bool(key) and f"{key[1].lower()}:" not in HEADERS and bool(heading_ways(text).forms)  # type: ignore[index]


def _refuse_long(text: str) -> None:
    """What no pattern is to be tried on: a line of a thousand letters, a figure of a thousand digits."""
    if len(text) > MOST_LINE:
        said = f"A line has {MOST_LINE} letters at most; write the rest on lines of its own, or behind a #."
        raise Unreadable(said, MOST_LINE + 1, nearest="")
    digits = DIGITS.search(text)
    if digits:
        raise Unreadable(
            "No figure of a session has so many digits.", digits.start() + 1, nearest=""
        )


def _refuse_control(raw: str) -> None:
    found = CONTROL.search(raw)
    if found:
        said = "There is a control character here, which nobody can see; take it out."
        raise Unreadable(said, found.start() + 1, (), CONTROL.sub("", raw))


def split_lines(text: str) -> list[str]:
    """The lines of a slate, without their ends; a carriage return before the end goes with it."""
    return [line.removesuffix("\r") for line in text.removeprefix("\ufeff").split("\n")]


def read(text: str, offers: int = MOST_OFFERS) -> Reading:
    """Read a slate; for so many lines that can't be read, a near one that would be is looked for.

    Never raises for what a person wrote: all that can't be read is in ``problems``, ordered by line.
    """
    if len(text.encode("utf-8", "surrogatepass")) > MOST_BYTES:
        said = f"This is longer than {MOST_BYTES // 1024} KiB, far more than a session needs; nothing of it was read."
        return Reading(session=Session(), problems=(Problem(line=1, column=1, text=said),))
    reader = _Reader(offers)
    for number, raw in enumerate(split_lines(text), 1):
        reader.line(number, raw)
        if len(reader.problems) >= MOST_PROBLEMS:
            said = (
                f"{MOST_PROBLEMS} lines can’t be read; what stands from here on was not looked at."
            )
            reader.problems.append(Problem(line=number + 1, column=1, text=said))
            break
    reader.end()
    return Reading(
        session=Session(**reader.fields, blocks=tuple(reader.blocks), nests=tuple(reader.nests)),
        problems=tuple(sorted(reader.problems, key=lambda one: (one.line, one.column))),
        headers=reader.headers,
        blocks=tuple(reader.places),
        spoken=tuple(reader.spoken),
        said=tuple(reader.said),
        text=text,
    )
