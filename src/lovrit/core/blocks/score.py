"""Scores as coaches count them, read from what was typed; impossible ones refused kindly."""

import re
from math import ceil

from lovrit.core.clock import clock, read_clock
from lovrit.core.values import LovritError

# as coaches write them: 7 + 12, 7+12, 7r 12, 7 rounds + 12 reps, 7 rounds
ROUNDS = re.compile(
    r"^(\d+)\s*(?:r|rds?|rounds?)?(?:\s*(?:\+|,|and)?\s*(\d+)\s*(?:reps?)?)?$",
    re.ASCII | re.IGNORECASE,
)
TIME = re.compile(r"^(\d+):([0-5]\d)$")
SEPARATE = re.compile(r"^\d+\s+\d+$", re.ASCII)
LOAD = re.compile(r"^(\d+(?:\.\d+)?)\s*(?:kg)?$")
# the quickest of people take half of what a quick person takes; what is quicker still was misread or mistyped
QUICKEST = 2
MOST_ROUNDS, MOST_KG = 200, 500


class Impossible(LovritError):
    """A score that can't be; the sentence says why."""


def rounds_score(said: str, quick_rounds: float | None) -> str:
    """Rounds and reps; no more than twice what a quick person does.

    Raises:
        Impossible: if it is none, or can't have been done.
    """
    found = None if SEPARATE.match(said) else ROUNDS.match(said)
    if not found:
        raise Impossible("Write rounds and reps, such as 7 + 12.")
    most = max(1, ceil(QUICKEST * quick_rounds)) if quick_rounds else MOST_ROUNDS
    if int(found[1][:6]) > most:
        rounds = "round" if most == 1 else "rounds"
        raise Impossible(
            f"More than {most} {rounds} can't have been in this time. Were these reps?"
        )
    return f"{int(found[1])} + {int(found[2] or 0)}"


def time_score(said: str, most_s: int | None) -> str:
    """A time, no longer than the block could last.

    Raises:
        Impossible: if it is none, or longer.
    """
    if not TIME.match(said):
        raise Impossible("Write a time, such as 12:40.")
    seconds = read_clock(said)
    if most_s is not None and seconds > most_s:
        raise Impossible(f"The block ended at {clock(most_s)}; {said} can't have been.")
    return clock(seconds)


def hold_score(said: str, turn_s: int) -> str:
    """Seconds held, no longer than a turn.

    Raises:
        Impossible: if it is none, or longer.
    """
    if not said.removesuffix("s").strip().isdecimal():
        raise Impossible("Write seconds, such as 45.")
    seconds = int(said.removesuffix("s").strip())
    if seconds > turn_s:
        raise Impossible(f"{seconds} s in a turn of {clock(turn_s)} can't be.")
    return f"{seconds} s"


def load_score(said: str) -> str:
    """A load in kilograms.

    Raises:
        Impossible: if it is none.
    """
    found = LOAD.match(said)
    if not found or float(found[1]) > MOST_KG:
        raise Impossible("Write a load, such as 42.5 kg.")
    return f"{float(found[1]):g} kg"
