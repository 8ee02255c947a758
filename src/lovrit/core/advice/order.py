"""Rules about the order of stations: what follows what, and how often people go down and up."""

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby, pairwise

from lovrit.core.advice.load import HEAVY, heavy_lines
from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock
from lovrit.core.moves.move import STRENGTH, Move
from lovrit.core.session.edits import (
    Edit,
    InsertBlock,
    MoveStation,
    OrderStations,
    ReplaceLine,
    ReplaceMove,
)
from lovrit.core.slate.line import Line

FEW = 10
HANDS_S = 180  # hands that hang or carry come back in about three minutes; ours
TIRING = 7.0
ALL_GRIP = 3  # stations, all of them held in the hands; ours
MOST_TOLD = 6  # the same remark about one block; who mends six finds the rest
MOST_PLACES = (
    40  # beyond, no other place is looked for: each would be weighed against all the others
)
Stations = Sequence[Move | None]


def _same_pattern(one: Move, two: Move) -> bool:
    """Of those that load a part of the body; footwork after footwork is a game, and a stretch after a stretch fine."""
    return one.pattern == two.pattern and one.pattern in STRENGTH | {"brace"}


def _both_grip(one: Move, two: Move) -> bool:
    return one.grip and two.grip and not _same_pattern(one, two)


def _both_shoulders(one: Move, two: Move) -> bool:
    loaded = all(
        (move.shoulders or move.overhead) and move.pattern in STRENGTH | {"brace"}
        for move in (one, two)
    )
    return loaded and not _same_pattern(one, two) and not (_hangs(one) and _hangs(two))


def _both_land(one: Move, two: Move) -> bool:
    return one.impact == two.impact == "high"


@dataclass(frozen=True)
class Clash:
    """What two stations in a row should not both be: its code, how it is told, and why."""

    code: str
    speaks: Callable[[Move, Move], bool]
    said: str
    reason: str = ""


PATTERN = Clash(
    "pattern-twice",
    _same_pattern,
    "{pattern} twice in a row",
    "The second is done tired, and its rest is no rest for what works.",
)
GRIP = Clash(
    "grip-after-grip",
    _both_grip,
    "grip after grip",
    "Hands give out before the legs or the back have worked.",
)
SHOULDERS = Clash(
    "shoulders-in-a-row",
    _both_shoulders,
    "shoulder after shoulder",
    "Tired shoulders lose their place first, and overhead is where that hurts.",
)
LANDINGS = Clash("impact-in-a-row", _both_land, "hard landings twice in a row")
CLASHES = (PATTERN, GRIP, SHOULDERS, LANDINGS)


def pattern_twice(look: Look) -> Iterator[Note]:
    """The same movement pattern at two stations in a row."""
    return _told(look, PATTERN)


def grip_after_grip(look: Look) -> Iterator[Note]:
    """Two stations in a row that both hang on the hands, or two blocks with too little between."""
    yield from _told(look, GRIP)
    yield from _grip_all_round(look)
    yield from _grip_across(look)


def _grip_all_round(look: Look) -> Iterator[Note]:
    """Every station of a hard circuit is held in the hands: no rest of one is a rest for them."""
    for at, block, _ in look.blocks():
        moves = [look.move(line) for line in block.moves if not line.is_rest]
        many = len(moves) >= ALL_GRIP and bool(block.circuit)
        if not many or (block.top_effort or 0) < TIRING:
            continue
        if all(move and move.grip for move in moves):
            yield look.note(
                GRIP.code,
                "tell",
                f"All {len(moves)} stations are held in the hands: they give out first.",
                GRIP.reason,
                at=at,
                nth=1,
                fixes=tuple(_apart(look, at, block, 1)),
            )


def _grip_across(look: Look) -> Iterator[Note]:
    """Blocks in a row of which both are done with the hands alone."""
    before: Block | None = None
    called, rested = "", 0
    for at, block, laid in look.blocks():
        if block.is_pause:
            rested += laid.seconds
            continue
        spent = before is not None and rested < HANDS_S and _by_hand(look, before)
        if before and spent and (_by_hand(look, block) or _heavy_by_hand(look, block)):
            yield look.note(
                GRIP.code,
                "weigh",
                f"{laid.label} after {called}: {GRIP.said}, with {clock(rested)} between.",
                GRIP.reason,
                at=at,
                fixes=(
                    Fix("rest 3:00 between", InsertBlock(at=at, text="rest 3:00"), adds_s=HANDS_S),
                ),
            )
        before, called, rested = block, laid.label, 0


