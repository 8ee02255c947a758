"""What happened in a class, as the Debrief shows it."""

from collections import Counter
from dataclasses import field
from statistics import fmean

from lovrit.core.clock import clock, number
from lovrit.core.crew.person import Comer
from lovrit.core.review.hearts import HeartAfter
from lovrit.core.review.turns import Fold, Trace, Turn, folded, good, person_turns, works
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import Frozen
from lovrit.core.values import Value

CELL_TOP, CELL_BOTTOM = 1.6, -0.6


class Cell(Value):
    """A turn as a small mark: ``how``, its height in percent from the top, and its words."""

    how: str
    y: float = 0
    said: str = ""


class MatrixRow(Value):
    """A person's turns in a row."""

    comer: Comer
    cells: tuple[Cell, ...]
    share: str
    highest: str
    felt: str
    stopped: bool
    turns: tuple[Turn, ...]


class Curve(Value):
    """A turn's path in the fold, in percent of the picture; later ones are darker."""

    path: str
    ink: float


class FoldView(Value):
    """One person's turns laid on one another."""

    name: str
    block: str
    curves: tuple[Curve, ...]
    box: tuple[float, float, float, float] | None
    work: float
    ticks_x: tuple[tuple[float, str], ...]
    ticks_y: tuple[tuple[float, str], ...]
    work_s: int
    rest_s: int
    peak: tuple[float, str] | None
    expected: str = ""


class ScoreSheet(Value):
    """A block that has a score; ``own`` is each person's, as it was said and as it was tapped."""

    block: int
    label: str
    asks: str
    text: str
    people: tuple[tuple[str, str], ...] = ()
    tapped: tuple[tuple[str, str], ...] = ()
    own: dict[int, tuple[str, str]] = field(default_factory=dict)


class DebriefView(Value):
    """The whole Debrief of a class."""

    said: tuple[tuple[str, str], ...]
    columns: tuple[tuple[str, bool], ...]
    rows: tuple[MatrixRow, ...]
    fold: FoldView | None
    chosen: int
    scored: tuple[ScoreSheet, ...]
    laps: int


def debrief_view(
    plan: Frozen,
    state: Class,
    comers: tuple[Comer, ...],
    traces: dict[int, Trace],
    chosen: int | None,
    hearts: dict[int, HeartAfter] | None = None,
) -> DebriefView:
    """Everything that a class says afterwards; ``traces`` are the readings that hold."""
    rows = tuple(_row(plan, state, comer, traces.get(comer.id, [])) for comer in comers)
    done = works(plan.timeline, state)
    columns = _columns(rows) or [(lap.interval, 0) for _, lap in done]

    def block_of(nth: int) -> int:
        return plan.timeline.intervals[columns[nth][0]].block

    person = _chosen(rows, chosen)
    return DebriefView(
        said=tuple(_said(plan, state, rows)),
        columns=tuple(
            (str(nth), nth > 1 and block_of(nth - 1) != block_of(nth - 2))
            for nth in range(1, len(columns) + 1)
        ),
        rows=tuple(_aligned(row, columns) for row in rows),
        fold=_fold(plan, state, person, traces.get(person.id, []), (hearts or {}).get(person.id))
        if person
        else None,
        chosen=person.id if person else 0,
        scored=tuple(_scored(plan, state, comers)),
        laps=len(done),
    )


def held(traces: dict[int, Trace], hearts: dict[int, HeartAfter]) -> dict[int, Trace]:
    """Of each trace the readings that hold."""
    return {who: hearts[who].trace if who in hearts else trace for who, trace in traces.items()}


Column = tuple[int, int]  # an interval, and the how manieth time that somebody was in it


def _keys(row: MatrixRow) -> list[Column]:
    seen: Counter[int] = Counter()
    keys = []
    for turn in row.turns:
        keys.append((turn.interval, seen[turn.interval]))
        seen[turn.interval] += 1
    return keys


def _columns(rows: tuple[MatrixRow, ...]) -> list[Column]:
    """Every turn that anybody had; people in lanes of their own may have had more than others."""
    return sorted({key for row in rows for key in _keys(row)})


def _aligned(row: MatrixRow, columns: list[Column]) -> MatrixRow:
    """A row with a cell in each column, empty where that turn was not theirs."""
    mine = dict(zip(_keys(row), row.cells, strict=True))
    return row.but(cells=tuple(mine.get(key, Cell(how="none")) for key in columns))


def _chosen(rows: tuple[MatrixRow, ...], chosen: int | None) -> Comer | None:
    """The person asked for; else the first with a trace that says something."""
    for row in rows:
        if row.comer.id == chosen:
            return row.comer
    told = (row.comer for row in rows if any(not turn.lost for turn in row.turns))
    return next(told, rows[0].comer if rows else None)


