"""Weeks kept: what else is on a day beside sessions, and the steps that can be taken back."""

from typing import Any

from pydantic import TypeAdapter
from sqlmodel import Session as Work
from typing_extensions import TypedDict

from lovrit.store import club

MOST_STEPS, MOST_OTHERS = 40, 400


class KeptOther(TypedDict):
    """Other load: a number of its own, its day (YYYY-MM-DD), what it is, its weight, the patterns that it names."""

    id: int
    date: str
    what: str
    weight: str
    patterns: list[str]


class Step(TypedDict):
    """What was done at once: sessions moved (number, day before, day after), sessions made, others as they were."""

    moves: list[tuple[int, str | None, str | None]]
    made: list[int]
    others: list[KeptOther] | None


OTHERS: TypeAdapter[list[KeptOther]] = TypeAdapter(list[KeptOther])
STEPS: TypeAdapter[list[Step]] = TypeAdapter(list[Step])


def others(work: Work) -> list[KeptOther]:
    """What else there is, in the order of days."""
    kept = OTHERS.validate_python(club.choice(work, "others") or [])
    return sorted(kept, key=lambda one: (one["date"], one["id"]))


def set_others(work: Work, some: list[KeptOther]) -> None:
    """Keep it."""
    club.choose(work, "others", [dict(one) for one in some[-MOST_OTHERS:]])


def steps(work: Work) -> list[Step]:
    """What can be taken back, the newest last."""
    return STEPS.validate_python(club.choice(work, "weeks-steps") or [])


def set_steps(work: Work, some: list[Step]) -> None:
    """Keep it."""
    plain: list[Any] = [dict(one) for one in some[-MOST_STEPS:]]
    club.choose(work, "weeks-steps", plain)
