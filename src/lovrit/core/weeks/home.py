"""A session for somebody at home: each block by its way without kit; what can't be done there is said."""

from contextlib import suppress
from typing import NamedTuple

from lovrit.core.blocks.kinds import AnyBlock
from lovrit.core.clock import clock
from lovrit.core.moves.library import Library
from lovrit.core.recast.recast import recast
from lovrit.core.recast.shapes import CannotRecast
from lovrit.core.session.session import Session
from lovrit.core.slate.written import line_said
from lovrit.core.timeline.plan import Plan


class AtHome(NamedTuple):
    """A part of a session at home: what it is called, how long, its lines; ``needs`` kit that it can't do without."""

    head: str
    length: str
    lines: tuple[str, ...]
    needs: tuple[str, ...]


def at_home(plan: Plan, library: Library) -> tuple[AtHome, ...]:
    """Each block of a session as it is done at home."""
    return tuple(_block(plan, at, library) for at in range(len(plan.session.blocks)))


def home_session(plan: Plan, library: Library) -> Session:
    """The session with each block by its way without kit, as far as there is one."""
    return plan.session.but(
        blocks=tuple(_home(plan, at, library) for at in range(len(plan.session.blocks)))
    )


def _home(plan: Plan, at: int, library: Library) -> AnyBlock:
    """A block at home; what needs no kit, or is no work, is done as it is."""
    with suppress(CannotRecast):
        return recast(plan.reading.text, plan, at, "home", library).block
    return plan.session.blocks[at]


def _block(plan: Plan, at: int, library: Library) -> AtHome:
    block, laid = _home(plan, at, library), plan.timeline.blocks[at]
    names = [task.name for line in block.moves for task in line.tasks]
    if not block.works and not names:
        names = [laid.label]
    moves = [move for name in names if (move := library.find(name))]
    needs = sorted({kit for move in moves for kit in move.needs_kit})
    lines = tuple(line_said(line) for line in block.moves)
    return AtHome(laid.label, clock(laid.seconds), lines, tuple(needs))
