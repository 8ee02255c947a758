"""A metronome that climbs from one rate to another, beats a minute, and may come back down."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.marks import Mark
from lovrit.core.blocks.options import AIMS, Option, Read, flag
from lovrit.core.blocks.parts import Seconds
from lovrit.core.blocks.score import Scoring, beats_score
from lovrit.core.blocks.step import Laying, Stage, Step
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, figure, seconds, tokens, trees, whole
from lovrit.core.slate.words import Word, word
from lovrit.core.slate.written import short

LOWEST = 0.35
UP_DOWN = Option(
    "up_down",
    "UP_DOWN",
    "up and down",
    flag("up_and_down"),
    lambda block: "up and down" if block.up_and_down else "",
    (word("UP_DOWN", "up and down"),),
    "up and down",
)


def _read(node: Node) -> Read:
    start, end, steps = tokens(node, "NUM")
    step = trees(node)[0]
    fields = {
        "start": whole(start, "beats", 20, 400),
        "end": whole(end, "beats", 20, 400),
        "steps": whole(steps, "steps", 2, 200),
        "step_s": seconds(step),
    }
    if not fields["step_s"]:
        raise Unreadable("There is no time in a step.", column(step), ("a time such as 20",))
    shown = [
        figure("steps", steps, fields["steps"], timed=False),
        figure("step", step, fields["step_s"]),
    ]
    return Read(fields, shown)


class Tempo(Block):
    """A metronome that climbs."""

    kind: Literal["tempo"] = "tempo"
    start: int
    end: int
    steps: int
    step_s: Seconds
    up_and_down: bool = False

    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "tempo",
            ("TEMPO NUM TO NUM IN NUM STEPS OF time",),
            _read,
            (*AIMS, UP_DOWN),
            "tempo 90 to 160 in 8 steps of 20",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (word("TEMPO", "tempo"), word("STEPS", "steps?"))

    @property
    def head(self) -> str:
        """Its first words."""
        return f"tempo {self.start} to {self.end} in {self.steps} steps of {short(self.step_s)}"

    @property
    def beats(self) -> list[int]:
        """The metronome's rates in order, beats a minute; up and down plays the top one once."""
        climb = (self.end - self.start) / (self.steps - 1)
        up = [round(self.start + climb * nth) for nth in range(self.steps)]
        return up + up[-2::-1] if self.up_and_down else up

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """The beat, and which step of how many."""
        del round_
        nth = turn or 1
        return f"{self.beats[nth - 1]} a minute, step {nth} of {of[0]}"

    @property
    def asks_for(self) -> str:
        """The quickest beat that was kept."""
        return "quickest beat kept, a minute"

    def read_score(self, said: str, given: Scoring) -> str:
        """A beat between the lowest and the top."""
        del given
        return beats_score(said, *sorted((self.start, self.end)))

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """A work a beat."""
        del laying
        for turn, beat in enumerate(self.beats, 1):
            yield self.work(self.step_s, 1, turn, 0 if self.moves else None)._replace(beat=beat)

    def drawn(self, one: Stage) -> Mark | None:
        """A quicker beat stands higher."""
        mark = super().drawn(one)
        if not mark or one.beat is None:
            return mark
        low, high = sorted((self.start, self.end))
        return mark._replace(
            height=round(LOWEST + (1 - LOWEST) * (one.beat - low) / max(1, high - low), 3)
        )
