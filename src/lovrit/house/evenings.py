"""One text on several evenings: which others still have it as it was, and what a change of it asks."""

from collections.abc import Iterable
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.session.dated import undated, with_date
from lovrit.core.tonight.which import in_words
from lovrit.house.house import House
from lovrit.store import evenings, sessions
from lovrit.store.tables import SessionRow


class AlsoOn(NamedTuple):
    """Another evening of a text: its day in words, whether it has the text as it stands, or as it was before.

    One that has neither was changed on its own: what is written there would be lost.
    """

    id: int
    when: str
    same: bool
    as_before: bool


def evenings_of(house: House, work: Work, row: SessionRow) -> list[AlsoOn]:
    """The other evenings of a session's text that are still to come."""
    some = evenings.others(work, row, house.today)
    if not some:
        return []
    now = undated(row.text)
    before = {undated(text) for text in evenings.texts_before(work, row.id or 0)}
    return [_evening(house, one, now, before) for one in some]


def _evening(house: House, one: SessionRow, now: str, before: set[str]) -> AlsoOn:
    text = undated(one.text)
    when = in_words(one.day or house.today, house.when(house.now_ms()))
    return AlsoOn(one.id or 0, when, text == now, text in before)


def take_there(house: House, work: Work, row: SessionRow, wanted: Iterable[int]) -> list[int]:
    """The text of a session is taken to other evenings of it, each on its own day; there it is one step to undo."""
    chosen = set(wanted)
    taken = []
    for one in evenings.others(work, row, house.today):
        if one.id in chosen:
            text = with_date(row.text, one.day)
            sessions.write_text(work, one, text, one.version, None, None, house.now_ms())
            taken.append(one.id)
    return taken
