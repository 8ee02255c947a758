"""Scores as coaches count them: what a block's score is called, and impossible ones refused kindly."""

import re

from lovrit.core.clock import clock, read_clock
from lovrit.core.session.model import Amrap, AnyBlock, Build, ForTime, HoldLadder, Intervals
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.values import LovritError

ROUNDS = re.compile(r"^(\d+)(?:\s*\+\s*(\d+))?$")
TIME = re.compile(r"^(\d+):([0-5]\d)$")
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
            return _rounds(said)
        case ForTime(cap_s=cap):
            return _time(said, cap)
        case HoldLadder(period_s=period):
            return _hold(said, period)
        case Build():
            return _load(said)
    return _time(said, laid.seconds)


def _rounds(said: str) -> str:
    found = ROUNDS.match(said)
    if not found:
        raise Impossible("Write rounds and reps, such as 7 + 12.")
    if int(found[1]) > 200:
        raise Impossible("More than 200 rounds can't have been.")
    return f"{int(found[1])} + {int(found[2] or 0)}"


def _time(said: str, most: int | None) -> str:
    if not TIME.match(said):
        raise Impossible("Write a time, such as 12:40.")
    seconds = read_clock(said)
    if most is not None and seconds > most:
        raise Impossible(f"The block ended at {clock(most)}; {said} can't have been.")
    return clock(seconds)


def _hold(said: str, period: int) -> str:
    if not said.removesuffix("s").strip().isdigit():
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
