"""Those who come, as a forecast knows them; without the arithmetic of crowd.py, which is slow to load."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from lovrit.core.crew.paces import OwnPace
from lovrit.core.forecast.learned import Quickness


@dataclass(frozen=True, slots=True)
class Someone:
    """One of a group: what their scores say, their seconds for 100 m on foot, and their own numbered paces."""

    pace: Quickness = field(default_factory=Quickness)
    pace_100_s: int | None = None
    paces: tuple[OwnPace, ...] = ()


Group = Sequence[Someone]
