"""What may give in a session: each figure that can be turned, with the sayable values it can take."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import log
from typing import Literal, get_args

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.hold_ladder import HoldLadder
from lovrit.core.blocks.parts import Effort
from lovrit.core.clock import clock, number
from lovrit.core.session.edits import Ease, Edit, LineEdit, SetAmount, SetFigure
from lovrit.core.session.reader import BlockPlace
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Line

Give = Literal[
    "rounds", "work", "rest", "breaks", "stations", "warm-up", "cool-down", "reps", "effort"
]
GIVES: tuple[Give, ...] = get_args(Give)
SCALES = (50, 60, 70, 75, 80, 90, 110, 120, 125, 150)
EFFORTS = (6.0, 7.0, 7.5, 8.0, 8.5)
MOST_COUNT = 60
A_STATION = 1.5  # a station is what a session is about: two figures turned a little are nearer than one left out


@dataclass(frozen=True)
class Setting:
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
    turns: tuple[Setting, ...]
    put: Callable[[Block, float], Block]


def knobs(
    session: Session, places: tuple[BlockPlace, ...], gives: frozenset[Give]
) -> list[list[Knob]]:
    """The knobs of each block that may be turned."""
    work = [at for at, block in enumerate(session.blocks) if block.works]
    found = []
    for at, (block, place) in enumerate(zip(session.blocks, places, strict=True)):
        when: Give = (
            "warm-up" if not work or at < work[0] else "cool-down" if at > work[-1] else "breaks"
        )
        found.append(
            [knob for knob in _knobs(at, block, place, when) if knob.give in gives and knob.turns]
        )
    return found


def _knobs(at: int, block: Block, place: BlockPlace, when: Give) -> Iterator[Knob]:
    for figure, (give, values) in FIGURES.items():
        if figure in place.figures and not (block.in_turns and figure == "step"):
            yield _figure(at, figure, place.figures[figure].value, give, values)
    if "total" in place.figures:
        yield _total(at, block, place.figures["total"].value, when)
    if block.rotates and len(block.moves) > 2:
        yield _stations(at, block)
    if block.by_reps and any(_reps(block)):
        yield _rep_share(at, block)
    if block.efforts and block.works:
        yield _effort(at, block, place, EFFORTS)


def _figure(
    at: int, figure: str, now: float, give: Give, values: Callable[[int], list[int]]
) -> Knob:
    turns = tuple(_turn(at, figure, now, value) for value in values(round(now)) if value != now)
    return Knob(at, figure, give, now, turns, _put(figure))


def _turn(at: int, figure: str, now: float, value: float) -> Setting:
    timed = figure not in ("rounds", "sets", "count", "reps")
    said = f"{figure} {_times(now, value)}" if timed else _counted(figure, now, value)
    edit = SetFigure(block=at, figure=figure, value=value)
    return Setting(value, (edit,), said, far(now, value) + (rough(value) if timed else 0))


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
    return [
        value
        for value in range(5, high + 1, 5)
        if value >= low and (value <= 120 or value % 15 == 0)
    ]


def pauses(now: int) -> list[int]:
    """Steps of five seconds, of fifteen above two minutes, from a third to twice the present figure."""
    steps = range(15, max(60, now * 2) + 1, 5)
    return [value for value in steps if value >= now // 3 and (value <= 120 or value % 15 == 0)]


def halves(now: int) -> list[int]:
    """Half minutes from half to twice the present figure, two minutes at least; pauses cost more."""
    return [value for value in range(120, max(240, now * 2) + 1, 15) if value >= now // 2]


def _total(at: int, block: Block, now: float, when: Give) -> Knob:
    give: Give = "work"
    values = [value for value in range(60, int(now * 2) + 1, 30) if value >= now / 2]
    if not block.works:
        give, values = (
            ("breaks", pauses(round(now))) if block.is_pause else (when, halves(round(now)))
        )
    elif block.in_turns:
        turns = _turns(block, max(1, round(now) // block.turn_s))
        give, values = (
            "rounds",
            [block.turn_s * nth for nth in turns if _holds(block, block.turn_s * nth)],
        )
    every = tuple(_length(at, block, now, value) for value in values if value != now)
    return Knob(at, "total", give, now, every, _put("total"))


def in_place(turnable: list[Knob]) -> list[Knob]:
    """Those that change a line where it stands; lines of what is repeated are not taken out."""
    return [knob for knob in turnable if knob.give != "stations"]


def in_cycles(block: Block) -> bool:
    """Whether a block goes through its lines turn by turn and ends with its last one, as it should stay."""
    if not block.in_turns or len(block.moves) < 2 or not block.length_s:
        return False
    return block.length_s // block.turn_s % len(block.moves) == 0


def _turns(block: Block, now: int) -> list[int]:
    """Counts of turns: whole rounds of the lines where it is in whole rounds now."""
    step = len(block.moves) if in_cycles(block) else 1
    return [nth for nth in counts(now) if nth % step == 0]


def _holds(block: Block, total: int) -> bool:
    """Whether a growing hold still fits its turn at the end."""
    if not isinstance(block, HoldLadder):
        return True
    return block.start_s + block.step_s * (total // block.period_s - 1) <= block.period_s


def _length(at: int, block: Block, now: float, value: float) -> Setting:
    edit = SetFigure(block=at, figure="total", value=value)
    return Setting(value, (edit,), _lasts(block, now, value), far(now, value) + rough(value))


def _lasts(block: Block, now: float, value: float) -> str:
    if block.in_turns:
        return f"{now / block.turn_s:g} → {value / block.turn_s:g} turns"
    return f"{block.short_name.split(',', 1)[0]} {clock(now)} → {clock(value)}"


def _stations(at: int, block: Block) -> Knob:
    """Stations taken off the end; none are made up."""
    now = len(block.moves)

    def turn(left: int) -> Setting:
        gone = [line.name for line in block.moves[left:]]
        edits = tuple(
            LineEdit(what="remove", block=at, move=nth) for nth in range(now - 1, left - 1, -1)
        )
        return Setting(
            left,
            edits,
            f"{now} → {left} stations, without {' and '.join(gone)}",
            far(now, left) + A_STATION * (now - left),
        )

    turns = tuple(turn(left) for left in range(2, now))
    return Knob(
        at,
        "stations",
        "stations",
        now,
        turns,
        lambda one, left: one.but(moves=one.moves[: int(left)]),
    )


def _reps(block: Block) -> list[float]:
    first = [line.tasks[0].amount for line in block.moves]
    return [one.values[0] for one in first if one and one.unit == "reps" and one.form == "one"]


def _rep_share(at: int, block: Block) -> Knob:
    """All reps of a block by one share, rounded to whole ones."""

    def turn(share: int) -> Setting:
        scaled = {nth: _scaled(line, share) for nth, line in enumerate(block.moves)}
        edits = tuple(
            SetAmount(block=at, move=nth, value=reps) for nth, reps in scaled.items() if reps
        )
        return Setting(share, edits, f"reps to {share} in 100", far(100, share) + 0.1)

    def put(one: Block, share: float) -> Block:
        return one.but(moves=tuple(_line(line, _scaled(line, round(share))) for line in one.moves))

    return Knob(at, "reps of each", "reps", 100, tuple(turn(share) for share in SCALES), put)


def _scaled(line: Line, share: int) -> int:
    amount = line.tasks[0].amount
    if not amount or amount.unit != "reps" or amount.form != "one":
        return 0
    reps: float = amount.values[0] * share / 100
    return max(1, round(reps))


def _line(line: Line, reps: int) -> Line:
    first = line.tasks[0]
    if not reps or not first.amount:
        return line
    amount = first.amount.but(values=(float(reps),))
    return line.but(tasks=(first.but(amount=amount), *line.tasks[1:]))


def _effort(at: int, block: Block, place: BlockPlace, values: tuple[float, ...]) -> Knob:
    """The most that a block asks for: brought down however its efforts are written, up where it is one figure."""
    now = max(effort.high for effort in block.efforts)
    turns = tuple(
        _asking(at, now, value)
        for value in values
        if value < now or (value > now and "effort" in place.figures)
    )
    return Knob(at, "effort", "effort", now, turns, put_effort)


def _asking(at: int, now: float, value: float) -> Setting:
    edit: Edit = (
        Ease(block=at, most=value)
        if value < now
        else SetFigure(block=at, figure="effort", value=value)
    )
    return Setting(
        value, (edit,), f"effort {number(now)} → {number(value)}", 1 + abs(now - value) / 2
    )


def put_effort(block: Block, value: float) -> Block:
    """The block asking for so much at most, or, where it asks for less, for just so much."""
    now = max(effort.high for effort in block.efforts)
    if value > now:
        return block.but(efforts=(Effort(low=value, high=value),))
    return block.but(
        efforts=tuple(
            Effort(low=min(one.low, value), high=min(one.high, value)) for one in block.efforts
        )
    )


def efforts_to(
    session: Session, places: tuple[BlockPlace, ...], to: float
) -> list[tuple[Knob, Setting]]:
    """Every block that can be asked for just so much, with the turn that does it."""
    asked = [
        _effort(at, block, place, (to,))
        for at, (block, place) in enumerate(zip(session.blocks, places, strict=True))
        if block.efforts
    ]
    return [(knob, turn) for knob in asked for turn in knob.turns]


def _put(figure: str) -> Callable[[Block, float], Block]:
    return lambda block, value: block.with_figure(figure, value)


FIGURES: dict[str, tuple[Give, Callable[[int], list[int]]]] = {
    "rounds": ("rounds", counts),
    "sets": ("rounds", counts),
    "count": ("rounds", counts),
    "work": ("work", seconds),
    "rest": ("rest", seconds),
    "break": ("breaks", pauses),
    "change": ("breaks", pauses),
    "step": ("work", seconds),
    "lead-in": ("breaks", pauses),
}
