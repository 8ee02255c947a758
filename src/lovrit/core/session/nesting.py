"""Whole blocks that are done several times: ``3 times, rest 3:00``, with the blocks indented under it."""

import re
from dataclasses import dataclass

from lovrit.core.clock import clock
from lovrit.core.session.session import Nest
from lovrit.core.slate.problem import Unreadable

HEAD = re.compile(
    r"(?P<times>\d{1,2})\s+times(?:\s*,?\s*(?:rest|break)\s+(?P<rest>\S+(?:\s*min)?))?\s*$",
    re.IGNORECASE,
)
TIME = re.compile(r"(?:(\d{1,2}):([0-5]\d)|(\d{1,4})\s*s|(\d{1,2})\s*min)$", re.IGNORECASE)
SAMPLE = "3 times, rest 3:00"
BELOW = ("6 x 30/30", "every 1:00 for 4:00")
MOST_TIMES, MOST_REST_S = 50, 3600


@dataclass
class OpenNest:
    """A nest while its lines are being read: ``indent`` is how far its blocks stand in, once one is read."""

    line: int
    times: int
    rest_s: int
    first: int
    indent: int = 0

    def holds(self, text: str) -> bool:
        """Whether a line stands in it."""
        return text[:1] in (" ", "\t")

    def begins_block(self, text: str) -> bool:
        """Whether an indented line begins one of its blocks; the first one says how far in they stand."""
        stands = len(text) - len(text.lstrip())
        self.indent = self.indent or stands
        return stands <= self.indent

    def closed(self, size: int) -> Nest:
        """What it says of the blocks that were read in it.

        Raises:
            Unreadable: where there are none.
        """
        if not size:
            raise Unreadable(
                "There is nothing to repeat: write whole blocks below it, indented.", 1, BELOW
            )
        return Nest(first=self.first, size=size, times=self.times, rest_s=self.rest_s)


def read_nest(text: str, line: int, first: int) -> OpenNest | None:
    """The head of a nest; None where a line is none.

    Raises:
        Unreadable: where its figures can't be.
    """
    found = HEAD.match(text.strip())
    if not found:
        return None
    times = int(found["times"])
    if not 2 <= times <= MOST_TIMES:
        raise Unreadable(f"Two to {MOST_TIMES} times can be said.", 1, (SAMPLE,))
    return OpenNest(line, times, _seconds(found["rest"], text), first)


def _seconds(said: str | None, text: str) -> int:
    if said is None:
        return 0
    found = TIME.match(said)
    column = text.lower().find(said.lower()) + 1
    if not found:
        asked = f"{said} minutes, or {said} seconds?" if said.isdecimal() else "a time such as 3:00"
        near = re.sub(rf"{re.escape(said)}$", f"{said}:00", text) if said.isdecimal() else None
        raise Unreadable(
            f"“{said}” could be more than one thing: {asked}", column, ("3:00", "90 s"), near
        )
    minutes, seconds, bare, whole = found.groups()
    total = int(minutes) * 60 + int(seconds) if minutes else int(bare) if bare else int(whole) * 60
    if total > MOST_REST_S:
        raise Unreadable("A rest of more than an hour is not one.", column)
    return total


def nest_head(nest: Nest) -> str:
    """The line that says it."""
    return f"{nest.times} times" + (f", rest {clock(nest.rest_s)}" if nest.rest_s else "")
