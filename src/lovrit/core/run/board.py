"""The board: what a moment of a class says, once for all that show or speak it.

What is to be done, by whom, how it ends, which of how many, what then. Walls, hands, voice and files read this and
nothing else. No heart, no health, no version by person: that is put in where one person is told.
"""

from collections.abc import Iterator
from typing import Any, NamedTuple

from lovrit.core.blocks.block import Block, side_in
from lovrit.core.blocks.floor import FloorStep
from lovrit.core.clock import clock
from lovrit.core.run.classplan import PlannedBlock
from lovrit.core.run.going import Going
from lovrit.core.run.lane import Lane
from lovrit.core.run.parts import parts_of
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import amount, load, notes_of, task_said

EVERYBODY, EVERYONE = "everybody", "all"  # what a row is called, and how a press means all of them
CLOSED = "closed: rest here"  # put in a move's place
RESTS, DONE = "rest", "done"
SIDES = {"each": "each side", "left": "left", "right": "right"}
HALVES = {"first": "first half", "second": "second half"}
PAUSES = {"break": "break", "change": "change stations"}
WORKS = ("work", "steady", "lead-in")


class What(NamedTuple):
    """One thing to do. ``does`` is how much of what with which load; the rest of it stands beside that.

    ``part`` is the part of it that is on now, of all its ``parts``; ``opens`` where a “then” stands above it; ``line``
    and ``nth`` are where it comes from, so that each person's own version of it can be told. ``climbs`` where its reps
    are those of a rung. ``station`` is what its line is called, by which its drawing is found.
    """

    does: str
    reps: str = ""
    name: str = ""
    load: str = ""
    side: str = ""
    notes: tuple[str, ...] = ()
    part: str = ""
    parts: tuple[str, ...] = ()
    label: str = ""
    opens: bool = False
    climbs: bool = False
    line: Line | None = None
    nth: int = 0
    station: str = ""

    @property
    def text(self) -> str:
        """All of it, as it is read off a wall."""
        said = ", ".join(filter(None, (self.does, self.side, *self.notes)))
        return " ".join(filter(None, ("then" if self.opens else "", self.label, said)))

    def with_reps(self, reps: str) -> "What":
        """The same on another rung."""
        rest = self.does.removeprefix(self.reps).strip()
        return self._replace(does=f"{reps} {rest}", reps=reps)


class Row(NamedTuple):
    """A station: what is done there, by which groups now, and which come then; ``nth`` where it is one of several.

    ``who`` is a half that does it, where that is no group.
    """

    station: str
    what: tuple[What, ...]
    groups: tuple[str, ...]
    then: tuple[str, ...] = ()
    side: str | None = None
    nth: int = 0
    who: str = ""

    @property
    def does(self) -> tuple[str, ...]:
        """What is done there, without sides and notes."""
        return tuple(one.does for one in self.what)

    @property
    def part(self) -> str | None:
        """The part that is on, where its work has parts."""
        return next((one.part for one in self.what if one.part), None)


class Board(NamedTuple):
    """What a moment says. ``rows`` is what is on; ``next`` the work behind it, which is what is shown in a rest.

    ``first`` is what comes before that: a pause with its seconds, another beat. ``rest`` is the rest that is usual
    after a set, ``note`` what is said to people while it is done; ``whom`` names groups, halves, pairs or people;
    ``rungs`` are the reps that each group, pair or person has come to, where reps climb and are counted.
    """

    rows: tuple[Row, ...] = ()
    next: tuple[Row, ...] = ()
    resting: bool = False
    first: str = ""
    whom: tuple[str, ...] = ()
    ends: str = "clock"
    of: str = ""
    rest: str = ""
    note: str = ""
    rungs: tuple[tuple[str, str], ...] = ()

    @property
    def what(self) -> tuple[What, ...]:
        """Everything that is to be done, station by station; in a rest, to rest."""
        if self.resting or not self.rows:
            return (What(RESTS, name=RESTS),)
        return tuple(one for row in self.rows for one in row.what)

    @property
    def coming(self) -> tuple[Row, ...]:
        """What is shown in a rest: what follows it."""
        return self.next if self.resting else ()

    @property
    def then(self) -> tuple[str, ...]:
        """What comes, in words."""
        texts = (one.text for row in self.next for one in row.what)
        return tuple(filter(None, (self.first, *texts)))


def board_of(state: Going, lane: Lane) -> Board:
    """The board of a class that is on, told by a lane."""
    planned, step = state.plan.blocks[state.at], step_now(state, lane)
    resting = step.phase not in WORKS
    following = next(_later(state, lane), None)
    work = next((one for one in _later(state, lane) if one[1].phase in WORKS), None)
    beat = work[1].beat if work else None
    return Board(
        rows=rows_of(state, planned, step, lane),
        next=rows_of(state, *work) if work and not beat else (),
        resting=resting,
        first=f"{beat} a minute" if beat else _pause(following, resting),
        whom=_whom(state),
        ends="heart" if step.gate else "tap" if step.tap else "clock",
        of=of_words(state, planned, step),
        rest=planned.block.rest_said,
        note=planned.block.note,
        rungs=tuple(_rungs(state, planned.block)),
    )


