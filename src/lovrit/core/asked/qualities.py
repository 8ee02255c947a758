"""What a session leaves behind, by the quality of its work and the region that did it, and what it needs fresh.

A minute of squats at 8, a heavy triple and an hour's easy run are not one kind of load: each fades in its own time and
spoils its own next thing. The unit is a *hard minute's worth*: what one minute at effort 8 leaves on the region that
did it. All figures are ours, from what coaches do, except where a source is named; a picture, not a measurement.
"""

from typing import Literal

from lovrit.core.values import Value

Quality = Literal[
    "hard breath", "hard work", "speed and jumps", "heavy", "lowering and landings", "long and easy",
    "near the limit", "grip",
]  # fmt: skip
Region = Literal["legs", "back", "push", "pull", "grip", "breath"]
REGIONS: tuple[Region, ...] = ("legs", "back", "push", "pull", "grip", "breath")

# which regions a pattern works, and how much of it
WORKS: dict[str, dict[Region, float]] = {
    "squat": {"legs": 1.0}, "lunge": {"legs": 1.0}, "jump": {"legs": 1.0}, "gait": {"legs": 1.0},
    "footwork": {"legs": 0.5}, "hinge": {"back": 1.0, "legs": 0.5}, "push": {"push": 1.0}, "pull": {"pull": 1.0},
    "carry": {"legs": 0.5, "back": 0.5}, "whole-body": {"push": 1.0, "legs": 1.0}, "machine": {"legs": 0.8},
}  # fmt: skip
GRIPPED = ("pull", "carry", "hinge")  # a goblet squat is held, and tires no grip

MOST = 10.0  # worth of a session on one region: who is done is done


class Burden(Value):
    """What a session leaves of one quality on one region: hard minutes' worth, and how much longer than usual."""

    quality: Quality
    region: Region
    worth: float
    longer: float = 1.0


class Fresh(Value):
    """A region that a session needs fresh, for what; ``told`` where it is said and no clash."""

    region: Region
    what: Quality | Literal["skill"]
    told: bool = False


class Leaves(Value):
    """What a session leaves behind and what it needs fresh."""

    burdens: tuple[Burden, ...] = ()
    fresh: tuple[Fresh, ...] = ()

    def worth(self, region: str, *qualities: Quality) -> float:
        """Hard minutes' worth on a region, of these qualities or of all; as much as a region can take."""
        some = (one.worth for one in self.burdens if one.region == region)
        if qualities:
            some = (
                one.worth
                for one in self.burdens
                if one.region == region and one.quality in qualities
            )
        return min(MOST, sum(some))

    def chief(self, region: str) -> Quality | None:
        """The quality of which it leaves most on a region."""
        found = [one for one in self.burdens if one.region == region]
        return max(found, key=lambda one: one.worth).quality if found else None
