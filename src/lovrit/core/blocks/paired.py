"""Blocks made of works and rests: the clock limits of a heart that ends one of them, and how a pair is said."""

from typing import ClassVar, Literal, Self

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.floor import Floor, FloorStep, Gate, Lanes
from lovrit.core.blocks.options import Fields
from lovrit.core.blocks.parts import Pair, Seconds, Stretch
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.problem import Unreadable

# of those whose hearts count, how many must be there before a gate opens for all of them; the first one for “one”
SHARES = {"": 1.0, "all": 1.0, "half": 0.5, "one": 0.0}


class Paired(Block):
    """A block made of works and rests; clock limits hold where the heart ends one of them."""

    interval_block: ClassVar[bool] = True

    drop_last_rest: bool = False
    least_s: Seconds = 0
    most_s: Seconds | None = None
    when: Literal["", "all", "half", "one"] = ""

    @classmethod
    def check(cls, fields: Fields, at: int) -> None:
        """Where the heart ends a work or a rest, a clock has to end it as well; elsewhere limits mean nothing."""
        pairs: tuple[Pair, ...] = fields.get("pattern") or (
            fields["pair"],
            *fields.get("by_round", ()),
        )
        gated = any(pair.timed is None for pair in pairs)
        if gated and "most_s" not in fields:
            raise Unreadable(
                "A heart can fail to get there: say how long at most.", at, ("most 2:00",)
            )
        if not gated and {"least_s", "most_s", "when"} & fields.keys():
            raise Unreadable(
                "“least”, “most” and “when” belong where the heart ends a work or a rest.", at
            )
        if fields.get("when") == "one" and any(pair.rest.until_bpm for pair in pairs):
            raise Unreadable(
                "One heart that is down lets nobody else go: a rest waits for all or for half.",
                at,
                ("when half",),
            )
        if gated and fields.get("least_s", 0) > fields["most_s"]:
            raise Unreadable("The limits are upside down: least is more than most.", at)
        if gated and not fields["most_s"]:
            raise Unreadable("There is no time in it.", at, ("most 2:00",))

    @property
    def own_rest_s(self) -> int | None:
        """Seconds of rest after each work, the last of a pattern; None where a heart ends it or none is written."""
        return self.pairs[-1].rest.seconds if self.pairs else None

    @property
    def drops_last_rest(self) -> bool | None:
        """Whether the last rest is dropped."""
        return self.drop_last_rest

    def pair_in(self, step: Step) -> Pair:
        """The work and rest that a step is of: of a pattern its turn's."""
        return self.pairs[((step.turn or 1) - 1) % len(self.pairs)]

    def floor(self, laying: Laying) -> Floor:
        """By the clock; where a heart ends a work or a rest, each person by their own."""
        plain = super().floor(laying)
        if not self.gated:
            return plain
        steps = zip(self.unroll(laying), plain.steps, strict=True)
        lanes: Lanes = "all" if self.moves_people or self.when else "persons"
        return Floor(lanes, tuple(self._opened(step, made) for step, made in steps), up=True)

    def _opened(self, step: Step, made: FloorStep) -> FloorStep:
        if step.phase not in ("work", "rest"):
            return made
        pair = self.pair_in(step)
        stretch = pair.work if step.phase == "work" else pair.rest
        if stretch.until_bpm is None:
            return made
        gate = Gate(
            stretch.until_bpm,
            self.least_s,
            self.most_s or 0,
            step.phase == "rest",
            SHARES[self.when],
        )
        return made._replace(clock_s=None, gate=gate, likely_s=step.seconds)

    def length(self, stretch: Stretch, laying: Laying) -> int:
        """How long a work or rest is: where the heart ends it, its most; its least for the low figure."""
        if stretch.seconds is not None:
            return stretch.seconds
        return self.least_s if laying.case == "low" else self.most_s or 0

    def with_figure(self, name: str, value: float) -> Self:
        """The block with one of its figures set; work and rest are those of its one pair."""
        if name in ("work", "rest") and len(self.pairs) == 1:
            return self.with_pairs((self.pairs[0].but(**{name: Stretch(seconds=round(value))}),))
        return super().with_figure(name, value)

    def with_pairs(self, pairs: tuple[Pair, ...]) -> Self:
        """The block with another work and rest."""
        return self.but(pair=pairs[0])


def in_turn(pair: Pair) -> str:
    """Seconds of a work and its rest together, as they are said in a sum."""
    if pair.timed is None:
        return f"({said(pair.work)} + {said(pair.rest)})"
    return clock(sum(pair.timed))


def said(stretch: Stretch) -> str:
    """A work or a rest as it is said in a sum."""
    return clock(stretch.seconds) if stretch.seconds is not None else f"until {stretch.until_bpm}"