def _by_hand(look: Look, block: Block) -> bool:
    """Whether all that is done in a block hangs on the hands."""
    moves = [look.move(line) for line in block.moves if not line.is_rest]
    return block.works and bool(moves) and all(move and _hangs(move) for move in moves)


def _heavy_by_hand(look: Look, block: Block) -> bool:
    """Whether something heavy is held in a block: the hands let go before the rest of the body has had enough."""
    return any((move := look.move(line)) and move.grip for _, line in heavy_lines(block, HEAVY))


def shoulders_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row that both load the shoulders."""
    return _told(look, SHOULDERS)


def impact_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row with hard landings."""
    return _told(look, LANDINGS)


def _told(look: Look, clash: Clash) -> Iterator[Note]:
    """Each station of a circuit that clashes with the one before it, once round."""
    for at, block, _ in look.blocks():
        moves = [look.move(line) for line in block.moves]
        if len(moves) < 3 or not (block.circuit or block.from_memory):
            continue
        told = 0
        for nth, (one, two) in enumerate(pairwise(moves), 1):
            if one and two and told < MOST_TOLD and _matters(block, clash, one, two):
                told += 1
                text = f"{one.name} then {two.name}: {clash.said.format(pattern=one.pattern)}."
                low = (
                    look.instead(at, nth, two.low_impact.split(",")[0]) if clash is LANDINGS else ()
                )
                fixes = low or tuple(_apart(look, at, block, nth))
                yield look.note(
                    clash.code, "weigh", text, clash.reason, at=at, nth=nth, fixes=fixes
                )


def _matters(block: Block, clash: Clash, one: Move, two: Move) -> bool:
    """Whether a clash is one in this block: trunk after trunk is fine in easy work, grip after grip after a rest."""
    if not clash.speaks(one, two):
        return False
    if clash is PATTERN and one.name == two.name:
        return False  # one side, then the other: how often is said by another rule
    if clash is PATTERN and one.pattern == "brace":
        return (block.top_effort or 0) >= TIRING
    if clash is GRIP and (not block.races or _once_through(block)):
        return _hangs(one) and _hangs(two)
    return True


def _once_through(block: Block) -> bool:
    """A list that is done once: there is time for the hands between."""
    return block.repeats is not None and block.repeats.times.high == 1


def _hangs(move: Move) -> bool:
    """Whether the hands give out first: hanging, carrying, climbing."""
    return move.pattern == "carry" or bool({"bar high", "rope long"} & set(move.kit))


def _apart(look: Look, at: int, block: Block, nth: int) -> Iterator[Fix]:
    """Another place for a station, where that parts what clashes; another move in its place, where no place does."""
    moves = [look.move(line) for line in block.moves]
    now = _clashes(moves)
    name = block.moves[nth].tasks[0].name
    for to in range(len(moves) if len(moves) <= MOST_PLACES else 0):
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
    free = (
        one
        for one in look.library.moves
        if not (one.kit or one.skill or one.impact == "high" or one in moves)
    )
    return (one for one in free if one.counted == "reps" and one.fresh >= FEW)


def put(look: Look, at: int, nth: int, line: Line, other: Move) -> Edit:
    """A move in place of a line's; with an amount of its own where the line's would not suit it."""
    first = line.tasks[0].amount
    suits = first is None or (first.unit == "reps" and max(first.values, default=0) <= other.fresh)
    if len(line.tasks) == 1 and suits:
        return ReplaceMove(block=at, move=nth, name=other.name)
    return ReplaceLine(line=look.line(at, nth), text=f"  {FEW} {other.name}")


Key = tuple[str, str, str]


def _clashes(moves: Stations) -> Counter[Key]:
    """Which rule speaks of which two, how often."""
    pairs = [(one, two) for one, two in pairwise(moves) if one and two]
    return Counter(
        (clash.code, a.name, b.name) for a, b in pairs for clash in CLASHES if clash.speaks(a, b)
    )


def _better(tried: Counter[Key], now: Counter[Key], moves: Stations, nth: int) -> bool:
    """Fewer clashes in all, and fewer between this station and the one before it."""
    one, two = moves[nth - 1], moves[nth]
    assert one and two
    here = [key for key in now if key[1:] == (one.name, two.name)]
    return tried.total() < now.total() and all(tried[key] < now[key] for key in here)


def up_and_down(look: Look) -> Iterator[Note]:
    """Floor and standing in turns, again and again."""
    for at, block, _ in (one for one in look.blocks() if one[1].circuit):
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
