"""Effort as a demand on the heart, and the corridor that a person is asked for.

The table from effort to a share of reserve is coaches' practice laid beside the usual reserve percentages
(Karvonen 1957 for the reserve itself); figures to be checked.
"""

from lovrit.core.blocks.parts import Heart
from lovrit.core.crew.person import Person

DEMAND = (0.08, 0.24, 0.34, 0.43, 0.53, 0.61, 0.70, 0.79, 0.89, 0.975, 1.20)
SPRINT = 1.7
SPRINT_S = 15
UNDER, ABOVE = 2.0, 0.5
TALK = (
    (1, "hardly anything"), (3, "breathing easy"), (6.5, "you can talk"), (8.5, "a sentence or two"), (9.5, "a word"),
    (10, "no word at all"),
)  # fmt: skip
LIMITED = 15.0  # beats under somebody's own limit that are still asked of them


def demand(effort: float, seconds: float | None = None) -> float:
    """Demand as a share of heart-rate reserve for an effort 0-10, linear between; above 1 it only speeds the rise.

    An all-out sprint of fifteen seconds or less (``seconds``) has its own.
    """
    effort = min(10.0, max(0.0, effort))
    if effort >= 9.75 and seconds is not None and seconds <= SPRINT_S:
        return SPRINT
    below = min(int(effort), 9)
    return DEMAND[below] + (DEMAND[below + 1] - DEMAND[below]) * (effort - below)


def talk(effort: float) -> str:
    """The talk test: what somebody can say at an effort, for who goes without a heart."""
    return next(said for most, said in TALK if effort <= most)


def effort_at(share: float) -> float:
    """The effort, 0 to 10, that a share of reserve is once beats are steady: ``demand`` the other way round."""
    above = next((nth for nth, one in enumerate(DEMAND) if one >= share), len(DEMAND) - 1)
    if above == 0:
        return 0.0
    low, high = DEMAND[above - 1], DEMAND[above]
    return above - 1 + min(1.0, (share - low) / (high - low))


def at_reserve(person: Person, share: float) -> float:
    """Beats a minute at a share of reserve (Karvonen 1957)."""
    return person.rest + share * (person.highest - person.rest)


def corridor(
    person: Person, effort: float | None, target: Heart | None = None
) -> tuple[float, float] | None:
    """Lowest and highest beats a minute that a work asks of a person; None where the heart can't steer.

    A written target comes first; otherwise the beats from two points of effort under, since a heart in short works
    never gets where the effort is, to half a point above. Whatever is asked ends at a limit that is theirs.
    """
    if person.effort_only:
        return None
    asked = _target(person, target) if target else _by_effort(person, effort)
    if asked is None or person.limit_hr is None or asked[1] <= person.limit_hr:
        return asked
    top = float(person.limit_hr)
    return min(asked[0], top - LIMITED), top


def _by_effort(person: Person, effort: float | None) -> tuple[float, float] | None:
    if effort is None:
        return None
    low, high = demand(max(0.0, effort - UNDER)), demand(min(9.4, effort + ABOVE))
    return at_reserve(person, low), at_reserve(person, min(high, 0.99))


def _target(person: Person, target: Heart) -> tuple[float, float] | None:
    match target.of:
        case "bpm":
            return target.low, target.high
        case "reserve":
            return at_reserve(person, target.low / 100), at_reserve(person, target.high / 100)
        case "max":
            return person.highest * target.low / 100, person.highest * target.high / 100
    known = person.threshold_hr
    return None if known is None else (known + target.low, known + target.high)
