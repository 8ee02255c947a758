"""What stretches of a session leave behind: each work judged by its quality, the sums a region capped.

The figures are ours, from what coaches do, except where a source is named.
"""

from collections.abc import Iterable, Iterator
from typing import Literal, NamedTuple

from lovrit.core.asked.qualities import GRIPPED, MOST, WORKS, Burden, Fresh, Leaves, Quality, Region
from lovrit.core.asked.shares import Shares, own_share
from lovrit.core.blocks.block import Block
from lovrit.core.heart.asked import USUAL_EFFORT
from lovrit.core.moves.library import Library
from lovrit.core.moves.move import Move
from lovrit.core.session.session import Session
from lovrit.core.slate.line import Line, Task
from lovrit.core.timeline.interval import Interval

HARD, AT = 7.0, 8.0  # efforts: from which work counts, and at which a minute is one
BREATH = 1.5  # a hard minute spoils the next hard breath more than the next work of a region
ALL_OUT, BOUT_S, BOUT = (
    9.0,
    20,
    0.6,
)  # the effort and longest of a bout of speed, and what one is worth
SPARE = 3  # an all-out bout has so many times its length of rest, or it is no speed
JUMP_REPS = 6  # a jump for height comes in sets of so few
HEAVY, LAST_REPS, TOP_SET = 85.0, 1, 1.25  # per cent, reps in reserve, and what a top set is worth
HEAVY_REPS = 6  # sets at nine of more reps than this are hard, not heavy
SLOW_S, LOWERED, LANDED = (
    3,
    8.0,
    16.0,
)  # seconds a rep is lowered; so many of either are worth a hard minute
UNUSED = 0.5  # what is not done for weeks leaves half as much again, as soreness
LONG_S, LONG_WORTH = 3600, 4.0  # from an hour on; worth so much an hour
MOST_LONG = 7.0  # efforts above are not easy
NEAR, OFTEN, NEAR_WORTH = (
    0.7,
    3.0,
    1.2,
)  # of what is fresh: in one go, in all; what each time it is done is worth
GRIP_S = 36.0  # seconds of holding on that are worth a hard minute
SLOWER = 1.5  # older people, new ones, children's landings
PROTECTED = 0.8  # what was done each week for a month leaves sore for less long (McHugh 2003)
BACK_TOO = 0.5  # of what heavy work on other regions asks of a back


class _Part(NamedTuple):
    """A line's share of an interval: the block, the interval, its seconds, its first task, its move."""

    block: Block
    interval: Interval
    seconds: float
    rest_s: int
    effort: float
    line: Line | None
    task: Task | None
    move: Move | None


class _Sum:
    """Worths added up by quality and region, with what needs fresh."""

    def __init__(self, slower: bool, children: bool, used: frozenset[str]) -> None:
        self.worth: dict[tuple[Quality, Region], float] = {}
        self.longer: dict[tuple[Quality, Region], float] = {}
        self.fresh: dict[tuple[Region, str], Fresh] = {}
        self.slower, self.children, self.used = slower, children, used

    def add(self, quality: Quality, region: Region, worth: float, pattern: str = "") -> None:
        """So much more; how long it lasts is the longest of what makes it."""
        if worth <= 0:
            return
        sore = quality == "lowering and landings"
        longer = SLOWER if self.slower or (sore and self.children) else 1.0
        if sore and pattern in self.used:
            longer *= PROTECTED
        key = (quality, region)
        self.worth[key] = self.worth.get(key, 0.0) + worth
        self.longer[key] = max(self.longer.get(key, 0.0), longer)

    def need(self, region: Region, what: Quality | Literal["skill"], told: bool = False) -> None:
        """A region that has to be fresh; a clash is more than a word."""
        if told and (region, "heavy") in self.fresh:
            return
        self.fresh[region, what] = Fresh(region=region, what=what, told=told)


Span = tuple[Interval, float]


def leaves(
    session: Session,
    spans: Iterable[Span],
    library: Library,
    unused: frozenset[str] = frozenset(),
    used: frozenset[str] = frozenset(),
) -> Leaves:
    """What stretches of a session leave: each interval with the seconds that it lasts, or was done for.

    ``unused`` are patterns not done for three weeks, ``used`` those done each week for a month.
    """
    every = list(spans)
    total = _Sum(bool({"older", "beginners"} & set(session.whom)), "children" in session.whom, used)
    reps: dict[tuple[int, int, int], tuple[float, _Part]] = {}
    for part in _parts(session, every, library):
        _hard(total, part, unused)
        _speed(total, part)
        _sore(total, part)
        _held(total, part)
        _learnt(total, part)
        if part.move is not None and part.line is not None and part.task is not None:
            key = (
                part.interval.block,
                id(part.line),
                id(part.task),
            )  # the very ones of this session
            reps[key] = (reps.get(key, (0.0, part))[0] + _reps(part), part)
    for done, part in reps.values():
        _limit(total, part, done)
    _heavy(total, session, every, library)
    _long(total, session, every, library)
    return Leaves(burdens=tuple(_capped(total)), fresh=tuple(total.fresh.values()))


