"""A block of a message while its lines are gathered, and the slate's own block that all its roles make."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from math import inf
from typing import NamedTuple

from lovrit.core.blocks.kinds import KINDS
from lovrit.core.blocks.roles import Roles, Saying
from lovrit.core.reading.figured import short
from lovrit.core.reading.giving import clocked, seconds_in
from lovrit.core.reading.line import Left, Said, Task

MINUTE = "1:00"


class Offer(NamedTuple):
    """A way to read a block: the kind's saying, its roles, and what is missing or left over where it doesn't fit."""

    saying: Saying
    roles: Roles
    missing: tuple[str, ...] = ()
    over: tuple[str, ...] = ()


# said in these words only where somebody did; what is asked for has a plainer word
UNUSUAL = frozenset(
    {
        "time",
        "work",
        "each",
        "within",
        "change",
        "times",
        "once_far",
        "maxed",
        "cap",
        "once",
        "ladder",
    }
)


def _seconds(said: str) -> float:
    """A length; one that nobody wrote is as long as it takes."""
    return seconds_in(said) if said else inf


OUTER = "outer"  # how often whole sets of intervals are done
RESTS = frozenset({"rest", "between", "within"})
ASIDE = frozenset({"turns", "stations", "maxed"})  # roles that say nothing that has to be written


def _unsaid(saying: Saying, roles: Roles) -> tuple[str, ...]:
    """Rests that a way needs said, and nobody said."""
    between = ("between",) if saying.times and not RESTS & roles.keys() else ()
    wanted = {saying.wants, "within", "between", "needed", "time"}
    return between + ((saying.wants,) if saying.wants and not wanted & roles.keys() else ())


def _off(offer: Offer) -> int:
    """How far a way is from what was written: what is left over weighs more than what is lacking."""
    return len(offer.missing) + 2 * len(offer.over)


CLOCK = frozenset({"pair", "each", "work"})


def _last_longer(tasks: list[Task], rests: list[int]) -> int:
    """Seconds of the last rest, where it is longer than all before it, which are alike: the break of a round."""
    each = len(rests) * 2 == len(tasks) and len(rests) > 1 and tasks[-1].name == "rest"
    return rests[-1] if each and len(set(rests[:-1])) == 1 and rests[-1] > rests[0] else 0


def _by_the_clock(draft: "Draft", roles: dict[str, str]) -> dict[str, str]:
    """Rounds whose lines are all as long: so long at each, with the rest that stands among them."""
    tasks = [line[0] for line in draft.tasks if len(line) == 1]
    lengths = {one.seconds for one in tasks if one.name != "rest"}
    rounds = {"rounds", "times"} & roles.keys()
    if (
        len(tasks) != draft.moves
        or len(lengths) != 1
        or not rounds
        or roles.keys() & (CLOCK | NO_CLOCK)
    ):
        return {}
    work = lengths.pop()
    rests = [one.seconds for one in tasks if one.name == "rest"]
    if not work:
        return {}
    return _with_rests(tasks, work, rests) if rests else _without(draft, roles, work)


def _with_rests(tasks: list[Task], work: int, rests: list[int]) -> dict[str, str]:
    """By the rests that stand among the lines: one behind each, or one at the end."""
    longer = _last_longer(tasks, rests)
    if longer:
        return {"pair": f"{short(work)}/{short(rests[0])}", "between": clocked(longer)}
    if len(set(rests)) > 1 or not rests[0]:
        return {}
    if len(rests) * 2 == len(tasks):
        return {"pair": f"{short(work)}/{short(rests[0])}"}
    last = tasks[-1].name == "rest" and len(rests) == 1
    return {"each": short(work), "between": clocked(rests[0])} if last else {}


def _without(draft: "Draft", roles: dict[str, str], work: int) -> dict[str, str]:
    """By the rest that is said of the block, where there is one."""
    if "rest" not in roles:
        return {"each": short(work)} if draft.moves > 1 else {}
    if draft.moves == 1:
        return {"work": short(work)}
    # behind several: after the round, where it is as long as the work
    whole = ":" in roles["rest"] and seconds_in(roles["rest"]) >= work
    return {"each": short(work), "between": roles["rest"]} if whole else {}


NO_CLOCK = frozenset({"fortime", "amrap", "quality", "period", "scheme", "cap", "sets", "far"})


@dataclass
class Draft:
    """A block as its lines have it."""

    roles: dict[str, str] = field(default_factory=dict)
    tasks: list[list[Task]] = field(default_factory=list)
    labels: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    left: list[Left] = field(default_factory=list)
    lines: list[Said] = field(default_factory=list)
    then_at: list[int] = field(default_factory=list)
    marks: tuple[str, ...] = ()
    inside: list["Draft"] = field(default_factory=list)
    minutes: str = ""  # of the part of the evening that it stands in

    @property
    def moves(self) -> int:
        """How many lines of tasks."""
        return len(self.tasks)

    @property
    def labels_of_lines(self) -> list[str]:
        """The labels that stood before its lines."""
        return [one.label for one in self.lines]

    def add(self, line: Said) -> None:
        """A line that belongs to it."""
        self.lines.append(line)
        self.notes += line.notes
        self.left += [one._replace(task=one.task + self.moves) for one in line.left] + [
            Left(one.value or one.name, one.name) for one in line.again
        ]
        for name, value in line.roles.items():
            if self.roles.get(name, value) != value:
                self._clash(name, value)
            else:
                self.roles[name] = value
        if line.tasks:
            self._tasks(line)
        if line.marks and self.tasks:
            self._marked(tuple(line.marks))
        elif line.marks:
            self.marks += tuple(line.marks)

    def _clash(self, name: str, value: str) -> None:
        if name == "rest" and "between" not in self.roles:
            self.roles["between"] = value
        elif name == "company":
            self.roles[name] = value
        else:
            self.left.append(Left(value or name, name))

    def _tasks(self, line: Said) -> None:
        """Its tasks: a line each, but one line together where a turn has its own."""
        joined = (line.label or line.joined) and "period" in self.roles
        together = joined and len(line.tasks) > 1
        self.tasks += [line.tasks] if together else [[one] for one in line.tasks]
        self.labels += [line.label] * (1 if together else len(line.tasks))

    def _marked(self, marks: tuple[str, ...]) -> None:
        last = self.tasks[-1][-1]
        self.tasks[-1][-1] = replace(last, marks=(*last.marks, *marks))

    def offers(self) -> list[Offer]:
        """All ways in which every role is taken."""
        return [one for one in self.tried() if not one.missing and not one.over]

    def nearest(self) -> list[Offer]:
        """The ways that lack least."""
        tried = list(self.tried())
        least = min(map(_off, tried), default=0)
        near = [one for one in tried if _off(one) == least]
        usual = [one for one in near if not set(one.missing) & UNUSUAL]
        return sorted(usual or near, key=self._unlikely)

    def _unlikely(self, offer: Offer) -> bool:
        """Whether it is a way people seldom say such tasks in: counted ones by the clock, others by reps."""
        counted = bool(self.tasks) and all(
            one.amount or one.most for line in self.tasks for one in line
        )
        clocked = bool(offer.saying.needs & {"pair", "work", "each"})
        return clocked == counted

    def tried(self, lines: bool = True) -> Iterator[Offer]:
        """Every way with what it lacks and what it leaves over; ``lines`` whether its moves are all there."""
        own = self.own_roles()
        for kind in KINDS:
            for saying in kind.sayings:
                offer = self._offer(saying, own, lines)
                if offer:
                    yield offer

    def could_take(self, roles: dict[str, str]) -> bool:
        """Whether some way takes these roles too, whatever is still lacking."""
        trial = replace(self, roles={**self.roles, **roles})
        if "rest" in roles and "rest" in self.roles:
            trial.roles = {**self.roles, "between": roles["rest"]}
        tried = list(trial.tried(bool(self.tasks)))
        least = min(map(_off, tried), default=1)
        return any(not one.over for one in tried if _off(one) == least)

    def _offer(self, saying: Saying, own: dict[str, str], lines: bool) -> Offer | None:
        roles = saying.derive(own) if saying.derive else own
        few = lines and self.moves < saying.least
        many = saying.most is not None and self.moves > saying.most
        if few or many or (saying.times == OUTER and OUTER not in roles):
            return None
        missing = tuple(sorted(saying.needs - roles.keys())) + _unsaid(saying, roles)
        takes = saying.needs | saying.takes.keys() | (RESTS if saying.times else frozenset())
        over = tuple(sorted(roles.keys() - takes - ASIDE))
        return Offer(saying, roles, missing, (*over, *(["line"] if self._misfits(roles) else [])))

    def _misfits(self, roles: Roles) -> bool:
        """Whether a line can't be what its heading says: longer than the clock of it, reps in a way to go."""
        tasks = [one for line in self.tasks for one in line]
        longest = max((one.seconds for one in tasks), default=0)
        too_long = ("around" in roles and longest > _seconds(roles.get("time", ""))) or (
            bool(roles.keys() & CLOCK) and longest >= LONG_S
        )
        if {"around", "time"} <= roles.keys() and tasks and not tasks[0].seconds and longest:
            return True  # its length may be that of the first thing alone
        counted = any(one.amount and one.amount.measure == "count" for one in tasks)
        share = not tasks and any(one.endswith("%") for one in self.marks)
        return too_long or ("far" in roles and (counted or share))

    def _repeated(self, roles: dict[str, str]) -> None:
        """What stands “x 6” is done so often: intervals, repeats of a way to go, rounds of anything else."""
        one = self.tasks[0][0] if self.moves == 1 else None
        way = one.amount if one and one.amount and one.amount.measure == "far" else None
        if way and way.form == "one" and "far" not in roles and not roles.keys() & NO_CLOCK:
            roles["far"] = way.own
        several = self.moves > 1 or not roles.keys() & {"pair", "work", "far"}
        roles.setdefault("rounds" if several else "times", roles.pop("often"))

    def _set(self, roles: dict[str, str]) -> Roles:
        """Sets of one counted thing that stands below: its reps."""
        one = self.tasks[0][0] if self.moves == 1 else None
        said = {"reps", "work", "pair", "each", "far", "maxed"} & roles.keys()
        if "sets" not in roles or said or one is None or one.amount is None:
            return {}
        counted = one.amount.measure == "count" and one.amount.form in ("one", "range")
        return {"reps": f"{one.amount.own} reps"} if counted else {}

    def own_roles(self) -> dict[str, str]:
        """Its roles, with those that its labels and tasks say."""
        roles = dict(self.roles)
        if any(one.startswith(("min", "odd", "even")) for one in self.labels):
            roles.setdefault("period", MINUTE)
            roles["turns"] = str(self.moves)
        if "often" in roles:
            self._repeated(roles)
        if "company" in roles:
            roles.pop("oneworks", None)
        if self.tasks and all(one.most for line in self.tasks for one in line):
            roles["maxed"] = ""
        roles |= self._set(roles)
        timed = _by_the_clock(self, roles)
        if "between" in timed:
            roles.pop("rest", None)
        roles |= timed
        if roles.get("stations") == str(self.moves):
            del roles["stations"]
        if "add" in roles:
            roles["ladder"] = f"{roles.pop('first', self.roles['add'])} +{roles.pop('add')}"
        return roles


LONG_S = 90  # a line by the clock of its heading is never as long
LIST = 3  # from so many on, 1 2 3 before names are places in a list


def unnumbered(draft: Draft) -> Draft:
    """The draft without the numbers of a list: 1, 2, 3 … before its moves."""
    counts = [line[0].amount.number if line[0].amount else None for line in draft.tasks]
    many = draft.tasks[0][0].name.endswith("s") if draft.tasks else False
    if draft.roles.keys() & {"amrap", "fortime"} and (len(draft.lines) == 1 or not many):
        return draft  # in what is counted they are counts, but for “1 squats”
    if len(counts) < LIST or counts != list(range(1, len(counts) + 1)):
        return draft
    tasks = [[replace(line[0], amount=None), *line[1:]] for line in draft.tasks]
    return replace(draft, tasks=tasks, labels=[str(one) for one in counts])
