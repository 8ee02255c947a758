"""What a block of reps is likely to come to, for a slow, a middle and a quick person.

Slow and quick are those of whom one in ten is slower or quicker; worktime.py says where the figures come from. Each
outlook says in one sentence how it came about, so that it can be checked in the head.
"""

from dataclasses import dataclass

from lovrit.core.blocks.step import Case
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount

CASES: tuple[Case, Case, Case] = ("high", "likely", "low")


@dataclass(frozen=True, slots=True)
class Score:
    """As many as possible as coaches count it: whole rounds, parts of the next, reps of its next part."""

    rounds: int
    parts: int
    reps: int

    def __str__(self) -> str:
        more = [f"{self.parts} part{'s' if self.parts > 1 else ''}"] if self.parts else []
        more += [f"{self.reps} rep{'s' if self.reps > 1 else ''}"] if self.reps else []
        return " + ".join([f"{self.rounds} round{'' if self.rounds == 1 else 's'}", *more])


@dataclass(frozen=True, slots=True)
class TurnLeft:
    """A line of an every-minute block: what is left over of its turn, in seconds, slow, middle, quick.

    ``late_from`` is the turn (from 1, over the whole block) from which on the slow person doesn't make it.
    """

    move: int
    left_s: tuple[int, int, int]
    late_from: int | None


@dataclass(frozen=True, slots=True)
class Outlook:
    """What is likely: the sentence, and figures of the block's kind, each slow, middle, quick.

    ``timed`` says what the times are of: a repeat, or when the block ends.
    """

    said: str
    scores: tuple[Score, Score, Score] | None = None
    times_s: tuple[int, int, int] | None = None
    timed: str = "ends at"
    turns: tuple[TurnLeft, ...] = ()


def unknown_outlook(name: str) -> Outlook:
    """What is said where a move is known to nobody: it is asked for, never guessed."""
    return Outlook(f"nobody knows how long a rep of “{name}” takes: say it once on the Moves page.")


def rests_on(said: str, library: Library) -> str:
    """A sentence, and how many scores its figures rest on."""
    if not library.rests_on:
        return f"{said}."
    scores = f"{library.rests_on} score{'s' if library.rests_on > 1 else ''}"
    return f"{said} (at this club's pace, from {scores})."


def part_of(amount: Amount, seconds: float) -> str:
    """What a part of an amount takes, to be multiplied in the head."""
    if amount.metres:
        return f"100 m in about {round(seconds * 100 / amount.metres)} s"
    part = 10
    return f"{part} {amount.unit} in about {round(seconds * part / max(1, amount.values[0]))} s"
