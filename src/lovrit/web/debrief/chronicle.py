"""What the coach did in a class, in words: what was changed, who came and went, what was marked, when."""

from collections.abc import Sequence

from lovrit.core.clock import clock
from lovrit.core.review.changes import change_said
from lovrit.core.run.account import Class
from lovrit.core.run.going import Happening
from lovrit.core.session.session import Session
from lovrit.core.values import Value

Names = dict[str, str]


class Entry(Value):
    """A line of the chronicle: when, as time into the class, and what happened."""

    when: str
    said: str


def chronicle(
    counted: list[Happening],
    state: Class,
    opened_ms: int,
    names: Names,
    session: Session,
    labels: Sequence[str] = (),
) -> tuple[Entry, ...]:
    """What happened, in order; presses that only ran the class are left out."""
    begun_s = None if state.started_ms is None else (state.started_ms - opened_ms) / 1000
    told = ((event, said_of(event, names, session, labels)) for event in counted)
    return tuple(Entry(when=_when(event.at_s, begun_s), said=said) for event, said in told if said)


def _when(at_s: float, begun_s: float | None) -> str:
    return "before the start" if begun_s is None or at_s < begun_s else clock(int(at_s - begun_s))


def said_of(event: Happening, names: Names, session: Session, labels: Sequence[str]) -> str:
    """An event in words; empty where it is not worth any."""
    of = {name: str(value) for name, value in event.fields.items()}
    who, group = names.get(of.get("person", ""), "somebody"), of.get("group", "")
    words = {
        "joins": f"{who} came late, into {group}",
        "moves": f"{who} went over to {group}",
        "stops": f"{who} stopped",
        "returns": f"{who} came back",
        "absent": f"{who} wasn’t there",
        "mark": f"marked: {of.get('text')}" if of.get("text") else "marked",
        "end": "ended here",
        "jump": "jumped by the tape",
        "swap": f"{who} and {names.get(of.get('other', ''), 'somebody')} had each other’s straps until now",
        "changed": f"{who} and {names.get(of.get('other', ''), 'somebody')} wore each other’s straps",
        "broke": _broke(who, of.get("text", "")),
    }
    return words.get(event.kind) or change_said(event, session, labels)


def _broke(who: str, text: str) -> str:
    whose = "" if who == "somebody" else f"{who} "
    return f"{whose}problem here{': ' if text else ''}{text}"
