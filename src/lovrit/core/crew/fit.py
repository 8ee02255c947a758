"""What was learnt of somebody's heart, with what it rests on; told in words, since seconds would claim too much."""

from typing import Literal

from lovrit.core.values import Value

Pace = Literal["", "quick", "usual", "slow"]
FAR_OFF = 10.0  # beats: further off than this, it was not the plan that was done
HOW: dict[Pace, str] = {"quick": "quickly", "usual": "as usual", "slow": "slowly"}


class Fitted(Value):
    """How a heart rises and falls (seconds) and how much it does for a demand, from so many clean minutes and evenings.

    ``before`` and ``after`` are how far the start and this were off, in beats, on what this had not seen. ``up`` and
    ``down`` say it in a word, empty where nothing is known of it. ``frozen`` where the coach wants it to stay;
    ``as_start`` where what is assumed to begin with foretells no worse than what was learnt. ``ask`` is what has to be
    asked of this heart (core/heart/suspected), with the highest that was ``seen``, until that is ``answered``.
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
    as_start: bool = False
    ask: Literal["", "top", "measure"] = ""
    seen: int = 0
    answered: bool = False

    @property
    def said(self) -> str:
        """It in words."""
        if self.as_start:
            return self._as_start
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

    @property
    def _as_start(self) -> str:
        """What is said where nothing better was learnt than what is usual: that it is so, or why it isn't used."""
        rests = f"{self.minutes:.0f} clean minutes of {self.evenings} evening{'s' if self.evenings != 1 else ''}"
        if self.after > FAR_OFF:
            return f"went otherwise than planned lately, {self.after:g} beats off: what was learnt waits ({rests})"
        return f"goes as usual hearts do, foretold within {self.after:g} beats ({rests})"
