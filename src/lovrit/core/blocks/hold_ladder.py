"""A hold that grows each period."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.every import turn_of
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.blocks.marks import Mark
from lovrit.core.blocks.options import AIMS, REST_BY_EFFORT, Read
from lovrit.core.blocks.parts import Seconds
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.score import Scoring, hold_score
from lovrit.core.blocks.step import Laying, Stage, Step
from lovrit.core.clock import clock
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, figure, seconds, trees
from lovrit.core.slate.words import Word, word

LOWEST = 0.35


def _read(node: Node) -> Read:
    start, step, period, total = (seconds(child) for child in trees(node))
    if not start or not period or total < period:
        raise Unreadable("A growing hold needs a hold, a turn and a time.", column(node))
    fields = {"start_s": start, "step_s": step, "period_s": period, "total_s": total}
    names = ("hold", "step", "period", "total")
    shown = [
        figure(name, child, seconds(child)) for name, child in zip(names, trees(node), strict=True)
    ]
    return Read(fields, shown)


class HoldLadder(Block):
    """A hold that grows by ``step_s`` each period."""

    kind: Literal["hold-ladder"] = "hold-ladder"
    start_s: Seconds
    step_s: Seconds
    period_s: Seconds
    total_s: Seconds

    sayings: ClassVar[tuple[Saying, ...]] = tuple(
        Saying(
            f"hold ladder {{hold}} +{{grows}} every {{period}} for {{{length}}}", SAID_AIMS, least=1
        )
        for length in ("total", "time")
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "hold_ladder",
            ("HOLD_LADDER time PLUS time EVERY time FOR time",),
            _read,
            (*AIMS, REST_BY_EFFORT),
            "hold ladder 15 +5 every 1:00 for 8:00",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (word("HOLD_LADDER", "hold ladder"),)
    interval_block: ClassVar[bool] = True
    in_turns: ClassVar[bool] = True

    @property
    def head(self) -> str:
        """Its first words."""
        ends = f"every {clock(self.period_s)} for {clock(self.total_s)}"
        return f"hold ladder {self.start_s} +{self.step_s} {ends}"

    @property
    def turn_s(self) -> int:
        """A period."""
        return self.period_s

    @property
    def length_s(self) -> int:
        """As written."""
        return self.total_s

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """A hold a turn, each longer than the one before."""
        del laying
        for nth, start in enumerate(range(0, self.total_s, self.period_s)):
            period = min(self.period_s, self.total_s - start)
            work = self.work(min(period, self.start_s + self.step_s * nth), nth + 1, 1, 0)
            yield work
            yield self.pause("rest", period - work.seconds, work)

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """Seconds of this turn's hold."""
        del counted
        return f"{min(self.period_s, self.start_s + self.step_s * ((step.round or 1) - 1))} s"

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """The turn, which is a minute where it lasts one."""
        del turn
        return turn_of(self.period_s, round_ or 1, of[1])

    @property
    def asks_for(self) -> str:
        """Seconds."""
        return "longest hold, s"

    def read_score(self, said: str, given: Scoring) -> str:
        """Seconds, up to a turn."""
        del given
        return hold_score(said, self.period_s)

    def drawn(self, one: Stage) -> Mark | None:
        """A longer hold stands higher."""
        mark = super().drawn(one)
        if not mark or one.phase != "work":
            return mark
        return mark._replace(height=round(LOWEST + (1 - LOWEST) * one.seconds / self.period_s, 3))
