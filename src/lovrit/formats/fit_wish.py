"""A wish for a fit read from words, as the command line and the Desk's form send them."""

from collections.abc import Iterable, Mapping
from typing import Any, cast

from lovrit.core.clock import read_clock
from lovrit.core.fit.fit import CannotFit, Wish
from lovrit.core.fit.knobs import GIVES, Give
from lovrit.core.fit.search import Goal
from lovrit.core.fit.slot import Stay
from lovrit.core.timeline.plan import Plan

GOALS: tuple[Goal, ...] = ("total", "work", "rest", "hard", "ratio", "effort")


def goal_of(name: str) -> Goal:
    """The figure of this name; the whole for anything else, as a stay in the hall is."""
    return next((goal for goal in GOALS if goal == name), "total")


def seconds_of(text: str) -> int:
    """A time as m:ss, h:mm:ss or whole minutes.

    Raises:
        CannotFit: if it is none.
    """
    said = text.strip()
    if said.isdecimal():
        return int(said) * 60
    parts = said.split(":")
    if len(parts) not in (2, 3) or not all(part.isdecimal() for part in parts):
        raise CannotFit(f"“{text}” is no time; write it as 40:00.")
    return read_clock(said)


def gives_of(names: Iterable[str]) -> frozenset[Give]:
    """What may give, by name.

    Raises:
        CannotFit: where a name is none.
    """
    said = [name.strip() for name in names if name.strip()]
    strange = [name for name in said if name not in GIVES]
    if strange:
        raise CannotFit(f"“{strange[0]}” can't give; there are {', '.join(GIVES)}.")
    return frozenset(cast(Give, name) for name in said)


def stay_of(
    come: str | None, leave: str | None, plan: Plan, explain: str = "0:00", clear: str = "0:00"
) -> Stay | None:
    """The stay in the hall that is asked for; None where none is.

    Raises:
        CannotFit: where only one of in and out is said, or one is no time of day.
    """
    if not come and not leave:
        return None
    if not come or not leave:
        raise CannotFit("Say both: in at, and out at.")
    setup = plan.session.setup_s
    stay = Stay(
        come=come,
        leave=leave,
        setup_s=setup,
        explain_s=seconds_of(explain),
        clear_s=seconds_of(clear),
    )
    stay.session_s()
    return stay


def wish_of(said: Mapping[str, Any], stay: Stay | None) -> Wish:
    """The wish that these words say.

    Raises:
        CannotFit: where no figure is said, or more than one.
    """
    goals = [(goal, said[goal]) for goal in GOALS if said.get(goal)]
    if stay:
        goals.append(
            ("total", str(stay.session_s() // 60) if not stay.session_s() % 60 else _clock(stay))
        )
    if len(goals) != 1:
        raise CannotFit(
            "Say one figure that must be: total, work, rest, hard work, ratio, effort, or in and out."
        )
    gives = gives_of((said.get("give") or ",".join(GIVES)).split(","))
    keep = gives_of((said.get("keep") or "").split(","))
    goal, value = goals[0]
    if goal == "ratio":
        return Wish(figure=goal, to=ratio_of(value), gives=gives - keep)
    if goal == "effort":
        return Wish(figure=goal, effort=effort_of(value), gives=gives - keep)
    return Wish(figure=goal, seconds=seconds_of(value), gives=gives - keep)


def ratio_of(text: str) -> tuple[float, float]:
    """Work to rest as ``2:1``, ``2 : 1`` or ``1:2.5``.

    Raises:
        CannotFit: if it is none.
    """
    parts = [_number(part) for part in text.split(":")]
    if len(parts) != 2 or not all(parts):
        raise CannotFit(f"“{text}” is no ratio; write it as 2 : 1.")
    return parts[0], parts[1]


def _number(text: str) -> float:
    """A plain number; 0 for what is none."""
    plain = text.strip()
    return float(plain) if plain.replace(".", "", 1).isdecimal() else 0.0


def effort_of(text: str) -> float:
    """An effort in halves.

    Raises:
        CannotFit: if it is none.
    """
    effort = _number(text)
    if not 1 <= effort <= 10 or effort * 2 % 1:
        raise CannotFit(f"“{text}” is no effort; it goes from 1 to 10, in halves.")
    return effort


def _clock(stay: Stay) -> str:
    minutes, seconds = divmod(stay.session_s(), 60)
    return f"{minutes}:{seconds:02d}"
