"""Rules about the course of a session: warm before hard, skill before tired, easy at the end."""

from collections.abc import Iterator

from lovrit.core.advice.note import VERY_HARD, Fix, Look, Note, effort
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.sets import Sets
from lovrit.core.blocks.steady import Steady
from lovrit.core.blocks.strength import Strength
from lovrit.core.clock import clock
from lovrit.core.heart.body import Body, beats, settled, step
from lovrit.core.heart.demand import demand
from lovrit.core.moves.names import key_of
from lovrit.core.recast.prepare import cool_down, warm_up
from lovrit.core.session.edits import AddOption, BlockEdit, InsertBlock, ReplaceBlock, SetFigure
from lovrit.core.session.writer import block_lines
from lovrit.core.slate.line import Line
from lovrit.core.timeline.sums import HARD

WARM_S = 300
LIGHT_REPS = 10
BRISK = 6.0  # effort of a run that is quicker than a jog; ours
LONG_HARD_S = 600  # of hard work, also where none of it is very hard: legs and grip are not fresh after it; ours
OPEN_WARM_S = 600  # a warm-up of this length that says nothing of itself may well get up to speed


def no_warm_up(look: Look) -> Iterator[Note]:
    """Hard work wants five easy minutes before it, unless people come warm by this club's custom."""
    if look.company.schools.warm_up == "own":
        return
    easy = 0
    for at, block, laid in look.blocks():
        asked = block.top_effort
        if not block.works and not block.is_pause and (asked is None or asked <= 5):
            easy += laid.seconds
            continue
        if laid.work_s and (asked is None or asked >= 7) and easy < WARM_S:
            yield _cold(look, at, easy)
            return
        if laid.work_s:
            easy += laid.seconds


def _cold(look: Look, at: int, easy: int) -> Note:
    steady = next(
        (nth for nth, block, _ in look.of(Steady) if nth < at and look.has(nth, "total")), None
    )
    if steady is None:
        fix = Fix("warm-up 6:00", InsertBlock(at=0, text="warm-up 6:00 at 3"), adds_s=360)
        text = "No warm-up before the first hard block."
    else:
        now = look.timeline.blocks[steady].seconds
        fix = Fix(
            "warm-up 6:00", SetFigure(block=steady, figure="total", value=360), adds_s=360 - now
        )
        text = f"Only {clock(easy)} of easy work before the first hard block."
    return look.note(
        code="no-warm-up" if steady is None else "short-warm-up",
        level="weigh",
        text=text,
        reason="Cold muscle and a cold heart are where hard intervals go wrong.",
        at=at,
        fixes=(*_own_warm_up(look, steady), fix),
    )


def _own_warm_up(look: Look, steady: int | None) -> tuple[Fix, ...]:
    """A warm-up from the session's own moves, where there is time for one that is long enough."""
    text = warm_up(look.plan, look.library) if steady is None else None
    if not text or "for quality" not in text:
        return ()
    return (Fix(text="from its own moves", edit=InsertBlock(at=0, text=text)),)


def no_cool_down(look: Look) -> Iterator[Note]:
    """A hard session that ends on its hardest minute."""
    blocks = look.blocks()
    if not blocks:
        return
    at, block, laid = blocks[-1]
    hard = effort(block) >= HARD
    if hard and laid.work_s >= 60:
        end = len(look.session.blocks)
        yield look.note(
            code="no-cool-down",
            level="tell",
            text="It ends on hard work; a few easy minutes let the heart come down on the floor.",
            at=at,
            fixes=(_easy_end(look, end),),
        )


def _easy_end(look: Look, end: int) -> Fix:
    """A cool-down from the session's own moves, in the time that there is; three minutes where there is none."""
    own = cool_down(look.plan, look.library)
    edit = InsertBlock(at=end, text=own or "cool-down 3:00 at 2")
    return Fix("add a cool-down", edit, adds_s=0 if own else 180)


def first_interval_cold(look: Look) -> Iterator[Note]:
    """Long hard intervals that begin without a stretch of the rest's effort."""
    for at, block, laid in look.of(Intervals):
        steered = block.heart is not None and laid.work_s and not block.lead_in_s
        if steered and (at == 0 or look.session.blocks[at - 1].is_pause):
            yield look.note(
                code="no-lead-in",
                level="tell",
                text="The first interval will stay under its heart target; a lead-in takes the edge off.",
                at=at,
                fixes=(Fix("lead-in 1:00", AddOption(block=at, text="lead-in 1:00"), adds_s=60),),
            )


def hard_not_last(look: Look) -> Iterator[Note]:
    """Very hard intervals before other work, where this club puts them last."""
    if look.company.schools.hard != "last":
        return
    working = look.working()
    hard = [
        one
        for one in working
        if isinstance(one[1], Intervals | Sets) and effort(one[1]) >= VERY_HARD
    ]
    if not hard:
        return
    at, last = hard[0][0], working[-1][0]
    after = [one for one in working if one[0] > at and effort(one[1]) < VERY_HARD]
    if not after:
        return
    yield look.note(
        code="hard-not-last",
        level="tell",
        text=f"{hard[0][2].label}, very hard, comes before {after[0][2].label}.",
        reason="Skill and strength before hard intervals, hard intervals last. Others put them anywhere.",
        school="hard intervals last",
        at=at,
        fixes=(Fix(text="hardest block last", edit=BlockEdit(what="move", block=at, to=last)),),
    )


