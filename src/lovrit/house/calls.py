"""What the coach is told of hearts while a class runs: each thing once, clearly, and not again until it has been over.

Somebody over their corridor for some seconds; a strap that has gone quiet; an effort that is said and a heart that says
another. Reasons are named, nothing is changed.
"""

from collections import deque
from collections.abc import Iterable
from statistics import fmean

from lovrit.core.clock import number
from lovrit.core.crew.person import Comer
from lovrit.core.heart.demand import effort_at
from lovrit.house.hearts import Bead

OVER_S, LOST_S = 8, 15  # so long before a word is said
SHOWN_S, QUIET_S = (
    12,
    30,
)  # so long it stands there; so long in the box before it would be said again
STEADY_S, LEAST = (
    90,
    60,
)  # readings that say what effort a heart is at, and how many of them must hold
APART = 1.5  # steps of effort
HIGHER = "a bad day, heat, or a strap that slips"
LOWER = "medicine, a strap that slips, or a good day"
CHANGED = "{} and {} seem to wear each other’s straps: ask, and say so under Somebody."


class Calls:
    """What has been called, and since when what may be called has been so. Seconds are the class's own."""

    def __init__(self) -> None:
        self._since: dict[tuple[str, int], float] = {}
        self._called: dict[tuple[str, int], float] = {}
        self._calm: dict[int, float] = {}
        self._felt: dict[int, float] = {}
        self._said: list[tuple[float, str]] = []
        self._recent: dict[int, deque[int]] = {}
        self._seemed: set[tuple[int, int]] = set()
        self.changed: tuple[tuple[int, int], ...] = ()

    def suspect(self, pairs: Iterable[tuple[int, int]]) -> None:
        """Who seems to wear whose strap, as it looks now; it is said once it has looked so twice in a row."""
        now = set(pairs)
        self.changed = tuple(sorted(now & self._seemed))
        self._seemed = now

    def hear(self, person: int, bpm: int) -> None:
        """One more second of somebody's heart; 0 is no signal."""
        self._recent.setdefault(person, deque(maxlen=STEADY_S)).append(bpm)

    def look(
        self,
        beads: Iterable[Bead],
        felt: dict[int, float],
        comers: tuple[Comer, ...],
        at_s: float,
    ) -> tuple[str, ...]:
        """What stands there to be read at this second."""
        for bead in beads:
            self._over(bead, at_s)
            self._lost(bead, at_s)
        for comer in comers:
            self._at_odds(comer, felt, at_s)
        self._said = [(when, text) for when, text in self._said if at_s - when < SHOWN_S]
        names = {one.id: one.name for one in comers}
        seem = (CHANGED.format(names[one], names[other]) for one, other in self.changed)
        return (*(text for _, text in self._said), *seem)

    def _lasts(self, kind: str, bead: Bead, so: bool, at_s: float, least_s: float) -> bool:
        """Whether something has been so for long enough to be called, and was not called yet."""
        key = (kind, bead.person)
        if not so:
            self._since.pop(key, None)
            return False
        since = self._since.setdefault(key, at_s)
        if at_s - since < least_s or key in self._called:
            return False
        self._called[key] = at_s
        return True

    def _over(self, bead: Bead, at_s: float) -> None:
        if self._lasts("over", bead, bead.how == "over", at_s, OVER_S):
            self._said.append((at_s, f"{bead.name} is over: ease off, or end it there for them."))
        if bead.how == "over":
            self._calm.pop(bead.person, None)
        elif bead.how != "lost":
            calm = self._calm.setdefault(bead.person, at_s)
            if at_s - calm >= QUIET_S:
                self._called.pop(("over", bead.person), None)

    def _lost(self, bead: Bead, at_s: float) -> None:
        if self._lasts("lost", bead, bead.how == "lost", at_s, LOST_S):
            self._said.append(
                (at_s, f"{bead.name}’s strap tells nothing: by effort until it does.")
            )
        if bead.how not in ("lost", "waiting"):
            self._called.pop(("lost", bead.person), None)

    def _at_odds(self, comer: Comer, felt: dict[int, float], at_s: float) -> None:
        """An effort that was just said beside what the heart says, where it has been steady for long enough."""
        said = felt.get(comer.id)
        if said is None or self._felt.get(comer.id) == said:
            return
        self._felt[comer.id] = said
        held = [bpm for bpm in self._recent.get(comer.id, ()) if bpm > 0]
        if comer.effort_only or len(held) < LEAST:
            return
        heart = effort_at((fmean(held) - comer.rest) / (comer.highest - comer.rest))
        if abs(heart - said) <= APART:
            return
        heart_said = number(round(2 * heart) / 2)
        why = HIGHER if heart > said else LOWER
        self._said.append(
            (at_s, f"{comer.name} says {number(said)}, the heart {heart_said}: {why}? Ask.")
        )
