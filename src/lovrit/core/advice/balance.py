"""Rules about moves: what follows what, and what is not known."""

from collections.abc import Iterator
from itertools import pairwise

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import LineEdit, MoveStation, ReplaceMove
from lovrit.core.session.model import AnyBlock

CIRCUITS = ("rotate", "sets", "every")


def _neighbours(look: Look) -> Iterator[tuple[int, AnyBlock, int, Move, Move]]:
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
    for at, block, nth, one, two in _neighbours(look):
        if one.pattern == two.pattern:
            yield look.note(
                code="pattern-twice",
                level="weigh",
                text=f"{one.name} then {two.name}: {one.pattern} twice in a row.",
                reason="The second is done tired, and its rest is no rest for what works.",
                at=at,
                nth=nth,
                fixes=tuple(_swaps(look, at, block, nth)),
            )


def grip_after_grip(look: Look) -> Iterator[Note]:
    """Two stations in a row that both hang on the hands."""
    for at, block, nth, one, two in _neighbours(look):
        if one.grip and two.grip and one.pattern != two.pattern:
            yield look.note(
                code="grip-after-grip",
                level="weigh",
                text=f"{one.name} then {two.name}: grip after grip.",
                reason="Hands give out before the legs or the back have worked.",
                at=at,
                nth=nth,
                fixes=tuple(_swaps(look, at, block, nth)),
            )


def impact_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row with hard landings."""
    for at, _block, nth, one, two in _neighbours(look):
        if one.impact == "high" and two.impact == "high":
            fixes: tuple[Fix, ...] = ()
            if two.low_impact:
                name = two.low_impact.split(",")[0]
                edit = ReplaceMove(block=at, move=nth, name=name)
                fixes = (Fix(text=name, edit=edit),)
            yield look.note(
                code="impact-in-a-row",
                level="weigh",
                text=f"{one.name} then {two.name}: hard landings twice in a row.",
                at=at,
                nth=nth,
                fixes=fixes,
            )


def _swaps(look: Look, at: int, block: AnyBlock, nth: int) -> Iterator[Fix]:
    """A place for this station where neither of the two rules speaks; the first that is found."""
    moves = [look.move(line) for line in block.moves]
    now = _clashes(moves)
    for to in range(len(moves)):
        tried = list(moves)
        tried.insert(to, tried.pop(nth))
        if to != nth and _clashes(tried) < now:
            name = block.moves[nth].tasks[0].name
            where = "first" if to == 0 else f"to place {to + 1}"
            yield Fix(text=f"{name} {where}", edit=MoveStation(block=at, start=nth, to=to))
            return


def _clashes(moves: list[Move | None]) -> int:
    pairs = [(one, two) for one, two in pairwise(moves) if one and two]
    return sum((one.pattern == two.pattern) + (one.grip and two.grip) + _both_shoulders(one, two) for one, two in pairs)


def _both_shoulders(one: Move, two: Move) -> bool:
    return all(move.shoulders or move.overhead for move in (one, two))


def unknown_move(look: Look) -> Iterator[Note]:
    """Moves that the library doesn't know are allowed; their figures are a guess that is said."""
    seen: set[str] = set()
    for at, block, _ in look.blocks():
        if block.kind == "steady":
            continue
        for nth, line in enumerate(block.moves):
            for task in line.tasks:
                known = task.parts or look.library.find(task.name)
                if known or task.name in seen:
                    continue
                seen.add(task.name)
                yield look.note(
                    code="unknown-move",
                    level="tell",
                    text=f"“{task.name}” is not in the library: how long does a rep take?",
                    reason="Say it once and every figure follows; until then nothing is forecast from it.",
                    at=at,
                    nth=nth,
                    fixes=_nearest(look, at, nth, task.name) if task is line.tasks[0] else (),
                )


def _nearest(look: Look, at: int, nth: int, name: str) -> tuple[Fix, ...]:
    """The move of the library that this may be a slip of."""
    from difflib import get_close_matches  # only for those who need it

    near = get_close_matches(name, [move.name for move in look.library.moves], 1, 0.7)
    return look.instead(at, nth, near[0]) if near else ()


def _one_more(look: Look, at: int, count: int) -> tuple[Fix, ...]:
    name = "rounds" if look.has(at, "rounds") else "sets"
    return look.set(at, name, count, f"{count} {name}")


