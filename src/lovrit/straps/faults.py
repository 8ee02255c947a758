"""What straps do to a signal, on demand: they drop out, slip, show per cent, count double, come late, run flat."""

from collections.abc import Callable
from random import Random

LATE_S, FLAT_AFTER_S = 480, 720
EASY = 112  # beats under which a strap that counts double does so
STEPS = 168
BEHAVES = {
    "steady": "works",
    "over": "works, and its wearer’s heart goes high",
    "drops": "drops out now and then",
    "slips": "slips about",
    "per cent": "shows per cent",
    "doubled": "counts double in easy moments",
    "steps": "follows the steps now and then",
    "late": "is put on eight minutes late",
    "flat battery": "runs flat after twelve minutes",
}


class Player:
    """One strap's behaviour, second by second."""

    def __init__(self, kind: str, highest: int, chance: Random) -> None:
        self._chance, self._highest, self._at, self._left = chance, highest, -1, 0
        self._play: Callable[[int], int] = {
            "drops": self._drops,
            "slips": self._slips,
            "per cent": self._per_cent,
            "doubled": self._doubled,
            "steps": self._steps,
            "late": self._late,
            "flat battery": self._flat,
        }.get(kind, self._works)

    def second(self, told: int) -> int:
        """What comes of a reading; 0 is no signal."""
        self._at += 1
        return self._play(told)

    @property
    def battery(self) -> int:
        """Per cent that are left in it."""
        if self._play == self._flat:
            return max(1, 20 - 20 * self._at // FLAT_AFTER_S)
        return 84

    def _now_and_then(self, every_s: int, least_s: int, most_s: int) -> bool:
        """Whether it is in one of its stretches, which come about once in so many seconds."""
        if self._left:
            self._left -= 1
            return True
        if self._chance.random() < 1 / every_s:
            self._left = self._chance.randint(least_s, most_s)
        return False

    def _works(self, told: int) -> int:
        return told

    def _drops(self, told: int) -> int:
        return 0 if self._now_and_then(110, 8, 35) else told

    def _slips(self, told: int) -> int:
        if not self._now_and_then(120, 10, 25):
            return told
        return told + self._chance.choice((-1, 1)) * self._chance.randint(14, 36)

    def _per_cent(self, told: int) -> int:
        return round(told / self._highest * 100)

    def _doubled(self, told: int) -> int:
        return min(230, told * 2) if told < EASY and self._now_and_then(90, 15, 40) else told

    def _steps(self, told: int) -> int:
        return STEPS + self._chance.randint(-2, 2) if self._now_and_then(240, 40, 110) else told

    def _late(self, told: int) -> int:
        return 0 if self._at < LATE_S else told

    def _flat(self, told: int) -> int:
        return 0 if self._at > FLAT_AFTER_S else told
