"""As many rounds as possible before the clock ends; partners take a round each in turn, a ladder has more each time."""

import re
from collections.abc import Iterator
from itertools import islice, pairwise
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.company import PARTNERS, TEAMS, share_of
from lovrit.core.blocks.floor import Floor, FloorStep, by_clock
from lovrit.core.blocks.ladder import LADDER, Ladder, with_reps
from lovrit.core.blocks.marks import Mark
from lovrit.core.blocks.options import AIMS, Read
from lovrit.core.blocks.outlook import CASES, Outlook, Score, rests_on, unknown_outlook
from lovrit.core.blocks.parts import Seconds, read_length
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.score import Scoring, counts_score, rounds_score
from lovrit.core.blocks.step import Case, Forecast, Laying, Stage, Step
from lovrit.core.blocks.tiring import Tiring
from lovrit.core.blocks.worktime import least_s, line_s, round_s, slowing_after, unknown_move
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount, Line, reps_of
from lovrit.core.slate.tree import Node
from lovrit.core.slate.words import Word

MOST_ROUNDS = 1000
MOST_DRAWN = 200
MOST_REPS = 500


def _read(node: Node) -> Read:
    total, shown = read_length(node)
    return Read({"total_s": total}, shown)


class Amrap(Block):
    """As many rounds as possible before the clock ends."""

    kind: Literal["amrap"] = "amrap"
    total_s: Seconds
    ladder: Ladder | None = None
    partners: bool = False
    team: int = 0

    sayings: ClassVar[tuple[Saying, ...]] = tuple(
        Saying(head, takes, flags, least=1, times=times)
        for head, flags, times in (
            ("as many as possible in {total}", ("amrap",), ""),
            ("as many as possible in {time}", ("amrap",), ""),
            ("as many as possible in {work}", ("amrap",), "times"),
            ("as many as possible in {total}", ("amrap",), "rounds"),
            ("as many as possible in {total}", ("maxed",), ""),
            ("as many as possible in {total}", ("ladder",), ""),
            ("as many as possible in {time}", ("ladder",), ""),
        )
        for takes in ({**SAID_AIMS, "company": "{}", "ladder": "ladder {}", "alternating": ""},)
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "amrap",
            ("AS_MANY time",),
            _read,
            (*AIMS, LADDER, PARTNERS, TEAMS),
            "as many as possible in 12:00",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (
        Word(
            "AS_MANY.4",
            r"/(?:as[ \t]+many[ \t]+as[ \t]+possible|amrap)(?:[ \t]+in)?\b/i",
            "“as many as possible in”",
            "as many as possible in",
        ),
    )
    in_parts: ClassVar[bool] = True
    circuit: ClassVar[bool] = True
    races: ClassVar[bool] = True
    from_memory: ClassVar[bool] = True

    @property
    def head(self) -> str:
        """Its first words."""
        return f"as many as possible in {clock(self.total_s)}"

    @property
    def short_name(self) -> str:
        """What it is, without its length."""
        return "as many as possible" + (
            ", partners" if self.partners else f", teams of {self.team}" if self.team else ""
        )

    @property
    def length_s(self) -> int:
        """As written."""
        return self.total_s

    def floor(self, laying: Laying) -> Floor:
        """One clock for all; partners and teams take turns in it by a tap."""
        if not (self.partners or self.team):
            return super().floor(laying)
        steps = [
            by_clock(step)._replace(clock_s=None, tap="change", likely_s=step.seconds)
            for step in self.unroll(laying)
            if step.phase == "work"
        ]
        return Floor(
            "pairs",
            tuple(steps),
            self.total_s,
            endless=True,
            cap_is_clock=True,
            team=max(2, self.team),
        )

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One work to its end."""
        del laying
        yield self.work(self.total_s, 1, 1, 0 if len(self.moves) == 1 else None)

    def forecast(self, library: Library, time_s: tuple[int, int, int]) -> Forecast | None:
        """Rounds in its time, to a tenth; None where a round or its moves have no known length."""
        del time_s
        if unknown_move(self.moves, library):
            return None
        slow, likely, quick = (self.rounds(library, case) for case in CASES)
        if slow is None or likely is None or quick is None:
            return None
        return Forecast(rounds=(slow, likely, quick))

    def rounds(self, library: Library, case: Case) -> float | None:
        """Rounds that one person does, the begun one as its share of time, to a tenth."""
        left = float(self.total_s)
        for nth, once in enumerate(self.round_lengths(library, case)):
            if once >= left:
                return round(nth + left / once, 1)
            left -= once
        return None

    def round_lengths(self, library: Library, case: Case) -> Iterator[float]:
        """Seconds of each round in turn; nothing where nobody said how much a round is."""
        person, gone = Tiring(library, case), 0.0
        for nth in range(1, MOST_ROUNDS + 1):
            once = round_s(self.lines_of(nth), library, case, person)
            if not once:
                return
            if self.partners or self.team:
                person.rest(once / share_of(self) - once)
            yield once * slowing_after(gone)
            gone += once * slowing_after(gone)

    def lines_of(self, nth: int) -> tuple[Line, ...]:
        """The lines of a round (from 1): on a ladder each has more reps than the one before."""
        if not self.ladder:
            return self.moves
        reps = self.ladder.at(nth)
        return tuple(with_reps(line, reps) for line in self.moves)

    def rung(self, counted: int) -> str:
        """On a ladder the reps of the round that is begun."""
        return str(self.ladder.at(counted + 1)) if self.ladder else ""

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """On a ladder the rung of those who are furthest."""
        del step
        return self.rung(counted)

    def round_ends(self, library: Library) -> list[float]:
        """Where each round is likely to end, in seconds from the block's start; empty where nobody can say."""
        ends: list[float] = []
        if unknown_move(self.moves, library):
            return ends
        at = 0.0
        for once in self.round_lengths(library, "likely"):
            at += once
            if at >= self.total_s:
                break
            ends.append(at)
        return ends

    def visits(self, line: int, library: Library) -> float:
        """Rounds; partners do half of them each."""
        del line
        return (self.rounds(library, "likely") or 0) * share_of(self)

    @property
    def asks_for(self) -> str:
        """Rounds and reps; of one move that has no count, what was done of it."""
        return "reps or metres" if self._bare else "rounds + reps"

    def read_score(self, said: str, given: Scoring) -> str:
        """Rounds and reps, no more than twice what a quick person does; of one move without a count, its reps."""
        if self._bare:
            return counts_score(
                said, 1, self.length_s or given.planned_s, least_s(self.moves, given.library)
            )
        told = given.forecast.rounds if given.forecast else None
        begun = re.match(r"\d{1,5}", said)
        return rounds_score(
            said,
            told[2] if told else None,
            self._parts(),
            self._reps_of(int(begun[0]) + 1 if begun else 1),
        )

    @property
    def _bare(self) -> bool:
        """Whether it is one move alone, of which no round has a count."""
        lines = [line for line in self.moves if not line.is_rest]
        one = lines[0] if len(lines) == 1 and not self.ladder else None
        return bool(one and len(one.tasks) == 1 and one.tasks[0].amount is None)

    def _parts(self) -> int:
        return 1 + sum(line.opens_part for line in self.moves[1:])

    def _reps_of(self, nth: int) -> float:
        """Reps of a round (from 1); 0 where some line counts none."""
        each = [reps_of(line) for line in self.lines_of(nth) if not line.is_rest]
        return sum(each) if all(each) else 0

    def reads(self, score: str) -> str:
        """On a ladder, the rung that was begun."""
        found = re.match(r"(\d+) \+ (\d+)", score)
        if not found or not self.ladder or not int(found[2]):
            return ""
        return f"{found[2]} into the rung of {self.ladder.at(int(found[1]) + 1)}"

    def pace_of(self, score: str, library: Library) -> float | None:
        """Rounds likely by rounds done; parts and reps of a begun round count as half of one."""
        if self._bare and not score.endswith("reps"):
            return None  # metres and calories of one go say little of a pace in reps
        whole_rounds, _, begun = score.removesuffix("reps").partition("+")
        done = int(whole_rounds) + (0.5 if begun.strip() not in ("", "0") else 0.0)
        likely = self.rounds(library, "likely")
        return likely / done if likely and done else None

    def outlook(self, library: Library) -> Outlook | None:
        """Rounds, from how long the first takes."""
        unknown = unknown_move(self.moves, library)
        if unknown:
            return unknown_outlook(unknown)
        first = next(self.round_lengths(library, "likely"), None)
        if first is None:
            return None
        slow, likely, quick = (self.score_in(library, case) for case in CASES)
        told = (
            self._rungs_said(library, first, likely)
            if self.ladder
            else self._rounds_said(library, first)
        )
        return Outlook(said=rests_on(told, library), scores=(slow, likely, quick))

    def _rungs_said(self, library: Library, first: float, likely: Score) -> str:
        assert self.ladder
        top = self.ladder.start + self.ladder.step * likely.rounds
        more = round(next(islice(self.round_lengths(library, "likely"), 1, None), first) - first)
        rungs = f"the first rung about {clock(round(first))}, each about {more} s longer"
        return f"{rungs}, so they are on {top}s at the end"

    def _rounds_said(self, library: Library, first: float) -> str:
        low, high = (int(self.rounds(library, case) or 0) for case in ("high", "low"))
        whose = "between the two, " if self.partners else "between them, " if self.team else ""
        many = str(low) if low == high else f"{low} to {high}"
        return f"{whose}about {clock(round(first))} a round at first, so {many} rounds"

    def score_in(self, library: Library, case: Case) -> Score:
        """How far one person gets, walked line by line."""
        left = float(self.total_s)
        for nth, once in enumerate(self.round_lengths(library, case), 1):
            if once > left:
                return Score(
                    nth - 1,
                    *_within(
                        self.lines_of(nth), library, case, left / slowing_after(self.total_s - left)
                    ),
                )
            left -= once
        return Score(0, 0, 0)

    def marks(self, one: Stage, library: Library, quickest_s: int) -> list[Mark]:
        """Rounds as they are likely to go: partners interlock, a ladder's rungs grow."""
        if one.phase != "work":
            return super().marks(one, library, quickest_s)
        ends = [end for end in self.round_ends(library)[:MOST_DRAWN] if end < one.seconds]
        rounds = list(pairwise([0.0, *ends, one.seconds]))
        if self.partners:
            return [
                Mark("second" if nth % 2 else "work", start, end, shelf=nth % 2, shelves=2)
                for nth, (start, end) in enumerate(rounds)
            ]
        if len(self.moves) < 2 or len(rounds) * len(self.moves) > MOST_DRAWN or not ends:
            return [Mark("work", 0, one.seconds), *(Mark("mark", end, end) for end in ends)]
        marks = [
            mark
            for nth, (start, end) in enumerate(rounds, 1)
            for mark in self._lines_drawn(library, nth, start, end)
        ]
        return [*marks, *(Mark("mark", end, end) for end in ends)]

    def _lines_drawn(self, library: Library, nth: int, start: float, end: float) -> list[Mark]:
        """The lines of a round one after another, each as wide as its share of the round."""
        parts = [float(line_s(line, library) or 0) for line in self.lines_of(nth)]
        whole, at, marks = sum(parts) or 1.0, start, []
        for line, part in enumerate(parts):
            until = at + (end - start) * part / whole
            marks.append(Mark("work", at, until, line))
            at = until
        return marks


def _within(lines: tuple[Line, ...], library: Library, case: Case, left: float) -> tuple[int, int]:
    """Parts finished and reps of the next one in what is left of a round; a part ends where a ``then`` stands."""
    parts = reps = 0
    for at, line in enumerate(lines):
        parts += at > 0 and line.opens_part
        reps = 0 if line.opens_part else reps
        once = line_s(line, library, case) or 1
        asked = sum(_reps(task.amount) * (2 if task.side == "each" else 1) for task in line.tasks)
        if once > left:
            return parts, reps + int(asked * left / once)
        reps += asked
        left -= once
    return parts, reps


def _reps(amount: Amount | None) -> int:
    counted = amount is not None and amount.values and amount.unit == "reps"
    return round(sum(amount.values) / len(amount.values)) if amount and counted else 1
