"""Rules about the days around: what the next ones ask, and what the last ones left."""

from collections.abc import Iterator

from lovrit.core.advice.company import Day
from lovrit.core.advice.note import Fix, Look, Note, calmer, effort, hardest
from lovrit.core.moves.move import STRENGTH, Move, Use
from lovrit.core.session.edits import ReplaceLine
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.sums import HARD

MUCH_S, SOME_S = 15 * 60, 8 * 60


def _when(day: Day) -> str:
    days = {
        -2: "the day before yesterday",
        -1: "yesterday",
        0: "the same day",
        1: "tomorrow",
        2: "in two days",
    }
    return days.get(day.in_days, f"in {day.in_days} days")


def hard_on_hard(look: Look) -> Iterator[Note]:
    """Much hard work next to another hard day."""
    if not look.company.days:
        return
    hard = look.plan.sums.hard_s
    for day in look.company.days:
        if abs(day.in_days) <= 1 and hard >= SOME_S and day.hard_s >= SOME_S:
            at = hardest(look)
            yield look.note(
                code="hard-on-hard",
                level="weigh",
                text=f"Hard here, and “{day.title}” {_when(day)} is hard too.",
                reason="Two hard days side by side are one hard day and one tired one.",
                at=at,
                fixes=calmer(look, SOME_S),
            )
            return


def same_pattern_again(look: Look) -> Iterator[Note]:
    """The same large pattern worked hard today and on the day beside it."""
    if not look.company.days:
        return
    here = {
        move.pattern
        for at, _, _, move in look.lines()
        if move and effort(look.session.blocks[at]) >= HARD
    }
    for day in look.company.days:
        both = sorted(here & day.patterns & (STRENGTH - {"carry"}))
        if abs(day.in_days) == 1 and both and look.plan.sums.hard_s < SOME_S:
            yield look.note(
                code="same-pattern-again",
                level="tell",
                text=f"{both[0]} worked hard here and {_when(day)} in “{day.title}”.",
                reason="A day between lets it come back; or make one of the two easy.",
                fixes=(look.ease_all(7),),
            )
            return


def _leaves_sore(move: Move) -> bool:
    """Legs that land, or lower the body step by step."""
    return (
        move.impact == "high" and move.pattern in ("squat", "lunge", "jump")
    ) or "lowered" in move.uses


def sore_before(look: Look) -> Iterator[Note]:
    """Slow lowering and many lunges or jumps shortly before a hard day."""
    ahead = next(
        (day for day in look.company.days if 1 <= day.in_days <= 2 and day.hard_s >= SOME_S), None
    )
    if not ahead:
        return
    for at, nth, line, move in look.lines():
        slow = any((task.rep_s or 0) >= 4 for task in line.tasks)
        if slow or (move and _leaves_sore(move)):
            lunge = move is not None and move.pattern == "lunge"
            use: Use = "instead of a lunge" if lunge else "whole-body"
            gentler = look.library.serving(use, "lunge" if lunge else "squat")[0].name
            yield look.note(
                code="sore-before",
                level="weigh",
                text=f"{line.tasks[0].name} leaves sore legs, and “{ahead.title}” {_when(ahead)} is hard.",
                reason="Lowering slowly and landing make people sore for two or three days.",
                basis="soreness after lowering work peaks at one to three days (Cheung, Hume and Maxwell 2003)",
                at=at,
                nth=nth,
                fixes=_not_slow(look, at, nth, line) if slow else look.instead(at, nth, gentler),
            )
            return


def _not_slow(look: Look, at: int, nth: int, line: Line) -> tuple[Fix, ...]:
    usual = Line(tasks=tuple(task.but(slow_s=None, tempo=()) for task in line.tasks))
    return (
        Fix(
            text="at usual speed",
            edit=ReplaceLine(line=look.line(at, nth), text=f"  {move_line(usual)}"),
        ),
    )
