"""What can happen in a class. Each event carries its sender's id, so that one sent twice counts once."""

from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.going import Happening
from lovrit.core.values import Value, fields_of

if TYPE_CHECKING:
    EventKind = str
else:
    EventKind = Literal[tuple(KNOWN)]
ShownThere = Literal["class", "moves", "message", "dark", "stop"]
MOST_ID = 2**63 - 1
WHO = frozenset({"person", "other"})  # a class knows people by their number as text


class Event(Value):
    """Something that happened, at ``at_ms`` (milliseconds since 1970, UTC). Each kind says which fields it takes.

    ``place`` is where the sender's screen stood, so that a press which comes when the class has moved on is known for
    one; ``seconds`` for ``longer``, all like it in the block where ``every``; ``person`` whom it is of, ``other`` with
    whom; ``value`` the effort felt; ``text`` what was typed, ``why`` for who stops; ``lane`` for a tap; ``of`` the
    event that an undo takes back; ``due_ms`` when the hall must be given back; ``by`` who pressed; ``to`` the place
    that a jump goes to; ``what`` the walls are to show.
    """

    id: Annotated[str, Field(min_length=1, max_length=64)]
    kind: EventKind
    at_ms: Annotated[int, Field(ge=0, le=MOST_ID)]
    place: (
        Annotated[int, Field(ge=-1, le=MOST_ID)] | Annotated[str, Field(max_length=24)] | None
    ) = None
    seconds: Annotated[int | None, Field(ge=-600, le=600)] = None
    every: bool = False
    person: Annotated[int | None, Field(ge=0, le=MOST_ID)] = None
    block: Annotated[int | None, Field(ge=0, le=5000)] = None
    value: Annotated[float | None, Field(ge=0, le=10)] = None
    text: Annotated[str | None, Field(max_length=4000)] = None
    why: Annotated[str | None, Field(max_length=200)] = None
    group: Annotated[str | None, Field(pattern="^[A-Z]$")] = None
    lane: Annotated[str | None, Field(max_length=24)] = None
    station: Annotated[str | None, Field(max_length=200)] = None
    move: Annotated[str | None, Field(max_length=200)] = None
    way: Annotated[str | None, Field(max_length=40)] = None
    of: Annotated[str | None, Field(max_length=64)] = None
    bpm: Annotated[int | None, Field(ge=0, le=300)] = None
    due_ms: Annotated[int | None, Field(ge=0, le=MOST_ID)] = None
    by: Annotated[str | None, Field(max_length=60)] = None
    to: Annotated[str | None, Field(max_length=24)] = None
    other: Annotated[int | None, Field(ge=0, le=MOST_ID)] = None
    what: ShownThere | None = None


def happening(event: Event, opened_ms: int, kept: bool = False) -> Happening:
    """An event as the fold takes it: in seconds since the class was opened. One that was kept has counted already,
    so that where it was pressed is asked no more.
    """
    kind, given = KNOWN[event.kind], fields_of(event)
    fields = {
        name: str(given[name]) if name in WHO else given[name]
        for name in (*kind.takes, "by")
        if given[name] is not None
    }
    if kind.placed and (kept or not isinstance(event.place, str)):
        fields.pop("place", None)
    if kind.also:
        fields |= kind.also(given, opened_ms)
    return Happening(event.id, event.kind, (event.at_ms - opened_ms) / 1000, fields)
