"""A heart's forecast on the command line: a person read from JSON, the forecast as JSON."""

from typing import Any

from pydantic import ValidationError

from lovrit.core.crew.person import Person
from lovrit.core.heart.body import Body
from lovrit.core.heart.foresee import Ahead, body_of, foresee
from lovrit.core.heart.group import foresee_company
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError, checked, fields_of, names_of

OWN = ("rest_hr", "max_hr", "age", "effort_only", "limit_hr", "threshold_hr", "by_age")
BESIDE = ("sex", "medicine")  # what is said of a person here that the club keeps otherwise
SLOWED = 25  # beats by which medicine that slows a heart lowers what it can do, about: ours
MOST_S, MOST_PEOPLE = 6 * 3600, 200


class NotAHeart(LovritError):
    """A person whose heart can't be forecast; the sentence says why."""


def ahead_object(plan: Plan, given: Any, group: Any = None) -> dict[str, Any]:
    """The forecast of a session for a person; with the middle and the band of a group in their own reserve, if given.

    Raises:
        NotAHeart: where the person can't be read, or the session is longer than six hours.
    """
    _all_known(given)
    person, body = person_of(given)
    if plan.timeline.total_s > MOST_S:
        raise NotAHeart("That is longer than six hours; no heart is forecast so far.")
    told = _object(foresee(plan, person, body)) | {"assumed": person.assumed}
    return told if group is None else told | {"group": _of_group(plan, group)}


def _all_known(given: Any) -> None:
    """No figure of a person is passed over in silence."""
    known = {*names_of(Person), *names_of(Body), *BESIDE}
    unknown = set(given) - known if isinstance(given, dict) else set()
    if unknown:
        raise NotAHeart(f"“{min(unknown)}” is no figure that is known of a heart.")


def _of_group(plan: Plan, given: Any) -> dict[str, Any]:
    """The lines of a group through the whole session, as shares of each one's own reserve."""
    people = given.get("people") if isinstance(given, dict) else given
    if not isinstance(people, list) or not people:
        raise NotAHeart("A group is a list of people, or an object with “people”.")
    ahead = foresee_company(plan, [person_of(one)[0] for one in people[:MOST_PEOPLE]], None)
    if ahead is None:
        raise NotAHeart("In this group nobody’s heart steers.")
    return {
        "middle": [round(float(share), 3) for share in ahead.middle],
        "low": [round(float(share), 3) for share in ahead.low],
        "high": [round(float(share), 3) for share in ahead.high],
        "turns": [one._asdict() for one in ahead.turns],
    }


def person_of(given: Any) -> tuple[Person, Body]:
    """A person and their heart; what isn't given is assumed.

    Raises:
        NotAHeart: where a figure can't be.
    """
    if not isinstance(given, dict):
        raise NotAHeart("A person is an object: {“rest_hr”, “max_hr”, “age”, “sex”, “gain”}.")
    fields = {name: given[name] for name in OWN if name in given}
    if given.get("sex") in ("f", "female", "w", "woman"):
        fields.setdefault("by_age", "gulati")
    if given.get("medicine"):
        fields["effort_only"] = True
    try:
        person = checked(Person, {"id": 0, "name": "", "initials": "", **fields})
        if given.get("medicine") and person.max_hr is None:
            person = person.but(max_hr=person.highest - SLOWED)
        own = {
            name: float(given[name]) for name in names_of(Body) if name in given and name != "rest"
        }
    except (ValidationError, TypeError, ValueError):
        raise NotAHeart(
            "A figure of this person can’t be: beats from 30 to 230, age in years."
        ) from None
    if person.highest - person.rest < 20:
        raise NotAHeart(f"{person.rest} at rest and {person.highest} at the highest can’t both be.")
    made = Body(**{**fields_of(body_of(person)), **own})
    if any(not getattr(made, name) > 0 for name in ("tau_on", "tau_off", "tau_m", "gain")):
        raise NotAHeart("The times of a heart and its gain are above nothing.")
    return person, made


def _object(ahead: Ahead) -> dict[str, Any]:
    return {
        "hz": 1,
        "bpm": _rounded(ahead.bpm),
        "low": _rounded(ahead.low),
        "high": _rounded(ahead.high),
        "turns": [
            {
                "start_s": turn.start_s,
                "end_s": turn.end_s,
                "target": None
                if turn.target is None
                else [round(beats, 1) for beats in turn.target],
                "peak": round(turn.peak, 1),
                "peak_after_end_s": turn.peak_after_end_s,
                "low_in_rest": None if turn.low_in_rest is None else round(turn.low_in_rest, 1),
                "reached": turn.reached and not turn.over,
                "over": turn.over,
            }
            for turn in ahead.turns
        ],
        "blocks": [{"time_s": [round(seconds, 1) for seconds in three]} for three in ahead.blocks],
    }


def _rounded(line: Any) -> list[float]:
    return [round(float(bpm), 1) for bpm in line]
