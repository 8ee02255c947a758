"""What can happen in a class. Each event carries its sender's id, so that one sent twice counts once."""

from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.values import Value

EventKind = Literal[
    "start", "hold", "resume", "next", "back", "longer", "stops", "returns", "mark", "end", "goes-on",
    "felt", "score", "note",
]  # fmt: skip
AFTERWARDS = frozenset({"felt", "score", "note", "goes-on"})
COUNT_IN = -1
MOST_ID = 2**63 - 1


class Event(Value):
    """Something that happened, at ``at_ms`` (milliseconds since 1970, UTC).

    ``place`` is the interval that the sender's screen stood at (COUNT_IN before the first), so that a press which
    comes when the class has moved on is known for one; ``seconds`` for ``longer``; ``person`` for who stops, returns
    or felt; ``value`` the effort felt; ``block`` and ``text`` for a score; ``text`` for a note.
    """

    id: Annotated[str, Field(min_length=1, max_length=64)]
    kind: EventKind
    at_ms: Annotated[int, Field(ge=0, le=MOST_ID)]
    place: Annotated[int | None, Field(ge=COUNT_IN, le=MOST_ID)] = None
    seconds: Annotated[int | None, Field(ge=-600, le=600)] = None
    person: Annotated[int | None, Field(ge=0, le=MOST_ID)] = None
    block: Annotated[int | None, Field(ge=0, le=5000)] = None
    value: Annotated[float | None, Field(ge=0, le=10)] = None
    text: Annotated[str | None, Field(max_length=4000)] = None
