"""WebVTT: a cue a phase, to lay over a film of the class or to be read aloud."""

from lovrit.core.timeline.interval import Interval
from lovrit.core.timeline.plan import Plan


def to_vtt(plan: Plan) -> str:
    """The plan's intervals as cues."""
    cues = [
        f"{_time(one.start_s)} --> {_time(one.end_s)}\n{_said(plan, one)}"
        for one in plan.timeline.intervals
    ]
    return "\n\n".join(["WEBVTT", *cues]) + "\n"


def _time(seconds: int) -> str:
    return f"{seconds // 3600:02d}:{seconds // 60 % 60:02d}:{seconds % 60:02d}.000"


def _said(plan: Plan, one: Interval) -> str:
    block = plan.session.blocks[one.block]
    words = [one.phase if one.phase != "steady" else block.name]
    if one.phase == "work" and one.station:
        words.append(one.station)
    if one.round is not None and one.phase in ("work", "rest"):
        words.append(f"round {one.round}, turn {one.turn}")
    if one.effort is not None:
        words.append(f"effort {one.effort:g}")
    text = " · ".join(words)
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
