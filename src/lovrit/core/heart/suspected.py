"""What hearts make a coach ask: a top never reached, figures that are missing, straps that were changed.

Nothing is changed by it: it is asked, and a coach or the person says. The figures are ours (cases/suspected.toml).
"""

from collections.abc import Sequence
from itertools import combinations
from typing import Literal, NamedTuple

import numpy as np

from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body
from lovrit.core.heart.foresee import start_of
from lovrit.core.heart.hearts import Floats
from lovrit.core.heart.learn import Evening, error, lines, moves
from lovrit.core.heart.stretches import held_highest

EVENINGS = 3  # so many evenings with hard work before anything is said
HARD_SHARE, HARD_S = 0.72, 60  # of the reserve, and for how many seconds it was to be there
SHORT_OF = 22.0  # beats under what is held to be the highest
MISSED, PASSED = 14.0, 12.0  # beats under what each hard evening was to reach, or over it
NEAR_LIMIT = 8.0
OWN_OFF, OTHERS_OFF = 8.0, 9.0  # beats off as one's own, and as the other's
BETTER = 0.6  # of how far they are off as their own
TOLD_S = 300  # clean seconds from which a trace says whose it is


class Ask(NamedTuple):
    """What is to be asked of a heart: why, and the highest that was seen."""

    kind: Literal["top", "measure"]
    seen: int


def asked_of_heart(person: Person, evenings: Sequence[Evening]) -> Ask | None:
    """What some evenings make one ask of a person's heart; None where nothing, or it doesn't steer anyhow."""
    if person.effort_only:
        return None
    body = start_of(person)
    known = [(one, lines([body], one)[0]) for one in evenings if moves(one)]
    hard = [(one, expected) for one, expected in known if _was_hard(body, one, expected)]
    tops = [
        (top, float(expected.max()) - top)
        for one, expected in hard
        if (top := held_highest(one.clean)) is not None
    ]
    if len(tops) < EVENINGS:
        return None
    seen, missed = max(top for top, _ in tops), [by for _, by in tops]
    if max(missed) <= -PASSED and person.max_hr is None:
        return Ask("measure", seen)
    kept_to = person.limit_hr is not None and seen <= person.limit_hr + NEAR_LIMIT
    if person.highest - seen >= SHORT_OF and min(missed) >= MISSED and not kept_to:
        return Ask("top", seen)
    return None


def _was_hard(body: Body, one: Evening, expected: Floats) -> bool:
    near = (expected >= body.rest + HARD_SHARE * (body.highest - body.rest)) & ~np.isnan(one.clean)
    return int(near.sum()) >= HARD_S


class Worn(NamedTuple):
    """A strap of an evening: whose it is by name, what is known of their heart, what was asked and what it told."""

    person: int
    body: Body
    evening: Evening


def changed_straps(worn: Sequence[Worn]) -> list[tuple[int, int]]:
    """Pairs that seem to wear each other's straps: each trace is the other's heart far more than one's own."""
    odd = [
        (one, error(one.body, one.evening))
        for one in worn
        if int((~np.isnan(one.evening.clean)).sum()) >= TOLD_S
    ]
    odd = [(one, off) for one, off in odd if off >= OWN_OFF]
    found: list[tuple[float, int, int]] = []
    for (one, own), (other, theirs) in combinations(odd, 2):
        crossed = (
            error(one.body, one.evening._replace(clean=_cut(other, one))),
            error(other.body, other.evening._replace(clean=_cut(one, other))),
        )
        if max(crossed) <= OTHERS_OFF and sum(crossed) <= BETTER * (own + theirs):
            found.append((sum(crossed), one.person, other.person))
    taken: set[int] = set()
    pairs = []
    for _, one_id, other_id in sorted(found):
        if not {one_id, other_id} & taken:
            taken |= {one_id, other_id}
            pairs.append((one_id, other_id))
    return pairs


def _cut(of: Worn, to: Worn) -> Floats:
    """One trace at another's length; what is missing is not a number."""
    clean, length = of.evening.clean[: len(to.evening.clean)], len(to.evening.clean)
    return np.concatenate([clean, np.full(length - len(clean), np.nan)])
