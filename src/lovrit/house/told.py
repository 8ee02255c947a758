"""The paragraph on top of the Debrief: the core's clauses, from a class that is held in memory and its raw readings."""

from sqlmodel import Session as Work

from lovrit.core.crew.person import Comer
from lovrit.core.review.after import After, Clause, Heart
from lovrit.core.review.hearts import HeartAfter, drifted
from lovrit.core.review.paragraph import LEAST_CLEAN, paragraph
from lovrit.core.review.turns import person_turns, turns_over
from lovrit.house.house import House
from lovrit.house.live import Live
from lovrit.house.nights import changed_beyond

LEAST_S = 60  # of a heart that was heard less there is nothing to say


def clauses_of(
    house: House, work: Work, live: Live, hearts: dict[int, HeartAfter]
) -> tuple[Clause, ...]:
    """What there is to say of a class, each clause with its figures."""
    heard = {who: one for who, one in hearts.items() if len(one.raw) >= LEAST_S}
    return paragraph(
        After(
            live.run_by,
            live.plan,
            live.going,
            tuple(live.fold.counted),
            {str(one.id): one.name for one in live.comers},
            lost={str(who): one.lost for who, one in heard.items()},
            hearts={
                str(one.id): _heart(live, one, heard[one.id])
                for one in live.comers
                if one.id in heard
            },
            changed=tuple(changed_beyond(house, work, live)),
            drifted=drifted(hearts),
        )
    )


def _heart(live: Live, mine: Comer, heart: HeartAfter) -> Heart:
    """What a heart says of a class; no highest where it is not measured, or where the heart is not sure."""
    turns = person_turns(live.plan.session, live.plan.timeline, live.state, mine, heart.trace)
    places = turns_over(turns)
    sure = 1 - heart.lost[0] >= LEAST_CLEAN and not mine.effort_only
    return Heart(
        places.over,
        places.turns,
        heart.seen_highest if sure else None,
        mine.max_hr if sure else None,
    )
