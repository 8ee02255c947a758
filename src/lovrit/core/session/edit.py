"""Edits by hand: each rewrites only the lines that it concerns, and of those only what it must.

Comments, blank lines and a person's own wording elsewhere stay as they were. An edit is a value, so that it
can be sent from a page, offered as a fix, and undone.
"""

import re
from collections.abc import Callable, Sequence
from functools import partial
from typing import Any

from lovrit.core.clock import number
from lovrit.core.session.editblocks import edit_block, insert_blocks, recast_block
from lovrit.core.session.edits import (
    AddOption,
    Convention,
    Edit,
    LineEdit,
    MoveOption,
    MoveStation,
    OrderStations,
    ReplaceLine,
    ReplaceMove,
    SetAmount,
    SetSide,
)
from lovrit.core.session.movelines import name_span
from lovrit.core.session.reader import BlockPlace, Spoken, read
from lovrit.core.session.slatetext import CannotEdit, SlateText, ease, set_figure, with_comment
from lovrit.core.slate.problem import Unreadable

ADDED = re.compile(r"^\s*added\b", re.IGNORECASE)
AMOUNT = re.compile(r"^(\s*)\d+(?:\.\d+)?(?:\s*[-–/]\s*\d+(?:\.\d+)?)?(?=[\s(smc])")
DROPPED = re.compile(r"\s*,?\s*\bdrop\s+last\s+rest\b", re.IGNORECASE)
SIDED = re.compile(r"\s*,?\s*\b(?:each\s+side|left\s+then\s+right)\b", re.IGNORECASE)
SIDES = {"none": "", "each": ", each side", "by-round": ", left then right"}


def apply_edit(text: str, edit: Edit) -> str:
    """The text after an edit.

    Raises:
        CannotEdit: where the text has no place for it.
    """
    block = getattr(edit, "block", None)
    _refuse_in_nest(text, edit, block)
    slate = SlateText(
        text if block is None else in_own_form(text, block, getattr(edit, "move", -1))
    )
    EDITS[edit.do](slate, edit)
    return slate.text()


# what changes a line where it stands, and so may be done to a block that is repeated with others
IN_PLACE = frozenset({"set", "ease", "option", "convention", "amount", "mark", "side", "rename"})


def _refuse_in_nest(text: str, edit: Edit, block: int | None) -> None:
    """Lines are not moved about in what is repeated: they stand once and are done often."""
    touched = [block, getattr(edit, "to", None) if edit.do == "block" else None]
    if edit.do in IN_PLACE or " times" not in text.lower():
        return
    session = read(text).session
    if any(at is not None and session.nest_of(at) for at in touched):
        raise CannotEdit("This is repeated with what stands round it: change it on the slate.")


def in_own_form(text: str, block: int | None = None, move: int | None = None) -> str:
    """A text in which a block, or every one, is in the slate's own form, which edits by hand work on.

    Of its lines of moves only one where ``move`` says which (from 0), none where it is under 0.
    """
    reading = read(text)
    said = {one.line: one for one in reading.spoken}
    lines = {one.line: one for one in reading.said}
    if not said and not lines:
        return text
    slate = SlateText(text)
    places = slate.reading.blocks if block is None else slate.reading.blocks[block : block + 1]
    for place in places:
        wanted = place.moves if move is None else place.moves[move : move + 1] if move >= 0 else ()
        for line in lines.keys() & set(wanted):
            slate.lines[line] = with_comment(slate.lines[line], partial(_instead, lines[line].own))
        if place.line in said:
            _head(slate, place, said[place.line])
    return slate.text()


def _instead(own: str, _: str) -> str:
    return own


def _head(slate: SlateText, place: BlockPlace, said: Spoken) -> None:
    """A heading in its own form; a load that it says of all moves goes to each of them."""
    slate.lines[place.line] = with_comment(slate.lines[place.line], lambda _: said.own)
    for line in place.moves if said.load else ():
        slate.lines[line] = with_comment(slate.lines[line], lambda code: f"{code} {said.load}")


