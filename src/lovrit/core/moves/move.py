"""A move of the library as a value."""

from dataclasses import field
from typing import Annotated, Literal, get_args

from pydantic import Field

from lovrit.core.values import Value

# what a person's joints do; the last seven load no part of them so much that the next move should spare it
Pattern = Literal[
    "squat", "hinge", "lunge", "push", "pull", "carry", "brace", "jump",
    "whole-body", "footwork", "gait", "machine", "mobility",
]  # fmt: skip
# what a move is taken for where a session wants one: the light one of its pattern to warm up with, one that stands for
# its pattern where that is missing, one for anybody anywhere, one in place of what somebody doesn't do
Use = Literal[
    "warm-up", "begin", "cool-down", "shoulders", "legs", "whole-body", "anywhere", "build-up",
    "no overhead", "no jumps", "no depth", "no floor", "instead of a lunge", "lowered", "on foot", "swim",
]  # fmt: skip
Impact = Literal["none", "low", "high"]
PATTERNS: tuple[Pattern, ...] = get_args(Pattern)
STRENGTH: frozenset[Pattern] = frozenset({"squat", "hinge", "lunge", "push", "pull", "carry"})
Name = Annotated[str, Field(min_length=1, max_length=80)]
Sentence = Annotated[str, Field(max_length=300)]


class Move(Value):
    """A move: one movement pattern, one position, and what a coach has to know before it is put to people.

    ``seconds`` is a usual rep of a usual person, ``metre`` the same for a metre where it covers ground, both in
    seconds; ``way_seconds`` says it for ways that take clearly longer or shorter. ``fresh`` is how much the same
    person does in one go: reps, or what ``counted`` says. ``space`` is the side of the square it needs, in metres.
    ``easier`` and ``harder`` are named ways, the nearest to the move itself first; ``shoulders`` are loaded;
    ``breath`` is what people tend to hold; ``skill`` wants fresh people who have learnt it; who
    ``turns`` does so quickly, sideways or backwards, which a wet floor minds.
    """

    name: Name
    pattern: Pattern
    floor: bool = False
    grip: bool = False
    overhead: bool = False
    shoulders: bool = False
    skill: bool = False
    breath: bool = False
    turns: bool = False
    impact: Impact = "none"
    kit: tuple[Name, ...] = ()
    space: Annotated[float, Field(gt=0, le=30)] = 1.5
    seconds: Annotated[float, Field(gt=0, le=60)] = 3.0
    metre: Annotated[float | None, Field(gt=0, le=60)] = None
    way_seconds: dict[str, Annotated[float, Field(gt=0, le=60)]] = field(default_factory=dict)
    counted: Literal["reps", "s", "m"] = "reps"
    fresh: Annotated[int, Field(ge=1, le=5000)] = 20
    sided: bool = False
    also: tuple[Name, ...] = ()
    easier: tuple[Name, ...] = ()
    harder: tuple[Name, ...] = ()
    low_impact: Sentence = ""
    no_kit: Sentence = ""
    cue: Sentence = ""
    caution: Sentence = ""
    uses: tuple[Use, ...] = ()

    @property
    def asks(self) -> frozenset[str]:
        """What it asks that some people can't do now: overhead, jumps, grip, hang, floor, depth."""
        asked = {
            "overhead": self.overhead,
            "jumps": self.impact == "high",
            "grip": self.grip,
            "hang": "hang" in self.name,
            "floor": self.floor,
            "depth": self.pattern in ("squat", "lunge") and self.counted != "s",
        }
        return frozenset(name for name, asks in asked.items() if asks)

    @property
    def needs_kit(self) -> tuple[str, ...]:
        """Kit that it can't be done without; a mat is kind but not needed."""
        return tuple(name for name in self.kit if name != "mat")
