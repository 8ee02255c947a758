"""Traces as straps bring them: every fault of the list is found and named, and what only looks like one is left."""

import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lovrit.core.crew.person import Person
from lovrit.core.heart.clean import Cleaned, Known, clean
from lovrit.core.heart.foresee import body_of, foresee
from tests.conftest import examples
from tests.core.odd_hearts import trace_of

CASES = tomllib.loads((Path(__file__).parents[1] / "cases" / "traces.toml").read_text("utf-8"))
MOST_FALSE, LEAST_FOUND = 0.015, 0.75


def judged(case: dict[str, Any], seed: int) -> tuple[Cleaned, int]:
    told, plan, heart = trace_of(case, seed)
    before = told.copy()
    someone = Person(
        id=1, name="", initials="", rest_hr=round(heart["rest"]), max_hr=round(heart["highest"])
    )
    known = Known(steps=case.get("steps"))
    if case.get("plan", True):
        line = foresee(plan, someone, body_of(someone)).bpm
        known = known._replace(forecast=line, rest=someone.rest, highest=someone.highest)
    found = clean(told, known)
    assert np.array_equal(before, told, equal_nan=True)
    return found, len(told)


READING = st.one_of(st.just(np.nan), st.integers(0, 300), st.floats(40, 190))


@examples(300)
@given(st.lists(READING, min_size=1, max_size=90), st.booleans(), st.none() | st.floats(60, 200))
def test_whatever_a_strap_tells_it_is_judged_and_stays_as_it_was(
    told: list[float], known: bool, steps: float | None
) -> None:
    raw = np.array(told, dtype=float)
    before = raw.copy()
    line = 90 + 60 * np.sin(np.arange(len(raw)) / 20) if known else None
    found = clean(raw, Known(forecast=line, steps=steps))
    assert np.array_equal(raw, before, equal_nan=True) and len(found.clean) == len(raw)
    marked = np.zeros(len(raw), dtype=bool)
    for fault in found.faults:
        assert 0 <= fault.start_s <= fault.end_s < len(raw) and fault.why
        assert not marked[fault.start_s : fault.end_s + 1].any()
        marked[fault.start_s : fault.end_s + 1] = True
    assert (marked == np.isnan(found.clean)).all()


@pytest.mark.parametrize("seed", [1, 2])
@pytest.mark.parametrize("case", CASES["trace"], ids=lambda case: case["name"])
def test_a_trace_is_judged_as_it_should_be(case: dict[str, Any], seed: int) -> None:
    found, length = judged(case, seed)
    marked = np.zeros(length, dtype=bool)
    for kind, first, last in case.get("faults", []):
        here = np.zeros(length, dtype=bool)
        for fault in found.faults:
            if fault.kind == kind:
                here[fault.start_s : fault.end_s + 1] = True
        assert here[first:last].mean() >= LEAST_FOUND, (kind, first, last, found.faults)
    for fault in found.faults:
        marked[fault.start_s : fault.end_s + 1] = True
    for _, first, last in case.get("faults", []):
        marked[max(0, first - 8) : last + 8] = False
    for _, first, last, *_ in case.get("strap", []):
        marked[max(0, first - 8) : last + 8] = False
    assert marked.mean() <= MOST_FALSE, found.faults
