"""A class that is on: who comes, stays away or changes group on Crew does so on the floor too, by an event."""

from collections.abc import Iterator
from typing import Any
from uuid import uuid4

from lovrit.core.crew.groups import letter
from lovrit.core.run.event import Event
from lovrit.core.values import checked
from lovrit.house.floor import Floor
from lovrit.house.house import House
from lovrit.house.live import Live

BY = "Who"


def class_on(floor: Floor, session_id: int) -> Live | None:
    """The class of a session that has begun and is not over; tries are nobody's evening."""
    return next(
        (
            live
            for live in list(floor.lives.values())
            if live.session_id == session_id
            and live.going.phase in ("on", "held")
            and not live.is_try
        ),
        None,
    )


def tell_floor(
    floor: Floor, house: House, session_id: int, before: dict[int, int], after: dict[int, int]
) -> list[str]:
    """Tell the class that is on what was changed of who comes, groups by number; what it could not take is said.

    Only what was changed is told: who stopped on the floor stays stopped whoever else is moved.
    """
    live = class_on(floor, session_id)
    if live is None:
        for waiting in list(floor.lives.values()):
            if waiting.session_id == session_id:
                floor.follow(waiting.id)
        return []
    refused = []
    for fields in list(_changed(live, before, after)):
        event = {"id": f"crew-{uuid4().hex}", "at_ms": house.now_ms(), "by": BY} | fields
        told = floor.happen(live.id, checked(Event, event))
        if told.refused:
            refused.append(told.refused)
    return refused


def _changed(live: Live, before: dict[int, int], after: dict[int, int]) -> Iterator[dict[str, Any]]:
    here, stopped = set(live.going.people), set(live.going.stopped)
    for who in before.keys() - after.keys():
        if str(who) in here - stopped:
            yield {"kind": "stops", "person": who}
    for who, group in after.items():
        if str(who) not in here:
            yield {"kind": "joins", "person": who, "group": letter(group)}
            continue
        if who not in before and str(who) in stopped:
            yield {"kind": "returns", "person": who}
        if before.get(who) != group and live.going.people[str(who)].group != letter(group):
            yield {"kind": "moves", "person": who, "group": letter(group)}
