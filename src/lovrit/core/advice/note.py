"""A remark on a session, and what the rules look at."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from lovrit.core.advice.company import Company
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import Edit, ReplaceMove, SetFigure
from lovrit.core.session.model import AnyBlock, Session
from lovrit.core.session.move import Line
from lovrit.core.timeline.interval import LaidBlock, Timeline
from lovrit.core.timeline.plan import Plan

Level = Literal["stop", "weigh", "tell"]
PRACTICE = "coaches' practice"
HARD, VERY_HARD, ALL_OUT = 8.0, 9.0, 9.5


@dataclass(frozen=True)
class Fix:
    """What can be pressed: its words and the edit that it makes."""

    text: str
    edit: Edit


@dataclass(frozen=True)
class Note:
    """A remark. ``block`` counts from 0 and ``line`` from 1, where it has a place; ``basis`` is what it rests on.

    ``school`` names whose it is, where schools disagree.
    """

    code: str
    level: Level
    text: str
    reason: str = ""
    basis: str = PRACTICE
    block: int | None = None
    line: int | None = None
    fixes: tuple[Fix, ...] = ()
    school: str = ""


class Look:
    """What a rule looks at: a plan, the library, and who it is for."""

    def __init__(self, plan: Plan, library: Library, company: Company | None = None):
        self.plan, self.library, self.company = plan, library, company or Company()

    @property
    def groups(self) -> int | None:
        """How many groups there are, where somebody has said."""
        return self.company.groups

    @property
    def session(self) -> Session:
        """The session as read."""
        return self.plan.session

    @property
    def timeline(self) -> Timeline:
        """The session on the clock."""
        return self.plan.timeline

    @cached_property
    def _all(self) -> list[tuple[int, AnyBlock, LaidBlock]]:
        both = zip(self.session.blocks, self.timeline.blocks, strict=True)
        return [(at, block, laid) for at, (block, laid) in enumerate(both)]

    def note(
        self,
        code: str,
        level: Level,
        text: str,
        reason: str = "",
        *,
        at: int | None = None,
        nth: int | None = None,
        header: str = "",
        fixes: tuple[Fix, ...] = (),
        basis: str = PRACTICE,
        school: str = "",
    ) -> Note:
        """A remark at a block, at one of its move lines, or at a header; nowhere where none is named."""
        place = self.plan.reading.headers.get(header)
        line = self.line(at, nth) if at is not None else place.line if place else None
        return Note(code, level, text, reason, basis, at, line, fixes, school)

    def blocks(self, *kinds: str) -> list[tuple[int, AnyBlock, LaidBlock]]:
        """Blocks with their places and lengths; of these kinds, or all."""
        return [one for one in self._all if not kinds or one[1].kind in kinds]

    def working(self) -> list[tuple[int, AnyBlock, LaidBlock]]:
        """Blocks that people work in: all but steady ones and rests."""
        return [one for one in self._all if one[1].kind not in ("steady", "rest")]

    def lines(self) -> list[tuple[int, int, Line, Move | None]]:
        """Every move line of the working blocks: block, line among its moves, the line, its move."""
        return [(at, nth, line, self.move(line)) for at, one, _ in self.working() for nth, line in enumerate(one.moves)]

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

    def set(self, block: int, figure: str, value: float, text: str) -> tuple[Fix, ...]:
        """A fix that gives a figure another value; none where it isn't written."""
        if not self.has(block, figure):
            return ()
        return (Fix(text=text, edit=SetFigure(block=block, figure=figure, value=value)),)

    def ease(self, block: int, to: float) -> tuple[Fix, ...]:
        """A fix that asks for less effort."""
        return self.set(block, "effort", to, f"at {to:g}")

    def instead(self, block: int, move: int, name: str) -> tuple[Fix, ...]:
        """A fix that puts another move in place of one."""
        return (Fix(text=name, edit=ReplaceMove(block=block, move=move, name=name)),) if name else ()


def block_effort(block: AnyBlock) -> float | None:
    """The highest effort that a block asks for."""
    return max((effort.high for effort in block.efforts), default=None)


def effort(block: AnyBlock) -> float:
    """The highest effort that a block asks for; 0 where none is written."""
    return block_effort(block) or 0.0


def hard_s(look: Look, least: float = HARD) -> int:
    """Seconds of work at this effort and more."""
    return sum(one.seconds for one in look.timeline.intervals if one.phase == "work" and (one.effort or 0) >= least)


def hardest(look: Look) -> int:
    """The working block with the most seconds of hard work; of those alike, the one of the highest effort."""
    hard: dict[int, int] = {}
    for one in look.timeline.intervals:
        if one.phase == "work" and (one.effort or 0) >= HARD:
            hard[one.block] = hard.get(one.block, 0) + one.seconds
    return max(look.working(), key=lambda one: (hard.get(one[0], 0), effort(one[1]), one[2].work_s))[0]