def _said(plan: Frozen, state: Class, rows: tuple[MatrixRow, ...]) -> list[tuple[str, str]]:
    """The read-out line as (words, figure) pairs."""
    if state.started_ms is None:
        return [("It was never started.", "")]
    over = state.over_ms or state.now_ms
    lasted = max(0, round((over - state.started_ms) / 1000))
    planned = plan.timeline.total_s
    said = [("Lasted ", clock(lasted))]
    apart = lasted - planned
    if abs(apart) >= 2:
        said.append((", ", f"{clock(abs(apart))} {'over' if apart > 0 else 'under'}"))
        said.append((" the plan of ", clock(planned)))
    said.append((" · ", f"{len(rows)} came"))
    if state.ever_stopped:
        said.append((", ", f"{len(state.ever_stopped)} stopped"))
        names = [row.comer.name for row in rows if row.stopped]
        said.append((f" ({', '.join(names)})", ""))
    shares = [turn.share for row in rows for turn in row.turns[1:] if turn.share is not None]
    if shares:
        said.append((" · in the corridor ", f"{round(100 * fmean(shares))} %"))
        said.append((" of work after the first turn", ""))
    if state.felt:
        said.append((" · effort felt ", number(round(fmean(state.felt.values()), 1))))
    return said


def _row(plan: Frozen, state: Class, comer: Comer, trace: Trace) -> MatrixRow:
    turns = tuple(person_turns(plan.session, plan.timeline, state, comer, trace))
    shares = [turn.share for turn in turns if turn.share is not None]
    highest = [turn.highest for turn in turns if turn.highest is not None]
    felt = state.felt.get(comer.id)
    return MatrixRow(
        comer=comer,
        cells=tuple(_cell(plan, comer, turn) for turn in turns),
        share=f"{round(100 * fmean(shares))} %" if shares else "",
        highest=str(max(highest)) if highest else "",
        felt=number(felt) if felt is not None else "",
        stopped=comer.id in state.ever_stopped,
        turns=turns,
    )


def _cell(plan: Frozen, comer: Comer, turn: Turn) -> Cell:
    interval = plan.timeline.intervals[turn.interval]
    if turn.stopped:
        return Cell(how="stopped", said="stopped")
    if turn.skipped:
        return Cell(how="skipped", said="left after a moment")
    if comer.effort_only:
        effort = number(interval.effort) if interval.effort is not None else "–"
        return Cell(how="effort", said=effort)
    if turn.lost or turn.average is None:
        return Cell(how="lost", said="strap lost")
    said = f"average {round(turn.average)}, highest {turn.highest}"
    if turn.place is None:
        return Cell(how="plain", y=50, said=said)
    if turn.share is not None:
        said += f", {round(100 * turn.share)} % in the corridor"
    how = "over" if turn.place > 1 else "under" if turn.place < 0 else "in"
    place = min(CELL_TOP, max(CELL_BOTTOM, turn.place))
    return Cell(how=how, y=round((CELL_TOP - place) / (CELL_TOP - CELL_BOTTOM) * 100, 1), said=said)


def _number(lane: str) -> int:
    """The number of the person whose lane it is; nobody's where it is of more than one."""
    return int(lane) if lane.isdecimal() else -1


def _own(state: Class, block: int, comers: tuple[Comer, ...]) -> dict[int, tuple[str, str]]:
    """Each person's score of a block as it was said, and as it was tapped for them."""
    said = {one.person: one.text for one in state.scores if one.block == block}
    tapped = {_number(one.lane): one.said for one in state.taps if one.block == block}
    return {one.id: (said.get(one.id, ""), tapped.get(one.id, "")) for one in comers}


def _scored(plan: Frozen, state: Class, comers: tuple[Comer, ...]) -> list[ScoreSheet]:
    texts = {score.block: score.text for score in state.scores if score.person is None}
    names = {comer.id: comer.name for comer in comers}
    own = [
        (score.block, names[score.person], score.text)
        for score in state.scores
        if score.person in names
    ]
    found = []
    for at, block in enumerate(plan.session.blocks):
        asks = block.asks_for
        if asks:
            theirs = tuple((name, text) for where, name, text in own if where == at)
            taps = tuple(
                (names.get(_number(one.lane), one.lane), one.said)
                for one in state.taps
                if one.block == at
            )
            found.append(
                ScoreSheet(
                    block=at, label=block.head, asks=asks, text=texts.get(at, ""), people=theirs,
                    tapped=taps, own=_own(state, at, comers),
                )
            )  # fmt: skip
    return found