def uneven_sides(look: Look) -> Iterator[Note]:
    """Sides that change by round need an even number of rounds."""
    for at, block, _ in look.blocks("rotate", "sets"):
        rounds = getattr(block, "rounds", None) or getattr(block, "sets", None)
        if not rounds or rounds.high % 2 == 0:
            continue
        for nth, line in enumerate(block.moves):
            if line.side == "by-round":
                yield look.note(
                    code="uneven-sides",
                    level="weigh",
                    text=f"{line.name}: left has a round more than right in {rounds.high}.",
                    reason="Both sides get the same.",
                    at=at,
                    nth=nth,
                    fixes=_one_more(look, at, rounds.high + 1),
                )


def shoulders_in_a_row(look: Look) -> Iterator[Note]:
    """Two stations in a row that both load the shoulders."""
    for at, block, nth, one, two in _neighbours(look):
        if _both_shoulders(one, two) and one.pattern != two.pattern and not (one.grip and two.grip):
            yield look.note(
                code="shoulders-in-a-row",
                level="weigh",
                text=f"{one.name} then {two.name}: shoulder after shoulder.",
                reason="Tired shoulders lose their place first, and overhead is where that hurts.",
                at=at,
                nth=nth,
                fixes=tuple(_swaps(look, at, block, nth)),
            )


WHOLE_BODY = ("squat", "hinge", "push", "pull")
INSTEAD = {"squat": "squat", "hinge": "hip hinge", "push": "push-up", "pull": "prone pull"}


def pattern_missing(look: Look) -> Iterator[Note]:
    """A session of many moves that leaves one of the large patterns out."""
    found = [(at, move) for at, _, _, move in look.lines() if move]
    here = {move.pattern for _, move in found} | ({"squat"} if any(m.pattern == "lunge" for _, m in found) else set())
    missing = [pattern for pattern in WHOLE_BODY if pattern not in here]
    if len({move.name for _, move in found}) < 5 or len(missing) != 1:
        return
    circuit = next((at for at, block, _ in look.blocks(*CIRCUITS, "amrap") if len(block.moves) > 2), None)
    if circuit is None:
        return
    name = INSTEAD[missing[0]]
    yield look.note(
        code="pattern-missing",
        level="tell",
        text=f"Everything is in it but a {missing[0]}.",
        reason="Covered, or left out on purpose: both are fine, unawares is not.",
        at=circuit,
        fixes=_one_of_two(look, circuit, name),
    )


def _one_of_two(look: Look, at: int, name: str) -> tuple[Fix, ...]:
    """A move in place of one whose pattern is there twice; added where there is none and no slot to pass."""
    moves = look.session.blocks[at].moves
    patterns = [move.pattern if move else None for move in map(look.move, moves)]
    double = [nth for nth, one in enumerate(patterns) if one and patterns.count(one) > 1]
    if double:
        return (Fix(text=f"{name} in place of {moves[double[-1]].name}", edit=_put(at, double[-1], name)),)
    besides = [nth for nth, one in enumerate(patterns) if one not in WHOLE_BODY]
    if look.session.slot and not besides:
        return ()
    if look.session.slot:
        return (Fix(text=f"{name} in place of {moves[besides[-1]].name}", edit=_put(at, besides[-1], name)),)
    text = f"10 {name}" if any(line.tasks[0].amount for line in moves) else name
    edit = LineEdit(what="insert", block=at, move=len(moves) - 1, text=text)
    return (Fix(text=f"add {name}", edit=edit),)


def _put(at: int, nth: int, name: str) -> ReplaceMove:
    return ReplaceMove(block=at, move=nth, name=name)


def up_and_down(look: Look) -> Iterator[Note]:
    """Floor and standing in turns, again and again."""
    for at, block, _ in look.blocks(*CIRCUITS, "amrap"):
        moves = [look.move(line) for line in block.moves]
        floor = [move.floor for move in moves if move]
        changes = sum(one != two for one, two in pairwise(floor))
        if len(floor) != len(moves) or changes < 4:
            continue
        order = sorted(range(len(floor)), key=lambda nth: floor[nth])
        first = next(nth for nth in range(1, len(floor)) if floor[nth] != floor[nth - 1])
        same = next((nth for nth in range(first + 1, len(floor)) if floor[nth] == floor[first - 1]), None)
        edit = MoveStation(block=at, start=same, to=first) if same is not None else None
        yield look.note(
            code="up-and-down",
            level="tell",
            text=f"Down to the floor and up again {changes} times a round.",
            reason="Getting up is work of its own, most of all for older people; together it goes quicker.",
            at=at,
            nth=order[0],
            fixes=(Fix(text=f"{block.moves[same or 0].name} earlier", edit=edit),) if edit else (),
        )
