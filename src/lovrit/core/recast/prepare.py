"""A warm-up and a cool-down from a session's own moves, in the time that the slot leaves.

Three rounds, each a little harder, of the patterns that the session will use, lighter and slower; then a rehearsal of
its first hard work with a minute's rest.
"""

from collections.abc import Iterator

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.quality import Quality
from lovrit.core.blocks.steady import Steady
from lovrit.core.blocks.worktime import TO_THE_NEXT_S, round_s
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move, Pattern
from lovrit.core.recast.portion import portioned
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Line, Task
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.timeline.sums import HARD

LONG_S, USUAL_S, LEAST_S = 7 * 60 + 30, 8 * 60, 3 * 60
ROUNDS, USUAL_REST_S = 3, 15
EASY_S = 5 * 60  # before what is hard, a rehearsal too
COOL_S, LEAST_COOL_S = 4 * 60, 2 * 60
MOST_LINES = 5
ALL_OUT = 9.0


def warm_up(plan: Plan, library: Library) -> str | None:
    """Lines of slate for a warm-up; None where the session has one, no moves, or no time for it."""
    room = _rooms(plan)[0]
    if room < LEAST_S:
        return None
    light = list(_light(plan.session, library))[:MOST_LINES]
    if room < LONG_S:
        return "\n".join([f"warm-up {clock(room)} at 3", *(f"  {name}" for name in light)])
    last = "\n".join([*_rehearsal(plan.session, library), "", "rest 1:00"])
    rehearsed = plan_text(last, library)
    left = room - rehearsed.timeline.total_s
    if left < (EASY_S if (rehearsed.sums.top_effort or 0) >= HARD else LEAST_S):
        return "\n".join(_rounds(light, room, library))
    return "\n".join([*_rounds(light, left, library), "", last])


def _rounds(light: list[str], cap: int, library: Library) -> list[str]:
    """Three rounds, each a little harder than the one before; the cap ends the last rest, so all time is used."""
    each = (cap / ROUNDS - USUAL_REST_S) / len(light) - TO_THE_NEXT_S
    lines = tuple(
        _with_room(portioned(Line(tasks=(Task(name=name),)), each, library), library)
        for name in light
    )
    rest = max(10, -(((round_s(lines, library) or 0) - cap // ROUNDS) // 5) * 5)
    head = f"{ROUNDS} rounds for quality, rest {clock(rest)}, cap {clock(cap)}, at 3 4 5"
    return [head, *(f"  {move_line(line)}" for line in lines)]


def _with_room(line: Line, library: Library) -> Line:
    """No more of a move than can be done easily: a warm-up tires nobody."""
    task = line.tasks[0]
    move, amount = library.find(task.name), task.amount
    if not move or not amount or move.counted != amount.unit or amount.values[0] <= move.fresh:
        return line
    return line.but(tasks=(task.but(amount=amount.but(values=(float(move.fresh),))),))


def _rehearsal(session: Session, library: Library) -> list[str]:
    """The first hard work in small: build-ups before sprints, ramp sets before heavy lifts, else half as hard."""
    block = _working(session)[0]
    name = block.moves[0].tasks[0].name if block.moves else ""
    move = library.find(name)
    on_foot = move is None or move.pattern in ("gait", "footwork")
    if (block.top_effort or 0) >= ALL_OUT and on_foot:
        return ["3 x 10/30 at 6 7 8", *(f"  {one.name}" for one in library.serving("build-up")[:1])]
    if block.lifts and name:
        return [
            "3 sets of 5 reps, rest 0:30, at 3 4 5   # ramp: light, and a little heavier each",
            f"  {name}",
        ]
    return ["2 x 15/15 at 7", *([f"  {name}"] if name else ())]


def cool_down(plan: Plan, library: Library) -> str | None:
    """Lines of slate for a cool-down; None where the session has one, or no time for it."""
    room = _rooms(plan)[1]
    if room < LEAST_COOL_S:
        return None
    upper = any(move.pattern in ("push", "pull") for move in _moves(plan.session, library))
    last = library.serving("shoulders" if upper else "legs")[:1]
    lines = [move.name for move in (*library.serving("cool-down"), *last)]
    return "\n".join([f"cool-down {clock(room)} at 2", *(f"  {line}" for line in lines)])


def _rooms(plan: Plan) -> tuple[int, int]:
    """Seconds for a warm-up and for a cool-down: what is usual, or its share of what the slot leaves."""
    blocks = plan.session.blocks
    if not _working(plan.session):
        return 0, 0
    wanted = (
        0 if _warms(blocks[0]) else USUAL_S,
        0 if _cools(blocks[-1]) else COOL_S,
    )
    spare = plan.sums.spare_s
    if spare is None or spare >= sum(wanted):
        return wanted
    warm, cool = (max(0, spare) * one // sum(wanted) // 30 * 30 for one in wanted)
    return warm, cool


def _warms(block: Block) -> bool:
    """Whether a first block is a warm-up already: easy by its kind, or unhurried rounds."""
    return isinstance(block, Steady | Quality)


def _cools(block: Block) -> bool:
    return isinstance(block, Steady)


def _working(session: Session) -> list[Block]:
    return [block for block in session.blocks if block.works]


def _moves(session: Session, library: Library) -> Iterator[Move]:
    for block in _working(session):
        for line in block.moves:
            for task in line.tasks:
                move = library.find(task.name)
                if move:
                    yield move


def _light(session: Session, library: Library) -> Iterator[str]:
    """The light move of each pattern that the session uses, most used first, something to move about with before."""
    used: dict[Pattern, int] = {}
    for move in _moves(session, library):
        used[move.pattern] = used.get(move.pattern, 0) + 1
    yield from (move.name for move in library.serving("begin"))
    for pattern in sorted(used, key=lambda one: -used[one]):
        yield from (move.name for move in library.serving("warm-up", pattern)[:1])
    if any(move.overhead or move.shoulders for move in _moves(session, library)):
        yield from (move.name for move in library.serving("shoulders"))
