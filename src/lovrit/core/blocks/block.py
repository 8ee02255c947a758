"""What every kind of block may carry, and what others may ask of one.

A kind overrides what is its own; whoever asks (the reader, the clock, a rule, a screen) asks here and lists no kinds.
"""

from collections.abc import Callable, Iterator
from typing import ClassVar, Literal, NamedTuple, Self

from lovrit.core.blocks.floor import Floor, FloorStep, by_clock
from lovrit.core.blocks.marks import Mark
from lovrit.core.blocks.options import Fields, Option, Read
from lovrit.core.blocks.outlook import Outlook
from lovrit.core.blocks.parts import (
    Count,
    Effort,
    Heart,
    Pace,
    Pair,
    Seconds,
    effort_of,
)  # fmt: skip
from lovrit.core.blocks.roles import Saying
from lovrit.core.blocks.score import Scoring, time_score
from lovrit.core.blocks.step import Case, Forecast, Laying, Phase, Stage, Step
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount, Line, Task, reps_of
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node
from lovrit.core.slate.words import Word
from lovrit.core.slate.written import whole_amount
from lovrit.core.values import Value


class Form(NamedTuple):
    """One way of saying a kind's first words: its rule, how it is read off the line, and the options that it takes.

    ``sample`` is a whole first line, for completion and for those who begin.
    """

    rule: str
    grammar: tuple[str, ...]
    read: Callable[[Node], Read]
    options: tuple[Option, ...]
    sample: str = ""


class Between(NamedTuple):
    """What stands between rounds or stations: what it is called, how long, and whether it adds to the last rest."""

    name: Literal["break", "change"]
    seconds: int | None
    added: bool


class Repeats(NamedTuple):
    """What a block repeats: the name of its figure, and how often."""

    name: Literal["rounds", "sets", "count"]
    times: Count


