"""Plain intervals: a pattern of works and rests repeated, or an amount repeated with a rest."""

from collections.abc import Iterator
from typing import ClassVar, Literal, Self

from lovrit.core.blocks.block import Form, Repeats
from lovrit.core.blocks.fade import read_counts, read_times
from lovrit.core.blocks.floor import Floor, FloorStep, by_clock
from lovrit.core.blocks.options import (
    AIMS,
    DROP_LAST,
    LEAD_IN,
    LEAST,
    MOST,
    REST,
    REST_BY_EFFORT,
    WHEN,
    Fields,
    Option,
    Read,
)
from lovrit.core.blocks.outlook import CASES, Outlook, part_of, rests_on
from lovrit.core.blocks.paired import Paired, said
from lovrit.core.blocks.parts import (
    Count,
    Pair,
    Seconds,
    Stretch,
    count_figure,
    read_count,
    read_over,
    read_pair,
)
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import RESTS as SAID_RESTS
from lovrit.core.blocks.roles import Roles, Saying
from lovrit.core.blocks.score import QUICKEST, Scoring, counts_score, repeats_score
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.blocks.worktime import amount_s, least_s
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Amount
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, figure, tokens, trees
from lovrit.core.slate.words import Word
from lovrit.core.slate.written import whole_amount

EQUAL = "= work"
SAID_BREAKS = ("rest", "within", "between", "easy")
SAID_WORKS = {**SAID_AIMS, **dict.fromkeys(SAID_BREAKS, "")}
SCORE = Option(
    "score",
    "SCORE",
    "score",
    lambda node: Read({"score": str(node.children[0]).split()[-1].lower()}, []),
    lambda block: f"score {block.score}" if block.score else "",
    (
        Word(
            "SCORE.4",
            r"/score[ \t]+(?:slowest|fastest|total|best)\b/i",
            "“score slowest”",
            "score slowest",
        ),
    ),
    "score slowest",
)


def _read(node: Node) -> Read:
    times, *inner = trees(node)
    read = [read_pair(one, "" if len(inner) == 1 else f" {at}") for at, one in enumerate(inner, 1)]
    fields = {"count": read_count(times, "intervals"), "pattern": tuple(one for one, _ in read)}
    figures = [one for _, shown in read for one in shown]
    return Read(fields, count_figure("count", times) + figures)


def _read_repeats(node: Node) -> Read:
    times, unit = trees(node)
    number = tokens(node, "NUM")[0]
    fields = {"count": read_count(times, "repeats"), "each": read_over(number, unit)}
    figures = [*count_figure("count", times), figure("each", number, float(number), timed=False)]
    return Read(fields, figures)


def _said_pattern(roles: Roles) -> Roles:
    """Works that differ, each with the rest that was said: the same after each, or as long as it was."""
    if "works" not in roles:
        return roles
    rest = next((roles[one] for one in SAID_BREAKS if one in roles), "")
    left = {name: said for name, said in roles.items() if name != "works"}
    works = roles["works"].split()
    return {**left, "pattern": " ".join(f"{one}/{one if rest == EQUAL else rest}" for one in works)}


