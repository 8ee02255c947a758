"""A remark on a session, and what the rules look at."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal, TypeVar

from lovrit.core.advice.company import Company
from lovrit.core.blocks.block import Block
from lovrit.core.moves.guess import stand_in
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.session.edit import IN_PLACE, apply_edit
from lovrit.core.session.edits import Ease, Edit, ReplaceMove, SetFigure
from lovrit.core.session.session import Session
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.slate.line import Line
from lovrit.core.timeline.interval import LaidBlock, Timeline
from lovrit.core.timeline.plan import Plan, plan_text

Level = Literal["stop", "weigh", "tell"]
PRACTICE = "coaches' practice"
VERY_HARD, ALL_OUT = 9.0, 9.5
# a slate with more fixes than this that must be measured is no session for one evening
MOST_MEASURED = 24


OfKind = TypeVar("OfKind", bound=Block)


@dataclass(frozen=True)
class Fix:
    """What can be pressed: its words, the edit that it makes, and how many seconds that adds to the session."""

    text: str
    edit: Edit
    adds_s: int = 0


@dataclass(frozen=True)
class WayTo:
    """Where it is decided, when not on the slate: who comes, what a move is, what must give for the clock, by a try.

    ``about`` is the move's name; ``must_s`` what the session must last at most.
    """

    to: Literal["crew", "move", "fit", "try", "weeks"]
    text: str
    about: str = ""
    must_s: int = 0


@dataclass(frozen=True)
class Note:
    """A remark. ``block`` counts from 0 and ``line`` from 1, where it has a place; ``basis`` is what it rests on.

    ``school`` names whose it is, where schools disagree. There is a fix that can be pressed, or a way to where it is
    decided, always.
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
    way: WayTo | None = None


