"""What a message made, on a slate that goes on being written: put there, changed where it still stands, taken off."""

import re
from collections.abc import Mapping

from lovrit.core.messages.read import Message
from lovrit.core.session.slatetext import CannotEdit

HEADERS = re.compile(r"(?:title|note|slot|people|setup):", re.IGNORECASE)
GAPS = re.compile(r"\n{3,}")
BY_HAND = "was changed on the slate since: it stays as you wrote it there."
NOT_THERE = (
    "Nothing of it stands on the slate as it was put there: take off by hand what you don't want."
)
Chosen = Mapping[int, int]


def chosen_on(text: str, made: Message) -> dict[int, int]:
    """The answers that stand on a slate, by the rows of the message that they are of."""
    at, chosen = 0, dict[int, int]()
    for nth, row in enumerate(made.rows):
        ways = (row.slate, *(row.asked.answers if row.asked else ()))
        there = [
            (found, way)
            for way, one in enumerate(ways)
            if (found := _place(text, one, at)) is not None
        ]
        if there:
            at, way = min(there, key=lambda one: (one[0], -len(ways[one[1]])))
            at += len(ways[way])
            chosen |= {nth: way - 1} if way else {}
    return chosen


def put_on(text: str, made: Message) -> str:
    """A slate with what a message made behind all else; the headers of the slate stay."""
    if not text.strip():
        return made.slate
    return _joined(text, *_parts(made, {}))


def changed_on(text: str, made: Message, before: Chosen, now: Chosen) -> str:
    """A slate with other answers: only their parts change, whatever was written by hand around them.

    Raises:
        CannotEdit: where a part that would change no longer stands as it was put there.
    """
    at = 0
    for nth, (old, new) in enumerate(zip(_parts(made, before), _parts(made, now), strict=True)):
        found = _place(text, old, at)
        if found is None and old != new:
            raise CannotEdit(f"“{made.rows[nth].said.split(chr(10))[0].strip()[:60]}” {BY_HAND}")
        if found is not None:
            text = text[:found] + new + text[found + len(old) :]
            at = found + len(new)
    return text


def taken_off(text: str, made: Message, chosen: Chosen) -> str:
    """A slate without what a message made; what was changed by hand since stays.

    Raises:
        CannotEdit: where nothing of it is left as it was put there.
    """
    whole = made.slate.strip()
    if text.strip() in (whole, made.answered(chosen).strip()):
        return ""
    left, at = text, 0
    for part in _parts(made, chosen):
        found = _place(left, part, at)
        if found is not None:
            left, at = left[:found] + left[found + len(part) :], found
    if left == text:
        raise CannotEdit(NOT_THERE)
    if made.head and left.startswith(f"{made.head}\n"):
        left = left.removeprefix(made.head)
    return _joined(GAPS.sub("\n\n", left))


def _parts(made: Message, chosen: Chosen) -> list[str]:
    """The blocks of a message, with these answers; a slate that was pasted is one, without its headers."""
    if made.rows:
        return made.parts(chosen)
    lines = made.slate.split("\n")
    return ["\n".join(line for line in lines if not HEADERS.match(line)).strip()]


def _joined(*parts: str) -> str:
    said = "\n\n".join(one.strip("\n") for one in parts if one.strip())
    return f"{said}\n" if said else ""


def _place(text: str, part: str, at: int) -> int | None:
    """Where a part stands as whole lines, with nothing more below it that is its own."""
    found = re.compile(rf"^{re.escape(part)}$(?!\n[ \t]+\S)", re.MULTILINE).search(text, at)
    return found.start() if found and part else None
