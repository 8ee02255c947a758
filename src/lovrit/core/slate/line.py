"""A move line of a session: what is done, how much of it, with what, and the ways round it."""

from typing import Literal

from lovrit.core.values import Value

Unit = Literal["reps", "s", "m", "km", "mi", "cal"]
METRES: dict[str, float] = {"m": 1, "km": 1000, "mi": 1609.344}
AmountForm = Literal["one", "range", "standards", "max"]
Side = Literal["none", "each", "by-round"]


class Amount(Value):
    """How much: one figure, a range, two standards, or as much as one can.

    ``values`` are in ``unit``; a range has low and high, standards the higher first as written, ``max`` none.
    """

    form: AmountForm = "one"
    values: tuple[float, ...] = ()
    unit: Unit = "reps"

    @property
    def metre(self) -> float | None:
        """Metres of one of its unit; None where it is no distance."""
        return METRES.get(self.unit)

    @property
    def metres(self) -> float | None:
        """Its first figure in metres; None where it is no distance."""
        return self.values[0] * METRES[self.unit] if self.values and self.unit in METRES else None

    @property
    def low(self) -> float | None:
        """The smallest figure that is asked for; None for ``max``."""
        return min(self.values, default=None)

    @property
    def high(self) -> float | None:
        """The largest figure that is asked for; None for ``max``."""
        return max(self.values, default=None)


class Load(Value):
    """A load: in kilograms or pounds, as a share of one's best, in watts, or as seconds for 500 m.

    ``kg`` also where no unit was written; ``by-set`` has a figure a set.
    """

    form: Literal["one", "range", "standards", "by-set"] = "one"
    values: tuple[float, ...]
    unit: Literal["kg", "%", "lb", "W", "/500 m"] = "kg"


class Kit(Value):
    """Kit that one person uses at a station: ``each`` pieces of it, in the loads (kg) that stand ready."""

    name: str
    each: int = 1
    loads: tuple[float, ...] = ()


class Way(Value):
    """Another way to do it: an amount, a name, or both."""

    amount: Amount | None = None
    name: str = ""


USUAL_S = (1, 0, 1, 0)  # of a rep, down, low, up, high, where a tempo leaves one open; ours


class Task(Value):
    """One thing done in a turn. ``slow_s`` is seconds a rep where the line says so, ``tempo`` the same by its phases.

    A phase that nobody told is None. ``rir`` is reps that are left over at the end of a set, ``rate`` strokes a
    minute; ``pair`` is a work and a rest of the line's own, where everybody does it at once. ``shared`` is an amount
    that a team splits as it likes; ``until_back`` is done until one's partner is back, however long that is.
    """

    name: str
    amount: Amount | None = None
    load: Load | None = None
    side: Side = "none"
    kit: tuple[Kit, ...] = ()
    alternatives: tuple[Way, ...] = ()
    harder: tuple[Way, ...] = ()
    easier: tuple[Way, ...] = ()
    parts: tuple[Way, ...] = ()
    slow_s: int | None = None
    breath_held: bool = False
    asked: tuple[float, float] | None = None
    rir: int | None = None
    tempo: tuple[int | None, ...] = ()
    rate: int | None = None
    breaths: int | None = None
    pair: tuple[int, int] | None = None
    shared: bool = False
    until_back: bool = False

    @property
    def rep_s(self) -> int | None:
        """Seconds of a rep, where the line says how slow."""
        told = (
            one if one is not None else usual
            for one, usual in zip(self.tempo, USUAL_S, strict=False)
        )
        return self.slow_s or sum(told) or None


class Line(Value):
    """A line below a block: the tasks joined by ``+``. ``opens_part`` where a ``then`` stands above it."""

    tasks: tuple[Task, ...]
    opens_part: bool = False

    @property
    def name(self) -> str:
        """What the station is called: the names of its tasks."""
        return " + ".join(task.name for task in self.tasks)

    @property
    def is_rest(self) -> bool:
        """Whether nothing is done on it: a rest minute among the tasks."""
        return len(self.tasks) == 1 and self.tasks[0].name == "rest"

    @property
    def side(self) -> Side:
        """How sides are taken on this line; the first task that says so decides."""
        return next((task.side for task in self.tasks if task.side != "none"), "none")


def reps_of(line: Line) -> float:
    """Reps that a line asks for, both sides counted; 0 where it is counted otherwise."""
    asked = 0.0
    for task in line.tasks:
        if task.amount and task.amount.unit == "reps" and task.amount.values:
            asked += (
                sum(task.amount.values)
                / len(task.amount.values)
                * (2 if task.side == "each" else 1)
            )
    return asked
