"""Scores as coaches count them, read from what was typed; impossible ones refused kindly, with their limit."""

import re
from math import ceil
from typing import NamedTuple

from lovrit.core.blocks.step import Forecast
from lovrit.core.clock import clock, number, read_clock
from lovrit.core.moves.library import Library
from lovrit.core.values import LovritError

# as coaches write them: 7 + 12, 7+12, 7r 12, 7 rounds + 12 reps, 7 rounds; in parts 2 + part 2 + 5
ROUNDS = re.compile(
    r"(\d+)\s*(?:r|rds?|rounds?|rungs?)?"
    r"(?:\s*(?:\+|,|and)?\s*p(?:art|t)?\s*(?P<part>\d+))?"
    r"(?:\s*(?:\+|,|and)?\s*(?P<reps>\d+)\s*(?:reps?)?)?",
    re.ASCII | re.IGNORECASE,
)
TIME = re.compile(r"(\d+):([0-5]\d)", re.ASCII)
CAP = r"(?:time\s*)?cap(?:ped)?|tc"
CAPPED = re.compile(
    rf"(?:{CAP})\s*[+,:]?\s*(\d+)\s*(?:reps?)?\s*(?:left)?|(\d+)\s*(?:reps?\s*)?left",
    re.ASCII | re.IGNORECASE,
)
UNFINISHED = re.compile(rf"{CAP}|dnf|did not finish", re.ASCII | re.IGNORECASE)
DONE_BY_CAP = re.compile(r"(\d+)\s*reps?(?:\s*(?:done|at (?:the )?cap))?", re.ASCII | re.IGNORECASE)
SEPARATE = re.compile(r"\d+\s+\d+", re.ASCII)
HELD = re.compile(r"(\d+)\s*(?:s|sec|secs|seconds?)?", re.ASCII | re.IGNORECASE)
TURNS = re.compile(
    r"(?:(?P<all>all|every turn)|(?P<kept>\d+)\s*(?:turns?)?(?:\s*(?:of|/|out of)\s*(?P<of>\d+))?)"
    r"\s*(?:turns?)?(?:\s*\+\s*(?P<reps>\d+)(?:\s*reps?)?)?",
    re.ASCII | re.IGNORECASE,
)
BEATS = re.compile(r"(\d+)\s*(?:bpm|a minute|/min|beats?(?: a minute)?)?", re.ASCII | re.IGNORECASE)
COUNTS = re.compile(
    r"(?P<some>\d+(?:\s*(?P<each>m|cal|reps?))?(?:[\s,/;]+\d+(?:\s*(?:m|cal|reps?))?)*)",
    re.ASCII | re.IGNORECASE,
)
SECONDS = re.compile(r"(\d{1,4})\s*s(?:ec\w*)?", re.ASCII | re.IGNORECASE)
DONE = re.compile(
    r"(?:(?P<sets>\d+)\s*x\s*)?(?P<reps>\d+)(?:\s*reps?)?(?:,\s*(?P<also>\d+)\s*sets?)?", re.ASCII
)
UNITS = {"m": "m", "cal": "cal", "rep": "reps", "reps": "reps"}
NUMBER = r"\d+(?:\.\d+)?"
LIFTED = (
    re.compile(rf"(?P<kg>{NUMBER})\s*kg,?\s*(?P<sets>\d+)\s*x\s*(?P<reps>\d+)"),
    re.compile(
        rf"(?P<sets>\d+)\s*(?:sets?|x)\s*(?:of\s*)?(?P<reps>\d+)\s*(?:@|at|x|,)\s*(?P<kg>{NUMBER})\s*(?:kg)?"
    ),
    re.compile(rf"(?P<sets>\d+)\s*sets?,?\s*(?:@|at|of)?\s*(?P<kg>{NUMBER})\s*(?:kg)?"),
    re.compile(rf"(?P<kg>{NUMBER})\s*kg(?:\s*x\s*(?P<reps>\d+))?(?:,\s*(?P<sets>\d+)\s*sets?)?"),
    re.compile(rf"(?P<reps>\d+)\s*x\s*(?P<kg>{NUMBER})\s*kg"),
    re.compile(rf"(?P<kg>{NUMBER})(?:\s*x\s*(?P<reps>\d+))?"),
)
# the quickest of people take half of what a quick person takes; what is quicker still was misread or mistyped
QUICKEST = 2
MOST_ROUNDS, MOST_KG, MOST_REPS, MOST_IN_ONE_GO = 200, 500, 100, 5000


