"""Wishes of a placing: each can be left out, weigh little or much, or be a must. Costs are in seconds of walking."""

from typing import Literal, get_args

from lovrit.core.values import Value

Weight = Literal["off", "little", "usual", "much", "must"]
WEIGHTS: tuple[Weight, ...] = get_args(Weight)
FACTORS: dict[Weight, float] = {"off": 0, "little": 0.5, "usual": 1, "much": 3, "must": 12}
TWICE, GRIP_TWICE, UP_AND_DOWN, HARD_TWICE = 60, 40, 15, 20
UNLEVEL, PARTED, MOVED, OTHER_LOAD = 10, 25, 12, 4


class Wishes(Value):
    """How much each wish weighs. A walk can't be a must beyond the rest, nor the loads of a group."""

    patterns: Weight = "usual"
    grips: Weight = "usual"
    floor: Weight = "usual"
    hard: Weight = "usual"
    walks: Weight = "usual"
    levels: Weight = "usual"
    together: Weight = "usual"
    stays: Weight = "usual"
    loads: Weight = "off"

    def cost(self, wish: str, usual: float) -> int:
        """What it costs not to keep a wish that costs so much usually."""
        return round(FACTORS[getattr(self, wish)] * usual)

    @property
    def musts(self) -> tuple[str, ...]:
        """The wishes that have to be kept."""
        return tuple(name for name in SAID if self.must(name))

    def must(self, wish: str) -> bool:
        """Whether a wish has to be kept."""
        return bool(getattr(self, wish) == "must")


SAID: dict[str, str] = {
    "patterns": "no pattern twice in a row",
    "grips": "no grip twice in a row",
    "floor": "few changes between floor and standing",
    "hard": "hard, then easier",
    "walks": "short walks",
    "levels": "groups of the level that was wished for",
    "together": "who wants to be together is",
    "stays": "what stood last time stays",
    "loads": "like loads in a group",
}
NEVER_A_MUST = ("walks", "loads", "stays")
"""Wishes that can only weigh."""
