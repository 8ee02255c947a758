"""A recast: the session with one block made into something else, and both held side by side."""

from dataclasses import dataclass

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, number, ratio
from lovrit.core.moves.library import Library
from lovrit.core.recast.feels import FEELS
from lovrit.core.recast.portion import covers
from lovrit.core.recast.shapes import SHAPES, CannotRecast, Given
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import ReplaceBlock
from lovrit.core.session.writer import block_lines
from lovrit.core.slate.line import Line
from lovrit.core.timeline.interval import LaidBlock
from lovrit.core.timeline.plan import Plan, plan_text

MAKERS = {**SHAPES, **FEELS}
SAID = {
    "every": "a task a minute",
    "amrap": "as many as possible",
    "intervals": "work and rest",
    "rounds": "rounds with breaks",
    "partners": "partners alternate",
    "for-time": "for time, with a cap",
    "stay": "stay at the station",
    "together": "everybody ends together",
    "gentler": "gentler",
    "harder": "harder",
    "shorter": "shorter",
    "home": "at home, without kit",
}


MOST_LINES = 100


@dataclass(frozen=True)
class Figures:
    """What a block comes to for a usual person: seconds, reps likely, and hard landings likely.

    ``density`` is work by whole time; as many as possible counts as work throughout. ``counted`` are the moves whose
    reps these are: machines and runs are counted otherwise, and are not among them.
    """

    total_s: int
    work_s: int
    rest_s: int
    density: float
    reps: int
    impact: int
    effort: float
    counted: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Recast:
    """The session after, its edit, what changes, and why it is kinder or harder."""

    to: str
    slate: str
    edit: ReplaceBlock
    block: Block
    changes: tuple[str, ...]
    before: Figures
    after: Figures
    why: str


def recast(text: str, plan: Plan, at: int, to: str, library: Library) -> Recast:
    """The session with a block made into something else.

    Raises:
        CannotRecast: where there is no such block, or it can't be made into that.
    """
    if to not in MAKERS:
        raise CannotRecast(f"There is no “{to}”; a block can be made {', '.join(MAKERS)}.")
    if plan.problems:
        raise CannotRecast("A session has to be read whole before it can be recast.")
    if not 0 <= at < len(plan.session.blocks):
        raise CannotRecast(f"There is no block {at + 1}.")
    block, laid = plan.session.blocks[at], plan.timeline.blocks[at]
    if not block.works:
        raise CannotRecast("A steady block or a rest has nothing in it to recast.")
    if len(block.moves) > MOST_LINES:
        raise CannotRecast(
            f"A block of up to {MOST_LINES} lines is recast, and this one has {len(block.moves)}."
        )
    made = MAKERS[to](Given(block, laid, library))
    edit = ReplaceBlock(block=at, text="\n".join(block_lines(made)))
    slate = apply_edit(text, edit)
    after = plan_text(slate, library)
    if after.problems or len(after.timeline.blocks) != len(plan.timeline.blocks):
        raise CannotRecast("This block can't be made into that.")
    one, two = figures(block, laid, library), figures(made, after.timeline.blocks[at], library)
    return Recast(
        to, slate, edit, made, tuple(_changes(one, two)), one, two, _why(block, made, one, two)
    )


def offers(plan: Plan, at: int, text: str, library: Library) -> list[Recast]:
    """All that a block can be made into, but what it is already."""
    made = []
    for to in MAKERS:
        try:
            one = recast(text, plan, at, to, library)
        except CannotRecast:
            continue
        if one.block != plan.session.blocks[at]:
            made.append(one)
    return made


def figures(block: Block, laid: LaidBlock, library: Library) -> Figures:
    """What a block comes to for a usual person."""
    by_reps = {
        nth: name for nth, line in enumerate(block.moves) if (name := _by_reps(line, library))
    }
    done = {nth: block.reps_done(nth, library, laid.work_s) for nth in by_reps}
    hard = [count for nth, count in done.items() if _lands(block.moves[nth], library)]
    density = laid.work_s / laid.seconds if laid.seconds else 0.0
    effort = block.top_effort or 0.0
    reps, impact = round(sum(done.values())), round(sum(hard))
    return Figures(
        laid.seconds,
        laid.work_s,
        laid.rest_s,
        round(density, 2),
        reps,
        impact,
        effort,
        frozenset(by_reps.values()),
    )


def _by_reps(line: Line, library: Library) -> str:
    """The move whose reps a line counts; empty where it counts none, or metres, calories or seconds."""
    move = library.find(line.tasks[0].name)
    return move.name if move and move.counted == "reps" and not covers(move) else ""


def _alike(before: Figures, after: Figures) -> bool:
    """Whether reps can be compared: of the same moves, and all of them counted."""
    return bool(before.counted) and before.counted == after.counted


def _lands(line: Line, library: Library) -> bool:
    move = library.find(line.tasks[0].name)
    return bool(move and move.impact == "high")


def _changes(before: Figures, after: Figures) -> list[str]:
    said = []
    for name, one, two in (
        ("time", before.total_s, after.total_s),
        ("work", before.work_s, after.work_s),
        ("rest", before.rest_s, after.rest_s),
    ):
        if one != two:
            said.append(f"{name} {clock(one)} → {clock(two)}")
    if _alike(before, after) and before.reps != after.reps:
        said.append(f"reps likely {before.reps} → {after.reps}")
    if before.density != after.density:
        said.append(f"working {100 * before.density:.0f} → {100 * after.density:.0f} % of the time")
    if before.effort != after.effort:
        said.append(f"effort {number(before.effort)} → {number(after.effort)}")
    if before.impact != after.impact:
        said.append(f"hard landings {before.impact} → {after.impact}")
    return said


def _why(old: Block, new: Block, before: Figures, after: Figures) -> str:
    """In a sentence, why it is kinder or harder."""
    kinder, tougher = _kinder(before, after), _tougher(before, after)
    tail = " Everybody keeps to one clock." if _together(new) and not _together(old) else ""
    if kinder and tougher:
        return f"Kinder by {', '.join(kinder)}; harder by {', '.join(tougher)}.{tail}"
    if kinder:
        return f"Kinder: {', '.join(kinder)}.{tail}"
    if tougher:
        return f"Harder: {', '.join(tougher)}.{tail}"
    return f"About the same work in another shape.{tail}"


def _kinder(before: Figures, after: Figures) -> list[str]:
    said = (
        [f"effort {number(after.effort)} instead of {number(before.effort)}"]
        if after.effort < before.effort
        else []
    )
    if _alike(before, after) and after.reps < before.reps * 0.95:
        said.append(f"{100 - after.reps * 100 / before.reps:.0f} % fewer reps")
    if after.density < before.density - 0.04:
        rest = f"{clock(after.rest_s)} of rest, {ratio(after.work_s, after.rest_s)}"
        said.append(rest if after.rest_s else "less of it is work")
    return said + (["fewer hard landings"] if after.impact < before.impact else [])


def _tougher(before: Figures, after: Figures) -> list[str]:
    said = (
        [f"effort {number(after.effort)} instead of {number(before.effort)}"]
        if after.effort > before.effort
        else []
    )
    if _alike(before, after) and after.reps > before.reps * 1.05 and before.reps:
        said.append(f"{after.reps * 100 / before.reps - 100:.0f} % more reps")
    if after.density > before.density + 0.04:
        said.append("less of it is rest")
    return said + (["more hard landings"] if after.impact > before.impact else [])


def _together(block: Block) -> bool:
    return block.ends_together and not block.races and not block.lifts
