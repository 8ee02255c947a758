"""The fold: events in, state out. The server, recovery after a crash and the debrief all use this one function.

A place in the class is an interval and the milliseconds into it, so that lengthening one moves no other.
"""

from collections.abc import Callable, Iterable
from dataclasses import field
from typing import Literal, NamedTuple

from lovrit.core.run.event import AFTERWARDS, COUNT_IN, Event
from lovrit.core.values import Value

COUNT_IN_MS = 5000
BACK_GRACE_MS = 3000
TEN_MORE_S = 10
GO_ON_MS = 60_000  # how long after an end it can be taken back
APART_MS = 1500  # a screen's clock may be this far ahead of ours when it presses at a border

Lengths = tuple[int, ...]


class Lap(Value):
    """A stretch of real time that was spent in one interval: from and to, in ms since 1970."""

    interval: int
    from_ms: int
    to_ms: int


class ScoreTold(Value):
    """A score of a block, as it was said; ``person`` where it is one person's."""

    block: int
    text: str
    person: int | None = None


class Class(Value):
    """A class as far as it has come.

    ``lengths_ms`` are the intervals' lengths as they now stand. ``place_ms`` is how far into ``interval`` the
    class was at ``since_ms``, negative while it is counted in; it moves on from there while ``running``.
    """

    lengths_ms: Lengths
    phase: Literal["ready", "on", "held", "over"] = "ready"
    interval: int = 0
    place_ms: int = 0
    since_ms: int = 0
    started_ms: int | None = None
    over_ms: int | None = None
    ended_early: bool = False
    ended_from: Literal["on", "held"] | None = None
    laps: tuple[Lap, ...] = ()
    stopped: dict[int, int] = field(default_factory=dict)
    ever_stopped: dict[int, int] = field(default_factory=dict)
    marks: tuple[int, ...] = ()
    felt: dict[int, float] = field(default_factory=dict)
    scores: tuple[ScoreTold, ...] = ()
    note: str = ""
    seen: frozenset[str] = frozenset()

    def with_(self, **fields: object) -> "Class":
        """The same class with some fields changed."""
        return self.but(**fields)


def begin(lengths_s: Iterable[int]) -> Class:
    """A class that is ready, from its intervals' lengths in seconds."""
    return Class(lengths_ms=tuple(seconds * 1000 for seconds in lengths_s))


def fold(lengths_s: Iterable[int], events: Iterable[Event]) -> Class:
    """The state after all events; each id counts once."""
    state = begin(lengths_s)
    for event in events:
        state = happen(state, event)
    return state


class Taken(NamedTuple):
    """The state after an event, and why it changed nothing where it did not."""

    state: Class
    refused: str | None = None


def happen(state: Class, event: Event) -> Class:
    """The state after one more event. Events that make no sense where the class is change nothing."""
    return take(state, event).state


def take(state: Class, event: Event) -> Taken:
    """The state after one more event, which counts from its own moment, though not before what has been acted on.

    ``state`` is best the one after the last event, not moved on by the clock since, so that a press which comes late
    still counts from when it was made.
    """
    if event.id in state.seen:
        return Taken(state)
    at_ms = max(event.at_ms, state.since_ms)
    here = _arrived(advance(state, at_ms), event, at_ms)
    here = here.with_(seen=here.seen | {event.id})
    if here.phase == "over" and event.kind not in AFTERWARDS:
        return Taken(here, "The class was over by then.")
    if event.kind in PLACED and event.place is not None and event.place != place_of(here):
        return Taken(here, "The class had moved on by then.")
    after = HAPPENINGS[event.kind](here, event, at_ms)
    return Taken(
        after, NOTHING.get(event.kind, "Nothing was changed by it.") if after is here else None
    )


def place_of(state: Class) -> int:
    """Where a class is, as a press says it: its interval, or COUNT_IN."""
    return COUNT_IN if state.phase in ("on", "held") and state.place_ms < 0 else state.interval


def _arrived(state: Class, event: Event, at_ms: int) -> Class:
    """A screen whose clock is a little ahead pressed in the interval that is just about to begin: it begins now."""
    ahead = event.place == place_of(state) + 1
    if state.phase != "on" or event.kind not in PLACED or not ahead:
        return state
    left = (
        state.lengths_ms[state.interval] - state.place_ms
        if state.place_ms >= 0
        else -state.place_ms
    )
    if left > APART_MS:
        return state
    return _jump(state, max(0, event.place or 0), at_ms)


def advance(state: Class, now_ms: int) -> Class:
    """The state at a later moment with nothing else happening; past the last interval the class is over."""
    if state.phase != "on" or now_ms <= state.since_ms:
        return state
    interval, place, since = state.interval, state.place_ms, state.since_ms
    laps = list(state.laps)
    while interval < len(state.lengths_ms):
        ends_ms = since + state.lengths_ms[interval] - place
        to_ms = min(ends_ms, now_ms)
        _lap(laps, interval, since + max(0, -place), to_ms)
        if ends_ms > now_ms:
            place += now_ms - since
            return state.with_(interval=interval, place_ms=place, since_ms=now_ms, laps=tuple(laps))
        interval, place, since = interval + 1, 0, ends_ms
    return state.with_(
        phase="over", interval=interval, place_ms=0, since_ms=since, over_ms=since, laps=tuple(laps)
    )


