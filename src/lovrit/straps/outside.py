"""Straps that tell from outside, over HTTP, a WebSocket or a browser's Bluetooth: what each told last, and all it told.

Nothing here knows who anybody is: a strap has an id of its own, and people wear straps by their numbers.
"""

from collections import deque
from threading import RLock
from typing import NamedTuple

from lovrit.straps.source import STALE_MS, Beat

KEPT = 1200  # readings of a strap that are held until a class has taken them
OLDEST_MS, AHEAD_MS = (
    600_000,
    5_000,
)  # a strap's own clock is believed so far back, and so far ahead
SHAKEN_MS = 15_000
MOST_STRAPS = 200


class Reading(NamedTuple):
    """What a strap tells once: beats a minute (0: no signal), at which moment (ms), and what it knows of itself."""

    strap: str
    at_ms: int
    bpm: int
    contact: bool | None = None
    battery: int | None = None
    shaken: bool = False

    def beat(self, person: int) -> Beat:
        """It as somebody's: no signal where the strap says that it has no contact."""
        return Beat(person, self.at_ms, 0 if self.contact is False else self.bpm)


class Heard(NamedTuple):
    """A strap as it was heard last, and how many readings it has told."""

    last: Reading
    told: int
    shaken_ms: int = 0

    def alive(self, now_ms: int) -> bool:
        """Whether it has told something in the last seconds."""
        return now_ms - self.last.at_ms <= STALE_MS


class Outside:
    """All straps that tell from outside, and who wears which."""

    def __init__(self) -> None:
        self._heard: dict[str, Heard] = {}
        self._told: dict[str, deque[tuple[int, Reading]]] = {}
        self._lock = RLock()
        self.worn: dict[int, str] = {}
        self.waits: int | None = None  # whose strap is to be shaken

    def take(self, reading: Reading, now_ms: int) -> bool:
        """Take a reading, now where the strap's own clock can't be right; False where too many are worn.

        One that is new takes the place of one that nobody wears.
        """
        if not now_ms - OLDEST_MS <= reading.at_ms <= now_ms + AHEAD_MS:
            reading = reading._replace(at_ms=now_ms)
        with self._lock:
            before = self._heard.get(reading.strap)
            if before is None and len(self._heard) >= MOST_STRAPS and not self._made_room():
                return False
            count = (before.told if before else 0) + 1
            battery = (
                reading.battery if reading.battery is not None else before and before.last.battery
            )
            newest = reading._replace(battery=battery)
            if before and before.last.at_ms > reading.at_ms:
                newest = before.last
            shaken = now_ms if reading.shaken else before.shaken_ms if before else 0
            self._heard[reading.strap] = Heard(newest, count, shaken)
            self._told.setdefault(reading.strap, deque(maxlen=KEPT)).append((count, reading))
        return True

    def _made_room(self) -> bool:
        """Let go of the strap that nobody wears and that was heard longest ago; False where all are worn."""
        worn = set(self.worn.values())
        spare = [one for one in self._heard if one not in worn]
        if spare:
            self.forget(min(spare, key=lambda one: self._heard[one].last.at_ms))
        return bool(spare)

    def heard(self) -> dict[str, Heard]:
        """Every strap by its id, as it was heard last."""
        with self._lock:
            return dict(self._heard)

    def since(self, strap: str, count: int) -> tuple[list[Reading], int]:
        """What a strap told after so many readings, and how many there are by now."""
        with self._lock:
            told = [reading for nth, reading in self._told.get(strap, ()) if nth > count]
            heard = self._heard.get(strap)
        return told, heard.told if heard else count

    def forget(self, strap: str) -> None:
        """A strap that is not to be shown any more, until it tells again."""
        with self._lock:
            self._heard.pop(strap, None)
            self._told.pop(strap, None)
