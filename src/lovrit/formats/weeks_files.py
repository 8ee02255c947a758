"""Weeks on the command line: sessions on days read from JSON, what they ask, carry and clash as JSON."""

from datetime import datetime
from typing import Any

from lovrit.core.asked.carried import OTHER, PATTERNS, Other, Planned, carried
from lovrit.core.asked.clashing import DayClash
from lovrit.core.asked.dose import asks
from lovrit.core.moves.library import Library
from lovrit.core.timeline.plan import Plan, plan_text
from lovrit.core.values import LovritError
from lovrit.core.weeks.board import days_between, sameness
from lovrit.core.weeks.order import Wish, best_order
from lovrit.core.weeks.ways import Around, ways_out

MOST = 100
REST = "a rest day before it"
KINDS = ("not-before", "apart", "on")


class NotWeeks(LovritError):
    """Weeks that can't be read; the sentence says why."""


def weeks_object(given: Any, library: Library) -> dict[str, Any]:
    """What a file of weeks comes to.

    Raises:
        NotWeeks: where it can't be read, with what is wrong in it.
    """
    listed = given.get("sessions") if isinstance(given, dict) else None
    if not isinstance(listed, list) or not listed or len(listed) > MOST:
        raise NotWeeks(f"A file is {{“sessions”: [{{“id”, “at”, “slate”}}]}}, from one to {MOST}.")
    read = [_session(nth, one, library) for nth, one in enumerate(listed, 1)]
    sessions, plans = [one for one, _ in read], {one.id: plan for one, plan in read}
    if len({one.id for one in sessions}) < len(sessions):
        raise NotWeeks("Two sessions have one id.")
    others = [_other(nth, one) for nth, one in enumerate(given.get("others") or (), 1)]
    wishes = tuple(_wish(nth, one) for nth, one in enumerate(given.get("wishes") or (), 1))
    order = best_order(sessions, others, wishes)
    days = _days(sessions, others)
    around = Around(sessions, others)
    return {
        "days": days,
        "clashes": [
            {
                "session": one.session,
                "pattern": one.pattern,
                "kind": one.kind,
                "quality": one.what,
                "since": one.since,
                "asked": round(one.asked, 2),
                "carried": round(one.carried, 2),
                "text": one.text,
                "ways": _ways(one, around, plans) or [REST],
            }
            for one in around.told
        ],
        "told": [one.text for one in around.every if one.kind == "told"],
        "sameness": _rounded(sameness([day["load"] for day in days])),
        "order": {
            "now": round(order.now, 2),
            "best": round(order.best, 2),
            "days": {name: f"{at:%Y-%m-%d}" for name, at in order.at.items()},
            "proven": order.proven,
        },
        "unsure": [
            f"{one.id}: no effort in {head}" for one in sessions for head in one.asks.unsaid
        ],
    }


def _ways(clash: DayClash, around: Around, plans: dict[str, Plan]) -> list[str]:
    """The ways out of a clash in words, other sessions by their ids."""
    found = ways_out(clash, around, plans[clash.session], before=(plans.get(clash.since), asks))
    return [way.said.replace("{other}", way.other) for way in found]


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, 2)


def _session(nth: int, given: Any, library: Library) -> tuple[Planned, Plan]:
    try:
        plan = plan_text(str(given["slate"]), library)
        at = _moment(given["at"], f"session {nth}")
    except (KeyError, TypeError):
        raise NotWeeks(f"Session {nth} needs an id, at and slate.") from None
    if plan.problems:
        raise NotWeeks(f"Line {plan.problems[0].line} of session {nth}: {plan.problems[0].text}")
    fixed = bool(given.get("fixed", False))
    return Planned(id=str(given.get("id", nth)), at=at, asks=asks(plan), fixed=fixed), plan


def _moment(given: Any, what: str) -> datetime:
    try:
        moment = datetime.fromisoformat(str(given))
    except ValueError:
        raise NotWeeks(f"“{given}” of {what} is no moment; write it as 2026-11-30T18:10.") from None
    return moment.replace(tzinfo=None)


def _other(nth: int, given: Any) -> Other:
    if not isinstance(given, dict) or given.get("weight", "hard") not in OTHER:
        raise NotWeeks(
            f"Other load {nth} needs a date, what, and a weight: none, some, hard or event."
        )
    patterns = tuple(map(str, given.get("patterns") or ()))
    unknown = set(patterns) - set(PATTERNS) - {"whole-body", "footwork", "machine", "mobility"}
    if unknown:
        raise NotWeeks(f"“{min(unknown)}” is no pattern.")
    at = _moment(given.get("date"), f"other load {nth}")
    at = at.replace(hour=12) if at.hour == 0 else at
    return Other(
        at=at,
        what=str(given.get("what", "other load")),
        weight=given.get("weight", "hard"),
        patterns=patterns,
    )


def _wish(nth: int, given: Any) -> Wish:
    if not isinstance(given, dict) or given.get("kind") not in KINDS:
        raise NotWeeks(f"Wish {nth} is of no kind; there are {', '.join(KINDS)}.")
    ids = [str(one) for one in given.get("ids") or ()]
    return Wish(
        kind=given["kind"],
        id=str(given.get("id") or given.get("session") or (ids[0] if ids else "")),
        other=str(given.get("other") or (ids[1] if len(ids) > 1 else "")),
        day=str(given.get("date") or given.get("day") or ""),
        days=int(given.get("days") or 0),
        text=str(given.get("text", "")),
    )


def _days(sessions: list[Planned], others: list[Other]) -> list[dict[str, Any]]:
    moments = [one.at for one in sessions] + [one.at for one in others]
    told = []
    for noon in days_between(min(moments), max(moments)):
        mine = sorted(
            (one for one in sessions if one.at.date() == noon.date()), key=lambda one: one.at
        )
        at = mine[0].at if mine else noon
        dose: dict[str, float] = {}
        for one in mine:
            for pattern, minutes in one.asks.dose.items():
                dose[pattern] = dose.get(pattern, 0.0) + minutes
        told.append(
            {
                "date": f"{noon:%Y-%m-%d}",
                "load": round(sum(one.asks.load for one in mine), 1),
                "hard_min": round(sum(one.asks.hard_min for one in mine), 1),
                "dose": {pattern: round(minutes, 2) for pattern, minutes in sorted(dose.items())},
                "carried": {
                    pattern: round(minutes, 2)
                    for pattern, minutes in sorted(carried(at, sessions, others).items())
                    if minutes >= 0.05
                },
            }
        )
    return told
