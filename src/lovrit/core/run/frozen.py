"""What a class is run by, frozen as it goes to the floor, so that nothing that is changed later changes what was.

The floor, every screen and the debrief read this and never plan the session's text again.
"""

from dataclasses import asdict, dataclass, field
from typing import Any

from pydantic import ValidationError

from lovrit.core.blocks.step import Forecast
from lovrit.core.session.session import Session
from lovrit.core.timeline.interval import Interval, LaidBlock, Timeline
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError, checked, plain

FORMAT = 1


class UnreadableClass(LovritError):
    """A class that was kept in a way that this Lovrit does not read."""


@dataclass(frozen=True)
class Frozen:
    """A class's session and its intervals with their lengths, and which move each station's drawing is of."""

    session: Session
    timeline: Timeline
    drawn: dict[str, str] = field(default_factory=dict)


def freeze(plan: Plan) -> Frozen:
    """What a class of this plan is run by."""
    drawn: dict[str, str] = {}
    for block in plan.session.blocks:
        for line in block.moves:
            move = plan.library.find(line.tasks[0].name)
            if move:
                drawn[line.name] = move.name
    return Frozen(plan.session, plan.timeline, drawn)


def frozen_object(frozen: Frozen) -> dict[str, Any]:
    """A frozen class as JSON; ``format`` says how it is written."""
    return {
        "format": FORMAT,
        "session": plain(frozen.session),
        "blocks": [asdict(block) for block in frozen.timeline.blocks],
        "intervals": [list(interval) for interval in frozen.timeline.intervals],
        "drawn": frozen.drawn,
    }


def thaw(kept: dict[str, Any]) -> Frozen:
    """A frozen class from its JSON.

    Raises:
        Unreadable: if it was written in another format, or isn't one.
    """
    if kept.get("format") != FORMAT:
        raise UnreadableClass("It was kept by a newer Lovrit than this one.")
    try:
        session = checked(Session, kept["session"])
        blocks = tuple(_block(one) for one in kept["blocks"])
        intervals = tuple(Interval(*one) for one in kept["intervals"])
    except (KeyError, TypeError, ValueError, ValidationError):
        raise UnreadableClass("What it was run by can’t be read.") from None
    return Frozen(session, Timeline(blocks, intervals), dict(kept.get("drawn", {})))


def _block(kept: dict[str, Any]) -> LaidBlock:
    said = kept["forecast"]
    forecast = said and Forecast(
        **{name: tuple(three) if three else None for name, three in said.items()}
    )
    return LaidBlock(**{**kept, "forecast": forecast})
