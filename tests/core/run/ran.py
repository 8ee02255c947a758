"""Classes that were run, for tests of what is made of them."""

from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.run.account import Class, account
from lovrit.core.run.classplan import Runner
from lovrit.core.run.event import Event, happening
from lovrit.core.run.fold import Fold
from lovrit.core.run.frozen import Frozen, freeze
from lovrit.core.timeline.plan import Plan

T0 = 1_800_000_000_000


def fold_of(frozen: Frozen, events: list[Event], people: tuple[Comer, ...] = ()) -> Fold:
    """The fold of a class that was opened at T0."""
    runners = [Runner(str(one.id), letter(one.group)) for one in people]
    fold = Fold(frozen.plan(), runners)
    for event in events:
        fold.take(happening(event, T0))
    return fold


def run_through(
    plan: Plan, events: list[Event], until_ms: int, people: tuple[Comer, ...] = ()
) -> tuple[Frozen, Class]:
    """What a class was run by, and its account at a moment."""
    frozen = freeze(plan)
    going = fold_of(frozen, events, people).at((until_ms - T0) / 1000)
    return frozen, account(going, frozen, T0)
