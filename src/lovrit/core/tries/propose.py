"""What a try proposes for its group: fewer reps, a number for "max", fewer lines, another structure, levels, effort.

Each proposal is an edit that can be pressed, with what it rests on. What was not understood proposes nothing; pain and
faintness propose nothing but that it stays out of the class.
"""

from collections.abc import Callable, Iterator
from math import exp, floor
from typing import Literal, NamedTuple

from lovrit.core.blocks.amrap import Amrap
from lovrit.core.blocks.every import Every
from lovrit.core.blocks.for_time import ForTime
from lovrit.core.blocks.strength import Strength
from lovrit.core.blocks.worktime import SPREAD, line_s
from lovrit.core.clock import clock, number
from lovrit.core.moves.names import key_of
from lovrit.core.recast.recast import recast
from lovrit.core.recast.shapes import CannotRecast
from lovrit.core.session.edit import apply_edit
from lovrit.core.session.edits import (
    BlockEdit,
    Ease,
    Edit,
    MoveOption,
    ReplaceBlock,
    ReplaceLine,
    SetAmount,
    SetFigure,
)
from lovrit.core.session.slatetext import CannotEdit
from lovrit.core.session.writer import block_lines
from lovrit.core.slate.line import Amount
from lovrit.core.slate.written import move_line
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.tries.said import Broke, read_broke
from lovrit.core.tries.seen import Seen, Told, line_of, most_asked, named, reps_asked

What = Literal[
    "reps", "number", "fewer-lines", "structure", "levels", "effort", "rest", "not-for-class"
]
USUAL_SLOWER = exp(0.6745 * SPREAD)  # how long one in four takes at least where the middle takes 1
AGAIN, FORM_ROOM = (
    0.28,
    0.6,
)  # of what is done fresh, round after round; of the reps at which shape or grip went
TASK_S, LEAST_REST_S = 45, 15  # a task a minute leaves a quarter of it
TOO_MUCH, LEAST_EFFORT = 2.0, 4.0
WANTED_ROUNDS, FEWEST_LINES = 2.0, 2
CALMER = ("every", "intervals", "partners")


class Proposal(NamedTuple):
    """What could be changed: its button's words, why, and the edit; None where the whole session is to stay out."""

    what: What
    said: str
    why: str
    edit: Edit | None


def proposals(
    plan: Plan, at: int, told: Told, slower: float = USUAL_SLOWER
) -> tuple[Proposal, ...]:
    """What a try of the block ``at`` proposes for its group, the most certain first.

    ``slower`` is how long the slowest of three in four take where the tester takes 1.
    """
    if plan.problems or not 0 <= at < len(plan.session.blocks) or not plan.session.blocks[at].works:
        return ()
    seen = Seen(plan, at, told, tuple(read_broke(one) for one in told.broke), slower)
    if seen.says("hurts", "faint"):
        return (_out(seen),)
    found = [one for way in WAYS for one in way(seen)]
    return tuple(one for one in found if _can(plan, one))


def not_understood(told: Told) -> tuple[str, ...]:
    """The words of a coach of which nothing is understood: they are asked about, not guessed at."""
    return tuple(one for one in told.broke if one.strip() and not read_broke(one).kinds)


def _can(plan: Plan, one: Proposal) -> bool:
    if one.edit is None:
        return True
    try:
        after = apply_edit(plan.reading.text, one.edit)
    except CannotEdit:
        return False
    return after != plan.reading.text and not plan_text(after, plan.library).problems


def _out(seen: Seen) -> Proposal:
    said = seen.worded("hurts", "faint")
    why = f"“{said}”: whoever felt it stops, and asks a doctor where it comes again. Nobody else finds out in a class."
    if len(seen.plan.session.blocks) < 2:
        return Proposal("not-for-class", "not for class: put this session away", why, None)
    edit = BlockEdit(what="remove", block=seen.at)
    return Proposal("not-for-class", "not for class: take this block out", why, edit)


def _for_class(seen: Seen, tester: float) -> int:
    """Reps in one go of three in four of the group, where the tester does so many."""
    return max(1, round(tester / seen.slower))


