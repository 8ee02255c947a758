"""What may give in a session: each figure that can be turned, with the sayable values it can take."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import log
from typing import Any, Literal, get_args

from lovrit.core.clock import clock, number
from lovrit.core.session.edits import Ease, Edit, LineEdit, SetAmount, SetFigure
from lovrit.core.session.model import AnyBlock, Count, Effort, Every, HoldLadder, Intervals, Pair, Session, Stretch
from lovrit.core.session.reader import BlockPlace

Give = Literal["rounds", "work", "rest", "breaks", "stations", "warm-up", "cool-down", "reps", "effort"]
GIVES: tuple[Give, ...] = get_args(Give)
SCALES = (50, 60, 70, 75, 80, 90, 110, 120, 125, 150)
EFFORTS = (6.0, 7.0, 7.5, 8.0, 8.5)
MOST_COUNT = 60


@dataclass(frozen=True)
class Turn:
    """A knob turned: the edits that write it, what they come to in words, and how far it is from before."""

    value: float
    edits: tuple[Edit, ...]
    said: str
    cost: float


@dataclass(frozen=True)
class Knob:
    """A figure of a block that may give. ``put`` makes the block with another value."""

    block: int
    figure: str
    give: Give
    now: float
    turns: tuple[Turn, ...]
    put: Callable[[Any, float], Any]


def knobs(session: Session, places: tuple[BlockPlace, ...], gives: frozenset[Give]) -> list[list[Knob]]:
    """The knobs of each block that may be turned."""
    work = [at for at, block in enumerate(session.blocks) if block.kind not in ("steady", "rest")]
    found = []
    for at, (block, place) in enumerate(zip(session.blocks, places, strict=True)):
        when = "warm-up" if not work or at < work[0] else "cool-down" if at > work[-1] else "breaks"
        found.append([knob for knob in _knobs(at, block, place, when) if knob.give in gives and knob.turns])
    return found


def _knobs(at: int, block: AnyBlock, place: BlockPlace, when: str) -> Iterator[Knob]:
    for figure, (give, values, put) in FIGURES.items():
        if figure in place.figures and (block.kind, figure) not in NOT_TURNED:
            yield _figure(at, figure, place.figures[figure].value, (give, values, put))
    if "total" in place.figures:
        yield _total(at, block, place.figures["total"].value, when)
    if block.kind in ("rotate", "sets") and len(block.moves) > 2:
        yield _stations(at, block)
    if block.kind in ("for-time", "quality") and any(_reps(block)):
        yield _rep_share(at, block)
    if block.efforts and block.kind not in ("steady", "rest"):
        yield _effort(at, block, place, EFFORTS)


def _figure(at: int, figure: str, now: float, how: Any) -> Knob:
    give, values, put = how
    turns = tuple(_turn(at, figure, now, value) for value in values(round(now)) if value != now)
    return Knob(at, figure, give, now, turns, put)


def _turn(at: int, figure: str, now: float, value: float) -> Turn:
    timed = figure not in ("rounds", "sets", "count", "reps")
    said = f"{figure} {_times(now, value)}" if timed else _counted(figure, now, value)
    edit = SetFigure(block=at, figure=figure, value=value)
    return Turn(value, (edit,), said, far(now, value) + (rough(value) if timed else 0))


def _times(now: float, value: float) -> str:
    """Both times in one manner: m:ss where one of them is a minute or more."""
    if max(now, value) < 60:
        return f"{now:g} → {value:g} s"
    return f"{clock(now)} → {clock(value)}"


def _counted(figure: str, now: float, value: float) -> str:
    word = {"count": "times"}.get(figure, figure)
    return f"{now:g} → {value:g} {word}"


def far(now: float, value: float) -> float:
    """How far a figure is moved: one for moving it at all, and three for each e-fold."""
    return 1 + 3 * abs(log(max(value, 1) / max(now, 1)))


def rough(value: float) -> float:
    """How unlike a coach's figure a time is: none for tens and halves of a minute, a little for others."""
    if value % 60 == 0 or (value < 60 and value % 10 == 0):
        return 0.0
    return 0.05 if value % 30 == 0 or (value < 60 and value % 5 == 0) else 0.2


