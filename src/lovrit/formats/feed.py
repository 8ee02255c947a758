"""The weeks as an iCalendar feed (RFC 5545): stable names, a number that rises with each change, what is called off."""

from datetime import UTC, datetime, timedelta

from icalendar import Calendar, Event

from lovrit.core.weeks.publish import Shown
from lovrit.formats.moments import later, moment


def to_feed(shown: tuple[Shown, ...], name: str, zone: str, now: datetime, place: str = "") -> str:
    """All that people may see, in a time zone; ``now`` is when it was written."""
    calendar = Calendar()
    calendar.add("prodid", "-//Lovrit//Lovrit//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name or "Training")
    for one in shown:
        calendar.add_component(_event(one, zone, now, place))
    calendar.add_missing_timezones()
    text: str = calendar.to_ical().decode("utf-8")
    return text


def _event(one: Shown, zone: str, now: datetime, place: str) -> Event:
    event = Event()
    event.add("uid", one.uid)
    event.add("sequence", one.sequence)
    event.add("dtstamp", now.astimezone(UTC))
    start = moment(datetime.fromisoformat(f"{one.day}T{one.at}"), zone)
    event.add("dtstart", start)
    event.add("dtend", later(start, timedelta(minutes=one.minutes)))
    event.add("summary", one.title)
    event.add("description", f"{one.like[:1].upper()}{one.like[1:]}.")
    event.add("status", "CANCELLED" if one.cancelled else "CONFIRMED")
    where = ", ".join(said for said in (one.where, place) if said)
    if where:
        event.add("location", where)
    return event
