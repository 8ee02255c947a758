"""A move of the library as a value."""

from typing import Literal

from pydantic import Field

from lovrit.core.values import Value

Pattern = Literal["squat", "hinge", "lunge", "push", "pull", "carry", "brace", "gait"]
Impact = Literal["none", "low", "high"]


class Move(Value):
    """A move: one movement pattern, one position, and what a coach has to know before it is put to people.

    ``seconds`` is a usual rep of a usual person, in seconds; ``fresh`` reps in one go for the same person.
    """

    name: str
    pattern: Pattern
    floor: bool = False
    grip: bool = False
    overhead: bool = False
    impact: Impact = "none"
    kit: tuple[str, ...] = ()
    seconds: float = Field(default=3.0, gt=0, le=60)
    sided: bool = False
    also: tuple[str, ...] = ()
    easier: tuple[str, ...] = ()
    harder: tuple[str, ...] = ()
    low_impact: str = ""
    no_kit: str = ""
    caution: str = ""
