"""What a block of reps is likely to come to, for a slow, a middle and a quick person, in closed form.

Slow and quick are those of whom one in ten is slower or quicker; worktime.py says where the figures come from. Each
outlook says in one sentence how it came about, so that it can be checked in the head.
"""

from dataclasses import dataclass
from itertools import islice

from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.session.model import Amrap, AnyBlock, Every, ForTime, Intervals
from lovrit.core.session.move import Amount, Line
from lovrit.core.timeline.interval import Case
from lovrit.core.timeline.rounds import lines_of, round_lengths, rounds
from lovrit.core.timeline.steps import Laying, for_time_s
from lovrit.core.timeline.worktime import amount_s, line_s, round_s, slowing, unknown_move

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
    """What is likely: the sentence, and figures of the block's kind, each slow, middle, quick."""

    said: str
    scores: tuple[Score, Score, Score] | None = None
    times_s: tuple[int, int, int] | None = None
    turns: tuple[TurnLeft, ...] = ()


def outlook(block: AnyBlock, library: Library) -> Outlook | None:
    """What a block is likely to come to; None where its length and its work are written as times.

    A move that nobody knows is asked for, never guessed.
    """
    unknown = unknown_move(block.moves, library) if block.kind in ("amrap", "for-time", "every") else None
    if unknown:
        return Outlook(f"nobody knows how long a rep of “{unknown}” takes: say it once on the Moves page.")
    match block:
        case Amrap():
            return _as_many(block, library)
        case ForTime():
            return _for_time(block, library)
        case Every():
            return _every(block, library)
        case Intervals() if block.each:
            return _repeats(block, library)
    return None


def _as_many(block: Amrap, library: Library) -> Outlook | None:
    first = next(round_lengths(block, library, "likely"), None)
    if first is None:
        return None
    slow, likely, quick = (score_in(block, library, case) for case in CASES)
    low, high = (rounds(block, library, case) or 0 for case in ("high", "low"))
    if block.ladder:
        top = block.ladder.start + block.ladder.step * likely.rounds
        more = round(next(islice(round_lengths(block, library, "likely"), 1, None), first) - first)
        said = (
            f"the first rung about {clock(round(first))}, each about {more} s longer, so they are on {top}s at the end"
        )
    else:
        whose = "between the two, " if block.partners else ""
        said = f"{whose}about {clock(round(first))} a round at first, so {_between(low, high)} rounds"
    return Outlook(said=_rests(said, library), scores=(slow, likely, quick))


def _between(low: float, high: float) -> str:
    a, b = int(low), int(high)
    return str(a) if a == b else f"{a} to {b}"


def score_in(block: Amrap, library: Library, case: Case) -> Score:
    """How far one person gets, walked line by line."""
    left = float(block.total_s)
    for nth, once in enumerate(round_lengths(block, library, case), 1):
        if once > left:
            return Score(nth - 1, *_within(lines_of(block, nth), library, case, left / slowing(nth)))
        left -= once
    return Score(0, 0, 0)


def _within(lines: tuple[Line, ...], library: Library, case: Case, left: float) -> tuple[int, int]:
    """Parts finished and reps of the next one in what is left of a round; a part ends where a ``then`` stands."""
    parts = reps = 0
    for at, line in enumerate(lines):
        parts += at > 0 and line.opens_part
        reps = 0 if line.opens_part else reps
        once = line_s(line, library, case) or 1
        asked = sum(_reps(line_task.amount) * (2 if line_task.side == "each" else 1) for line_task in line.tasks)
        if once > left:
            return parts, reps + int(asked * left / once)
        reps += asked
        left -= once
    return parts, reps


def _reps(amount: object) -> int:
    values = getattr(amount, "values", ())
    counted = values and getattr(amount, "unit", "") == "reps"
    return round(sum(values) / len(values)) if counted else 1


def _for_time(block: ForTime, library: Library) -> Outlook | None:
    quick, likely, slow = (for_time_s(block, Laying(library, case)) for case in ("low", "likely", "high"))
    once = round_s(block.moves, library)
    if block.over:
        said = f"{_each(block.over, likely)}, so about {clock(likely)}"
    elif once is None:
        return None
    else:
        count = block.rounds.high
        many = f"{count} rounds of about {clock(once)}, each a little slower" if count > 1 else "once through"
        said = f"{many}: about {clock(likely)}"
    wait = slow - quick
    said += f"; the quickest wait {clock(wait)} or so for the last" if wait > 60 else ""
    if block.cap_s and slow >= block.cap_s:
        said += ", and the cap ends it for the slow ones"
    return Outlook(said=_rests(said, library), times_s=(slow, likely, quick))


def _each(amount: Amount, seconds: float) -> str:
    """What a part of an amount takes, to be multiplied in the head."""
    part = 100 if amount.unit == "m" else 10
    return f"{part} {amount.unit} in about {round(seconds * part / max(1, amount.values[0]))} s"


def _every(block: Every, library: Library) -> Outlook | None:
    turns = tuple(_turn(block, at, library) for at in range(len(block.moves)))
    known = [turn for turn in turns if turn]
    if not known:
        return None
    tight = min(known, key=lambda turn: turn.left_s[0])
    name, (slow, middle, _) = block.moves[tight.move].name, tight.left_s
    theirs = f"slow people {slow} s" if slow >= 0 else f"slow people are {-slow} s over"
    said = f"{name} leaves about {max(0, middle)} s of {clock(block.period_s)}, {theirs}"
    if tight.late_from and slow >= 0:
        said += f"; from turn {tight.late_from} on they don't make it"
    return Outlook(said=_rests(said, library), turns=tuple(known))


def _turn(block: Every, at: int, library: Library) -> TurnLeft | None:
    taken = [line_s(block.moves[at], library, case) for case in CASES]
    if taken[0] is None or taken[1] is None or taken[2] is None:
        return None
    slow, likely, quick = taken[0], taken[1], taken[2]
    turns = range(at + 1, block.total_s // block.period_s + 1, len(block.moves))
    late = (nth for visit, nth in enumerate(turns, 1) if slow * slowing(visit) > block.period_s)
    period = block.period_s
    return TurnLeft(at, (period - slow, period - likely, period - quick), next(late, None))


def _repeats(block: Intervals, library: Library) -> Outlook | None:
    assert block.each
    name = block.moves[0].name if block.moves else ""
    taken = [amount_s(block.each, name, library, case) for case in CASES]
    if taken[0] is None or taken[1] is None or taken[2] is None:
        return None
    slow, likely, quick = (round(one) for one in (taken[0], taken[1], taken[2]))
    how = f"{_each(block.each, likely)}, so " if block.each.unit != "reps" else ""
    said = f"{how}about {clock(likely)} a repeat, {clock(quick)} for quick and {clock(slow)} for slow people"
    return Outlook(said=_rests(said, library), times_s=(slow, likely, quick))


def _rests(said: str, library: Library) -> str:
    if not library.rests_on:
        return f"{said}."
    scores = f"{library.rests_on} score{'s' if library.rests_on > 1 else ''}"
    return f"{said} (at this club's pace, from {scores})."
