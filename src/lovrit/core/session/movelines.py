"""A move line turned into its tasks."""

import re
from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import Any, Literal

from lark import Token

from lovrit.core.blocks.parts import UNIT_OF, read_effort
from lovrit.core.clock import read_clock
from lovrit.core.session.grammar import parse_line
from lovrit.core.session.movesaid import own_line, refuse_units
from lovrit.core.slate.line import Amount, AmountForm, Kit, Line, Load, Task, Way
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.remembered import remembered
from lovrit.core.slate.slowly import OPEN
from lovrit.core.slate.tree import Figure, Node, column, figure, find, seconds, tokens, trees, whole

LoadForm = Literal["one", "range", "standards", "by-set"]
SPLIT_M = 500
MANY = ("kit", "alternatives", "harder", "easier", "parts")


@remembered(20_000)
def read_move(text: str) -> Line | None:
    """The tasks of a move line, in the slate's own form or as boards have it; None for a ``then``.

    Raises:
        Unreadable: with the column, in a coach's words.
    """
    own = own_line(text)
    if own == text:
        return _read(text)
    try:
        return _read(own)
    except Unreadable as error:
        _read(
            text
        )  # what is wrong is said of the line as it was typed, where it is wrong there too
        indent = len(text) - len(text.lstrip())
        raise Unreadable(error.text, indent + 1, error.expected, error.nearest) from None


@lru_cache(maxsize=20_000)
def said_line(text: str) -> str | None:
    """The own form of a line that was said as on a board; None for one that reads the same as it stands."""
    own = own_line(text)
    try:
        same = own == text or _read(text) == read_move(text)
    except Unreadable:
        same = False
    return None if same else own


def _read(text: str) -> Line | None:
    tree = parse_line(_as_marks(text), "move")
    if tree.data == "then":
        return None
    tasks: list[Task] = []
    for item in trees(tree):
        tasks += _tasks(item)
    refuse_units((name for task in tasks for name in _names(task)), text)
    return Line(tasks=tuple(tasks))


def _names(task: Task) -> Iterator[str]:
    yield task.name
    for ways in (task.parts, task.alternatives, task.harder, task.easier):
        yield from (way.name for way in ways if way.name)


# said before what it is said of: what a team splits, and what is done once only
SHARE = re.compile(r"^(\s*)shared?\s+(\d\S*\s+.*\S)\s*$", re.IGNORECASE)
ONCE = re.compile(r"^\s*(buy-?\s?in|cash-?\s?out)\b", re.IGNORECASE)


def _as_marks(text: str) -> str:
    """A line with what is said before its amount as a mark behind it.

    Raises:
        Unreadable: for what is done once, which is no line of a round.
    """
    once = ONCE.match(text)
    if once:
        word = once[1].lower()
        where = "before" if word.startswith("buy") else "after"
        raise Unreadable(
            f"A {word} is done once, not in every round: write it at the edge, as a line {where} this block.",
            once.start(1) + 1,
            (f"{word} 400 m run",),
            "",
        )
    return SHARE.sub(r"\1\2, shared", text)


def name_span(text: str) -> Figure | None:
    """Where the first name of a move line stands, for the hand that replaces it."""
    tree = parse_line(text, "move")
    items = trees(tree)
    node = find(items[0], "name") if items else None
    return figure("name", node, 0, timed=False) if node else None


def _tasks(item: Node) -> list[Task]:
    """A task with its marks; names after a comma are parts after a colon, and further tasks without one."""
    fields: dict[str, Any] = {"name": _name(find(item, "name"))}
    amount = find(item, "amount") or find(item, "sized")
    if amount:
        fields["amount"] = _amount(amount)
    more: list[Task] = []
    for tail in (child for child in trees(item) if child.data == "tail"):
        mark = trees(tail)[0]
        if mark.data != "way":
            _mark(mark, fields)
        elif "parts" in fields:
            fields["parts"] = (*fields["parts"], _way(mark))
        else:
            more.append(_joined(mark))
    return [Task(**fields), *more]


def _joined(node: Node) -> Task:
    way = _way(node)
    if not way.name:
        raise Unreadable("A figure alone is no move.", column(node), ("a name",))
    return Task(name=way.name, amount=way.amount)


def _mark(node: Node, fields: dict[str, Any]) -> None:
    field, value = _read_mark(node)
    if field in MANY:
        fields[field] = (*fields.get(field, ()), value)
    elif field in fields:
        raise Unreadable("This is written twice on the line; one of them has to go.", column(node))
    else:
        fields[field] = value


def _read_mark(node: Node) -> tuple[str, Any]:
    field, read = MARKS[str(node.data)]
    return field, read(node)


MOST_S = 30  # of a phase
MOST_OF: dict[str, tuple[int, int]] = {"rir": (0, 10), "rate": (5, 200), "breaths": (1, 100)}


def _counted(node: Node) -> int:
    least, most = MOST_OF[str(node.data)]
    return whole(tokens(node, "NUM")[0], str(node.data), least, most)


def _rhythm(node: Node) -> tuple[int | None, ...]:
    """Seconds down, low, up and high; None where nobody told."""
    said = str(tokens(node, "RHYTHM")[0])[len("tempo") :].lower().split("-")
    phases = tuple(None if one.strip() == OPEN else int(one) for one in said)
    if not any(phases) or max(one or 0 for one in phases) > MOST_S:
        raise Unreadable("A rep takes some time.", column(node), ("tempo 3-1-1-0",))
    return phases


