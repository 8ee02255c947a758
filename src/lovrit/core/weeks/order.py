"""In which order a week clashes least, exactly: up to eight sessions every order is priced at once, as arrays.

Sessions change places among their own times. Of more than eight an order is built from the first time to the last; what
it costs up to there never becomes less, so a beginning that costs as much as the best whole order is left (branch and
bound, Land and Doig 1960); it is proven unless so many beginnings were looked at that somebody would wait.
"""

from datetime import datetime
from functools import cache
from itertools import combinations, permutations

import numpy as np
from numpy.typing import NDArray

from lovrit.core.asked.carried import Other, Planned, carried, still
from lovrit.core.asked.clashing import ASKED, CARRIED, CLASH, NOT_FRESH, cost, event_price
from lovrit.core.asked.qualities import REGIONS
from lovrit.core.values import Value

MOST_PRICED = 8  # sessions of which every order is priced: 40,320
MOST_LOOKED = 3000  # beginnings, of more sessions than that
NOTHING = 1e-9
Doses = NDArray[np.float64]


class Wish(Value):
    """What an order should keep: a session not before a day, two apart by so many days, one on a day.

    ``day`` is a date (YYYY-MM-DD).
    """

    kind: str
    id: str = ""
    other: str = ""
    day: str = ""
    days: int = 0
    text: str = ""


class Order(Value):
    """The best order: what the week costs now and then, each session's time, and whether no other can be better."""

    now: float
    best: float
    at: dict[str, datetime]
    proven: bool


def kept(sessions: list[Planned], wishes: tuple[Wish, ...]) -> bool:
    """Whether an order keeps every wish."""
    at = {one.id: one.at for one in sessions}
    return all(_keeps(wish, at) for wish in wishes)


def _keeps(wish: Wish, at: dict[str, datetime]) -> bool:
    here = at.get(wish.id)
    if here is None:
        return True
    if wish.kind == "not-before":
        return f"{here:%Y-%m-%d}" >= wish.day
    if wish.kind == "on":
        return f"{here:%Y-%m-%d}" == wish.day
    other = at.get(wish.other)
    return other is None or abs((here.date() - other.date()).days) >= wish.days


def best_order(
    sessions: list[Planned],
    others: list[Other],
    wishes: tuple[Wish, ...],
    limit: float = CLASH,
    most: int = MOST_LOOKED,
) -> Order:
    """The order that clashes least and keeps the wishes; fixed sessions stay.

    Where no order keeps them all, the one that is.
    """
    now = cost(sessions, others, limit)
    search = _Search(sessions, others, wishes, limit, most)
    chosen = search.best(now if kept(sessions, wishes) else float("inf"))
    at = {one.id: one.at for one in sessions} | chosen
    moved = [one.but(at=at[one.id]) for one in sessions]
    best = cost(moved, others, limit) if chosen else now
    return Order(now=now, best=best, at=at, proven=search.whole)


@cache
def _orders(count: int) -> NDArray[np.int64]:
    """Every order of so many sessions."""
    return np.array(list(permutations(range(count))), dtype=np.int64)


def _exchanged(order: list[int], one: int, other: int) -> list[int]:
    made = [*order]
    made[one], made[other] = made[other], made[one]
    return made


