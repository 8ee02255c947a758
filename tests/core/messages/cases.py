"""The messages of tests/cases/messages, and what is the same in two sessions that mean the same."""

from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any, NamedTuple

from lovrit.core.messages.read import Message, read_message
from lovrit.core.moves.library import shipped
from lovrit.core.moves.names import key_of
from lovrit.core.session.reader import read
from lovrit.core.session.session import Session
from lovrit.core.values import plain

FOLDER = Path(__file__).parents[2] / "cases" / "messages"


class Case(NamedTuple):
    """A message, the slate that is meant, what has to be asked, what has to be kept, and answers that there must be."""

    name: str
    text: str
    slate: str
    asked: tuple[str, ...]
    kept: tuple[str, ...]
    offered: tuple[str, ...] = ()


def cases() -> Iterator[Case]:
    """All of them."""
    for path in sorted(FOLDER.glob("*.txt")):
        for part in path.read_text("utf-8").split("\n== ")[1:]:
            name, _, body = part.partition("\n")
            text, _, meant = body.partition("\n--\n")
            lines = meant.rstrip("\n").split("\n")
            yield Case(
                f"{path.stem}: {name}",
                text,
                "\n".join(one for one in lines if one[:1] not in "?~!"),
                tuple(one[1:].strip() for one in lines if one[:1] == "?"),
                tuple(one[1:].strip() for one in lines if one[:1] == "~"),
                tuple(one[1:].strip() for one in lines if one[:1] == "!"),
            )


@cache
def made_of(text: str) -> Message:
    """What a message comes to, read once for all tests that look at it."""
    return read_message(text)


def meaning(slate: str) -> tuple[Any, ...]:
    """What a slate means: without titles, labels and notes, moves by what the library calls them."""
    reading = read(slate)
    assert not reading.problems, (slate, reading.problems)
    return _session(reading.session)


def _session(session: Session) -> tuple[Any, ...]:
    head = session.slot, session.people, session.setup_s
    return (*head, *(_plain(plain(block)) for block in session.blocks))


def _plain(value: Any) -> Any:
    if isinstance(value, dict):
        return {
            key: _name(one) if key == "name" else _plain(one)
            for key, one in value.items()
            if key not in ("note", "label")
        }
    if isinstance(value, list | tuple):
        return [_plain(one) for one in value]
    return value


def _name(name: str) -> str:
    move = shipped().find(name)
    return move.name if move else key_of(name)
