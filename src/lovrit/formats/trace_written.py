"""One person's trace in the open forms that other programs read: TCX, GPX (beats alone, no place), JSON.

What is written here is read again by trace_kinds, equal to the beat.
"""

import json
from collections.abc import Iterable
from datetime import UTC, datetime
from xml.etree.ElementTree import Element, SubElement, indent, tostring

TCX_SPACE = "http://www.garmin.com/xmlschemas/TrainingCenterDatabase/v2"
GPX_SPACE = "http://www.topografix.com/GPX/1/1"
HEART_SPACE = "http://www.garmin.com/xmlschemas/TrackPointExtension/v1"
Readings = Iterable[tuple[int, int]]  # milliseconds from 1970, and beats; 0 is no signal


def _held(trace: Readings) -> list[tuple[str, int]]:
    """Moments in UTC with their beats, without those that had no signal."""
    return [
        (datetime.fromtimestamp(at_ms / 1000, UTC).strftime("%Y-%m-%dT%H:%M:%SZ"), bpm)
        for at_ms, bpm in trace
        if bpm
    ]


def tcx(trace: Readings) -> str:
    """A trace as TCX; an activity of one lap."""
    held = _held(trace)
    root = Element("TrainingCenterDatabase", xmlns=TCX_SPACE)
    activity = SubElement(SubElement(root, "Activities"), "Activity", Sport="Other")
    begins = held[0][0] if held else "1970-01-01T00:00:00Z"
    SubElement(activity, "Id").text = begins
    lap = SubElement(activity, "Lap", StartTime=begins)
    for name, value in (
        ("TotalTimeSeconds", f"{_lasts(held)}"), ("DistanceMeters", "0"), ("Calories", "0"),
        ("Intensity", "Active"), ("TriggerMethod", "Manual"),
    ):  # fmt: skip
        SubElement(lap, name).text = value
    track = SubElement(lap, "Track")
    for at, bpm in held:
        point = SubElement(track, "Trackpoint")
        SubElement(point, "Time").text = at
        SubElement(SubElement(point, "HeartRateBpm"), "Value").text = str(bpm)
    return _written(root)


def _lasts(held: list[tuple[str, int]]) -> int:
    if not held:
        return 0
    first, last = (
        datetime.fromisoformat(at.replace("Z", "+00:00")) for at in (held[0][0], held[-1][0])
    )
    return round((last - first).total_seconds())


def gpx(name: str, trace: Readings) -> str:
    """A trace as GPX: times and beats at no place, since a hall is none."""
    root = Element(
        "gpx",
        {"version": "1.1", "creator": "Lovrit", "xmlns": GPX_SPACE, "xmlns:heart": HEART_SPACE},
    )
    track = SubElement(root, "trk")
    SubElement(track, "name").text = name
    segment = SubElement(track, "trkseg")
    for at, bpm in _held(trace):
        point = SubElement(segment, "trkpt", lat="0", lon="0")
        SubElement(point, "time").text = at
        own = SubElement(SubElement(point, "extensions"), "heart:TrackPointExtension")
        SubElement(own, "heart:hr").text = str(bpm)
    return _written(root)


def _written(root: Element) -> str:
    indent(root, space=" ")
    return '<?xml version="1.0" encoding="UTF-8"?>\n' + tostring(root, encoding="unicode") + "\n"


def as_json(name: str, trace: Readings) -> str:
    """A trace as JSON: moments and beats under a name."""
    rows = [{"time": at, "bpm": bpm} for at, bpm in _held(trace)]
    return json.dumps({name: rows}, ensure_ascii=False, indent=1) + "\n"