class Intervals(Paired):
    """Works and rests, or an amount and its rest, so many times."""

    kind: Literal["intervals"] = "intervals"
    count: Count
    pattern: tuple[Pair, ...] = ()
    each: Amount | None = None
    rest_s: Seconds = 0
    rest_share: float | None = None
    rest_over: Amount | None = None
    rest_by: str = ""
    score: Literal["slowest", "fastest", "total", "best"] | None = None

    sayings: ClassVar[tuple[Saying, ...]] = (
        *(
            Saying(head, SAID_AIMS, most=1)
            for head in (
                "{times} x {pair}",
                "{times} x {work}/{rest}",
                "{times} x {work}/{within}",
                "{times} x {work}/{between}",
            )
        ),
        Saying("{rounds} x {pair}", SAID_AIMS, most=0),
        Saying("{rounds} x {work}/{rest}", SAID_AIMS, most=0),
        Saying("{times} x {far}", {**SAID_RESTS, **SAID_AIMS}, wants="rest", most=1),
        Saying("{times} x {pair}", SAID_AIMS, most=1, times="outer"),
        Saying("{times} x {far}", {**SAID_AIMS, "rest": "rest {}"}, most=1, times="outer"),
        Saying("1 x {once_far}", {**SAID_AIMS, "around": ""}, most=1),
        Saying("{times} x ({pattern})", SAID_AIMS, most=1),
        *(
            Saying(head, SAID_WORKS, wants="rest", most=1, derive=_said_pattern)
            for head in ("1 x ({pattern})", "{times} x ({pattern})", "{rounds} x ({pattern})")
        ),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "intervals",
            ("count X pair", "count X OPEN pair (COMMA? pair)* CLOSE"),
            _read,
            (*AIMS, REST_BY_EFFORT, LEAD_IN, LEAST, MOST, WHEN, SCORE, DROP_LAST),
            "6 x 30/60 at 9",
        ),
        Form(
            "repeats",
            ("count X NUM unit",),
            _read_repeats,
            (*AIMS, REST, LEAD_IN, SCORE, DROP_LAST),
        ),
    )
    most_lines: ClassVar[int | None] = 1

    @classmethod
    def check(cls, fields: Fields, at: int) -> None:
        """Pairs have their limits, an amount has none; what is scored is a time of an amount, else the best try."""
        if "each" not in fields:
            super().check(fields, at)
        score = fields.get("score")
        if score and (score == "best") == ("each" in fields):
            said = ("score fastest", "score slowest") if "each" in fields else ("score best",)
            raise Unreadable(f"“score {score}” is of another kind of block.", at, said)

    @property
    def head(self) -> str:
        """Its first words."""
        return f"{self.count} x {self._written()}"

    def _written(self) -> str:
        if self.each:
            return whole_amount(self.each)
        if len(self.pattern) == 1:
            return str(self.pattern[0])
        return "(" + " ".join(map(str, self.pattern)) + ")"

    @property
    def form(self) -> Form:
        """By time, or by amount."""
        return self.forms[1 if self.each else 0]

    @property
    def repeats(self) -> Repeats:
        """How often."""
        return Repeats("count", self.count)

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """Its pattern."""
        return self.pattern

    @property
    def own_rest_s(self) -> int | None:
        """As written: of the pattern's last, or behind the amount."""
        return (None if self.rest_is_forecast else self.rest_s) if self.each else super().own_rest_s

    @property
    def amount(self) -> Amount | None:
        """What each repeat is."""
        return self.each

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """The pattern, again and again."""
        move = 0 if self.moves else None
        for nth in range(1, laying.times(self.count) + 1):
            for turn, (work_s, rest_s) in enumerate(self._lengths(laying), 1):
                work = self.work(work_s, nth, turn, move)
                yield work
                yield self.pause("rest", rest_s, work)

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """Which repeat, which attempt, else which round and turn of how many."""
        word = "repeat" if self.each else "attempt" if self.score == "best" else ""
        return f"{word} {round_} of {of[1]}" if word else super().where(turn, round_, of)

    def floor(self, laying: Laying) -> Floor:
        """Repeats of an amount: each group comes in when it does, and has its own rest."""
        if not self.each:
            return super().floor(laying)
        return Floor("groups", tuple(self._by_tap(one) for one in self.unroll(laying)), up=True)

    def _by_tap(self, step: Step) -> FloorStep:
        made = by_clock(step)
        if step.phase == "work":
            return made._replace(clock_s=None, tap="in", likely_s=step.seconds)
        if step.phase == "rest" and self.rest_share:
            return made._replace(clock_s=None, share=self.rest_share, likely_s=step.seconds)
        return made

    def _lengths(self, laying: Laying) -> list[tuple[int, int]]:
        if self.each:
            taken = amount_s(self.each, self._name, laying.library, laying.case)
            work_s = round(taken or 0)
            return [(work_s, self._rest_after(work_s, laying))]
        return [
            (self.length(pair.work, laying), self.length(pair.rest, laying))
            for pair in self.pattern
        ]

    def _rest_after(self, work_s: int, laying: Laying) -> int:
        """A rest by the clock, by one's own work, or the way there."""
        if self.rest_share:
            return round(work_s * self.rest_share)
        if self.rest_over:
            return round(amount_s(self.rest_over, self.rest_by, laying.library, laying.case) or 0)
        return self.rest_s

    @property
    def rest_is_forecast(self) -> bool:
        """Whether the rest follows from what people take."""
        return bool(self.rest_share or self.rest_over) or super().rest_is_forecast

    @property
    def _name(self) -> str:
        return self.moves[0].name if self.moves else ""

    def arithmetic(self) -> list[str]:
        """The pattern and how often."""
        if self.each:
            return []
        pairs = " + ".join(f"{said(pair.work)} + {said(pair.rest)}" for pair in self.pattern)
        return [f"{self.count.high} x ({pairs})"]

    @property
    def asks_for(self) -> str | None:
        """A time, where an amount is repeated; else what was done in the works, where that is counted."""
        if self.each:
            return f"each or {self.score or 'slowest'}, m:ss"
        worked = [line for line in self.moves if not line.is_rest]
        unit = "best of its attempts, reps or metres" if self.score else "reps or metres"
        return unit if worked and self.pattern else None

    def read_score(self, said: str, given: Scoring) -> str:
        """Times of an amount that is repeated; reps or metres of works by the clock."""
        if self.each:
            quick = amount_s(self.each, self._name, given.library, "low") or 0
            return repeats_score(said, self.count.high, given.planned_s, quick / QUICKEST)
        works = self.count.high * len(self.pattern)
        longest = max((pair.work.seconds or 0 for pair in self.pattern), default=0)
        return counts_score(
            said, works, longest or given.planned_s, least_s(self.moves, given.library)
        )

    def reads(self, score: str) -> str:
        """Of repeats the slowest, evenness and fade; of counts all of them, and whether it went out too fast."""
        return (
            read_times(score)
            if self.each
            else read_counts(score, self.count.high * len(self.pattern))
        )

    def outlook(self, library: Library) -> Outlook | None:
        """What a repeat of an amount takes."""
        if not self.each:
            return None
        taken = [amount_s(self.each, self._name, library, case) for case in CASES]
        if taken[0] is None or taken[1] is None or taken[2] is None:
            return None
        slow, likely, quick = (round(one) for one in (taken[0], taken[1], taken[2]))
        how = f"{part_of(self.each, likely)}, so " if self.each.unit != "reps" else ""
        told = f"{how}about {clock(likely)} a repeat, {clock(quick)} for quick and {clock(slow)} for slow people"
        return Outlook(
            said=rests_on(told, library), times_s=(slow, likely, quick), timed="a repeat"
        )

    def with_figure(self, name: str, value: float) -> Self:
        """The block with one of its figures set; beside an amount there is a rest alone."""
        if name == "rest" and self.each:
            return self.but(rest_s=round(value))
        return super().with_figure(name, value)

    def with_pairs(self, pairs: tuple[Pair, ...]) -> Self:
        """The block with another pattern."""
        return self.but(pattern=pairs)


def pair_of(work_s: int, rest_s: int) -> Pair:
    """A work and a rest by the clock."""
    return Pair(work=Stretch(seconds=work_s), rest=Stretch(seconds=rest_s))
