"""Days and sessions as the weeks read them."""

from datetime import date

from lovrit.core.values import LovritError
from lovrit.store.tables import SessionRow
from lovrit.web.house import House
from lovrit.web.weeks.view import Read, read_session


class NoSuchDay(LovritError):
    """A day that is none, or a load that can't be."""


def day_of(text: str) -> date:
    """A day as it is written.

    Raises:
        NoSuchDay: where it is none.
    """
    try:
        return date.fromisoformat(text.strip())
    except ValueError:
        raise NoSuchDay(f"“{text}” is no day; write it as 2026-12-24.") from None


def read_of(house: House, row: SessionRow) -> Read:
    """What a session comes to, read once until the library changes."""
    text = row.good_text or row.text
    if text not in house.weeks:
        house.weeks[text] = read_session(text, house.library)
    kept: Read = house.weeks[text]
    return kept
