"""Rules about what can't be meant: loads that nobody lifts so, an easy evening at nine, one side, one pattern."""

import re
from collections.abc import Iterator
from math import ceil
from typing import NamedTuple

from lovrit.core.advice.note import Fix, Look, Note, WayTo, effort
from lovrit.core.blocks.steady import Steady
from lovrit.core.clock import read_clock
from lovrit.core.moves.move import Move
from lovrit.core.session.edits import InsertBlock, ReplaceLine
from lovrit.core.slate.line import Line, Load
from lovrit.core.slate.written import move_line

POUND = 0.4536
EASY, HARD = 4.0, 7.5
SLOW_S, MUCH_SLOW, SOME_SLOW = 3, 30, 5  # seconds a rep, reps in all, reps of a line
# of an evening that only pushes: one lift, or a lift and push-ups, is a plan
SEVERAL_BLOCKS, SEVERAL_PRESSES = 2, 3
ROWS = "3 sets of 10 reps, rest 1:00\n  ring row"
LATE_MIN = 21 * 60  # from then on a hall has neighbours
EASILY = re.compile(r"\b(easy|gentle|relaxed|recovery)\b", re.IGNORECASE)
NOT = re.compile(r"\b(not|un|no|never|less)\b|n[’']t\b", re.IGNORECASE)
SIDE = re.compile(r"\b(left|right)\b")
LOUD = re.compile(r"\b(slam|drop|jump|skip|clap|stomp|burpee)\w*\b")


class Most(NamedTuple):
    """What hardly anybody lifts more of so, in kg; a word of the move's name."""

    word: str
    kg: float


# the first that fits; ours, from what strong club athletes lift for sets, with room to spare
MEANT = (
    Most("raise", 25), Most("fly", 30), Most("curl", 60), Most("halo", 24), Most("windmill", 40), Most("get up", 48),
    Most("goblet", 64), Most("swing", 72), Most("slam", 40), Most("wall ball", 16), Most("throw", 16),
    Most("bell row", 60),
    Most("push press", 140), Most("press", 180), Most("snatch", 150), Most("clean", 180), Most("row", 160),
    Most("lunge", 140), Most("squat", 260), Most("deadlift", 320), Most("carry", 160),
)  # fmt: skip


BELL = 56.0  # a bell that is pressed, snatched or cleaned


def _most(move: Move) -> float | None:
    name = move.name.replace("-", " ")
    if (
        "bell" in move.kit
        and "bar" not in move.kit
        and re.search(r"\b(press|snatch|clean|jerk|thruster)\b", name)
    ):
        return BELL
    return next((one.kg for one in MEANT if one.word in name), None)


def load_nobody_means(look: Look) -> Iterator[Note]:
    """Kilograms that are pounds, or a slip."""
    for at, nth, line, move in look.lines():
        task, most = line.tasks[0], _most(move) if move else None
        own = task.load.values if task.load and task.load.unit == "kg" else ()
        ready = tuple(kg for kit in task.kit for kg in kit.loads)
        heaviest = max((*own, *ready), default=0.0)
        if move is None or most is None or heaviest <= most:
            continue
        yield look.note(
            code="load-nobody-means",
            level="weigh",
            text=f"{move.name} with {heaviest:g} kg: pounds, or a slip? Hardly anybody does sets with over {most:g}.",
            reason=f"{heaviest:g} pounds are {heaviest * POUND:.0f} kg.",
            at=at,
            nth=nth,
            fixes=(_as_pounds(look, at, nth, line, most),),
        )


def _as_pounds(look: Look, at: int, nth: int, line: Line, most: float) -> Fix:
    """The same figures as pounds; where that is too much as well, as much as can be."""
    task = line.tasks[0]
    load = task.load if task.load and task.load.unit == "kg" else None
    kg = max((*(load.values if load else ()), *(one for kit in task.kit for one in kit.loads)))
    fits = round(kg * POUND) <= most

    def meant(one: float) -> float:
        return float(min(round(one * POUND), most)) if fits else min(one, most)

    kit = tuple(one.but(loads=tuple(map(meant, one.loads))) for one in task.kit)
    lighter = Load(values=tuple(map(meant, load.values)), unit="kg") if load else task.load
    changed = line.but(tasks=(task.but(load=lighter, kit=kit), *line.tasks[1:]))
    edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(changed)}")
    return Fix("they are pounds" if fits else f"{most:g} kg at most", edit)


