"""A class turned into what its screens are told. The wall gets groups, stations and time, never a heart or a name."""

from collections import Counter
from dataclasses import dataclass, field
from typing import Any, Literal

from lovrit.core.clock import clock, number
from lovrit.core.crew.groups import letter
from lovrit.core.crew.person import Comer
from lovrit.core.run.account import done_taps
from lovrit.core.run.board import Row, What
from lovrit.core.run.classplan import ClassPlan
from lovrit.core.run.events.kinds import KNOWN
from lovrit.core.run.fold import Fold
from lovrit.core.run.foretold import LaneShown, Moment, foretold
from lovrit.core.run.frozen import Frozen
from lovrit.core.run.going import Going, Happening
from lovrit.core.run.late import due_s, early_s, ends_at_s, late_s, ways
from lovrit.core.slate.line import Line
from lovrit.core.slate.written import kit_words, ways_said
from lovrit.house.own import Versions, own_box, own_moment

Watcher = Literal["coach", "wall"]
HEARD = 16  # presses that a screen is told the class has heard: more than can be under way at once
SOON, MANY = 8, 400  # moments that are told with every press, and those that follow at leisure


@dataclass(frozen=True)
class Told:
    """What is told of: a class that was opened at so many ms since 1970, its fold, how it stands, who came.

    ``names`` where the club lets the wall show first names. What is foretold, and each person's own words, are worked
    out once for all screens that ask.
    """

    fold: Fold
    going: Going
    opened_ms: int
    comers: tuple[Comer, ...]
    names: bool = False
    now_ms: int = 0
    versions: Versions | None = None
    _foretold: dict[int, tuple[Moment, ...]] = field(default_factory=dict)

    def ms(self, seconds: float) -> int:
        """Seconds since the class was opened as a moment."""
        return self.opened_ms + round(seconds * 1000)

    def moments(self, most: int) -> tuple[Moment, ...]:
        """The moments that are foretold, so many at most."""
        if most not in self._foretold:
            self._foretold[most] = foretold(self.going, most) if self.going.phase != "over" else ()
        return self._foretold[most]

    def own(self, one: Moment, mine: Comer, out: bool) -> Moment:
        """A moment as it is for one person."""
        return own_moment(one, mine, self.versions or Versions(self.going.plan.library), out)


def state_object(
    live: Told, now_ms: int, screen: str, most: int = SOON, mine: Comer | None = None
) -> dict[str, Any]:
    """Where a class is and what comes, for a screen that goes on from there by itself. Times in ms since 1970.

    ``mine`` where it is in somebody's hand: then it tells of them alone.
    """
    going = live.going
    moments = live.moments(most)
    table = _Table()
    if mine:
        mine = next((one for one in live.comers if one.id == mine.id), mine)
        out = str(mine.id) in going.stopped
        moments = tuple(live.own(one, mine, out) for one in moments)
    told = [_moment(live, one, table, screen) for one in moments]
    if mine:
        boxes = (own_box(going.plan, one, mine) for one in moments)
        told = [one | {"box": box} for one, box in zip(told, boxes, strict=True)]
    shown: dict[str, Any] = {
        "now_ms": now_ms,
        "phase": going.phase,
        "moments": told,
        "rows": table.rows,
        "groups": going.groups,
        "whole": bool(moments) and moments[-1].kind == "over",
        "total_s": going.plan.total_s,
        "ends_ms": live.ms(ends_at_s(going)),
        "started_ms": None if going.started_s is None else live.ms(going.started_s),
        "over_ms": None if going.over_s is None else live.ms(going.over_s),
        "rounds": _rounds(going),
        "shown": {"what": going.shown[0], "text": going.shown[1]},
    }
    if screen != "wall":
        shown["heard"] = list(live.fold.seen)[-HEARD:]
    if screen == "coach":
        shown |= _for_the_coach(live)
    if mine:
        shown["mine"] = _mine(live, mine)
    if screen == "wall" and live.names:
        shown["names"] = _names(live)
    return shown


