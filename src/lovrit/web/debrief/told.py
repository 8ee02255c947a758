"""The paragraph on top of the Debrief: the core's clauses, from a class that is held in memory and its raw readings."""

from lovrit.core.review.paragraph import After, Clause, paragraph
from lovrit.core.review.turns import Trace, good
from lovrit.web.run.live import Live

LEAST_S = 60  # of a heart that was heard less there is nothing to say


def clauses_of(live: Live, traces: dict[int, Trace]) -> tuple[Clause, ...]:
    """What there is to say of a class, each clause with its figures."""
    names = {str(one.id): one.name for one in live.comers}
    begun, counted = live.run_by, tuple(live.fold.counted)
    return paragraph(After(begun, live.plan, live.going, counted, names, _lost(traces)))


def _lost(traces: dict[int, Trace]) -> dict[str, tuple[float, str]]:
    """Which share of each strap's seconds was no heart's."""
    return {
        str(who): (1 - sum(good(bpm) for _, bpm in trace) / len(trace), "no signal")
        for who, trace in traces.items()
        if len(trace) >= LEAST_S
    }
