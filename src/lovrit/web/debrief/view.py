"""What happened in a class, as the Debrief shows it."""

from collections import Counter
from dataclasses import field
from statistics import fmean
from typing import NamedTuple

from lovrit.core.blocks.block import Block
from lovrit.core.clock import clock, number
from lovrit.core.crew.person import Comer
from lovrit.core.review.beside import Beside, beside
from lovrit.core.review.hearts import HeartAfter
from lovrit.core.review.turns import Trace, Turn, person_turns, works
from lovrit.core.run.account import Class
from lovrit.core.run.frozen import Frozen
from lovrit.core.values import Value
from lovrit.web.debrief.folds import FoldView, fold_view

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


class Dot(NamedTuple):
    """A score in its strip: percent along it, pixels from its top, who and what."""

    x: float
    y: float
    said: str


class Strip(NamedTuple):
    """Scores beside the forecast's band, in percent of the width; those that would lie on one another are stacked."""

    band: tuple[float, float]
    ends: tuple[str, str]
    dots: tuple[Dot, ...]
    height: float


NEAR, STEP_PX, MOST_UP = (
    2.6,
    11.0,
    6,
)  # percent within which dots would touch, pixels from one to the next, how many up


def strip_of(found: Beside | None) -> Strip | None:
    """As it is drawn, the least first."""
    if found is None:
        return None
    levels: list[list[float]] = []
    placed = []
    for along, said in sorted(found.dots):
        x = round(100 * along, 1)
        level = next((nth for nth, some in enumerate(levels) if x - some[-1] >= NEAR), len(levels))
        level = min(level, MOST_UP)
        if level == len(levels):
            levels.append([])
        levels[level].append(x)
        placed.append((x, level, said))
    height = STEP_PX * (len(levels) + 1)
    band = (round(100 * found.band[0], 1), round(100 * found.band[1], 1))
    dots = tuple(Dot(x, height - STEP_PX * (level + 1), said) for x, level, said in placed)
    return Strip(band, found.ends, dots, height)


class ScoreSheet(Value):
    """A block that has a score; ``own`` is each person's: as it was said, as it was tapped, what coaches read in it.

    ``tapped`` are lanes that are nobody's own; ``beside`` is where scores lie against the forecast.
    """

    block: int
    label: str
    asks: str
    text: str
    read: str = ""
    tapped: tuple[tuple[str, str], ...] = ()
    own: dict[int, tuple[str, str, str]] = field(default_factory=dict)
    beside: Strip | None = None


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
        fold=fold_view(
            plan, state, person, traces.get(person.id, []), (hearts or {}).get(person.id)
        )
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
    planned = plan.plan().total_s  # as the floor and the paragraph tell it
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
        cells=tuple(_cell(plan, comer, turn, bool(trace)) for turn in turns),
        share=_share(shares, worn=bool(trace) or comer.effort_only),
        highest=str(max(highest)) if highest else "",
        felt=number(felt) if felt is not None else "",
        stopped=comer.id in state.ever_stopped,
        turns=turns,
    )


def _share(shares: list[float], *, worn: bool) -> str:
    if shares:
        return f"{round(100 * fmean(shares))} %"
    return "" if worn else "no strap"


def _cell(plan: Frozen, comer: Comer, turn: Turn, wore: bool) -> Cell:
    interval = plan.timeline.intervals[turn.interval]
    if turn.stopped:
        return Cell(how="stopped", said="stopped")
    if turn.skipped:
        return Cell(how="skipped", said="left after a moment")
    if comer.effort_only:
        effort = number(interval.effort) if interval.effort is not None else "–"
        return Cell(how="effort", said=effort)
    if turn.lost or turn.average is None:
        return Cell(how="lost", said="strap lost") if wore else Cell(how="none", said="no strap")
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


def _own(
    state: Class, at: int, block: Block, comers: tuple[Comer, ...]
) -> dict[int, tuple[str, str, str]]:
    """Each person's score of a block: as it was said, as it was tapped for them, what coaches read in it."""
    said = {one.person: one.text for one in state.scores if one.block == at}
    tapped = {_number(one.lane): one.said for one in state.taps if one.block == at}
    return {
        one.id: (
            text := said.get(one.id, ""),
            tapped.get(one.id, ""),
            block.reads(text) if text else "",
        )
        for one in comers
    }


def _scored(plan: Frozen, state: Class, comers: tuple[Comer, ...]) -> list[ScoreSheet]:
    texts = {one.block: one.text for one in state.scores if one.person is None}
    names = {one.id: one.name for one in comers}
    return [
        _sheet(plan, state, comers, at, texts.get(at, ""), names)
        for at, block in enumerate(plan.session.blocks)
        if block.asks_for
    ]


def _sheet(
    plan: Frozen, state: Class, comers: tuple[Comer, ...], at: int, text: str, names: dict[int, str]
) -> ScoreSheet:
    block = plan.session.blocks[at]
    own = _own(state, at, block, comers)
    taps = [one for one in state.taps if one.block == at and _number(one.lane) not in names]
    scores = [
        (names[who], said or tapped) for who, (said, tapped, _) in own.items() if said or tapped
    ]
    return ScoreSheet(
        block=at, label=block.head, asks=block.asks_for or "", text=text, read=block.reads(text) if text else "",
        tapped=tuple((one.lane, one.said) for one in taps), own=own,
        beside=strip_of(beside(block, plan.timeline.blocks[at].forecast, scores or [("", text)])),
    )  # fmt: skip
