"""Days in a row: what is carried through them, how alike they are, each one's noon."""

from datetime import datetime, timedelta
from statistics import fmean, pstdev

import numpy as np
from numpy.typing import NDArray

from lovrit.core.asked.carried import FADES, Other, Planned
from lovrit.core.asked.qualities import MOST, REGIONS, Quality

Line = NDArray[np.float64]


def sameness(loads: list[float]) -> float | None:
    """How alike days are: their mean load over its spread (Foster 1998); None where nothing varies."""
    spread = pstdev(loads) if len(loads) > 1 else 0.0
    return fmean(loads) / spread if spread else None


def days_between(first: datetime, last: datetime) -> list[datetime]:
    """Every day's noon from one to another."""
    noon = first.replace(hour=12, minute=0, second=0, microsecond=0)
    return [noon + timedelta(days=nth) for nth in range((last.date() - first.date()).days + 1)]


def carried_through(
    moments: list[datetime], sessions: list[Planned], others: list[Other]
) -> dict[str, Line]:
    """The same at many moments at once: a line a region."""
    total: dict[str, Line] = {}
    for one in sessions:
        hours = _hours(moments, one.at)
        mine: dict[str, Line] = {}
        for burden in one.asks.left.burdens:
            kept = burden.worth * _share(hours, burden.quality, burden.longer)
            mine[burden.region] = mine.get(burden.region, 0.0) + kept
        for region, line in mine.items():
            total[region] = total.get(region, 0.0) + np.where(
                hours > 0, np.minimum(MOST, line), 0.0
            )
    for other in others:
        hours = _hours(moments, other.at)
        for region in (one for one in REGIONS if other.worth(one)):
            kept = np.where(hours >= 0, other.worth(region) * _share(hours, "hard work"), 0.0)
            total[region] = total.get(region, 0.0) + kept
    return total


def _hours(moments: list[datetime], since: datetime) -> Line:
    return np.array([(at - since).total_seconds() / 3600 for at in moments])


def _share(hours: Line, quality: Quality, longer: float = 1.0) -> Line:
    """How much of a burden is left after so many hours."""
    whole, halved = (longer * one for one in FADES[quality])
    share: Line = 0.5 ** (np.maximum(0.0, hours - whole) / halved)
    return share