def _option(slate: SlateText, edit: AddOption) -> None:
    line = slate.place(edit.block).line
    slate.lines[line] = with_comment(slate.lines[line], lambda code: f"{code}, {edit.text}")


def _convention(slate: SlateText, edit: Convention) -> None:
    place = slate.place(edit.block)
    raw = slate.lines[place.line]
    if edit.what == "drop":
        slate.lines[place.line] = with_comment(
            raw, lambda code: f"{code}, drop last rest" if edit.on else DROPPED.sub("", code)
        )
        return
    figure = place.figures.get("break") or place.figures.get("change")
    if not figure:
        raise CannotEdit("There is no break here to add.")
    tail = ADDED.sub("", raw[figure.end :], count=1)
    slate.lines[place.line] = raw[: figure.end] + (" added" if edit.on else "") + tail


def _station(slate: SlateText, edit: MoveStation) -> None:
    moves = slate.place(edit.block).moves
    if not (edit.start < len(moves) and edit.to < len(moves)):
        raise CannotEdit("That station is no longer there.")
    order = list(range(len(moves)))
    order.insert(edit.to, order.pop(edit.start))
    _put_in_order(slate, moves, order)


def _order(slate: SlateText, edit: OrderStations) -> None:
    moves = slate.place(edit.block).moves
    if sorted(edit.order) != list(range(len(moves))):
        raise CannotEdit("The stations are others by now.")
    _put_in_order(slate, moves, edit.order)


def _put_in_order(slate: SlateText, moves: Sequence[int], order: Sequence[int]) -> None:
    texts = [slate.lines[at] for at in moves]
    for at, nth in zip(moves, order, strict=True):
        slate.lines[at] = texts[nth]


def _move_at(slate: SlateText, block: int, move: int) -> int:
    moves = slate.place(block).moves
    if move >= len(moves):
        raise CannotEdit("That station is no longer there.")
    return moves[move]


def _rename(slate: SlateText, edit: ReplaceMove) -> None:
    line = _move_at(slate, edit.block, edit.move)
    raw = slate.lines[line]
    try:
        span = name_span(raw.split("#", 1)[0].rstrip())
    except Unreadable:
        span = None
    if not span:
        raise CannotEdit("That line has no move to replace.")
    slate.lines[line] = raw[: span.start] + " ".join(edit.name.split()) + raw[span.end :]


def _amount(slate: SlateText, edit: SetAmount) -> None:
    line = _move_at(slate, edit.block, edit.move)
    changed, found = AMOUNT.subn(
        lambda match: match[1] + number(edit.value), slate.lines[line], count=1
    )
    if not found:
        raise CannotEdit("That line begins with no figure.")
    slate.lines[line] = changed


def _mark(slate: SlateText, edit: MoveOption) -> None:
    line = _move_at(slate, edit.block, edit.move)
    slate.lines[line] = with_comment(slate.lines[line], lambda code: f"{code}, {edit.text}")


def _side(slate: SlateText, edit: SetSide) -> None:
    line = _move_at(slate, edit.block, edit.move)
    words = SIDES[edit.side]
    slate.lines[line] = with_comment(slate.lines[line], lambda code: SIDED.sub("", code) + words)


def _line(slate: SlateText, edit: LineEdit) -> None:
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


def _replace(slate: SlateText, edit: ReplaceLine) -> None:
    if edit.line >= len(slate.lines):
        raise CannotEdit("That line is no longer there.")
    slate.lines[edit.line] = with_comment(slate.lines[edit.line], lambda _code: edit.text)


EDITS: dict[str, Callable[[SlateText, Any], None]] = {
    "set": set_figure,
    "ease": ease,
    "option": _option,
    "convention": _convention,
    "station": _station,
    "order": _order,
    "rename": _rename,
    "amount": _amount,
    "mark": _mark,
    "side": _side,
    "recast": recast_block,
    "line": _line,
    "block": edit_block,
    "insert": insert_blocks,
    "replace": _replace,
}