def _fewer_reps(seen: Seen) -> Iterator[Proposal]:
    for text, one in zip(seen.told.broke, seen.broke, strict=True):
        if "sets" not in one.kinds or one.few is None:
            continue
        few = _for_class(seen, one.few)
        why = f"“{text}”: three of four here do about {few} in one go by then."
        if isinstance(seen.block, Strength):
            yield from _sets_of(seen, one, few, why)
            return
        nth = line_of(seen, text, one.many)
        if nth is not None and few < (reps_asked(seen.block.moves[nth]) or 0):
            yield _amount(seen, nth, few, why)
            return


def _amount(seen: Seen, nth: int, few: int, why: str) -> Proposal:
    line = seen.block.moves[nth]
    asked = reps_asked(line) or 0
    return Proposal(
        "reps",
        f"{few} {line.tasks[0].name} instead of {number(asked)}",
        why,
        SetAmount(block=seen.at, move=nth, value=few),
    )


def _sets_of(seen: Seen, one: Broke, few: int, why: str) -> Iterator[Proposal]:
    block = seen.block
    if (
        isinstance(block, Strength)
        and block.reps
        and few < block.reps.high
        and one.many in (None, block.reps.high)
    ):
        text = "\n".join(block_lines(block.but(reps=block.reps.but(low=few, high=few))))
        yield Proposal(
            "reps",
            f"sets of {few} instead of {block.reps.high}",
            why,
            ReplaceBlock(block=seen.at, text=text),
        )


def _shape_went(seen: Seen) -> Iterator[Proposal]:
    """Form or grip went: fewer reps of the line that is named, or of the one that asks most of it."""
    if seen.says("sets") or not seen.says("form", "grip"):
        return
    text = seen.worded("form", "grip")
    gripping = read_broke(text).kinds == {"grip"}
    nth = named(seen, text)
    if nth is None:
        nth = most_asked(seen, gripping=gripping)
    asked = reps_asked(seen.block.moves[nth]) if nth is not None else None
    if nth is None or not asked:
        return
    few = max(1, round(asked * FORM_ROOM))
    if few < asked:
        what = "grip" if gripping else "shape"
        yield _amount(seen, nth, few, f"“{text}”: fewer in one go, so that the {what} lasts.")


def _in_time(seen: Seen) -> Iterator[Proposal]:
    """A task that did not fit its minute: as many as three of four do in three quarters of it."""
    block = seen.block
    if not seen.says("late") or not isinstance(block, Every):
        return
    text = seen.worded("late")
    nth = named(seen, text)
    if nth is None:
        times = {
            at: line_s(line, seen.plan.library) or 0.0
            for at, line in enumerate(block.moves)
            if reps_asked(line)
        }
        nth = max(times, key=lambda at: times[at], default=None)
    asked = reps_asked(block.moves[nth]) if nth is not None else None
    if nth is None or not asked:
        return
    few = max(1, floor(asked * TASK_S / 60 / seen.slower))
    if few < asked:
        yield _amount(
            seen, nth, few, f"“{text}”: three of four do {few} in three quarters of the turn."
        )


def _number(seen: Seen) -> Iterator[Proposal]:
    """A number where "max" stands: what can be done round after round, or what was left of it."""
    if not seen.says("sets", "form", "grip", "breath"):
        return
    said = seen.worded("sets", "form", "grip", "breath")
    for nth, line in enumerate(seen.block.moves):
        task = line.tasks[0]
        if task.amount is None or task.amount.form != "max" or task.amount.unit != "reps":
            continue
        move = seen.plan.library.find(task.name)
        few = max((one.few or 0 for one in seen.broke), default=0)
        value = max(few, _for_class(seen, AGAIN * move.fresh)) if move else few
        if not value:
            continue
        told = line.but(tasks=(task.but(amount=Amount(values=(float(value),))), *line.tasks[1:]))
        place = seen.plan.reading.blocks[seen.at].moves[nth]
        edit = ReplaceLine(line=place, text=f"  {move_line(told)}")
        yield Proposal(
            "number",
            f"{value} {task.name} instead of max",
            f"“{said}”: a number that all can keep.",
            edit,
        )
        return


