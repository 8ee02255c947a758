"""A block's first words turned into its kind and its figures."""

from collections.abc import Callable
from typing import Any

from lark import Token

from lovrit.core.session.figures import (
    MOST_TIMES,
    Figure,
    column,
    figure,
    seconds,
    span,
    tokens,
    trees,
    whole,
)
from lovrit.core.session.grammar import Node
from lovrit.core.session.model import (
    Amrap,
    Block,
    Build,
    Count,
    Every,
    ForTime,
    HoldLadder,
    Intervals,
    Pair,
    Quality,
    Rest,
    Rotate,
    Sets,
    Steady,
    Strength,
    Stretch,
    Tempo,
)
from lovrit.core.session.move import Amount, Unit
from lovrit.core.session.problem import Unreadable

Head = tuple[str, type[Block], dict[str, Any], list[Figure]]
UNITS: dict[str, Unit] = {"S": "s", "MIN": "s", "M": "m", "CAL": "cal", "REPS": "reps"}


def count(node: Node, what: str, most: int = MOST_TIMES) -> Count:
    """A number of times, or a range of them."""
    for token in tokens(node, "NUM"):
        whole(token, what, most=most)
    low, high = span(node, f"number of {what}")
    return Count(low=int(low), high=int(high))


def _count_figure(name: str, node: Node) -> list[Figure]:
    """Only a plain number can be scrubbed; a range is written."""
    found = tokens(node, "NUM")
    return [figure(name, found[0], float(found[0]), timed=False)] if len(found) == 1 else []


def stretch(node: Node, what: str) -> Stretch:
    """A work or a rest: a time, or a heart rate that ends it."""
    if tokens(node, "UNTIL"):
        return Stretch(until_bpm=whole(tokens(node, "NUM")[0], "beats", 40, 230))
    value = seconds(trees(node)[0])
    if what == "work" and not value:
        raise Unreadable("There is no time to work in.", column(node), ("a time such as 0:40",))
    return Stretch(seconds=value)


def pair(node: Node, tag: str = "") -> tuple[Pair, list[Figure]]:
    """A work and a rest, with a figure for each that is a time."""
    work, rest = trees(node)
    value = Pair(work=stretch(work, "work"), rest=stretch(rest, "rest"))
    both = (("work", work, value.work), ("rest", rest, value.rest))
    shown = [figure(name + tag, trees(n)[0], one.seconds) for name, n, one in both if one.seconds is not None]
    return value, shown


def _rotate(node: Node) -> Head:
    times, inner = trees(node)
    value, shown = pair(inner)
    fields = {"rounds": count(times, "rounds"), "pair": value}
    return "rotate", Rotate, fields, _count_figure("rounds", times) + shown


def _sets(node: Node) -> Head:
    times, inner = trees(node)
    value, shown = pair(inner)
    fields = {"sets": count(times, "sets"), "pair": value}
    return "sets", Sets, fields, _count_figure("sets", times) + shown


def _strength(node: Node) -> Head:
    sets, reps = trees(node)
    fields = {"sets": count(sets, "sets"), "reps": count(reps, "reps", 500)}
    return "strength", Strength, fields, _count_figure("sets", sets) + _count_figure("reps", reps)


def _intervals(node: Node) -> Head:
    times, *inner = trees(node)
    read = [pair(one, "" if len(inner) == 1 else f" {at}") for at, one in enumerate(inner, 1)]
    fields = {"count": count(times, "intervals"), "pattern": tuple(one for one, _ in read)}
    figures = [one for _, shown in read for one in shown]
    return "intervals", Intervals, fields, _count_figure("count", times) + figures


def _over(number: Token, unit: Node) -> Amount:
    kind = UNITS[unit.children[0].type]  # type: ignore[union-attr]
    if kind == "s":
        raise Unreadable("A time needs its rest: write 6 x 0:40/0:20.", column(unit), ("metres", "calories", "reps"))
    if not float(number):
        raise Unreadable("That is nothing to do.", column(number))
    return Amount(values=(float(number),), unit=kind)


