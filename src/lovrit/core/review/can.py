"""What somebody can do of a move, from scores: rate, most in one go, load, hold, pace; since when, and how surely.

A score says it of a block of one move alone: of several nobody knows which one it was. A load of several reps is told
as what would be lifted once (Epley 1985). How surely, and how long it holds, are ours.
"""

import re
from collections.abc import Iterable, Sequence
from datetime import date
from statistics import median
from typing import Literal, NamedTuple

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.build import Build
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.strength import Strength
from lovrit.core.clock import read_clock
from lovrit.core.crew.fits import goes_by_itself
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.moves.names import key_of
from lovrit.core.moves.once import lifted_once
from lovrit.core.review.kin import COUNTED, HELD, LIFTED, ROUNDS, TIME, TIMES
from lovrit.core.slate.line import Line, reps_of

What = Literal["rate", "most", "load", "hold", "pace"]
Sure = Literal["sure", "fair", "once", "old"]
UNITS: dict[What, str] = {
    "rate": "reps a minute", "most": "reps in one go", "load": "kg once", "hold": "s", "pace": "s for 100 m",
}  # fmt: skip
ON_A_MACHINE_M, ON_FOOT_M = 500, 100
MOST_TELLING = 10  # of more reps a load says little of what is lifted once
REPS = re.compile(r"(\d{1,4})(?: reps)?")
BARE = re.compile(r"\d+(?:[ ,]+\d+)*")
HOLDS_DAYS, OLD_DAYS = (
    120,
    150,
)  # a best stands so long; what is older than the other is told as old
LATELY = 3


class Shown(NamedTuple):
    """What one score says: of which move (by its key), what, and how much in which unit."""

    move: str
    name: str
    what: What
    value: float
    unit: str


class Fact(NamedTuple):
    """What stands of somebody: as a score says it, with how surely, since when, and all of its evenings."""

    shown: Shown
    sure: Sure
    since: date
    days: tuple[tuple[date, float], ...]


def shown_by(block: Block, score: str, library: Library) -> Shown | None:
    """What a score of a block says that somebody can do; None where it says it of no one move."""
    lines = [line for line in block.moves if not line.is_rest]
    shared = getattr(block, "partners", False) or getattr(block, "team", 0)
    if len(lines) != 1 or len(lines[0].tasks) != 1 or shared:
        return None
    line, move = lines[0], library.find(lines[0].tasks[0].name)
    if move is None or lines[0].tasks[0].shared:
        return None
    said = score.strip()
    for read in (_lifted, _held, _timed, _rounds, _in_so_long, _repeats, _counted):
        found = read(_Score(block, line, move, said, library))
        if found is not None:
            what, value, unit = found
            return Shown(key_of(move.name), move.name, what, round(value, 1), unit)
    return None


Found = tuple[What, float, str]


class _Score(NamedTuple):
    block: Block
    line: Line
    move: Move
    said: str
    library: Library


def _of(what: What, value: float) -> Found | None:
    return (what, value, UNITS[what]) if value > 0 else None


def _pace(move: Move, seconds: float, metres: float) -> Found | None:
    """Seconds for a hundred metres, or five hundred on a machine."""
    over = ON_A_MACHINE_M if move.pattern in ("machine", "pull") else ON_FOOT_M
    return ("pace", seconds / metres * over, f"s for {over} m") if metres and seconds else None


def _lifted(one: _Score) -> Found | None:
    block = one.block
    told = LIFTED.fullmatch(one.said)
    if not told or not isinstance(block, (Strength, Build)):
        return None
    reps = int(told[2] or 0) or (block.reps.high if isinstance(block, Strength) else block.reps)
    if reps > MOST_TELLING:
        return None
    return _of("load", lifted_once(float(told[1]), reps))


def _held(one: _Score) -> Found | None:
    told = HELD.fullmatch(one.said)
    most = isinstance(one.block, Quality) and one.block.to_the_most
    if not told or not (one.block.kind == "hold-ladder" or (most and not one.line.tasks[0].load)):
        return None
    return _of("hold", max(map(float, told[1].split())))


