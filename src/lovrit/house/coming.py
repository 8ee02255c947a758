"""Who said that they come, beside who is down for a session: what a coach takes over, by one press each."""

from collections import Counter
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.crew.groups import usual_groups
from lovrit.store import answers, people
from lovrit.store.answers import Answer


class Said(NamedTuple):
    """Answers to a session as they stand beside its groups; people by number, guests by their answers."""

    come: int
    cannot: int
    to_place: tuple[int, ...]
    to_take_out: tuple[int, ...]
    guests: tuple[Answer, ...]
    words: dict[int, str]


def said_of(work: Work, session_id: int) -> Said:
    """What was said of a session, and what of it is not in its groups yet."""
    said = answers.of_session(work, session_id)
    here = {one.id for one, _ in people.comers(work, session_id)}
    known = {one.person: one for one in said if one.person is not None}
    return Said(
        sum(one.comes for one in said),
        sum(not one.comes for one in said),
        tuple(who for who, one in known.items() if one.comes and who not in here),
        tuple(who for who, one in known.items() if not one.comes and who in here),
        tuple(one for one in said if one.person is None),
        {who: one.word for who, one in known.items() if one.word},
    )


def smallest(groups: dict[int, int]) -> int:
    """The smallest group, where somebody who comes along is put."""
    counts = Counter(groups.values())
    return min(counts, key=lambda group: (counts[group], group), default=0)


def with_them(groups: dict[int, int], some: tuple[int, ...], stations: int) -> dict[int, int]:
    """Groups with some more people, each in the smallest; where there are none yet, as many as they ask for."""
    now = dict(groups)
    fresh = usual_groups(len(some), stations) if not now else 0
    for nth, who in enumerate(some):
        now[who] = nth % fresh if fresh else smallest(now)
    return now


def take_in(work: Work, session_id: int, answer_id: int) -> int | None:
    """A guest becomes somebody of the club, new, unless their name is one of the club's; their number.

    None where that answer is not there any more.
    """
    guest = next((one for one in answers.of_session(work, session_id) if one.id == answer_id), None)
    if guest is None:
        return None
    known = {one.name.casefold(): one for one in people.everyone(work)}
    person = known.get(guest.name.casefold()) or people.add_person(work, guest.name, standing="new")
    answers.take_out(work, answer_id)
    return person.id
