"""A class as it is for one person: the rows of their group in their own version, their beats or effort, their share."""

from lovrit.core.clock import number
from lovrit.core.crew.dose import eased
from lovrit.core.crew.fits import cells, told
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.heart.demand import corridor, talk
from lovrit.core.moves.library import Library
from lovrit.core.run.board import HALVES, Board, Row, What
from lovrit.core.run.classplan import ClassPlan
from lovrit.core.run.foretold import LaneShown, Moment
from lovrit.core.slate.line import Line
from lovrit.core.timeline.sums import HARD

OWN_CLOCKS = ("repeats", "gate", "turn")  # shapes in which each lane has seconds of its own


class Versions:
    """What somebody is told at each line, worked out once: by whom it is, and the line with its reps and its load."""

    def __init__(self, library: Library) -> None:
        self.library = library
        self._known: dict[tuple[int, Line], tuple[tuple[str, str], ...]] = {}

    def of(self, mine: Comer, line: Line) -> tuple[tuple[str, str], ...]:
        """Task by task what they are told there, and what their version is called."""
        key = (mine.id, line)
        if key not in self._known:
            names = (one.does for one in cells(mine, line, self.library))
            self._known[key] = tuple(zip(told(mine, line, self.library), names, strict=True))
        return self._known[key]


def own_moment(one: Moment, mine: Comer, versions: Versions, out: bool) -> Moment:
    """A moment as it is for one person: the rows of their group in their own version, the lane that they are in.

    Where they have stopped nothing is asked of them.
    """
    if out:
        return one._replace(board=Board(), lanes=(), effort=None)
    lanes = tuple(_taken(lane, str(mine.id)) for lane in one.lanes if str(mine.id) in lane.people)
    called = (str(mine.id), *(lane.name for lane in lanes), letter(mine.group))
    rungs = dict(one.board.rungs)
    rung = next((rungs[name] for name in called if name in rungs), "")

    def own(rows: tuple[Row, ...]) -> tuple[Row, ...]:
        here = (row for row in rows if _is_mine(row, lanes, called[-1]))
        return tuple(
            row._replace(what=tuple(own_what(what, mine, versions, rung) for what in row.what))
            for row in here
        )

    board = one.board._replace(rows=own(one.board.rows), next=own(one.board.next))
    own_lane = lanes[0] if lanes and one.shape in OWN_CLOCKS else None
    return _by_lane(one, board, own_lane)._replace(lanes=lanes)


def _by_lane(one: Moment, board: Board, lane: LaneShown | None) -> Moment:
    """A moment by the clock of somebody's own lane: their work, their rest, their wait."""
    if lane is None or lane.does == "done":
        return one._replace(board=board)
    resting = lane.does != "work"
    up = lane.ends_s is None
    said = {"rest": "rest", "waiting": "you begin in"}.get(lane.does, "")
    shown = board.rows if resting and not board.resting else board.next
    return one._replace(
        kind="rest" if resting else "work",
        says=one.says if resting == board.resting and lane.does != "waiting" else said or "work",
        where=lane.of,
        began_s=lane.since_s,
        up=up,
        zero_s=lane.since_s if lane.ends_s is None else lane.ends_s,
        board=board._replace(resting=resting, next=shown, of=lane.of),
    )


def own_what(what: What, mine: Comer, versions: Versions, rung: str = "") -> What:
    """One thing to do in somebody's own version, on their own rung where reps climb."""
    what = what.with_reps(rung) if rung and what.climbs else what
    if what.line is None:
        return what
    said, name = versions.of(mine, what.line)[what.nth]
    counts = what.reps and not what.line.tasks[what.nth].amount
    own = f"{what.reps} {said}" if counts else said
    if what.name in said:
        return what._replace(does=own)
    # side, marks and parts were those of the other move
    return what._replace(does=own, side="", notes=(), part="", parts=(), station=name)


def _taken(lane: LaneShown, who: str) -> LaneShown:
    """The lane that somebody is in: who takes turns in it and is not on rests."""
    if not lane.on:
        return lane
    return lane._replace(
        does="work" if lane.on == who else "rest" if lane.does == "work" else lane.does
    )


def _is_mine(row: Row, lanes: tuple[LaneShown, ...], group: str) -> bool:
    """Whether a row is of somebody's group, or of their half."""
    if row.who:
        return any(HALVES.get(lane.name) == row.who for lane in lanes)
    return group in row.groups


def own_effort(plan: ClassPlan, one: Moment, mine: Comer) -> float | None:
    """The effort that a moment asks of somebody: less of it where not all of the hard work is theirs."""
    if not mine.share or one.effort is None or one.effort < HARD or one.kind != "work":
        return one.effort
    return eased(mine.share, one.effort, _hard_before(plan, one))


def _hard_before(plan: ClassPlan, one: Moment) -> int:
    """How many hard works the plan has before a moment."""
    at = (one.block or 0, _step(one))
    steps = (
        (planned.at, nth, step)
        for planned in plan.blocks
        for nth, step in enumerate(planned.floor.steps)
    )
    return sum(
        (where, nth) < at and step.phase == "work" and (step.effort or 0) >= HARD
        for where, nth, step in steps
    )


def _step(one: Moment) -> int:
    """Which step of its block a moment is, from 0."""
    block, _, step = one.place.partition(".")
    return int(step) if block.isdecimal() and step.isdecimal() else 0


def _round(plan: ClassPlan, one: Moment) -> int | None:
    steps = plan.blocks[one.block or 0].floor.steps[_step(one) : _step(one) + 1]
    return steps[0].round if steps else None


def own_box(plan: ClassPlan, one: Moment, mine: Comer) -> str:
    """What somebody goes by in a moment: their own beats, or the effort."""
    if one.kind not in ("work", "steady") or one.block is None:
        return ""
    effort = own_effort(plan, one, mine)
    eases = effort != one.effort
    heart = None if eases else plan.session.blocks[one.block].heart_in(_round(plan, one))
    target = None if mine.effort_only else corridor(mine, effort, heart)
    said = f"effort {number(effort)} of 10, {talk(effort)}" if effort else ""
    if target:
        said = f"{round(target[0])} to {round(target[1])} beats"
        if mine.max_hr is None and (heart is None or heart.of in ("reserve", "max")):
            said += f", highest {mine.assumed.split('highest ')[-1]}: check by talking"
    return f"{said}: this one easier for you" if eases else said
