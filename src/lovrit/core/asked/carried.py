"""What the body still carries of sessions and other load, by region: each quality of work fades in its own time.

In hard minutes' worth (see asked/qualities); the hours are ours but where a source is named.
"""

import re
from collections.abc import Iterable
from datetime import datetime

from lovrit.core.asked.dose import Asks
from lovrit.core.asked.qualities import MOST, REGIONS, WORKS, Burden, Quality, Region
from lovrit.core.values import Value

# how long a quality is carried whole, and in how many hours it halves then
FADES: dict[Quality, tuple[float, float]] = {
    "hard breath": (0, 10),
    "hard work": (12, 16),
    "speed and jumps": (12, 18),  # all but gone after two days
    "heavy": (12, 18),  # three days where a squat and a hinge were both heavy
    "lowering and landings": (
        36,
        30,
    ),  # felt most on the second and third day (Cheung and others 2003)
    "long and easy": (12, 14),
    "near the limit": (12, 14),
    "grip": (4, 10),
}
OTHER = {
    "none": 0.0,
    "some": 0.5,
    "hard": 1.0,
    "event": 1.0,
}  # an event is what people want to be fresh for
NAMED, ALL, EVENT = 5.0, 2.5, 7.5  # worth of other load on what it names, on all, and of an event
ALSO: dict[str, Region] = {
    "impact": "legs",
    "overhead": "push",
}  # what other load was called by before
PATTERNS = (*WORKS, "brace", *REGIONS, *ALSO)
EVENTS = re.compile(
    r"\b(race|races|regatta|match|matches|competition|tournament|championships?|time trial|fitness test|test day|"
    r"cup|league|derby|gala|head race|trials)\b"
)


class Planned(Value):
    """A session on a day: its number or name, when it begins, what it asks, whether it may move."""

    id: str
    at: datetime
    asks: Asks
    fixed: bool = False


class Other(Value):
    """What else a day asks, in plain words: on the patterns (or regions) that it names, or on all."""

    at: datetime
    what: str
    weight: str = "hard"
    patterns: tuple[str, ...] = ()

    @property
    def is_event(self) -> bool:
        """Whether people want to be fresh for it: a race, a match, a regatta that is hard."""
        return self.weight == "event" or (
            self.weight == "hard" and bool(EVENTS.search(self.what.lower()))
        )

    def on(self, region: str) -> bool:
        """Whether a region is asked; all are where nothing is named."""
        return not self.patterns or region in _regions(self.patterns)

    def worth(self, region: str) -> float:
        """What it leaves on a region, in hard minutes' worth."""
        if not self.on(region):
            return 0.0
        if self.is_event:
            return EVENT
        return (NAMED if self.patterns else ALL) * OTHER[self.weight]


def _regions(patterns: Iterable[str]) -> set[str]:
    """The regions that patterns work most; a region's own name is one too."""
    found: set[str] = set()
    for one in patterns:
        works = WORKS.get(one, {})
        found |= {region for region, share in works.items() if share == max(works.values())}
        found |= {ALSO.get(one, one)} & set(REGIONS)
    return found


def left(worth: float, hours: float, quality: Quality = "hard work", longer: float = 1.0) -> float:
    """What is still carried of so much after so many hours; nothing before it was done."""
    if hours < 0:
        return 0.0
    whole, halved = (longer * one for one in FADES[quality])
    return worth if hours <= whole else worth * 0.5 ** ((hours - whole) / halved)


def still(burdens: Iterable[Burden], hours: float) -> dict[str, float]:
    """What one session still leaves after so many hours, by region, and no more than a region can take."""
    found: dict[str, float] = {}
    for one in burdens:
        found[one.region] = found.get(one.region, 0.0) + left(
            one.worth, hours, one.quality, one.longer
        )
    return {region: min(MOST, worth) for region, worth in found.items()}


def carried(at: datetime, sessions: Iterable[Planned], others: Iterable[Other]) -> dict[str, float]:
    """Hard minutes' worth still carried at a moment, by region."""
    total: dict[str, float] = {}
    for one in sessions:
        hours = (at - one.at).total_seconds() / 3600
        for region, worth in still(one.asks.left.burdens, hours).items() if hours > 0 else ():
            total[region] = total.get(region, 0.0) + worth
    for other in others:
        hours = (at - other.at).total_seconds() / 3600
        for region in REGIONS if hours >= 0 else ():
            total[region] = total.get(region, 0.0) + left(other.worth(region), hours)
    return total
