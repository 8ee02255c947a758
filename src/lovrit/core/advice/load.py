"""Rules about load: how much of a move a block asks in all, and how heavy, against what people can."""

from collections.abc import Iterator
from statistics import fmean

from lovrit.core.advice.note import Fix, Look, Note, WayTo
from lovrit.core.blocks.block import Block
from lovrit.core.blocks.strength import Strength
from lovrit.core.moves.move import STRENGTH, Move
from lovrit.core.moves.once import lifted_once, reps_at
from lovrit.core.session.edits import ReplaceLine, SetAmount
from lovrit.core.slate.line import Amount, Line, Load
from lovrit.core.slate.written import move_line

TIMES_FRESH, SPREAD_OUT = (
    5,
    4,
)  # so many times what most do in one go is too much; four times is a lot and can be
HEAVY, LIGHT = 75.0, 60.0  # per cent of one's best
# share of one's best: seconds of rest that the next set as heavy wants
RESTS = ((85.0, 120), (75.0, 90))
# share of one's best: reps in all from which on they are many for one lift in an evening
MANY_HEAVY = ((90.0, 15), (85.0, 28), (80.0, 36))
ROOM = 1.25  # people differ, and a coach may mean the last set
SEVERAL, LEFT = 3, 0.5  # so many sets want more than that left over in the first of them


def heavy_lines(block: Block, least: float) -> Iterator[tuple[int, Line]]:
    """Lines with a load of so many per cent of one's best, or more, each with its place in the block."""
    for nth, line in enumerate(block.moves):
        loads = [task.load for task in line.tasks if task.load and task.load.unit == "%"]
        if any(max(one.values, default=0.0) >= least for one in loads):
            yield nth, line


def lighter(look: Look, at: int, nth: int, line: Line) -> Fix:
    """The line with a load that leaves several reps."""
    task = line.tasks[0].but(load=Load(values=(LIGHT,), unit="%"))
    text = move_line(line.but(tasks=(task, *line.tasks[1:])))
    return Fix(f"@ {LIGHT:g}%", ReplaceLine(line=look.line(at, nth), text=f"  {text}"))


def _of_first(block: Block, nth: int, line: Line, look: Look, work_s: int) -> float:
    """Reps of a line's first move in a whole block; what is joined to it with “+” is another move's."""
    if len(line.tasks) == 1:
        return block.reps_done(nth, look.library, work_s)
    amount = line.tasks[0].amount
    visits = block.visits(nth, look.library) or 0.0
    if not amount or amount.unit != "reps" or not amount.values:
        return 0.0
    return visits * fmean(amount.values)


def too_many_reps(look: Look) -> Iterator[Note]:
    """Reps of one move in a whole block against what people do fresh in one go; sets with their rests are apart."""
    for at, block, laid in look.working():
        if block.lifts or (block.races and block.ends_together):
            continue  # sets have their rests, and where the clock ends it people do as many rounds as they can
        for nth, line in enumerate(block.moves):
            move = None if line.is_rest else look.move(line)
            if not move or move.counted != "reps" or block.visits(nth, look.library) is None:
                continue
            asked = _of_first(block, nth, line, look, laid.work_s)
            if asked <= TIMES_FRESH * move.fresh:
                continue
            times = round(asked / move.fresh)
            yield look.note(
                code="too-many-reps",
                level="weigh",
                text=f"{round(asked)} {move.name}, {times} times what most do in one go.",
                reason="Past four or five times people stand about, or do another move by the same name.",
                at=at,
                nth=nth,
                fixes=_fewer(look, at, nth, line, move, asked),
            )


def _fewer(
    look: Look, at: int, nth: int, line: Line, move: Move, asked: float
) -> tuple[Fix | WayTo, ...]:
    """As many as can be; another move of the pattern that people do more of, where no amount is written."""
    amount = line.tasks[0].amount
    share = SPREAD_OUT * move.fresh / asked
    if amount and amount.unit == "reps" and amount.values and max(amount.values) * share >= 1:
        fewer = max(1, int(max(amount.values) * share))
        return (Fix(f"{fewer} {move.name}", SetAmount(block=at, move=nth, value=fewer)),)
    enough = (
        one
        for one in look.library.moves
        if one.pattern == move.pattern and one.counted == "reps" and one.impact != "high"
        if not one.skill and asked <= SPREAD_OUT * one.fresh
    )
    other = max(enough, key=lambda one: (not one.kit, one.fresh), default=None)
    return look.instead(at, nth, other.name) if other else (WayTo("fit", "ask for less"),)


