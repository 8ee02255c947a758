"""Ways out of a clash, the least first: two days change places, another day, gentler, fewer rounds, another pattern.

The session before it, of which most is carried, may give way as well. Each is tried before it is offered: the clash is
gone after it, and the weeks clash no more than before.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cached_property
from math import floor, sqrt
from typing import NamedTuple

from lovrit.core.asked.carried import Other, Planned, carried
from lovrit.core.asked.clashing import ASKED, CLASH, DayClash, clashes, cost, real, told
from lovrit.core.asked.dose import Asks, asks
from lovrit.core.asked.qualities import GRIPPED, WORKS
from lovrit.core.clock import number
from lovrit.core.moves.move import STRENGTH, Move
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import Ease, Edit, ReplaceMove, SetFigure
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.slate.line import Line
from lovrit.core.timeline.plan import Plan, plan_text

LEAST_EFFORT = 4.0
GENTLE = (
    8.0,
    6.5,
    5.0,
)  # efforts that are tried in place of a hard one, besides what should be enough
MUCH_LESS, CLOSE = 0.98, 1e-9
MOST_TRIED = 6  # moves that are tried in the place of one
MOST_ALIKE = 2  # ways of a kind that are offered: more is a list to read, not a choice
MOST_WAYS = 8
COUNTED = {"rounds": "rounds", "sets": "sets", "count": "times"}  # figures that say how often


Weigh = Callable[[Plan], Asks]


class WayOut(NamedTuple):
    """A way out of a clash: its words, sessions that go to another time, edits to a session.

    ``other`` is the session that the words call ``{other}``; the edits are to it where ``at_other``, else to the one
    that clashes.
    """

    said: str
    moves: tuple[tuple[str, datetime], ...] = ()
    edits: tuple[Edit, ...] = ()
    other: str = ""
    at_other: bool = False


@dataclass(frozen=True)
class Around:
    """What a clash stands in: all sessions and other load, days that are none, the first that may still change."""

    sessions: list[Planned]
    others: list[Other]
    off: frozenset[date] = frozenset()
    today: date = date.min
    limit: float = CLASH

    @cached_property
    def every(self) -> list[DayClash]:
        """All that is found as it is, also what is only told."""
        return clashes(self.sessions, self.others, self.limit)

    @cached_property
    def before(self) -> list[DayClash]:
        """What clashes as it is."""
        return real(self.every)

    @cached_property
    def told(self) -> list[DayClash]:
        """What of it a coach is told: once a day, three a week."""
        at = {one.id: one.at for one in self.sessions}
        return told(self.before, at.__getitem__)

    def after(
        self, moves: tuple[tuple[str, datetime], ...], new: tuple[str, Asks] | None = None
    ) -> list[Planned]:
        """The sessions after some moved, and one asks something else."""
        at = dict(moves)
        found = [one.but(at=at.get(one.id, one.at)) for one in self.sessions]
        return [one.but(asks=new[1]) if new and one.id == new[0] else one for one in found]

    def helps(self, clash: DayClash, after: list[Planned]) -> bool:
        """Whether a clash is gone, no other has come for it, and all in all the weeks clash less."""
        there = real(clashes(after, self.others, self.limit))
        pairs = {(one.session, one.pattern) for one in self.before} - {
            (clash.session, clash.pattern)
        }
        none_new = all((one.session, one.pattern) in pairs for one in there)
        return none_new and _price(there) < _price(self.before) - CLOSE


def _price(some: list[DayClash]) -> float:
    return sum(one.price for one in some)


class Giving(NamedTuple):
    """A session that might give way: itself on its day, its plan where it can be read, what it asks once changed.

    ``much`` are the hard minutes' worth of the region that it brings to the clash.
    """

    one: Planned
    plan: Plan | None
    weigh: Weigh
    much: float
    named: str = "it"
    other: str = ""


def ways_out(
    clash: DayClash,
    around: Around,
    plan: Plan | None,
    weigh: Weigh = asks,
    before: tuple[Plan | None, Weigh] = (None, asks),
) -> tuple[WayOut, ...]:
    """What helps, a few of each kind; nothing that was tried does where it is empty.

    ``plan`` is the session's own, and ``weigh`` says what it asks on its day once it is changed; ``before`` are those
    of the session that most is carried from.
    """
    by_id = {one.id: one for one in around.sessions}
    mine = Giving(by_id[clash.session], plan, weigh, clash.asked)
    found = [*_swapped(clash, around, mine.one), *_elsewhere(clash, around, mine)]
    found += _changed(clash, around, mine)
    since = by_id.get(clash.since)
    if since is not None and _free(since, around):
        earlier = Giving(since, *before, clash.carried, "{other}", since.id)
        found += [*_elsewhere(clash, around, earlier)[:1], *_changed(clash, around, earlier)[:1]]
    return tuple(found[:MOST_WAYS])


def _changed(clash: DayClash, around: Around, giving: Giving) -> list[WayOut]:
    """A session in another form: gentler, fewer rounds, another pattern."""
    plan = giving.plan
    if plan is None or (giving.other and not _free(giving.one, around)):
        return []
    tried = (
        _gentler(clash, around, giving, plan),
        _fewer(clash, around, giving, plan),
        None if giving.other else _another(clash, around, giving, plan),
    )
    return [one for one in tried if one is not None]


def _free(one: Planned, around: Around) -> bool:
    return not one.fixed and one.at.date() >= around.today


def _week(at: datetime) -> list[date]:
    monday = at.date() - timedelta(days=at.weekday())
    return [monday + timedelta(days=nth) for nth in range(7)]


def _swapped(clash: DayClash, around: Around, mine: Planned) -> list[WayOut]:
    """The session changes places with others of its week, the cheapest first."""
    if not _free(mine, around):
        return []
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
            way = WayOut("change places with {other}", moves, other=other.id)
            found.append((cost(after, around.others, around.limit), f"{other.at}", way))
    return [one for _, _, one in sorted(found, key=lambda one: one[:2])][:MOST_ALIKE]


def _on(one: Planned, day: date) -> datetime:
    """A session on another day, at its own time."""
    return datetime.combine(day, one.at.time())


def _elsewhere(clash: DayClash, around: Around, giving: Giving) -> list[WayOut]:
    """The nearest days of its week on which nothing is, and which are none that are off."""
    mine = giving.one
    if not _free(mine, around):
        return []
    taken, found = {one.at.date() for one in around.sessions}, []
    near = sorted(_week(mine.at), key=lambda day: (abs((day - mine.at.date()).days), day))
    for day in near:
        if day in taken or day in around.off or day < around.today:
            continue
        moves = ((mine.id, _on(mine, day)),)
        if around.helps(clash, around.after(moves)):
            found.append(WayOut(f"put {giving.named} on {day:%A}", moves, other=giving.other))
    return found[:MOST_ALIKE]


def _gentler(clash: DayClash, around: Around, giving: Giving, plan: Plan) -> WayOut | None:
    """Less effort in it, the most that helps."""
    top = plan.sums.top_effort
    if top is None:
        return None
    much = max(giving.much, around.limit)
    guess = floor(2 * top * sqrt(MUCH_LESS * ASKED * around.limit / much)) / 2
    tried = {one for one in (top - 0.5, guess, *GENTLE) if LEAST_EFFORT <= one < top}
    for effort in sorted(tried, reverse=True):
        said = f"a gentler way{' of {other}' if giving.other else ''}: at {number(effort)} at most"
        way = _edited(clash, around, giving, said, (Ease(block=None, most=effort),))
        if way:
            return way
    return None


def _fewer(clash: DayClash, around: Around, giving: Giving, plan: Plan) -> WayOut | None:
    """Fewer rounds of one block, down to half of them: as many as are left where it helps."""
    for at, block in enumerate(plan.session.blocks):
        asked = any(_line_asks(plan, line, clash.pattern) for line in block.moves)
        if not asked and clash.pattern != "breath":
            continue
        for name, figure in plan.reading.blocks[at].figures.items():
            now = round(figure.value)
            for left in range(now - 1, (now - 1) // 2, -1) if name in COUNTED else ():
                edits = (SetFigure(block=at, figure=name, value=left),)
                said = f"{left} {COUNTED[name]} instead of {now}"
                if giving.other:
                    said = f"{{other}}: {said}"
                way = _edited(clash, around, giving, said, edits)
                if way:
                    return way
    return None


def _another(clash: DayClash, around: Around, giving: Giving, plan: Plan) -> WayOut | None:
    """Another pattern in the place of the moves that ask this one, the least carried first."""
    lines = [
        (at, nth)
        for at, block in enumerate(plan.session.blocks)
        for nth, line in enumerate(block.moves)
        if _line_asks(plan, line, clash.pattern)
    ]
    for move in _others(clash, around, giving.one, plan)[:MOST_TRIED] if lines else ():
        edits = tuple(ReplaceMove(block=at, move=nth, name=move.name) for at, nth in lines)
        said = f"another pattern: {move.name} instead"
        way = _edited(clash, around, giving, said, edits)
        if way:
            return way
    return None


def _line_asks(plan: Plan, line: Line, pattern: str) -> bool:
    return not line.is_rest and _asks_it(plan.library.find(line.tasks[0].name), pattern)


def _asks_it(move: Move | None, region: str) -> bool:
    """Whether a move works a region; breath is worked by all."""
    if move is None:
        return False
    if region == "grip":
        return move.grip and move.pattern in GRIPPED
    return region == "breath" or region in WORKS.get(move.pattern, {})


def _others(clash: DayClash, around: Around, mine: Planned, plan: Plan) -> list[Move]:
    """Moves of other regions that anybody can be given, those whose region is carried least first."""
    there = carried(mine.at, around.sessions, around.others)
    plain = [
        move
        for move in plan.library.moves
        if move.pattern in STRENGTH - {"carry"}
        and not _asks_it(move, clash.pattern)
        and not (move.skill or move.needs_kit or move.overhead or move.grip)
        and move.impact == "none"
        and move.counted == "reps"
    ]
    firsts = {move.pattern: move for move in reversed(plain)}
    return sorted(
        firsts.values(),
        key=lambda move: (sum(there.get(one, 0.0) for one in WORKS[move.pattern]), move.pattern),
    )


def _edited(
    clash: DayClash, around: Around, giving: Giving, said: str, edits: tuple[Edit, ...]
) -> WayOut | None:
    """A way that changes a session, where it helps."""
    plan = giving.plan
    assert plan is not None
    text = plan.reading.text
    try:
        for edit in edits:
            text = apply_edit(text, edit)
    except CannotEdit:
        return None
    after = plan_text(text, plan.library)
    if after.problems or text == plan.reading.text:
        return None
    new = (giving.one.id, giving.weigh(after))
    way = WayOut(said, (), edits, giving.other, bool(giving.other))
    return way if around.helps(clash, around.after((), new)) else None
