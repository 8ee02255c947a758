"""What was learnt of somebody's heart, with what it rests on; told in words, since seconds would claim too much."""

from typing import Literal

from lovrit.core.values import Value

Pace = Literal["", "quick", "usual", "slow"]
HOW: dict[Pace, str] = {"quick": "quickly", "usual": "as usual", "slow": "slowly"}


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
        ways = [(self.up, "rises"), (self.down, "comes down")]
        known = [f"{does} {HOW[pace]}" for pace, does in ways if pace]
        if self.up == self.down == "usual":
            known = ["rises and comes down as usual"]
        said = " and ".join(known) or "does so much for an effort as its evenings say"
        return (
            f"{said}; from {self.minutes:.0f} clean minutes of {self.evenings} "
            f"evening{'s' if self.evenings != 1 else ''}, "
            f"foretold within {self.after:g} beats where it was {self.before:g} before"
        )
