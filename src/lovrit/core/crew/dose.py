"""How much of a session's hard work is for whom: two to seven minutes for older people, for who is new or just back.

It is proposed, never taken by itself, and as little as will do: a turn left out here and there, then a point lower.
Figures are coaches' practice, to be checked.
"""

from collections.abc import Iterable
from typing import NamedTuple

from lovrit.core.crew.person import OLDER, Person, Share
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.sums import HARD, is_hard

LEAST_S, MOST_S = 120, 420
NEW_WEEKS = 5
EASY = 6.0  # what is left of a hard work for whom nothing is to be hard


class Dose(NamedTuple):
    """What is proposed for somebody: the share of the hard work, why, and its seconds before and with it."""

    share: Share
    because: str
    hard_s: int
    own_s: int

    @property
    def text(self) -> str:
        """In words."""
        return SHARES[self.share]


SHARES: dict[Share, str] = {
    "": "all of it",
    "second": "every second hard turn, easy in the others",
    "third": "every third hard turn, easy in the others",
    "lower": "a point of effort lower",
    "easy": f"nothing hard: at {EASY:g} at most",
}


def gently(person: Person, today: str) -> str:
    """Why somebody gets a smaller share; empty where nothing asks for one. ``today`` as YYYY-MM-DD."""
    if person.cleared == "not yet":
        return "not cleared by a doctor yet"
    weeks = person.weeks(today)
    if person.standing != "usual" and (weeks is None or weeks <= NEW_WEEKS):
        return "new" if person.standing == "new" else "just back"
    return f"{person.age}" if person.age is not None and person.age >= OLDER else ""


def eased(share: Share, effort: float, nth: int) -> float:
    """The effort of a hard work with a share of it; ``nth`` counts the hard works of its session from 0."""
    if share in ("second", "third"):
        return effort if nth % (2 if share == "second" else 3) == 0 else min(effort, EASY)
    if share == "lower":
        return effort - 1
    return min(effort, EASY) if share == "easy" else effort


def hard_works(intervals: Iterable[Interval]) -> list[tuple[float, int]]:
    """Effort and seconds of each work that is hard, in their order."""
    return [
        (one.effort, one.seconds) for one in intervals if is_hard(one) and one.effort is not None
    ]


def own_hard_s(works: list[tuple[float, int]], share: Share) -> int:
    """Seconds of hard work that are left with a share of it."""
    return sum(
        seconds for nth, (effort, seconds) in enumerate(works) if eased(share, effort, nth) >= HARD
    )


def dose(person: Person, works: list[tuple[float, int]], today: str) -> Dose | None:
    """What is proposed for somebody of the hard works of a session; None where they may do all of it."""
    because, hard = gently(person, today), own_hard_s(works, "")
    if not because or not hard:
        return None
    if person.cleared == "not yet":
        return Dose("easy", because, hard, 0)
    if hard <= MOST_S:
        return None
    tried: list[tuple[Share, int]] = [
        (share, own_hard_s(works, share)) for share in ("second", "third", "lower", "easy")
    ]
    inside = [one for one in tried if LEAST_S <= one[1] <= MOST_S]
    share, own = next(iter(inside or [one for one in tried if one[1] <= MOST_S]))
    return Dose(share, because, hard, own)
