"""A block on the evenings on which it was done in the very same way, this class the last, and what is said of that."""

from collections.abc import Iterator
from datetime import date
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.review.compare import Compared, Evening, compare
from lovrit.core.review.kin import Worth, kin_key, own_key, worth
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.store import records

MOST_BEFORE, MOST_LOOKED = 11, 40


class Night(NamedTuple):
    """One evening of a block: when, its number of days, and each person's score and what it is worth."""

    when: str
    day: int
    scores: dict[int, tuple[str, Worth]]


def nights(house: House, work: Work, live: Live, at: int) -> list[Night]:
    """The evenings with this block, the oldest first, this class the last; only who did the very same counts."""
    mine = _tonight(house, live, at)
    block, library = live.plan.session.blocks[at], live.plan.library
    own = {one.id: own_key(block, one, library) for one in live.comers}
    until = f"{house.when(live.made_ms):%Y-%m-%d}"
    rows = records.scores_like(work, records.kin_of(kin_key(block, library)), until, MOST_LOOKED)
    there = [one for one in rows if one.class_id != live.id and own.get(one.person_id) == one.ways]
    return [*nights_of(there)[-MOST_BEFORE:], mine]


def nights_of(rows: list[records.Kept]) -> list[Night]:
    """Scores by the class in which they were made, in the order of the rows."""
    by_class: dict[int, list[records.Kept]] = {}
    for one in rows:
        by_class.setdefault(one.class_id, []).append(one)
    return [_night(some) for some in by_class.values()]


def _night(rows: list[records.Kept]) -> Night:
    day = date.fromisoformat(rows[0].day)
    told = {one.person_id: (one.said, Worth(one.figure, one.value, one.more)) for one in rows}
    return Night(f"{day:%-d %b %Y}", day.toordinal(), told)


def _tonight(house: House, live: Live, at: int) -> Night:
    """This class as it stands by now: it may still be on, or have been scored a moment ago."""
    block = live.plan.session.blocks[at]
    here = {one.id for one in live.comers if not one.erased}
    scores: dict[int, tuple[str, Worth]] = {}
    for one in live.state.scores:
        value = worth(block, one.text) if one.block == at and one.person in here else None
        if value and one.person is not None:
            scores[one.person] = (one.text, value)
    return Night(
        f"{house.when(live.made_ms):%A %-d %B, %H:%M}",
        house.when(live.made_ms).date().toordinal(),
        scores,
    )


def compared(nights: list[Night]) -> Compared | None:
    """What is said of the last evening; None where it has no score that is worth a number."""
    worths = [value for _, value in nights[-1].scores.values()] if nights else []
    if not worths:
        return None
    evenings = tuple(
        Evening(
            day=one.day, values={str(who): value.value for who, (_, value) in one.scores.items()}
        )
        for one in nights
    )
    return compare(worths[0].figure, worths[0].more, evenings)


class Beyond(NamedTuple):
    """Somebody who changed in a block beyond what the evening did to all: who, the block, better or worse, in words."""

    person: int
    block: int
    verdict: str
    text: str


def changes_beyond(house: House, work: Work, live: Live) -> Iterator[Beyond]:
    """Who changed in a class beyond the evening; silent where that can't be told."""
    for at in sorted({one.block for one in live.state.scores}):
        told = compared(nights(house, work, live, at))
        sure = told is not None and told.shift is not None
        for who, one in told.people.items() if told and sure else ():
            if one.verdict in ("better", "worse"):
                yield Beyond(int(who), at, one.verdict, one.text.split(" than lately", 1)[0])


def changed_beyond(house: House, work: Work, live: Live) -> Iterator[str]:
    """The same in words."""
    names = {one.id: one.name for one in live.comers}
    for one in changes_beyond(house, work, live):
        yield f"{names[one.person]} {one.text} in {live.plan.timeline.blocks[one.block].label}"
