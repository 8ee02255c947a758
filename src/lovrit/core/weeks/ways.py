"""Ways out of a clash, the least first: two days change places, another day, a gentler way, another pattern.

Each is tried before it is offered: the clash is gone after it, and the weeks clash no more than before.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cached_property
from math import floor, sqrt
from typing import NamedTuple

from lovrit.core.asked.dose import HARD_AT, Asks, asks
from lovrit.core.clock import number
from lovrit.core.moves.move import STRENGTH, Move
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Ease, Edit, ReplaceMove
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.weeks.board import CLASH, DayClash, Other, Planned, carried, clashes, cost

LEAST_EFFORT = 4.0
MUCH_LESS, CLOSE = 0.98, 1e-9
MOST_TRIED = 6  # moves that are tried in the place of one


Weigh = Callable[[Plan], Asks]


class WayOut(NamedTuple):
    """A way out of a clash: its words, sessions that go to another time, edits to the session that clashes."""

    said: str
    moves: tuple[tuple[str, datetime], ...] = ()
    edits: tuple[Edit, ...] = ()


@dataclass(frozen=True)
class Around:
    """What a clash stands in: all sessions and other load, days that are none, the first that may still change."""

    sessions: list[Planned]
    others: list[Other]
    off: frozenset[date] = frozenset()
    today: date = date.min
    limit: float = CLASH

    @cached_property
    def before(self) -> list[DayClash]:
        """What clashes as it is."""
        return clashes(self.sessions, self.others, self.limit)

    def after(
        self, moves: tuple[tuple[str, datetime], ...], new: tuple[str, Asks] | None = None
    ) -> list[Planned]:
        """The sessions after some moved, and one asks something else."""
        at = dict(moves)
        found = [one.but(at=at.get(one.id, one.at)) for one in self.sessions]
        return [one.but(asks=new[1]) if new and one.id == new[0] else one for one in found]

    def helps(self, clash: DayClash, after: list[Planned]) -> bool:
        """Whether a clash is gone, no other has come for it, and all in all the weeks clash less."""
        there = clashes(after, self.others, self.limit)
        pairs = {(one.session, one.pattern) for one in self.before} - {
            (clash.session, clash.pattern)
        }
        none_new = all((one.session, one.pattern) in pairs for one in there)
        return none_new and _price(there) < _price(self.before) - CLOSE


def _price(some: list[DayClash]) -> float:
    return sum(min(one.asked, one.carried) for one in some)


def ways_out(
    clash: DayClash, around: Around, plan: Plan | None, weigh: Weigh = asks
) -> tuple[WayOut, ...]:
    """What helps, one of each kind; nothing that was tried does where it is empty.

    ``plan`` is the session's own, and ``weigh`` says what it asks on its day once it is changed.
    """
    found = [_swapped(clash, around), _elsewhere(clash, around)]
    if plan is not None:
        found += [_gentler(clash, around, plan, weigh), _another(clash, around, plan, weigh)]
    return tuple(one for one in found if one is not None)


def _session(clash: DayClash, around: Around) -> Planned:
    return next(one for one in around.sessions if one.id == clash.session)


def _free(one: Planned, around: Around) -> bool:
    return not one.fixed and one.at.date() >= around.today


def _week(at: datetime) -> list[date]:
    monday = at.date() - timedelta(days=at.weekday())
    return [monday + timedelta(days=nth) for nth in range(7)]


def _swapped(clash: DayClash, around: Around) -> WayOut | None:
    """The session changes places with another of its week, the cheapest."""
    mine = _session(clash, around)
    if not _free(mine, around):
        return None
    found = []
    for other in around.sessions:
        same_day = other.at.date() == mine.at.date()
        if (
            other.id == mine.id
            or same_day
            or not _free(other, around)
            or other.at.date() not in _week(mine.at)
        ):
            continue
        moves = ((mine.id, _on(mine, other.at.date())), (other.id, _on(other, mine.at.date())))
        after = around.after(moves)
        if around.helps(clash, after):
            way = WayOut(f"change places with {other.id}", moves)
            found.append((cost(after, around.others, around.limit), f"{other.at}", way))
    return min(found, key=lambda one: one[:2])[2] if found else None


def _on(one: Planned, day: date) -> datetime:
    """A session on another day, at its own time."""
    return datetime.combine(day, one.at.time())


def _elsewhere(clash: DayClash, around: Around) -> WayOut | None:
    """The nearest day of its week on which nothing is, and which is none that is off."""
    mine = _session(clash, around)
    if not _free(mine, around):
        return None
    taken = {one.at.date() for one in around.sessions}
    near = sorted(_week(mine.at), key=lambda day: (abs((day - mine.at.date()).days), day))
    for day in near:
        if day in taken or day in around.off or day < around.today:
            continue
        moves = ((mine.id, _on(mine, day)),)
        if around.helps(clash, around.after(moves)):
            return WayOut(f"put it on {day:%A}", moves)
    return None


def _gentler(clash: DayClash, around: Around, plan: Plan, weigh: Weigh) -> WayOut | None:
    """Less effort in it, as much as brings what it asks of the pattern below the limit."""
    top = plan.sums.top_effort
    if top is None:
        return None
    most = min(top - 0.5, top * sqrt(MUCH_LESS * around.limit / clash.asked))
    if clash.pattern == "breath":
        most = min(most, HARD_AT - 0.5)
    effort = max(LEAST_EFFORT, floor(most * 2) / 2)
    edits = (Ease(block=None, most=effort),)
    way = WayOut(f"a gentler way: at {number(effort)} at most", edits=edits)
    return _edited(clash, around, plan, way, weigh)


def _another(clash: DayClash, around: Around, plan: Plan, weigh: Weigh) -> WayOut | None:
    """Another pattern in the place of the moves that ask this one, the least carried first."""
    lines = [
        (at, nth)
        for at, block in enumerate(plan.session.blocks)
        for nth, line in enumerate(block.moves)
        if not line.is_rest and _asks_it(plan.library.find(line.tasks[0].name), clash.pattern)
    ]
    if not lines:
        return None
    for move in _others(clash, around, plan)[:MOST_TRIED]:
        edits = tuple(ReplaceMove(block=at, move=nth, name=move.name) for at, nth in lines)
        way = WayOut(f"another pattern: {move.name} instead", edits=edits)
        if _edited(clash, around, plan, way, weigh):
            return way
    return None


def _asks_it(move: Move | None, pattern: str) -> bool:
    """Whether a move asks a pattern, or what is asked beside the patterns."""
    if move is None:
        return False
    also = {"grip": move.grip, "overhead": move.overhead, "impact": move.impact == "high"}
    return move.pattern == pattern or also.get(pattern, False)


def _others(clash: DayClash, around: Around, plan: Plan) -> list[Move]:
    """Moves of other patterns that anybody can be given, those whose pattern is carried least first."""
    mine = _session(clash, around)
    there = carried(mine.at, around.sessions, around.others)
    plain = [
        move
        for move in plan.library.moves
        if move.pattern in STRENGTH - {clash.pattern, "carry"}
        and not (move.skill or move.needs_kit or move.overhead or move.grip)
        and move.impact == "none"
        and move.counted == "reps"
    ]
    firsts = {move.pattern: move for move in reversed(plain)}
    return sorted(firsts.values(), key=lambda move: (there.get(move.pattern, 0.0), move.pattern))


def _edited(
    clash: DayClash, around: Around, plan: Plan, way: WayOut, weigh: Weigh
) -> WayOut | None:
    """A way that changes the session, where it helps."""
    text = plan.reading.text
    try:
        for edit in way.edits:
            text = apply_edit(text, edit)
    except CannotEdit:
        return None
    after = plan_text(text, plan.library)
    if after.problems or text == plan.reading.text:
        return None
    new = (clash.session, weigh(after))
    return way if around.helps(clash, around.after((), new)) else None
