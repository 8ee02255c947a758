"""All sets at one station, then everyone moves on; a change follows each station but the last."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Between, Form, Repeats
from lovrit.core.blocks.options import (
    AIMS,
    DROP_LAST,
    LEAD_IN,
    LEAST,
    MOST,
    REST_BY_EFFORT,
    WHEN,
    Read,
    pause,
)
from lovrit.core.blocks.paired import Paired, in_turn, said
from lovrit.core.blocks.parts import Count, Pair, Seconds, count_figure, read_count, read_pair
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.stay import at_stations
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.clock import clock
from lovrit.core.slate.tree import Node, trees
from lovrit.core.slate.words import Word, word

CHANGE = pause("change")
SETS_WORD = word("SETS", "sets?")


def _read(node: Node) -> Read:
    times, inner = trees(node)
    pair, shown = read_pair(inner)
    return Read(
        {"sets": read_count(times, "sets"), "pair": pair}, count_figure("sets", times) + shown
    )


def set_of(turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
    """Station and set in words."""
    return f"station {turn} of {of[0]}, set {round_} of {of[1]}"


class Sets(Paired):
    """All sets at one station, then everyone moves on."""

    kind: Literal["sets"] = "sets"
    sets: Count
    pair: Pair
    change_s: Seconds | None = None
    change_added: bool = False

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying(
            "{sets} sets of {pair}",
            {**SAID_AIMS, "change": "change {}", "between": "change {}", "rest": "change {}"},
            least=1,
        ),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "sets",
            ("count SETS OF pair",),
            _read,
            (*AIMS, REST_BY_EFFORT, LEAD_IN, LEAST, MOST, WHEN, CHANGE, DROP_LAST),
            "8 sets of 20/10, change 1:00, at 9",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (SETS_WORD,)
    needs_stations: ClassVar[bool] = True
    circuit: ClassVar[bool] = True
    shown_by: ClassVar[Literal["", "round", "turn"]] = "turn"

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.sets.of('set')} of {self.pair}"

    @property
    def rotates(self) -> bool:
        """All sets at one station, then on to the next."""
        return True

    @property
    def repeats(self) -> Repeats:
        """Its sets."""
        return Repeats("sets", self.sets)

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """Its one work and rest."""
        return (self.pair,)

    @property
    def between(self) -> Between:
        """The change between stations."""
        return Between("change", self.change_s, self.change_added)

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Set by set, station by station."""
        work_s, rest_s = self.length(self.pair.work, laying), self.length(self.pair.rest, laying)
        return at_stations(self, laying.times(self.sets), lambda _at, _nth: work_s, rest_s)

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """Station and set."""
        return set_of(turn, round_, of)

    def arithmetic(self) -> list[str]:
        """Stations, sets and turns, and what the changes do."""
        sets, stations = self.sets.high, len(self.moves)
        lines = [f"{stations} stations × {sets} sets × {in_turn(self.pair)}"]
        if self.change_s is not None and stations > 1:
            lines.append(f"+ {stations - 1} × {clock(self.change_s)} change")
            lines.append(
                "changes are added to the last set's rest"
                if self.change_added
                else f"- {stations - 1} × {said(self.pair.rest)}: a change takes the place of the last set's rest"
            )
        return lines
