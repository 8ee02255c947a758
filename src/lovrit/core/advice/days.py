"""The rule about the days around: what they left that this session wants fresh, and what it leaves for them.

The same measure as on the weeks' board: what is carried, by the quality of the work (asked/clashing).
"""

from collections.abc import Iterator
from datetime import datetime, timedelta
from itertools import islice

from lovrit.core.advice.company import Day
from lovrit.core.advice.note import Fix, Look, Note, WayTo, hardest
from lovrit.core.asked.carried import Planned
from lovrit.core.asked.clashing import DayClash, clashes, real
from lovrit.core.asked.dose import Asks, asks
from lovrit.core.moves.move import Move, Use
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import ReplaceLine
from lovrit.core.session.session import USUAL_BEGINS
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.plan import plan_text

THIS, DAY = (
    "this session",
    datetime.fromisoformat("2001-01-01"),
)  # any day: only what lies between counts
CALMER = (
    6.5,
    5.0,
)  # efforts that are tried, the most that is enough: each is a session read and weighed anew


def _when(day: Day) -> str:
    days = {
        -2: "the day before yesterday",
        -1: "yesterday",
        0: "the same day",
        1: "tomorrow",
        2: "in two days",
        3: "in three days",
        -3: "three days ago",
    }
    return days.get(day.in_days, f"in {day.in_days} days")


def clash_of_days(look: Look) -> Iterator[Note]:
    """What is carried from the days before, or would be into those after; the worst of it."""
    if not look.company.days:
        return
    clash = _worst(look, asks(look.plan))
    if clash is None:
        return
    said = clash.because.replace("{since}", clash.since)
    yield look.note(
        code="days-clash",
        level="weigh",
        text=f"{clash.session[0].upper()}{clash.session[1:]} {said}.",
        reason="Two days that ask the same of a tired body are one hard day and one poor one.",
        basis="what is carried halves by the kind of work: ours; soreness after lowering (Cheung and others 2003)",
        at=hardest(look),
        fixes=_enough(look) or (WayTo("weeks", "see what helps"),),
    )


def _worst(look: Look, mine: Asks) -> DayClash | None:
    """The worst clash that this session has part in."""
    slot = look.session.slot
    begins = (slot.begins if slot else None) or USUAL_BEGINS
    here = Planned(id=THIS, at=datetime.combine(DAY, begins), asks=mine)
    around = [
        Planned(
            id=f"“{day.title}” {_when(day)}",
            at=datetime.combine(DAY + timedelta(days=day.in_days), day.begins),
            asks=day.asks,
        )
        for day in look.company.days
    ]
    found = [
        one
        for one in real(clashes([here, *around], [], look.company.clash))
        if THIS in (one.session, one.since)
    ]
    return max(found, key=lambda one: one.price, default=None)


def _enough(look: Look) -> tuple[Fix, ...]:
    """The first change after which nothing clashes any more: what leaves sore done otherwise, or all of it calmer."""
    sore = islice(_not_sore(look), 1)
    for fix in (*sore, *(look.ease_all(most) for most in CALMER)):
        try:
            text = apply_edit(look.plan.reading.text, fix.edit)
        except CannotEdit:
            continue
        after = plan_text(text, look.library)
        if not after.problems and _worst(look, asks(after)) is None:
            return (fix,)
    return ()


def _leaves_sore(move: Move) -> bool:
    """Legs that land, or lower the body step by step."""
    return (
        move.impact == "high" and move.pattern in ("squat", "lunge", "jump")
    ) or "lowered" in move.uses


def _not_sore(look: Look) -> Iterator[Fix]:
    """Each line that leaves people sore, done at its usual speed or with a gentler move."""
    for at, nth, line, move in look.lines():
        if any((task.rep_s or 0) >= 4 for task in line.tasks):
            usual = Line(tasks=tuple(task.but(slow_s=None, tempo=()) for task in line.tasks))
            edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(usual)}")
            yield Fix("at usual speed", edit)
        elif move and _leaves_sore(move):
            lunge = move.pattern == "lunge"
            use: Use = "instead of a lunge" if lunge else "whole-body"
            gentler = look.library.serving(use, "lunge" if lunge else "squat")[0].name
            yield from look.instead(at, nth, gentler)
