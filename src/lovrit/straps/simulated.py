"""A simulated strap: a heart that answers the work with lag and noise, and a signal with its faults.

All chance comes from a seed, so that the same class gives the same trace, also after a restart.
"""

from collections import deque
from collections.abc import Callable, Container, Iterable
from math import exp, sqrt
from random import Random

from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body, beats, recovery_s, settled, step
from lovrit.straps.faults import BEHAVES, Player
from lovrit.straps.source import Beat, Push

__all__ = ["BEHAVES", "SimulatedStrap", "SimulatedStraps"]

NOISE_SD = 1.2  # beats of a heart's own unrest; a played heart that keeps one value looks like a strap that hangs
NOISE_MEMORY = 0.85
NEW_NOISE_SD = NOISE_SD * sqrt(1 - NOISE_MEMORY**2)


class SimulatedStrap:
    """One person's strap. Ask it once a second with the demand of that second."""

    def __init__(self, person: Person, seed: int) -> None:
        self.person = person
        chance = Random(f"{person.id}/body")  # a person's heart is the same on every evening
        gain = 1.24 if person.strap == "over" else 1 + 0.04 * chance.gauss(0, 1)
        self.body = Body(
            rest=person.rest,
            highest=person.highest,
            tau_on=18 if person.strap == "over" else _near(chance, 28, 0.22, 18, 60),
            tau_off=_near(chance, recovery_s(person.age), 0.25, 35, 120),
            tau_m=_near(chance, 6, 0.25, 3, 14),
            delay=min(8.0, max(0.0, 3 + 1.2 * chance.gauss(0, 1))),
            gain=min(1.25, max(0.75, gain)),
        )
        self.state = settled(0.08)
        self.noise = 0.0
        self.chance = Random(f"{seed}/{person.id}/noise")
        self.late: deque[float] = deque(
            [beats(self.body, self.state)] * (round(self.body.delay) + 1)
        )
        self.player = Player(person.strap, person.highest, self.chance)

    def second(self, demand: float) -> int:
        """The reading after one more second of a demand (share of reserve): beats a minute, 0 for no signal."""
        self.state = step(self.body, self.state, demand, 1)
        self.late.append(beats(self.body, self.state))
        true = self.late.popleft()
        self.noise = NOISE_MEMORY * self.noise + self.chance.gauss(0, NEW_NOISE_SD)
        told = max(30, min(230, round(true + self.noise)))
        return self.player.second(told)


class SimulatedStraps:
    """The simulated straps of a class: asked for a second, each pushes its reading of it."""

    def __init__(self, people: Iterable[Person], seed: int, push: Push) -> None:
        self._straps: dict[int, SimulatedStrap] = {}
        self._push, self._seed = push, seed
        for one in people:
            self.add(one)

    def add(self, person: Person) -> None:
        """One more person's strap, where they wear one."""
        if not person.effort_only:
            self._straps[person.id] = SimulatedStrap(person, self._seed)

    def __len__(self) -> int:
        return len(self._straps)

    def second(
        self, at_ms: int, demand: Callable[[int], float], worn: Container[int] = frozenset()
    ) -> None:
        """One more second, in which each person's demand is what ``demand`` says of their number.

        Who has ``worn`` a strap from outside tells by that.
        """
        for person, strap in self._straps.items():
            told = strap.second(demand(person))
            if person not in worn:
                self._push(Beat(person, at_ms, told))


def _near(chance: Random, middle: float, spread: float, low: float, high: float) -> float:
    return min(high, max(low, middle * exp(spread * chance.gauss(0, 1))))
