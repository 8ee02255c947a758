"""Rules about the order of stations: what follows what, and how often people go down and up."""

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import groupby, pairwise

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import Edit, MoveStation, OrderStations, ReplaceLine, ReplaceMove
from lovrit.core.session.model import AnyBlock
from lovrit.core.session.move import Line

CIRCUITS = ("rotate", "sets", "every")
FEW = 10
Stations = Sequence[Move | None]


def _same_pattern(one: Move, two: Move) -> bool:
    return one.pattern == two.pattern


def _both_grip(one: Move, two: Move) -> bool:
    return one.grip and two.grip and not _same_pattern(one, two)


def _both_shoulders(one: Move, two: Move) -> bool:
    loaded = all(move.shoulders or move.overhead for move in (one, two))
    return loaded and not _same_pattern(one, two) and not (one.grip and two.grip)


def _both_land(one: Move, two: Move) -> bool:
    return one.impact == two.impact == "high"


CLASHES = (_same_pattern, _both_grip, _both_shoulders, _both_land)


def _pairs(look: Look) -> Iterator[tuple[int, AnyBlock, int, Move, Move]]:
    """Each station of a circuit with the one before it, once round."""
    for at, block, _ in look.blocks(*CIRCUITS):
        if len(block.moves) < 3:
            continue
        for nth, (first, second) in enumerate(pairwise(block.moves), 1):
            one, two = look.move(first), look.move(second)
            if one and two:
                yield at, block, nth, one, two


def pattern_twice(look: Look) -> Iterator[Note]:
    """The same movement pattern at two stations in a row."""
    for at, block, nth, one, two in _pairs(look):
        if _same_pattern(one, two):
            yield look.note(
                code="pattern-twice",
                level="weigh",
                text=f"{one.name} then {two.name}: {one.pattern} twice in a row.",
                reason="The second is done tired, and its rest is no rest for what works.",
                at=at,
                nth=nth,
                fixes=tuple(_apart(look, at, block, nth)),
            )


def grip_after_grip(look: Look) -> Iterator[Note]:
    """Two stations in a row that both hang on the hands."""
    for at, block, nth, one, two in _pairs(look):
        if _both_grip(one, two):
            yield look.note(
                code="grip-after-grip",
                level="weigh",
                text=f"{one.name} then {two.name}: grip after grip.",
                reason="Hands give out before the legs or the back have worked.",
                at=at,
                nth=nth,
                fixes=tuple(_apart(look, at, block, nth)),
            )


def shoulders_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row that both load the shoulders."""
    for at, block, nth, one, two in _pairs(look):
        if _both_shoulders(one, two):
            yield look.note(
                code="shoulders-in-a-row",
                level="weigh",
                text=f"{one.name} then {two.name}: shoulder after shoulder.",
                reason="Tired shoulders lose their place first, and overhead is where that hurts.",
                at=at,
                nth=nth,
                fixes=tuple(_apart(look, at, block, nth)),
            )


def impact_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row with hard landings."""
    for at, block, nth, one, two in _pairs(look):
        if _both_land(one, two):
            name = two.low_impact.split(",")[0]
            low = (Fix(name, ReplaceMove(block=at, move=nth, name=name)),) if name else ()
            yield look.note(
                code="impact-in-a-row",
                level="weigh",
                text=f"{one.name} then {two.name}: hard landings twice in a row.",
                at=at,
                nth=nth,
                fixes=low or tuple(_apart(look, at, block, nth)),
            )


def _apart(look: Look, at: int, block: AnyBlock, nth: int) -> Iterator[Fix]:
    """Another place for a station, where that parts what clashes; another move in its place, where no place does."""
    moves = [look.move(line) for line in block.moves]
    now = _clashes(moves)
    name = block.moves[nth].tasks[0].name
    for to in range(len(moves)):
        tried = list(moves)
        tried.insert(to, tried.pop(nth))
        if to != nth and _better(_clashes(tried), now, moves, nth):
            where = "first" if to == 0 else f"to place {to + 1}"
            yield Fix(f"{name} {where}", MoveStation(block=at, start=nth, to=to))
            return
    for other in _ordinary(look, moves):
        tried = [*moves[:nth], other, *moves[nth + 1 :]]
        if _better(_clashes(tried), now, moves, nth):
            yield Fix(f"{other.name} instead", put(look, at, nth, block.moves[nth], other))
            return


def _ordinary(look: Look, moves: Stations) -> Iterator[Move]:
    """Moves that anybody can do anywhere and that aren't there yet."""
    free = (one for one in look.library.moves if not (one.kit or one.skill or one.impact == "high" or one in moves))
    return (one for one in free if one.counted == "reps" and one.fresh >= FEW)


def put(look: Look, at: int, nth: int, line: Line, other: Move) -> Edit:
    """A move in place of a line's; with an amount of its own where the line's would not suit it."""
    first = line.tasks[0].amount
    suits = first is None or (first.unit == "reps" and max(first.values, default=0) <= other.fresh)
    if len(line.tasks) == 1 and suits:
        return ReplaceMove(block=at, move=nth, name=other.name)
    return ReplaceLine(line=look.line(at, nth), text=f"  {FEW} {other.name}")


Clash = tuple[int, str, str]


def _clashes(moves: Stations) -> Counter[Clash]:
    """Which rule speaks of which two, how often."""
    pairs = [(one, two) for one, two in pairwise(moves) if one and two]
    return Counter((rule, a.name, b.name) for a, b in pairs for rule, speaks in enumerate(CLASHES) if speaks(a, b))


def _better(tried: Counter[Clash], now: Counter[Clash], moves: Stations, nth: int) -> bool:
    """Fewer clashes in all, and fewer between this station and the one before it."""
    one, two = moves[nth - 1], moves[nth]
    assert one and two
    here = [key for key in now if key[1:] == (one.name, two.name)]
    return tried.total() < now.total() and all(tried[key] < now[key] for key in here)


def up_and_down(look: Look) -> Iterator[Note]:
    """Floor and standing in turns, again and again."""
    for at, block, _ in look.blocks(*CIRCUITS, "amrap"):
        moves = [look.move(line) for line in block.moves]
        floor = [move.floor for move in moves if move]
        changes = _changes(floor)
        if len(floor) != len(moves) or changes < 4:
            continue
        order = tuple(sorted(range(len(floor)), key=lambda nth: floor[nth] != floor[0]))
        yield look.note(
            code="up-and-down",
            level="tell",
            text=f"Down to the floor and up again {changes} times a round.",
            reason="Getting up is work of its own, most of all for older people; together it goes quicker.",
            at=at,
            nth=floor.index(True),
            fixes=(Fix("floor together, standing together", OrderStations(block=at, order=order)),),
        )


def _changes(floor: Sequence[bool]) -> int:
    return len(list(groupby(floor))) - 1
