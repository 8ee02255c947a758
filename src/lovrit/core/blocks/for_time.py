"""Rounds, or one amount, as quickly as one can, within a cap where there is one."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form, Repeats
from lovrit.core.blocks.marks import Mark, thinning
from lovrit.core.blocks.options import AIMS, CAP, Read
from lovrit.core.blocks.outlook import Outlook, part_of, rests_on, unknown_outlook
from lovrit.core.blocks.parts import ONCE, Count, Seconds, count_figure, read_count, read_over
from lovrit.core.blocks.score import time_score
from lovrit.core.blocks.step import Case, Forecast, Laying, Stage, Step
from lovrit.core.blocks.worktime import amount_s, round_s, slowing, unknown_move
from lovrit.core.clock import clock, read_clock
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, tokens, trees
from lovrit.core.slate.words import Word
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


OPTIONS = (*AIMS, CAP)


class ForTime(Block):
    """As quickly as one can."""

    kind: Literal["for-time"] = "for-time"
    rounds: Count = ONCE
    over: Amount | None = None
    cap_s: Seconds | None = None

    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "for_time",
            ("count ROUNDS FOR_TIME",),
            read_rounds,
            OPTIONS,
            "4 rounds for time, cap 18:00",
        ),
        Form("for_time_over", ("NUM unit FOR_TIME",), _read_over, OPTIONS),
        Form("for_time_once", ("FOR_TIME",), read_rounds, OPTIONS),
    )
    words: ClassVar[tuple[Word, ...]] = (
        Word("FOR_TIME.5", r"/for[ \t]+time\b/i", "“for time”", "for time"),
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
        return f"{whole_amount(self.over) if self.over else self.rounds.of('round')} for time"

    @property
    def repeats(self) -> Repeats | None:
        """Its rounds, where it is not one amount."""
        return None if self.over else Repeats("rounds", self.rounds)

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
            return None if taken is None else round(taken)
        once = round_s(self.moves, library, case)
        rounds = range(1, Laying(library, case).times(self.rounds) + 1)
        return None if once is None else round(once * sum(slowing(nth) for nth in rounds))

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
        """Its rounds."""
        del line, library
        return self.rounds.high

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """One work to its end."""
        yield self.work(
            self.taken_s(laying.library, laying.case), 1, 1, 0 if len(self.moves) == 1 else None
        )

    @property
    def asks_for(self) -> str:
        """A time."""
        return "time, m:ss"

    def read_score(self, said: str, planned_s: int, forecast: Forecast | None) -> str:
        """A time, up to the cap."""
        del planned_s, forecast
        return time_score(said, self.cap_s)

    def pace_of(self, score: str, library: Library) -> float | None:
        """Seconds taken by seconds that are usual; the cap says only that it was longer."""
        taken, usual = read_clock(score), self.needed_s(library)
        capped = self.cap_s is not None and taken >= self.cap_s
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
