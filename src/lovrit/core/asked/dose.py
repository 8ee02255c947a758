"""What a session asks of each pattern of movement, in hard minutes: a picture to think with, not a measurement.

A work second counts (effort / 8) squared; hard landings and slow lowering half as much again, and so does a pattern
that nobody has done for three weeks (soreness after unaccustomed lowering: Cheung and others 2003; a repeat protects:
McHugh 2003). The figures are ours, to be checked.
"""

from collections.abc import Iterable, Iterator
from functools import cached_property

from lovrit.core.asked.leaving import leaves
from lovrit.core.asked.qualities import WORKS, Burden, Leaves, Quality, Region
from lovrit.core.asked.shares import Shares, own_share
from lovrit.core.heart.asked import USUAL_EFFORT
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Task
from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan
from lovrit.core.timeline.sums import is_hard
from lovrit.core.values import Value

HARD_AT, MORE = 8.0, 1.5
BRISK = 7.0
SLOW_S = 3  # a rep that is lowered so slowly leaves people sore
NAMED: dict[Region, Quality] = {"breath": "hard breath", "grip": "grip"}
ALSO = ("grip", "overhead", "impact", "breath")
HARD_ON_BREATH = 8.0


class Asks(Value):
    """What a session asks: hard minutes by pattern, those of them that leave sore, its load, its hard minutes in all.

    ``hard_min`` is at effort 8 and more, as on every page; ``brisk_min`` at 7 and more, as a member would feel it.
    ``load`` is effort times minutes (Foster and others 2001); ``unsaid`` the heads of blocks that write no effort.
    """

    dose: dict[str, float]
    sore: dict[str, float]
    load: float
    hard_min: float
    minutes: float
    brisk_min: float = 0.0
    unsaid: tuple[str, ...]
    leaves: Leaves | None = None  # None in what was kept before qualities were told apart

    @cached_property
    def left(self) -> Leaves:
        """What it leaves behind; of what was kept as hard minutes alone, as if all of it were hard work."""
        return self.leaves if self.leaves is not None else _by_minutes(self.dose)


def asks(
    plan: Plan, unused: frozenset[str] = frozenset(), used: frozenset[str] = frozenset()
) -> Asks:
    """What a planned session asks of one person.

    ``unused`` are patterns that have not been done for three weeks, ``used`` those done each week for a month.
    """
    spans = [(one, float(one.seconds)) for one in plan.timeline.intervals]
    return asked_by(plan.session, spans, plan.library, unused, used)


def asked_by(
    session: Session,
    spans: Iterable[tuple[Interval, float]],
    library: Library,
    unused: frozenset[str] = frozenset(),
    used: frozenset[str] = frozenset(),
) -> Asks:
    """What stretches of a session ask of one person: each interval with the seconds that it lasts, or was done for."""
    dose: dict[str, float] = {}
    sore: dict[str, float] = {}
    load = hard = brisk = whole = 0.0
    unsaid: list[str] = []
    spans, shared = list(spans), Shares(library)
    for one, seconds in spans:
        block = session.blocks[one.block]
        effort = one.asked if one.asked is not None else one.effort
        effort = USUAL_EFFORT[one.phase] if effort is None else effort
        load += effort * seconds / 60
        whole += seconds / 60
        if one.phase != "work":
            continue
        if one.effort is None and block.works and block.head not in unsaid:
            unsaid.append(block.head)
        minutes = (effort / HARD_AT) ** 2 * seconds / 60
        hard += seconds / 60 if is_hard(one) else 0.0
        brisk += seconds / 60 if effort >= BRISK else 0.0
        for _, task, share in shared.of(one.block, block, one.move):
            _add(dose, sore, task, minutes * share * own_share(block), effort, library, unused)
    return Asks(
        dose=dose, sore=sore, load=load, hard_min=hard, minutes=whole, unsaid=tuple(unsaid), brisk_min=brisk,
        leaves=leaves(session, spans, library, unused, used),
    )  # fmt: skip


def together(some: Iterable[Asks]) -> Asks:
    """What several ask in all."""
    every = list(some)
    dose: dict[str, float] = {}
    sore: dict[str, float] = {}
    for one in every:
        for pattern, minutes in one.dose.items():
            dose[pattern] = dose.get(pattern, 0.0) + minutes
        for pattern, minutes in one.sore.items():
            sore[pattern] = sore.get(pattern, 0.0) + minutes
    return Asks(
        dose=dose,
        sore=sore,
        load=sum(one.load for one in every),
        hard_min=sum(one.hard_min for one in every),
        minutes=sum(one.minutes for one in every),
        brisk_min=sum(one.brisk_min for one in every),
        unsaid=tuple(dict.fromkeys(head for one in every for head in one.unsaid)),
        leaves=Leaves(
            burdens=tuple(burden for one in every for burden in one.left.burdens),
            fresh=tuple(dict.fromkeys(fresh for one in every for fresh in one.left.fresh)),
        ),
    )


def _by_minutes(dose: dict[str, float]) -> Leaves:
    """Hard minutes by pattern as burdens of hard work, and those of breath and grip as they are called."""
    found = [
        Burden(quality="hard work", region=region, worth=minutes * share)
        for pattern, minutes in dose.items()
        for region, share in WORKS.get(pattern, {}).items()
    ]
    found += [
        Burden(quality=quality, region=region, worth=dose[region])
        for region, quality in NAMED.items()
        if region in dose
    ]
    return Leaves(burdens=tuple(found))


def _add(
    dose: dict[str, float],
    sore: dict[str, float],
    task: Task,
    minutes: float,
    effort: float,
    library: Library,
    unused: frozenset[str],
) -> None:
    move = library.find(task.name)
    if move is None:
        return
    leaves = move.impact == "high" or (task.slow_s or 0) >= SLOW_S
    weighed = minutes * (MORE if leaves else 1.0) * (MORE if move.pattern in unused else 1.0)
    dose[move.pattern] = dose.get(move.pattern, 0.0) + weighed
    if leaves:
        sore[move.pattern] = sore.get(move.pattern, 0.0) + weighed
    for name in _also(move, effort):
        dose[name] = dose.get(name, 0.0) + minutes


def _also(move: Move, effort: float) -> Iterator[str]:
    """What a move asks beside its pattern."""
    asked = {
        "grip": move.grip,
        "overhead": move.overhead,
        "impact": move.impact == "high",
        "breath": effort >= HARD_ON_BREATH,
    }
    yield from (name for name in ALSO if asked[name])
