"""What people's own numbered paces come to where a block asks for one: metres of a work, seconds of a distance."""

from collections.abc import Iterable
from dataclasses import dataclass

from lovrit.core.blocks.block import Block
from lovrit.core.blocks.parts import Pace
from lovrit.core.clock import clock, number
from lovrit.core.crew.paces import OwnPace, within


@dataclass(frozen=True)
class Paced:
    """How many of a group have the pace, and what it comes to for the slowest and the quickest of them."""

    have: int
    people: int
    metres: tuple[int, int] | None = None
    seconds: tuple[int, int] | None = None
    cadence: tuple[float, float] | None = None


def paced(block: Block, group: Iterable[tuple[OwnPace, ...]]) -> Paced | None:
    """What a block's pace comes to for people with these paces; None where it asks for none."""
    if not block.pace:
        return None
    mine = [within(paces, block.pace.low, block.pace.high) for paces in group]
    have = [paces for paces in mine if paces]
    speeds = sorted(one.metres_s for paces in have for one in paces if one.metres_s)
    beats = sorted(one.value for paces in have for one in paces if one.metres_s is None)
    work, over = _work(block)
    return Paced(
        have=len(have),
        people=len(mine),
        metres=(round(work * speeds[0]), round(work * speeds[-1])) if speeds and work else None,
        seconds=(round(over / speeds[-1]), round(over / speeds[0])) if speeds and over else None,
        cadence=(beats[0], beats[-1]) if beats else None,
    )


def _work(block: Block) -> tuple[int, float]:
    """Seconds of one work, and metres of one repeat; 0 for what isn't written."""
    amount = block.amount
    metres = (amount.metres if amount else None) or 0
    seconds = block.pairs[0].work.seconds or 0 if len(block.pairs) == 1 and not block.rotates else 0
    return seconds, metres


def paced_said(block: Block, told: Paced) -> str:
    """That in a sentence: about “3” to “3–4”, who has one, and between what and what."""
    name, (work, over) = pace_name(block.pace), _work(block)
    if not told.have:
        return f"Nobody of {told.people} has a pace {name} of their own yet."
    said = []
    if told.metres:
        said.append(
            f"{clock(work)} is {told.metres[0]} m for the slowest of them, {told.metres[1]} m for the quickest"
        )
    if told.seconds:
        said.append(f"{number(over)} m take {clock(told.seconds[0])} to {clock(told.seconds[1])}")
    if told.cadence:
        said.append(f"{_range(*told.cadence)} a minute")
    whose = (
        "everyone’s own"
        if told.have == told.people
        else f"{told.have} of {told.people} have theirs"
    )
    return f"Pace {name}, {whose}: {', '.join(said)}." if said else f"Pace {name}: {whose}."


def _range(low: float, high: float) -> str:
    return number(low) if low == high else f"{number(low)} to {number(high)}"


def pace_name(pace: Pace | None) -> str:
    """A pace's number, or its range."""
    if not pace:
        return ""
    return number(pace.low) if pace.low == pace.high else f"{number(pace.low)}–{number(pace.high)}"
