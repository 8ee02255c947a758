"""Reading figures off a line's tree, and where on the line each stands.

A figure that a hand may change is kept with its columns, so that a drag rewrites that figure alone.
"""

from dataclasses import dataclass

from lark import Token, Tree

from lovrit.core.clock import read_clock
from lovrit.core.slate.problem import Unreadable

Node = Tree[Token]
MOST_SECONDS, LONGEST = 12 * 3600, "twelve hours"
MOST_TIMES = 5000


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure on a line: its name, its columns (from 0, end excluded), its value, and whether it is a time."""

    name: str
    start: int
    end: int
    value: float
    timed: bool


def trees(node: Node) -> list[Node]:
    """The branches below a node."""
    return [child for child in node.children if isinstance(child, Tree)]


def tokens(node: Node, *kinds: str) -> list[Token]:
    """The tokens right below a node, of these kinds."""
    return [child for child in node.children if isinstance(child, Token) and child.type in kinds]


def find(node: Node, data: str) -> Node | None:
    """The first branch right below a node with this name."""
    return next((child for child in trees(node) if child.data == data), None)


def column(node: Node | Token) -> int:
    """The column of a node or token, from 1."""
    if isinstance(node, Token):
        return node.column or 1
    return node.meta.column if not node.meta.empty else 1


def seconds(node: Node) -> int:
    """Whole seconds of a ``time`` node.

    Raises:
        Unreadable: if they are not whole, or more than twelve hours.
    """
    token = tokens(node, "CLOCK", "NUM")[0]
    value = (
        float(read_clock(token))
        if token.type == "CLOCK"
        else float(token) * (60 if tokens(node, "MIN") else 1)
    )
    if value != int(value):
        raise Unreadable("Times are whole seconds.", column(token), ("a time such as 1:30",))
    if value > MOST_SECONDS:
        raise Unreadable(
            f"That is longer than {LONGEST}.", column(token), ("a time up to 12:00:00",)
        )
    return int(value)


def whole(token: Token, what: str, least: int = 1, most: int = MOST_TIMES) -> int:
    """A whole number of something, within limits.

    Raises:
        Unreadable: naming what is counted.
    """
    value = float(token)
    if value != int(value) or not least <= value <= most:
        raise Unreadable(
            f"The number of {what} is a whole number from {least} to {most:,}.", column(token)
        )
    return int(value)


def span(node: Node, what: str) -> tuple[float, float]:
    """Low and high of ``NUM`` or ``NUM DASH NUM``.

    Raises:
        Unreadable: if the range is upside down.
    """
    found = tokens(node, "NUM")
    low, high = float(found[0]), float(found[-1])
    if low > high:
        raise Unreadable(
            f"The {what} is upside down: write the smaller figure first.", column(found[0])
        )
    return low, high


def figure(name: str, node: Node | Token, value: float, timed: bool = True) -> Figure:
    """The figure that a node or token is."""
    start = column(node) - 1
    end = start + len(node) if isinstance(node, Token) else (node.meta.end_column or start + 1) - 1
    return Figure(name=name, start=start, end=end, value=value, timed=timed)
