"""Rounds of stations: each turn moves everyone one station on. A break follows each round but the last."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Between, Form, Paired, Repeats, in_turn, said
from lovrit.core.blocks.options import (
    AIMS,
    DROP_LAST,
    LEAD_IN,
    LEAST,
    MOST,
    REST_BY_EFFORT,
    Read,
    pause,
)
from lovrit.core.blocks.parts import Count, Pair, Seconds, count_figure, read_count, read_pair
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.tree import Node, trees
from lovrit.core.slate.words import Word, word


def _read(node: Node) -> Read:
    times, inner = trees(node)
    pair, shown = read_pair(inner)
    return Read(
        {"rounds": read_count(times, "rounds"), "pair": pair}, count_figure("rounds", times) + shown
    )


class Rotate(Paired):
    """Each turn moves everyone one station on."""

    kind: Literal["rotate"] = "rotate"
    rounds: Count
    pair: Pair
    break_s: Seconds | None = None
    break_added: bool = False

    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "rotate",
            ("count ROUNDS OF pair",),
            _read,
            (*AIMS, REST_BY_EFFORT, LEAD_IN, LEAST, MOST, pause("break"), DROP_LAST),
            "3 rounds of 40/20, break 2:00, at 8",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (word("ROUNDS", "rounds?"),)
    needs_stations: ClassVar[bool] = True
    rotates: ClassVar[bool] = True
    circuit: ClassVar[bool] = True
    shown_by: ClassVar[Literal["", "round", "turn"]] = "round"

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.rounds.of('round')} of {self.pair}"

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
        """Its one work and rest."""
        return (self.pair,)

    @property
    def between(self) -> Between:
        """The break between rounds."""
        return Between("break", self.break_s, self.break_added)

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Station by station, round by round."""
        work_s, rest_s = self.length(self.pair.work, laying), self.length(self.pair.rest, laying)
        rounds, stations = laying.times(self.rounds), len(self.moves)
        for nth in range(1, rounds + 1):
            for at in range(stations):
                work = self.work(work_s, nth, at + 1, at)
                yield work
                if at == stations - 1 and nth < rounds:
                    yield from self.rest_between(rest_s, work)
                else:
                    yield self.pause("rest", rest_s, work)

    def arithmetic(self) -> list[str]:
        """Rounds, stations and turns, and what the breaks do."""
        rounds, stations = self.rounds.high, len(self.moves)
        lines = [f"{rounds} rounds × {stations} stations × {in_turn(self.pair)}"]
        if self.break_s is not None and rounds > 1:
            lines.append(f"+ {rounds - 1} × {clock(self.break_s)} break")
            lines.append(
                "breaks are added to the last station's rest"
                if self.break_added
                else f"- {rounds - 1} × {said(self.pair.rest)}: a break takes the place of the last station's rest"
            )
        return lines
