"""Rules about what moves a session has: patterns left out, sides that don't get the same, moves that nobody knows."""

from collections.abc import Iterator

from lovrit.core.advice.note import Fix, Look, Note, WayTo
from lovrit.core.advice.order import FEW, put
from lovrit.core.blocks.strength import Strength
from lovrit.core.moves.guess import guess, nearest
from lovrit.core.moves.move import Move, Pattern
from lovrit.core.session.edits import LineEdit, SetSide
from lovrit.core.slate.line import Line, Side
from lovrit.core.slate.written import SIDE_WORDS


def unknown_move(look: Look) -> Iterator[Note]:
    """Moves that the library doesn't know are allowed; their figures are a guess that is said."""
    seen: set[str] = set()
    for at, block, _ in look.blocks():
        if not block.works:
            continue
        for nth, line in enumerate(block.moves):
            for task in () if line.is_rest else line.tasks:
                known = task.parts or look.library.find(task.name)
                if known or task.name in seen:
                    continue
                seen.add(task.name)
                yield look.note(
                    code="unknown-move",
                    level="tell",
                    text=f"“{task.name}” is not in the library: how long does a rep take?{_says(task.name)}",
                    reason="Say it once and every figure follows; until then nothing is forecast from it.",
                    at=at,
                    nth=nth,
                    fixes=(
                        *(_nearest(look, at, nth, task.name) if task is line.tasks[0] else ()),
                        WayTo("move", "say it once", about=task.name),
                    ),
                )


def _nearest(look: Look, at: int, nth: int, name: str) -> tuple[Fix, ...]:
    """The move of the library that this may be a slip of: of the same pattern and kind of landing."""
    near = nearest(name, look.library)
    return look.instead(at, nth, near[0]) if near else ()


def _says(name: str) -> str:
    """What an unknown name is taken for until somebody says."""
    said = guess(name).said()
    return f" Its name says {', '.join(said)}, and is taken at its word." if said else ""


def _even(look: Look, at: int, now: int, lasts_s: int) -> tuple[Fix, ...]:
    """One more where there is time, or one fewer."""
    name = "rounds" if look.has(at, "rounds") else "sets"
    fewer = look.set(at, name, now - 1, f"{now - 1} {name}") if now > 2 else ()
    return (*look.set(at, name, now + 1, f"{now + 1} {name}", -(-lasts_s // now)), *fewer)


def uneven_sides(look: Look) -> Iterator[Note]:
    """Sides that change by round need an even number of rounds."""
    for at, block, laid in look.blocks():
        if not block.rotates or not block.repeats or block.repeats.times.high % 2 == 0:
            continue
        rounds = block.repeats.times
        for nth, line in enumerate(block.moves):
            if line.side == "by-round":
                yield look.note(
                    code="uneven-sides",
                    level="weigh",
                    text=f"{line.name}: left has a round more than right in {rounds.high}.",
                    reason="Both sides get the same.",
                    at=at,
                    nth=nth,
                    fixes=_even(look, at, rounds.high, laid.seconds),
                )


WHOLE_BODY: tuple[Pattern, ...] = ("squat", "hinge", "push", "pull")


def pattern_missing(look: Look) -> Iterator[Note]:
    """A session of many moves that leaves one of the large patterns out."""
    found = [(at, nth, line, move) for at, nth, line, move in look.lines() if move]
    here = {_large(move) for _, _, _, move in found}
    missing = [pattern for pattern in WHOLE_BODY if pattern not in here]
    circuit = next(
        (at for at, block, _ in look.blocks() if block.circuit and len(block.moves) > 2), None
    )
    if len({move.name for _, _, _, move in found}) < 5 or len(missing) != 1 or circuit is None:
        return
    name = look.library.serving("whole-body", missing[0])[0].name
    yield look.note(
        code="pattern-missing",
        level="tell",
        text=f"Everything is in it but a {missing[0]}.",
        reason="Covered, or left out on purpose: both are fine, unawares is not.",
        at=circuit,
        fixes=(_in_place(look, circuit, found, name),)
        if look.session.slot
        else (_added(look, circuit, name),),
    )


def _large(move: Move) -> Pattern:
    """A move's pattern, a lunge for a squat."""
    return "squat" if move.pattern == "lunge" else move.pattern


def _added(look: Look, at: int, name: str) -> Fix:
    moves = look.session.blocks[at].moves
    text = f"{FEW} {name}" if any(line.tasks[0].amount for line in moves) else name
    return Fix(f"add {name}", LineEdit(what="insert", block=at, move=len(moves) - 1, text=text))


def _in_place(look: Look, circuit: int, found: list[tuple[int, int, Line, Move]], name: str) -> Fix:
    """A move in place of one whose pattern is there twice, or is none of the large ones; in the circuit if it can be.

    There is one always: of five moves and more with three large patterns.
    """
    patterns = [_large(move) for _, _, _, move in found]
    spare = [
        one for one, pattern in zip(found, patterns, strict=True) if patterns.count(pattern) > 1
    ]
    spare += [
        one for one, pattern in zip(found, patterns, strict=True) if pattern not in WHOLE_BODY
    ]
    at, nth, line, _ = max(spare, key=lambda one: (one[0] == circuit, one[1]))
    other = look.library.find(name)
    assert other
    return Fix(f"{name} in place of {line.name}", put(look, at, nth, line, other))


UPPER: frozenset[Pattern] = frozenset({"push", "pull", "brace", "mobility"})


def no_legs(look: Look) -> Iterator[Note]:
    """A circuit of many moves in which the legs only stand."""
    found = [(at, nth, line, move) for at, nth, line, move in look.lines() if move]
    circuit = next(
        (at for at, block, _ in look.blocks() if block.circuit and len(block.moves) > 3), None
    )
    if circuit is None or len({move.name for *_, move in found}) < 5:
        return
    if all(move.pattern in UPPER for *_, move in found):
        legs = look.library.serving("whole-body", "squat")[0].name
        yield look.note(
            code="no-legs",
            level="tell",
            text="No legs in all of it.",
            reason="On purpose it is fine; unawares half of people goes home untrained.",
            at=circuit,
            fixes=(_in_place(look, circuit, found, legs),),
        )


def side_not_said(look: Look) -> Iterator[Note]:
    """A one-sided move on a line that says nothing of sides."""
    for at, nth, line, move in look.lines():
        block = look.session.blocks[at]
        if (
            not move
            or not move.sided
            or line.side != "none"
            or len(line.tasks) > 1
            or not (block.circuit or isinstance(block, Strength))
        ):
            continue
        # each side in one turn takes twice as long, which a turn by the clock has no room for
        side: Side = "by-round" if block.in_turns else "each"
        edit = SetSide(block=at, move=nth, side=side)
        yield look.note(
            code="side-not-said",
            level="tell",
            text=f"{move.name} has two sides, and the line says neither.",
            reason="Half of people will do one side only.",
            at=at,
            nth=nth,
            fixes=(Fix(SIDE_WORDS[side], edit),),
        )