class Impossible(LovritError):
    """A score that can't be; the sentence says why."""


class Scoring(NamedTuple):
    """What a score is held to: how long its block was planned, what was forecast of it, the moves as they are known."""

    planned_s: int
    forecast: Forecast | None
    library: Library


def rounds_score(said: str, quick_rounds: float | None, parts: int = 1, a_round: float = 0) -> str:
    """Rounds, parts and reps; no more than twice what a quick person does. ``a_round`` is its reps, 0 if unknown.

    Raises:
        Impossible: if it is none, or can't have been done.
    """
    found = None if SEPARATE.fullmatch(said) else ROUNDS.fullmatch(said)
    if not found:
        example = "2 + part 2 + 5" if parts > 1 else "7 + 12"
        raise Impossible(f"Write rounds and reps, such as {example}.")
    most = max(1, ceil(QUICKEST * quick_rounds)) if quick_rounds else MOST_ROUNDS
    rounds, part, reps = int(found[1][:6]), int(found["part"] or 0), int((found["reps"] or "0")[:6])
    if rounds > most:
        word = "round" if most == 1 else "rounds"
        raise Impossible(f"More than {most} {word} can't have been in this time. Were these reps?")
    if part and parts < 2:
        raise Impossible("This block has no parts: write rounds and reps, such as 7 + 12.")
    if part > parts:
        raise Impossible(f"A round has {parts} parts; there is no part {part}.")
    if a_round and reps >= a_round and reps > 0:
        raise Impossible(
            f"A round has {number(a_round)} reps; {reps} more would be a round of its own."
        )
    return f"{rounds} + part {part} + {reps}" if part else f"{rounds} + {reps}"


def time_score(said: str, most_s: int | None, least_s: float = 0) -> str:
    """A time, no longer than the block could last, no quicker than anyone does it.

    Raises:
        Impossible: if it is none, longer, or quicker.
    """
    if not TIME.fullmatch(said):
        raise Impossible("Write a time, such as 12:40.")
    seconds = read_clock(said)
    if most_s is not None and seconds > most_s:
        raise Impossible(f"The block ended at {clock(most_s)}; {said} can't have been.")
    if seconds < least_s:
        raise Impossible(f"{said} is quicker than anyone does it: about {clock(ceil(least_s))} is.")
    return clock(seconds)


def race_score(said: str, cap_s: int | None, least_s: float, reps: float) -> str:
    """A time up to the cap, or at the cap how many reps were left; ``reps`` are all of it, 0 if unknown.

    “cap” alone where nobody said how many were left; reps that were done by then are told as what was left of all.

    Raises:
        Impossible: if it is none, or can't have been.
    """
    capped, done = CAPPED.fullmatch(said), DONE_BY_CAP.fullmatch(said)
    unfinished = UNFINISHED.fullmatch(said)
    if not capped and not done and not unfinished:
        return time_score(said, cap_s, least_s)
    if cap_s is None:
        raise Impossible("There was no cap: write a time, such as 12:40.")
    if unfinished:
        return "cap"
    if done:
        return f"cap + {_left(int(done[1][:6]), reps)}"
    left = int((capped[1] or capped[2])[:6]) if capped else 0
    if reps and left > reps:
        raise Impossible(f"There are {number(reps)} reps in all of it; {left} can't be left.")
    return f"cap + {left}"


