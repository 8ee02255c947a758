"""What a kind of event is. All that is known of one stands in its own file beside this; kinds.py puts them together."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

from lovrit.core.run.going import Going, Happening
from lovrit.core.session.session import Session

Given = Mapping[str, Any]  # the fields of an event as it was sent
Deed = Callable[[Going, Happening], bool]


class Telling(NamedTuple):
    """What an event is told with: names by person, the session, what its blocks are called."""

    names: Mapping[str, str]
    session: Session
    labels: Sequence[str]

    def text(self, event: Happening, field: str) -> str:
        """A field as text; empty where it was not said."""
        return str(event.fields.get(field, ""))

    def who(self, event: Happening, field: str = "person", otherwise: str = "somebody") -> str:
        """Somebody whom an event names."""
        return self.names.get(self.text(event, field), otherwise)


def _nothing(_: Happening, __: Telling) -> str:
    return ""


@dataclass(frozen=True)
class Kind:
    """A kind of event.

    ``deed`` is what it does to a class: true where it changed something. ``takes`` are the fields that it is told
    with, as they were sent; ``also`` those that are worked out of them, given when the class was opened (ms since
    1970). ``no`` is why nothing was changed, where nothing was. ``undo`` is what is taken back by an undo of it: empty
    where it can't be, None where an undo looks past it to the press before. ``said`` is what is told of it afterwards.

    ``placed``: meant for the turn that it was pressed in. ``afterwards``: counts when the class is over too.
    ``shifts``: what is foretold may be another by it. ``pinned``: has a pin on the tape. ``replans``: a change of the
    plan, ``lasts`` for the rest of the class; ``leaves_out``: somebody's sets are fewer by it. ``on_body``: its words
    may be of somebody's health.
    """

    name: str
    deed: Deed
    takes: tuple[str, ...] = ()
    also: Callable[[Given, int], dict[str, Any]] | None = None
    no: str = "Nothing was changed by it."
    undo: str | None = ""
    said: Callable[[Happening, Telling], str] = _nothing
    placed: bool = False
    afterwards: bool = False
    shifts: bool = True
    pinned: bool = False
    replans: bool = False
    lasts: bool = False
    leaves_out: bool = False
    on_body: bool = False


def is_on(state: Going) -> bool:
    """Whether a class has begun and is not over."""
    return state.phase in ("on", "held") and bool(state.lanes)


def number(value: Any, otherwise: float) -> float:
    """A field as a number, or another where it is none."""
    is_one = isinstance(value, int | float) and not isinstance(value, bool)
    return float(value) if is_one else otherwise


def whole(value: Any, otherwise: int) -> int:
    """A field as a whole number, or another where it is none."""
    return round(number(value, otherwise))
