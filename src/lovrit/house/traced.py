"""What straps told of each person in a class: as it was told, but for two who had changed theirs."""

from sqlmodel import Session as Work

from lovrit.core.review.turns import Trace
from lovrit.house.live import Live
from lovrit.store import classes


def traces_of(work: Work, live: Live) -> dict[int, Trace]:
    """The trace of each person in a class; whose it is follows what was said of it since."""
    kept = classes.traces(work, live.id)
    changed = live.state.changed
    whose = {who: changed.get(who, who) for who in {*kept, *changed}}
    return {who: kept[strap] for who, strap in whose.items() if strap in kept}
