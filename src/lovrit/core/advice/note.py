"""A remark on a session, and what the rules look at."""

from dataclasses import dataclass
from typing import Literal

from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import Edit
from lovrit.core.session.model import AnyBlock, Session
from lovrit.core.session.move import Line
from lovrit.core.timeline.interval import LaidBlock, Timeline
from lovrit.core.timeline.plan import Plan

Level = Literal["stop", "weigh", "tell"]
PRACTICE = "coaches' practice"


@dataclass(frozen=True)
class Fix:
    """What can be pressed: its words and the edit that it makes."""

    text: str
    edit: Edit


@dataclass(frozen=True)
class Note:
    """A remark. ``block`` counts from 0 and ``line`` from 1, where it has a place; ``basis`` is what it rests on."""

    code: str
    level: Level
    text: str
    reason: str = ""
    basis: str = PRACTICE
    block: int | None = None
    line: int | None = None
    fixes: tuple[Fix, ...] = ()


class Look:
    """What a rule looks at: a plan, the library, and how many groups there are."""

    def __init__(self, plan: Plan, library: Library, groups: int | None = None):
        self.plan, self.library, self.groups = plan, library, groups

    @property
    def session(self) -> Session:
        """The session as read."""
        return self.plan.session

    @property
    def timeline(self) -> Timeline:
        """The session on the clock."""
        return self.plan.timeline

    def blocks(self, *kinds: str) -> list[tuple[int, AnyBlock, LaidBlock]]:
        """Blocks with their places and lengths; of these kinds, or all."""
        both = zip(self.session.blocks, self.timeline.blocks, strict=True)
        return [(at, block, laid) for at, (block, laid) in enumerate(both) if not kinds or block.kind in kinds]

    def line(self, block: int, move: int | None = None) -> int:
        """The line of a block, or of one of its moves."""
        place = self.plan.reading.blocks[block]
        return place.moves[move] if move is not None and move < len(place.moves) else place.line

    def move(self, line: Line) -> Move | None:
        """The library's move for a line: its first task's."""
        return self.library.find(line.tasks[0].name)

    def has(self, block: int, figure: str) -> bool:
        """Whether a figure stands on a block's first line."""
        return figure in self.plan.reading.blocks[block].figures
