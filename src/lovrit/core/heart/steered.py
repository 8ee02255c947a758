"""What each interval asks of each of some hearts: one demand for all, or where a target steers, everybody's own."""

from collections.abc import Iterable, Iterator, Sequence

import numpy as np

from lovrit.core.blocks.parts import Heart
from lovrit.core.heart.asked import Own, interval_demand, steered_by
from lovrit.core.heart.body import Body
from lovrit.core.heart.hearts import Floats
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval


class Steered:
    """Demands on some hearts, each worked out once a target. ``threshold`` is theirs, where it is known."""

    def __init__(
        self, session: Session, bodies: Sequence[Body], thresholds: Sequence[float | None] = ()
    ) -> None:
        self.session = session
        known = (*thresholds, *([None] * (len(bodies) - len(thresholds))))
        self._own = [
            Own(body.rest, body.highest, threshold)
            for body, threshold in zip(bodies, known, strict=True)
        ]
        self._gain = np.array([body.gain for body in bodies])
        self._kept: dict[Heart, Floats] = {}

    def of(self, one: Interval) -> float | Floats:
        """Demand of an interval, as a share of reserve: of all, or of each; a gain is steered against."""
        target = steered_by(self.session, one)
        if target is None:
            return interval_demand(self.session, one)
        if target not in self._kept:
            each = [interval_demand(self.session, one, own) for own in self._own]
            self._kept[target] = np.array(each) / self._gain
        return self._kept[target]

    def steps(self, some: Iterable[Interval]) -> Iterator[tuple[int, float | Floats]]:
        """Each interval's seconds and what it asks."""
        return ((one.seconds, self.of(one)) for one in some)
