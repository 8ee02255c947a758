"""A task at the start of each period, one line a turn, in order; what the work leaves over is rest."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Block, Form
from lovrit.core.blocks.floor import Floor, FloorStep, by_clock
from lovrit.core.blocks.ladder import LADDER, Ladder, with_reps
from lovrit.core.blocks.marks import Mark
from lovrit.core.blocks.options import AIMS, CAP, REST_BY_EFFORT, Fields, Option, Read, timed
from lovrit.core.blocks.outlook import CASES, Outlook, TurnLeft, rests_on, unknown_outlook
from lovrit.core.blocks.parts import Seconds
from lovrit.core.blocks.roles import AIMS as SAID_AIMS
from lovrit.core.blocks.roles import Roles, Saying, product
from lovrit.core.blocks.score import Scoring, turns_score
from lovrit.core.blocks.step import Laying, Stage, Step
from lovrit.core.blocks.worktime import line_s, slowing, unknown_move
from lovrit.core.blocks.worktime import timed as all_timed
from lovrit.core.clock import clock, read_clock
from lovrit.core.moves.library import Library
from lovrit.core.slate.line import Line
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, figure, seconds, trees
from lovrit.core.slate.words import Word

MINUTE_S = 60
HALF_START = Option(
    "half_start",
    "HALF_START time",
    "half start at",
    timed("half_start_s", "half start"),
    lambda block: f"half start at {clock(block.half_start_s)}" if block.half_start_s else "",
    (
        Word(
            "HALF_START.4",
            r"/half[ \t]+starts?[ \t]+at\b/i",
            "“half start at” and a time",
            "half start at",
        ),
    ),
    "half start at",
)


def _read(node: Node) -> Read:
    period, total = (seconds(child) for child in trees(node))
    if not period or total < period:
        raise Unreadable("The whole has to last at least one turn.", column(trees(node)[1]))
    shown = [figure("period", trees(node)[0], period), figure("total", trees(node)[1], total)]
    return Read({"period_s": period, "total_s": total}, shown)


def _read_open(node: Node) -> Read:
    """A period alone: how long it goes on is its cap."""
    inner = trees(node)[0]
    period = seconds(inner)
    if not period:
        raise Unreadable("A turn lasts some time.", column(inner), ("every 1:00",))
    return Read({"period_s": period}, [figure("period", inner, period)])


UNTIL_CAP = Option(
    "cap",
    "CAP time",
    "cap",
    timed("total_s", "total"),
    lambda block: f"cap {clock(block.total_s)}",
    CAP.words,
)


def turn_of(period_s: int, nth: int, of: int) -> str:
    """Which turn of how many, where one of sixty seconds is a minute."""
    return f"{'minute' if period_s == MINUTE_S else 'turn'} {nth} of {of}"


def _said_total(roles: Roles) -> Roles:
    """How long so many turns take; a length that isn't so many whole turns is no length of it."""
    if "period" not in roles:
        return roles
    said = dict(roles)
    if "time" in said:
        said.setdefault("total", said.pop("time"))
    times = said.get("rounds") or said.get("times") or ""
    if "total" not in said and times.isdecimal():
        return {**said, "total": product(said["period"], int(times) * int(said.get("turns", "1")))}
    if "total" in said and read_clock(said["total"]) % read_clock(said["period"]):
        said["part of a turn"] = said.pop("total")
    return said


