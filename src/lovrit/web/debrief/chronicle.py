"""What the coach did in a class, in words: what was changed, who came and went, what was marked, when."""

from lovrit.core.clock import clock
from lovrit.core.run.account import Class
from lovrit.core.run.events.kind import Telling
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.going import Happening
from lovrit.core.values import Value


class Entry(Value):
    """A line of the chronicle: when, as time into the class, and what happened."""

    when: str
    said: str


def chronicle(
    counted: list[Happening], state: Class, opened_ms: int, told: Telling
) -> tuple[Entry, ...]:
    """What happened, in order; presses that only ran the class are left out."""
    begun_s = None if state.started_ms is None else (state.started_ms - opened_ms) / 1000
    said = ((event, KNOWN[event.kind].said(event, told)) for event in counted)
    return tuple(
        Entry(when=_when(event.at_s, begun_s), said=words) for event, words in said if words
    )


def _when(at_s: float, begun_s: float | None) -> str:
    return "before the start" if begun_s is None or at_s < begun_s else clock(int(at_s - begun_s))
