"""Weeks kept: other load, days that are off, themes, who coaches, wishes; and the steps that can be taken back."""

from datetime import date, timedelta
from typing import Any

from pydantic import TypeAdapter
from sqlmodel import Session as Work
from typing_extensions import TypedDict

from lovrit.core.asked.clashing import CLASH
from lovrit.core.values import checked, plain
from lovrit.core.weeks.order import Wish
from lovrit.store import club

MOST_STEPS, MOST_OTHERS, MOST_WISHES = 40, 400, 40
# what a step may change beside sessions, by the names under which it is kept
OTHERS, OFF, THEMES, COACHES, WISHES, LIMIT, SERIES = (
    "others", "weeks-off", "weeks-themes", "weeks-coaches", "weeks-wishes", "weeks-limit", "weeks-series",
)  # fmt: skip


class KeptOther(TypedDict):
    """Other load: a number of its own, its day (YYYY-MM-DD), what it is, its weight, the patterns that it names."""

    id: int
    date: str
    what: str
    weight: str
    patterns: list[str]


class KeptSeries(TypedDict):
    """A series: its sessions week by week, what grows, the easier weeks, and weeks whose next step waits, with why."""

    sessions: list[int]
    grow: list[str]
    easier: int
    held: dict[str, str]


class Step(TypedDict, total=False):
    """What was done at once: days of sessions and their texts, before and after; sessions made; what else was kept."""

    said: str
    moves: list[tuple[int, str | None, str | None]]
    texts: list[tuple[int, str, str]]
    made: list[int]
    others: list[KeptOther] | None
    kept: dict[str, Any]


_OTHERS: TypeAdapter[list[KeptOther]] = TypeAdapter(list[KeptOther])
_SERIES: TypeAdapter[list[KeptSeries]] = TypeAdapter(list[KeptSeries])
_STEPS: TypeAdapter[list[Step]] = TypeAdapter(list[Step])


def others(work: Work) -> list[KeptOther]:
    """What else there is, in the order of days."""
    kept = _OTHERS.validate_python(club.choice(work, OTHERS) or [])
    return sorted(kept, key=lambda one: (one["date"], one["id"]))


def off(work: Work) -> set[str]:
    """Days that are none."""
    value = club.choice(work, OFF)
    return {str(one) for one in value} if isinstance(value, list) else set()


def _texts(work: Work, key: str) -> dict[str, str]:
    value = club.choice(work, key)
    return {str(name): str(said) for name, said in value.items()} if isinstance(value, dict) else {}


def themes(work: Work) -> dict[str, str]:
    """The theme of each week that has one, by its Monday."""
    return _texts(work, THEMES)


def coaches(work: Work) -> dict[int, str]:
    """Who coaches each session, where that is said."""
    return {int(one): name for one, name in _texts(work, COACHES).items() if one.isdecimal()}


def wishes(work: Work) -> tuple[Wish, ...]:
    """What an order should keep, in the order in which it was wished."""
    value = club.choice(work, WISHES)
    return tuple(checked(Wish, one) for one in value) if isinstance(value, list) else ()


def wish_as_kept(some: tuple[Wish, ...]) -> list[dict[str, Any]]:
    """Wishes as they are kept, the newest at most."""
    return [plain(one) for one in some[-MOST_WISHES:]]


def all_series(work: Work) -> list[KeptSeries]:
    """All series that were laid out."""
    return _SERIES.validate_python(club.choice(work, SERIES) or [])


def held_by(work: Work) -> set[int]:
    """The classes that have held a step of a series back, whether or not that was taken back since."""
    value = club.choice(work, "weeks-held-by")
    return {int(one) for one in value} if isinstance(value, list) else set()


def hold_by(work: Work, class_id: int) -> None:
    """A class has held a step back."""
    club.choose(work, "weeks-held-by", sorted({*held_by(work), class_id}))


def theme_of(work: Work, day: str | None) -> str:
    """The theme of the week in which a day (YYYY-MM-DD) is; empty where there is none."""
    if not day:
        return ""
    on = date.fromisoformat(day)
    return themes(work).get(f"{on - timedelta(days=on.weekday())}", "")


def limit(work: Work) -> float:
    """The hard minutes from which two days clash here."""
    value = club.choice(work, LIMIT)
    return float(value) if isinstance(value, int | float) and value > 0 else CLASH


def steps(work: Work) -> list[Step]:
    """What can be taken back, the newest last."""
    return _STEPS.validate_python(club.choice(work, "weeks-steps") or [])


def set_steps(work: Work, some: list[Step]) -> None:
    """Keep it."""
    kept: list[Any] = [dict(one) for one in some[-MOST_STEPS:]]
    club.choose(work, "weeks-steps", kept)
