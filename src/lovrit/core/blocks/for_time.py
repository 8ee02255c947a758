"""Rounds, or one amount, as quickly as one can, within a cap where there is one."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form, Repeats
from lovrit.core.blocks.company import PAIR, TEAMS, share_of
from lovrit.core.blocks.floor import Floor, FloorStep, by_clock
from lovrit.core.blocks.ladder import with_reps
from lovrit.core.blocks.marks import Mark, thinning
from lovrit.core.blocks.options import AIMS, CAP, Read
from lovrit.core.blocks.outlook import Outlook, part_of, rests_on, unknown_outlook
from lovrit.core.blocks.parts import (
    ONCE,
    Count,
    Seconds,
    count_figure,
    read_count,
    read_over,
)
from lovrit.core.blocks.roles import RACED, Saying
from lovrit.core.blocks.score import QUICKEST, Scoring, finish_of, race_score
from lovrit.core.blocks.step import Case, Laying, Stage, Step
from lovrit.core.blocks.tiring import Tiring
from lovrit.core.blocks.worktime import amount_s, round_s, slowing, unknown_move
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount, Line, reps_of
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, seconds, tokens, trees, whole
from lovrit.core.slate.words import Word, word
from lovrit.core.slate.written import whole_amount

DEFAULT_ROUND_S = 60
MOST_ROUNDS = 500
WORTH_SAYING_S = 60  # a wait for the last that is shorter goes unsaid


def _read_over(node: Node) -> Read:
    return Read({"over": read_over(tokens(node, "NUM")[0], trees(node)[0])}, [])


def read_rounds(node: Node) -> Read:
    """So many rounds; one where none are written."""
    times = trees(node)
    if not times:
        return Read({}, [])
    return Read(
        {"rounds": read_count(times[0], "rounds", MOST_ROUNDS)}, count_figure("rounds", times[0])
    )


OPTIONS = (*AIMS, CAP, PAIR, TEAMS)
LONGEST_SCHEME = 60
STOPS = 1.3  # a hold that is gathered takes a third longer than its seconds, with the pauses in it


def _read_scheme(node: Node) -> Read:
    """Reps by round: 21-15-9, or 10-1 for ten down to one."""
    figures = [whole(token, "reps", most=MOST_ROUNDS) for token in tokens(node, "NUM")]
    if len(figures) == 2:
        if figures[1] != 1 or figures[0] < 3:
            said = (
                f"{figures[0]}-{figures[1]} could be two rounds or a count of rounds: write which."
            )
            raise Unreadable(
                said, column(node), (f"{figures[0]} rounds for time", "21-15-9 for time")
            )
        figures = list(range(figures[0], 0, -1))
    return Read({"scheme": tuple(figures)}, [])


def _read_climb(node: Node) -> Read:
    """Reps that go up, and perhaps down again: 1 to 10 to 1; or down by steps: 10 -2."""
    figures = [whole(token, "reps", most=MOST_ROUNDS) for token in tokens(node, "NUM")]
    scheme: list[int] = [figures[0]]
    for to in figures[1:]:
        by = 1 if to > scheme[-1] else -1
        scheme += range(scheme[-1] + by, to + by, by)
    if len(scheme) < 2:
        raise Unreadable("That is one round only.", column(node), (f"{scheme[0]} reps for time",))
    if len(scheme) > LONGEST_SCHEME:
        raise Unreadable("That is more rounds than anybody counts.", column(node))
    return Read({"scheme": tuple(scheme)}, [])


def _read_gathered(node: Node) -> Read:
    total = seconds(trees(node)[0])
    if not total:
        raise Unreadable("There is no time in it.", column(node), ("accumulate 2:00",))
    return Read({"over": Amount(values=(float(total),), unit="s")}, [])


def raced(block: Block, laying: Laying, cap_s: int | None, team: int) -> Floor:
    """Work that a tap ends, or the cap: by pairs where people work in teams, else each for themselves."""
    likely = sum(step.seconds for step in block.own_steps(laying))
    first = next(iter(block.own_steps(laying)), None)
    if first is None:
        return Floor("all", ())
    step = by_clock(first)._replace(
        clock_s=None, tap="done", likely_s=likely, round=None, turn=None
    )
    return Floor("pairs" if team else "persons", (step,), cap_s, up=True, team=max(2, team))


class ForTime(Block):
    """As quickly as one can."""

    kind: Literal["for-time"] = "for-time"
    rounds: Count = ONCE
    over: Amount | None = None
    cap_s: Seconds | None = None
    scheme: tuple[int, ...] = ()
    team: int = 0

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying("{rounds} rounds for time", RACED, ("fortime",), least=1),
        Saying("{scheme} for time", RACED, ("fortime",), least=1),
        Saying("{scheme} for time", RACED, ("cap",), least=1),
        Saying("for time", RACED, ("fortime",), least=1),
        Saying("for time", RACED, ("once",), least=1),
        Saying("for time", RACED, ("fortime",), least=1, times="rounds"),
        Saying("accumulate {accumulate}", {"cap": "cap {}"}, least=1),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "for_time",
            ("count ROUNDS FOR_TIME",),
            read_rounds,
            OPTIONS,
            "4 rounds for time, cap 18:00",
        ),
        Form(
            "for_time_scheme",
            ("NUM (DASH NUM)+ FOR_TIME",),
            _read_scheme,
            OPTIONS,
            "21-15-9 for time",
        ),
        Form("for_time_climb", ("NUM TO NUM (TO NUM)* FOR_TIME",), _read_climb, OPTIONS),
        Form("accumulate", ("ACCUMULATE exact",), _read_gathered, OPTIONS, "accumulate 2:00"),
        Form("for_time_over", ("NUM unit FOR_TIME",), _read_over, OPTIONS),
        Form("for_time_once", ("FOR_TIME",), read_rounds, OPTIONS),
    )
    words: ClassVar[tuple[Word, ...]] = (
        Word("FOR_TIME.5", r"/for[ \t]+time\b/i", "“for time”", "for time"),
        word("ACCUMULATE", "accumulate", "“accumulate” and a time"),
    )
    in_parts: ClassVar[bool] = True
    races: ClassVar[bool] = True
    ends_together: ClassVar[bool] = False
    by_reps: ClassVar[bool] = True
    from_memory: ClassVar[bool] = True

    def check_lines(self, bad_lines: bool) -> None:
        """There has to be something to do, or a cap."""
        super().check_lines(bad_lines)
        if not (self.moves or self.over or self.cap_s):
            raise Unreadable(
                "There is nothing to do for time: write moves below, or a cap.", 1, ("cap 18:00",)
            )

    @property
    def head(self) -> str:
        """Its first words."""
        if self.scheme:
            joint = " to " if len(self.scheme) == 2 else "-"  # 10-9 could be a count of rounds
            return f"{joint.join(map(str, self.scheme))} for time"
        if self.over and self.over.unit == "s":
            return f"accumulate {clock(self.over.values[0])}"
        return f"{whole_amount(self.over) if self.over else self.rounds.of('round')} for time"

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """Where reps go by round all of them, as they are written; else its amount."""
        if self.scheme:
            return self._scheme_said()
        if self.over and self.over.unit == "s":
            return clock(self.over.values[0])
        return super().reps_said(step, counted)

    def _scheme_said(self) -> str:
        """21-15-9; where they go by ones, from where to where and back: 10 to 1, 1 to 5 to 1."""
        turns = [self.scheme[0]]
        for before, here, after in zip(
            self.scheme, self.scheme[1:], (*self.scheme[2:], None), strict=False
        ):
            if abs(here - before) != 1:
                return "-".join(map(str, self.scheme))
            if after is None or (here - before) * (after - here) < 0:
                turns.append(here)
        return " to ".join(map(str, turns))

    @property
    def repeats(self) -> Repeats | None:
        """Its rounds, where it is not one amount."""
        return None if self.over or self.scheme else Repeats("rounds", self.rounds)

    @property
    def amount(self) -> Amount | None:
        """What is done for time."""
        return self.over

    @property
    def is_forecast(self) -> bool:
        """People take what they take."""
        return True

    def needed_s(self, library: Library, case: Case = "likely") -> int | None:
        """Seconds that all of it takes, whatever the cap; None where nobody said how much there is."""
        if self.over:
            taken = amount_s(self.over, self._name, library, case)
            stops = STOPS if self.over.unit == "s" else 1
            return None if taken is None else round(taken * stops)
        counted = Laying(library, case).times(self.rounds)
        taken, person = 0.0, Tiring(library, case)
        for nth, lines in enumerate(self._lines(counted), 1):
            once = round_s(lines, library, case, person)
            if once is None:
                return None
            taken += once * slowing(nth)
        return round(taken)

    def _lines(self, rounds: int) -> Iterator[tuple[Line, ...]]:
        """The lines of each round; where reps go by round, with the reps of it."""
        if not self.scheme:
            yield from [self.moves] * rounds
        for reps in self.scheme:
            yield tuple(with_reps(line, reps) for line in self.moves)

    def taken_s(self, library: Library, case: Case = "likely") -> int:
        """The same, at most its cap; the cap, or a minute, where nobody can say."""
        needed = self.needed_s(library, case)
        if needed is None:
            return self.cap_s or DEFAULT_ROUND_S
        return min(needed, self.cap_s) if self.cap_s else needed

    @property
    def _name(self) -> str:
        return self.moves[0].name if self.moves else ""

    def visits(self, line: int, library: Library) -> float:
        """Its rounds, one's own share of them."""
        del line, library
        return self.rounds.high * share_of(self)

    def reps_done(self, line: int, library: Library, work_s: int) -> float:
        """Reps of a line that one person does; where reps go by round, all of them."""
        if not self.scheme:
            return super().reps_done(line, library, work_s)
        return sum(reps_of(with_reps(self.moves[line], reps)) for reps in self.scheme) * share_of(
            self
        )

    def floor(self, laying: Laying) -> Floor:
        """Each person, pair or team until it is done, or until the cap."""
        return raced(self, laying, self.cap_s, self.team)

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One work to its end."""
        yield self.work(
            self.taken_s(laying.library, laying.case), 1, 1, 0 if len(self.moves) == 1 else None
        )

    @property
    def asks_for(self) -> str:
        """A time."""
        return "time, m:ss"

    def read_score(self, said: str, given: Scoring) -> str:
        """A time, up to the cap."""
        quick = given.forecast.time_s[0] if given.forecast and given.forecast.time_s else 0
        return race_score(said, self.cap_s, quick / QUICKEST, self._all_reps())

    def _all_reps(self) -> float:
        """Reps of all its rounds; 0 where some line counts none."""
        if self.over:
            return 0
        worked = [line for line in self.moves if not line.is_rest]
        if self.scheme:
            return sum(self.scheme) * len(worked)
        each = [reps_of(line) for line in worked]
        return sum(each) * self.rounds.high if all(each) else 0

    def pace_of(self, score: str, library: Library) -> float | None:
        """Seconds taken by seconds that are usual; the cap says how much was done by then, where reps are counted."""
        ended, usual, every = finish_of(score), self.needed_s(library), self._all_reps()
        taken = ended.seconds
        if taken is None and self.cap_s and every and ended.left is not None:
            done = every - ended.left
            taken = round(self.cap_s * every / done) if done > 0 else None
        capped = (
            ended.seconds is not None and self.cap_s is not None and ended.seconds >= self.cap_s
        )
        return taken / usual if taken and usual and not capped else None

    def outlook(self, library: Library) -> Outlook | None:
        """When people end, how long the quickest wait, and whom the cap ends."""
        unknown = unknown_move(self.moves, library)
        if unknown:
            return unknown_outlook(unknown)
        quick, likely, slow = (self.taken_s(library, case) for case in ("low", "likely", "high"))
        told = self._told(library, likely)
        if told is None:
            return None
        wait = slow - quick
        told += (
            f"; the quickest wait {clock(wait)} or so for the last" if wait > WORTH_SAYING_S else ""
        )
        if self.cap_s and slow >= self.cap_s:
            told += ", and the cap ends it for the slow ones"
        return Outlook(said=rests_on(told, library), times_s=(slow, likely, quick))

    def _told(self, library: Library, likely: int) -> str | None:
        if self.over:
            return f"{part_of(self.over, likely)}, so about {clock(likely)}"
        if self.scheme:
            return f"{sum(self.scheme)} of each, round by round: about {clock(likely)}"
        once = round_s(self.moves, library)
        if once is None:
            return None
        count = self.rounds.high
        many = (
            f"{count} rounds of about {clock(once)}, each a little slower"
            if count > 1
            else "once through"
        )
        return f"{many}: about {clock(likely)}"

    def drawn(self, one: Stage) -> Mark | None:
        """It thins out: who is done stands about."""
        mark = super().drawn(one)
        return mark._replace(ink="thins") if mark and mark.ink == "work" else mark

    def marks(self, one: Stage, library: Library, quickest_s: int) -> list[Mark]:
        """Solid until the quickest ends, then thinning out until the last."""
        if one.phase != "work":
            return super().marks(one, library, quickest_s)
        return thinning(0, min(one.seconds, quickest_s), one.seconds)
