"""What was learnt of somebody's heart, with what it rests on; told in words, since seconds would claim too much."""

from typing import Literal

from lovrit.core.values import Value

Pace = Literal["", "quick", "usual", "slow"]


class Fitted(Value):
    """How a heart rises and falls (seconds) and how much it does for a demand, from so many clean minutes and evenings.

    ``before`` and ``after`` are how far the start and this were off, in beats, on what this had not seen. ``up`` and
    ``down`` say it in a word, empty where nothing is known of it. ``frozen`` where the coach wants it to stay.
    """

    tau_on: float
    tau_off: float
    gain: float
    minutes: float
    evenings: int
    before: float
    after: float
    up: Pace = ""
    down: Pace = ""
    frozen: bool = False

    @property
    def said(self) -> str:
        """It in words."""
        parts = [
            f"{self.up} to rise" if self.up else "",
            f"{self.down} to come down" if self.down else "",
        ]
        known = " and ".join(one for one in parts if one) or "how much it does for an effort"
        return (
            f"{known}, from {self.minutes:g} clean minutes of "
            f"{self.evenings} evening{'s' if self.evenings != 1 else ''}; "
            f"{self.after:g} beats off where the start is {self.before:g}"
        )
