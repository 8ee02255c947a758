"""A session as a value: its headers and its blocks, each kind of block by its shape.

Durations are whole seconds. Everything here is written on the slate and is the JSON form as it stands.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lovrit.core.session.move import Amount, Line
from lovrit.core.values import Value

Seconds = Annotated[int, Field(ge=0, le=86_400, strict=True)]  # strict: false is no number of seconds


class Count(Value):
    """How often. Planned at ``high``; where ``low`` is smaller, it may be ended from there on."""

    low: int
    high: int


class Effort(Value):
    """Perceived effort, 0 nothing to 10 all there is; a range where low and high differ."""

    low: Annotated[float, Field(ge=0, le=10)]
    high: Annotated[float, Field(ge=0, le=10)]


HeartOf = Literal["bpm", "reserve", "max", "threshold"]


class Heart(Value):
    """A heart-rate target in beats a minute, per cent of reserve or of highest, or beats round the threshold."""

    of: HeartOf
    low: float
    high: float


class Pace(Value):
    """A person's own numbered pace, as the coach numbers them."""

    low: float
    high: float


class Stretch(Value):
    """A work or a rest: so many seconds, or until the heart is there, within its clock limits."""

    seconds: Seconds | None = None
    until_bpm: int | None = None


class Pair(Value):
    """A work and the rest that follows it."""

    work: Stretch
    rest: Stretch


class Block(Value):
    """What every kind of block may carry."""

    interval_block: ClassVar[bool] = False

    efforts: tuple[Effort, ...] = ()
    heart: Heart | None = None
    pace: Pace | None = None
    rest_effort: Effort | None = None
    rest_heart: Heart | None = None
    lead_in_s: Seconds = 0
    moves: tuple[Line, ...] = ()


class Paired(Block):
    """A block made of works and rests; clock limits hold where the heart ends one of them."""

    interval_block: ClassVar[bool] = True

    drop_last_rest: bool = False
    least_s: Seconds = 0
    most_s: Seconds | None = None


class Rotate(Paired):
    """Each turn moves everyone one station on. A break follows each round but the last."""

    kind: Literal["rotate"] = "rotate"
    rounds: Count
    pair: Pair
    break_s: Seconds | None = None
    break_added: bool = False


class Sets(Paired):
    """All sets at one station, then everyone moves on; a change follows each station but the last."""

    kind: Literal["sets"] = "sets"
    sets: Count
    pair: Pair
    change_s: Seconds | None = None
    change_added: bool = False


class Intervals(Paired):
    """Plain intervals: a pattern of works and rests repeated, or an amount repeated with a rest."""

    kind: Literal["intervals"] = "intervals"
    count: Count
    pattern: tuple[Pair, ...] = ()
    each: Amount | None = None
    rest_s: Seconds = 0
    score: Literal["slowest", "fastest", "total"] | None = None


class Every(Block):
    """A task at the start of each period; what the work leaves over is rest."""

    interval_block: ClassVar[bool] = True

    kind: Literal["every"] = "every"
    period_s: Seconds
    total_s: Seconds
    half_start_s: Seconds = 0


class Ladder(Value):
    """Reps that climb: ``start`` of each move in the first round, ``step`` more in every next."""

    start: int
    step: int


class Amrap(Block):
    """As many rounds as possible before the clock ends; partners take a round each in turn."""

    kind: Literal["amrap"] = "amrap"
    total_s: Seconds
    ladder: Ladder | None = None
    partners: bool = False


class ForTime(Block):
    """Rounds, or one amount, as quickly as one can, within a cap where there is one."""

    kind: Literal["for-time"] = "for-time"
    rounds: Count = Count(low=1, high=1)
    over: Amount | None = None
    cap_s: Seconds | None = None


class Quality(Block):
    """Unhurried rounds with a rest after each, within a cap where there is one."""

    interval_block: ClassVar[bool] = True

    kind: Literal["quality"] = "quality"
    rounds: Count
    rest_s: Seconds = 0
    cap_s: Seconds | None = None
    drop_last_rest: bool = False


class Strength(Block):
    """Sets of reps at a station, with a rest after each; a change follows each station but the last."""

    interval_block: ClassVar[bool] = True

    kind: Literal["strength"] = "strength"
    sets: Count
    reps: Count
    rest_s: Seconds = 0
    change_s: Seconds | None = None
    change_added: bool = False
    drop_last_rest: bool = False


class HoldLadder(Block):
    """A hold that grows by ``step_s`` each period."""

    interval_block: ClassVar[bool] = True

    kind: Literal["hold-ladder"] = "hold-ladder"
    start_s: Seconds
    step_s: Seconds
    period_s: Seconds
    total_s: Seconds


class Tempo(Block):
    """A metronome that climbs from one rate to another, beats a minute, and may come back down."""

    kind: Literal["tempo"] = "tempo"
    start: int
    end: int
    steps: int
    step_s: Seconds
    up_and_down: bool = False


class Build(Block):
    """Time-capped strength: build to a heavy set of so many reps at one's own pace."""

    kind: Literal["build"] = "build"
    total_s: Seconds
    reps: int


class Steady(Block):
    """A stretch at one effort, by its own name: warm-up, cool-down, easy laps."""

    kind: Literal["steady"] = "steady"
    label: str
    total_s: Seconds


class Rest(Block):
    """A rest between blocks."""

    kind: Literal["rest"] = "rest"
    total_s: Seconds


AnyBlock = Annotated[
    Rotate | Sets | Intervals | Every | Amrap | ForTime | Quality | Strength | HoldLadder | Tempo | Build
    | Steady | Rest,
    Field(discriminator="kind"),
]  # fmt: skip


class Slot(Value):
    """The time the hall is ours: its length, and when it begins and ends where that is written (HH:MM)."""

    seconds: Seconds
    start: str | None = None
    end: str | None = None


class Session(Value):
    """What a coach writes for one class."""

    title: str = ""
    date: str | None = None
    slot: Slot | None = None
    people: int | None = None
    setup_s: Seconds = 0
    blocks: tuple[AnyBlock, ...] = ()
