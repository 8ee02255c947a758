"""What the Desk's panels show: a fit's form, a recast's two sides, a move's figures."""

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from lovrit.core.advice.note import Fix
from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.clock import clock, number, ratio
from lovrit.core.fit.knobs import Give
from lovrit.core.forecast.group import Group
from lovrit.core.forecast.paced import paced, paced_said
from lovrit.core.moves.figure import Drawing
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.recast.prepare import cool_down, warm_up
from lovrit.core.recast.recast import Figures, Recast
from lovrit.core.session.edits import InsertBlock
from lovrit.core.session.writer import block_lines
from lovrit.core.timeline.plan import Plan
from lovrit.core.timeline.sums import TIMES
from lovrit.web.pictures import Picture, picture, picture_of

if TYPE_CHECKING:
    from lovrit.core.forecast.crowd import Finish


@dataclass(frozen=True)
class FitForm:
    """A fit's form as it was filled in."""

    figure: str
    value: str
    come: str
    leave: str
    explain: str
    clear: str
    gives: tuple[Give | str, ...]


def now_of(plan: Plan, figure: str) -> str:
    """What a figure is now, as it would be written."""
    if figure == "ratio":
        return ratio(*plan.sums.ratio)
    if figure == "effort":
        return number(plan.sums.top_effort or 0)
    return clock(plan.sums.seconds(next((one for one in TIMES if one == figure), "total")))


@dataclass(frozen=True)
class SideRow:
    """A figure before and after."""

    name: str
    before: str
    after: str

    @property
    def same(self) -> bool:
        """Whether nothing changes in it."""
        return self.before == self.after


@dataclass(frozen=True)
class Sides:
    """A block before and after: its lines, and its figures side by side."""

    before: tuple[str, ...]
    after: tuple[str, ...]
    rows: tuple[SideRow, ...]


def sides(plan: Plan, at: int, made: Recast) -> Sides:
    """A recast beside what it was."""
    one, two = made.before, made.after
    rows = [
        SideRow("time", clock(one.total_s), clock(two.total_s)),
        SideRow("work", clock(one.work_s), clock(two.work_s)),
        SideRow("rest", clock(one.rest_s), clock(two.rest_s)),
        SideRow("work to rest", _ratio(one), _ratio(two)),
        SideRow("working", f"{one.density * 100:.0f} %", f"{two.density * 100:.0f} %"),
        SideRow("reps likely", str(one.reps), str(two.reps)),
        SideRow("hard landings", str(one.impact), str(two.impact)),
        SideRow(
            "effort",
            number(one.effort) if one.effort else "–",
            number(two.effort) if two.effort else "–",
        ),
    ]
    shown = tuple(row for row in rows if not (row.same and row.before in ("0", "–")))
    return Sides(
        tuple(block_lines(plan.session.blocks[at])), tuple(made.edit.text.split("\n")), shown
    )


def around(plan: Plan, library: Library) -> list[Fix]:
    """A warm-up and a cool-down from the session's own moves, each in the time that the slot leaves."""
    warm, cool = warm_up(plan, library), cool_down(plan, library)
    before = [Fix("a warm-up before it", InsertBlock(at=0, text=warm))] if warm else []
    end = len(plan.session.blocks)
    return before + ([Fix("a cool-down after it", InsertBlock(at=end, text=cool))] if cool else [])


def _ratio(figures: Figures) -> str:
    return ratio(figures.work_s, figures.rest_s) if figures.rest_s else "no rest"


def crowd_said(plan: Plan, at: int, group: Group) -> str:
    """In a sentence, what a block comes to for those who come; empty where there is nothing to say."""
    if not 0 <= at < len(plan.session.blocks) or len(group) < 2:
        return ""
    block = plan.session.blocks[at]
    told = paced(block, [one.paces for one in group])
    return paced_said(block, told) if told else _drawn_said(block, plan.library, group)


def _drawn_said(block: Block, library: Library, group: Group) -> str:
    from lovrit.core.forecast.crowd import (
        distance,
        finishes,
        late,
        on_foot,
        rounds_of,
    )  # NumPy, for those who ask

    over = _metres(block)
    whose = _whose(group, sum(one.pace.rests_on > 0 for one in group), "by their own scores")
    if over:
        first, middle, last = distance(*over, library, group) or (0, 0, 0)
        if on_foot(over[1], library):
            whose = _whose(
                group, sum(one.pace_100_s is not None for one in group), "at their own pace"
            )
        return f"{whose}: the first takes {clock(first)}, the middle {clock(middle)}, the last {clock(last)}."
    if isinstance(block, ForTime):
        finish = finishes(block, library, group)
        return f"{whose}: {_finish(finish)}" if finish else ""
    if isinstance(block, Amrap):
        done = rounds_of(block, library, group)
        return (
            f"{whose}: the last does {done[0]} rounds, the middle {done[1]}, the first {done[2]}."
            if done
            else ""
        )
    if isinstance(block, Every):
        worst = max(late(block, library, group), default=0)
        some = "one doesn’t" if round(worst) <= 1 else f"{round(worst)} don’t"
        return f"{whose}: about {some} make the fullest turn." if worst >= 0.5 else ""
    return ""


def _whose(group: Group, known: int, how: str) -> str:
    """Who the figures are of, and how many of them are known rather than drawn."""
    return f"Of {len(group)}, {known} {how}" if known else f"Of {len(group)}"


def _metres(block: Block) -> tuple[float, str] | None:
    """The distance of a repeat, or of a block for time, and what it is done with."""
    amount = block.amount
    if not amount or amount.unit != "m" or not amount.values:
        return None
    return amount.values[0], block.moves[0].name if block.moves else ""


def _finish(told: "Finish") -> str:
    said = f"the first ends about {clock(told.first_s)}, the middle {clock(told.middle_s)}, "
    said += f"the last {clock(told.last_s)}; the first waits {clock(told.wait_s)}"
    return said + (
        f". The cap ends about {max(1, round(told.capped))} of them." if told.capped >= 0.5 else "."
    )


@dataclass(frozen=True)
class LineMove:
    """The move of a line: what the Desk shows of it."""

    move: Move
    drawing: Picture | None
    figure: str

    def drawn_by(self, own: Drawing | None) -> "LineMove":
        """With the club's own drawing, where there is one."""
        return replace(self, drawing=picture_of(own)) if own else self


def line_move(plan: Plan, line: int, library: Library) -> LineMove | None:
    """The move that stands on a line; None where there is none, or the library doesn't know it."""
    for block, place in zip(plan.session.blocks, plan.reading.blocks, strict=True):
        if line in place.moves:
            move = library.find(block.moves[place.moves.index(line)].tasks[0].name)
            return LineMove(move, picture(move.name), figure_of(move, library)) if move else None
    return None


def figure_of(move: Move, library: Library) -> str:
    """How long it takes, and how much is done in one go."""
    if move.counted == "s":
        return f"about {move.fresh} s in one go"
    if move.counted == "m":
        return f"{number(round(library.metre_s(move.name), 2))} s a metre, about {move.fresh} m in one go"
    return f"{number(round(library.rep_s(move.name), 1))} s a rep, about {move.fresh} in one go"
