"""A class as texts that other programs read: readings, hearts, works, scores, what was said; told apart by columns."""

import csv
import io
import json
from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, datetime
from typing import Any

import numpy as np
from fastapi.responses import PlainTextResponse

from lovrit.core.crew.groups import letter
from lovrit.core.review.figures import Figures
from lovrit.core.review.hearts import HeartAfter
from lovrit.core.review.turns import Trace
from lovrit.formats.cells import told_apart
from lovrit.house.live import Live

CSV = "text/csv; charset=utf-8"


def download(text: str, media_type: str, name: str) -> PlainTextResponse:
    """A text that a browser keeps as a file."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(text, media_type=media_type, headers=headers)


def _csv(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    out = io.StringIO()
    csv.writer(out).writerows([head, *rows])
    return out.getvalue()


def _names(live: Live) -> dict[int, str]:
    return {one.id: told_apart(one.name) for one in live.comers}


def traces_csv(live: Live, kept: dict[int, Trace]) -> str:
    """Every reading of every strap: raw, an empty cell where there was no signal."""
    return _csv(
        ("person", "group", "time_utc", "second", "beats_per_minute"), _readings(live, kept)
    )


def _readings(live: Live, kept: dict[int, Trace]) -> Iterator[list[object]]:
    begun = live.state.started_ms or 0
    for comer in live.comers:
        for at_ms, bpm in kept.get(comer.id, []):
            when = datetime.fromtimestamp(at_ms / 1000, UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
            yield [
                told_apart(comer.name),
                comer.group + 1,
                when,
                round((at_ms - begun) / 1000),
                bpm or "",
            ]


def clean_csv(live: Live, hearts: dict[int, HeartAfter]) -> str:
    """Every second of every heart: as it was told, as it holds (empty where it doesn't), why not, and as expected."""
    names = _names(live)
    rows = (row for who, heart in hearts.items() for row in _seconds(names[who], heart))
    return _csv(("person", "second", "told", "holds", "fault", "expected"), rows)


def _seconds(name: str, heart: HeartAfter) -> Iterator[list[object]]:
    kinds = [""] * len(heart.raw)
    for fault in heart.cleaned.faults:
        for at in range(fault.start_s, fault.end_s + 1):
            kinds[at] = fault.kind
    for at, (bpm, held, asked) in enumerate(
        zip(heart.raw, heart.cleaned.clean, heart.expected, strict=True)
    ):
        yield [name, at, _cell(bpm), _cell(held), kinds[at], round(float(asked), 1)]


def _cell(value: float) -> str:
    return "" if np.isnan(value) else f"{value:g}"


def turns_csv(live: Live, hearts: dict[int, HeartAfter]) -> str:
    """Each work of each heart in figures, with how many clean seconds it rests on; empty where too few."""
    names, labels = _names(live), _labels(live)
    rows = (row for who, heart in hearts.items() for row in _works(names[who], heart, labels))
    return _csv(("person", "turn", "block", "start_s", "effort", *Figures._fields), rows)


def _labels(live: Live) -> list[str]:
    return [told_apart(one.label) for one in live.plan.timeline.blocks]


def _works(name: str, heart: HeartAfter, labels: list[str]) -> Iterator[list[object]]:
    for nth, one in enumerate(heart.works, 1):
        figures = ["" if value is None else value for value in one.figures]
        yield [name, nth, labels[one.block], one.start_s, one.effort or "", *figures]


def scores_csv(live: Live) -> str:
    """Scores and efforts: whose (the class's where it is nobody's), of which block, as it was said."""
    names, labels = _names(live), _labels(live)
    rows: list[list[object]] = [
        [names.get(one.person or 0, "the class"), labels[one.block], one.text]
        for one in live.state.scores
        if one.block < len(labels)
    ]
    rows += [
        [names.get(who, "somebody"), "effort felt", f"{value:g}"]
        for who, value in live.state.felt.items()
    ]
    return _csv(("person", "of", "said"), rows)


def class_json(live: Live, slate: str, kept: dict[int, Trace]) -> str:
    """The whole class as `lovrit review` reads it: its session, crew, events and readings."""
    events = [
        {"id": one.id, "kind": one.kind, "at_s": round(one.at_s, 3), **one.fields}
        for one in live.fold.counted
    ]
    told: dict[str, Any] = {
        "session": slate,
        "crew": {
            "people": [
                {"id": f"{one.id}", "name": one.name, "group": letter(one.group)}
                for one in live.comers
            ]
        },
        "events": events,
        "traces": {
            f"{who}": [[max(0, round((at_ms - live.made_ms) / 1000)), bpm] for at_ms, bpm in trace]
            for who, trace in kept.items()
        },
    }
    return json.dumps(told, ensure_ascii=False, indent=1)
