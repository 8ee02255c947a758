"""Rules about moves: what follows what, and what is not known."""

from collections.abc import Iterator
from itertools import pairwise

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import MoveStation, ReplaceMove
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
            yield Note(
                code="pattern-twice",
                level="weigh",
                text=f"{one.name} then {two.name}: {one.pattern} twice in a row.",
                reason="The second is done tired, and its rest is no rest for what works.",
                block=at,
                line=look.line(at, nth),
                fixes=tuple(_swaps(look, at, block, nth)),
            )


def grip_after_grip(look: Look) -> Iterator[Note]:
    """Two stations in a row that both hang on the hands."""
    for at, block, nth, one, two in _neighbours(look):
        if one.grip and two.grip and one.pattern != two.pattern:
            yield Note(
                code="grip-after-grip",
                level="weigh",
                text=f"{one.name} then {two.name}: grip after grip.",
                reason="Hands give out before the legs or the back have worked.",
                block=at,
                line=look.line(at, nth),
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
            yield Note(
                code="impact-in-a-row",
                level="weigh",
                text=f"{one.name} then {two.name}: hard landings twice in a row.",
                block=at,
                line=look.line(at, nth),
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
    return sum((one.pattern == two.pattern) + (one.grip and two.grip) for one, two in pairwise(moves) if one and two)


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
                yield Note(
                    code="unknown-move",
                    level="tell",
                    text=f"“{task.name}” is not in the library: three seconds a rep is taken for it.",
                    block=at,
                    line=look.line(at, nth),
                )


def uneven_sides(look: Look) -> Iterator[Note]:
    """Sides that change by round need an even number of rounds."""
    for at, block, _ in look.blocks("rotate", "sets"):
        rounds = getattr(block, "rounds", None) or getattr(block, "sets", None)
        if not rounds or rounds.high % 2 == 0:
            continue
        for nth, line in enumerate(block.moves):
            if line.side == "by-round":
                yield Note(
                    code="uneven-sides",
                    level="weigh",
                    text=f"{line.name}: left has a round more than right in {rounds.high}.",
                    reason="Both sides get the same.",
                    block=at,
                    line=look.line(at, nth),
                )