def easy_at_odds(look: Look) -> Iterator[Note]:
    """Called easy, and asked for hard."""
    titled = EASILY.search(look.session.title) and not NOT.search(look.session.title)
    for at, block, laid in look.blocks():
        called = isinstance(block, Steady) and EASILY.search(block.label)
        if not (titled or called) or effort(block) < HARD or not laid.seconds:
            continue
        yield look.note(
            code="easy-at-odds",
            level="weigh",
            text=f"It is called easy, and {block.short_name} asks for {effort(block):g}.",
            reason="Who comes for an easy evening trusts the word; one of the two is a slip.",
            at=at,
            fixes=look.ease(at, EASY),
        )


def cool_down_hard(look: Look) -> Iterator[Note]:
    """A cool-down that is work."""
    blocks = look.blocks()
    at, block, _ = blocks[-1] if blocks else (0, None, None)
    if not isinstance(block, Steady) or "cool" not in block.label or effort(block) < 6:
        return
    yield look.note(
        code="cool-down-hard",
        level="weigh",
        text=f"A cool-down at {effort(block):g}: the heart should come down in it.",
        reason="At 2 or 3, walking and breathing; who stops hard work at once may faint.",
        at=at,
        fixes=look.ease(at, 3),
    )


def one_side_only(look: Look) -> Iterator[Note]:
    """One side of a move, and the other nowhere."""
    sides: dict[str, set[str]] = {}
    for _, _, line, _ in look.lines():
        sides.setdefault(line.tasks[0].name, set()).update(_sides(line))
    for at, nth, line, _ in look.lines():
        task = line.tasks[0]
        here = sides[task.name]
        if len(here) != 1:
            continue
        (side,) = here
        both = _both_sides(line, halved=not look.session.blocks[at].rotates)
        edit = ReplaceLine(line=look.line(at, nth), text=f"  {move_line(both)}")
        yield look.note(
            code="one-side-only",
            level="weigh",
            text=f"{task.name}: {side} only, and {'right' if side == 'left' else 'left'} nowhere.",
            reason="Both sides get the same, unless one is hurt.",
            at=at,
            nth=nth,
            fixes=(Fix("each side", edit),),
        )


def _both_sides(line: Line, *, halved: bool) -> Line:
    """The line on each side; where its turn has no room for twice as much, with half as many each."""
    task = line.tasks[0]
    amount = task.amount
    if halved and amount and amount.unit == "reps" and amount.values:
        amount = amount.but(values=tuple(float(ceil(one / 2)) for one in amount.values))
    others = (one for one in line.tasks[1:] if not SIDE.search(one.name))
    return line.but(tasks=(task.but(side="each", amount=amount), *others))


def _sides(line: Line) -> set[str]:
    """The sides that a line names, behind its move or in its name; both where each is said."""
    if any(task.side != "none" for task in line.tasks):
        return {"left", "right"}
    return set(SIDE.findall(" ".join(task.name for task in line.tasks).casefold()))


def only_pressing(look: Look) -> Iterator[Note]:
    """A circuit in which everything pushes."""
    for at, block, _ in look.blocks():
        moves = [(nth, look.move(line)) for nth, line in enumerate(block.moves) if not line.is_rest]
        known = [move for _, move in moves if move]
        if not block.circuit or len({move.name for move in known}) < 3 or len(known) < len(moves):
            continue
        if any(move.pattern != "push" for move in known) or _pulls_elsewhere(look, at):
            continue
        yield look.note(
            code="only-pressing",
            level="weigh",
            text="Everything pushes: no pulling, no legs.",
            reason="Shoulders are one-sided by it, and form goes with the third press in a row.",
            at=at,
            fixes=look.instead(at, moves[1][0], "ring row"),
        )


def evening_of_presses(look: Look) -> Iterator[Note]:
    """Several blocks of several presses, and nothing in the whole evening that pulls or has to do with legs."""
    known = [(at, look.move(line)) for at, _, line, _ in look.lines() if not line.is_rest]
    moves = [(at, move) for at, move in known if look.plan.session.blocks[at].works and move]
    blocks, names = {at for at, _ in moves}, {move.name for _, move in moves}
    if len(blocks) < SEVERAL_BLOCKS or len(names) < SEVERAL_PRESSES or len(moves) < len(known):
        return
    if any(move.pattern != "push" for _, move in moves):
        return
    yield look.note(
        code="only-pressing",
        level="tell",
        text=f"All {len(names)} moves of this evening push: no pulling, no legs.",
        reason="That can be meant; over a week as much is pulled as pushed, or shoulders pay for it.",
        at=max(blocks),
        fixes=(Fix("ring rows after it", InsertBlock(at=max(blocks) + 1, text=ROWS), adds_s=240),),
    )


def _pulls_elsewhere(look: Look, but: int) -> bool:
    return any(move and move.pattern == "pull" for at, _, _, move in look.lines() if at != but)


