"""Traces as other programs write them: read, or a sentence; and laid where they belong in a class."""

import struct
import tomllib
from contextlib import suppress
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

import gpxpy
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tcxreader.tcxreader import TCXReader

from lovrit.core.crew.person import Person
from lovrit.core.heart.align import align, shifted
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.formats.trace_kinds import read_any, read_text
from lovrit.formats.trace_reader import NotATrace
from lovrit.formats.trace_written import as_json, gpx, tcx
from tests.core.odd_hearts import trace_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "imports.toml").read_text("utf-8"))


@pytest.mark.parametrize("case", CASES["file"], ids=lambda case: case["text"][:30])
def test_a_file_is_read_or_says_why_not(case: dict[str, Any]) -> None:
    if "says" in case:
        with pytest.raises(NotATrace, match=case["says"]):
            read_text(case["text"])
        return
    found = read_text(case["text"])
    counts = {one.name: int((~np.isnan(one.beats)).sum()) for one in found}
    assert counts == case["people"]
    assert all(one.clock == case.get("clock", False) for one in found)
    if "first" in case:
        assert [found[0].begins_s, found[0].beats[0]] == case["first"]


@given(st.text(max_size=200))
def test_whatever_is_in_a_file_it_is_read_or_said(text: str) -> None:
    with suppress(NotATrace):
        found = read_text(text, "Europe/Berlin")
        assert found and all(len(one.beats) for one in found)


readings = st.lists(
    st.tuples(st.integers(1, 9), st.integers(0, 220).filter(lambda bpm: bpm == 0 or bpm > 29)),
    min_size=1,
    max_size=30,
).filter(lambda some: any(bpm for _, bpm in some))


@given(readings, st.sampled_from(["tcx", "gpx", "json"]))
def test_what_is_written_is_read_again_equal(some: list[tuple[int, int]], form: str) -> None:
    at, trace = 1_790_000_000, []
    for after, bpm in some:
        at += after
        trace.append((at * 1000, bpm))
    text = {"tcx": tcx(trace), "gpx": gpx("Ada & Ben", trace), "json": as_json("Ada", trace)}[form]
    (read,) = read_any(text.encode())
    held = {
        round(read.begins_s) + nth: bpm for nth, bpm in enumerate(read.beats) if not np.isnan(bpm)
    }
    assert read.clock and held == {ms // 1000: bpm for ms, bpm in trace if bpm}


def test_others_read_what_is_written(tmp_path: Path) -> None:
    trace = [(1_790_000_000_000 + 1000 * nth, 100 + nth) for nth in range(5)]
    (track,) = gpxpy.parse(gpx("Ada", trace)).tracks
    assert track.name == "Ada" and len(track.segments[0].points) == 5
    file = tmp_path / "one.tcx"
    file.write_text(tcx(trace))
    read = TCXReader().read(str(file), only_gps=False)
    assert [point.hr_value for point in read.trackpoints] == [100, 101, 102, 103, 104]


def fit_file(some: list[tuple[int, int]]) -> bytes:
    """A FIT file of records: seconds from 1990 and beats, as its public description lays them out."""
    defined = struct.pack("<BBBHB", 0x40, 0, 0, 20, 2) + bytes([253, 4, 0x86, 3, 1, 0x02])
    body = defined + b"".join(struct.pack("<BIB", 0, at, bpm) for at, bpm in some)
    head = struct.pack("<BBHI4s", 14, 0x10, 2132, len(body), b".FIT")
    head += struct.pack("<H", fit_sum(head))
    return head + body + struct.pack("<H", fit_sum(head + body))


def fit_sum(data: bytes) -> int:
    table = (0x0000, 0xCC01, 0xD801, 0x1400, 0xF001, 0x3C00, 0x2800, 0xE401,
             0xA001, 0x6C00, 0x7800, 0xB401, 0x5000, 0x9C01, 0x8801, 0x4400)  # fmt: skip
    found = 0
    for byte in data:
        for half in (byte & 15, byte >> 4):
            found = (found >> 4) & 0x0FFF ^ table[found & 15] ^ table[half]
    return found


def test_a_fit_file_is_read_and_a_broken_one_is_said() -> None:
    whole = fit_file([(1_160_000_000 + nth, 90 + nth) for nth in range(4)])
    (read,) = read_any(whole)
    assert read.clock and list(read.beats) == [90, 91, 92, 93]
    assert read.begins_s == 1_160_000_000 + 631_065_600
    with pytest.raises(NotATrace, match="FIT"):
        read_any(whole[:-9] + b"zz")


def test_times_of_day_are_of_the_day_that_is_known() -> None:
    text = "time,hr\n23:59:59,101\n0:00:00,102\n"
    (read,) = read_any(text.encode(), "Europe/Berlin", date(2026, 11, 26))
    assert read.clock and len(read.beats) == 2
    assert datetime.fromtimestamp(read.begins_s, UTC).isoformat() == "2026-11-26T22:59:59+00:00"


@pytest.mark.parametrize("session", ["usual", "long", "hard"])
@pytest.mark.parametrize("offset", [-240, -31, 0, 75, 600])
def test_a_shifted_trace_finds_its_place(session: str, offset: int) -> None:
    told, plan, heart = trace_of({"session": session}, 5)
    one = Person(id=1, name="", initials="", rest_hr=round(heart["rest"]), max_hr=188)
    line = foresee(plan, one, body_of(one)).bpm
    told = np.concatenate([np.full(max(0, -offset), 75.0), told[max(0, offset) :]])
    placed = align(told, line)
    assert placed.sure and abs(placed.offset_s - offset) <= 12, placed
    on_class = shifted(told, placed.offset_s, len(line))
    assert len(on_class) == len(line)


def test_what_has_no_pattern_has_no_sure_place() -> None:
    told, plan, heart = trace_of({"session": "steady"}, 5)
    one = Person(id=1, name="", initials="", rest_hr=round(heart["rest"]), max_hr=188)
    line = foresee(plan, one, body_of(one)).bpm
    assert not align(told[400:1000], line).sure
    assert not align(np.full(900, 120.0), line).sure
    assert not align(np.full(900, np.nan), line).sure
