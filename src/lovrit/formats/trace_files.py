"""A trace of a heart from CSV, cleaned, and told as JSON."""

from typing import Any

import numpy as np

from lovrit.core.crew.person import Person
from lovrit.core.heart.clean import Known, clean
from lovrit.core.heart.foresee import body_of, foresee
from lovrit.core.heart.hearts import Floats
from lovrit.core.timeline.plan import Plan
from lovrit.formats.trace_kinds import read_any
from lovrit.formats.trace_reader import NotATrace

__all__ = ["NotATrace", "cleaned_object", "read_trace"]


def read_trace(raw: bytes) -> Floats:
    """The one trace of a file at 1 Hz from its second 0 on; not a number where nothing was read.

    Raises:
        NotATrace: where it is none, or there is more than one.
    """
    found = read_any(raw)
    if len(found) > 1:
        names = ", ".join(one.name for one in found[:4])
        raise NotATrace(f"There are {len(found)} people in it ({names}…); give one person’s.")
    one = found[0]
    before = 0 if one.clock else round(one.begins_s)
    return np.concatenate([np.full(before, np.nan), one.beats])


def cleaned_object(raw: Floats, plan: Plan | None) -> dict[str, Any]:
    """What is wrong with a trace, held against a usual heart's forecast where the session is known."""
    known = Known()
    if plan is not None:
        usual = Person(id=0, name="", initials="")
        line = foresee(plan, usual, body_of(usual)).bpm
        longer = np.concatenate([line, np.full(max(0, len(raw) - len(line)), line[-1])])
        known = Known(forecast=longer[: len(raw)])
    told = clean(raw, known)
    good = [None if np.isnan(bpm) else round(float(bpm), 1) for bpm in told.clean]
    return {
        "faults": [fault._asdict() for fault in told.faults],
        "clean_s": sum(bpm is not None for bpm in good),
        "clean": good,
    }
