"""How often an evening lands hard: jumps for height or length, of which joints and tendons bear so many."""

from collections.abc import Iterator
from typing import NamedTuple

from lovrit.core.advice.note import Fix, Look, Note
from lovrit.core.blocks.strength import Strength
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import SetAmount
from lovrit.core.slate.line import Line

LEAST_S = 1.2  # a jump that takes less is a hop: of those a rope turns hundreds
MOST, FEWER = (
    120,
    60,
)  # full jumps in an evening: of people who are used to them, and of those who are not
SPARED = frozenset({"beginners", "children", "older"})
# a landing from a height asks for more, one on a box for less (ours, after the practice of counting foot contacts)
WORTH = {"drop jump": 2.5, "box jump": 0.5, "box jump-over": 0.7}


class Jumps(NamedTuple):
    """A line that jumps: where it stands, its move, and how often everybody lands in all."""

    at: int
    nth: int
    line: Line
    move: Move
    landings: float


def _is_full_jump(move: Move) -> bool:
    """Whether it leaves the ground for height or length, and comes down hard."""
    lands = move.impact == "high" and move.seconds >= LEAST_S and not move.floor
    return lands and (move.pattern == "jump" or "jump" in move.name)


def _landings(look: Look) -> Iterator[Jumps]:
    work = {at: laid.work_s for at, _, laid in look.working()}
    for at, nth, line, move in look.lines():
        if move is None or not _is_full_jump(move):
            continue
        reps = look.session.blocks[at].reps_done(nth, look.library, work[at])
        yield Jumps(at, nth, line, move, reps * WORTH.get(move.name, 1.0))


def many_landings(look: Look) -> Iterator[Note]:
    """More hard landings in an evening than shins, knees and tendons bear."""
    found = [one for one in _landings(look) if one.landings]
    in_all, limit = sum(one.landings for one in found), _limit(look)
    if in_all <= limit:
        return
    most = max(found, key=lambda one: one.landings)
    reps = round(sum(one.landings / WORTH.get(one.move.name, 1.0) for one in found))
    deep = " from a height" if {one.move.name for one in found} == {"drop jump"} else ""
    who = "people who are" if limit == MOST else "who is not"
    yield look.note(
        code="many-landings",
        level="weigh",
        text=f"{reps} hard landings{deep} in one evening: shins, knees and tendons pay for the last of them.",
        reason=f"Some {limit} full jumps are many for {who} used to it; "
        "a jump from a height counts more than twice, one onto a box half.",
        basis="counting foot contacts (Chu and Myer 2013); local rules and whoever is hurt come first",
        at=most.at,
        nth=most.nth,
        fixes=_fewer(look, most, limit - in_all),
    )


def _limit(look: Look) -> int:
    return FEWER if SPARED & set(look.session.whom) else MOST


def _fewer(look: Look, jumps: Jumps, spare: float) -> tuple[Fix, ...]:
    """As many as leave the evening enough; else what lands softly."""
    share = (jumps.landings + spare) / jumps.landings
    block, amount = look.session.blocks[jumps.at], jumps.line.tasks[0].amount
    if (
        isinstance(block, Strength)
        and not block.by_set
        and (sets := int(block.sets.high * share)) > 1
    ):
        return look.set(jumps.at, "sets", sets, f"{sets} sets", 0)
    if (
        amount
        and amount.unit == "reps"
        and (fewer := int(max(amount.values, default=0) * share)) > 1
    ):
        edit = SetAmount(block=jumps.at, move=jumps.nth, value=fewer)
        return (Fix(f"{fewer} {jumps.move.name}", edit),)
    return look.instead(jumps.at, jumps.nth, jumps.move.low_impact)