def _capped(total: _Sum) -> Iterator[Burden]:
    """The burdens, those of a region together no more than it can take."""
    whole: dict[Region, float] = {}
    for (_, region), worth in total.worth.items():
        whole[region] = whole.get(region, 0.0) + worth
    for (quality, region), worth in total.worth.items():
        capped = worth * min(1.0, MOST / whole[region])
        longer = total.longer[quality, region]
        yield Burden(quality=quality, region=region, worth=round(capped, 3), longer=longer)


def _parts(session: Session, spans: list[Span], library: Library) -> Iterator[_Part]:
    """Every line's share of every work, with the rest that follows."""
    shared = Shares(library)
    for nth, (one, seconds) in enumerate(spans):
        block = session.blocks[one.block]
        if one.phase not in ("work", "steady"):
            continue
        effort = one.asked if one.asked is not None else one.effort
        effort = USUAL_EFFORT[one.phase] if effort is None else effort
        after = spans[nth + 1][0] if nth + 1 < len(spans) else None
        rest_s = after.seconds if after is not None and after.phase not in ("work", "steady") else 0
        own = seconds * own_share(block)
        if not any(not line.is_rest for line in block.moves):
            yield _Part(block, one, own, rest_s, effort, None, None, _named(block, library))
        for line, task, share in shared.of(one.block, block, one.move):
            move = library.find(task.name)
            yield _Part(block, one, own * share, rest_s, effort, line, task, move)


def _named(block: Block, library: Library) -> Move | None:
    """What a block without lines says by its name that it is: a run, a ride."""
    return next((move for name in block.name.split() if (move := library.find(name))), None)


def _works(part: _Part) -> dict[Region, float]:
    return WORKS.get(part.move.pattern, {}) if part.move else {}


def _hard(total: _Sum, part: _Part, unused: frozenset[str]) -> None:
    """Minutes at seven and more: breath, where it is no lifting at one's own pace, and half on what does it."""
    if part.block.lifts and part.block.top_set_s:
        return
    if part.effort < HARD or (
        part.interval.phase == "steady"
        and part.interval.asked is None
        and part.interval.effort is None
    ):
        return
    minutes = (part.effort / AT) ** 2 * part.seconds / 60
    if not part.block.lifts:
        total.add("hard breath", "breath", minutes * BREATH)
    for region, share in _works(part).items():
        total.add("hard work", region, minutes * share)
        if part.move and part.move.pattern in unused:
            total.add("lowering and landings", region, minutes * share * UNUSED)


def _speed(total: _Sum, part: _Part) -> None:
    """Bouts that want all the speed there is: short, all out and with a long rest, or a few jumps for height."""
    if part.move is None or part.task is None:
        return
    pattern, reps = part.move.pattern, _reps(part)
    rested = part.rest_s >= SPARE * part.seconds
    run = (
        part.effort >= ALL_OUT and pattern in ("gait", "machine", "jump") and part.seconds <= BOUT_S
    )
    jump = part.move.impact == "high" and pattern == "jump" and reps <= JUMP_REPS
    if rested and (run or jump):
        for region in _works(part):
            total.add("speed and jumps", region, BOUT)
            total.need(region, "speed and jumps")


def _reps(part: _Part) -> float:
    """About how many reps are done in it."""
    if part.move is None or part.task is None or part.move.counted != "reps":
        return 0.0
    return part.seconds / (part.task.rep_s or part.move.seconds)


def _sore(total: _Sum, part: _Part) -> None:
    """Reps that are lowered slowly, and hard landings: felt for days (Cheung and others 2003)."""
    if part.move is None or part.task is None:
        return
    lowered = part.task.slow_s or (part.task.tempo[0] if part.task.tempo else 0) or 0
    reps = _reps(part)
    for region in _works(part):
        if lowered >= SLOW_S or "lowered" in part.move.uses:
            total.add("lowering and landings", region, reps / LOWERED, part.move.pattern)
        elif part.move.impact == "high" and region == "legs" and part.move.pattern != "gait":
            light = part.move.pattern in ("jump", "footwork") and part.move.seconds < 1
            total.add(
                "lowering and landings", region, 0 if light else reps / LANDED, part.move.pattern
            )


