"""Days with sessions and other load: what clashes, and what of it a coach is told.

In hard minutes' worth (see asked/qualities). The limits are coaches' practice, ours, and the club's to set.
"""

from collections.abc import Callable, Iterable, Iterator
from datetime import date, datetime
from typing import Literal

from lovrit.core.asked.carried import Other, Planned, carried
from lovrit.core.asked.qualities import REGIONS, Quality, Region
from lovrit.core.values import Value

CLASH = 5.0  # hard minutes' worth: what is one whole load of a region
ASKED, CARRIED, NOT_FRESH = (
    0.8,
    0.6,
    0.55,
)  # of that, from which a load clashes, is carried, spoils what wants it fresh
SHARPENS_H, EASY_H = (
    72,
    48,
)  # before an event: nothing that leaves a body sore or heavy, and nothing hard
STALE: tuple[Quality, ...] = ("heavy", "lowering and landings")
HALF = 0.5
MOST_A_WEEK = 3


class DayClash(Value):
    """A session that asks for a region which is still carried, wants it fresh, or spoils it for an event.

    ``pattern`` is the region, ``what`` the quality that is asked, ``left`` the one that is carried from ``since``.
    ``asked`` and ``carried`` are hard minutes' worth; ``hours`` lie between. ``price`` is how much it weighs.
    """

    kind: Literal["again", "fresh", "event", "told"] = "again"
    session: str
    pattern: Region
    what: str
    asked: float
    carried: float
    since: str
    left: str
    hours: float
    price: float

    @property
    def because(self) -> str:
        """Why, without the names of sessions; ``{since}`` stands for the other."""
        late, what = _ago(self.hours), SAID.get(self.what, self.what)
        if self.kind == "event":
            return f"asks {what} of {self.pattern} {late} before {{since}}"
        asks = {
            "again": f"asks {what} of {self.pattern}",
            "fresh": f"wants {self.pattern} fresh for {what}",
            "told": f"has skill in it that wants {self.pattern} fresh",
        }[self.kind]
        left = SORE if self.left == "lowering and landings" else SAID.get(self.left, self.left)
        return f"{asks}, where {left} of {{since}}, {late} before, is still carried"

    @property
    def text(self) -> str:
        """The clash in a sentence."""
        return f"{self.session} {self.because.replace('{since}', self.since)}."


SORE = "soreness from lowering or landings"
SAID: dict[str, str] = {
    "hard breath": "hard breathing", "hard work": "hard work", "speed and jumps": "speed", "heavy": "heavy lifting",
    "lowering and landings": "slow lowering or landings", "long and easy": "a long stretch", "near the limit":
    "many reps near the limit", "grip": "holding on", "skill": "skill", "other": "the load",
}  # fmt: skip


def _ago(hours: float) -> str:
    if hours < 36:
        return f"{round(hours)} hours" if round(hours) != 1 else "an hour"
    return f"{round(hours / 24)} days"


def again_price(asked: float, there: float, limit: float) -> float:
    """How much it weighs that a region is asked for again: nothing below the limits."""
    return min(asked, there) if asked >= ASKED * limit and there >= CARRIED * limit else 0.0


def fresh_price(there: float, limit: float) -> float:
    """How much it weighs that a region is not fresh where it has to be."""
    return min(limit, there) if there >= NOT_FRESH * limit else 0.0


def event_price(one: Planned, other: Other, region: Region, limit: float) -> tuple[float, str]:
    """How much a session before an event weighs on a region of it, and the quality that does."""
    hours = (other.at - one.at).total_seconds() / 3600
    if not other.is_event or not 0 < hours <= SHARPENS_H or not other.on(region):
        return 0.0, ""
    for quality in STALE:
        worth = one.asks.left.worth(region, quality)
        if worth >= HALF * limit:
            return worth, quality
    hard = one.asks.left.worth(region)
    if hours <= EASY_H and hard >= ASKED * limit:
        return hard, one.asks.left.chief(region) or ""
    return 0.0, ""


