"""Time-capped strength: build to a heavy set of so many reps at one's own pace."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.blocks.options import AIMS, Read
from lovrit.core.blocks.parts import Seconds, read_length
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.score import Scoring, load_score
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.tree import Node, figure, tokens, whole
from lovrit.core.slate.words import Word, word

MOST_REPS = 100


def _read(node: Node) -> Read:
    total, shown = read_length(node)
    number = tokens(node, "NUM")[0]
    reps = whole(number, "reps", most=MOST_REPS)
    return Read(
        {"total_s": total, "reps": reps}, [*shown, figure("reps", number, reps, timed=False)]
    )


class Build(Block):
    """Build to a heavy set."""

    kind: Literal["build"] = "build"
    total_s: Seconds
    reps: int

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying("build {total} to heavy {heavy}", SAID_AIMS, least=1),
        Saying("build {time} to heavy {heavy}", SAID_AIMS, least=1),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form("build", ("BUILD time TO HEAVY NUM",), _read, AIMS, "build 12:00 to heavy 4"),
    )
    words: ClassVar[tuple[Word, ...]] = (
        word("BUILD", "build", "“build” and a time"),
        word("HEAVY", "heavy", "“heavy” and a number of reps"),
    )
    lifts: ClassVar[bool] = True
    top_set_s: ClassVar[int | None] = (
        240  # ours: two or three minutes of rest and the way round the bar
    )

    @property
    def head(self) -> str:
        """Its first words."""
        return f"build {clock(self.total_s)} to heavy {self.reps}"

    @property
    def length_s(self) -> int:
        """As written."""
        return self.total_s

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One work to its end."""
        del laying
        yield self.work(self.total_s, 1, 1, 0 if len(self.moves) == 1 else None)

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """Reps of the heavy set."""
        del step, counted
        return str(self.reps)

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """What it builds to."""
        del turn, round_, of
        return self.head

    @property
    def asks_for(self) -> str:
        """A load."""
        return "load, kg"

    def read_score(self, said: str, given: Scoring) -> str:
        """A load."""
        del given
        return load_score(said)
