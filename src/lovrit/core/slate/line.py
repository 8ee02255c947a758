"""A move line of a session: what is done, how much of it, with what, and the ways round it."""

from typing import Literal

from lovrit.core.values import Value

Unit = Literal["reps", "s", "m", "cal"]
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
    def low(self) -> float | None:
        """The smallest figure that is asked for; None for ``max``."""
        return min(self.values, default=None)

    @property
    def high(self) -> float | None:
        """The largest figure that is asked for; None for ``max``."""
        return max(self.values, default=None)


class Load(Value):
    """A load: in kilograms, or as a share of one's best. ``kg`` also where no unit was written."""

    form: Literal["one", "range", "standards"] = "one"
    values: tuple[float, ...]
    unit: Literal["kg", "%"] = "kg"


class Kit(Value):
    """Kit that one person uses at a station: ``each`` pieces of it, in the loads (kg) that stand ready."""

    name: str
    each: int = 1
    loads: tuple[float, ...] = ()


class Way(Value):
    """Another way to do it: an amount, a name, or both."""

    amount: Amount | None = None
    name: str = ""


class Task(Value):
    """One thing done in a turn. ``slow_s`` is seconds a rep where the line says so."""

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


class Line(Value):
    """A line below a block: the tasks joined by ``+``. ``opens_part`` where a ``then`` stands above it."""

    tasks: tuple[Task, ...]
    opens_part: bool = False

    @property
    def name(self) -> str:
        """What the station is called: the names of its tasks."""
        return " + ".join(task.name for task in self.tasks)

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