class Block(Value):
    """What every kind of block may carry."""

    kind: str
    efforts: tuple[Effort, ...] = ()
    heart: Heart | None = None
    heart_later: tuple[Heart, ...] = ()  # of the second round, the third, where they differ
    pace: Pace | None = None
    rest_effort: Effort | None = None
    rest_heart: Heart | None = None
    lead_in_s: Seconds = 0
    moves: tuple[Line, ...] = ()
    note: str = ""  # what is said to people while it is done, and has no part of its own

    # how it is written, and how it is said in messages
    sayings: ClassVar[tuple[Saying, ...]] = ()
    forms: ClassVar[tuple[Form, ...]] = ()
    words: ClassVar[tuple[Word, ...]] = ()
    rules: ClassVar[
        tuple[str, ...]
    ] = ()  # of the grammar, where the first words need some of their own
    most_lines: ClassVar[int | None] = None
    needs_stations: ClassVar[bool] = False
    in_parts: ClassVar[bool] = False  # a “then” may stand between its lines

    # what it is
    works: ClassVar[bool] = True  # people work in it: no warm-up and no rest
    is_pause: ClassVar[bool] = False  # nothing is done in it
    interval_block: ClassVar[bool] = False  # made of works and rests
    circuit: ClassVar[bool] = False  # its lines follow one another, so that their order matters
    races: ClassVar[bool] = False  # as quickly as one can
    from_memory: ClassVar[bool] = False  # people do its lines in order by themselves
    lifts: ClassVar[bool] = False  # sets with pauses as long as they need, so effort is not a pace
    top_set_s: ClassVar[int | None] = (
        None  # seconds to a top set, where it builds to one at one's own pace
    )
    in_turns: ClassVar[bool] = False  # its whole time is cut into equal turns
    ends_together: ClassVar[bool] = True  # the clock ends it for everybody
    by_reps: ClassVar[bool] = False  # how long it lasts follows from the reps on its lines
    shown_by: ClassVar[Literal["", "round", "turn"]] = ""  # one at a time is shown on the rails

    @classmethod
    def check(cls, fields: Fields, at: int) -> None:
        """Refuse fields that can't be together; ``at`` is the column that an Unreadable points to."""

    def check_lines(self, bad_lines: bool) -> None:
        """Refuse a block that can't be laid on the clock with the lines below it.

        Raises:
            Unreadable: saying what is missing; ``bad_lines`` where some could not be read.
        """
        if self.needs_stations and not self.moves:
            more = " that can be read" if bad_lines else ""
            raise Unreadable(
                f"There are no stations{more}: write each on an indented line below.", 1
            )

    @property
    def head(self) -> str:
        """Its first words, without options."""
        raise NotImplementedError

    @property
    def form(self) -> Form:
        """The form that it is written in."""
        return self.forms[0]

    def written_options(self) -> Iterator[str]:
        """Its options as they are written."""
        for option in self.form.options:
            said = option.write(self)
            if said:
                yield said

    @property
    def name(self) -> str:
        """What people do in it, where no line says so."""
        return "work"

    @property
    def short_name(self) -> str:
        """Its short name on the tape."""
        return self.head

    @property
    def repeats(self) -> Repeats | None:
        """What it repeats, where that is a figure."""
        return None

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """Its written works and rests."""
        return ()

    @property
    def between(self) -> Between | None:
        """What stands between its rounds or stations."""
        return None

    @property
    def turn_s(self) -> int:
        """Seconds of one of its turns, where it is cut into such; 0 elsewhere."""
        return 0

    @property
    def length_s(self) -> int | None:
        """Its length, where that is written as one."""
        return None

    @property
    def amount(self) -> Amount | None:
        """What is done in each work, where that is written as an amount: 5 x 300 m."""
        return None

    @property
    def own_rest_s(self) -> int | None:
        """Seconds of rest after each work, the last of a pattern; None where a heart ends it or none is written."""
        return self.pairs[-1].rest.seconds if self.pairs else None

    @property
    def drops_last_rest(self) -> bool | None:
        """Whether the last rest is dropped; None where that can't be said."""
        return None

    @property
    def gated(self) -> bool:
        """Whether a heart ends a work or a rest of it."""
        return any(pair.timed is None for pair in self.pairs)

    @property
    def rotates(self) -> bool:
        """Whether people go from station to station."""
        return False

    @property
    def moves_people(self) -> bool:
        """Whether groups stand at stations of their own and go on from one to the next."""
        return self.rotates and len(self.moves) > 1

    @property
    def is_forecast(self) -> bool:
        """Whether its time is forecast rather than written."""
        return self.gated or self.amount is not None

    @property
    def varies(self) -> bool:
        """Whether it may last shorter or longer than planned."""
        ranged = self.repeats is not None and self.repeats.times.low != self.repeats.times.high
        return ranged or self.is_forecast

    @property
    def rest_is_forecast(self) -> bool:
        """Whether nobody wrote its rest, so that it is what the work leaves over."""
        return any(pair.rest.seconds is None for pair in self.pairs)

    @property
    def set_reps(self) -> int | None:
        """Reps of a set, where its head says them for all lines."""
        return None

    @property
    def top_effort(self) -> float | None:
        """The highest effort that it asks for; None where none is written."""
        return max((effort.high for effort in self.efforts), default=None)

    @property
    def top_asked(self) -> float | None:
        """The highest effort that it asks for, written as one or as a target of the heart; None where neither is."""
        if self.efforts:
            return self.top_effort
        hearts = [one for one in (self.heart, *self.heart_later) if one]
        return max(map(effort_of, hearts), default=None)

    def asked_in(self, phase: Phase, effort: float | None, nth: int | None) -> float | None:
        """What a step asks: its effort, else for work what the heart target of its round comes to."""
        heart = self.heart_in(nth) if effort is None and phase in ("work", "steady") else None
        return effort_of(heart) if heart else effort

    def heart_in(self, nth: int | None) -> Heart | None:
        """The heart target of a round (from 1); where fewer are written, the last holds on."""
        if nth is None or nth < 2 or not self.heart_later:
            return self.heart
        return self.heart_later[min(nth - 1, len(self.heart_later)) - 1]

    def effort_in(self, nth: int) -> float | None:
        """The effort of a round (from 1); where fewer are written, the last holds on."""
        return self.efforts[min(nth, len(self.efforts)) - 1].level if self.efforts else None

    def round_ends(self, library: Library) -> list[float]:
        """Where usual people end each round, in seconds from its start; empty where the clock says that."""
        del library
        return []

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Its steps in order, as the kind has them."""
        raise NotImplementedError

    def unroll(self, laying: Laying) -> Iterator[Step]:
        """Its steps in order, with the lead-in, without a rest that is dropped; a step of no seconds is left out."""
        if self.lead_in_s:
            effort = self.rest_effort.level if self.rest_effort else None
            yield Step(phase="lead-in", seconds=self.lead_in_s, effort=effort)
        own = self.own_steps(laying)
        for step in _without_last_rest(own) if self.drops_last_rest else own:
            if step.seconds > 0:
                yield step

    def seconds(self, library: Library, case: Case = "likely") -> int:
        """How long it lasts."""
        return sum(step.seconds for step in self.unroll(Laying(library, case)))

    def forecast(self, library: Library, time_s: tuple[int, int, int]) -> Forecast | None:
        """What it is likely to come to; ``time_s`` is its length, low, likely, high."""
        del library
        return Forecast(time_s=time_s) if self.is_forecast else None

    def arithmetic(self) -> list[str]:
        """How its length comes about, in lines."""
        return []

    @property
    def asks_for(self) -> str | None:
        """What its score is, as it is asked for; None where it has none."""
        return None

    def read_score(self, said: str, given: Scoring) -> str:
        """A score in its usual writing.

        Raises:
            Impossible: if it is none, or can't have been done.
        """
        return time_score(said, given.planned_s)

    def reads(self, score: str) -> str:
        """What coaches read in a score: evenness, fade, the first turn missed; empty for nothing."""
        del score
        return ""

    def pace_of(self, score: str, library: Library) -> float | None:
        """How long somebody took where a usual person takes 1; None where the score says nothing of it."""
        del score, library
        return None

    def outlook(self, library: Library) -> Outlook | None:
        """What it is likely to come to for slow, usual and quick people, in a sentence; None where all is written."""
        del library
        return None

    def visits(self, line: int, library: Library) -> float | None:
        """How often one person does a line (from 0) in the whole block; None where they work by the clock."""
        del line, library
        return None

    def reps_done(self, line: int, library: Library, work_s: int) -> float:
        """Reps of a line that a usual person does in the whole block, whose work lasts so many seconds."""
        visits = self.visits(line, library)
        if visits is not None:
            return reps_of(self.moves[line]) * visits
        name = self.moves[line].tasks[0].name
        move = library.find(name)
        by_reps = self.amount is None and (move is None or move.counted == "reps")
        return work_s / len(self.moves) / library.rep_s(name) if by_reps else 0.0

    def drawn(self, one: Stage) -> Mark | None:
        """How a stretch of it is drawn; None for a gap."""
        if one.phase == "work":
            return Mark("work", 0, one.seconds, one.move, label=str(one.beat or ""))
        if one.phase in ("steady", "lead-in"):
            return Mark(
                "steady" if one.phase == "steady" else "lead-in", 0, one.seconds, height=0.55
            )
        if one.phase == "rest" and self.gated:
            return Mark("ragged", 0, one.seconds, one.move or 0, height=0.6)
        return None

    def marks(self, one: Stage, library: Library, quickest_s: int) -> list[Mark]:
        """The same in full, for the rails; ``quickest_s`` is when the quickest may be done with the block."""
        del library, quickest_s
        mark = self.drawn(one)
        return [mark] if mark else []

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """Turn and round in words; ``of`` is how many of each there are."""
        parts = [f"round {round_} of {of[1]}"] if of[1] > 1 else []
        return ", ".join(parts + ([f"turn {turn} of {of[0]}"] if of[0] > 1 else []))

    def with_figure(self, name: str, value: float) -> Self:
        """The block with one of its figures set; times in seconds."""
        whole = round(value)
        if self.repeats and name == self.repeats.name:
            return self.but(**{name: Count(low=whole, high=whole)})
        return self.but(**{f"{name.replace('-', '_')}_s": whole})

    def with_pairs(self, pairs: tuple[Pair, ...]) -> Self:
        """The block with other works and rests, as many as it has."""
        assert not pairs
        return self

    # what it is on the floor

    def floor(self, laying: Laying) -> Floor:
        """Who shares a clock in it, and what ends each step: one lane by the clock, where a kind says no more."""
        return Floor("all", tuple(map(by_clock, self.unroll(laying))))

    # what its board says

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """How much is done on a line that doesn't say it itself; the furthest have ``counted`` rounds behind them."""
        del step, counted
        return whole_amount(self.amount) if self.amount else ""

    def rung(self, counted: int) -> str:
        """The same after so many rounds, where it grows with each; empty elsewhere."""
        del counted
        return ""

    def line_in(self, line: Line, step: FloorStep) -> Line:
        """A line as it is done in a step: with the load of its set, where each has its own."""
        tasks = tuple(_in_set(task, step.round or 1) for task in line.tasks)
        return line.but(tasks=tasks) if tasks != line.tasks else line

    def said_in(self, step: FloorStep) -> str:
        """What is done where no line says so."""
        return self.reps_said(step, 0) or self.name

    def label_of(self, line: int) -> str:
        """What a line (from 0) is called beside its move: A1, A2."""
        del line
        return ""

    @property
    def rest_said(self) -> str:
        """The rest that is usual after a set, where people take it for themselves."""
        return ""

    # who is where

    def line_of(self, group: int, turn: int) -> int:
        """The line that a group (from 0) is on in a turn (from 1), where people go from station to station."""
        return (group + turn - 1) % max(1, len(self.moves))

    def side_of(self, line: int, nth: int) -> str | None:
        """Which side is asked for on a line in a round or set (from 1)."""
        return side_in(self.moves[line], nth)

    # what kinds lay their steps with

    def work(self, seconds: int, nth: int, turn: int, move: int | None) -> Step:
        """A work in a round and a turn, on a line where there is one."""
        line = self.moves[move] if move is not None and self.moves else None
        at = move if line else None
        return Step("work", seconds, nth, turn, at, self.effort_in(nth), side_in(line, nth))

    def pause(self, phase: Phase, seconds: int, after: Step) -> Step:
        """A rest, break or change after a work."""
        effort = self.rest_effort.level if phase == "rest" and self.rest_effort else None
        return Step(phase, seconds, after.round, after.turn, after.move, effort)

    def rest_between(self, own_s: int, work: Step) -> Iterator[Step]:
        """The work's own rest and what stands between: it takes the rest's place, unless it is added."""
        assert self.between
        name, seconds, added = self.between
        if seconds is None or added:
            yield self.pause("rest", own_s, work)
        if seconds is not None:
            yield self.pause(name, seconds, work)


def side_in(line: Line | None, nth: int) -> str | None:
    """Which side a line asks for in a round or set (from 1): left in the first, where sides go by round."""
    if line is None or line.side == "none":
        return None
    return "each" if line.side == "each" else ("left" if nth % 2 else "right")


def _in_set(task: Task, nth: int) -> Task:
    """A task with the load of its n-th set (from 1), where it has a figure a set."""
    given = task.load
    if given is None or given.form != "by-set":
        return task
    value = given.values[min(nth, len(given.values)) - 1]
    return task.but(load=given.but(form="one", values=(value,)))


def _without_last_rest(unrolled: Iterator[Step]) -> Iterator[Step]:
    held: Step | None = None
    for step in unrolled:
        if held:
            yield held
        held = step
    if held and held.phase != "rest":
        yield held
