"""Rules about who comes: those who are new, back, older or young, and what some don't do now."""

from collections.abc import Iterator
from math import ceil, floor

from lovrit.core.advice.load import heavy_lines, lighter
from lovrit.core.advice.note import (
    ALL_OUT,
    VERY_HARD,
    Fix,
    Look,
    Note,
    WayTo,
    calmer,
    effort,
    hardest,
)
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.build import Build
from lovrit.core.clock import clock
from lovrit.core.crew.dose import MOST_S
from lovrit.core.crew.person import Limit
from lovrit.core.forecast.paced import pace_name
from lovrit.core.moves.move import Move, Use
from lovrit.core.recast.round import way_round
from lovrit.core.session.edits import AddOption, MoveOption, ReplaceBlock, ReplaceMove
from lovrit.core.slate.line import Line

# per cent of one's best (Lloyd and others 2014, where the technique is sure)
HEAVY_FOR_CHILDREN = 80.0
LONG_RUN_S, RUN_WALK_S = 30 * 60, 180  # of who is new, on end; two minutes' run and one of walking
LONG_EFFORT, LONG_S = 6.5, 20 * 60  # of children, at a stretch
BOUNCE_S = 1.0  # what is done once a second or quicker is a small bounce: children land so all day
NEW_HARD_S, WEEKS = 2 * 60, 5
LIMITS: dict[Limit, str] = {
    "overhead": "go overhead",
    "jumps": "jump",
    "depth": "go deep",
    "floor": "go down to the floor",
}
INSTEAD: dict[Limit, Use] = {
    "overhead": "no overhead",
    "jumps": "no jumps",
    "depth": "no depth",
    "floor": "no floor",
}


def _are(count: int) -> str:
    return "one person is" if count == 1 else f"{count} people are"


def pace_of_nobody(look: Look) -> Iterator[Note]:
    """A numbered pace, and people who come without one of their own."""
    for at, block, _ in look.blocks():
        if not block.pace or block.efforts or not look.company.people:
            continue
        numbers = range(ceil(block.pace.low), floor(block.pace.high) + 1)
        have = max((look.company.paces.get(number, 0) for number in numbers), default=0)
        if have < look.company.people:
            without = look.company.people - have
            yield look.note(
                code="pace-of-nobody",
                level="tell",
                text=f"Pace {pace_name(block.pace)}: {without} of {look.company.people} have none of their own.",
                reason="Who has no pace goes by effort; write one beside it, or say the paces under Who.",
                at=at,
                fixes=(
                    Fix("at 7 as well", AddOption(block=at, text="at 7")),
                    WayTo("crew", "say their paces"),
                ),
            )


def all_out_for_new(look: Look) -> Iterator[Note]:
    """All-out is never asked of someone new, or back after a break or illness."""
    count = look.company.new + look.company.back
    for at, block, laid in look.working():
        if count and laid.work_s and effort(block) >= ALL_OUT:
            yield look.note(
                code="all-out-for-new",
                level="weigh",
                text=f"All-out, and {_are(count)} new or just back: not for them.",
                reason="Give them a number instead, 8 at most, or lower the block for all.",
                at=at,
                fixes=look.ease(at, 8),
            )


def beginners_dose(look: Look) -> Iterator[Note]:
    """Beginners long and moderate, or short and hard: what this club holds, against what is written."""
    company, hard = look.company, look.plan.sums.hard_s
    if (
        not company.new
        or not hard
        or (company.new_weeks or 0) >= WEEKS
        or company.schools.beginners == "both"
    ):
        return
    long = company.schools.beginners == "long"
    if not long and hard <= NEW_HARD_S:
        return
    at = hardest(look)
    text = f"{clock(hard)} of hard work, and {_are(company.new)} in the first weeks."
    wanted = "two to three minutes at 7 instead" if long else "two minutes of hard work in all"
    yield look.note(
        code="beginners-dose",
        level="weigh",
        text=text,
        reason=f"This club begins with {wanted}; others do it the other way round.",
        school="beginners " + ("long and moderate" if long else "short and hard"),
        at=at,
        fixes=calmer(look, 1 if long else NEW_HARD_S + 1),
    )


def long_run_for_new(look: Look) -> Iterator[Note]:
    """A long run without a pause for people who are new to it: shins and calves come slower than breath."""
    for at, block, laid in look.blocks():
        moves = [look.move(line) for line in block.moves if not line.is_rest]
        runs = moves and all(
            move and move.pattern == "gait" and move.impact != "none" for move in moves
        )
        stretch = laid.seconds if not block.works else 0
        if not (look.company.new and runs and stretch >= LONG_RUN_S):
            continue
        text = f"{stretch // RUN_WALK_S} x 2:00/1:00, at 5\n  {block.moves[0].name}"
        yield look.note(
            code="long-run-for-new",
            level="weigh",
            text=f"{clock(stretch)} of running on end, and {_are(look.company.new)} new.",
            reason="Breath comes in weeks, shins and calves in months: run and walk by turns first.",
            at=at,
            fixes=(Fix("run and walk by turns", ReplaceBlock(block=at, text=text)),),
        )


