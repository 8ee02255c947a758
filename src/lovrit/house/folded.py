"""A class that was kept, folded: who was there from its beginning, and all that happened in it."""

from typing import NamedTuple

from lovrit.core.crew.groups import MOST_GROUPS, letter, usual_groups
from lovrit.core.crew.person import Comer
from lovrit.core.run.classplan import Runner
from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import Frozen
from lovrit.core.session.session import Session
from lovrit.store import classes
from lovrit.store.tables import ClassRow


class Folded(NamedTuple):
    """A class: what it was run by, who came by the list, its fold; ``nameless`` where nobody said who comes."""

    plan: Frozen
    came: tuple[Comer, ...]
    fold: Fold
    nameless: int


def folded(row: ClassRow, happened: tuple[Event, ...]) -> Folded:
    """A class and its events as they were kept.

    Raises:
        UnreadableClass: if it was kept in a way that isn't read here.
    """
    plan, came = classes.run_by(row), classes.comers(row)
    late = {event.person for event in happened if event.kind == "joins"}
    there = [Runner(str(one.id), letter(one.group)) for one in came if one.id not in late]
    people = there or ([Runner("-1", "A")] if row.is_try else nameless(plan.session))
    fold = Fold(plan.plan(), people)
    for event in happened:
        fold.take(happening(event, row.made_ms, kept=True))
    return Folded(plan, came, fold, 0 if there else len(people))


def nameless(session: Session) -> list[Runner]:
    """Groups by their letters, where nobody said who comes: as many as people and stations ask for."""
    stations = max((len(block.moves) for block in session.blocks if block.moves_people), default=0)
    count = usual_groups(session.people, stations) if session.people else max(1, stations)
    return [Runner(str(-nth), letter(nth - 1)) for nth in range(1, min(count, MOST_GROUPS) + 1)]