def skill_after_hard(look: Look) -> Iterator[Note]:
    """Heavy or skilled work after people have been made tired."""
    hard, hard_s = look.plan.sums.hard_by_block, 0
    tired: list[int] = []  # what made them so
    for at, block, laid in look.blocks():
        skilled = next((nth for nth, line in enumerate(block.moves) if _skilled(look, line)), None)
        heavy = block.lifts and not _is_light(block)
        if tired and block.works and (skilled is not None or heavy):
            name = block.moves[skilled].name if skilled is not None else laid.label
            yield look.note(
                code="skill-after-hard",
                level="weigh",
                text=f"{name} after hard intervals: form goes first when people are tired.",
                reason="Form before load, and skill while fresh.",
                at=at,
                nth=skilled,
                fixes=(
                    Fix(
                        text="this block first", edit=BlockEdit(what="move", block=at, to=tired[0])
                    ),
                ),
            )
            return
        hard_s += hard.get(at, 0)
        tires = block.works and (effort(block) >= VERY_HARD or block.races)
        tired += [at] if tires or (hard.get(at, 0) and hard_s >= LONG_HARD_S) else []


def _is_light(block: Block) -> bool:
    """Whether sets are of so many reps that no load of them is heavy."""
    return isinstance(block, Strength) and block.reps.low >= LIGHT_REPS


def _skilled(look: Look, line: Line) -> bool:
    move = look.move(line)
    return bool(move and move.skill)


def sprint_from_cold(look: Look) -> Iterator[Note]:
    """Sprints before which nobody has run at more than a jog."""
    ready, easy_s = False, 0
    for at, block, laid in look.blocks():
        easy_s += laid.seconds if not block.works and not block.moves else 0
        moves = [look.library.find(task.name) for line in block.moves for task in line.tasks]
        sprints = any(move and key_of(move.name).endswith("sprint") for move in moves)
        if sprints and not ready and (block.top_effort is None or block.top_effort >= VERY_HARD):
            text = "3 x 60 m, rest 1:00, at 6\n  build-up run"
            yield look.note(
                code="sprint-from-cold",
                level="tell" if easy_s >= OPEN_WARM_S else "weigh",
                text="Sprints, and the warm-up does not say that anybody has run fast before them."
                if easy_s >= OPEN_WARM_S
                else "Sprints, and nobody has run faster than a jog before them.",
                reason="Hamstrings tear in the first sprint: three build-ups, each a little quicker.",
                at=at,
                fixes=(Fix("build-ups before", InsertBlock(at=at, text=text), adds_s=240),),
            )
            return
        quick = (block.top_effort or 0.0) >= BRISK and any(
            move and move.pattern == "gait" for move in moves
        )
        ready = ready or sprints or quick or any(move and "build-up" in move.uses for move in moves)


def heart_nobody_holds(look: Look) -> Iterator[Note]:
    """A heart target above what anybody holds for as long as the work lasts."""
    for at, block, _ in look.working():
        longest = max(
            (one.seconds for one in look.timeline.of_block(at) if one.phase == "work"), default=0
        )
        target = block.heart
        if not target or longest < HELD_S or target.low < TOP_HEART.get(target.of, 999):
            continue
        eased = block.but(heart=target.but(**EASED_HEART[target.of]))
        edit = ReplaceBlock(block=at, text="\n".join(block_lines(eased)))
        yield look.note(
            code="heart-nobody-holds",
            level="weigh",
            text=f"heart {target} for {clock(longest)}: that is the very top, and nobody stays there.",
            reason="Over two minutes 85 to 92 % of the highest is hard enough for anybody.",
            at=at,
            fixes=(Fix(f"heart {eased.heart}", edit),),
        )


def gate_not_reached(look: Look) -> Iterator[Note]:
    """A rest that ends when the heart is down, where it will not be by the clock's limit."""
    for at, block, _ in look.blocks():
        for pair in block.pairs:
            until, most = pair.rest.until_bpm, getattr(block, "most_s", None)
            if until is None or most is None or _down(effort(block) or USUAL_EFFORT, most) <= until:
                continue
            here = round(_down(effort(block) or USUAL_EFFORT, most) / 5) * 5
            lines = "\n".join(block_lines(block)).replace(f"until {until}", f"until {here + 5}", 1)
            yield look.note(
                code="gate-not-reached",
                level="weigh",
                text=f"Until {until}: after {clock(most)} most hearts are still about {here}.",
                reason="Then every rest runs to its limit, and the gate is none.",
                basis="the heart model of docs/forecasts.md; fitter people come down quicker",
                at=at,
                fixes=(Fix(f"until {here + 5}", ReplaceBlock(block=at, text=lines)),),
            )
            return


def _down(asked: float, seconds: int) -> float:
    """Beats a minute of a usual heart so long after a work at an effort."""
    body = Body(rest=62, highest=186)
    return beats(body, step(body, settled(demand(asked)), demand(1), seconds))


HELD_S, USUAL_EFFORT = 120, 7.0
TOP_HEART: dict[str, float] = {"max": 95, "reserve": 95, "bpm": 190}
EASED_HEART: dict[str, dict[str, float]] = {
    "max": {"low": 85, "high": 90},
    "reserve": {"low": 78, "high": 85},
    "bpm": {"low": 160, "high": 170},
}
