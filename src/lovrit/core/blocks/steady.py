"""A stretch at one effort, by its own name: warm-up, cool-down, easy laps."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.options import AIMS, Read
from lovrit.core.blocks.parts import Seconds, read_length
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.tree import Node, trees


def _read(node: Node) -> Read:
    total, shown = read_length(node)
    words = " ".join(str(child) for child in trees(node)[0].children).lower()
    return Read({"total_s": total, "label": words}, shown)


class Steady(Block):
    """A stretch at one effort."""

    kind: Literal["steady"] = "steady"
    label: str
    total_s: Seconds

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying("{around} {time}", {**SAID_AIMS, "together": ""}),
        Saying("{label} {time}", SAID_AIMS),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form("steady", ("label time",), _read, AIMS, "warm-up 8:00 at 3"),
    )
    # a name may begin with a word that has a meaning of its own where figures follow it
    rules: ClassVar[tuple[str, ...]] = ("label: WORD+ | TEMPO WORD+ | BUILD WORD+ | REST WORD+",)
    works: ClassVar[bool] = False

    @property
    def head(self) -> str:
        """Its name and its length."""
        return f"{self.label} {clock(self.total_s)}"

    @property
    def name(self) -> str:
        """Its name."""
        return self.label

    @property
    def short_name(self) -> str:
        """Its name."""
        return self.label

    @property
    def length_s(self) -> int:
        """As written."""
        return self.total_s

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One stretch."""
        del laying
        yield Step(phase="steady", seconds=self.total_s, effort=self.effort_in(1))