class _Search:
    """The places of an order in time: those of fixed sessions, and those that the free ones change among.

    Doses are arrays over channels, each region twice: asked for again, and wanted fresh. ``kept_of[i, a, b]`` is what
    is carried at the place b of session i at the time a; ``near[i, a]`` what it costs there by an event that is near.
    """

    def __init__(
        self,
        sessions: list[Planned],
        others: list[Other],
        wishes: tuple[Wish, ...],
        limit: float,
        most: int,
    ) -> None:
        self.free = [one for one in sessions if not one.fixed]
        self.times = sorted(one.at for one in self.free)
        self.stay = sorted((one for one in sessions if one.fixed), key=lambda one: one.at)
        self.wishes, self.limit, self.looks = wishes, limit, most
        self.looked, self.whole = 0, True
        self.places = [*self.times, *(one.at for one in self.stay)]
        self.least = limit * np.repeat([ASKED, 0.5], len(REGIONS))  # of what is asked
        self.most = limit * np.repeat([CARRIED, NOT_FRESH], len(REGIONS))  # of what is carried
        base = [
            carried(at, [one for one in self.stay if one.at < at], others) for at in self.places
        ]
        self.base = np.array([self._twice(there) for there in base])
        self.asked = self._all_asked(self.free)
        self.stays = self._all_asked(self.stay)
        self.kept_of = np.array([[self._kept(one, at) for at in self.times] for one in self.free])
        self.near = np.array(
            [[self._near(one.but(at=at), others) for at in self.times] for one in self.free]
        )

    def _twice(self, there: dict[str, float]) -> list[float]:
        return [there.get(name, 0.0) for name in REGIONS] * 2

    def _all_asked(self, some: list[Planned]) -> Doses:
        """What sessions ask of each channel: worth, and a whole load where a region has to be fresh."""
        rows = [
            [one.asks.left.worth(name) for name in REGIONS]
            + [
                self.limit
                * any(need.region == name and not need.told for need in one.asks.left.fresh)
                for name in REGIONS
            ]
            for one in some
        ]
        return np.array(rows).reshape(len(some), 2 * len(REGIONS))

    def _kept(self, one: Planned, at: datetime) -> list[list[float]]:
        """What is carried of a session that is at a time, at every place."""
        hours = [(place - at).total_seconds() / 3600 for place in self.places]
        return [
            self._twice(still(one.asks.left.burdens, late) if late > 0 else {}) for late in hours
        ]

    def _near(self, one: Planned, others: list[Other]) -> float:
        """What it costs that an event is near."""
        return sum(
            event_price(one, other, name, self.limit)[0] for other in others for name in REGIONS
        )

    def best(self, bound: float) -> dict[str, datetime]:
        """Each free session's time in the best order that costs less than the bound; nothing where none does."""
        self.bound, self.chosen = bound, list[int]()
        if not self.free:
            return {}
        if len(self.free) <= MOST_PRICED:
            self._price_all()
        else:
            self._exchange()
            self._from([], self.base)
        return {self.free[one].id: at for one, at in zip(self.chosen, self.times, strict=False)}

    def _price_all(self) -> None:
        """Every order that keeps the wishes, all at once; of those alike the first is taken."""
        orders = _orders(len(self.free))
        if self.wishes:
            orders = orders[[self._still_kept([int(one) for one in row]) for row in orders]]
        if not len(orders):
            return
        prices = self._priced(orders)
        at = int(np.argmin(prices))
        if prices[at] < self.bound - NOTHING:
            self.bound, self.chosen = float(prices[at]), [int(one) for one in orders[at]]

    def _priced(self, orders: NDArray[np.int64]) -> Doses:
        """What whole orders cost, each a row of sessions by the times that they take."""
        count = len(self.times)
        both = np.concatenate([self.asked, self.stays])
        asking = np.flatnonzero((both >= self.least).any(axis=0))
        kept_of, asked, stays = (
            self.kept_of[..., asking],
            self.asked[:, asking],
            both[len(self.free) :, asking],
        )
        price = sum(
            (self.near[orders[:, place], place] for place in range(count)), np.zeros(len(orders))
        )
        for place, at in enumerate(self.places):
            there = np.tile(self.base[place, asking], (len(orders), 1))
            for before, when in enumerate(self.times):
                if when < at:
                    there += kept_of[:, before, place][orders[:, before]]
            here = asked[orders[:, place]] if place < count else stays[place - count]
            price += self._prices(here, there, asking)
        return price

    def _exchange(self) -> None:
        """A good order to begin with: two sessions change places as long as that makes it cheaper."""
        order = list(range(len(self.free)))
        price = float("inf")
        while True:
            pairs = [
                order,
                *(_exchanged(order, a, b) for a, b in combinations(range(len(order)), 2)),
            ]
            some = np.array([one for one in pairs if self._still_kept(one)] or [order])
            prices = self._priced(some)
            at = int(np.argmin(prices))
            if prices[at] >= price - NOTHING:
                break
            price, order = float(prices[at]), [int(one) for one in some[at]]
        if price < self.bound - NOTHING and self._still_kept(order):
            self.bound, self.chosen = price, order

    def _from(self, placed: list[int], there: Doses, price: float = 0.0) -> None:
        """Every way to go on from a beginning that fills the first times; ``there`` is carried at each place."""
        nth, count = len(placed), len(self.times)
        fixed = self._prices(self.stays, there[count:]).sum() if self.stay else 0.0
        if nth == count:
            if price + fixed < self.bound - NOTHING:
                self.bound, self.chosen = price + fixed, placed
            return
        free = [one for one in range(count) if one not in placed]
        prices = self._prices(self.asked[free, None, :], there[None, nth:count, :])
        prices = prices + self.near[free, nth:count]
        # what is carried only grows, so no place and no session becomes cheaper than it is now
        least = price + fixed + max(prices.min(axis=0).sum(), prices.min(axis=1).sum())
        if least >= self.bound - NOTHING:
            return
        for row in np.argsort(prices[:, 0], kind="stable"):
            one = free[row]
            self.looked += 1
            if self.looked > self.looks:
                self.whole = False
                return
            after = [*placed, one]
            if not self._twin(one, free) and self._still_kept(after):
                self._from(after, there + self.kept_of[one, nth], price + prices[row, 0])

    def _prices(self, asked: Doses, there: Doses, asking: NDArray[np.int64] | None = None) -> Doses:
        """What sessions cost where so much is carried: what is asked on it, of what clashes."""
        some = np.arange(len(self.least)) if asking is None else asking
        clashing = (there >= self.most[some]) & (asked >= self.least[some])
        priced: Doses = (clashing * np.minimum(asked, there)).sum(axis=-1)
        return priced

    def _twin(self, one: int, free: list[int]) -> bool:
        """Whether an earlier session that is left asks the very same, and nothing is wished of either."""
        wished = {name for wish in self.wishes for name in (wish.id, wish.other)}
        if self.free[one].id in wished:
            return False
        mine = self.free[one].asks
        return any(
            other < one and self.free[other].asks == mine and self.free[other].id not in wished
            for other in free
        )

    def _still_kept(self, placed: list[int]) -> bool:
        """Whether the wishes hold of those that are placed; what is left may still keep its own."""
        at = {one.id: one.at for one in self.stay}
        at |= {self.free[one].id: when for one, when in zip(placed, self.times, strict=False)}
        return all(_keeps(wish, at) for wish in self.wishes)
