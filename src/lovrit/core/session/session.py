"""A session as a value: its headers and its blocks.

Durations are whole seconds. Everything here is written on the slate and is the JSON form as it stands.
"""

from typing import Literal

from lovrit.core.blocks.kinds import AnyBlock
from lovrit.core.blocks.parts import Seconds
from lovrit.core.values import Value


class Slot(Value):
    """The time the hall is ours: its length, and when it begins and ends where that is written (HH:MM)."""

    seconds: Seconds
    start: str | None = None
    end: str | None = None


Whom = Literal["beginners", "children", "older", "pregnant"]
Underfoot = Literal["wet", "dry", "icy", "sandy", "uneven"]


class Session(Value):
    """What a coach writes for one class: ``whom`` it is for, how warm it is, how the floor is."""

    title: str = ""
    date: str | None = None
    slot: Slot | None = None
    people: int | None = None
    setup_s: Seconds = 0
    whom: tuple[Whom, ...] = ()
    celsius: int | None = None
    floor: Underfoot | None = None
    blocks: tuple[AnyBlock, ...] = ()