def _mine(live: Told, mine: Comer) -> dict[str, Any]:
    """What only their own page is told: their group, whether they have stopped, what they tapped and can take back."""
    going, who = live.going, str(mine.id)
    tap = own_tap(live.fold, going, who)
    took = [took for block, lane, took in done_taps(going) if block == going.at and lane == who]
    return {
        "group": letter(mine.group),
        "out": who in going.stopped,
        "done": clock(round(took[-1])) if took and tap and tap.kind == "done" else "",
        "undo": None if tap is None else {"of": tap.id, "said": KNOWN[tap.kind].undo},
        "felt": going.felt.get(who),
    }


def own_tap(fold: Fold, going: Going, who: str) -> Happening | None:
    """The last tap that somebody made for themselves, while the block is on in which they did."""
    begun = going.block_s
    mine = (
        one
        for one in reversed(fold.counted)
        if one.kind in ("done", "in", "change") and one.fields.get("person") == who
    )
    last = next(mine, None)
    return last if last and last.at_s >= begun and going.phase in ("on", "held") else None


def _names(live: Told) -> dict[str, list[str]]:
    """First names by group of those who take part, as people call each other: nothing else of anybody."""
    called = {one.id: one.name.split() or [one.initials] for one in live.comers}
    firsts = Counter(first for first, *_ in called.values())
    found: dict[str, list[str]] = {}
    for comer in live.comers:
        who = live.going.people.get(str(comer.id))
        if who and str(comer.id) not in live.going.stopped:
            first, *more = called[comer.id]
            said = f"{first} {more[-1][0]}." if more and firsts[first] > 1 else first
            found.setdefault(who.group, []).append(said)
    return dict(sorted(found.items()))


def _for_the_coach(live: Told) -> dict[str, Any]:
    """What only the coach is told: lateness and ways to end on time, who has stopped, what can be taken back."""
    going = live.going
    due = due_s(going)
    last = _last(live)
    return {
        "due_ms": None if due is None else live.ms(due),
        "late_s": late_s(going),
        "early_s": early_s(going),
        "ways": [
            {"way": way.way, "text": way.text, "ends_ms": live.ms(way.ends_at_s)}
            for way in ways(going)
        ],
        "undo": None
        if last is None
        else {"of": last.id, "said": KNOWN[last.kind].undo, "by": last.fields.get("by", "")},
        "stopped": sorted(int(who) for who in going.stopped),
        "in_group": {one.id: letter(one.group) for one in live.comers},
        "marks": len(going.marks),
        "may_go_on": going.ended is not None,
        "instead": dict(going.moves),
    }


def _last(live: Told) -> Happening | None:
    """The press that an undo would take back: the last one, where it is of a kind that can be."""
    last = next(
        (one for one in reversed(live.fold.counted) if KNOWN[one.kind].undo is not None), None
    )
    return last if last and KNOWN[last.kind].undo else None


class _Table:
    """Rows as they are told, each set of them once: a class says the same again and again."""

    def __init__(self) -> None:
        self.rows: list[list[dict[str, Any]]] = []
        self._known: dict[tuple[Row, ...], int] = {}

    def of(self, rows: tuple[Row, ...]) -> int:
        """The place of some rows."""
        if rows not in self._known:
            self._known[rows] = len(self.rows)
            self.rows.append([_row(row) for row in rows])
        return self._known[rows]


def _rounds(going: Going) -> dict[int, dict[str, int]]:
    """Rounds that are counted, block by block: each is shown in its own alone."""
    found: dict[int, dict[str, int]] = {}
    for (at, name), many in going.rounds.items():
        found.setdefault(at, {})[name] = many
    return found