def _own_pair(node: Node) -> tuple[int, int]:
    written = str(tokens(node, "OWN_PAIR")[0]).split("/")
    work, rest = (read_clock(one) for one in written)
    if not work:
        raise Unreadable("There is no time to work in.", column(node), ("row 60/30",))
    return work, rest


def _asked(node: Node) -> tuple[float, float]:
    effort = read_effort(trees(node)[0])
    return effort.low, effort.high


def _slow(node: Node) -> int:
    value = seconds(node)
    if not 1 <= value <= 60:
        raise Unreadable("A rep lasts one to sixty seconds.", column(node), ("slow 4 s",))
    return value


def _name(node: Node | None) -> str:
    return " ".join(str(child) for child in node.children).lower() if node else ""


def _way(node: Node) -> Way:
    amount = find(node, "amount") or find(node, "sized")
    return Way(amount=_amount(amount) if amount else None, name=_name(find(node, "name")))


def _form(node: Node, numbers: list[Token], what: str) -> tuple[AmountForm, tuple[float, ...]]:
    values = tuple(float(token) for token in numbers)
    if tokens(node, "DASH"):
        if values[0] > values[1]:
            raise Unreadable(
                f"The {what} is upside down: write the smaller figure first.", column(numbers[0])
            )
        return "range", values
    return ("standards" if len(values) > 1 else "one"), values


def _amount(node: Node) -> Amount:
    if tokens(node, "MAX"):
        return Amount(form="max")
    clocks = tokens(node, "CLOCK")
    if clocks:
        return Amount(values=(float(read_clock(clocks[0])),), unit="s")
    unit = find(node, "unit")
    kind = unit.children[0].type if unit else "REPS"  # type: ignore[union-attr]
    form, values = _form(node, tokens(node, "NUM"), "range")
    if not all(0 < value <= 100_000 for value in values):
        raise Unreadable("That is nothing to do, or far too much.", column(node))
    factor = 60 if kind == "MIN" else 1
    return Amount(form=form, values=tuple(value * factor for value in values), unit=UNIT_OF[kind])


def _load(node: Node) -> Load:
    clocks = tokens(node, "CLOCK")
    if clocks:
        if float(tokens(node, "NUM")[0]) != SPLIT_M:
            raise Unreadable("A split is a time for 500 m.", column(node), ("@ 2:05/500 m",))
        return Load(values=(float(read_clock(clocks[0])),), unit="/500 m")
    form, values = _load_figures(node, tokens(node, "NUM"))
    if not all(0 < value <= 1000 for value in values):
        raise Unreadable("That is not a load.", column(node), ("a load such as 16 kg or 75%",))
    return Load(form=form, values=values, unit=_load_unit(node))


def _load_figures(node: Node, numbers: list[Token]) -> tuple[LoadForm, tuple[float, ...]]:
    """One figure, a range, standards, or three and more for as many sets."""
    if len(numbers) > 2 and tokens(node, "DASH"):
        return "by-set", tuple(map(float, numbers))
    form, values = _form(node, numbers, "load")
    assert form != "max"
    return form, values


LOAD_UNITS: dict[str, Literal["kg", "%", "lb", "W"]] = {
    "KG": "kg",
    "PERCENT": "%",
    "LB": "lb",
    "WATT": "W",
}


def _load_unit(node: Node) -> Literal["kg", "%", "lb", "W"]:
    found = tokens(node, *LOAD_UNITS)
    return LOAD_UNITS[found[0].type] if found else "kg"


def _kit(node: Node) -> Kit:
    """Pieces each, before the name or before a ``x``; then the loads."""
    name = " ".join(str(token) for token in tokens(node, "WORD")).lower()
    before: list[float] = []
    loads: list[float] = []
    each = 1.0
    for child in node.children:
        if not isinstance(child, Token):
            continue
        if child.type == "NUM":
            (loads if loads or _after_name(node, child) else before).append(float(child))
        elif child.type == "TIMES":
            each = loads.pop()
    each = before[0] if before else each
    if each != int(each) or not 1 <= each <= 20:
        raise Unreadable("That many pieces for one person can't be.", column(node))
    if not all(0 < load <= 1000 for load in loads):
        raise Unreadable("That is not a load.", column(node), ("loads such as 16 12 8",))
    return Kit(name=name, each=int(each), loads=tuple(loads))


def _after_name(node: Node, number: Token) -> bool:
    words = tokens(node, "WORD")
    return bool(words) and column(words[0]) < column(number)


# mark: the field of a task that it sets, and how it is read
MARKS: dict[str, tuple[str, Callable[[Node], Any]]] = {
    "load": ("load", lambda node: _load(trees(node)[0])),
    "each_side": ("side", lambda _: "each"),
    "sides": ("side", lambda _: "by-round"),
    "slow": ("slow_s", lambda node: _slow(trees(node)[0])),
    "breath": ("breath_held", lambda _: True),
    "kit": ("kit", lambda node: _kit(trees(node)[0])),
    "task_effort": ("asked", _asked),
    "rhythm": ("tempo", _rhythm),
    "own_pair": ("pair", _own_pair),
    "shared": ("shared", lambda _: True),
    "until_back": ("until_back", lambda _: True),
    "rir": ("rir", _counted),
    "rate": ("rate", _counted),
    "breaths": ("breaths", _counted),
    "alternative": ("alternatives", lambda node: _way(trees(node)[0])),
    "harder": ("harder", lambda node: _way(trees(node)[0])),
    "easier": ("easier", lambda node: _way(trees(node)[0])),
    "part": ("parts", lambda node: _way(trees(node)[0])),
}