def weeks_on_a_level(look: Look) -> Iterator[Note]:
    """Harder ways on the board while people are still on the beginner level."""
    weeks = look.company.new_weeks
    if not look.company.new or weeks is None or weeks >= WEEKS:
        return
    for at, nth, line, _ in look.lines():
        if any(task.harder for task in line.tasks) and not any(task.easier for task in line.tasks):
            known = look.move(line)
            easier = known.easier[0] if known and known.easier else ""
            edit = MoveOption(block=at, move=nth, text=f"easier {easier}")
            yield look.note(
                code="weeks-on-a-level",
                level="tell",
                text=f"{line.name} has a harder way and no easier one; week {weeks + 1} for {look.company.new}.",
                reason="Beginners stay on the beginner level four or five weeks before going up.",
                at=at,
                nth=nth,
                fixes=(Fix(text=f"easier {easier}", edit=edit),) if easier else (),
            )
            return


def hard_for_older(look: Look) -> Iterator[Note]:
    """Two to seven minutes of hard work in all for older people, late, warm and by their own feeling."""
    hard = look.plan.sums.hard_s
    full = look.company.older - look.company.older_eased  # the others have a share of their own
    if full > 0 and hard > MOST_S:
        at = hardest(look)
        yield look.note(
            code="hard-for-older",
            level="weigh",
            text=f"{clock(hard)} of hard work, and {_are(full)} 65 or older.",
            reason="Two to seven minutes in all, late in the session, as hard as they feel comfortable; at once over "
            "if flushed or short of breath.",
            at=at,
            fixes=calmer(look, MOST_S + 1),
        )


def hard_for_children(look: Look) -> Iterator[Note]:
    """Very hard or heavy work with children among them."""
    for at, block, laid in look.blocks():
        sets = next(heavy_lines(block, HEAVY_FOR_CHILDREN), None)
        heavy, works = isinstance(block, Build) or sets is not None, block.works and laid.work_s
        long = not block.works and effort(block) >= LONG_EFFORT and laid.seconds > LONG_S
        hard = works and (effort(block) >= VERY_HARD or heavy)
        if look.company.children and long:
            yield look.note(
                code="hard-for-children",
                level="weigh",
                text=f"{clock(laid.seconds)} at {effort(block):g} on end, and {_are(look.company.children)} under 16.",
                reason="Children play in bursts; long and brisk is for grown-ups.",
                at=at,
                fixes=look.ease(at, 5),
            )
        if look.company.children and hard:
            yield look.note(
                code="hard-for-children",
                level="weigh",
                text=f"{'Heavy' if heavy else 'Very hard'} work, and {_are(look.company.children)} under 16.",
                reason="Play and skill before load and pain; your federation's rules for children come first.",
                at=at,
                nth=sets[0] if sets else None,
                fixes=_lighter_for_children(look, at, block, sets) if heavy else look.ease(at, 7),
            )


def _lighter_for_children(
    look: Look, at: int, block: Block, sets: tuple[int, Line] | None
) -> tuple[Fix, ...]:
    """A load that leaves several reps; where loads change by set, or it builds to heavy, play."""
    load = sets[1].tasks[0].load if sets else None
    if sets and load and len(load.values) == 1:
        return (lighter(look, at, *sets),)
    return _as_play(look, at, block)


def _as_play(look: Look, at: int, block: Block) -> tuple[Fix, ...]:
    """Unhurried rounds without load in the time that the heavy work had."""
    length = clock(look.timeline.blocks[at].seconds)
    lines = [f"  {_few(look, line)} {line.tasks[0].name}" for line in block.moves] or ["  8 squat"]
    text = "\n".join([f"3 rounds for quality, rest 0:45, cap {length}, at 5", *lines])
    return (Fix("unhurried and light instead", ReplaceBlock(block=at, text=text)),)


def _few(look: Look, line: Line) -> int:
    """Eight, or as many as can be done with room to spare."""
    move = look.move(line)
    return max(1, min(8, round(move.fresh * 0.55))) if move else 8


