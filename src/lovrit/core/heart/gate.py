"""What a gate believes of a strap: a median of three seconds that stands for two, and no leap.

A three-second median alone let people go six beats too early in one rest of five, where straps have two faults a
minute (measured on made-up signals). This costs about a second. A lost signal is never “there”, so the clock ends it.
"""

from collections import deque
from statistics import median

LEAP, MOST_LEAPS = (
    12,
    6,
)  # beats from the last good one that are no signal, for so many readings at the most
MEDIAN_S, STANDS_S = 3, 2
BLIND_S = 6  # seconds from the first reading on, where nothing before it is known to be good
LOWEST, HIGHEST = 25, 235
LOST = 0


class GateSignal:
    """One person's readings, second by second, and what a gate may believe of them by now."""

    def __init__(self) -> None:
        self._good: int | None = None
        self._leaps = 0
        self._blind = BLIND_S
        self._window: deque[int] = deque(maxlen=MEDIAN_S)
        self._medians: deque[int] = deque(maxlen=STANDS_S)

    def second(self, bpm: int) -> None:
        """One more second's reading; 0 where there was none."""
        if not LOWEST <= bpm <= HIGHEST or self._leaps_to(bpm):
            self._window.clear()
            self._medians.clear()
            return
        self._good, self._leaps = bpm, 0
        if self._blind:
            self._blind -= 1
            return
        self._window.append(bpm)
        if len(self._window) == MEDIAN_S:
            self._medians.append(round(median(self._window)))

    def _leaps_to(self, bpm: int) -> bool:
        """Whether a reading is too far from the last good one; after some of them in a row it is where the heart is."""
        if self._good is None or abs(bpm - self._good) <= LEAP:
            return False
        self._leaps += 1
        if self._leaps <= MOST_LEAPS:
            return True
        self._blind = BLIND_S
        return False

    def believed(self, down: bool) -> int:
        """The beats that have stood for two seconds: the higher of them where a gate waits for them to come down.

        0 where the signal is lost, leaps, or has not been there for long enough.
        """
        if len(self._medians) < STANDS_S:
            return LOST
        return max(self._medians) if down else min(self._medians)