def _held(total: _Sum, part: _Part) -> None:
    """Seconds of holding on."""
    if part.move and part.move.grip and part.move.pattern in GRIPPED and part.effort >= 6:
        total.add("grip", "grip", part.seconds / GRIP_S)


def _learnt(total: _Sum, part: _Part) -> None:
    """What has been learnt and is done with something in the hands: told where what it hangs on is tired."""
    if part.move is None or not part.move.skill or part.move.pattern in ("squat", "lunge", "jump"):
        return
    for region in ("grip", "push", "back"):
        total.need(region, "skill", told=True)
    if part.move.pattern == "pull":  # whoever hangs by tired arms falls
        total.need("pull", "skill")


def _limit(total: _Sum, part: _Part, done: float) -> None:
    """Reps of one move that come near what can be done in one go, often."""
    move, task = part.move, part.task
    if move is None or task is None or not done:
        return
    amount = task.amount
    in_one_go = (
        move.fresh if amount and amount.form == "max" else (amount.high if amount else None) or 0
    )
    if in_one_go >= NEAR * move.fresh and done >= OFTEN * move.fresh:
        for region, share in _works(part).items():
            total.add("near the limit", region, done / move.fresh * NEAR_WORTH * share)


def _is_heavy(block: Block, task: Task, effort: float | None) -> bool:
    if task.load and task.load.unit == "%":
        return max(task.load.values) >= HEAVY
    if task.rir is not None:
        return task.rir <= LAST_REPS and (block.set_reps or 0) <= HEAVY_REPS
    reps = block.set_reps or (
        task.amount.high if task.amount and task.amount.unit == "reps" else None
    )
    loaded = task.load is not None
    return bool(
        block.lifts
        and loaded
        and effort is not None
        and effort >= 9
        and reps
        and reps <= HEAVY_REPS
    )


def _heavy(total: _Sum, session: Session, spans: list[Span], library: Library) -> None:
    """Top sets: at 85 per cent and more, with a rep or none in reserve, or built to; a squat and a hinge longer."""
    sets: dict[str, float] = {}
    for one, seconds in spans:
        block = session.blocks[one.block]
        if one.phase != "work":
            continue
        lines = (
            [block.moves[one.move]] if one.move is not None and block.moves else list(block.moves)
        )
        for line in lines:
            task = line.tasks[0]
            move = library.find(task.name)
            if move is None or line.is_rest:
                continue
            effort = one.asked if one.asked is not None else one.effort
            if block.top_set_s:
                sets[move.pattern] = sets.get(move.pattern, 0.0) + seconds / block.top_set_s
            elif _is_heavy(block, task, effort):
                sets[move.pattern] = sets.get(move.pattern, 0.0) + 1
    both = {"squat", "hinge"} <= set(sets)
    for pattern, count in sets.items():
        _lift(total, pattern, count, both)


def _lift(total: _Sum, pattern: str, count: float, both: bool) -> None:
    worked = dict(WORKS.get(pattern, {}))
    worked["back"] = max(worked.get("back", 0.0), BACK_TOO)
    for region, share in worked.items():
        total.add("heavy", region, count * TOP_SET * share)
        if share >= BACK_TOO:
            total.need(region, "heavy")
        if both:
            total.longer["heavy", region] = max(total.longer["heavy", region], SLOWER)
    total.need("grip", "heavy", told=pattern not in GRIPPED)


def _long(total: _Sum, session: Session, spans: list[Span], library: Library) -> None:
    """An hour and more without much rest, however easy: legs."""
    seconds = sum(
        seconds
        for one, seconds in spans
        if one.phase in ("work", "steady") and _travels(session.blocks[one.block], one, library)
    )
    if seconds >= LONG_S:
        total.add("long and easy", "legs", seconds / 3600 * LONG_WORTH)


def _travels(block: Block, one: Interval, library: Library) -> bool:
    """Whether it is running, walking, riding, rowing; a steady block may say so by its name alone."""
    effort = one.effort if one.effort is not None else USUAL_EFFORT[one.phase]
    if effort >= MOST_LONG or effort < 2:
        return False
    names = [line.tasks[0].name for line in block.moves] or block.name.split()
    moves = [move for name in names if (move := library.find(name))]
    return any(move.pattern in ("gait", "machine") or move.counted == "m" for move in moves)
