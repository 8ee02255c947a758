"""A rest between blocks."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.options import AT, Read
from lovrit.core.blocks.parts import Seconds, read_length
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.tree import Node


def _read(node: Node) -> Read:
    total, shown = read_length(node)
    return Read({"total_s": total}, shown)


class Rest(Block):
    """A rest between blocks."""

    kind: Literal["rest"] = "rest"
    total_s: Seconds

    sayings: ClassVar[tuple[Saying, ...]] = (Saying("rest {rest}", {"effort": "at {}"}, most=0),)
    forms: ClassVar[tuple[Form, ...]] = (Form("rest", ("REST time",), _read, (AT,), "rest 3:00"),)
    works: ClassVar[bool] = False
    is_pause: ClassVar[bool] = True

    @property
    def head(self) -> str:
        """Its first words."""
        return f"rest {clock(self.total_s)}"

    @property
    def name(self) -> str:
        """What people do in it."""
        return "rest"

    @property
    def short_name(self) -> str:
        """What it is, without its length."""
        return "rest"

    @property
    def length_s(self) -> int:
        """As written."""
        return self.total_s

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One break."""
        del laying
        yield Step(phase="break", seconds=self.total_s, effort=self.effort_in(1))