def _share(line: Line) -> float:
    """The highest share of one's best that a line asks for, in per cent; 0 where it asks for none."""
    loads = [task.load for task in line.tasks if task.load and task.load.unit == "%"]
    return max((max(load.values) for load in loads), default=0.0)


def _lighter(look: Look, at: int, nth: int, line: Line, share: float) -> Fix:
    first = line.tasks[0].but(load=Load(values=(share,), unit="%"))
    text = move_line(line.but(tasks=(first, *line.tasks[1:])))
    return Fix(f"@ {share:g}%", ReplaceLine(line=look.line(at, nth), text=f"  {text}"))


def skill_while_tired(look: Look) -> Iterator[Note]:
    """Heavy or learnt lifts among other moves that are done as quickly as one can."""
    for at, block, _ in look.working():
        if not block.races or len(block.moves) < 2:
            continue
        for nth, line in enumerate(block.moves):
            move, share = look.move(line), _share(line)
            lifted = move is not None and _is_lift(look, line, move)
            if not lifted and share < HEAVY:
                continue
            yield look.note(
                code="skill-while-tired",
                level="weigh",
                text=f"{line.name} against the clock, among tiring moves: form goes first.",
                reason="Lifts that have been learnt, or are heavy, want fresh people and their own pace.",
                at=at,
                nth=nth,
                fixes=_simpler(look, at, nth, line, move, lifted),
            )


def _is_lift(look: Look, line: Line, move: Move) -> bool:
    """A barbell that is lifted; one that is jumped over is not."""
    kit = look.library.kit_of(line.tasks[0].name)
    return move.skill and "bar" in kit and move.pattern in STRENGTH


def _simpler(
    look: Look, at: int, nth: int, line: Line, move: Move | None, lifted: bool
) -> tuple[Fix, ...]:
    if not lifted or move is None:
        return (_lighter(look, at, nth, line, LIGHT),)
    others = [
        one
        for one in look.library.moves
        if one.pattern in STRENGTH and set(one.needs_kit) == {"bell"}
        if not (one.skill or one.overhead or one.impact == "high")
    ]
    other = min(others, key=lambda one: one.pattern != move.pattern, default=None)
    if other is None:
        return ()
    task = line.tasks[0].but(name=other.name, load=None)
    text = move_line(line.but(tasks=(task, *line.tasks[1:])))
    edit = ReplaceLine(line=look.line(at, nth), text=f"  {text}")
    return (Fix(f"{other.name} instead", edit),)


def rest_short_for_load(look: Look) -> Iterator[Note]:
    """Sets at a share of one's best, and the rest that the next one wants."""
    for at, block, _ in look.of(Strength):
        share = max((_share(line) for line in block.moves), default=0.0)
        wanted = next((seconds for least, seconds in RESTS if share >= least), 0)
        if block.rest_s >= wanted or block.sets.high < 2:
            continue
        more = (wanted - block.rest_s) * block.sets.high * max(1, len(block.moves))
        minutes = f"{wanted // 60}:{wanted % 60:02}"
        yield look.note(
            code="rest-short-for-load",
            level="weigh",
            text=f"Sets at {share:g} % with {block.rest_s} s of rest: the next one can't be as heavy.",
            reason=f"At {share:g} % most want {minutes} and more.",
            basis="rest between heavy sets (Willardson 2006)",
            at=at,
            fixes=look.set(at, "rest", wanted, f"rest {minutes}", more),
        )


def _is_beyond(block: Strength, line: Line) -> bool:
    """Whether each set asks for more reps than anybody does at its load."""
    share = _share(line)
    if not share or block.by_set:
        return False
    most = reps_at(share / 100) + 1
    most = most * ROOM if block.sets.high < SEVERAL else most - LEFT
    return block.reps.low + (line.tasks[0].rir or 0) > most


