"""A day and an hour of a club as a moment that there is: in the night of the time change an hour is left out."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo


def moment(local: datetime, zone: str) -> datetime:
    """A local day and hour in its zone; one that the clocks leap over is an hour later, as they then stand.

    >>> moment(datetime.fromisoformat("2027-03-28T02:30"), "Europe/Berlin").isoformat()
    '2027-03-28T03:30:00+02:00'
    """
    there = ZoneInfo(zone)
    return local.replace(tzinfo=there).astimezone(UTC).astimezone(there)


def later(start: datetime, by: timedelta) -> datetime:
    """So much later by a watch, which knows of no time change."""
    return (start.astimezone(UTC) + by).astimezone(start.tzinfo)
