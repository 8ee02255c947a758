"""Traces as straps bring them: every fault of the list is found and named, and what only looks like one is left."""

import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from lovrit.core.crew.person import Person
from lovrit.core.heart.clean import Cleaned, Known, clean
from lovrit.core.heart.foresee import body_of, foresee
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
