"""One line of the slate turned into a value: a header, a block without its moves, or a move line.

What a line means is checked here; what a block means together with its moves is checked by the reader.
"""

from datetime import date
from functools import lru_cache
from typing import Any, NamedTuple, cast

from lovrit.core.clock import read_clock
from lovrit.core.session.figures import Figure, column, figure, named, seconds, tokens, trees, whole
from lovrit.core.session.grammar import Node, parse_line
from lovrit.core.session.heads import HEADS
from lovrit.core.session.model import AnyBlock, Paired, Slot
from lovrit.core.session.options import PAIRED, read_options
from lovrit.core.session.problem import Unreadable

DAY = 24 * 3600


class BlockLine(NamedTuple):
    """A block as its first line says it, and the figures on that line by name."""

    block: AnyBlock
    figures: dict[str, Figure]


class HeaderLine(NamedTuple):
    """A header's field of the session, its value, and its figure where it is one."""

    field: str
    value: object
    figure: Figure | None = None


@lru_cache(maxsize=20_000)
def read_block(text: str) -> BlockLine:
    """A block from its first line.

    Raises:
        Unreadable: with the column, in a coach's words.
    """
    tree = parse_line(text, "block")
    head, *options = trees(tree)
    kind, block, fields, figures = HEADS[head.data](head)
    more, shown = read_options(kind, options)
    _limits(kind, block, fields, more, tree)
    value = cast(AnyBlock, block(**fields, **more))
    return BlockLine(value, dict(named(figures + shown)))


def _limits(kind: str, block: type, fields: dict[str, Any], more: dict[str, Any], tree: Node) -> None:
    """Where the heart ends a work or a rest, a clock has to end it as well; elsewhere limits mean nothing."""
    if kind not in PAIRED:
        return
    assert issubclass(block, Paired)
    pairs = fields.get("pattern") or (fields["pair"],)
    gated = any(one.seconds is None for pair in pairs for one in (pair.work, pair.rest))
    if gated and "most_s" not in more:
        raise Unreadable(
            "A heart can fail to get there: say how long at most.",
            column(tree),
            ("most 2:00",),
        )
    if not gated and {"least_s", "most_s"} & more.keys():
        raise Unreadable("“least” and “most” belong where the heart ends a work or a rest.", column(tree))
    if gated and more.get("least_s", 0) > more["most_s"]:
        raise Unreadable("The limits are upside down: least is more than most.", column(tree))
    if gated and not more["most_s"]:
        raise Unreadable("There is no time in it.", column(tree), ("most 2:00",))


@lru_cache(maxsize=2_000)
def read_header(text: str) -> HeaderLine:
    """A header line.

    Raises:
        Unreadable: with the column, in a coach's words.
    """
    tree = parse_line(text, "header")
    match tree.data:
        case "title":
            return HeaderLine("title", " ".join(str(tree.children[1]).split()))
        case "date":
            return HeaderLine("date", _date(tree))
        case "people":
            token = tokens(tree, "NUM")[0]
            people = whole(token, "people", 1, 500)
            return HeaderLine("people", people, figure("people", token, people, timed=False))
        case "slot_between":
            return HeaderLine("slot", _between(tree))
    value = seconds(trees(tree)[0])
    shown = figure(str(tree.data), trees(tree)[0], value)
    if tree.data == "slot":
        if not value:
            raise Unreadable("A slot lasts some time.", column(trees(tree)[0]), ("a time such as 45:00",))
        return HeaderLine("slot", Slot(seconds=value), shown)
    return HeaderLine("setup_s", value, shown)


def _date(tree: Node) -> str:
    token = tokens(tree, "DATE")[0]
    try:
        return date.fromisoformat(token).isoformat()
    except ValueError:
        raise Unreadable("There is no such day.", column(token), ("a date such as 2026-11-30",)) from None


def _between(tree: Node) -> Slot:
    clocks = tokens(tree, "CLOCK")
    for token in clocks:
        if token.count(":") != 1 or int(token.split(":")[0]) > 23:
            raise Unreadable("There is no such time of day.", column(token), ("a time of day such as 18:10",))
    start, end = (read_clock(token) * 60 for token in clocks)
    if start == end:
        raise Unreadable("The slot ends when it begins.", column(clocks[1]))
    return Slot(seconds=(end - start) % DAY, start=_hour(clocks[0]), end=_hour(clocks[1]))


def _hour(text: str) -> str:
    hours, minutes = text.split(":")
    return f"{int(hours):02d}:{minutes}"
