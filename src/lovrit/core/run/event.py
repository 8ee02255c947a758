"""What can happen in a class. Each event carries its sender's id, so that one sent twice counts once."""

from typing import Annotated, Any, Literal

from pydantic import Field

from lovrit.core.run.foretold import COUNT_IN_S
from lovrit.core.run.going import Happening
from lovrit.core.values import Value, fields_of

EventKind = Literal[
    "start", "hold", "resume", "next", "back", "again", "longer", "skip-round", "skip-block", "drop-round", "replace",
    "stops", "returns", "joins", "moves", "done", "in", "round", "change", "heart", "mark", "plan", "due", "undo",
    "end", "goes-on", "felt", "score", "note", "jump", "broke", "swap", "show", "absent", "changed",
]  # fmt: skip
ShownThere = Literal["class", "moves", "message", "dark", "stop"]
MOST_ID = 2**63 - 1
AS_THEY_ARE = (
    "seconds", "block", "value", "text", "group", "lane", "station", "move", "way", "of", "bpm", "by", "to", "what",
)  # fmt: skip


class Event(Value):
    """Something that happened, at ``at_ms`` (milliseconds since 1970, UTC).

    ``place`` is where the sender's screen stood, so that a press which comes when the class has moved on is known for
    one; ``seconds`` for ``longer``, all like it in the block where ``every``; ``person`` for who stops, returns or
    felt; ``value`` the effort felt; ``block`` and ``text`` for a score; ``text`` for a note or a mark; ``lane`` for a
    tap; ``of`` for the event that an undo takes back; ``due_ms`` when the hall must be given back; ``by`` who pressed;
    ``to`` the place that a jump goes to; ``other`` who changes straps with
    ``person``, or had changed them all along (``changed``); ``what`` the wall is to show.
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
    fields: dict[str, Any] = {
        name: value
        for name, value in fields_of(event).items()
        if name in AS_THEY_ARE and value is not None
    }
    if event.kind in ("next", "back", "again", "longer"):
        fields["place"] = event.place if isinstance(event.place, str) and not kept else None
    if event.kind == "start":
        fields["count_in"] = COUNT_IN_S
    if event.every:
        fields["for"] = "block"
    if event.person is not None:
        fields["person"] = str(event.person)
    if event.other is not None:
        fields["other"] = str(event.other)
    if event.kind == "felt":
        fields["value"] = event.value
    if event.kind == "due":
        fields["due_s"] = None if event.due_ms is None else (event.due_ms - opened_ms) / 1000
    return Happening(event.id, event.kind, (event.at_ms - opened_ms) / 1000, fields)
