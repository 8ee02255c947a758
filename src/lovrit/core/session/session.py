"""A session as a value: its headers and its blocks.

Durations are whole seconds. Everything here is written on the slate and is the JSON form as it stands.
"""

from collections.abc import Sequence
from datetime import time
from typing import Annotated, Literal

from pydantic import Field

from lovrit.core.blocks.kinds import AnyBlock
from lovrit.core.blocks.parts import Seconds
from lovrit.core.blocks.rest import Rest
from lovrit.core.slate.line import Line
from lovrit.core.values import Value

USUAL_BEGINS = time(18, 0)  # when a session begins of which nobody wrote when


class Slot(Value):
    """The time the hall is ours: its length, and when it begins and ends where that is written (HH:MM)."""

    seconds: Seconds
    start: str | None = None
    end: str | None = None

    @property
    def begins(self) -> time | None:
        """The time of day at which it begins; None where only its length is written."""
        return time.fromisoformat(self.start.zfill(5)) if self.start else None


Whom = Literal["beginners", "children", "older", "pregnant"]
Underfoot = Literal["wet", "dry", "icy", "sandy", "uneven"]


class Nest(Value):
    """Whole blocks that are done several times: ``size`` blocks from ``first`` (from 0) on, with a rest between.

    The blocks stand in the session as often as they are done, so that whoever walks through them needs to know nothing
    of it.
    """

    first: Annotated[int, Field(ge=0, le=5000)]
    size: Annotated[int, Field(ge=1, le=500)]
    times: Annotated[int, Field(ge=2, le=50)]
    rest_s: Seconds = 0

    @property
    def step(self) -> int:
        """Blocks from one time to the next."""
        return self.size + (1 if self.rest_s else 0)

    @property
    def end(self) -> int:
        """The first block behind it."""
        return self.first + self.step * self.times - (1 if self.rest_s else 0)

    def copies(self, at: int) -> bool:
        """Whether a block of it is a copy of an earlier one, or a rest between."""
        return self.first + self.size <= at < self.end

    def laid_out(self, blocks: Sequence[AnyBlock]) -> tuple[AnyBlock, ...]:
        """Its blocks as often as they are done."""
        once = tuple(blocks)
        between = (Rest(total_s=self.rest_s),) if self.rest_s else ()
        return (*once, *((*between, *once) * (self.times - 1)))

    def is_in(self, blocks: Sequence[AnyBlock]) -> bool:
        """Whether these blocks are still what it says."""
        stretch = tuple(blocks[self.first : self.end])
        return stretch == self.laid_out(stretch[: self.size])


class Session(Value):
    """What a coach writes for one class: ``whom`` it is for, how warm it is, how the floor is.

    ``note`` is what is said to people and is no part of a block.
    """

    title: str = ""
    note: str = ""
    date: str | None = None
    slot: Slot | None = None
    people: int | None = None
    setup_s: Seconds = 0
    whom: tuple[Whom, ...] = ()
    celsius: int | None = None
    floor: Underfoot | None = None
    blocks: tuple[AnyBlock, ...] = ()
    nests: tuple[Nest, ...] = ()

    @property
    def stations(self) -> tuple[Line, ...]:
        """The move lines that somebody may do in their own way, each name once, in their order."""
        lines = (line for block in self.blocks if block.works for line in block.moves)
        return tuple({line.name: line for line in lines if not line.is_rest}.values())

    def nest_of(self, at: int) -> Nest | None:
        """What a block is repeated in; None where it stands alone."""
        return next((one for one in self.nests if one.first <= at < one.end), None)
