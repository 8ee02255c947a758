"""Cleaning: a clean trace comes back untouched, each fault is found and named, the raw is never changed."""

from collections.abc import Callable
from random import Random

import numpy as np
import pytest

from lovrit.core.crew.person import Person
from lovrit.core.heart.clean import clean
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.heart.hearts import Floats
from lovrit.core.moves.library import shipped
from lovrit.core.timeline.plan import plan_text
from lovrit.formats.trace_files import NotATrace, cleaned_object, read_trace

SESSION = "warm-up 5:00 at 3\n8 x 60/60 at 8\n\nrest 2:00\n\n6 x 30/30 at 9\n\ncool-down 4:00 at 2"
PLAN = plan_text(SESSION, shipped())
OTHER = Person(id=1, name="B", initials="B", rest_hr=55, max_hr=194)


def trace(seed: int) -> Floats:
    """A heart that is not the usual one, with the noise of a strap."""
    chance, noise, line = Random(seed), 0.0, foresee(PLAN, OTHER, body_of(OTHER, 1.05)).bpm
    made = []
    for bpm in line:
        noise = 0.85 * noise + chance.gauss(0, 0.8)
        made.append(round(float(bpm) + noise))
    return np.array(made, dtype=float)


def told(raw: Floats) -> tuple[set[str], dict]:
    found = cleaned_object(raw, PLAN)
    return {fault["kind"] for fault in found["faults"]}, found


@pytest.mark.parametrize("seed", range(6))
def test_a_clean_trace_is_left_as_it_is(seed: int) -> None:
    raw = trace(seed)
    before = raw.copy()
    _, found = told(raw)
    assert (raw == before).all()
    assert found["clean_s"] / len(raw) > 0.985
    assert cleaned_object(raw, None)["clean_s"] / len(raw) > 0.97


def halved(raw: Floats) -> None:
    raw[500:520] = np.round(raw[500:520] / 2)


def doubled(raw: Floats) -> None:
    raw[150:165] = raw[150:165] * 2


def dropped(raw: Floats) -> None:
    raw[700:730] = 0


def stuck(raw: Floats) -> None:
    raw[400:440] = raw[400]


def spiked(raw: Floats) -> None:
    raw[[600, 640, 800]] += 25


def in_per_cent(raw: Floats) -> None:
    raw[:] = np.round((raw - 55) / (194 - 55) * 100)


FAULTS: tuple[tuple[Callable[[Floats], None], str, tuple[int, int]], ...] = (
    (halved, "halved", (500, 519)),
    (doubled, "doubled", (150, 164)),
    (dropped, "dropout", (700, 729)),
    (stuck, "flat", (400, 439)),
    (spiked, "spike", (600, 600)),
    (in_per_cent, "per cent", (400, 900)),
)


@pytest.mark.parametrize(("spoil", "kind", "where"), FAULTS)
def test_each_fault_is_found_where_it_is_and_named(
    spoil: Callable[[Floats], None], kind: str, where: tuple[int, int]
) -> None:
    raw = trace(3)
    spoil(raw)
    kinds, found = told(raw)
    assert kind in kinds, found["faults"]
    lost = found["clean"][where[0] : where[1] + 1]
    assert sum(bpm is None for bpm in lost) / len(lost) > 0.8
    if kind != "per cent":
        assert found["clean_s"] / len(raw) > 0.93
    assert all(fault["why"] and fault["start_s"] <= fault["end_s"] for fault in found["faults"])


def seldom(raw: Floats, every: int) -> Floats:
    """The same from a strap that tells each so many seconds, or thinned to that."""
    return np.where(np.arange(len(raw)) % every == 0, raw, np.nan)


@pytest.mark.parametrize("every", [2, 3, 4, 5])
@pytest.mark.parametrize("seed", range(6))
def test_a_strap_that_tells_seldom_is_sound_and_tells_the_same(seed: int, every: int) -> None:
    raw = trace(seed)
    _, found = told(seldom(raw, every))
    assert found["clean_s"] / len(raw) > 0.985, found["faults"]
    assert cleaned_object(seldom(raw, every), None)["clean_s"] / len(raw) > 0.97
    off = np.array([bpm if bpm is not None else np.nan for bpm in found["clean"]]) - raw
    assert abs(np.nanmean(off)) < 0.1 and np.nanquantile(np.abs(off), 0.95) <= 3


@pytest.mark.parametrize("every", [2, 3, 4, 5])
@pytest.mark.parametrize(("spoil", "kind", "where"), [FAULTS[at] for at in (0, 2, 5)])
def test_what_lasts_is_found_in_seldom_readings_too(
    spoil: Callable[[Floats], None], kind: str, where: tuple[int, int], every: int
) -> None:
    raw = trace(3)
    spoil(raw)
    kinds, found = told(seldom(raw, every))
    assert kind in kinds, found["faults"]
    lost = found["clean"][where[0] : where[1] + 1]
    assert sum(bpm is None for bpm in lost) / len(lost) > 0.7


@pytest.mark.parametrize("every", [2, 3, 4, 5])
def test_one_value_for_a_minute_is_stuck_in_seldom_readings_too(every: int) -> None:
    raw = trace(3)
    raw[400:460] = raw[400]
    assert "flat" in told(seldom(raw, every))[0]


def test_cleaning_a_cleaned_trace_finds_only_what_is_gone() -> None:
    raw = trace(1)
    spiked(raw)
    once = clean(raw)
    again = clean(once.clean)
    assert {fault.kind for fault in again.faults} <= {"dropout", "spike"}
    assert np.isnan(again.clean).sum() - np.isnan(once.clean).sum() <= 3


@pytest.mark.parametrize(
    ("text", "seconds"),
    [
        ("second,bpm\n0,100\n1,101\n3,103\n", 4),
        ("\ufefftime;heart rate\n0;100,5\n1;101\n", 2),
        ("0,100\n1,101\n", 2),
        ("name\tbpm\tt\nAda\t100\t0\nAda\t\t1\n", 2),
    ],
)
def test_traces_are_read_in_common_layouts(text: str, seconds: int) -> None:
    assert len(read_trace(text.encode())) == seconds


@pytest.mark.parametrize("text", ["", "a,b\n1,2\n", "second,bpm\nsoon,100\n", "second,bpm\n"])
def test_what_is_no_trace_is_said(text: str) -> None:
    with pytest.raises(NotATrace):
        read_trace(text.encode())
