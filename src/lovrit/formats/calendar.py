"""iCalendar (RFC 5545): the class as an event with its outline."""

from datetime import UTC, date, datetime, timedelta
from hashlib import sha256

from icalendar import Calendar, Event

from lovrit.core.clock import clock
from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import Plan
from lovrit.core.values import LovritError
from lovrit.formats.moments import later, moment


class NoDay(LovritError):
    """An event without a day."""


def to_ics(plan: Plan, zone: str, now: datetime) -> str:
    """The class as an event in a time zone; ``now`` is when it was written.

    Without a time of day in its slot it is an all-day event.

    Raises:
        NoDay: if the session has no date.
    """
    session = plan.session
    if session.date is None:
        raise NoDay("An event needs its day: write date: 2026-11-30 above the first block.")
    event = Event()
    event.add("summary", session.title or "Interval class")
    event.add("uid", sha256(write(session).encode()).hexdigest()[:32] + "@lovrit")
    event.add("dtstamp", now.astimezone(UTC))
    _when(event, plan, date.fromisoformat(session.date), zone)
    event.add("description", outline(plan))
    calendar = Calendar()
    calendar.add("prodid", "-//Lovrit//Lovrit//EN")
    calendar.add("version", "2.0")
    calendar.add_component(event)
    calendar.add_missing_timezones()
    text: str = calendar.to_ical().decode("utf-8")
    return text


def _when(event: Event, plan: Plan, day: date, zone: str) -> None:
    slot = plan.session.slot
    if not slot or not slot.begins:
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
        return
    start = moment(datetime.combine(day, slot.begins), zone)
    event.add("dtstart", start)
    event.add("dtend", later(start, timedelta(seconds=slot.seconds)))


def outline(plan: Plan) -> str:
    """A line a block: when it begins, what it is, its moves."""
    lines = []
    for block, laid in zip(plan.session.blocks, plan.timeline.blocks, strict=True):
        moves = ", ".join(line.name for line in block.moves)
        lines.append(f"{clock(laid.start_s)} {laid.label}" + (f": {moves}" if moves else ""))
    return "\n".join(lines)
