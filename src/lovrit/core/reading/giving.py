"""What a way of saying gives: roles, by the figures and words of the pieces that it took; the commonest ways."""

import re
from collections.abc import Callable, Sequence
from typing import NamedTuple

from lovrit.core.clock import read_clock
from lovrit.core.reading.token import Figure, Token

# a bare length is minutes within; else it is asked
FEW_MIN, MANY_MIN = 3, 60
LONGEST_REST_S = 300  # an easy stretch from here on is one of its own
GOING = frozenset({"jog", "walk", "float", "swim"})
ALL_OUT = frozenset({"all out", "flat out"})
MOST_EFFORT = 10


class Role(NamedTuple):
    """A part of a block that was said: its name, and how the slate writes it.

    ``mark`` is one that belongs to a move, ``left`` what could not be understood, ``note`` what is kept as it is.
    """

    name: str
    value: str = ""


NOT_THIS = Role("")


class Pieces:
    """The pieces that a way of saying took."""

    def __init__(self, tokens: Sequence[Token]) -> None:
        self.tokens = tokens

    @property
    def figures(self) -> list[Figure]:
        """Its figures, in order."""
        return [one.figure for one in self.tokens if one.figure]

    def one(self, nth: int = 0) -> str:
        """A figure as the slate writes it."""
        return self.figures[nth].own

    def kept(self, kind: str) -> str:
        """What the slate calls a word of this kind; nothing where there is none."""
        return next((one.kept or one.text.lower() for one in self.tokens if one.kind == kind), "")

    def has(self, kind: str) -> bool:
        """Whether a word of this kind is among them."""
        return any(one.kind == kind for one in self.tokens)

    @property
    def text(self) -> str:
        """As written."""
        return " ".join(one.text for one in self.tokens)


Gives = Callable[[Pieces], list[Role]]


CLOCK = re.compile(r"\d+(?::[0-5]\d){0,2}|\d+\.\d+")


def seconds_in(said: str) -> int:
    """Seconds of a length as a role has it, rounded; 0 where it is none (a way that is walked, a share of the work).

    >>> seconds_in("1:30"), seconds_in("22.5"), seconds_in("= work")
    (90, 22, 0)
    """
    if not CLOCK.fullmatch(said):
        return 0
    return round(float(said)) if "." in said else read_clock(said)


def clock_of(figure: Figure) -> str:
    """A length as m:ss; any other figure as the slate writes it."""
    return clocked(figure.seconds[0]) if figure.seconds else figure.own


def clocked(seconds: int) -> str:
    """A length as m:ss."""
    return f"{seconds // 60}:{seconds % 60:02}"


def minutes_of(figure: Figure) -> str:
    """A length; a bare figure is minutes."""
    if figure.seconds:
        return clocked(figure.seconds[0])
    return clocked(round(60 * float(figure.said[0])))


def gives(*names: str) -> Gives:
    """Roles by the figures, in order; a name without a figure left has none."""

    def give(pieces: Pieces) -> list[Role]:
        figures = pieces.figures
        return [
            Role(name, clock_of(figures[nth]) if nth < len(figures) else "")
            for nth, name in enumerate(names)
        ]

    return give


def unsure(of: str) -> Gives:
    """What could be more than one thing, and of which role."""
    return lambda pieces: [Role("left", pieces.text), Role("unsure", of)]


def flag(*roles: tuple[str, str]) -> Gives:
    """Roles that have no figure."""
    return lambda _pieces: [Role(name, value) for name, value in roles]


def length(name: str) -> Gives:
    """A role of which a bare figure is minutes, where that can be."""
    return lambda pieces: length_of(name, pieces.figures[0], pieces.text)


def is_minutes(bare: float) -> bool:
    """Whether a length without a unit can only be minutes."""
    return FEW_MIN <= bare <= MANY_MIN


def length_of(name: str, figure: Figure, text: str) -> list[Role]:
    """A length, where a bare figure can only be minutes; else it is asked."""
    if not figure.seconds and not is_minutes(float(figure.said[0])):
        return [Role("left", text), Role("unsure", f"length:{name}")]
    return [Role(name, minutes_of(figure))]


def marked(word: str) -> Gives:
    """A mark beside a move that has a figure."""
    return lambda pieces: [Role("mark", f"{word} {'-'.join(pieces.figures[-1].said)}")]


def noted(pieces: Pieces) -> list[Role]:
    """What is only told."""
    return [Role("note", pieces.text)]


SILENTLY = flag(("unsure", ""))  # taken, and nothing said by it
