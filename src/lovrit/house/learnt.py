"""Hearts of a class once it is over: cleaned once and kept at hand, and what they teach for the next."""

from collections import OrderedDict
from collections.abc import Callable
from contextlib import suppress

from lovrit.core.crew.fit import Fitted
from lovrit.core.crew.person import Comer, Person
from lovrit.core.heart.foresee import body_of, start_of
from lovrit.core.heart.learn import Evening, learn
from lovrit.core.heart.suspected import Worn, asked_of_heart, changed_straps
from lovrit.core.review.hearts import HeartAfter, heart_after
from lovrit.core.review.turns import Trace
from lovrit.core.run.frozen import UnreadableClass
from lovrit.house.live import Live
from lovrit.house.traced import traces_of
from lovrit.store import classes, people
from lovrit.store.database import Database

EVENINGS = 8  # the newest classes that a heart is learnt from; older ones count for little
WEEK_MS = 7 * 24 * 3600 * 1000
ON_THE_SHELF = 12


class HeartsAfter:
    """The hearts of classes that were looked at last, each cleaned once for what its class is by now."""

    def __init__(self) -> None:
        self._kept: OrderedDict[tuple[object, ...], dict[int, HeartAfter]] = OrderedDict()
        self._changed: OrderedDict[tuple[object, ...], list[tuple[int, int]]] = OrderedDict()

    def of(self, live: Live, traces: dict[int, Trace]) -> dict[int, HeartAfter]:
        """Each person's heart in a class, of those whose strap told something."""
        key = _as_it_was(live, traces)
        if key not in self._kept:
            made = {
                one.id: heart_after(live.plan, live.state, one, traces.get(one.id, []))
                for one in live.comers
            }
            told = {who: heart for who, heart in made.items() if heart is not None}
            self._kept.setdefault(key, told)  # another thread may have been quicker
            while len(self._kept) > ON_THE_SHELF:
                self._kept.popitem(last=False)
        self._kept.move_to_end(key)
        return self._kept[key]

    def changed(self, live: Live, traces: dict[int, Trace]) -> list[tuple[int, int]]:
        """Pairs who seem to have worn each other's straps in a class that is over, by what each heart did before."""
        key = _as_it_was(live, traces)
        if key not in self._changed:
            hearts, said = self.of(live, traces), live.state.changed
            self._changed[key] = changed_straps(
                [
                    Worn(one.id, body_of(one), hearts[one.id].evening())
                    for one in live.comers
                    if one.id in hearts and one.id not in said and is_known(one)
                ]
            )
            while len(self._changed) > ON_THE_SHELF:
                self._changed.popitem(last=False)
        return self._changed[key]


def is_known(one: Comer) -> bool:
    """Whether enough is known of a heart to tell whether a strap is on another."""
    return bool(one.heart or one.max_hr) and not one.effort_only


def _as_it_was(live: Live, traces: dict[int, Trace]) -> tuple[object, ...]:
    """What the hearts of a class follow from: a score or a note that is typed afterwards cleans none of them again."""
    state = live.state
    own = tuple(sorted(state.own_laps.items()))
    stopped = tuple(sorted(state.ever_stopped.items()))
    readings = sum(map(len, traces.values()))
    changed = tuple(sorted(state.changed.items()))
    return live.id, readings, len(live.comers), state.started_ms, state.laps, own, stopped, changed


def learn_hearts(
    database: Database, after: HeartsAfter, lives: list[Live], now_ms: int
) -> dict[int, Fitted | None]:
    """Learn from classes, the oldest first, what they say of everybody who was in them.

    Nothing changes for whom the coach has frozen, and what was thrown away teaches nothing. What was learnt, by person.
    """
    told: dict[int, Fitted | None] = {}
    with database.work() as work:
        traces = [traces_of(work, live) for live in lives]
        here = {one.id: one for live in lives for one in live.comers if not one.effort_only}
        comers = list(here.values())
        known = {one.id: people.kept_heart(work, one.id) for one in comers}
    # what takes seconds holds no unit of work: others wait for those, and not for long
    hearts = [(live, after.of(live, told_)) for live, told_ in zip(lives, traces, strict=True)]
    for comer in comers:
        kept = known[comer.id]
        if kept is None or (kept.heart is not None and kept.heart.frozen):
            continue
        if not kept.person.heart_stays:
            continue
        evenings = [
            mine[comer.id].evening((now_ms - live.made_ms) / WEEK_MS)
            for live, mine in hearts
            if comer.id in mine and live.made_ms >= kept.learnt_from_ms and not live.is_try
        ]
        told[comer.id] = _learn(kept.person, evenings, kept.heart)
    with database.writing() as work:
        for person in list(told):
            # what was frozen, thrown away or refused meanwhile stays as it was said
            if people.kept_heart(work, person) != known[person]:
                del told[person]
            else:
                people.set_heart(work, person, told[person])
    return told


def _learn(person: Person, evenings: list[Evening], before: Fitted | None) -> Fitted | None:
    """What evenings teach, and what they make one ask; what was known is never less known for it."""
    found = learn(start_of(person), evenings) if evenings else None
    if found is None:
        return before
    ask = asked_of_heart(person, evenings)
    if ask is None:
        return found
    again = before is not None and before.answered and before.ask == ask.kind
    return found.but(ask=ask.kind, seen=ask.seen, answered=again)


def learn_newest(
    database: Database, after: HeartsAfter, live: Callable[[int], Live], now_ms: int
) -> None:
    """Learn from the newest classes that are over and have readings; one that can't be read teaches nothing."""
    with database.work() as work:
        ids = classes.with_samples(work, EVENINGS)
    lives = []
    for class_id in reversed(ids):
        with suppress(UnreadableClass):
            lives.append(live(class_id))
    learn_hearts(database, after, lives, now_ms)
