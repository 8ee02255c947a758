"""Who is where: which group stands at which station in an interval, and where it goes next."""

from lovrit.core.session.model import AnyBlock, Session
from lovrit.core.timeline.interval import Interval, Timeline
from lovrit.core.values import Value

MOVING = frozenset({"rotate", "sets"})


class Stand(Value):
    """A station in an interval: the groups (from 0) that are there, and those that come next."""

    station: str
    groups: tuple[int, ...]
    then: tuple[int, ...] = ()
    side: str | None = None


class Whereabouts:
    """Who is where in every interval of a class; what is asked of many intervals is looked up once."""

    def __init__(self, session: Session, timeline: Timeline, groups: int):
        self.session, self.timeline, self.groups = session, timeline, groups
        self._last_of_turn: dict[int, dict[int | None, int]] = {}  # by block: the last work of each of its turns
        for at, one in enumerate(timeline.intervals):
            if one.phase == "work":
                self._last_of_turn.setdefault(one.block, {})[one.turn] = at

    def at(self, nth: int) -> tuple[Stand, ...]:
        """Every station of an interval with who is there and who comes after the next change of stations."""
        interval = self.timeline.intervals[nth]
        block = self.session.blocks[interval.block]
        if block.kind not in MOVING or len(block.moves) < 2:
            return _together(block, interval, self.groups)
        turn = (interval.turn or 1) - 1
        here = _at_stations(block, self.groups, turn)
        moved = _at_stations(block, self.groups, turn + 1)
        last = not self._moves_on(nth)
        return tuple(
            Stand(
                station=line.name,
                groups=here[at],
                then=() if last else moved[at],
                side=_side(block, at, interval.round or 1),
            )
            for at, line in enumerate(block.moves)
        )

    def _moves_on(self, nth: int) -> bool:
        """Whether there is a work of another turn later in this interval's block."""
        now = self.timeline.intervals[nth]
        return any(at > nth for turn, at in self._last_of_turn.get(now.block, {}).items() if turn != now.turn)


def _at_stations(block: AnyBlock, groups: int, turn: int) -> list[tuple[int, ...]]:
    stations = len(block.moves)
    found: list[list[int]] = [[] for _ in range(stations)]
    for group in range(groups):
        found[(group + turn) % stations].append(group)
    return [tuple(one) for one in found]


def _side(block: AnyBlock, nth: int, round_: int) -> str | None:
    side = block.moves[nth].side
    if side == "none":
        return None
    return "each side" if side == "each" else ("left" if round_ % 2 else "right")


def _together(block: AnyBlock, interval: Interval, groups: int) -> tuple[Stand, ...]:
    """Everyone does the same: the move of this turn, or all of the block's lines in order."""
    everyone = tuple(range(groups))
    if interval.move is not None and block.moves:
        return (Stand(station=block.moves[interval.move].name, groups=everyone, side=interval.side),)
    if block.moves:
        return tuple(Stand(station=line.name, groups=everyone) for line in block.moves)
    name = getattr(block, "label", "") or ("rest" if block.kind == "rest" else "")
    return (Stand(station=name or interval.phase, groups=everyone),)
