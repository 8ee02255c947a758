"""The people of an evening as the Crew page shows them."""

from lovrit.core.blocks.parts import Heart
from lovrit.core.crew.groups import most_stations, sizes, usual_groups
from lovrit.core.crew.paces import spread, within, write_paces
from lovrit.core.crew.person import DOES_NOT, Person
from lovrit.core.forecast.learned import Quickness
from lovrit.core.heart.demand import corridor
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import Value

LOW_BPM, HIGH_BPM = 40, 205


class ComerRow(Value):
    """A person's line: the thin line from rest to highest, and the work's box on it, in percent."""

    person: Person
    comes: bool
    group: int
    line: tuple[float, float] | None
    box: tuple[float, float] | None
    stands: str = ""
    paces: str = ""


class CrewView(Value):
    """Who comes in which group, who stays away, and the line that opens the page."""

    groups: tuple[tuple[ComerRow, ...], ...]
    away: tuple[ComerRow, ...]
    coming: int
    said: str
    by_effort: int
    wanted: int
    effort: float | None
    stations: int = 0

    @property
    def uneven(self) -> bool:
        """Whether some group has two people or more than another."""
        sizes_ = [len(rows) for rows in self.groups if rows]
        return bool(sizes_) and max(sizes_) - min(sizes_) > 1


STANDS = {"usual": "", "new": "new", "back": "just back"}


def stands_in_words(person: Person, today: str, pace: Quickness | None, plan: Plan) -> str:
    """How a person stands, what they don't do now, and of their paces what this session asks for."""
    weeks = person.weeks(today)
    week = f", week {weeks + 1}" if weeks is not None and person.standing != "usual" else ""
    said = [f"{STANDS[person.standing]}{week}"] if STANDS[person.standing] else []
    said += [DOES_NOT[limit] for limit in person.limits]
    said += (
        [f"100 m in {person.pace_100_s} s"] if person.pace_100_s and _covers_metres(plan) else []
    )
    asked = next((block.pace for block in plan.session.blocks if block.pace), None)
    own = within(person.paces, asked.low, asked.high) if asked else ()
    said += [spread(own)] if own else []
    if pace and pace.rests_on:
        share = abs(round((pace.factor - 1) * 100))
        word = "slower" if pace.factor > 1 else "quicker"
        scores = f"{pace.rests_on} score{'s' if pace.rests_on > 1 else ''}"
        said.append(f"{share} % {word}, from {scores}" if share else "at the usual pace")
    return ", ".join(said)


def _covers_metres(plan: Plan) -> bool:
    """Whether some block is by distance."""
    return any(block.amount.metres for block in plan.session.blocks if block.amount)


def crew_view(
    plan: Plan,
    everyone: list[Person],
    comers: list[tuple[Person, int]],
    today: str = "",
    paces: dict[int, Quickness] | None = None,
) -> CrewView:
    """The evening's people by group; ``today`` is YYYY-MM-DD, for weeks on a level."""
    known = paces or {}
    stands = (
        {one.id: stands_in_words(one, today, known.get(one.id), plan) for one in everyone}
        if today
        else {}
    )
    effort = main_effort(plan)
    target = main_heart(plan)
    count = max((group for _, group in comers), default=-1) + 1
    here = {person.id for person, _ in comers}
    by_group: list[list[ComerRow]] = [[] for _ in range(count)]
    for person, group in comers:
        box = corridor(person, effort, target)
        by_group[group].append(_row(person, group, box, stands.get(person.id, "")))
    others = (person for person in everyone if person.id not in here)
    away = tuple(_row(person, None, None, stands.get(person.id, "")) for person in others)
    groups = tuple(tuple(rows) for rows in by_group)
    return CrewView(
        groups=groups,
        away=away,
        coming=len(comers),
        said=sizes([len(rows) for rows in groups if rows]) if comers else "no groups",
        by_effort=sum(person.effort_only for person, _ in comers),
        wanted=count or usual_groups(len(comers), most_stations(plan)),
        effort=effort,
        stations=most_stations(plan),
    )


def _row(
    person: Person, group: int | None, box: tuple[float, float] | None, stands: str
) -> ComerRow:
    line = None if person.effort_only else (_at(person.rest), _at(person.highest))
    shown = (_at(box[0]), _at(box[1])) if box else None
    return ComerRow(
        person=person,
        comes=group is not None,
        group=group or 0,
        line=line,
        box=shown,
        stands=stands,
        paces=write_paces(person.paces),
    )


def _at(bpm: float) -> float:
    return round((bpm - LOW_BPM) / (HIGH_BPM - LOW_BPM) * 100, 2)


def main_effort(plan: Plan) -> float | None:
    """The effort that most of the work is done at."""
    seconds: dict[float, int] = {}
    for one in plan.timeline.intervals:
        if one.phase == "work" and one.effort is not None:
            seconds[one.effort] = seconds.get(one.effort, 0) + one.seconds
    return max(seconds, key=lambda effort: seconds[effort], default=None)


def main_heart(plan: Plan) -> Heart | None:
    """The first heart target that a block writes."""
    return next((block.heart for block in plan.session.blocks if block.heart), None)
