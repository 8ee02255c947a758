"""Where beats come from: whatever reads a heart pushes its readings here, and the class asks what stands by now.

A source knows nobody but people's numbers. The simulated straps are the first; one over the air would push the same.
"""

from collections.abc import Callable
from typing import NamedTuple

STALE_MS = 5_000  # a reading that is older says nothing of this moment


class Beat(NamedTuple):
    """A reading: whose, at which moment (ms), beats a minute; 0 where the strap is there and finds no signal."""

    person: int
    at_ms: int
    bpm: int


Push = Callable[[Beat], None]


class Readings:
    """The last reading of each person, as sources push them in any order."""

    def __init__(self) -> None:
        self._last: dict[int, Beat] = {}

    def push(self, beat: Beat) -> None:
        """Take a reading; one older than what is known changes nothing."""
        known = self._last.get(beat.person)
        if known is None or beat.at_ms >= known.at_ms:
            self._last[beat.person] = beat

    def at(self, at_ms: int) -> dict[int, int]:
        """Beats a minute by person at a moment; 0 for a strap that has gone quiet."""
        return {
            one.person: one.bpm if at_ms - one.at_ms <= STALE_MS else 0
            for one in self._last.values()
        }