def _timed(one: _Score) -> Found | None:
    block = one.block
    if not isinstance(block, ForTime) or not TIME.fullmatch(one.said):
        return None
    seconds = read_clock(one.said)
    amount = block.over or one.line.tasks[0].amount
    if amount and amount.metres:
        rounds = 1 if block.over else block.visits(0, one.library) or 1
        return _pace(one.move, seconds, amount.metres * rounds)
    reps = block.reps_done(0, one.library, seconds)
    return _of("rate", reps / seconds * 60) if amount and amount.unit == "reps" and reps else None


def _rounds(one: _Score) -> Found | None:
    block = one.block
    told = ROUNDS.fullmatch(one.said)
    if not isinstance(block, Amrap) or block.ladder or not told or not block.length_s:
        return None
    amount, rounds, more = one.line.tasks[0].amount, int(told[1]), int(told[2])
    if amount and amount.metres:
        return _pace(one.move, block.length_s, rounds * amount.metres)
    reps = reps_of(one.line)
    return _of("rate", (rounds * reps + more) / block.length_s * 60) if reps else None


def _in_so_long(one: _Score) -> Found | None:
    """As many as possible of one move that has no count: the score is its reps."""
    block, told = one.block, REPS.fullmatch(one.said)
    counted = one.move.counted == "reps" and one.line.tasks[0].amount is None
    if not (isinstance(block, Amrap) and told and counted and block.length_s) or block.ladder:
        return None
    return _of("rate", int(told[1]) / block.length_s * 60)


def _repeats(one: _Score) -> Found | None:
    block = one.block
    if not isinstance(block, Intervals) or not block.each or not TIMES.fullmatch(one.said):
        return None
    slowest = max(map(read_clock, one.said.split()))
    return _pace(one.move, slowest, block.each.metres or 0)


def _counted(one: _Score) -> Found | None:
    """Reps of works: as many as went, in one go or a minute."""
    block, said = one.block, one.said.replace(",", " ")
    told = COUNTED.fullmatch(said)
    bare = told[1] if told else said if BARE.fullmatch(said) else ""
    values = [float(each) for each in bare.split()]
    amount = one.line.tasks[0].amount
    if not values or one.move.counted != "reps" or (told and not said.endswith("reps")):
        return None
    if isinstance(block, (Strength, Quality)):
        whole = amount and amount.form == "max" and not one.line.tasks[0].load
        return _of("most", max(values)) if whole and goes_by_itself(one.move) else None
    if not isinstance(block, Intervals) or block.each or len(block.pattern) != 1:
        return None
    work_s = block.pattern[0].work.seconds
    if not work_s:
        return None
    usual = max(values) if block.score == "best" else sum(values) / len(values)
    return _of("rate", usual / work_s * 60)


def facts_of(told: Iterable[tuple[date, Shown]], today: date) -> tuple[Fact, ...]:
    """What stands of somebody by all that their scores say, by move; the oldest evening first within each."""
    kinds: dict[tuple[str, str, str], list[tuple[date, Shown]]] = {}
    for day, one in sorted(told, key=lambda one: one[0]):
        kinds.setdefault((one.move, one.what, one.unit), []).append((day, one))
    return tuple(_fact(some, today) for _, some in sorted(kinds.items()))


def _fact(some: Sequence[tuple[date, Shown]], today: date) -> Fact:
    lately = [one for one in some if (today - one[0]).days <= HOLDS_DAYS] or list(some)
    days = tuple((day, one.value) for day, one in some)
    last = lately[-1]
    if last[1].what in ("rate", "pace"):
        value = median(one.value for _, one in lately[-LATELY:])
        since = last[0]
    else:
        since, best = max(lately, key=lambda one: one[1].value)
        value = best.value
    sure: Sure = "sure" if len(lately) >= LATELY else "fair" if len(lately) > 1 else "once"
    if (today - some[-1][0]).days > OLD_DAYS:
        sure = "old"
    return Fact(last[1]._replace(value=round(value, 1)), sure, since, days)