def _repeats(node: Node) -> Head:
    times, unit = trees(node)
    number = tokens(node, "NUM")[0]
    fields = {"count": count(times, "repeats"), "each": _over(number, unit)}
    figures = [*_count_figure("count", times), figure("each", number, float(number), timed=False)]
    return "repeats", Intervals, fields, figures


def _every(node: Node) -> Head:
    period, total = (seconds(child) for child in trees(node))
    if not period or total < period:
        raise Unreadable("The whole has to last at least one turn.", column(trees(node)[1]))
    shown = [figure("period", trees(node)[0], period), figure("total", trees(node)[1], total)]
    return "every", Every, {"period_s": period, "total_s": total}, shown


def _whole_time(kind: str, block: type[Block]) -> Callable[[Node], Head]:
    def read(node: Node) -> Head:
        inner = next(child for child in trees(node) if child.data == "time")
        total = seconds(inner)
        if not total:
            raise Unreadable("There is no time in it.", column(inner), ("a time such as 8:00",))
        return kind, block, {"total_s": total}, [figure("total", inner, total)]

    return read


def _steady(node: Node) -> Head:
    _, block, fields, shown = _whole_time("steady", Steady)(node)
    words = " ".join(str(child) for child in trees(node)[0].children).lower()
    return "steady", block, {**fields, "label": words}, shown


def _build(node: Node) -> Head:
    kind, block, fields, shown = _whole_time("build", Build)(node)
    number = tokens(node, "NUM")[0]
    reps = whole(number, "reps", most=100)
    return kind, block, {**fields, "reps": reps}, [*shown, figure("reps", number, reps, timed=False)]


def _for_time_over(node: Node) -> Head:
    fields = {"over": _over(tokens(node, "NUM")[0], trees(node)[0])}
    return "for-time", ForTime, fields, []


def _rounds(kind: str, block: type[Block]) -> Callable[[Node], Head]:
    def read(node: Node) -> Head:
        times = trees(node)
        fields = {"rounds": count(times[0], "rounds", 500)} if times else {}
        return kind, block, fields, _count_figure("rounds", times[0]) if times else []

    return read


def _hold_ladder(node: Node) -> Head:
    start, step, period, total = (seconds(child) for child in trees(node))
    if not start or not period or total < period:
        raise Unreadable("A growing hold needs a hold, a turn and a time.", column(node))
    fields = {"start_s": start, "step_s": step, "period_s": period, "total_s": total}
    names = ("hold", "step", "period", "total")
    shown = [figure(name, child, seconds(child)) for name, child in zip(names, trees(node), strict=True)]
    return "hold-ladder", HoldLadder, fields, shown


def _tempo(node: Node) -> Head:
    start, end, steps = tokens(node, "NUM")
    step = trees(node)[0]
    fields = {
        "start": whole(start, "beats", 20, 400),
        "end": whole(end, "beats", 20, 400),
        "steps": whole(steps, "steps", 2, 200),
        "step_s": seconds(step),
    }
    if not fields["step_s"]:
        raise Unreadable("There is no time in a step.", column(step), ("a time such as 20",))
    shown = [figure("steps", steps, fields["steps"], timed=False), figure("step", step, fields["step_s"])]
    return "tempo", Tempo, fields, shown


HEADS: dict[str, Callable[[Node], Head]] = {
    "rotate": _rotate,
    "sets": _sets,
    "strength": _strength,
    "intervals": _intervals,
    "repeats": _repeats,
    "every": _every,
    "amrap": _whole_time("amrap", Amrap),
    "for_time_over": _for_time_over,
    "for_time": _rounds("for-time", ForTime),
    "for_time_once": _rounds("for-time", ForTime),
    "quality": _rounds("quality", Quality),
    "hold_ladder": _hold_ladder,
    "tempo": _tempo,
    "build": _build,
    "rest": _whole_time("rest", Rest),
    "steady": _steady,
}
