"""A plan as a few lines to read in a terminal."""

from collections.abc import Iterator

from lovrit.core.advice.note import Note
from lovrit.core.clock import clock, minutes, ratio
from lovrit.core.timeline.plan import Plan


def plan_lines(plan: Plan, notes: tuple[Note, ...]) -> Iterator[str]:
    """What it comes to, block by block, then what the second look says."""
    timeline = plan.timeline
    low, high = timeline.range_s
    spread = "" if low == high else f" ({minutes(low)} to {minutes(high)})"
    yield f"{plan.session.title or 'A session'}: {minutes(timeline.total_s)}{spread}"
    known = ratio(*plan.sums.ratio) if plan.sums.work_to_rest is not None else "only forecast"
    yield f"work {minutes(timeline.work_s)}, rest {minutes(timeline.rest_s)}, work to rest {known}"
    for block, laid in zip(plan.session.blocks, timeline.blocks, strict=True):
        yield f"{clock(laid.start_s):>8}  {laid.label}  {clock(laid.seconds)}"
        told = block.outlook(plan.library)
        if told:
            yield f"{'':>8}  {told.said}"
    for note in notes:
        where = f" (line {note.line})" if note.line else ""
        yield f"{note.level}: {note.text}{where}"