def _moment(live: Told, one: Moment, table: _Table, screen: str) -> dict[str, Any]:
    told: dict[str, Any] = {
        "at": live.ms(one.at_s),
        "kind": one.kind,
        "place": one.place,
        "block": one.block,
        "says": one.says,
        "shape": one.shape,
        "where": one.where if screen == "coach" else one.board.of,
        "effort": number(one.effort) if one.effort is not None else None,
        "up": one.up,
        "began": live.ms(one.began_s),
        "least": one.least_s,
        "counts": one.counts,
        "zero": live.ms(one.zero_s),
        "cap": one.cap_s,
        "beat": one.beat,
        "usual": None if one.usual_s is None else live.ms(one.usual_s),
        "moves_on": one.moves_on,
        "last": one.last,
        "rows": table.of(one.board.rows),
        "next": table.of(one.board.next) if one.board.next else None,
        "resting": one.board.resting,
        "first": one.board.first,
        "rest": " · ".join(filter(None, (one.board.rest, one.board.note))),
        "rungs": dict(one.board.rungs),
        "cues": [[live.ms(cue.at_s), cue.kind, cue.say] for cue in one.cues],
    }
    if one.lanes:
        told["lanes"] = [_lane(live, lane, screen) for lane in one.lanes]
    return told


def _lane(live: Told, lane: LaneShown, screen: str) -> dict[str, Any]:
    """A lane; one of a person goes by initials on the wall."""
    comer = _comer(live, lane.name)
    said = lane.name if comer is None else _called(comer, screen)
    on = _comer(live, lane.on)
    return {
        "lane": lane.name,
        "said": said,
        "group": letter(comer.group) if comer else lane.name[:1],
        "does": lane.does,
        "since": live.ms(lane.since_s),
        "ends": None if lane.ends_s is None else live.ms(lane.ends_s),
        "takes": lane.takes,
        "nth": lane.nth,
        "on": _called(on, screen) if on else "",
        "changes": lane.changes,
    }


def _comer(live: Told, number: str) -> Comer | None:
    return next((one for one in live.comers if str(one.id) == number), None)


def _called(comer: Comer, screen: str) -> str:
    return comer.name if screen == "coach" else comer.initials


def _row(row: Row) -> dict[str, Any]:
    return {
        "nth": row.nth,
        "station": row.station,
        "who": row.who,
        "groups": list(row.groups),
        "then": list(row.then),
        "what": [_what(one) for one in row.what],
    }


def _what(one: What) -> dict[str, Any]:
    """One thing to do, without what is empty."""
    told = {
        "does": one.does,
        "reps": one.reps,
        "side": one.side,
        "notes": ", ".join(one.notes),
        "part": one.part,
        "parts": list(one.parts),
        "label": one.label,
        "opens": one.opens,
        "climbs": one.climbs,
        "station": one.station,
    }
    return {name: value for name, value in told.items() if value}


def strip_object(plan: Frozen) -> list[list[Any]]:
    """The strip above: each interval's seconds, phase, and place."""
    return [
        [one.seconds, one.phase, f"{block}.{step}"]
        for one, (block, step) in zip(plan.timeline.intervals, plan.steps, strict=True)
    ]


def move_cards(plan: ClassPlan) -> list[dict[str, Any]]:
    """Each move of a class once, as people are shown it: its name, one thing to see, ways to do it, its kit."""
    lines = {
        line.name: line for block in plan.blocks for line in block.block.moves if not line.is_rest
    }
    return [_card(line, plan) for line in lines.values()]


def _card(line: Line, plan: ClassPlan) -> dict[str, Any]:
    """The line's own ways; where it has none, the move's."""
    move = plan.library.find(line.tasks[0].name)
    own = [said for task in line.tasks for said in ways_said(task)]
    usual = [f"easier: {', or '.join(move.easier[:2])}"] if move and move.easier else []
    return {
        "station": line.name,
        "cue": move.cue if move else "",
        "ways": own or usual,
        "kit": [kit_words(kit) for task in line.tasks for kit in task.kit],
    }
