"""Who is where: which group stands at which station in an interval, and where it goes next."""

from lovrit.core.blocks.block import Block
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval, Timeline
from lovrit.core.values import Value


class Stand(Value):
    """A station in an interval: the groups (from 0) that are there, and those that come next."""

    station: str
    groups: tuple[int, ...]
    then: tuple[int, ...] = ()
    side: str | None = None


class Whereabouts:
    """Who is where in every interval of a class; what is asked of many intervals is looked up once."""

    def __init__(self, session: Session, timeline: Timeline, groups: int) -> None:
        self.session, self.timeline, self.groups = session, timeline, groups
        self._last_of_turn: dict[
            int, dict[int | None, int]
        ] = {}  # by block: the last work of each of its turns
        for at, one in enumerate(timeline.intervals):
            if one.phase == "work":
                self._last_of_turn.setdefault(one.block, {})[one.turn] = at

    def at(self, nth: int) -> tuple[Stand, ...]:
        """Every station of an interval with who is there and who comes after the next change of stations."""
        interval = self.timeline.intervals[nth]
        block = self.session.blocks[interval.block]
        if not block.moves_people:
            return _together(block, interval, self.groups)
        turn = interval.turn or 1
        here = _at_stations(block, self.groups, turn)
        moved = _at_stations(block, self.groups, turn + 1)
        last = not self._moves_on(nth)
        return tuple(
            Stand(
                station=line.name,
                groups=here[at],
                then=() if last else moved[at],
                side=block.side_of(at, interval.round or 1),
            )
            for at, line in enumerate(block.moves)
        )

    def _moves_on(self, nth: int) -> bool:
        """Whether there is a work of another turn later in this interval's block."""
        now = self.timeline.intervals[nth]
        return any(
            at > nth
            for turn, at in self._last_of_turn.get(now.block, {}).items()
            if turn != now.turn
        )


def _at_stations(block: Block, groups: int, turn: int) -> list[tuple[int, ...]]:
    found: list[list[int]] = [[] for _ in block.moves]
    for group in range(groups):
        found[block.line_of(group, turn)].append(group)
    return [tuple(one) for one in found]


def _together(block: Block, interval: Interval, groups: int) -> tuple[Stand, ...]:
    """Everyone does the same: the move of this turn, or all of the block's lines in order."""
    everyone = tuple(range(groups))
    if interval.move is not None and block.moves:
        return (
            Stand(station=block.moves[interval.move].name, groups=everyone, side=interval.side),
        )
    if block.moves:
        return tuple(Stand(station=line.name, groups=everyone) for line in block.moves)
    name = (
        block.name if interval.phase in ("steady", "break") and not block.works else interval.phase
    )
    return (Stand(station=name, groups=everyone),)