def _left(done: int, reps: float) -> int:
    """How many reps are left of all where so many were done."""
    if not reps:
        raise Impossible(
            "How many reps it has in all isn't known: write what was left, such as cap + 14."
        )
    if done > reps:
        raise Impossible(f"There are {number(reps)} reps in all of it; {done} can't have been.")
    if done == reps:
        raise Impossible("That is all of it: write a time, such as 12:40.")
    return round(reps) - done


class RaceEnd(NamedTuple):
    """How a race ended for somebody: after so many seconds, or at the cap with so many reps left, if known."""

    seconds: int | None = None
    left: int | None = None


def finish_of(score: str) -> RaceEnd:
    """What a race's score in its usual writing says.

    >>> finish_of("9:41"), finish_of("cap + 14"), finish_of("cap")
    (RaceEnd(seconds=581, left=None), RaceEnd(seconds=None, left=14), RaceEnd(seconds=None, left=None))
    """
    if score.startswith("cap"):
        _, _, left = score.partition("+")
        return RaceEnd(left=int(left) if left.strip().isdecimal() else None)
    return RaceEnd(seconds=read_clock(score))


def repeats_score(said: str, count: int, planned_s: int, least_s: float) -> str:
    """The slowest of some repeats, or each of them.

    Raises:
        Impossible: if it is none, there were fewer, or one is quicker than anyone.
    """
    if found := SECONDS.fullmatch(said):
        said = clock(int(found[1]))
    times = [one for one in re.split(r"[\s,/;]+", said) if one]
    if not times or not all(TIME.fullmatch(one) for one in times):
        raise Impossible("Write each repeat or the slowest, such as 1:32 1:35 1:38.")
    if len(times) > count:
        raise Impossible(f"There were {count} repeats; these are {len(times)}.")
    return " ".join(time_score(one, planned_s, least_s) for one in times)


def hold_score(said: str, turn_s: int) -> str:
    """Seconds held, no longer than a turn.

    Raises:
        Impossible: if it is none, or longer.
    """
    found = HELD.fullmatch(said)
    if not found and not TIME.fullmatch(said):
        raise Impossible("Write seconds, such as 45.")
    seconds = int(found[1][:6]) if found else read_clock(said)
    if seconds > turn_s:
        raise Impossible(f"{seconds} s in a turn of {clock(turn_s)} can't be.")
    return f"{seconds} s"


def turns_score(said: str, turns: int) -> str:
    """How many turns were kept up, of those that there were, and reps in the one that was left open.

    Raises:
        Impossible: if it is none, or there were not so many.
    """
    found = TURNS.fullmatch(said)
    if not found:
        raise Impossible(f"Write how many of the {turns} turns were kept up, such as {turns}.")
    kept = turns if found["all"] else int(found["kept"][:6])
    if kept > turns or int((found["of"] or f"{turns}")[:6]) != turns:
        raise Impossible(f"There were {turns} turns.")
    more = f" + {int(found['reps'][:6])}" if found["reps"] and kept < turns else ""
    return f"{kept} of {turns}{more}"


def beats_score(said: str, low: int, high: int) -> str:
    """The quickest beat that was kept, between the lowest and the top.

    Raises:
        Impossible: if it is none, or none of these.
    """
    found = BEATS.fullmatch(said)
    if not found:
        raise Impossible(f"Write the quickest beat that was kept, such as {high}.")
    if not low <= int(found[1][:6]) <= high:
        raise Impossible(f"The beat went from {low} to {high}; {found[1]} was none of it.")
    return f"{int(found[1])} a minute"


