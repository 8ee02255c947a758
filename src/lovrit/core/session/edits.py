"""What a hand may do to a slate, as values: they can be sent from a page, offered as fixes, and undone."""

from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.values import Value

At = Annotated[int, Field(ge=0, le=5000)]


class SetFigure(Value):
    """Give a figure another value: seconds for a time, a plain number otherwise. ``block`` None: a header's."""

    do: Literal["set"] = "set"
    block: At | None
    figure: str
    value: Annotated[float, Field(ge=0, le=86_400)]


class Ease(Value):
    """Ask for no more effort than this, in a block or (None) in all of them; what asks for less stays."""

    do: Literal["ease"] = "ease"
    block: At | None
    most: Annotated[float, Field(ge=0, le=10)]


class AddOption(Value):
    """Write an option at the end of a block's first line."""

    do: Literal["option"] = "option"
    block: At
    text: Annotated[str, Field(min_length=1, max_length=200)]


class Convention(Value):
    """Change how time adds up: a break or change ``added`` to the rest before it, or the last rest dropped."""

    do: Literal["convention"] = "convention"
    block: At
    what: Literal["added", "drop"]
    on: bool


class MoveStation(Value):
    """Take a move line to another place among the lines of its block."""

    do: Literal["station"] = "station"
    block: At
    start: At
    to: At


class OrderStations(Value):
    """Put the move lines of a block in this order, each by the place that it has now."""

    do: Literal["order"] = "order"
    block: At
    order: Annotated[tuple[At, ...], Field(max_length=5000)]


class ReplaceMove(Value):
    """Put another name in place of the first name of a move line."""

    do: Literal["rename"] = "rename"
    block: At
    move: At
    name: Annotated[str, Field(min_length=1, max_length=200)]


class SetAmount(Value):
    """Give the first amount of a move line another value, in its own unit; a range becomes one figure."""

    do: Literal["amount"] = "amount"
    block: At
    move: At
    value: Annotated[float, Field(gt=0, le=86_400)]


class MoveOption(Value):
    """Write words at the end of a move line: another way, a side, kit."""

    do: Literal["mark"] = "mark"
    block: At
    move: At
    text: Annotated[str, Field(min_length=1, max_length=200)]


class SetSide(Value):
    """Say how sides are taken on a move line: each in one turn, by round, or not at all."""

    do: Literal["side"] = "side"
    block: At
    move: At
    side: Literal["none", "each", "by-round"]


class ReplaceBlock(Value):
    """Put lines of slate in place of a block; comments on its own lines go with it."""

    do: Literal["recast"] = "recast"
    block: At
    text: Annotated[str, Field(min_length=1, max_length=65_536)]


class LineEdit(Value):
    """Remove or duplicate a move line, or put a new one behind it."""

    do: Literal["line"] = "line"
    what: Literal["remove", "duplicate", "insert"]
    block: At
    move: Annotated[int, Field(ge=-1, le=5000)]
    text: Annotated[str, Field(max_length=500)] = ""


class BlockEdit(Value):
    """Remove, duplicate, split or join a block with the next, or take it elsewhere (``to``)."""

    do: Literal["block"] = "block"
    what: Literal["remove", "duplicate", "split", "join", "move"]
    block: At
    to: At = 0


class InsertBlock(Value):
    """Put lines of slate before the block that is ``at`` now; at the end where there is none."""

    do: Literal["insert"] = "insert"
    at: At
    text: Annotated[str, Field(min_length=1, max_length=65_536)]


class ReplaceLine(Value):
    """Put another text in place of a line (from 1), its comment kept."""

    do: Literal["replace"] = "replace"
    line: Annotated[int, Field(ge=1, le=70_000)]
    text: Annotated[str, Field(max_length=2000)]


Edit = Annotated[
    SetFigure
    | Ease
    | AddOption
    | Convention
    | MoveStation
    | OrderStations
    | ReplaceMove
    | SetAmount
    | MoveOption
    | SetSide
    | ReplaceBlock
    | LineEdit
    | BlockEdit
    | InsertBlock
    | ReplaceLine,
    Field(discriminator="do"),
]
