"""What a coach minds of somebody tonight: whom to watch and why, who is new or back, who hasn't been seen for weeks."""

from datetime import date
from typing import NamedTuple

from lovrit.core.clock import number
from lovrit.core.crew.dose import SHARES
from lovrit.core.crew.person import DOES_NOT, Person
from lovrit.core.heart.over import OVER_TURNS, mostly_over

AWAY_DAYS = 21  # three weeks: from then on a body has lost some of what it had, and somebody asks after them
NEWS_DAYS = 28  # what was so long ago is no news of tonight
FELT_MORE = 2.0  # efforts felt above what was asked that are worth a word
HARD = 7.0  # from here on not being cleared matters


class Seen(NamedTuple):
    """When somebody came last (YYYY-MM-DD, empty for never), and how many classes there were since."""

    last: str
    classes_since: int


class LastTime(NamedTuple):
    """What was of somebody in the last class that they came to.

    ``stopped`` is why, "" where they did not or came back, "?" where nobody said; ``over`` of ``turns`` with a heart
    that held, ``under`` of them under their box; ``felt`` and ``asked`` are efforts. ``loads`` are what they used,
    ``changed`` what was better or worse than lately beside the evening.
    """

    on: str
    stopped: str = ""
    over: int = 0
    turns: int = 0
    felt: float | None = None
    asked: float | None = None
    under: int = 0
    loads: tuple[str, ...] = ()
    changed: tuple[str, ...] = ()


class Minds(NamedTuple):
    """A word on somebody; ``warns`` where it is one that must be heard before the start."""

    text: str
    warns: bool = False
    last: bool = False  # of the last class that they came to


def day_said(day: str, today: str) -> str:
    """A day that was, with its year where it is another.

    >>> day_said("2026-11-05", "2026-12-01"), day_said("2025-11-05", "2026-12-01")
    ('5 November', '5 November 2025')
    """
    on = date.fromisoformat(day)
    return f"{on:%-d %B}" + (f" {on.year}" if on.year != date.fromisoformat(today).year else "")


def _days(since: str, today: str) -> int:
    return (date.fromisoformat(today) - date.fromisoformat(since)).days


def missing_said(person: Person, seen: Seen, today: str) -> str:
    """Of somebody who stays away: since when nobody has seen them; empty where that is nothing to ask after."""
    away = bool(person.until and person.until > today) or "away" in person.mind.casefold()
    if not seen.last or away or not seen.classes_since or _days(seen.last, today) < AWAY_DAYS:
        return ""
    return f"not seen since {day_said(seen.last, today)}"


def missed_said(person: Person, seen: Seen, today: str) -> str:
    """The same with what it means for their return, as lists of people tell it."""
    said = missing_said(person, seen, today)
    return f"{said}; week 1 again" if said else ""


def arriving_said(person: Person, seen: Seen, today: str) -> str:
    """Of somebody who comes: new, back, or for the first time; empty where they come as usual."""
    weeks = person.weeks(today)
    which = f", week {weeks + 1}" if weeks is not None else ""
    if not seen.last and seen.classes_since:
        return (
            "new, for the first time: no all-out"
            if person.standing == "new"
            else "for the first time"
        )
    if person.standing == "usual":
        gone = _days(seen.last, today) if seen.last and seen.classes_since else 0
        return f"back after {gone // 7} weeks: week 1 again" if gone >= AWAY_DAYS else ""
    word = {"new": "new", "back": "back"}[person.standing]
    return f"{word}{which}: no all-out"


def watch_said(
    person: Person, hardest: float, today: str, last: LastTime | None = None, word: str = ""
) -> list[Minds]:
    """Why to watch somebody who comes to an evening of a ``hardest`` effort, the weightiest first."""
    said = []
    if person.cleared == "not yet" and hardest >= HARD:
        said.append(Minds("not cleared by a doctor: easy, or not at all", warns=True))
    if last and _days(last.on, today) <= NEWS_DAYS:
        said += last_said(last, today)
    if person.heart_asks:
        said.append(Minds(person.heart_asks, warns=True))
    if word:
        said.append(Minds(f"writes: “{word}”", warns=True))
    own = [DOES_NOT[limit] for limit in person.limits]
    own += [SHARES[person.share]] if person.share else []
    own += [person.mind] if person.mind else []
    if person.effort_only and "effort" not in person.mind:
        own.append("by effort")
    return said + ([Minds(", ".join(own))] if own else [])


def last_said(last: LastTime, today: str) -> list[Minds]:
    """What is worth a word of the last class that somebody came to."""
    on, said = day_said(last.on, today), []
    if last.stopped == "?":
        said.append(Minds(f"stopped on {on}, nobody said why. Ask before the start", True, True))
    elif last.stopped:
        said.append(Minds(f"stopped on {on}: {last.stopped}. Ask before the start", True, True))
    if mostly_over(last.over, last.turns):
        said.append(
            Minds(f"over their box in {last.over} of {last.turns} turns on {on}", last=True)
        )
    if last.felt is not None and last.asked is not None and last.felt - last.asked >= FELT_MORE:
        felt, asked = number(last.felt), number(last.asked)
        said.append(Minds(f"felt {felt} where {asked} was asked on {on}", last=True))
    return said


def last_whole(last: LastTime, today: str) -> str:
    """All that is known of the last class that somebody came to, the weightiest first."""
    said = {"": [], "?": ["stopped, nobody said why"]}.get(
        last.stopped, [f"stopped, {last.stopped}"]
    )
    if last.over and last.turns >= OVER_TURNS:
        said.append(f"over their box in {last.over} of {last.turns} turns")
    elif mostly_over(last.under, last.turns):
        said.append(f"under their box in {last.under} of {last.turns} turns")
    if last.felt is not None:
        said.append(f"felt {number(last.felt)}{_beside(last.felt, last.asked)}")
    said += [*last.changed, *([", ".join(last.loads)] if last.loads else [])]
    return f"{day_said(last.on, today)}: {'; '.join(said) or 'came'}"


HARDER = 1.0  # so much above what was asked isn't chance


def says_not_yet(last: LastTime) -> bool:
    """Whether somebody's last class, whatever was done in it, speaks against more from now on.

    >>> says_not_yet(LastTime("2026-11-26", felt=8, asked=7)), says_not_yet(LastTime("2026-11-26", stopped="?"))
    (True, True)
    >>> says_not_yet(LastTime("2026-11-26", felt=7.5, asked=7)), says_not_yet(LastTime("2026-11-26", felt=9))
    (False, False)
    """
    harder = last.felt is not None and last.asked is not None and last.felt - last.asked >= HARDER
    return bool(last.stopped) or harder or mostly_over(last.over, last.turns)


def _beside(felt: float, asked: float | None) -> str:
    if asked is None:
        return ""
    return ", as asked" if felt == asked else f" where {number(asked)} was asked"
