"""What a plan comes to: every figure that coaches ask for, worked out once; whoever tells one asks here."""

from dataclasses import dataclass
from typing import Literal, get_args

from lovrit.core.blocks.step import Step
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval, Timeline

Time = Literal["total", "work", "rest", "hard"]
TIMES: tuple[Time, ...] = get_args(Time)
HARD = 8.0  # work at this effort and more counts as hard


@dataclass(frozen=True, slots=True)
class Sums:
    """The figures of a plan. Seconds; blocks count from 0.

    ``ratio`` is work and rest inside the interval blocks whose rest is written, which are ``ratio_of``; in
    ``ratio_without`` are those whose rest is only forecast. ``spare_s`` is what the slot leaves, negative if the
    session runs over, None without a slot. ``top_effort`` is the highest that any block asks for, of a range its upper
    end, in the blocks ``top_in``.
    """

    total_s: int
    range_s: tuple[int, int]
    work_s: int
    rest_s: int
    breaks: dict[int, list[int]]
    ratio: tuple[int, int]
    ratio_of: tuple[int, ...]
    ratio_without: tuple[int, ...]
    hard_by_block: dict[int, int]
    top_effort: float | None
    top_in: tuple[int, ...]
    spare_s: int | None

    def seconds(self, name: Time) -> int:
        """One of its times by name."""
        return {
            "total": self.total_s,
            "work": self.work_s,
            "rest": self.rest_s,
            "hard": self.hard_s,
        }[name]

    @property
    def hard_s(self) -> int:
        """Work at effort 8 and more."""
        return sum(self.hard_by_block.values())

    @property
    def work_to_rest(self) -> float | None:
        """Work by rest; None where a rest is only forecast, or there is none."""
        work, rest = self.ratio
        return None if self.ratio_without or not rest else round(work / rest, 4)


def sums_of(session: Session, timeline: Timeline) -> Sums:
    """What a session on the clock comes to."""
    counted = [at for at, laid in enumerate(timeline.blocks) if laid.interval_block]
    known = tuple(at for at in counted if not timeline.blocks[at].rest_is_forecast)
    tops = {
        at: block.top_effort
        for at, block in enumerate(session.blocks)
        if block.top_effort is not None
    }
    top = max(tops.values(), default=None)
    slot = session.slot
    return Sums(
        total_s=timeline.total_s,
        range_s=timeline.range_s,
        work_s=timeline.of_phase("work"),
        rest_s=timeline.of_phase("rest"),
        breaks=_breaks(timeline),
        ratio=(
            sum(timeline.blocks[at].work_s for at in known),
            sum(timeline.blocks[at].rest_s for at in known),
        ),
        ratio_of=known,
        ratio_without=tuple(at for at in counted if timeline.blocks[at].rest_is_forecast),
        hard_by_block=hard_by_block(timeline),
        top_effort=top,
        top_in=tuple(at for at, effort in tops.items() if effort == top),
        spare_s=slot.seconds - timeline.total_s - session.setup_s if slot else None,
    )


def is_hard(one: Interval | Step, least: float = HARD) -> bool:
    """Whether an interval, or a step, is work at this effort and more."""
    asked = one.asked if isinstance(one, Interval) and one.asked is not None else one.effort
    return one.phase in ("work", "steady") and asked is not None and asked >= least


def hard_by_block(timeline: Timeline, least: float = HARD) -> dict[int, int]:
    """Seconds of work at this effort and more, of each block that has some."""
    found: dict[int, int] = {}
    for one in timeline.intervals:
        if is_hard(one, least):
            found[one.block] = found.get(one.block, 0) + one.seconds
    return found


def _breaks(timeline: Timeline) -> dict[int, list[int]]:
    found: dict[int, list[int]] = {}
    for one in timeline.intervals:
        if one.phase in ("break", "change"):
            found.setdefault(one.block, []).append(one.seconds)
    return found
