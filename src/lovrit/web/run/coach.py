"""What only the coach's screen holds: people with what is special, stations with their ways, the ready list."""

from collections.abc import Iterable
from typing import Any

from lovrit.core.crew.dose import SHARES
from lovrit.core.crew.person import DOES_NOT, Comer, Person
from lovrit.core.moves.library import Library
from lovrit.core.rights import OWNER, Who
from lovrit.core.run.events.why import REASONS
from lovrit.core.slate.line import Line
from lovrit.core.tonight.kit import kit_out
from lovrit.house.live import Live


def coach_view(live: Live, everyone: Iterable[Person], who: Who = OWNER) -> dict[str, Any]:
    """The coach's values for the page of a class; nothing of anybody's health for an assistant."""
    here, known = {one.id for one in live.comers}, list(everyone)
    whole = who.may("coach")
    return {
        "contacts": [
            (one.name, one.contact) for one in known if whole and one.id in here and one.contact
        ],
        "reasons": REASONS,
        "not_cleared": [one.name for one in live.comers if whole and one.cleared == "not yet"],
        "groups_of": groups_of(live.comers, whole),
        "others": [one for one in known if one.id not in here],
        "stations": stations_of(live),
        "kit": kit_out(live.plan.session, live.plan.library),
        "straps": len(live.straps),
        "outside": sum(one.id in live.outside.worn for one in live.comers),
        "labels": [block.label for block in live.plan.timeline.blocks],
        "scored": scored_in(live),
        "hardest": max((one.effort or 0 for one in live.plan.timeline.intervals), default=0),
    }


def scored_in(live: Live) -> list[tuple[int, str, str]]:
    """The blocks that a score is asked for: which, what they are, and how it is written."""
    both = zip(live.plan.session.blocks, live.plan.timeline.blocks, strict=True)
    return [
        (at, laid.label, block.asks_for) for at, (block, laid) in enumerate(both) if block.asks_for
    ]


def groups_of(
    comers: tuple[Comer, ...], whole: bool = True
) -> list[tuple[int, list[dict[str, Any]]]]:
    """People by group, each with what is special where that may be seen."""
    groups: dict[int, list[dict[str, Any]]] = {}
    for comer in comers:
        told = {"id": comer.id, "name": comer.name, "special": special(comer) if whole else ""}
        groups.setdefault(comer.group, []).append(told)
    return sorted(groups.items())


def special(person: Person) -> str:
    """What a coach minds about somebody: new or back, what they don't do, their own words."""
    said = [{"new": "new", "back": "back after a break"}.get(person.standing, "")]
    said += [DOES_NOT[limit] for limit in person.limits]
    said += [SHARES[person.share]] if person.share else []
    return ", ".join(one for one in (*said, person.mind) if one)


def stations_of(live: Live) -> list[tuple[str, list[str]]]:
    """Every station of the class once, with other ways to do it: the line's own, then easier ones of the move."""
    lines = {line.name: line for block in live.plan.session.blocks for line in block.moves}
    return [(name, _ways(line, live.plan.library)) for name, line in lines.items()]


def _ways(line: Line, library: Library) -> list[str]:
    task = line.tasks[0]
    own = [way.name for way in (*task.alternatives, *task.easier, *task.harder) if way.name]
    move = library.find(task.name)
    easier = [f"{move.name} {way}" for way in move.easier] if move else []
    return list(dict.fromkeys((*own, *easier)))