class Every(Block):
    """A task at the start of each period."""

    kind: Literal["every"] = "every"
    period_s: Seconds
    total_s: Seconds
    half_start_s: Seconds = 0
    ladder: Ladder | None = None

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying(
            "every {period} for {total}",
            {**SAID_AIMS, "rounds": "", "times": "", "alternating": "", "work": "<{} s"},
            derive=_said_total,
            least=1,
        ),
        Saying("every {period}, ladder {ladder}, cap {cap}", SAID_AIMS, least=1),
        Saying("every {period}, ladder {ladder}, cap {total}", SAID_AIMS, least=1),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "every",
            ("EVERY time FOR time",),
            _read,
            (*AIMS, REST_BY_EFFORT, HALF_START),
            "every 1:00 for 12:00",
        ),
        Form("every_rung", ("EVERY time",), _read_open, (*AIMS, LADDER, UNTIL_CAP)),
    )
    interval_block: ClassVar[bool] = True
    circuit: ClassVar[bool] = True
    in_turns: ClassVar[bool] = True
    from_memory: ClassVar[bool] = True

    @classmethod
    def check(cls, fields: Fields, at: int) -> None:
        """How long it lasts has to be said."""
        if "total_s" not in fields:
            raise Unreadable("How long does it go on?", at, ("for 12:00", "ladder 1 +1, cap 15:00"))

    @property
    def form(self) -> Form:
        """For a time, or rung by rung until its cap."""
        return self.forms[1 if self.ladder else 0]

    @property
    def head(self) -> str:
        """Its first words."""
        if self.ladder:
            return f"every {clock(self.period_s)}"
        return f"every {clock(self.period_s)} for {clock(self.total_s)}"

    @property
    def turn_s(self) -> int:
        """A period."""
        return self.period_s

    @property
    def length_s(self) -> int:
        """As written; a later half makes it longer by its start."""
        return self.total_s

    @property
    def rest_is_forecast(self) -> bool:
        """The rest is what the work leaves over, unless all work is written as times."""
        return not all(all_timed(line) for line in self.moves)

    def floor(self, laying: Laying) -> Floor:
        """A clock a turn, never cut in two; where half start later, two waves."""
        firsts = {one.turn: by_clock(one) for one in reversed(list(self.own_steps(laying)))}
        steps = []
        for nth in range(1, self.turns + 1):
            first = firsts.get(nth) or firsts[1]
            line = self.moves[(nth - 1) % len(self.moves)] if self.moves else None
            length = min(self.period_s, self.total_s - self.period_s * (nth - 1))
            steps.append(
                first._replace(
                    phase="rest" if line and line.is_rest else "work", clock_s=length, turn=nth
                )
            )
        if not self.half_start_s:
            return Floor("all", tuple(steps))
        return Floor("waves", tuple(steps), offsets_s=(0, self.half_start_s))

    @property
    def turns(self) -> int:
        """How many turns there are; one that is begun counts."""
        return -(-self.total_s // self.period_s)

    @property
    def asks_for(self) -> str:
        """Turns kept up."""
        return f"turns kept up of {self.turns}"

    def read_score(self, said: str, given: Scoring) -> str:
        """Turns that were kept up, of those that there are."""
        del given
        return turns_score(said, self.turns)

    def reads(self, score: str) -> str:
        """The first turn that was missed."""
        kept, _, turns = score.partition(" + ")[0].partition(" of ")
        return "" if not turns or kept == turns else f"first missed: turn {int(kept) + 1}"

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """A line a turn, in order, again and again."""
        lines = max(1, len(self.moves))
        for nth, start in enumerate(range(0, self.total_s, self.period_s)):
            period = min(self.period_s, self.total_s - start)
            line = self.moves[nth % lines] if self.moves else None
            rung = self.climbed(line, nth // lines + 1) if line else None
            needed = line_s(rung, laying.library) if rung else None
            work_s = min(period, needed) if needed is not None else period
            work = self.work(
                work_s, nth // lines + 1, nth % lines + 1, nth % lines if line else None
            )
            yield work
            yield self.pause("rest", period - work_s, work)
        yield Step(phase="break", seconds=self.half_start_s)

    def climbed(self, line: Line, nth: int) -> Line:
        """A line as it is done the n-th time (from 1): on a ladder with more reps each time."""
        return with_reps(line, self.ladder.at(nth)) if self.ladder else line

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """On a ladder the reps of this turn."""
        del counted
        visit = ((step.turn or 1) - 1) // max(1, len(self.moves)) + 1
        return str(self.ladder.at(visit)) if self.ladder else ""

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """The minute, where it is one; which line it is goes without saying."""
        del round_
        return turn_of(self.period_s, turn or 1, of[0])

    def visits(self, line: int, library: Library) -> float:
        """Whole turns that fall on the line."""
        del library
        turns = self.total_s // self.period_s
        return (turns - line - 1) // len(self.moves) + 1 if turns > line else 0

    def outlook(self, library: Library) -> Outlook | None:
        """What each turn leaves over, told of the fullest."""
        unknown = unknown_move(self.moves, library)
        if unknown:
            return unknown_outlook(unknown)
        turns = [
            turn for turn in (self._turn(at, library) for at in range(len(self.moves))) if turn
        ]
        if not turns:
            return None
        tight = min(turns, key=lambda turn: turn.left_s[0])
        name, (slow, middle, _) = self.moves[tight.move].name, tight.left_s
        theirs = f"slow people {slow} s" if slow >= 0 else f"slow people are {-slow} s over"
        told = f"{name} leaves about {max(0, middle)} s of {clock(self.period_s)}, {theirs}"
        if tight.late_from and slow >= 0:
            told += f"; from turn {tight.late_from} on they don't make it"
        return Outlook(said=rests_on(told, library), turns=tuple(turns))

    def _turn(self, at: int, library: Library) -> TurnLeft | None:
        taken = [line_s(self.moves[at], library, case) for case in CASES]
        if taken[0] is None or taken[1] is None or taken[2] is None:
            return None
        slow, likely, quick = taken[0], taken[1], taken[2]
        turns = range(at + 1, self.total_s // self.period_s + 1, len(self.moves))
        late = (nth for visit, nth in enumerate(turns, 1) if slow * slowing(visit) > self.period_s)
        period = self.period_s
        return TurnLeft(at, (period - slow, period - likely, period - quick), next(late, None))

    def drawn(self, one: Stage) -> Mark | None:
        """What is left over of a turn stands low."""
        if one.phase == "rest":
            return Mark("leftover", 0, one.seconds, one.move or 0, height=0.15)
        return super().drawn(one)

    def marks(self, one: Stage, library: Library, quickest_s: int) -> list[Mark]:
        """The first half of the group, and below it the second, which starts later."""
        if one.phase != "work" or not self.half_start_s:
            return super().marks(one, library, quickest_s)
        line, late = one.move or 0, self.half_start_s
        return [
            Mark("work", 0, one.seconds, line, shelf=0, shelves=2),
            Mark("second", late, late + one.seconds, line, shelf=1, shelves=2),
        ]
