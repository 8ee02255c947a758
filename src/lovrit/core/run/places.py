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


def stands(session: Session, timeline: Timeline, at: int, groups: int) -> tuple[Stand, ...]:
    """Every station of the interval ``at`` with who is there and who comes after the next change of stations."""
    interval = timeline.intervals[at]
    block = session.blocks[interval.block]
    if block.kind not in MOVING or len(block.moves) < 2:
        return _together(block, interval, groups)
    turn = (interval.turn or 1) - 1
    here = _at_stations(block, groups, turn)
    moved = _at_stations(block, groups, turn + 1)
    last = not _moves_on(timeline, at)
    return tuple(
        Stand(
            station=line.name,
            groups=here[nth],
            then=() if last else moved[nth],
            side=_side(block, nth, interval.round or 1),
        )
        for nth, line in enumerate(block.moves)
    )


def _at_stations(block: AnyBlock, groups: int, turn: int) -> list[tuple[int, ...]]:
    stations = len(block.moves)
    found: list[list[int]] = [[] for _ in range(stations)]
    for group in range(groups):
        found[(group + turn) % stations].append(group)
    return [tuple(one) for one in found]


def _moves_on(timeline: Timeline, at: int) -> bool:
    """Whether there is another turn or round in this block after the interval's own."""
    now = timeline.intervals[at]
    later = (one for one in timeline.intervals[at + 1 :] if one.block == now.block)
    return any(one.phase == "work" and one.turn != now.turn for one in later)


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
