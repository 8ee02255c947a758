"""What was of each person in the last class that they came to: one fact for Tonight, Crew, the talk and cards."""

from collections.abc import Iterable, Sequence
from functools import partial
from typing import NamedTuple

from sqlmodel import Session as Work

from lovrit.core.clock import number
from lovrit.core.crew.fits import cell
from lovrit.core.crew.person import Comer, Person
from lovrit.core.review.turns import asked_most, person_turns, turns_over
from lovrit.core.tonight.people import LastTime, Minds, Seen, watch_said
from lovrit.house.floor import Floor
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.house.nights import changes_beyond
from lovrit.house.traced import traces_of
from lovrit.store import seen

CLASS = frozenset({"class", "class_event", "class_record", "class_score", "sample"})
UNSAID = "?"
YEAR_MS = 400 * 86_400_000


def last_times(floor: Floor, work: Work, people: Iterable[int]) -> dict[int, LastTime]:
    """What was of some people in the last class that each came to; who never came is left out."""
    by_class: dict[int, list[int]] = {}
    for who, class_id in seen.last_classes(work, people).items():
        by_class.setdefault(class_id, []).append(who)
    found: dict[int, LastTime] = {}
    for class_id, some in by_class.items():
        key, make = ("last time", class_id), partial(_of_class, floor, work, class_id)
        told = floor.house.facts.resting_on(work, CLASS, key, make)
        found |= {who: told[who] for who in some if who in told}
    return found


def _of_class(floor: Floor, work: Work, class_id: int) -> dict[int, LastTime]:
    """What was of everybody in one class that is over."""
    live = floor.live(class_id)
    hearts = floor.cleaned.of(live, traces_of(work, live))
    on = f"{floor.house.when(live.made_ms):%Y-%m-%d}"
    why = _whys(live)
    asked = asked_most(live.plan.timeline)
    changed: dict[int, list[str]] = {}
    for one in changes_beyond(floor.house, work, live):
        block = live.plan.timeline.blocks[one.block].label
        changed.setdefault(one.person, []).append(f"{one.verdict} in {block}")
    told = {}
    for comer in live.comers:
        held = hearts[comer.id].trace if comer.id in hearts else []
        turns = person_turns(live.plan.session, live.plan.timeline, live.state, comer, held)
        places = turns_over(turns)
        told[comer.id] = LastTime(
            on,
            stopped=why.get(comer.id, ""),
            over=places.over,
            turns=places.turns,
            felt=live.state.felt.get(comer.id),
            asked=asked,
            under=places.under,
            loads=_loads(live, comer),
            changed=tuple(changed.get(comer.id, ())),
        )
    return told


def _loads(live: Live, comer: Comer) -> tuple[str, ...]:
    """What somebody used in a class, a station each, as they were told it."""
    own = [cell(comer, line, live.plan.library) for line in live.plan.session.stations]
    return tuple(
        dict.fromkeys(f"{one.does} {number(one.load)} kg" for one in own if one.load is not None)
    )


def _whys(live: Live) -> dict[int, str]:
    """Who had stopped when the class was over, each with why."""
    away = live.going.away
    return {int(who): away[who][-1].why or UNSAID for who in live.going.stopped}


def last_seen_of(house: House, work: Work, everyone: Iterable[Person]) -> dict[int, Seen]:
    """When everybody came last within a year, and how many classes there were since."""
    everyone = list(everyone)
    came = seen.last_came(work, house.now_ms() - YEAR_MS, [one.id for one in everyone])
    since = seen.classes_since(work, {0, *(ms for _, ms in came.values())})
    found = {}
    for one in everyone:
        ms = came[one.id][1] if one.id in came else 0
        found[one.id] = Seen(f"{house.when(ms):%Y-%m-%d}" if ms else "", since[ms])
    return found


class Watched(NamedTuple):
    """Somebody to watch: in which group (from 0), and why."""

    id: int
    name: str
    group: int
    minds: tuple[Minds, ...]


def watched(
    floor: Floor,
    work: Work,
    comers: Sequence[tuple[Person, int]],
    hardest: float,
    words: dict[int, str],
) -> list[Watched]:
    """Those of whom something is to be minded at an evening of a ``hardest`` effort: warnings first, then by group.

    ``words`` are what people wrote with their answers.
    """
    last = last_times(floor, work, [one.id for one, _ in comers])
    today = floor.house.today
    found = []
    for one, group in comers:
        minds = watch_said(one, hardest, today, last.get(one.id), words.get(one.id, ""))
        found.append(Watched(one.id, one.name, group, tuple(minds)))
    told = [one for one in found if one.minds]
    return sorted(told, key=lambda one: (not any(mind.warns for mind in one.minds), one.group))
