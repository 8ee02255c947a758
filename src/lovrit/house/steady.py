"""The clock that classes go by: a machine's clock that is put forward or back in the middle of a class moves none.

It counts on from where the machine's clock stood, by one that only goes forward, and that no sleep of a laptop stops.
"""

import time
from collections.abc import Callable
from threading import Lock

MOST_APART_MS = (
    2000  # a network that sets the clock now and then moves it by less; what is more was a leap
)


def _wall_ms() -> int:
    return time.time_ns() // 1_000_000


def _forward_ms() -> int:
    """Milliseconds since the machine was started, those too that it slept, where the machine tells them."""
    if hasattr(time, "CLOCK_BOOTTIME"):
        return time.clock_gettime_ns(time.CLOCK_BOOTTIME) // 1_000_000
    return time.monotonic_ns() // 1_000_000


class SteadyClock:
    """Milliseconds since 1970, as the machine says them, unless it leaps while something is going."""

    def __init__(
        self, wall_ms: Callable[[], int] = _wall_ms, forward_ms: Callable[[], int] = _forward_ms
    ) -> None:
        self._wall_ms, self._forward_ms, self._lock = wall_ms, forward_ms, Lock()
        self.busy: Callable[[], bool] = lambda: False  # whether a class is on
        self._offset = wall_ms() - forward_ms()

    def __call__(self) -> int:
        """Now: never further back than what was said before, while a class is on."""
        with self._lock:
            steady = self._forward_ms() + self._offset
            apart = self._wall_ms() - steady
            if apart and (0 < apart <= MOST_APART_MS or not self.busy()):
                self._offset += apart
                return steady + apart
            return steady
