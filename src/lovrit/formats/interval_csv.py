"""CSV (RFC 4180): an interval a row; and a session rebuilt from such rows."""

import csv
import io
from collections.abc import Iterable
from itertools import groupby
from typing import NamedTuple

from lovrit.core.session.writer import block_lines
from lovrit.core.slate.written import short
from lovrit.core.timeline.plan import Plan
from lovrit.formats.cells import Reader, told_apart

COLUMNS = ("start_s", "end_s", "phase", "block", "round", "turn", "station", "effort", "line")
PHASES = frozenset({"work", "rest", "break", "change", "lead-in", "steady"})


class Imported(NamedTuple):
    """A slate made from a file, and what of the file was not understood, a sentence each."""

    slate: str
    left_out: tuple[str, ...]


def to_csv(plan: Plan) -> str:
    """A plan's intervals, a row each; ``line`` is the block's line on the slate."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    heads = [block_lines(block)[0] for block in plan.session.blocks]
    for one in plan.timeline.intervals:
        shown = (
            one.start_s,
            one.end_s,
            one.phase,
            one.block,
            one.round,
            one.turn,
            told_apart(one.station or ""),
            one.effort,
        )
        writer.writerow(
            ["" if value is None else value for value in shown] + [told_apart(heads[one.block])]
        )
    return out.getvalue()


class _Row(NamedTuple):
    seconds: int
    phase: str
    block: str
    station: str
    line: str


def from_csv(text: str) -> Imported:
    """A slate from rows of intervals; rows that say no length or phase are left out and named.

    Raises:
        NotCsv: if it is no CSV.
    """
    reader = Reader(text)
    missing = {"start_s", "end_s", "phase"} - set(reader.columns)
    if missing:
        return Imported(
            "", (f"The first row has to name its columns; missing: {', '.join(sorted(missing))}.",)
        )
    rows, left_out = [], []
    for number, row in enumerate(reader, 2):
        made = _row(row)
        if made:
            rows.append(made)
        else:
            left_out.append(f"Row {number} says no start, end and phase that fit together.")
    blocks = [_block(list(mine)) for _, mine in groupby(rows, key=lambda row: row.block)]
    return Imported("\n\n".join(blocks) + ("\n" if blocks else ""), tuple(left_out))


def _row(row: dict[str, str | None]) -> _Row | None:
    try:
        seconds = int(float(row["end_s"] or "")) - int(float(row["start_s"] or ""))
    except (ValueError, OverflowError):
        return None
    phase = (row["phase"] or "").strip().lower()
    if seconds <= 0 or phase not in PHASES:
        return None
    extra = {name: (row.get(name) or "").strip() for name in ("block", "station", "line")}
    return _Row(seconds, phase, **extra)


def _block(rows: list[_Row]) -> str:
    """A block's lines: the line that came with it, or one made from its lengths."""
    stations = [row.station for row in rows if row.station and row.phase == "work"]
    names = list(dict.fromkeys(stations))
    head = rows[0].line or _made(rows, len(names))
    if rows[0].phase == "steady" or rows[0].phase == "break":
        names = []
    return "\n".join([head, *(f"  {name}" for name in names)])


def _made(rows: list[_Row], stations: int) -> str:
    total = sum(row.seconds for row in rows)
    if all(row.phase == "break" for row in rows):
        return f"rest {total}"
    works = [row.seconds for row in rows if row.phase == "work"]
    if not works:
        return f"steady {total}"
    pairs = list(_pairs(rows))
    if len(set(pairs)) == 1 and stations > 1 and len(pairs) % stations == 0:
        return f"{len(pairs) // stations} rounds of {pairs[0]}"
    if len(set(pairs)) == 1:
        return f"{len(pairs)} x {pairs[0]}"
    return f"1 x ({' '.join(pairs)})"


def _pairs(rows: list[_Row]) -> Iterable[str]:
    for at, row in enumerate(rows):
        if row.phase == "work":
            after = rows[at + 1] if at + 1 < len(rows) else None
            rest = after.seconds if after and after.phase != "work" else 0
            yield f"{short(row.seconds)}/{short(rest)}"
