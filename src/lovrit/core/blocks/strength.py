"""Sets of reps at a station, with a rest after each; a change follows each station but the last."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from lovrit.core.blocks.block import Between, Block, Form, Repeats
from lovrit.core.blocks.floor import Floor, FloorStep, merged
from lovrit.core.blocks.options import AIMS, DROP_LAST, REST_BY_CLOCK, TOGETHER, Read
from lovrit.core.blocks.parts import Count, Seconds, count_figure, read_count
from lovrit.core.blocks.roles import RESTS as SAID_RESTS
from lovrit.core.blocks.roles import Roles, Saying
from lovrit.core.blocks.score import Scoring, load_score, reps_score
from lovrit.core.blocks.sets import CHANGE
from lovrit.core.blocks.stay import at_stations
from lovrit.core.blocks.step import Laying, Step
from lovrit.core.blocks.worktime import line_s, reps_s
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.moves.names import FREE
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.tree import Node, column, tokens, trees, whole

MOST_REPS = 500


def _read(node: Node) -> Read:
    sets, reps = trees(node)
    fields = {"sets": read_count(sets, "sets"), "reps": read_count(reps, "reps", MOST_REPS)}
    return Read(fields, count_figure("sets", sets) + count_figure("reps", reps))


def _read_by_set(node: Node) -> Read:
    """Reps that go by set: 5-3-1."""
    sets = trees(node)[0]
    by_set = tuple(whole(token, "reps", most=MOST_REPS) for token in tokens(node, "NUM"))
    times = read_count(sets, "sets")
    if times.high != len(by_set):
        said = f"{times} sets and reps for {len(by_set)}: they have to be as many."
        raise Unreadable(
            said, column(node), (f"{len(by_set)} sets of {'-'.join(map(str, by_set))}",)
        )
    reps = Count(low=min(by_set), high=max(by_set))
    return Read({"sets": times, "reps": reps, "by_set": by_set}, [])


def _said_by_set(roles: Roles) -> Roles:
    """Reps that go by set are as many sets."""
    if "scheme" not in roles or "to" in roles["scheme"] or roles["scheme"].count("-") < 2:
        return roles
    left = {name: said for name, said in roles.items() if name != "scheme"}
    return {**left, "sets": str(roles["scheme"].count("-") + 1), "reps": roles["scheme"]}


class Strength(Block):
    """Sets of reps at a station, with a rest after each."""

    kind: Literal["strength"] = "strength"
    sets: Count
    reps: Count
    rest_s: Seconds = 0
    change_s: Seconds | None = None
    change_added: bool = False
    drop_last_rest: bool = False
    together: bool = False
    by_set: tuple[int, ...] = ()

    sayings: ClassVar[tuple[Saying, ...]] = (
        Saying(
            "{sets} sets of {reps}",
            {
                **SAID_RESTS,
                "together": "together",
                "change": "change {}",
                "time": "rest {}",
                "effort": "~at {}",
            },
            wants="rest",
            least=1,
            derive=_said_by_set,
        ),
    )
    forms: ClassVar[tuple[Form, ...]] = (
        Form(
            "strength",
            ("count SETS OF count REPS",),
            _read,
            (*AIMS, REST_BY_CLOCK, TOGETHER, CHANGE, DROP_LAST),
            "3 sets of 12 reps, rest 1:30",
        ),
        Form(
            "strength_by_set",
            ("count SETS OF NUM DASH NUM (DASH NUM)+",),
            _read_by_set,
            (*AIMS, REST_BY_CLOCK, TOGETHER, CHANGE, DROP_LAST),
        ),
    )
    needs_stations: ClassVar[bool] = True
    interval_block: ClassVar[bool] = True
    lifts: ClassVar[bool] = True
    ends_together: ClassVar[bool] = False

    @property
    def head(self) -> str:
        """Its first words."""
        reps = "-".join(map(str, self.by_set)) if self.by_set else f"{self.reps} reps"
        return f"{self.sets.of('set')} of {reps}"

    @property
    def set_reps(self) -> int:
        """The most of a set."""
        return self.reps.high

    @property
    def repeats(self) -> Repeats:
        """Its sets."""
        return Repeats("sets", self.sets)

    @property
    def between(self) -> Between:
        """The change between stations."""
        return Between("change", self.change_s, self.change_added)

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
        """Reps take what they take."""
        return True

    def reps_done(self, line: int, library: Library, work_s: int) -> float:
        """Its sets of its reps."""
        del library, work_s
        own = self.moves[line].tasks[0].amount
        if own and own.high is not None and own.unit == "reps":
            return self.sets.high * own.high
        return sum(self.by_set) or self.sets.high * self.reps.high

    def reps_in(self, nth: int) -> float:
        """Reps of a set (from 1), the middle of a range."""
        return self.by_set[nth - 1] if self.by_set else (self.reps.low + self.reps.high) / 2

    def floor(self, laying: Laying) -> Floor:
        """A clock a station, one for all where they are done together: sets are at people's own pace."""
        if not self.together:
            return Floor("all", tuple(merged(self.unroll(laying), "move")))
        return Floor(
            "all", tuple(one._replace(move=None) for one in merged(self.unroll(laying), ""))
        )

    def reps_said(self, step: FloorStep, counted: int) -> str:
        """Reps of this set."""
        del counted
        return str(self.by_set[(step.round or 1) - 1] if self.by_set else self.reps)

    def label_of(self, line: int) -> str:
        """A1, A2, where they are done one after the other."""
        return f"A{line + 1}" if self.together else ""

    def where(self, turn: int | None, round_: int | None, of: tuple[int, int]) -> str:
        """Which set; of a station where there are several, of all lines where they are done together."""
        nth = f"{self._one} {round_ or 1} of {self.sets.high}"
        return f"station {turn} of {of[0]}, {nth}" if of[0] > 1 and not self.together else nth

    @property
    def _one(self) -> str:
        """What is counted: a set, or all lines once."""
        return ("pair" if len(self.moves) == 2 else "round") if self.together else "set"

    @property
    def rest_said(self) -> str:
        """The rest that follows each set."""
        return f"rest {clock(self.rest_s)} after each {self._one}" if self.rest_s else ""

    @property
    def asks_for(self) -> str:
        """The load of the top set, and how many sets were done."""
        return "top set, kg x reps"

    def read_score(self, said: str, given: Scoring) -> str:
        """A load, its reps and sets; of a move without any load its reps alone."""
        if "kg" in said.casefold() or self._loaded(given.library):
            return load_score(said, self.sets.high)
        return reps_score(said, self.sets.high)

    def _loaded(self, library: Library) -> bool:
        """Whether its moves are done with a load, written or not; also where nobody knows the move."""
        tasks = [line.tasks[0] for line in self.moves if not line.is_rest]
        known = all(library.find(task.name) for task in tasks)
        return not known or any(
            task.load or set(library.kit_of(task.name)) & FREE for task in tasks
        )

    def own_steps(self, laying: Laying) -> Iterator[Step]:
        """Set by set, station by station; a set takes as long as its reps."""

        def work_s(at: int, nth: int) -> int:
            task, reps = self.moves[at].tasks[0], self.reps_in(nth)
            library, case = laying.library, laying.case
            if task.amount:
                return line_s(self.moves[at], library, case) or 0
            once = reps * task.rep_s if task.rep_s else reps_s(task.name, reps, library, case)
            return round(once * (2 if task.side == "each" else 1))

        sets = laying.times(self.sets)
        if not self.together:
            yield from at_stations(self, sets, work_s, self.rest_s)
            return
        for nth in range(1, sets + 1):
            work = None
            for at in range(len(self.moves)):
                work = self.work(work_s(at, nth), nth, at + 1, at)
                yield work
            if work:
                yield self.pause("rest", self.rest_s, work)
