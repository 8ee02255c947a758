"""A session's day and hour on its slate: set, changed or taken off; every other line stays as it was written."""

import re

from lovrit.core.session.slatetext import SlateText

DATE = re.compile(r"^(\s*date\s*:\s*)\S+(.*)$", re.IGNORECASE)


def undated(text: str) -> str:
    """A text without its day, by its lines alone: quick, where many are compared.

    >>> undated("title: Hall\\ndate: 2026-12-01\\nrest 1:00")
    'title: Hall\\nrest 1:00'
    """
    return "\n".join(line for line in text.split("\n") if not DATE.match(line)).strip()


def with_date(text: str, day: str | None) -> str:
    """The text with a day (YYYY-MM-DD) as its date, or with none.

    >>> with_date("title: Hall\\nrest 1:00", "2026-12-01")
    'title: Hall\\ndate: 2026-12-01\\nrest 1:00'
    """
    slate = SlateText(text)
    here = slate.reading.headers.get("date")
    if here is not None and day is None:
        del slate.lines[here.line]
        return slate.text()
    if here is not None:
        slate.lines[here.line] = DATE.sub(rf"\g<1>{day}\g<2>", slate.lines[here.line])
        return slate.text()
    if day is None:
        return text
    title = slate.reading.headers.get("title")
    slate.lines.insert(title.line + 1 if title else 1, f"date: {day}")
    return slate.text()


SLOT = re.compile(r"^(\s*slot\s*:\s*)[^#]*?(\s*(?:#.*)?)$", re.IGNORECASE)
DAY_MIN = 24 * 60


def with_start(text: str, start: str, minutes: int) -> str:
    """The text with a time of day (HH:MM) at which it begins; its slot keeps its length, else it is so many minutes.

    >>> with_start("title: Hall\\nslot: 45:00\\nrest 1:00", "18:30", 60)
    'title: Hall\\nslot: 18:30-19:15\\nrest 1:00'
    """
    slate = SlateText(text)
    here, slot = slate.reading.headers.get("slot"), slate.reading.session.slot
    hours, _, past = start.partition(":")
    begins = int(hours) * 60 + int(past)
    ends = (begins + max(1, slot.seconds // 60 if slot else minutes)) % DAY_MIN
    said = f"{begins // 60:02d}:{begins % 60:02d}-{ends // 60:02d}:{ends % 60:02d}"
    if here is not None:
        slate.lines[here.line] = SLOT.sub(rf"\g<1>{said}\g<2>", slate.lines[here.line])
        return slate.text()
    title = slate.reading.headers.get("title")
    slate.lines.insert(title.line + 1 if title else 1, f"slot: {said}")
    return slate.text()
