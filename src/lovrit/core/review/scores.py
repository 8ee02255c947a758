"""Scores as coaches count them: what a block's score is called, and impossible ones refused kindly."""

import re
from math import ceil

from lovrit.core.clock import clock, read_clock
from lovrit.core.session.model import Amrap, AnyBlock, Build, ForTime, HoldLadder, Intervals
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.values import LovritError

# as coaches write them: 7 + 12, 7+12, 7r 12, 7 rounds + 12 reps, 7 rounds
ROUNDS = re.compile(
    r"^(\d+)\s*(?:r|rds?|rounds?)?(?:\s*(?:\+|,|and)?\s*(\d+)\s*(?:reps?)?)?$", re.ASCII | re.IGNORECASE
)
TIME = re.compile(r"^(\d+):([0-5]\d)$")
SEPARATE = re.compile(r"^\d+\s+\d+$", re.ASCII)
# the quickest of people take half of what a quick person takes; what is quicker still was misread or mistyped
QUICKEST = 2
LOAD = re.compile(r"^(\d+(?:\.\d+)?)\s*(?:kg)?$")


class Impossible(LovritError):
    """A score that can't be; the sentence says why."""


def asks_for(block: AnyBlock) -> str | None:
    """What a block's score is, as it is asked for; None where it has none."""
    match block:
        case Amrap():
            return "rounds + reps"
        case ForTime():
            return "time, m:ss"
        case HoldLadder():
            return "longest hold, s"
        case Build():
            return "load, kg"
        case Intervals(each=each) if each is not None:
            return f"{block.score or 'slowest'}, m:ss"
    return None


def score(block: AnyBlock, laid: LaidBlock, text: str) -> str:
    """A score in its usual writing.

    Raises:
        Impossible: if it is not one, or can't have been done.
    """
    said = " ".join(text.split())
    match block:
        case Amrap():
            return _rounds(said, laid.forecast.rounds if laid.forecast else None)
        case ForTime(cap_s=cap):
            return _time(said, cap)
        case HoldLadder(period_s=period):
            return _hold(said, period)
        case Build():
            return _load(said)
    return _time(said, laid.seconds)


def _rounds(said: str, likely: tuple[float, float, float] | None) -> str:
    found = None if SEPARATE.match(said) else ROUNDS.match(said)
    if not found:
        raise Impossible("Write rounds and reps, such as 7 + 12.")
    most = max(1, ceil(QUICKEST * likely[2])) if likely else 200
    if int(found[1][:6]) > most:
        rounds = "round" if most == 1 else "rounds"
        raise Impossible(f"More than {most} {rounds} can't have been in this time. Were these reps?")
    return f"{int(found[1])} + {int(found[2] or 0)}"


def _time(said: str, most: int | None) -> str:
    if not TIME.match(said):
        raise Impossible("Write a time, such as 12:40.")
    seconds = read_clock(said)
    if most is not None and seconds > most:
        raise Impossible(f"The block ended at {clock(most)}; {said} can't have been.")
    return clock(seconds)


def _hold(said: str, period: int) -> str:
    if not said.removesuffix("s").strip().isdecimal():
        raise Impossible("Write seconds, such as 45.")
    seconds = int(said.removesuffix("s").strip())
    if seconds > period:
        raise Impossible(f"{seconds} s in a turn of {clock(period)} can't be.")
    return f"{seconds} s"


def _load(said: str) -> str:
    found = LOAD.match(said)
    if not found or float(found[1]) > 500:
        raise Impossible("Write a load, such as 42.5 kg.")
    return f"{float(found[1]):g} kg"


def read_effort(text: str) -> float | None:
    """An effort that was felt, 0 to 10; None where nothing is written.

    Raises:
        Impossible: if it is none.
    """
    said = text.strip().replace(",", ".")
    if not said:
        return None
    if not re.fullmatch(r"\d{1,2}(\.\d+)?", said, re.ASCII) or float(said) > 10:
        raise Impossible(f"“{text}” is no effort: it goes from 0, nothing, to 10, all there is.")
    return float(said)
