"""Rounds of stations: each turn moves everyone one station on. A break follows each round but the last."""

from collections.abc import Iterator
from typing import ClassVar, Literal, Self

from lovrit.core.blocks.block import Between, Form, Repeats
from lovrit.core.blocks.options import (
    AIMS,
    DROP_LAST,
    LEAD_IN,
    LEAST,
    MOST,
    REST_BY_EFFORT,
    TOGETHER,
    WHEN,
    Read,
    pause,
)
from lovrit.core.blocks.paired import Paired, in_turn, said
from lovrit.core.blocks.parts import Count, Pair, Seconds, count_figure, read_count, read_pair
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import BREAK, Saying
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, trees
from lovrit.core.slate.words import Word, word


def _read(node: Node) -> Read:
    times, *inner = trees(node)
    read = [read_pair(one, "" if len(inner) == 1 else f" {at}") for at, one in enumerate(inner, 1)]
    rounds = read_count(times, "rounds")
    if len(inner) > 1 and rounds != Count(low=len(inner), high=len(inner)):
        said = f"{rounds} rounds and {len(inner)} works and rests: they have to be as many."
        raise Unreadable(said, column(node))
    figures = [one for _, shown in read for one in shown]
    fields = {"rounds": rounds, "pair": read[0][0], "by_round": tuple(one for one, _ in read[1:])}
    counted = count_figure("rounds", times) if len(inner) == 1 else []
    return Read(fields, counted + figures)


WITHIN = {"within": "break {}"}  # a rest “in between”, where each turn has its own already


class Rotate(Paired):
    """Each turn moves everyone one station on; ``together`` everyone is at the same one, and goes on with it.

    ``by_round`` are the works and rests of the rounds after the first, where they differ.
    """

    kind: Literal["rotate"] = "rotate"
    rounds: Count
    pair: Pair
    break_s: Seconds | None = None
    break_added: bool = False
    by_round: tuple[Pair, ...] = ()
    together: bool = False

    sayings: ClassVar[tuple[Saying, ...]] = tuple(
        Saying(head, {**SAID_AIMS, **BREAK, "together": "together", **more}, least=least)
        for head, least, more in (
            ("{rounds} rounds of {pair}", 1, WITHIN),
            ("{rounds} rounds of {work}/{rest}", 1, WITHIN),
            ("{rounds} rounds of {work}/{within}", 1, {}),
            ("{rounds} rounds of {work}/{change}", 1, {}),
            ("{rounds} rounds of {each}/{change}", 1, {}),
            ("{rounds} rounds of {each}/{within}", 1, {}),
            ("{rounds} rounds of {each}/0", 1, {}),
            ("{times} rounds of {pair}", 2, WITHIN),
            ("{times} rounds of {work}/{rest}", 2, {}),
            ("{sets} rounds of {pair}", 2, {}),
        )
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "rotate",
            ("count ROUNDS OF pair pair*",),
            _read,
            (
                *AIMS,
                REST_BY_EFFORT,
                LEAD_IN,
                LEAST,
                MOST,
                WHEN,
                TOGETHER,
                pause("break"),
                DROP_LAST,
            ),
            "3 rounds of 40/20, break 2:00, at 8",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (word("ROUNDS", "rounds?"),)
    needs_stations: ClassVar[bool] = True
    circuit: ClassVar[bool] = True
    shown_by: ClassVar[Literal["", "round", "turn"]] = "round"

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.rounds.of('round')} of {' '.join(map(str, self.pairs))}"

    @property
    def short_name(self) -> str:
        """Its first words and how many stations."""
        return f"{self.head}, {len(self.moves)} stations"

    @property
    def repeats(self) -> Repeats:
        """Its rounds."""
        return Repeats("rounds", self.rounds)

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """Its works and rests, by round where they differ."""
        return (self.pair, *self.by_round)

    @property
    def rotates(self) -> bool:
        """Groups go from station to station, unless all are at one together."""
        return not self.together

    def with_pairs(self, pairs: tuple[Pair, ...]) -> Self:
        """The block with other works and rests, a round each where they differ."""
        return self.but(pair=pairs[0], by_round=pairs[1:])

    def check_lines(self, bad_lines: bool) -> None:
        """A line has a work and a rest of its own only where everybody does it at once."""
        super().check_lines(bad_lines)
        own = next((line for line in self.moves if line.tasks[0].pair), None)
        if own and not self.together:
            said = (
                f"“{own.name}” has a work and a rest of its own, and the others would wait for it"
            )
            raise Unreadable(
                f"{said}: write together, or leave it out.", 1, (f"{self.head}, together",)
            )

    @property
    def between(self) -> Between:
        """The break between rounds."""
        return Between("break", self.break_s, self.break_added)

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Station by station, round by round."""
        rounds, stations = laying.times(self.rounds), len(self.moves)
        for nth in range(1, rounds + 1):
            for at in range(stations):
                work_s, rest_s = self._lengths(nth, at, laying)
                work = self.work(work_s, nth, at + 1, at)
                yield work
                if at == stations - 1 and nth < rounds:
                    yield from self.rest_between(rest_s, work)
                else:
                    yield self.pause("rest", rest_s, work)

    def pair_in(self, step: Step) -> Pair:
        """By round, where they differ."""
        return self.pairs[min(step.round or 1, len(self.pairs)) - 1]

    def _lengths(self, nth: int, at: int, laying: Laying) -> tuple[int, int]:
        """Seconds of work and of rest in a round (from 1) on a line (from 0)."""
        own = self.moves[at].tasks[0].pair
        pair = self.pairs[min(nth, len(self.pairs)) - 1]
        return own or (self.length(pair.work, laying), self.length(pair.rest, laying))

    def arithmetic(self) -> list[str]:
        """Rounds, stations and turns, and what the breaks do."""
        rounds, stations = self.rounds.high, len(self.moves)
        turns = " + ".join(in_turn(pair) for pair in self.pairs)
        lines = [f"{rounds} rounds × {stations} stations × {turns}"]
        if self.by_round:
            lines = [f"{stations} stations × ({turns})"]
        if self.break_s is not None and rounds > 1:
            lines.append(f"+ {rounds - 1} × {clock(self.break_s)} break")
            lines.append(
                "breaks are added to the last station's rest"
                if self.break_added
                else f"- {rounds - 1} × {said(self.pair.rest)}: a break takes the place of the last station's rest"
            )
        return lines
