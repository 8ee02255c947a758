"""The forms a session can be written in, by name."""

from collections.abc import Callable
from datetime import datetime
from typing import NamedTuple

from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import Plan
from lovrit.formats.interval_csv import to_csv
from lovrit.formats.markdown import to_card, to_markdown
from lovrit.formats.session_json import to_json
from lovrit.formats.sheet import to_sheet
from lovrit.formats.webvtt import to_vtt


class When(NamedTuple):
    """The moment of writing (UTC), and the time zone that the session's times of day are in."""

    now: datetime
    zone: str


class Writer(NamedTuple):
    """A form: what it is for, how it is written, its media type, and the end of its file's name."""

    said: str
    write: Callable[[Plan, When], str | bytes]
    media_type: str
    suffix: str


def _ics(plan: Plan, when: When) -> str:
    from lovrit.formats.calendar import to_ics

    return to_ics(plan, when.zone, when.now)


def _wav(plan: Plan, _: When) -> bytes:
    from lovrit.formats.cue_track import to_wav

    return to_wav(plan)


def _flac(plan: Plan, _: When) -> bytes:
    from lovrit.formats.cue_track import to_flac

    return to_flac(plan)


TEXT = "text/plain; charset=utf-8"
WRITERS: dict[str, Writer] = {
    "slate": Writer("Slate", lambda plan, _: write(plan.session), TEXT, ".slate"),
    "json": Writer("JSON", lambda plan, _: to_json(plan.session), "application/json", ".json"),
    "csv": Writer(
        "CSV, an interval a row", lambda plan, _: to_csv(plan), "text/csv; charset=utf-8", ".csv"
    ),
    "ics": Writer("Calendar event", _ics, "text/calendar; charset=utf-8", ".ics"),
    "vtt": Writer(
        "WebVTT, a cue a phase", lambda plan, _: to_vtt(plan), "text/vtt; charset=utf-8", ".vtt"
    ),
    "md": Writer(
        "Markdown", lambda plan, _: to_markdown(plan), "text/markdown; charset=utf-8", ".md"
    ),
    "card": Writer("Timer card", lambda plan, _: to_card(plan), TEXT, ".txt"),
    "flac": Writer("Cue track, to play in the hall", _flac, "audio/flac", ".flac"),
    "wav": Writer("The same as WAV, large", _wav, "audio/wav", ".wav"),
    "sheet": Writer(
        "Print sheet", lambda plan, _: to_sheet(plan), "text/html; charset=utf-8", ".html"
    ),
}