def _lap(laps: list[Lap], interval: int, from_ms: int, to_ms: int) -> None:
    if to_ms <= from_ms:
        return
    if laps and laps[-1].interval == interval and laps[-1].to_ms == from_ms:
        laps[-1] = laps[-1].but(to_ms=to_ms)
    else:
        laps.append(Lap(interval=interval, from_ms=from_ms, to_ms=to_ms))


def left_ms(state: Class) -> int:
    """Milliseconds left of the whole class from where it stands."""
    return sum(state.lengths_ms[state.interval :]) - state.place_ms


def _start(state: Class, _event: Event, at_ms: int) -> Class:
    if state.phase != "ready" or not state.lengths_ms:
        return state
    return state.with_(
        phase="on", place_ms=-COUNT_IN_MS, since_ms=at_ms, started_ms=at_ms + COUNT_IN_MS
    )


def _hold(state: Class, _event: Event, at_ms: int) -> Class:
    return state.with_(phase="held", since_ms=at_ms) if state.phase == "on" else state


def _resume(state: Class, _event: Event, at_ms: int) -> Class:
    return state.with_(phase="on", since_ms=at_ms) if state.phase == "held" else state


def _jump(state: Class, to: int, at_ms: int) -> Class:
    if to >= len(state.lengths_ms):
        return _over(state, at_ms, early=False)
    counted_in = state.place_ms < 0 and state.interval == 0
    begun = at_ms if counted_in else state.started_ms  # who skips the count-in begins now
    return state.with_(interval=to, place_ms=0, since_ms=at_ms, started_ms=begun)


def _next(state: Class, _event: Event, at_ms: int) -> Class:
    if state.phase not in ("on", "held"):
        return state
    counted_in = 0 if state.place_ms < 0 else 1
    return _jump(state, state.interval + counted_in, at_ms)


def _back(state: Class, _event: Event, at_ms: int) -> Class:
    """To the start of this interval; within its first three seconds, to the start of the one before."""
    if state.phase not in ("on", "held"):
        return state
    before = 1 if state.place_ms <= BACK_GRACE_MS else 0
    return _jump(state, max(0, state.interval - before), at_ms)


def _longer(state: Class, event: Event, at_ms: int) -> Class:
    seconds = TEN_MORE_S if event.seconds is None else event.seconds
    if state.phase not in ("on", "held") or not seconds:
        return state
    lengths = list(state.lengths_ms)
    lengths[state.interval] = max(lengths[state.interval] + seconds * 1000, state.place_ms, 0)
    return state.with_(lengths_ms=tuple(lengths), since_ms=max(at_ms, state.since_ms))


def _over(state: Class, at_ms: int, early: bool) -> Class:
    return state.with_(phase="over", over_ms=at_ms, since_ms=at_ms, ended_early=early)


def _end(state: Class, _event: Event, at_ms: int) -> Class:
    was = state.phase if state.phase in ("on", "held") else None
    return _over(state, at_ms, early=was is not None).with_(ended_from=was)


def _goes_on(state: Class, _event: Event, at_ms: int) -> Class:
    """An end that was not meant is taken back, for a minute; the class goes on where it was."""
    if state.phase != "over" or state.ended_from is None or at_ms - state.since_ms > GO_ON_MS:
        return state
    return state.with_(
        phase=state.ended_from, over_ms=None, since_ms=at_ms, ended_early=False, ended_from=None
    )


def _stops(state: Class, event: Event, at_ms: int) -> Class:
    if event.person is None:
        return state
    ever = {event.person: at_ms} | state.ever_stopped
    return state.with_(stopped=state.stopped | {event.person: at_ms}, ever_stopped=ever)


def _returns(state: Class, event: Event, _at_ms: int) -> Class:
    return state.with_(
        stopped={who: at for who, at in state.stopped.items() if who != event.person}
    )


def _mark(state: Class, _event: Event, at_ms: int) -> Class:
    return state.with_(marks=(*state.marks, at_ms))


def _felt(state: Class, event: Event, _at_ms: int) -> Class:
    if event.person is None:
        return state
    others = {who: value for who, value in state.felt.items() if who != event.person}
    return state.with_(felt=others if event.value is None else others | {event.person: event.value})


def _score(state: Class, event: Event, _at_ms: int) -> Class:
    if event.block is None:
        return state
    kept = [one for one in state.scores if (one.block, one.person) != (event.block, event.person)]
    text = (event.text or "").strip()
    new = [ScoreTold(block=event.block, text=text, person=event.person)] if text else []
    return state.with_(scores=tuple(kept + new))


def _note(state: Class, event: Event, _at_ms: int) -> Class:
    return state.with_(note=(event.text or "").strip())


HAPPENINGS: dict[str, Callable[[Class, Event, int], Class]] = {
    "start": _start,
    "hold": _hold,
    "resume": _resume,
    "next": _next,
    "back": _back,
    "longer": _longer,
    "end": _end,
    "goes-on": _goes_on,
    "stops": _stops,
    "returns": _returns,
    "mark": _mark,
    "felt": _felt,
    "score": _score,
    "note": _note,
}

# presses that are meant for the turn that they were made in
PLACED = frozenset({"next", "back", "longer"})
NOTHING = {
    "start": "It had begun already.",
    "hold": "It was not going then.",
    "resume": "It was not held then.",
    "goes-on": "It can go on for a minute after an end, and no longer.",
    "longer": "No seconds were said.",
}