def step_now(state: Going, lane: Lane) -> FloorStep:
    """The step that a lane is in; where it holds several sets, in the one that usual people are at."""
    step = lane.steps[lane.at]
    into = state.ct - lane.began_ct
    sets = [one for one in step.inside if one.phase == "work" and one.at_s <= into]
    return step._replace(round=sets[-1].round) if sets else step


# what is on, and for whom


def rows_of(
    state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane | None = None
) -> tuple[Row, ...]:
    """Who is where with what, and who comes then; one row for all where everybody does the same.

    Without a lane it is told of a step that is still to come.
    """
    groups = tuple(state.groups) if state.people else ("A",)
    if planned.block.moves_people:
        return _stations(state, planned, step, lane, list(groups))
    if lane is not None and state.floor.lanes == "waves":
        return tuple(_half(state, planned, one) for one in state.lanes)
    return (_together(state, planned, step, lane, groups),)


def _together(
    state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane | None, groups: tuple[str, ...]
) -> Row:
    """One row for those who do the same."""
    lines = lines_of(planned.block, step)
    what = tuple(_what(state, planned.block, step, lines, lane))
    side = step.side or next((side_in(line, step.round or 1) for line in lines), None)
    name = lines[0].name if len(lines) == 1 else EVERYBODY
    return Row(state.moves.get(name, name), what, groups, side=side)


def _half(state: Going, planned: PlannedBlock, lane: Lane) -> Row:
    """The row of a half: its own task; one that waits is told what it begins with."""
    of = {state.people[one].group for one in lane.people if one in state.people}
    whole = tuple(
        name
        for name in state.groups
        if name in of
        and all(one.id in lane.people for one in state.taking_part if one.group == name)
    )
    who = HALVES.get(lane.name, lane.name)
    if lane.done:
        return Row(who, (What(DONE, name=DONE),), whole, who=who)
    return _together(state, planned, lane.steps[lane.at], lane, whole)._replace(who=who)


def lines_of(block: Block, step: FloorStep) -> list[Line]:
    """The lines that are on: the one of this step, else all of them."""
    if block.in_turns and block.moves:
        return [block.moves[((step.turn or 1) - 1) % len(block.moves)]]
    if step.move is not None and block.moves and not block.races:
        return [block.moves[step.move]]
    return list(block.moves)


def _what(
    state: Going, block: Block, step: FloorStep, lines: list[Line], lane: Lane | None
) -> Iterator[What]:
    """What is done on lines by everybody at once."""
    reps = block.reps_said(step, max((many for _, many in counted(state)), default=0))
    if not lines:
        yield What(block.said_in(step), reps=reps, name=block.name)
    for line in lines:
        label = block.label_of(block.moves.index(line)) if len(lines) > 1 else ""
        own = "" if line.is_rest else reps
        yield from _tasks(state, block, (line, step), lane, own, label)


def _tasks(
    state: Going,
    block: Block,
    of: tuple[Line, FloorStep],
    lane: Lane | None,
    reps: str = "",
    label: str = "",
) -> Iterator[What]:
    """A line of a step, task by task; at a station that was closed nothing."""
    line, step = of
    instead = state.moves.get(line.name, "")
    if instead == CLOSED:
        yield What(CLOSED, name=CLOSED)
        return
    said = put_in_place(block.line_in(line, step), instead)
    side = SIDES.get(step.side or side_in(line, step.round or 1) or "", "")
    for nth, task in enumerate(said.tasks):
        climbs = bool(reps) and not task.amount
        part, parts = _parts(state, line, step, lane) if not (instead or nth) else ("", ())
        yield What(
            does=f"{reps} {task_said(task)}" if climbs else task_said(task),
            reps=amount(task.amount) if task.amount else reps,
            name=task.name,
            load=load(task.load) if task.load else "",
            side=side if task.side != "none" or len(said.tasks) == 1 else "",
            notes=tuple(notes_of(task)),
            part=part,
            parts=parts,
            label="" if nth else label,
            opens=line.opens_part and not nth,
            climbs=climbs and bool(block.rung(0)),
            line=said,
            nth=nth,
            station=instead or line.name,
        )


def put_in_place(line: Line, other: str) -> Line:
    """A line with another move for the rest of the class, whose ways are that move's."""
    if not other:
        return line
    gone: dict[str, Any] = {
        "easier": (),
        "harder": (),
        "alternatives": (),
        "parts": (),
        "load": None,
    }
    return line.but(tasks=tuple(task.but(name=other, **gone) for task in line.tasks))


def _parts(
    state: Going, line: Line, step: FloorStep, lane: Lane | None
) -> tuple[str, tuple[str, ...]]:
    """The part of a work that is on, the first of one to come, and all of them."""
    length = lane.length_s if lane else step.clock_s
    if not line.tasks[0].parts or length is None or step.phase != "work":
        return "", ()
    begins = parts_of(line, length, state.plan.library)
    spent = state.ct - lane.began_ct if lane else 0.0
    now = [said for at, said in begins if at <= spent + 1e-6]
    return (now or [begins[0][1]])[-1], tuple(said for _, said in begins)


