"""A session's day on its slate: set, changed or taken off; every other line stays as it was written."""

import re

from lovrit.core.session.slatetext import SlateText

DATE = re.compile(r"^(\s*date\s*:\s*)\S+(.*)$", re.IGNORECASE)


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