def _fold(
    plan: Frozen, state: Class, comer: Comer, trace: Trace, heart: HeartAfter | None
) -> FoldView | None:
    """The block with the most turns, folded."""
    blocks = [interval.block for interval, _ in works(plan.timeline, state)]
    if not blocks or not trace:
        return None
    block = max(sorted(set(blocks)), key=blocks.count)
    folds = folded(plan.timeline, state, trace, block, comer.id)
    beats = [bpm for fold in folds for _, bpm in fold.points if bpm is not None]
    if not beats:
        return None
    mine = [one for one in plan.timeline.intervals if one.block == block]
    work_s = next(one.seconds for one in mine if one.phase == "work")
    rest_s = next((one.seconds for one in mine if one.phase == "rest"), 0)
    target = next(
        (turn.corridor for turn in person_turns(plan.session, plan.timeline, state, comer, trace)
         if plan.timeline.intervals[turn.interval].block == block), None
    )  # fmt: skip
    expected = _expected(heart, block, len(folds[-1].points)) if heart else None
    return _drawn(comer, plan.session.blocks[block].head, folds, (work_s, rest_s), target, expected)


def _expected(heart: HeartAfter, block: int, length: int) -> Fold | None:
    """What was to be expected of the last turn of a block."""
    last = [one.start_s for one in heart.works if one.block == block][-1:]
    if not last:
        return None
    line = heart.expected[last[0] : last[0] + length]
    return Fold(turn=0, points=tuple((at, round(float(bpm))) for at, bpm in enumerate(line)))


def _drawn(
    comer: Comer,
    label: str,
    folds: list[Fold],
    lengths: tuple[int, int],
    target: tuple[float, float] | None,
    expected: Fold | None = None,
) -> FoldView:
    every = [*folds, expected] if expected else folds
    beats = [bpm for fold in every for _, bpm in fold.points if bpm is not None and good(bpm)]
    top = max([*beats, target[1] if target else 0]) + 6
    bottom = min([*beats, target[0] if target else 300]) - 6
    length = max(1, *(second for fold in folds for second, _ in fold.points))
    scale = _Scale(length, bottom, top)
    box = None
    if target:
        edges = scale.y(target[1]), scale.y(target[0])
        box = (0.0, edges[0], scale.x(min(lengths[0], length)), round(edges[1] - edges[0], 2))
    return FoldView(
        name=comer.name,
        block=label,
        curves=tuple(
            Curve(path=scale.path(fold), ink=round(0.2 + 0.8 * nth / max(1, len(folds) - 1), 2))
            for nth, fold in enumerate(folds)
        ),
        box=box,
        work=scale.x(min(lengths[0], length)),
        ticks_x=tuple(
            (scale.x(s), str(s)) for s in range(0, length + 1, 10 if length <= 90 else 60)
        ),
        ticks_y=tuple(
            (scale.y(b), str(b)) for b in range(-(-int(bottom) // 10) * 10, int(top) + 1, 10)
        ),
        work_s=lengths[0],
        rest_s=lengths[1],
        peak=_peak(folds, lengths[0], scale),
        expected=scale.path(expected) if expected else "",
    )


class _Scale:
    def __init__(self, length: int, bottom: float, top: float) -> None:
        self.length, self.bottom, self.top = length, bottom, top

    def x(self, second: float) -> float:
        return round(second / self.length * 100, 2)

    def y(self, bpm: float) -> float:
        return round((self.top - bpm) / (self.top - self.bottom) * 100, 2)

    def path(self, fold: Fold) -> str:
        """A line that breaks where the strap was lost."""
        parts, pen = [], "M"
        for second, bpm in fold.points:
            if bpm is None:
                pen = "M"
                continue
            parts.append(f"{pen}{self.x(second) * 10:.1f} {self.y(bpm) * 10:.1f}")
            pen = "L"
        return "".join(parts)


def _peak(folds: list[Fold], work_s: int, scale: _Scale) -> tuple[float, str] | None:
    """Where the last turn that was worked to its end peaks: it lags, so usually some seconds into the rest."""
    whole = [fold for fold in folds if fold.points and fold.points[-1][0] >= work_s]
    told = [(bpm, second) for second, bpm in whole[-1].points if bpm is not None] if whole else []
    if not told:
        return None
    bpm, second = max(told, key=lambda one: (one[0], -one[1]))
    after = second - work_s
    where = f"{after} s into the rest" if after > 0 else f"{-after} s before the end of work"
    return scale.x(second), f"last whole turn's peak, {bpm}, {where}"