def much_lowering(look: Look) -> Iterator[Note]:
    """Many slow lowerings for people who are new: it is those that leave sore for days."""
    if not look.company.new:
        return
    slow = [(at, nth, line, _slow_reps(look, at, nth, line)) for at, nth, line, _ in look.lines()]
    total = sum(reps for *_, reps in slow)
    for at, nth, line, reps in slow:
        if total < MUCH_SLOW or reps < SOME_SLOW:
            continue
        task = line.tasks[0].but(slow_s=None, tempo=())
        text = move_line(line.but(tasks=(task, *line.tasks[1:])))
        yield look.note(
            code="much-lowering",
            level="weigh",
            text=f"{line.name}: some {round(reps)} slow lowerings of {round(total)} in all, and somebody is new.",
            reason="The first time it leaves people sore for three days; a few sets are enough to protect the next.",
            basis="soreness after unaccustomed lowering (Cheung and others 2003; McHugh 2003)",
            at=at,
            nth=nth,
            fixes=(
                Fix("at their own pace", ReplaceLine(line=look.line(at, nth), text=f"  {text}")),
            ),
        )


def _slow_reps(look: Look, at: int, nth: int, line: Line) -> float:
    rep_s = line.tasks[0].rep_s or 0
    if rep_s < SLOW_S:
        return 0.0
    block, laid = look.session.blocks[at], look.timeline.blocks[at]
    counted = block.reps_done(nth, look.library, laid.work_s)
    lines = max(1, sum(not one.is_rest for one in block.moves))
    return counted or laid.work_s / lines / rep_s


def odd_one_out(look: Look) -> Iterator[Note]:
    """Pairs, and an odd number of people."""
    people = look.session.people or look.company.people
    for at, block, _ in look.working():
        if (
            people % 2
            and people > 1
            and (getattr(block, "partners", False) or getattr(block, "team", 1) == 2)
        ):
            yield look.note(
                code="odd-one-out",
                level="tell",
                text=f"{people} people in pairs: one three, of whom one works and two rest.",
                reason="Say before who is in it, or coach it with them.",
                at=at,
                fixes=(WayTo("crew", "say who comes"),),
            )


def box_while_tired(look: Look) -> Iterator[Note]:
    """Boxes that are jumped against the clock."""
    for at, nth, line, move in look.lines():
        block = look.session.blocks[at]
        if not move or "box jump" not in move.name or not block.races or effort(block) < 7.5:
            continue
        if any(task.alternatives or task.easier for task in line.tasks):
            continue
        yield look.note(
            code="box-while-tired",
            level="tell",
            text="Box jumps while tired: low boxes, step down; shins and tendons are hurt in the last rounds.",
            reason="From knee height on stepping up is as hard and lands nowhere.",
            at=at,
            nth=nth,
            fixes=look.instead(at, nth, "box step-up"),
        )


def climb_on_spent_grip(look: Look) -> Iterator[Note]:
    """A climb among moves that spend the hands: it is the fall that hurts."""
    for at, nth, line, move in look.lines():
        block = look.session.blocks[at]
        if not move or not re.search(
            r"\b(rope|peg|cargo net) climb\b", line.name.replace("-", " ")
        ):
            continue
        others = (look.move(one) for one in block.moves if one is not line and not one.is_rest)
        if not any(one and one.grip for one in others):
            continue
        yield look.note(
            code="climb-on-spent-grip",
            level="weigh",
            text=f"{line.name} among moves that spend the grip: hands that let go up there are a fall.",
            reason="Climb first and fresh, over a mat, with a height that fits; or pull without leaving the floor.",
            at=at,
            nth=nth,
            fixes=look.instead(at, nth, "towel row" if look.library.find("towel row") else "squat"),
        )


def noise_late(look: Look) -> Iterator[Note]:
    """Loud moves in a late hall."""
    slot = look.session.slot
    begins = read_clock(slot.start) if slot and slot.start else 0
    if begins < LATE_MIN:
        return
    for at, nth, _, move in look.lines():
        if move and LOUD.search(move.name.replace("-", " ")):
            yield look.note(
                code="noise-late",
                level="tell",
                text=f"{move.name} after nine in the evening: neighbours hear it.",
                reason="Mats, or a quiet way; some halls have their hours.",
                at=at,
                nth=nth,
                fixes=look.instead(at, nth, _quiet(look, move)),
            )


def _quiet(look: Look, move: Move) -> str:
    """Its low way where that is quiet, else a squat."""
    low = look.library.find(move.low_impact) if move.low_impact else None
    return low.name if low and not LOUD.search(low.name.replace("-", " ")) else "squat"
