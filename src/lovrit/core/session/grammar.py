"""The slate's grammar: one line in, its parse tree out, or an error in a coach's words.

The grammar is put together from the rules of a line (rules.lark) and what each kind of block brings. Lines are
remembered, since an edit changes one of many.
"""

from functools import cache, lru_cache
from importlib.resources import files
from typing import Any, Literal

from lark import Lark
from lark.exceptions import UnexpectedCharacters, UnexpectedEOF, UnexpectedInput, UnexpectedToken

from lovrit.core.blocks.kinds import WORDS, block_rules
from lovrit.core.kept import kept_at
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.remembered import remembered
from lovrit.core.slate.tree import Node

Start = Literal["header", "block", "move"]


@cache
def grammar_text() -> str:
    """The whole grammar, for the parser and for those who draw text from it."""
    rules = files("lovrit.core.session").joinpath("rules.lark").read_text("utf-8")
    return "\n".join([rules, block_rules(), *(word.terminal for word in WORDS), ""])


@cache
def _parser() -> Lark:
    options: dict[str, Any] = {
        "parser": "lalr",
        "start": ["header", "block", "move"],
        "propagate_positions": True,
        "maybe_placeholders": False,
    }
    cache = kept_at("slate.cache")
    try:
        return Lark(grammar_text(), cache=str(cache) if cache else False, **options)
    except OSError:
        return Lark(grammar_text(), **options)


@remembered(20_000)
def parse_line(text: str, start: Start) -> Node:
    """The tree of one line without its comment.

    Raises:
        Unreadable: with the column, and what was expected there.
    """
    try:
        return _parser().parse(text, start=start)
    except UnexpectedInput as error:
        raise _unreadable(text, error) from None


@lru_cache(maxsize=20_000)
def reads(text: str, start: Start) -> bool:
    """Whether the grammar takes this line; says nothing of what it means."""
    try:
        _parser().parse(text, start=start)
    except UnexpectedInput:
        return False
    return True


def expected_words(terminals: set[str]) -> tuple[str, ...]:
    """The sayable names of terminals, in the order of the words; unknown ones are left out."""
    return tuple(word.said for word in WORDS if word.key in terminals)


def _unreadable(text: str, error: UnexpectedInput) -> Unreadable:
    expected = expected_words(_allowed(error))
    ended = isinstance(error, UnexpectedEOF) or (
        isinstance(error, UnexpectedToken) and error.token.type == "$END"
    )
    column = len(text.rstrip()) + 1 if ended else max(1, error.column)
    found = "" if ended else _word_at(text, column)
    said = f"“{found}” does not belong here" if found else "the line stops too early"
    tail = f"; expected {_listed(expected)}" if expected else ""
    return Unreadable(f"{said[0].upper()}{said[1:]}{tail}.", column, expected)


def _allowed(error: UnexpectedInput) -> set[str]:
    if isinstance(error, UnexpectedToken):
        return set(error.accepts or error.expected)
    if isinstance(error, UnexpectedCharacters):
        return set(error.allowed or ())
    return set(getattr(error, "expected", ()))


def _word_at(text: str, column: int) -> str:
    rest = text[column - 1 :].split()
    return rest[0].rstrip(",") or rest[0] if rest else ""


def _listed(words: tuple[str, ...]) -> str:
    shown = words[:5]
    if len(shown) == 1:
        return shown[0]
    return ", ".join(shown[:-1]) + " or " + shown[-1]