def clashes(sessions: list[Planned], others: list[Other], limit: float = CLASH) -> list[DayClash]:
    """Every session that asks for what is still carried, wants it fresh, or comes too near an event, by region."""
    every = sorted(sessions, key=lambda one: one.at)
    found: list[DayClash] = []
    for nth, one in enumerate(every):
        before = [other for other in every[:nth] if other.at < one.at]
        there = carried(one.at, before, others)
        for region in REGIONS:
            found += _of_carried(one, region, there.get(region, 0.0), before, others, limit)
            found += _before_event(one, region, others, limit)
    return found


def told(some: Iterable[DayClash], at: Callable[[str], datetime]) -> list[DayClash]:
    """Those that a coach is told: the worst of a day, three a week, the worst first within it; then in time."""
    by_day: dict[date, DayClash] = {}
    for one in some:
        day = at(one.session).date()
        if day not in by_day or one.price > by_day[day].price:
            by_day[day] = one
    weeks: dict[tuple[int, int], list[DayClash]] = {}
    for one in by_day.values():
        weeks.setdefault(at(one.session).isocalendar()[:2], []).append(one)
    worst = [
        one
        for these in weeks.values()
        for one in sorted(these, key=lambda one: -one.price)[:MOST_A_WEEK]
    ]
    return sorted(worst, key=lambda one: at(one.session))


def _of_carried(
    one: Planned,
    region: Region,
    there: float,
    before: list[Planned],
    others: list[Other],
    limit: float,
) -> Iterator[DayClash]:
    mine = one.asks.left
    asked = mine.worth(region)
    again = again_price(asked, there, limit)
    wants = [need for need in mine.fresh if need.region == region and not need.told]
    fresh = fresh_price(there, limit) if wants else 0.0
    skill = any(need.region == region and need.told for need in mine.fresh)
    if not (again or fresh or (skill and fresh_price(there, limit))):
        return
    since, quality, hours = _from(one, region, before, others)
    yield DayClash(
        kind="fresh" if fresh else "again" if again else "told",
        session=one.id,
        pattern=region,
        what=wants[0].what if fresh else (mine.chief(region) or "") if again else "skill",
        asked=asked,
        carried=there,
        since=since,
        left=quality,
        hours=hours,
        price=again + fresh,
    )


def _before_event(
    one: Planned, region: Region, others: list[Other], limit: float
) -> Iterator[DayClash]:
    for other in others:
        price, quality = event_price(one, other, region, limit)
        if price:
            yield DayClash(
                kind="event",
                session=one.id,
                pattern=region,
                what=quality,
                asked=one.asks.left.worth(region),
                carried=0.0,
                since=other.what,
                left="other",
                hours=(other.at - one.at).total_seconds() / 3600,
                price=price,
            )


def _from(
    one: Planned, region: str, before: list[Planned], others: list[Other]
) -> tuple[str, str, float]:
    """Where most of what is carried comes from, of which quality, and so many hours ago."""
    shares: list[tuple[dict[str, float], str, str, datetime]] = [
        (carried(one.at, [other], []), other.id, other.asks.left.chief(region) or "", other.at)
        for other in before
    ]
    shares += [(carried(one.at, [], [other]), other.what, "other", other.at) for other in others]
    _, name, quality, at = max(shares, key=lambda share: share[0].get(region, 0.0))
    return name, quality, (one.at - at).total_seconds() / 3600


def real(some: Iterable[DayClash]) -> list[DayClash]:
    """Those that are clashes, without what is only told."""
    return [one for one in some if one.kind != "told"]


def cost(sessions: list[Planned], others: list[Other], limit: float = CLASH) -> float:
    """How much weeks clash: over all that does, how much it weighs."""
    return sum(one.price for one in clashes(sessions, others, limit))