def counts_score(said: str, works: int, work_s: int, least_s: dict[str, float]) -> str:
    """Reps, metres or calories of first, middle and last, of each, or in all; ``least_s`` of one of each unit.

    Raises:
        Impossible: if it is none, there were fewer works, or one of them can't have been in its time.
    """
    said = re.sub(r"(?<=\d) - (?=\d)", " ", said)
    found = COUNTS.fullmatch(said)
    units = {
        UNITS[one.lower()] for one in re.findall(r"\d+\s*(m|cal|reps?)\b", said, re.IGNORECASE)
    }
    if not found or len(units) > 1:
        raise Impossible(
            "Write reps or metres of first, middle and last, or in all, such as 12 11 10."
        )
    unit = next(iter(units), "reps" if "reps" in least_s else next(iter(least_s), "reps"))
    values = [int(one[:6]) for one in re.findall(r"\d+", said)]
    if len(values) > works:
        raise Impossible(f"There were {works} intervals; these are {len(values)}.")
    quickest = least_s.get(unit, 0.0)
    time_s = work_s if len(values) > 1 else work_s * works
    most = ceil(QUICKEST * time_s / quickest) if quickest else 10**6
    if max(values) > most:
        raise Impossible(f"More than {most} {unit} can't have been in {clock(time_s)}.")
    return f"{' '.join(map(str, values))} {unit}"


def reps_score(said: str, sets: int) -> str:
    """Reps of the top set of a move without load, and how many sets were done.

    Raises:
        Impossible: if it is none, or there were not so many sets.
    """
    found = DONE.fullmatch(said.casefold())
    if not found or not 0 < int(found["reps"][:6]) <= MOST_REPS:
        raise Impossible(
            f"Write the reps of the top set, up to {MOST_REPS}, such as 5, or its load with kg."
        )
    done = int((found["sets"] or found["also"] or "0")[:6])
    if done > sets:
        raise Impossible(f"There were {sets} {'set' if sets == 1 else 'sets'}; these are {done}.")
    return f"{int(found['reps'])} reps" + (
        f", {done} {'set' if done == 1 else 'sets'}" if done else ""
    )


def most_score(said: str, rounds: int, unit: str) -> str:
    """As many as went in each of some rounds, or in the first alone; ``unit`` is reps or s.

    Raises:
        Impossible: if it is none, or there were not so many rounds.
    """
    found = COUNTS.fullmatch(re.sub(r"(?<=\d)\s*s(?:ec\w*)?\b", "", said) if unit == "s" else said)
    values = [int(one[:6]) for one in re.findall(r"\d+", said)] if found else []
    if not values or not max(values) or max(values) > MOST_IN_ONE_GO:
        raise Impossible(
            f"Write the {unit} of each round, such as 22 18 15, or of the first alone."
        )
    if len(values) > rounds:
        have = "was 1 round" if rounds == 1 else f"were {rounds} rounds"
        raise Impossible(f"There {have}; these are {len(values)}.")
    return f"{' '.join(map(str, values))} {unit}"


def load_score(said: str, sets: int = 1) -> str:
    """The load of the top set in kilograms, its reps and how many sets were done, as far as they are said.

    Raises:
        Impossible: if it is none, or there were not so many sets.
    """
    found = next((one for way in LIFTED if (one := way.fullmatch(said.casefold()))), None)
    told = found.groupdict() if found else {}
    kg, reps, done = (
        float(told.get("kg") or 0),
        int((told.get("reps") or "0")[:6]),
        int((told.get("sets") or "0")[:6]),
    )
    if found and kg > MOST_KG:
        raise Impossible(f"{number(kg)} kg can't be: {MOST_KG} kg is the most that is taken.")
    if not kg or reps > MOST_REPS:
        raise Impossible("Write the load of the top set, such as 42.5 kg x 5.")
    if done > sets:
        raise Impossible(f"There were {sets} {'set' if sets == 1 else 'sets'}; these are {done}.")
    said_sets = f", {done} {'set' if done == 1 else 'sets'}" if done else ""
    return f"{kg:g} kg{f' x {reps}' if reps else ''}{said_sets}"