def _reps_from(block: Strength, line: Line, least: float) -> int:
    """Reps of a line in all its sets that are so heavy or heavier."""
    loads = [task.load.values for task in line.tasks if task.load and task.load.unit == "%"]
    sets = block.sets.low
    reps = block.by_set or (block.reps.low,) * sets
    shares = loads[0] if loads and len(loads[0]) == len(reps) else (_share(line),) * len(reps)
    return sum(many for many, share in zip(reps, shares, strict=True) if share >= least)


def _heavy_reps(look: Look, least: float) -> dict[str, list[tuple[int, Strength, int, int]]]:
    """For each lift, where reps at so many per cent and more are: block, line, how many."""
    found: dict[str, list[tuple[int, Strength, int, int]]] = {}
    for at, block, _ in look.of(Strength):
        for nth, line in enumerate(block.moves):
            many = 0 if _is_beyond(block, line) else _reps_from(block, line, least)
            if many:  # a set that can't be done is another remark
                found.setdefault(line.tasks[0].name, []).append((at, block, nth, many))
    return found


def heavy_reps_many(look: Look) -> Iterator[Note]:
    """Reps of one lift near one's best, in all of an evening: more of them are done badly, or not at all."""
    told: set[str] = set()
    for least, most in MANY_HEAVY:
        for name, there in _heavy_reps(look, least).items():
            in_all = sum(many for *_, many in there)
            if in_all <= most or name in told:
                continue
            told.add(name)
            at, block, nth, _ = max(there, key=lambda one: one[3])
            sets = most // max(1, block.reps.low)
            alone = len(there) == 1 and sets > 1 and not block.by_set
            lower = (_lighter(look, at, nth, block.moves[nth], HEAVY),)
            yield look.note(
                code="heavy-reps-many",
                level="weigh",
                text=f"{in_all} reps of {name} at {least:g} % and more: the last ones go wrong.",
                reason=f"Of one lift some {most} in an evening are many at that; fewer sets, or lighter ones.",
                basis="coaches' practice for heavy lifts; ours",
                at=at,
                fixes=look.set(at, "sets", sets, f"{sets} sets", 0) if alone else lower,
            )


def load_cannot_be(look: Look) -> Iterator[Note]:
    """More reps than anybody does at that share of their best."""
    for at, block, _ in look.of(Strength):
        for nth, line in enumerate(block.moves):
            share, left = _share(line), line.tasks[0].rir or 0
            reps = block.reps.low + left
            if not _is_beyond(block, line):
                continue
            most = reps_at(share / 100) + 1
            often = (
                ""
                if block.sets.high < SEVERAL or reps > round(most)
                else f", once and not {block.sets.high} times"
            )
            can = max(30.0, round((100 / lifted_once(1, reps) - 5) / 5) * 5.0)
            yield look.note(
                code="load-cannot-be",
                level="weigh",
                text=f"{reps - left} reps{f' with {left} in reserve' if left else ''} at {share:g} % of one's best:"
                f" most do {max(1, round(most))}{' in all' if left else ''}{often}.",
                reason="Either it is another best, or another number.",
                basis="reps by share of the best (Epley 1985)",
                at=at,
                nth=nth,
                fixes=(_lighter(look, at, nth, line, can),),
            )


def line_is_not_the_work(look: Look) -> Iterator[Note]:
    """A line with a time of its own in a block whose works have another."""
    for at, block, _ in look.working():
        works = {pair.work.seconds for pair in block.pairs}
        work = next(iter(works)) if len(works) == 1 else None
        for nth, line in enumerate(block.moves if work else ()):
            task = line.tasks[0]
            own = _seconds(task.amount)
            if work is None or own is None or own == work or len(line.tasks) > 1 or task.pair:
                continue
            plain = move_line(line.but(tasks=(task.but(amount=None),)))
            edit = ReplaceLine(line=look.line(at, nth), text=f"  {plain}")
            left = f"{work - own:g} s of it are left" if own < work else f"there are {work} s"
            yield look.note(
                code="line-is-not-the-work",
                level="stop" if own > work else "tell",
                text=f"{task.name} says {own:g} s, and the work is {work} s: {left}.",
                reason="In a rotation everybody works as long as the block says.",
                at=at,
                nth=nth,
                fixes=(Fix(f"{task.name}, {work} s like the others", edit),),
            )


def _seconds(amount: Amount | None) -> float | None:
    if not amount or amount.unit != "s" or amount.form != "one":
        return None
    return amount.values[0]