def _fewer_lines(seen: Seen) -> Iterator[Proposal]:
    """Same time, fewer lines: where the try came to less than two rounds of many lines."""
    block = seen.block
    done = _rounds_done(seen)
    if done is None or not isinstance(block, Amrap) or block.ladder or seen.says("breath"):
        return
    lines = list(block.moves)
    if done >= 1 or len(lines) <= FEWEST_LINES or any(line.opens_part for line in lines):
        return
    times = [line_s(line, seen.plan.library) or 1.0 for line in lines]
    while (
        len(lines) > FEWEST_LINES
        and done / seen.slower * sum(times) / sum(times[: len(lines)]) < WANTED_ROUNDS
    ):
        lines.pop()
    out = [line.tasks[0].name for line in block.moves[len(lines) :]]
    if out:
        text = "\n".join(block_lines(block.but(moves=tuple(lines))))
        why = f"{seen.told.score} in {clock(block.total_s)}: a round is too long to come back to."
        yield Proposal(
            "fewer-lines",
            f"the same time without {', '.join(out)}",
            why,
            ReplaceBlock(block=seen.at, text=text),
        )


def _rounds_done(seen: Seen) -> float | None:
    """Rounds of a try, with the share of the next; None where the score says none."""
    whole, plus, reps = seen.told.score.partition("+")
    a_round = sum(reps_asked(line) or 0 for line in seen.block.moves)
    if not plus or not whole.strip().isdecimal() or not reps.strip().isdecimal() or not a_round:
        return None
    return int(whole) + min(1.0, int(reps) / a_round)


def _structure(seen: Seen) -> Iterator[Proposal]:
    """Out of breath in a block without rest: the same moves with rest of their own."""
    if not seen.says("breath") or not isinstance(seen.block, Amrap | ForTime):
        return
    for to in CALMER:
        try:
            made = recast(seen.plan.reading.text, seen.plan, seen.at, to, seen.plan.library)
        except CannotRecast:
            continue
        if made.after.density < made.before.density:
            why = f"“{seen.worded('breath')}”. {made.why}"
            yield Proposal("structure", f"as {block_lines(made.block)[0]}", why, made.edit)
            return


def _rest(seen: Seen) -> Iterator[Proposal]:
    """Twice the rest where it was too short, a quarter of a minute at the least."""
    figures = seen.plan.reading.blocks[seen.at].figures
    if (
        not seen.says("late", "breath")
        or "rest" not in figures
        or isinstance(seen.block, Every | Amrap | ForTime)
    ):
        return
    rest = figures["rest"].value
    longer = max(LEAST_REST_S, 5 * round(2 * rest / 5))
    if longer > rest:
        edit = SetFigure(block=seen.at, figure="rest", value=longer)
        yield Proposal(
            "rest",
            f"rest {clock(round(longer))} instead of {clock(round(rest))}",
            f"“{seen.worded('late', 'breath')}”",
            edit,
        )


def _levels(seen: Seen) -> Iterator[Proposal]:
    """An easier way beside the move that was not to be done, for those who will not either."""
    if not seen.says("skill", "kit"):
        return
    text = seen.worded("skill", "kit")
    meant = named(seen, text)
    tried = [meant] if meant is not None else range(len(seen.block.moves))
    for nth in tried:
        task = seen.block.moves[nth].tasks[0]
        move = seen.plan.library.find(task.name)
        way = next(
            (one for one in (move.easier if move else ()) if one not in _ways(task.easier)), ""
        )
        if move and way and (meant is not None or _fits(move.kit, text)):
            edit = MoveOption(block=seen.at, move=nth, text=f"easier {move.name} {way}")
            yield Proposal(
                "levels", f"{way}, for those who will not do {move.name}", f"“{text}”", edit
            )
            return


def _ways(ways: tuple[object, ...]) -> set[str]:
    return {str(getattr(one, "name", "")) for one in ways}


def _fits(kit: tuple[str, ...], text: str) -> bool:
    """Whether what was said is of the kit of a move: "box too high" of a box jump."""
    words = set(key_of(text).split())
    return not kit or any(set(key_of(one).split()) & words for one in kit)


def _less_effort(seen: Seen) -> Iterator[Proposal]:
    asked, felt = seen.block.top_effort, seen.told.felt
    if asked is None or felt is None or felt - asked < TOO_MUCH:
        return
    to = max(LEAST_EFFORT, asked - floor(felt - asked))
    why = f"Felt as {number(felt)} where {number(asked)} was asked."
    yield Proposal(
        "effort", f"at {number(to)} instead of {number(asked)}", why, Ease(block=seen.at, most=to)
    )


WAYS: tuple[Callable[[Seen], Iterator[Proposal]], ...] = (
    _fewer_reps, _shape_went, _in_time, _number, _fewer_lines, _structure, _rest, _levels, _less_effort,
)  # fmt: skip
