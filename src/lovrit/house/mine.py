"""A member's own link: whose it is, and what stands behind it. Nothing of anybody else's, ever."""

from typing import Any, NamedTuple

from sqlmodel import Session as Work

from lovrit.core.blocks.score import Impossible
from lovrit.core.clock import clock
from lovrit.core.crew.person import Comer, Person, coming
from lovrit.core.review.kin import Worth, kin_key, own_key, worth
from lovrit.core.review.scores import score
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import plain
from lovrit.house.house import House
from lovrit.house.over_time import Again, Series, series_from, series_of
from lovrit.house.signed import link, numbers_of
from lovrit.store import answers, classes, own, people
from lovrit.store.changed import listed as changed_of
from lovrit.store.records import kin_of
from lovrit.store.sessions import Gone
from lovrit.store.tables import ClassRow, OwnEveningRow

MOST = 400  # classes and evenings that are given out of one person
ENDED = "This link has ended. Ask your coach for the new one."


def own_link(house: House, work: Work, person_id: int) -> str:
    """Somebody's own link, as it holds now."""
    return link(house, "mine", person_id, people.link_number(work, person_id))


def whose(house: House, work: Work, token: str) -> Person:
    """The person of a link.

    Raises:
        Gone: if the link isn't one, has ended, or they are the club's no more.
    """
    numbers = numbers_of(house, "mine", token)
    if len(numbers) != 2:
        raise Gone(ENDED)
    who, number = numbers
    if number != people.link_number(work, who):
        raise Gone(ENDED)
    return people.get(work, who)


def kept_of(house: House, work: Work, one: Person) -> dict[str, Any]:
    """All that is held of one person, theirs to take along: figures, choices, answers, classes, own evenings."""
    return {
        "person": plain(one),
        "classes": [_class(house, work, row, one) for row in classes.came_to(work, one.id, MOST)],
        "answers": answers.all_of(work, one.id),
        "changes": [
            {
                "at": f"{house.when(change.at_ms):%Y-%m-%dT%H:%M:%S%z}",
                "by": change.by,
                "what": change.what,
            }
            for change in changed_of(work, MOST, one.id)
        ],
        "own_evenings": [
            row.model_dump(exclude={"id", "person_id"}) for row in own.of_person(work, one.id, MOST)
        ],
    }


def _class(house: House, work: Work, row: ClassRow, one: Person) -> dict[str, Any]:
    happened = classes.events(work, row.id or 0)
    return {
        "title": row.title,
        "when": f"{house.when(row.made_ms):%Y-%m-%dT%H:%M:%S%z}",
        "said": [plain(event, exclude_none=True) for event in happened if event.person == one.id],
        "readings": [[at, bpm] for at, bpm in classes.trace_of(work, row.id or 0, one.id)],
    }


class OwnSaid(NamedTuple):
    """An evening of somebody's own, in words."""

    day: str
    title: str
    said: str


def own_evenings(house: House, work: Work, person_id: int) -> list[OwnSaid]:
    """What somebody did alone, the newest first."""
    return [_said(house, row) for row in own.of_person(work, person_id)]


def _said(house: House, row: OwnEveningRow) -> OwnSaid:
    parts = [clock(row.lasted_s), *(str(text) for _, text in row.scores if text)]
    parts += [f"felt {row.felt:g}"] if row.felt is not None else []
    parts += ["at home"] if row.at_home else []
    parts += [] if row.whole else ["not to the end"]
    parts += [f"“{row.word}”"] if row.word else []
    return OwnSaid(f"{house.when(row.at_ms):%-d %B %Y}", row.title, ", ".join(parts))


def changed(house: House, work: Work, mine: Person) -> list[Series]:
    """What somebody did again in the very same way: in classes, and alone, each beside its like only."""
    alone: dict[tuple[str, str], list[Again]] = {}
    labels: dict[tuple[str, str], str] = {}
    me = coming(mine, 0)
    for row in reversed(own.of_person(work, mine.id)):
        if not row.at_home:
            _scores_of(house, row, me, alone, labels)
    own_series = [
        series_from(f"{labels[key]}, alone", key[1], times)
        for key, times in alone.items()
        if len({one.day for one in times}) > 1
    ]
    return sorted([*series_of(work, mine.id), *own_series], key=lambda one: -len(one.times))


def _scores_of(
    house: House,
    row: OwnEveningRow,
    me: Comer,
    alone: dict[tuple[str, str], list[Again]],
    labels: dict[tuple[str, str], str],
) -> None:
    plan, when = house.plan(row.text), house.when(row.at_ms)
    for at, text in row.scores:
        value = score_worth(plan, int(at), str(text))
        if value is None:
            continue
        block = plan.session.blocks[int(at)]
        key = (kin_of(kin_key(block, plan.library)), own_key(block, me, plan.library))
        labels[key] = plan.timeline.blocks[int(at)].label
        again = Again(0, int(at), when.toordinal(), f"{when:%-d %b}", str(text), value)
        alone.setdefault(key, []).append(again)


def as_score(plan: Plan, at: int, text: str) -> str:
    """A score of a block in its usual writing; as it was typed where it is none, so that nothing of it is lost."""
    if not 0 <= at < len(plan.session.blocks):
        return text
    try:
        return score(plan.session.blocks[at], plan.timeline.blocks[at], text, plan.library)
    except Impossible:
        return text


def score_worth(plan: Plan, at: int, text: str) -> Worth | None:
    """What a score of a block is worth; None where it is none that can be compared."""
    here = 0 <= at < len(plan.session.blocks) and plan.session.blocks[at].asks_for
    return worth(plan.session.blocks[at], text) if here else None
