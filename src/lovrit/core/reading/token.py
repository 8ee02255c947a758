"""The smallest pieces of a line: figures with their units, words with the parts they play, names of moves, signs."""

from dataclasses import dataclass, field
from typing import Literal

Measure = Literal[
    "count", "time", "far", "cal", "load", "share", "watt", "split", "size", "day", "odd", "beat"
]
Form = Literal["one", "range", "list", "pair"]


# signs between things
ENDS = frozenset(",+/:().-|")


@dataclass(frozen=True)
class Figure:
    """A quantity: what it measures, one figure or several, each as the slate writes it.

    Times are in ``seconds`` too; ``unit`` is the slate's own (m, km, kg …); ``odd`` could be two things.
    """

    measure: Measure
    form: Form
    said: tuple[str, ...]
    unit: str = ""
    seconds: tuple[int, ...] = ()

    @property
    def own(self) -> str:
        """As the slate writes it, with its unit where it has one."""
        sign = {"one": "", "range": "-", "list": "-", "pair": "/"}[self.form]
        figures = sign.join(self.said)
        if self.measure == "share":
            return f"{figures}%"
        return f"{figures} {self.unit}" if self.unit else figures

    @property
    def number(self) -> int | None:
        """Its whole number, where it is one."""
        return int(self.said[0]) if self.form == "one" and self.said[0].isdecimal() else None


@dataclass(slots=True)
class Token:
    """A piece of a line: where it stands, and what it is.

    ``kind`` is a figure's measure and form (``time``, ``count range``), a word's part (``REST``), ``name`` for the name
    of a move, ``word`` for any other, or the sign itself. ``kept`` is what the slate calls it.
    """

    kind: str
    start: int
    end: int
    text: str
    figure: Figure | None = None
    kept: str = ""
    words: int = 1
    named: tuple["Token", ...] = field(default=(), repr=False)
