"""Days as people write them: 1.4.2027, 24/12, Thu 3, tomorrow, 2026-12-24. One reader for all fields."""

import re
from datetime import date, timedelta
from typing import Literal, NamedTuple

from lovrit.core.values import LovritError

Habit = Literal["day first", "month first"]
Toward = Literal["ahead", "back"]
WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
MONTHS = (
    "january", "february", "march", "april", "may", "june", "july", "august", "september", "october", "november",
    "december",
)  # fmt: skip
YEARS = (1900, 9999)
NEAR_DAYS = 62  # “Thu 3” is looked for among so many days; further off nobody would write it without the month
MOST_AWAY = 520  # weeks or days that “in …” may name
NEAR = {"today": 0, "tomorrow": 1, "yesterday": -1}
FIGURES = re.compile(
    r"(\d{1,2}) ?[./-] ?(\d{1,2})(?:\.|(?: ?[./-] ?(\d{4}|\d{2})))?(?!\d)", re.ASCII
)
ISO = re.compile(r"(\d{4})-(\d{2})-(\d{2})", re.ASCII)
AWAY = re.compile(r"in (\d{1,4}) (day|week)s?|(\d{1,4}) (day|week)s? ago", re.ASCII)
TIME = re.compile(r",? \d{1,2}:\d{2}", re.ASCII)
MOST_LETTERS = 40


class NoSuchDay(LovritError):
    """What was written is no day, or could be two."""


class _Said(NamedTuple):
    """What a day says of itself; None where it does not."""

    weekday: int | None = None
    day: int | None = None
    month: int | None = None
    year: int | None = None


def read_day(text: str, today: date, toward: Toward = "ahead", habit: Habit = "day first") -> date:
    """The day that is meant. One without its year is the next such day, or the last one where ``toward`` is back.

    Raises:
        NoSuchDay: if it is none, does not exist, or could be two, with the words for who wrote it.

    >>> read_day("1.4.", date(2026, 11, 30)), read_day("Thu 3", date(2026, 11, 30))
    (datetime.date(2027, 4, 1), datetime.date(2026, 12, 3))
    """
    said = " ".join(text.casefold().split())[: MOST_LETTERS + 1]
    if said in NEAR:
        return today + timedelta(NEAR[said])
    if said.startswith("next ") and _weekday(said[5:]) is not None:
        first = _following(_weekday(said[5:]) or 0, today, "ahead")
        both = " or ".join(f"{one:%-d %B}" for one in (first, first + timedelta(7)))
        raise NoSuchDay(f"“{text.strip()}” could be {both}: write the day.")
    found = _away(said, today) or _of_words(said, text, today, toward, habit)
    if found is None:
        raise NoSuchDay(
            f"“{text.strip()[:MOST_LETTERS]}” is no day. Write it as 24.12., Thu 3, 24 Dec or 2026-12-24."
        )
    return found


def _away(said: str, today: date) -> date | None:
    away = AWAY.fullmatch(said)
    if not away:
        return None
    many, what, sign = (away[1], away[2], 1) if away[1] else (away[3], away[4], -1)
    if int(many) > MOST_AWAY:
        return None
    return today + sign * timedelta(int(many) * (7 if what == "week" else 1))


def _of_words(said: str, text: str, today: date, toward: Toward, habit: Habit) -> date | None:
    read = _read(TIME.sub("", said), habit)
    if read is None:
        return None
    if read.day is None or read.month is None:
        return _by_weekday(read, today, toward)
    try:
        found = _dated(read, today, toward)
    except ValueError:
        raise NoSuchDay(f"There is no such day as “{text.strip()}”.") from None
    if read.weekday is not None and found.weekday() != read.weekday:
        raise NoSuchDay(f"{found:%-d %B %Y} is a {found:%A}: which of both is meant?")
    return found if YEARS[0] <= found.year <= YEARS[1] else None


def _read(said: str, habit: Habit) -> _Said | None:
    """The parts of a day, each at most once; None where something else stands among them."""
    iso = ISO.fullmatch(said)
    if iso:
        return _Said(None, int(iso[3]), int(iso[2]), int(iso[1]))
    first, _, rest = said.replace(",", " ").partition(" ")
    weekday = _weekday(first)
    left = said if weekday is None else rest.strip()
    figures = FIGURES.fullmatch(left)
    if figures:
        day, month = _ordered(int(figures[1]), int(figures[2]), habit)
        return _Said(weekday, day, month, _year(figures[3]))
    named = _named(left.replace(",", " ").replace(" of ", " ").split())
    if named is None or (weekday is None and named.month is None):
        return None
    return named._replace(weekday=weekday)


def _ordered(one: int, other: int, habit: Habit) -> tuple[int, int]:
    """Day and month of two figures: by habit, unless only the other way there is such a month."""
    day, month = (one, other) if habit == "day first" else (other, one)
    return (month, day) if month > len(MONTHS) >= day else (day, month)


def _year(figures: str | None) -> int | None:
    return None if figures is None else int(figures) + (2000 if len(figures) == 2 else 0)


def _named(words: list[str]) -> _Said | None:
    """Day, month and year in words: 24th december 2026, dec 24; a day alone; “30 11-30” as Lovrit prints it."""
    found = _Said()
    for word in words:
        plain = re.sub(r"(?<=\d)(st|nd|rd|th|\.)$", "", word)
        month = next((nth for nth, one in enumerate(MONTHS, 1) if _short(word, one)), None)
        printed = re.fullmatch(r"(\d{2})-(\d{2})", word, re.ASCII)
        if month and found.month is None:
            found = found._replace(month=month)
        elif plain.isdecimal() and len(plain) <= 2 and found.day is None:
            found = found._replace(day=int(plain))
        elif plain.isdecimal() and len(plain) == 4 and found.year is None:
            found = found._replace(year=int(plain))
        elif printed and found.day == int(printed[2]) and found.month is None:
            found = found._replace(month=int(printed[1]))
        else:
            return None
    return found if found.day is not None or not words else None


def _short(word: str, name: str) -> bool:
    """Whether a word is a name or the beginning of it, three letters or more, with a full stop or not."""
    plain = word.rstrip(".")
    return len(plain) >= 3 and name.startswith(plain)


def _weekday(word: str) -> int | None:
    return next((nth for nth, name in enumerate(WEEKDAYS) if _short(word, name)), None)


def _following(weekday: int, today: date, toward: Toward) -> date:
    """The next such weekday, or the last one; today is none of them."""
    if toward == "ahead":
        return today + timedelta((weekday - today.weekday() - 1) % 7 + 1)
    return today - timedelta((today.weekday() - weekday - 1) % 7 + 1)


def _by_weekday(read: _Said, today: date, toward: Toward) -> date | None:
    if read.weekday is None or read.month is not None:
        return None
    if read.day is None:
        return _following(read.weekday, today, toward)
    sign = 1 if toward == "ahead" else -1
    near = (today + sign * timedelta(away) for away in range(NEAR_DAYS))
    return next((one for one in near if (one.weekday(), one.day) == (read.weekday, read.day)), None)


def _dated(read: _Said, today: date, toward: Toward) -> date:
    """A day and a month, with the year that is said, else the nearest one in that direction."""
    day, month = read.day or 0, read.month or 0
    if read.year is not None:
        return date(read.year, month, day)
    years = (
        range(today.year, today.year + 9)
        if toward == "ahead"
        else range(today.year, today.year - 9, -1)
    )
    for year in years:
        try:
            found = date(year, month, day)
        except ValueError:
            continue  # 29 February, in most years
        if (found - today).days * (1 if toward == "ahead" else -1) >= 0:
            return found
    raise ValueError