def counts(now: int) -> list[int]:
    """Whole counts round the present one."""
    return list(range(1, min(MOST_COUNT, max(2 * now, now + 4)) + 1))


def seconds(now: int) -> list[int]:
    """Steps of five seconds, of fifteen above two minutes, from half to twice the present figure."""
    low, high = max(5, now // 2), max(30, now * 2)
    return [value for value in range(5, high + 1, 5) if value >= low and (value <= 120 or value % 15 == 0)]


def pauses(now: int) -> list[int]:
    """Steps of five seconds, of fifteen above two minutes, from a third to twice the present figure."""
    steps = range(15, max(60, now * 2) + 1, 5)
    return [value for value in steps if value >= now // 3 and (value <= 120 or value % 15 == 0)]


def halves(now: int) -> list[int]:
    """Half minutes from half to twice the present figure, two minutes at least; pauses cost more."""
    return [value for value in range(120, max(240, now * 2) + 1, 15) if value >= now // 2]


def _total(at: int, block: AnyBlock, now: float, when: str) -> Knob:
    give: Give = "work"
    values: list[int] = [v for v in range(60, int(now * 2) + 1, 30) if v >= now / 2]
    if block.kind == "steady":
        give, values = when, halves(round(now))  # type: ignore[assignment]
    elif block.kind == "rest":
        give, values = "breaks", pauses(round(now))
    elif block.kind in ("every", "hold-ladder"):
        period = int(getattr(block, "period_s", 60))
        give, values = "rounds", [period * n for n in counts(max(1, round(now) // period))]
        values = [value for value in values if _holds(block, value)]
    turns = tuple(_length(at, block, now, value) for value in values if value != now)
    return Knob(at, "total", give, now, turns, _put("total_s"))


def _holds(block: AnyBlock, total: int) -> bool:
    """Whether a growing hold still fits its turn at the end."""
    if not isinstance(block, HoldLadder):
        return True
    return block.start_s + block.step_s * (total // block.period_s - 1) <= block.period_s


def _length(at: int, block: AnyBlock, now: float, value: float) -> Turn:
    edit = SetFigure(block=at, figure="total", value=value)
    return Turn(value, (edit,), _lasts(block, now, value), far(now, value) + rough(value))


def _lasts(block: AnyBlock, now: float, value: float) -> str:
    if isinstance(block, Every | HoldLadder):
        return f"{now / block.period_s:g} → {value / block.period_s:g} turns"
    name = {"amrap": "as many as possible in"}.get(block.kind, getattr(block, "label", block.kind))
    return f"{name} {clock(now)} → {clock(value)}"


def _stations(at: int, block: AnyBlock) -> Knob:
    """Stations taken off the end; none are made up."""
    now = len(block.moves)

    def turn(left: int) -> Turn:
        gone = [line.name for line in block.moves[left:]]
        edits = tuple(LineEdit(what="remove", block=at, move=nth) for nth in range(now - 1, left - 1, -1))
        return Turn(left, edits, f"{now} → {left} stations, without {' and '.join(gone)}", far(now, left) + 0.5)

    turns = tuple(turn(left) for left in range(2, now))
    return Knob(at, "stations", "stations", now, turns, lambda one, left: _with(one, moves=one.moves[: int(left)]))


def _reps(block: AnyBlock) -> list[float]:
    first = [line.tasks[0].amount for line in block.moves]
    return [one.values[0] for one in first if one and one.unit == "reps" and one.form == "one"]


def _rep_share(at: int, block: AnyBlock) -> Knob:
    """All reps of a block by one share, rounded to whole ones."""

    def turn(share: int) -> Turn:
        scaled = {nth: _scaled(line, share) for nth, line in enumerate(block.moves)}
        edits = tuple(SetAmount(block=at, move=nth, value=reps) for nth, reps in scaled.items() if reps)
        return Turn(share, edits, f"reps to {share} in 100", far(100, share) + 0.1)

    def put(one: Any, share: float) -> Any:
        return _with(one, moves=tuple(_line(line, _scaled(line, round(share))) for line in one.moves))

    return Knob(at, "reps of each", "reps", 100, tuple(turn(share) for share in SCALES), put)


def _scaled(line: Any, share: int) -> int:
    amount = line.tasks[0].amount
    if not amount or amount.unit != "reps" or amount.form != "one":
        return 0
    reps: float = amount.values[0] * share / 100
    return max(1, round(reps))


def _line(line: Any, reps: int) -> Any:
    if not reps:
        return line
    first = line.tasks[0]
    amount = first.amount.but(values=(float(reps),))
    return line.but(tasks=(first.but(amount=amount), *line.tasks[1:]))


def _effort(at: int, block: AnyBlock, place: BlockPlace, values: tuple[float, ...]) -> Knob:
    """The most that a block asks for: brought down however its efforts are written, up where it is one figure."""
    now = max(effort.high for effort in block.efforts)
    turns = tuple(
        _asking(at, now, value) for value in values if value < now or (value > now and "effort" in place.figures)
    )
    return Knob(at, "effort", "effort", now, turns, put_effort)


def _asking(at: int, now: float, value: float) -> Turn:
    edit: Edit = Ease(block=at, most=value) if value < now else SetFigure(block=at, figure="effort", value=value)
    return Turn(value, (edit,), f"effort {number(now)} → {number(value)}", 1 + abs(now - value) / 2)


def put_effort(block: Any, value: float) -> Any:
    """The block asking for so much at most, or, where it asks for less, for just so much."""
    now = max(effort.high for effort in block.efforts)
    if value > now:
        return _with(block, efforts=(Effort(low=value, high=value),))
    return _with(
        block, efforts=tuple(Effort(low=min(one.low, value), high=min(one.high, value)) for one in block.efforts)
    )


def efforts_to(session: Session, places: tuple[BlockPlace, ...], to: float) -> list[tuple[Knob, Turn]]:
    """Every block that can be asked for just so much, with the turn that does it."""
    asked = [
        _effort(at, block, place, (to,))
        for at, (block, place) in enumerate(zip(session.blocks, places, strict=True))
        if block.efforts
    ]
    return [(knob, turn) for knob in asked for turn in knob.turns]


def _with(block: Any, **fields: Any) -> Any:
    return block.but(**fields)


def _put(field: str) -> Callable[[Any, float], Any]:
    return lambda block, value: _with(block, **{field: round(value)})


def _put_count(field: str) -> Callable[[Any, float], Any]:
    return lambda block, value: _with(block, **{field: Count(low=round(value), high=round(value))})


def _put_pair(side: str) -> Callable[[Any, float], Any]:
    def put(block: Any, value: float) -> Any:
        stretch = Stretch(seconds=round(value))
        if isinstance(block, Intervals):
            if block.each:
                return _with(block, rest_s=round(value))
            return _with(block, pattern=(_paired(block.pattern[0], side, stretch),))
        if hasattr(block, "pair"):
            return _with(block, pair=_paired(block.pair, side, stretch))
        return _with(block, rest_s=round(value))

    return put


def _paired(pair: Pair, side: str, stretch: Stretch) -> Pair:
    return pair.but(**{side: stretch})


FIGURES: dict[str, tuple[Give, Callable[[int], list[int]], Callable[[Any, float], Any]]] = {
    "rounds": ("rounds", counts, _put_count("rounds")),
    "sets": ("rounds", counts, _put_count("sets")),
    "count": ("rounds", counts, _put_count("count")),
    "work": ("work", seconds, _put_pair("work")),
    "rest": ("rest", seconds, _put_pair("rest")),
    "break": ("breaks", pauses, _put("break_s")),
    "change": ("breaks", pauses, _put("change_s")),
    "step": ("work", seconds, _put("step_s")),
    "lead-in": ("breaks", pauses, _put("lead_in_s")),
}
NOT_TURNED = {("hold-ladder", "step")}
