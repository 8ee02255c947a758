"""The tape of a class as it was run: each stretch at its own length, with marks and stops at their moments."""

from typing import NamedTuple

from lovrit.core.clock import clock
from lovrit.core.run.events.kind import Telling
from lovrit.core.run.events.kinds import KNOWN
from lovrit.house.live import Live

MOST_WORDS, STEP_S, ROOM = (
    26,
    300,
    15.0,
)  # letters beside a pin, a tick's seconds, how much of the width words need
LEVELS = 3


class Bar(NamedTuple):
    """A stretch that was run, in percent of the class: where it begins, how wide, its phase."""

    x: float
    width: float
    phase: str


class Pin(NamedTuple):
    """Something at its moment: where, at which level of words, what is written, all of it, and when."""

    x: float
    level: int
    words: str
    said: str
    when: str


class RunTape(NamedTuple):
    """All of it."""

    bars: tuple[Bar, ...]
    pins: tuple[Pin, ...]
    ticks: tuple[tuple[float, str], ...]


def run_tape(live: Live) -> RunTape | None:
    """The tape of a class that has begun; None of one that has not."""
    state = live.state
    if state.started_ms is None or not state.laps:
        return None
    begun = state.started_ms
    end = max(state.over_ms or state.now_ms, state.laps[-1].to_ms)
    length = max(1, end - begun)
    bars = tuple(
        Bar(
            round(100 * (lap.from_ms - begun) / length, 2),
            round(100 * (lap.to_ms - lap.from_ms) / length, 2),
            live.plan.timeline.intervals[lap.interval].phase,
        )
        for lap in state.laps
    )
    ticks = tuple(
        (round(100_000 * second / length, 2), clock(second))
        for second in range(0, length // 1000 + 1, STEP_S)
    )
    return RunTape(bars, tuple(_pins(live, begun, length)), ticks)


def _pins(live: Live, begun: int, length: int) -> list[Pin]:
    names = {str(one.id): one.name for one in live.comers}
    told = Telling(names, live.plan.session, [one.label for one in live.plan.timeline.blocks])
    found: list[Pin] = []
    free = [-100.0] * LEVELS  # where the words of each level end
    for event in live.fold.counted:
        ms = live.ms(event.at_s)
        kind = KNOWN[event.kind]
        said = kind.said(event, told) if kind.pinned else ""
        if not said or not 0 <= ms - begun <= length:
            continue
        x = round(100 * (ms - begun) / length, 2)
        words = said.removeprefix("marked: ")
        level = next((nth for nth, until in enumerate(free) if until <= x), LEVELS - 1)
        free[level] = x + ROOM
        cut = words if len(words) <= MOST_WORDS else f"{words[:MOST_WORDS]}…"
        found.append(Pin(x, level, cut, said, clock((ms - begun) // 1000)))
    return found