def _stations(
    state: Going, planned: PlannedBlock, step: FloorStep, lane: Lane | None, groups: list[str]
) -> tuple[Row, ...]:
    """Every station of a rotation. In the last rest nobody is sent on."""
    block, turn = planned.block, step.turn or 1
    later = lane.steps[lane.at + 1 :] if lane else ()
    following = next((one for one in later if one.phase == "work"), None)
    spots = dict.fromkeys(state.letters, False) | dict.fromkeys(groups, True)
    here = _at(block, spots, turn)
    then = _at(block, spots, following.turn or turn) if following else here
    moves = following is not None and here != then
    return tuple(
        Row(
            state.moves.get(line.name, line.name),
            tuple(_tasks(state, block, (line, _at_line(block, step, nth)), lane)),
            here[nth],
            then[nth] if moves else (),
            block.side_of(nth, step.round or 1),
            nth + 1,
        )
        for nth, line in enumerate(block.moves)
    )


def _at_line(block: Block, step: FloorStep, nth: int) -> FloorStep:
    """A step as it is at a station: on the side that is asked for there."""
    return step._replace(side=block.side_of(nth, step.round or 1))


def _at(block: Block, groups: dict[str, bool], turn: int) -> list[tuple[str, ...]]:
    """Which groups are at each station; one that nobody is in any more keeps its place, and isn't shown."""
    found: list[list[str]] = [[] for _ in block.moves]
    for nth, (name, there) in enumerate(groups.items()):
        if there:
            found[block.line_of(nth, turn)].append(name)
    return [tuple(one) for one in found]


def _whom(state: Going) -> tuple[str, ...]:
    """Who does it: those whose lane works, or all groups where one clock leads them."""
    if state.floor.lanes == "all":
        return tuple(state.groups) if state.people else ("A",)
    working = [lane for lane in state.active if lane.step and lane.step.phase in WORKS]
    return tuple(HALVES.get(lane.name, lane.name) for lane in working)


# how it ends, which of how many, what then


def counted(state: Going) -> list[tuple[str, int]]:
    """Rounds that are counted in the block that is on, by whoever they were counted for."""
    return sorted((name, many) for (at, name), many in state.rounds.items() if at == state.at)


def _rungs(state: Going, block: Block) -> Iterator[tuple[str, str]]:
    """The rung that each group has come to, and each pair or person whose rounds are counted apart."""
    if not block.rung(0):
        return
    many = dict(counted(state))
    for name in sorted({*many, *state.groups} - {EVERYONE}):
        yield name, block.rung(many.get(name, 0) + many.get(EVERYONE, 0))


def of_words(state: Going, planned: PlannedBlock, step: FloorStep) -> str:
    """Which of how many: the time of a nest, the round and turn; of a race what it is."""
    return ", ".join(filter(None, (time_of(state, planned.at), _of(state, planned, step))))


def _of(state: Going, planned: PlannedBlock, step: FloorStep) -> str:
    block = planned.block
    if step.tap == "done" or (block.races and not block.in_turns):
        cap = None if planned.floor.cap_is_clock else planned.floor.cap_s
        said = _rungs_said(state, block) or block.head
        return said if cap is None else f"{said}, cap {clock(cap)}"
    if not (step.round or step.turn):
        return ""
    return block.where(step.turn, step.round, (planned.turns, planned.rounds))


def _rungs_said(state: Going, block: Block) -> str:
    """Who is at which rung, where that is counted."""
    if not block.rung(0):
        return ""
    at = dict(counted(state))
    groups = {name: 1 + at.get(name, 0) for name in state.groups}
    most = 1 + max(at.values(), default=0)
    if not at:
        return block.head
    if set(groups.values()) == {most} or not set(at) & set(groups):
        return f"rung {most}"
    return ", ".join(f"{name} at rung {nth}" for name, nth in groups.items())


def time_of(state: Going, at: int) -> str:
    """Of blocks that are done several times, which time it is."""
    nest = state.plan.session.nest_of(at)
    if nest is None:
        return ""
    return f"time {(at - nest.first) // nest.step + 1} of {nest.times}"


def _later(state: Going, lane: Lane) -> Iterator[tuple[PlannedBlock, FloorStep]]:
    here = state.plan.blocks[state.at]
    yield from ((here, step) for step in lane.steps[lane.at + 1 :])
    for planned in state.plan.blocks[state.at + 1 :]:
        yield from ((planned, step) for step in planned.floor.steps)


def _pause(following: tuple[PlannedBlock, FloorStep] | None, resting: bool) -> str:
    """A rest, break or change that comes, with its length."""
    if following is None or resting or following[1].phase in WORKS:
        return ""
    step = following[1]
    word = PAUSES.get(step.phase, RESTS)
    if step.gate:
        return f"{word} until {step.gate.bpm}"
    return f"{word} {clock(step.clock_s)}" if step.clock_s else word
