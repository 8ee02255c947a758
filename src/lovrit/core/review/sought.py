"""Words by which a class is sought: names, moves, words of notes, and days in the styles in which coaches write them.

A word that can be a day and a word is both: "march" finds the month and the march. A day that there is not is said.
"""

import re
from datetime import date, timedelta
from typing import NamedTuple

MONTHS = (
    "january", "february", "march", "april", "may", "june", "july", "august", "september", "october", "november",
    "december",
)  # fmt: skip
WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
MOST_TERMS = 12
# words that say nothing of a class by themselves
SMALL = frozenset(
    ["in", "on", "the", "with", "of", "and", "from", "a", "an", "class", "classes", "session"]
)
SPANS = ("week", "month", "year")
ISO = re.compile(r"(?P<y>\d{4})-(?P<m>\d{1,2})(?:-(?P<d>\d{1,2}))?")
DOTTED = re.compile(r"(?P<d>\d{1,2})\.(?P<m>\d{1,2})\.(?P<y>\d{4})?")
SLASHED = re.compile(r"(?P<one>\d{1,2})/(?P<two>\d{1,2})(?:/(?P<y>\d{4}))?")
YEAR = re.compile(r"(?:19|20)\d\d")
DAY_OF = re.compile(r"(\d{1,2})(?:st|nd|rd|th|\.)?")
TIME_OF_DAY = re.compile(r"\d{1,3}:\d\d")
WORD = re.compile(r"\w+")


class DayIs(NamedTuple):
    """What a day must be: its year, month, day of the month, weekday (0 for Monday), each where it is said."""

    year: int | None = None
    month: int | None = None
    day: int | None = None
    weekday: int | None = None

    def fits(self, on: date) -> bool:
        """Whether a day is such a one."""
        said = (self.year, self.month, self.day, self.weekday)
        return all(
            one is None or one == is_
            for one, is_ in zip(said, (on.year, on.month, on.day, on.weekday()), strict=True)
        )


class Term(NamedTuple):
    """One thing that is sought: any of these words (each a list that stands together), or any of these days."""

    words: tuple[tuple[str, ...], ...] = ()
    days: tuple[DayIs, ...] = ()


class Sought(NamedTuple):
    """All that must be so of a class that is found; ``asks`` where a day was written that there is not."""

    terms: tuple[Term, ...]
    asks: str = ""


def sought(text: str, today: date) -> Sought:
    """A line of words as what is sought.

    >>> sought("october", date(2026, 11, 26)).terms[0].days
    (DayIs(year=None, month=10, day=None, weekday=None),)
    >>> sought("31.2.2026", date(2026, 11, 26)).asks
    'There is no 31 February 2026.'
    """
    every = text.casefold().replace(",", " ").split()
    said = ([one for one in every if one not in SMALL] or every)[:MOST_TERMS]
    terms: list[Term] = []
    asks = ""
    while said:
        taken, term, wrong = _first(said, today)
        said = said[taken:]
        asks = asks or wrong
        if term.words or term.days:
            terms.append(term)
    return Sought(tuple(terms), asks)


def _first(said: list[str], today: date) -> tuple[int, Term, str]:
    """How many of the words make the first term, the term, and what is wrong with a day in it."""
    for many in (2, 1):
        days, wrong = _days(said[:many], today) if len(said) >= many else ((), "")
        if days or wrong:
            together = tuple(WORD.findall(said[0]))
            return many, Term((together,) if many == 1 and together else (), days), wrong
    words = tuple(WORD.findall(said[0]))
    return 1, Term(_singular(words) if words else ()), ""


def _singular(words: tuple[str, ...]) -> tuple[tuple[str, ...], ...]:
    """A word, and the same without the end that makes it many: "swings" finds swing."""
    last = words[-1]
    if last.isdecimal() or not last.endswith("s") or len(last) < 4:
        return (words,)
    shorter = last[:-3] + "y" if last.endswith("ies") else last[:-1]
    return (words, (*words[:-1], shorter))


def _days(said: list[str], today: date) -> tuple[tuple[DayIs, ...], str]:
    if len(said) == 2:
        span = _span(said[0], said[1], today)
        return (span, "") if span else _day_and_month(*said)
    word = said[0]
    if found := ISO.fullmatch(word) or DOTTED.fullmatch(word):
        return _real(*(int(found[name]) if found[name] else None for name in "ymd"))
    if found := SLASHED.fullmatch(word):
        return _either_way(
            int(found["one"]), int(found["two"]), int(found["y"]) if found["y"] else None
        )
    if word in ("today", "yesterday"):
        on = today - timedelta(days=word == "yesterday")
        return (DayIs(on.year, on.month, on.day),), ""
    if YEAR.fullmatch(word):
        return (DayIs(year=int(word)),), ""
    months, weekdays = _named(word, MONTHS), _named(word, WEEKDAYS)
    return (
        *(DayIs(month=one + 1) for one in months),
        *(DayIs(weekday=one) for one in weekdays),
    ), ""


def _span(which: str, what: str, today: date) -> tuple[DayIs, ...]:
    """ "last week", "this month", "last year"; nothing where it is none of these."""
    if which not in ("last", "this") or what not in SPANS:
        return ()
    back = which == "last"
    if what == "year":
        return (DayIs(year=today.year - back),)
    if what == "month":
        month = today.replace(day=1) - timedelta(days=back)
        return (DayIs(month.year, month.month),)
    monday = today - timedelta(days=today.weekday() + 7 * back)
    week = [monday + timedelta(days=nth) for nth in range(7)]
    return tuple(DayIs(one.year, one.month, one.day) for one in week)


def _named(word: str, names: tuple[str, ...]) -> list[int]:
    """Which name a word is, whole or as its first three letters or more."""
    return [
        nth
        for nth, name in enumerate(names)
        if len(word) >= 3 and name.startswith(word.removesuffix("."))
    ]


def _day_and_month(one: str, two: str) -> tuple[tuple[DayIs, ...], str]:
    """ "8 october" or "october 8"."""
    for day, month in ((one, two), (two, one)):
        number, named = DAY_OF.fullmatch(day), _named(month, MONTHS)
        if number and named and 1 <= int(number[1]) <= 31:
            return _real(None, named[0] + 1, int(number[1]))
    return (), ""


def _either_way(one: int, two: int, year: int | None) -> tuple[tuple[DayIs, ...], str]:
    """Day and month however they stand; neither is a day only where a year says that it was meant as one."""
    found = {day for d, m in ((one, two), (two, one)) for day in _real(year, m, d)[0]}
    wrong = "" if found or year is None else f"There is no day {one}/{two}/{year}."
    return tuple(sorted(found, key=str)), wrong


def _real(year: int | None, month: int | None, day: int | None) -> tuple[tuple[DayIs, ...], str]:
    """A day that there is; else which there is not."""
    if month is None or not 1 <= month <= 12:
        return (), f"There is no month {month}."
    try:
        date(year or 2024, month, day or 1)
    except ValueError:
        return (), f"There is no {day} {MONTHS[month - 1].title()}{f' {year}' if year else ''}."
    return (DayIs(year, month, day),), ""
