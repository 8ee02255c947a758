"""The JSON object that a plan is printed as, on the command line and by the API."""

from typing import Any

from lovrit.core.advice.note import Note
from lovrit.core.blocks.step import Forecast
from lovrit.core.slate.problem import Problem
from lovrit.core.timeline.interval import Interval, LaidBlock
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import plain

INTERVAL_KEYS = ("start_s", "end_s", "phase", "block", "round", "turn", "station", "effort")
BLOCK_KEYS = ("label", "kind", "start_s", "end_s", "work_s", "rest_s")


def plan_object(plan: Plan, notes: tuple[Note, ...]) -> dict[str, Any]:
    """A plan as one object; times are seconds from the session's start, blocks count from 0."""
    timeline = plan.timeline
    return {
        "title": plan.session.title,
        "total_s": timeline.total_s,
        "work_s": timeline.work_s,
        "rest_s": timeline.rest_s,
        "work_to_rest": plan.sums.work_to_rest,
        "total_range_s": list(timeline.range_s),
        "blocks": [_block(one) for one in timeline.blocks],
        "intervals": [_interval(one) for one in timeline.intervals],
        "notes": [_note(one) for one in notes],
    }


def errors_object(problems: tuple[Problem, ...]) -> dict[str, Any]:
    """Problems as one object."""
    return {"errors": [plain(problem) for problem in problems]}


def _block(block: LaidBlock) -> dict[str, Any]:
    shown = {key: getattr(block, key) for key in BLOCK_KEYS}
    return {**shown, "forecast": _forecast(block.forecast)}


def _forecast(forecast: Forecast | None) -> dict[str, Any] | None:
    if forecast is None:
        return None
    if forecast.rounds:
        return {"rounds": list(forecast.rounds)}
    return {"time_s": list(forecast.time_s or ())}


def _interval(interval: Interval) -> dict[str, Any]:
    return {key: getattr(interval, key) for key in INTERVAL_KEYS}


def _note(note: Note) -> dict[str, Any]:
    shown = {"code": note.code, "level": note.level, "text": note.text, "line": note.line}
    return {
        **shown,
        "fix": note.fixes[0].text if note.fixes else note.way.text if note.way else None,
    }
