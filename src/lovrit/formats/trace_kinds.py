"""Traces in whatever open form they come: CSV, JSON, TCX, GPX, FIT, told by what is in the file and not by its name.

XML is read by defusedxml, which takes no entities; FIT by fitdecode.
"""

import json
from collections.abc import Iterable, Iterator
from datetime import UTC, date, datetime
from io import BytesIO
from typing import Any
from xml.etree.ElementTree import Element, ParseError

from lovrit.formats.trace_reader import NotATrace, Trace, read_traces, trace_of

FIT_AT, FIT = 8, b".FIT"
MOST_LEVELS = 4
BEATS = ("bpm", "beats", "hr", "heart_rate", "heartrate", "heartRate", "value")
SECONDS = ("second", "seconds", "s", "t", "time_s", "elapsed")
CLOCK = ("time", "timestamp", "time_utc", "at")
Reading = tuple[float, float]  # seconds (from 1970, or of the class) and beats


def read_any(raw: bytes, zone: str | None = None, day: date | None = None) -> list[Trace]:
    """Every trace of a file; ``day`` is that of times of day without one.

    Raises:
        NotATrace: where it is none of these, or nothing in it is a heart's.
    """
    if raw[FIT_AT : FIT_AT + len(FIT)] == FIT:
        return [trace_of("", list(_fit(raw)), clock=True)]
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise NotATrace("This file is no text; CSV, JSON, TCX, GPX and FIT are read.") from None
    return read_text(text, zone, day)


def read_text(text: str, zone: str | None = None, day: date | None = None) -> list[Trace]:
    """The same of a text."""
    begins = text.lstrip("\ufeff \t\r\n")[:1]
    if begins == "<":
        return _xml(text)
    if begins in ("{", "["):
        return _json(text)
    return read_traces(text, zone, day)


def _fit(raw: bytes) -> Iterator[Reading]:
    """Each record's time and beats."""
    import fitdecode

    try:
        with fitdecode.FitReader(BytesIO(raw)) as frames:
            for frame in frames:
                if isinstance(frame, fitdecode.FitDataMessage) and frame.name == "record":
                    at = frame.get_value("timestamp", fallback=None)
                    bpm = frame.get_value("heart_rate", fallback=None)
                    if isinstance(at, datetime) and bpm is not None:
                        yield at.timestamp(), float(bpm)
    except (fitdecode.FitError, ValueError, TypeError, EOFError) as error:
        raise NotATrace(f"This FIT file can’t be read to its end: {error}.") from None


def _xml(text: str) -> list[Trace]:
    from defusedxml.common import DefusedXmlException
    from defusedxml.ElementTree import fromstring

    try:
        root = fromstring(text.encode())
    except ParseError:
        raise NotATrace("This is no XML that can be read; it may end in the middle.") from None
    except DefusedXmlException:
        raise NotATrace(
            "This XML defines entities of its own: no trace does, so it isn’t read."
        ) from None
    if _tag(root) == "TrainingCenterDatabase":
        found = [("", list(_points(root, "Trackpoint", "Time", _tcx_beats)))]
    elif _tag(root) == "gpx":
        tracks = [one for one in root if _tag(one) == "trk"]
        found = [
            (_said(one, "name"), list(_points(one, "trkpt", "time", _gpx_beats))) for one in tracks
        ]
    else:
        raise NotATrace("This XML is no trace: TCX and GPX are read.")
    told = [(name, readings) for name, readings in found if readings]
    if not told:
        raise NotATrace("There are times in this file, but no beats with them.")
    return [trace_of(name, readings, clock=True) for name, readings in told]


def _tag(one: Element) -> str:
    return one.tag.rsplit("}", 1)[-1]


def _said(one: Element, name: str) -> str:
    return next((child.text or "" for child in one if _tag(child) == name), "").strip()[:80]


def _points(root: Element, point: str, time: str, beats: Any) -> Iterator[Reading]:
    for one in root.iter():
        if _tag(one) != point:
            continue
        at, bpm = _instant(_said(one, time)), beats(one)
        if at is not None and bpm is not None:
            yield at, bpm


def _tcx_beats(one: Element) -> float | None:
    heart = next((child for child in one if _tag(child) == "HeartRateBpm"), None)
    return None if heart is None else _figure(_said(heart, "Value"))


def _gpx_beats(one: Element) -> float | None:
    return next(
        (_figure(child.text) for child in one.iter() if _tag(child) in ("hr", "heartrate")), None
    )


def _instant(text: str) -> float | None:
    try:
        at = datetime.fromisoformat(text.replace("Z", "+00:00"))
    except ValueError:
        return None
    return (at if at.tzinfo else at.replace(tzinfo=UTC)).timestamp()


def _figure(given: Any) -> float | None:
    try:
        return None if given is None or isinstance(given, bool) else float(given)
    except (TypeError, ValueError):
        return None


def _json(text: str) -> list[Trace]:
    try:
        given = json.loads(text)
    except (ValueError, RecursionError):
        raise NotATrace("This is no JSON that can be read; it may end in the middle.") from None
    if isinstance(given, dict) and isinstance(given.get("traces"), dict):
        given = given["traces"]
    if isinstance(given, dict) and isinstance(given.get("bpm"), list):
        given = list(enumerate(given["bpm"]))
    named = given.items() if isinstance(given, dict) else [("", given)]
    found = [
        (str(name)[:80], *_readings(rows))
        for name, rows in named
        if isinstance(rows, list) and rows
    ]
    told = [trace_of(name, some, clock=clock) for name, some, clock in found if some]
    if not told:
        raise NotATrace(
            "This JSON is no trace: [[second, beats], …] is one, or {name: [[second, beats], …]}."
        )
    return told


def _readings(rows: Iterable[Any]) -> tuple[list[Reading], bool]:
    """Pairs, or objects with a time and beats; and whether the times are of the day."""
    some: list[Reading] = []
    clock = False
    for row in rows:
        at, bpm, of_day = _row(row)
        clock = clock or of_day
        if at is not None and bpm is not None:
            some.append((at, bpm))
    return some, clock


def _row(row: Any) -> tuple[float | None, float | None, bool]:
    if isinstance(row, (list, tuple)) and len(row) >= 2:
        return _figure(row[0]), _figure(row[1]), False
    if not isinstance(row, dict):
        return None, None, False
    bpm = next((_figure(row[name]) for name in BEATS if name in row), None)
    at = next((_figure(row[name]) for name in SECONDS if name in row), None)
    if at is not None:
        return at, bpm, False
    said = next((str(row[name]) for name in CLOCK if name in row), "")
    return _instant(said), bpm, True
