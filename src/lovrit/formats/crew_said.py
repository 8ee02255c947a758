"""Who comes, told on the command line: in words, or as JSON of people, for rules about people to be tried."""

import json
import re
from pathlib import Path

from pydantic import ValidationError

from lovrit.core.advice.company import Company, company_of
from lovrit.core.crew.person import Person
from lovrit.core.values import LovritError, checked

PART = re.compile(r"(?P<count>\d+)\s+(?P<what>[a-z ]+)")
COUNTS = {
    "people": "people", "groups": "groups", "new": "new", "beginners": "new", "back": "back", "just back": "back",
    "older": "older", "children": "children", "to ask": "to_ask",
}  # fmt: skip
LIMITS = {"no jumps": "jumps", "no overhead": "overhead", "no depth": "depth", "no floor": "floor"}
SAID = ", ".join([*COUNTS, *LIMITS])


class NobodyKnown(LovritError):
    """What was said of the people can't be read."""


def company_said(said: str, today: str | None = None) -> Company:
    """The company that is meant by ``18 people, 2 new, 1 older, 3 no jumps``, or by a file of people as JSON.

    Raises:
        NobodyKnown: with what could be said.
    """
    path = Path(said)
    if said.endswith(".json") or (len(said) < 200 and path.is_file()):
        return _from_file(path, today)
    counts: dict[str, int] = {}
    limits: dict[str, int] = {}
    for part in filter(None, (one.strip().lower() for one in said.split(","))):
        found = PART.fullmatch(part)
        what = found["what"].strip() if found else ""
        if not found or what not in {*COUNTS, *LIMITS}:
            raise NobodyKnown(f"“{part}” says nothing of people: write a number and one of {SAID}.")
        if what in LIMITS:
            limits[LIMITS[what]] = int(found["count"])
        else:
            counts[COUNTS[what]] = int(found["count"])
    return Company(**counts, limits=limits)  # type: ignore[arg-type]


def _from_file(path: Path, today: str | None) -> Company:
    try:
        given = json.loads(path.read_text("utf-8"))
        people = [checked(Person, {"id": nth, **one}) for nth, one in enumerate(given, 1)]
    except (OSError, ValueError, TypeError, ValidationError) as error:
        first = error.errors()[0] if isinstance(error, ValidationError) else None
        why = f"{first['loc'][0]}: {first['msg']}" if first else str(error)
        raise NobodyKnown(f"{path.name} is no list of people: {why}") from None
    return company_of(people, None, today)
