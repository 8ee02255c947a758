"""What people may know of the weeks that come: when, how long, what it will be like; nothing of any person.

What was shown once keeps its name for good: a change raises its number, what falls out is called off, never dropped.
"""

from datetime import date

from lovrit.core.asked.dose import Asks
from lovrit.core.values import Value

LEGS = ("squat", "hinge", "lunge", "jump")
PARTS = {
    "legs": LEGS,
    "pushing": ("push",),
    "pulling": ("pull",),
    "carrying": ("carry",),
    "running": ("gait",),
}
MUCH, EASY_MIN, BREATHLESS = 5.0, 3.0, 6.0  # hard minutes that are worth a word
TENS = {
    20: "twenty",
    30: "thirty",
    40: "forty",
    50: "fifty",
    60: "sixty",
    70: "seventy",
    80: "eighty",
    90: "ninety",
}
TEENS = {10: "ten", 15: "a quarter of an hour"}


class Shown(Value):
    """A session as people see it. ``day`` as YYYY-MM-DD, ``at`` as hh:mm; ``sequence`` counts its changes.

    ``was`` is when it stood before, where that has changed; ``fresh`` where it came after the week was first shown.
    """

    uid: str
    session: int
    day: str
    at: str
    minutes: int
    title: str
    like: str
    sequence: int = 0
    cancelled: bool = False
    was: str = ""
    fresh: bool = False
    where: str = ""

    @property
    def told(self) -> tuple[object, ...]:
        """What a change of is worth telling."""
        return self.day, self.at, self.minutes, self.title, self.like, self.where


def like(asks: Asks) -> str:
    """What a session will be like, in one sentence from its figures."""
    doses = {name: sum(asks.dose.get(one, 0.0) for one in some) for name, some in PARTS.items()}
    hard = [name for name, dose in sorted(doses.items(), key=lambda one: -one[1]) if dose >= MUCH][
        :2
    ]
    parts = [f"{_minutes(asks.minutes)}"]
    if asks.brisk_min < EASY_MIN:
        parts.append("unhurried all through")
    elif hard:
        word = "hard" if asks.hard_min >= EASY_MIN else "brisk"  # what the board counts as hard
        parts.append(f"{word} {' and '.join(hard)}")
    else:
        parts.append("hard in places, of everything a little")
    if asks.dose.get("breath", 0.0) >= BREATHLESS:
        parts.append("out of breath more than once")
    return ", ".join(parts)


def _minutes(minutes: float) -> str:
    near = max(10, round(minutes / 5) * 5)
    if near in TEENS:
        return TEENS[near] if near > 10 else "ten minutes"
    tens, five = near // 10 * 10, near % 10
    if tens not in TENS:
        return f"{near} minutes"
    return f"{TENS[tens]}{'-five' if five else ''} minutes"


def published(
    before: tuple[Shown, ...], now: list[Shown], first: str, last: str
) -> tuple[Shown, ...]:
    """What people see from now on, of what they saw before and the days from ``first`` to ``last`` as they are now."""
    known = {one.uid: one for one in before}
    here = {one.uid: one for one in now}
    again = any(first <= one.day <= last for one in before)
    found = [_beside(known.get(one.uid), one, again) for one in now]
    for one in before:
        if one.uid in here:
            continue
        inside = first <= one.day <= last and not one.cancelled
        found.append(one.but(cancelled=True, sequence=one.sequence + 1, was="") if inside else one)
    return tuple(sorted(found, key=lambda one: (one.day, one.at, one.uid)))


def _beside(before: Shown | None, now: Shown, again: bool) -> Shown:
    if before is None:
        return now.but(fresh=again)
    if before.told == now.told and not before.cancelled:
        return before
    moved = (before.day, before.at) != (now.day, now.at)
    was = f"{before.day} {before.at}" if moved and not before.cancelled else before.was
    return now.but(sequence=before.sequence + 1, was=was, fresh=before.fresh)


def changed(before: tuple[Shown, ...], after: tuple[Shown, ...]) -> tuple[Shown, ...]:
    """Those that are otherwise than people saw them last."""
    known = {one.uid: one.sequence for one in before}
    return tuple(one for one in after if known.get(one.uid) != one.sequence)


def change_said(before: Shown | None, after: Shown) -> str:
    """What of a session is otherwise than people saw it, as it would be called out to them.

    >>> one = Shown(uid="a", session=1, day="2027-03-04", at="18:10", minutes=45, title="Legs", like="")
    >>> change_said(one, one.but(at="19:00"))
    'Legs: Thursday 4 March, 18:10 → 19:00'
    """
    when = f"{_day(after.day)}, {after.at}"
    if before is None or before.cancelled:
        return f"{after.title}: {'new' if before is None else 'takes place after all'}, {when}"
    if after.cancelled:
        return f"{before.title}: called off, {_day(before.day)}, {before.at}"
    head = after.title if after.title == before.title else f"{before.title} → {after.title}"
    parts = []
    if before.day != after.day:
        parts.append(f"{_day(before.day)}, {before.at} → {when}")
    elif before.at != after.at:
        parts.append(f"{_day(after.day)}, {before.at} → {after.at}")
    else:
        parts.append(when)
    if before.minutes != after.minutes:
        parts.append(f"{before.minutes} → {after.minutes} minutes")
    if before.where != after.where:
        parts.append(f"{before.where or 'no hall'} → {after.where or 'no hall'}")
    if before.like != after.like and before.minutes == after.minutes:
        parts.append(f"now {after.like}")
    return f"{head}: {'; '.join(parts)}"


def _day(text: str) -> str:
    return f"{date.fromisoformat(text):%A %-d %B}"
