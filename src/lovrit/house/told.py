"""The paragraph on top of the Debrief: the core's clauses, from a class that is held in memory and its raw readings."""

from lovrit.core.review.hearts import HeartAfter, drifted
from lovrit.core.review.paragraph import After, Clause, paragraph
from lovrit.house.live import Live

LEAST_S = 60  # of a heart that was heard less there is nothing to say


def clauses_of(live: Live, hearts: dict[int, HeartAfter]) -> tuple[Clause, ...]:
    """What there is to say of a class, each clause with its figures."""
    names = {str(one.id): one.name for one in live.comers}
    begun, counted = live.run_by, tuple(live.fold.counted)
    lost = {str(who): one.lost for who, one in hearts.items() if len(one.raw) >= LEAST_S}
    return paragraph(After(begun, live.plan, live.going, counted, names, lost, drifted(hearts)))
