"""Evenings to be compared, read from JSON, and what is said of them as JSON."""

from datetime import date
from math import isfinite
from typing import Any

from lovrit.core.review.compare import CannotCompare, Compared, Evening, compare

MOST_EVENINGS, MOST_PEOPLE = 500, 500


def compared_object(given: Any) -> dict[str, Any]:
    """What is said of the last evening of a file.

    Raises:
        CannotCompare: where it can't be read, with what is wrong in it.
    """
    if not isinstance(given, dict) or not isinstance(given.get("evenings"), list):
        raise CannotCompare("A file is {“figure”, “better”, “evenings”: [{“date”, “values”}]}.")
    better = given.get("better", "more")
    if better not in ("more", "less"):
        raise CannotCompare(f"“better” is more or less, not {better}.")
    evenings = tuple(
        _evening(nth, one) for nth, one in enumerate(given["evenings"][:MOST_EVENINGS], 1)
    )
    days = [one.day for one in evenings]
    if days != sorted(days):
        raise CannotCompare("The evenings come with the oldest first.")
    return _object(compare(str(given.get("figure")), better == "more", evenings))


def _evening(nth: int, given: Any) -> Evening:
    if not isinstance(given, dict) or not isinstance(given.get("values"), dict):
        raise CannotCompare(f"Evening {nth} needs a date and values by person.")
    try:
        day = date.fromisoformat(str(given.get("date"))).toordinal()
    except ValueError:
        raise CannotCompare(
            f"“{given.get('date')}” of evening {nth} is no day; write it as 2026-11-30."
        ) from None
    values = {}
    for who, value in list(given["values"].items())[:MOST_PEOPLE]:
        if not isinstance(value, int | float) or isinstance(value, bool) or not isfinite(value):
            raise CannotCompare(f"The value of “{who}” in evening {nth} is no figure: {value}.")
        values[str(who)] = float(value)
    return Evening(day=day, values=values)


def _object(told: Compared) -> dict[str, Any]:
    return {
        "evening": {"shift": told.shift, "text": told.text},
        "people": {
            who: {
                "now": one.now,
                "before": list(one.before),
                "verdict": one.verdict,
                "text": one.text,
                "trend": one.trend,
            }
            for who, one in told.people.items()
        },
    }
