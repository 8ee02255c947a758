"""A person's year: how often they came, what was felt beside what was asked, how often they stopped; in sentences.

How many evenings are enough, and how much is a change, is ours.
"""

from collections.abc import Sequence
from datetime import date
from statistics import median
from typing import NamedTuple

from lovrit.core.clock import number

LATELY, BEFORE = (
    8,
    8,
)  # classes that are laid beside those before them, and how many these have to be
MORE, LESS = 1.6, 0.4  # times the share of classes that they came to: a change of habit
FELT_LATELY, LEAST_FELT = 6, 4  # evenings with an effort felt and one asked
OTHERWISE = 1.0  # effort, felt above or below what was asked


class Evening(NamedTuple):
    """One class of the club: whether somebody came, what they felt, what was asked, whether they stopped early."""

    day: date
    came: bool
    felt: float | None = None
    asked: float | None = None
    stopped: bool = False
    class_id: int = 0


def since_first(evenings: Sequence[Evening]) -> list[Evening]:
    """The classes from the first one that they came to, the oldest first: before it they were nobody's to miss."""
    row = sorted(evenings, key=lambda one: one.day)
    first = next((nth for nth, one in enumerate(row) if one.came), len(row))
    return row[first:]


def year_said(evenings: Sequence[Evening]) -> list[str]:
    """What a year says of somebody, in sentences without a full stop; nothing where they never came."""
    row = since_first(evenings)
    if not row:
        return []
    stopped = sum(one.stopped for one in row)
    said = [_came(row), _habit(row), *_felt(row)]
    if stopped:
        said.append(f"stopped early {'once' if stopped == 1 else f'{stopped} times'}")
    return [one for one in said if one]


def _came(row: Sequence[Evening]) -> str:
    came = sum(one.came for one in row)
    classes = "class" if len(row) == 1 else "classes"
    return f"came to {came} of {len(row)} {classes} since {row[0].day:%-d %B %Y}"


def _habit(row: Sequence[Evening]) -> str:
    """Whether they come clearly more or less often than before."""
    before, lately = row[:-LATELY], row[-LATELY:]
    if len(before) < BEFORE:
        return ""
    then, now = sum(one.came for one in before), sum(one.came for one in lately)
    times = (now / len(lately)) / (then / len(before))
    if LESS < times < MORE:
        return ""
    return f"{now or 'none'} of the last {len(lately)}, where it was {then} of {len(before)} before"


def _felt(row: Sequence[Evening]) -> list[str]:
    """What was felt beside what was asked, lately; and before, where that was otherwise."""
    off = [one.felt - one.asked for one in row if one.felt is not None and one.asked is not None]
    lately = off[-FELT_LATELY:]
    before = off[: -len(lately)]
    if len(lately) < LEAST_FELT:
        return []
    now = median(lately)
    said = _beside(now, " what was asked")
    if "about" not in said:
        said += f", over the last {len(lately)} evenings that say it"
    told = [f"felt {said}"]
    if len(before) >= LEAST_FELT - 1 and abs(median(before) - now) >= OTHERWISE:
        told.append(f"before, {_beside(median(before), '')}")
    return told


def _beside(off: float, asked: str) -> str:
    if abs(off) < OTHERWISE:
        return "about as asked"
    return f"{number(round(abs(off), 1))} {'above' if off > 0 else 'below'}{asked}"