class Look:
    """What a rule looks at: a plan, the library, and who it is for."""

    def __init__(self, plan: Plan, library: Library, company: Company | None = None) -> None:
        self.plan, self.library = plan, library
        self.company = (company or Company()).also_for(plan.session.whom)
        self._measured: dict[Fix, int] = {}

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
    def _all(self) -> list[tuple[int, Block, LaidBlock]]:
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
        fixes: tuple[Fix | WayTo, ...] = (),
        basis: str = PRACTICE,
        school: str = "",
    ) -> Note:
        """A remark at a block, at one of its move lines, or at a header; nowhere where none is named.

        A fix that would take the session past its slot is not offered; the way to make room for it is.
        """
        place = self.plan.reading.headers.get(header)
        line = self.line(at, nth) if at is not None else place.line if place else None
        edits = [one for one in fixes if isinstance(one, Fix) and self._has_place(one)]
        kept = tuple(fix for fix in edits if self._has_room(fix))
        way = next((one for one in fixes if isinstance(one, WayTo)), None)
        if edits and not kept and not way:
            way = self._room_for(min(edits, key=self._adds_s))
        return Note(
            code, level, text[:1].upper() + text[1:], reason, basis, at, line, kept, school, way
        )

    def _has_place(self, fix: Fix) -> bool:
        """Whether a fix can be written: lines that are repeated with others are changed in place only."""
        if not self.session.nests or fix.edit.do in IN_PLACE:
            return True
        at = getattr(fix.edit, "block", None)
        return at is None or self.session.nest_of(at) is None

    def _has_room(self, fix: Fix) -> bool:
        return self._spare is None or self._adds_s(fix) <= max(0, self._spare)

    def _adds_s(self, fix: Fix) -> int:
        """Seconds that a fix adds; measured on the changed slate where a block's length follows from its moves."""
        at = getattr(fix.edit, "block", None)
        of = self.timeline.blocks if at is None else self.timeline.blocks[at : at + 1]
        settled = all(laid.low_s == laid.high_s for laid in of)
        if fix.adds_s or settled or self._spare is None or not self.plan.reading.text:
            return fix.adds_s
        if fix not in self._measured and len(self._measured) < MOST_MEASURED:
            self._measured[fix] = self._measure(fix)
        return self._measured.get(fix, 0)

    def _measure(self, fix: Fix) -> int:
        try:
            text = apply_edit(self.plan.reading.text, fix.edit)
        except CannotEdit:
            return 0
        return plan_text(text, self.library).timeline.total_s - self.timeline.total_s

    @cached_property
    def _spare(self) -> int | None:
        return self.plan.sums.spare_s

    def _room_for(self, fix: Fix) -> WayTo:
        must = self.timeline.total_s + (self._spare or 0) - self._adds_s(fix)
        return WayTo("fit", f"make room for {fix.text.removeprefix('add ')}", must_s=max(60, must))

    def blocks(self) -> list[tuple[int, Block, LaidBlock]]:
        """All blocks with their places and lengths."""
        return self._all

    def of(self, kind: type[OfKind]) -> list[tuple[int, OfKind, LaidBlock]]:
        """The blocks of one kind."""
        return [(at, block, laid) for at, block, laid in self._all if isinstance(block, kind)]

    def working(self) -> list[tuple[int, Block, LaidBlock]]:
        """Blocks that people work in: all but steady ones and rests."""
        return [one for one in self._all if one[1].works]

    def lines(self) -> list[tuple[int, int, Line, Move | None]]:
        """Every move line of the working blocks: block, line among its moves, the line, its move."""
        return self._lines

    @cached_property
    def _lines(self) -> list[tuple[int, int, Line, Move | None]]:
        return [
            (at, nth, line, self.move(line))
            for at, one, _ in self.working()
            for nth, line in enumerate(one.moves)
            if not line.is_rest
        ]

    def line(self, block: int, move: int | None = None) -> int:
        """The line of a block, or of one of its moves."""
        place = self.plan.reading.blocks[block]
        return place.moves[move] if move is not None and move < len(place.moves) else place.line

    def move(self, line: Line) -> Move | None:
        """The library's move for a line: its first task's; for one that isn't known, what its name says of it."""
        name = line.tasks[0].name
        return self.library.find(name) or stand_in(name)

    def has(self, block: int, figure: str) -> bool:
        """Whether a figure stands on a block's first line."""
        return figure in self.plan.reading.blocks[block].figures

    def set(
        self, block: int, figure: str, value: float, text: str, adds_s: int = 0
    ) -> tuple[Fix, ...]:
        """A fix that gives a figure another value; none where it isn't written."""
        if not self.has(block, figure):
            return ()
        return (Fix(text, SetFigure(block=block, figure=figure, value=value), adds_s),)

    def ease(self, block: int, to: float) -> tuple[Fix, ...]:
        """A fix that asks for less effort, however the block's efforts are written."""
        return (Fix(text=f"at {to:g}", edit=Ease(block=block, most=to)),)

    def ease_all(self, to: float) -> Fix:
        """A fix that asks for no more than this anywhere."""
        return Fix(text=f"at {to:g} at most throughout", edit=Ease(block=None, most=to))

    def instead(self, block: int, move: int, name: str) -> tuple[Fix, ...]:
        """A fix that puts another move in place of one."""
        return (
            (Fix(text=name, edit=ReplaceMove(block=block, move=move, name=name)),) if name else ()
        )


def effort(block: Block) -> float:
    """The highest effort that a block asks for, also by a target of the heart; 0 where none is written."""
    return block.top_asked or 0.0


def hardest(look: Look) -> int:
    """The working block with the most seconds of hard work; of those alike, the one of the highest effort."""
    hard = look.plan.sums.hard_by_block
    return max(
        look.working() or look.blocks(),
        key=lambda one: (hard.get(one[0], 0), effort(one[1]), one[2].work_s),
    )[0]


def calmer(look: Look, below_s: int) -> tuple[Fix, ...]:
    """The hardest block eased where that leaves less hard work than this; all of them where it takes all."""
    at = hardest(look)
    left = sum(seconds for block, seconds in look.plan.sums.hard_by_block.items() if block != at)
    return look.ease(at, 7) if left < below_s else (look.ease_all(7),)
