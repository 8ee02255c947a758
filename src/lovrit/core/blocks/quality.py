"""Unhurried rounds with a rest after each, within a cap where there is one."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form, Repeats
from lovrit.core.blocks.fade import read_counts
from lovrit.core.blocks.floor import Floor
from lovrit.core.blocks.for_time import DEFAULT_ROUND_S, raced, read_rounds
from lovrit.core.blocks.options import AIMS, CAP, DROP_LAST, REST_BY_CLOCK
from lovrit.core.blocks.parts import Count, Seconds
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import RESTS, Saying
from lovrit.core.blocks.score import Scoring, most_score
from lovrit.core.blocks.step import Case, Laying, Step
from lovrit.core.blocks.worktime import FACTOR, round_s
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Task
from lovrit.core.slate.words import Word

QUALITY_TAKES = {**SAID_AIMS, **RESTS, "cap": "cap {}", "around": ""}
MAXED_TAKES = {**QUALITY_TAKES, "maxed": "<max"}


class Quality(Block):
    """Unhurried rounds with a rest after each."""

    kind: Literal["quality"] = "quality"
    rounds: Count
    rest_s: Seconds = 0
    cap_s: Seconds | None = None
    drop_last_rest: bool = False

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying("{rounds} rounds for quality", QUALITY_TAKES, ("quality",), least=1),
        Saying("{rounds} rounds for quality", QUALITY_TAKES, ("around",), least=1),
        Saying("{sets} rounds for quality", MAXED_TAKES, ("maxed",), wants="rest", least=1),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "quality",
            ("count ROUNDS FOR_QUALITY",),
            read_rounds,
            (*AIMS, REST_BY_CLOCK, CAP, DROP_LAST),
            "3 rounds for quality, rest 0:45",
        ),
    )
    words: ClassVar[tuple[Word, ...]] = (
        Word("FOR_QUALITY.5", r"/for[ \t]+quality\b/i", "“for quality”", "for quality"),
    )
    in_parts: ClassVar[bool] = True
    interval_block: ClassVar[bool] = True
    ends_together: ClassVar[bool] = False
    by_reps: ClassVar[bool] = True

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.rounds.of('round')} for quality"

    @property
    def repeats(self) -> Repeats:
        """Its rounds."""
        return Repeats("rounds", self.rounds)

    @property
    def own_rest_s(self) -> int:
        """As written."""
        return self.rest_s

    @property
    def drops_last_rest(self) -> bool | None:
        """Whether the last rest is dropped."""
        return self.drop_last_rest

    @property
    def is_forecast(self) -> bool:
        """Rounds take what they take."""
        return True

    @property
    def to_the_most(self) -> bool:
        """Whether each round is as many as one can of one move."""
        return self._most_of is not None

    @property
    def _most_of(self) -> Task | None:
        """The one thing that each round is as many of as one can; None where it is something else."""
        tasks = [task for line in self.moves if not line.is_rest for task in line.tasks]
        amount = tasks[0].amount if len(tasks) == 1 else None
        return tasks[0] if amount and amount.form == "max" else None

    @property
    def asks_for(self) -> str | None:
        """What each round came to, where it is as many as one can."""
        return "reps of each round, or seconds" if self.to_the_most else None

    def read_score(self, said: str, given: Scoring) -> str:
        """Reps (of a hold seconds) round by round, or of the first alone."""
        if self._most_of is None:
            return super().read_score(said, given)
        move = given.library.find(self._most_of.name)
        return most_score(said, self.rounds.high, "s" if move and move.counted == "s" else "reps")

    def reads(self, score: str) -> str:
        """How they fell, round by round."""
        return read_counts(score, self.rounds.high) if self.to_the_most else ""

    def visits(self, line: int, library: Library) -> float:
        """Its rounds."""
        del line, library
        return self.rounds.high

    def floor(self, laying: Laying) -> Floor:
        """Each person until they are done, or until the cap."""
        return raced(self, laying, self.cap_s, 0)

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Round by round, until the cap."""
        rounds = laying.times(self.rounds)
        once = round_s(self.moves, laying.library, laying.case) or self._share(rounds, laying.case)
        left = self.cap_s if self.cap_s is not None else once * rounds + self.rest_s * rounds
        for nth in range(1, rounds + 1):
            work = self.work(min(once, left), nth, 1, 0 if len(self.moves) == 1 else None)
            yield work
            left -= work.seconds
            yield self.pause("rest", min(self.rest_s, left), work)
            left -= min(self.rest_s, left)

    def _share(self, rounds: int, case: Case) -> int:
        """A round where nobody said how much is in it: its share of the cap, or a minute."""
        if self.cap_s is None:
            return round(DEFAULT_ROUND_S * FACTOR[case])
        return max(1, self.cap_s // rounds - self.rest_s)