def ask_first(look: Look) -> Iterator[Note]:
    """Hard intervals with people whose age or medicine gives cause to ask."""
    hard = [at for at, block, laid in look.working() if laid.work_s and effort(block) >= VERY_HARD]
    if look.company.to_ask and hard:
        asked = f"{_are(look.company.to_ask)} over 50 or on heart medicine"
        yield look.note(
            code="ask-first",
            level="tell",
            text=f"Very hard intervals, and {asked}: ask whether a doctor has said yes.",
            reason="Local rules and their doctor decide. "
            "Chest pain, faintness, breath that won't come back: stop at once.",
            basis="exercise preparticipation screening (Riebe and others 2015)",
            at=hard[0],
            fixes=look.ease(hard[0], 8) if len(hard) == 1 else (look.ease_all(8),),
        )


def jumps_for_new(look: Look) -> Iterator[Note]:
    """Hard landings without another way, with people there who are new, just back, older, or children."""
    company = look.company
    named = {
        "new": company.new,
        "just back": company.back,
        "65 or older": company.older,
        "under 16": company.children,
    }
    whom = [f"{_are(count)} {who}" for who, count in named.items() if count]
    only_young = not (company.new or company.back or company.older)
    for at, nth, line, move in look.lines():
        lands = move and move.impact == "high" and not (only_young and move.seconds <= BOUNCE_S)
        if whom and move and lands and move.low_impact and not _other(line):
            edit = MoveOption(block=at, move=nth, text=f"or {move.low_impact}")
            yield look.note(
                code="jumps-for-new",
                level="weigh",
                text=f"{move.name}: hard landings, no other way written, and {' and '.join(whom)}.",
                reason="Offer the step beside the jump.",
                at=at,
                nth=nth,
                fixes=(Fix(text=f"or {move.low_impact}", edit=edit),),
            )


def skill_for_new(look: Look) -> Iterator[Note]:
    """Moves that must have been learnt, with beginners there."""
    for at, nth, line, move in look.lines():
        way = move and (move.no_kit or _easier_learnt(move))
        if look.company.new and move and move.skill and not _other(line) and way:
            edit = MoveOption(block=at, move=nth, text=f"or {way}")
            yield look.note(
                code="skill-for-new",
                level="weigh",
                text=f"{move.name} has to be learnt first, and {_are(look.company.new)} new.",
                reason="A level is offered, never a label.",
                at=at,
                nth=nth,
                fixes=(Fix(text=f"or {way}", edit=edit),),
            )


def _easier_learnt(move: Move) -> str:
    """An easier way of a move that goes upside down, which wants to be learnt by everybody."""
    return move.easier[-1] if move.overhead and not move.kit and move.easier else ""


def _other(line: Line) -> bool:
    return any(task.alternatives or task.easier for task in line.tasks)


def limits(look: Look) -> Iterator[Note]:
    """What somebody who comes doesn't do now, on a line that offers nothing else."""
    for at, nth, line, move in look.lines():
        for limit, count in look.company.limits.items():
            if not move or _other(line) or limit not in move.asks:
                continue
            if look.company.new and limit == "jumps":
                continue
            other = _instead(look, move, limit)
            whom = f"{count} of {look.company.people} {'doesn' if count == 1 else 'don'}'t {LIMITS[limit]}"
            yield look.note(
                code=f"limit-{limit}",
                level="tell",
                text=f"{move.name}: {whom}, and no other way is written.",
                at=at,
                nth=nth,
                fixes=(
                    Fix(
                        text=f"or {other}", edit=MoveOption(block=at, move=nth, text=f"or {other}")
                    ),
                ),
            )
            break


def _instead(look: Look, move: Move, limit: Limit) -> str:
    """A move of the same pattern that this limit doesn't touch, and that needs no kit."""
    if limit == "jumps" and move.low_impact:
        return move.low_impact
    fitting = [
        one for one in look.library.moves if one.pattern == move.pattern and limit not in one.asks
    ]
    return next(
        (one.name for one in fitting if not one.needs_kit and one.counted == move.counted),
        look.library.serving(INSTEAD[limit])[0].name,
    )


def missing_kit(look: Look) -> Iterator[Note]:
    """Kit that isn't there today, with the way round it."""
    if not look.company.missing:
        return
    for at, nth, line, _ in look.lines():
        for task in line.tasks:
            found = way_round(task, look.library, look.company.missing)
            if not found or task is not line.tasks[0] or look.library.find(found.instead) is None:
                continue
            yield look.note(
                code="missing-kit",
                level="weigh",
                text=f"No {' and no '.join(found.missing)} today: {found.name} becomes {found.instead}.",
                at=at,
                nth=nth,
                fixes=(
                    Fix(
                        text=found.instead, edit=ReplaceMove(block=at, move=nth, name=found.instead)
                    ),
                ),
            )
