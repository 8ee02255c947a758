"""A placing: order and spots first, then people; where no people fit, a few other near-best orders are tried."""

from dataclasses import dataclass

from lovrit.core.place.groups import Dealt, deal
from lovrit.core.place.order import Laid, lay
from lovrit.core.place.problem import Problem
from lovrit.core.place.watch import Watch

ORDERS = 4  # so many orders are tried before it is said that none will do


@dataclass(frozen=True)
class Placing:
    """Where everything stands and who begins where; ``bound`` is what no placing can cost less than."""

    problem: Problem
    laid: Laid
    dealt: Dealt
    bound: int

    @property
    def cost(self) -> int:
        """What its wishes that are not kept add up to."""
        return self.laid.cost + self.dealt.cost

    @property
    def proven(self) -> bool:
        """Whether there is none better."""
        return self.bound >= self.cost

    @property
    def gap(self) -> float:
        """How far from the best it is at most, as a share of its cost."""
        return 0.0 if self.proven or not self.cost else (self.cost - self.bound) / self.cost


def place(problem: Problem, seconds: float, watch: Watch | None = None) -> Placing | None:
    """The best placing that is found in so many seconds; None where no placing was found.

    Who watches is told how far it is and may stop it; what was found up to then is what is answered.
    """
    if not problem.counts_out:
        return None
    watch = watch or Watch()
    tried: list[tuple[int, ...]] = []
    first: Laid | None = None
    for _ in range(ORDERS):
        laid = lay(problem, seconds * (0.7 if not tried else 0.2), tuple(tried), watch)
        if laid is None:
            return None
        first = first or laid
        dealt = deal(problem, laid.order, seconds * 0.2, watch)
        if dealt:
            least = _least(problem, laid, dealt, seconds, watch)
            return Placing(problem, laid, dealt, first.bound + least)
        tried.append(laid.order)
        if not problem.kit or problem.count < 4:  # another order shares kit in the same way
            return None
    return None


def _least(problem: Problem, laid: Laid, dealt: Dealt, seconds: float, watch: Watch) -> int:
    """What the groups cost at the least whatever the order: with kit for everybody."""
    if dealt.cost == 0:
        return 0
    free = deal(problem.but(kit={}), laid.order, seconds * 0.1, watch)
    return free.cost if free and free.proven else 0


def can_be(problem: Problem, seconds: float = 2.0) -> bool:
    """Whether there is any placing."""
    return place(problem, seconds) is not None
