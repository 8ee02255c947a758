"""One line of the slate turned into a value: a header, a block without its moves, or a move line.

What a line means is checked here; what a block means together with its moves is checked by the reader.
"""

from collections.abc import Callable
from dataclasses import replace
from datetime import date
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.kinds import FORMS, OPTIONS
from lovrit.core.blocks.options import once
from lovrit.core.clock import read_clock
from lovrit.core.session.grammar import parse_line
from lovrit.core.session.session import Slot
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.remembered import remembered
from lovrit.core.slate.tree import Figure, Node, column, figure, seconds, tokens, trees, whole

DAY = 24 * 3600
COLDEST = 40  # degrees below


class BlockLine(NamedTuple):
    """A block as its first line says it, and the figures on that line by name."""

    block: Block
    figures: dict[str, Figure]

    def moved(self, by: int) -> "BlockLine":
        """The same where the line stands so many columns in."""
        shifted = {
            name: replace(one, start=one.start + by, end=one.end + by)
            for name, one in self.figures.items()
        }
        return self._replace(figures=shifted)


class HeaderLine(NamedTuple):
    """A header's field of the session, its value, and its figure where it is one."""

    field: str
    value: object
    figure: Figure | None = None


@remembered(20_000)
def read_block(text: str) -> BlockLine:
    """A block from its first line.

    Raises:
        Unreadable: with the column, in a coach's words.
    """
    tree = parse_line(text, "block")
    head, *nodes = trees(tree)
    kind, form = FORMS[head.data]
    read = form.read(head)
    fields, figures = dict(read.fields), list(read.figures)
    for node in nodes:
        option = next((one for one in form.options if one.rule == node.data), None)
        if option is None:
            raise Unreadable(
                f"“{OPTIONS[node.data].said}” does not go with this kind of block.", column(node)
            )
        more = option.read(node)
        once(fields, more.fields, node)
        figures += more.figures
    kind.check(fields, column(tree))
    return BlockLine(kind(**fields), {one.name: one for one in figures})


@remembered(2_000)
def read_header(text: str) -> HeaderLine:
    """A header line.

    Raises:
        Unreadable: with the column, in a coach's words.
    """
    tree = parse_line(text, "header")
    return HEADERS_READ[str(tree.data)](tree)


def _title(tree: Node) -> HeaderLine:
    return HeaderLine("title", " ".join(str(tree.children[1]).split()))


def _note(tree: Node) -> HeaderLine:
    return HeaderLine("note", " ".join(str(tree.children[1]).split()))


def _people(tree: Node) -> HeaderLine:
    token = tokens(tree, "NUM")[0]
    people = whole(token, "people", 1, 500)
    return HeaderLine("people", people, figure("people", token, people, timed=False))


def _slot(tree: Node) -> HeaderLine:
    value = seconds(trees(tree)[0])
    if not value:
        raise Unreadable(
            "A slot lasts some time.", column(trees(tree)[0]), ("a time such as 45:00",)
        )
    return HeaderLine("slot", Slot(seconds=value), figure("slot", trees(tree)[0], value))


def _setup(tree: Node) -> HeaderLine:
    value = seconds(trees(tree)[0])
    return HeaderLine("setup_s", value, figure("setup", trees(tree)[0], value))


def _whom(tree: Node) -> HeaderLine:
    named = dict.fromkeys(str(one).lower() for one in tokens(tree, "WHOM"))
    return HeaderLine("whom", tuple(named))


def _weather(tree: Node) -> HeaderLine:
    degrees = whole(tokens(tree, "NUM")[0], "degrees", 0, 55)
    below = bool(tokens(tree, "DASH"))
    if below and degrees > COLDEST:
        raise Unreadable("So cold is no weather to train in.", column(tokens(tree, "NUM")[0]))
    return HeaderLine("celsius", -degrees if below else degrees)


def _floor(tree: Node) -> HeaderLine:
    return HeaderLine("floor", str(tokens(tree, "UNDERFOOT")[0]).lower())


def _date(tree: Node) -> str:
    token = tokens(tree, "DATE")[0]
    try:
        return date.fromisoformat(token).isoformat()
    except ValueError:
        raise Unreadable(
            "There is no such day.", column(token), ("a date such as 2026-11-30",)
        ) from None


def _between(tree: Node) -> Slot:
    clocks = tokens(tree, "CLOCK")
    for token in clocks:
        if token.count(":") != 1 or int(token.split(":")[0]) > 23:
            raise Unreadable(
                "There is no such time of day.", column(token), ("a time of day such as 18:10",)
            )
    start, end = (read_clock(token) * 60 for token in clocks)
    if start == end:
        raise Unreadable("The slot ends when it begins.", column(clocks[1]))
    return Slot(seconds=(end - start) % DAY, start=_hour(clocks[0]), end=_hour(clocks[1]))


def _hour(text: str) -> str:
    hours, minutes = text.split(":")
    return f"{int(hours):02d}:{minutes}"


HEADERS_READ: dict[str, Callable[[Node], HeaderLine]] = {
    "title": _title,
    "note": _note,
    "date": lambda tree: HeaderLine("date", _date(tree)),
    "people": _people,
    "slot": _slot,
    "slot_between": lambda tree: HeaderLine("slot", _between(tree)),
    "setup": _setup,
    "whom": _whom,
    "weather": _weather,
    "floor": _floor,
}
