"""The forms a session can be written in, by name."""

from collections.abc import Callable
from typing import NamedTuple

from lovrit.core.session.writer import write
from lovrit.core.timeline.plan import Plan
from lovrit.formats.session_json import to_json


class Writer(NamedTuple):
    """A form: how it is written, its media type, and the end of its file's name."""

    write: Callable[[Plan], str]
    media_type: str
    suffix: str


WRITERS: dict[str, Writer] = {
    "json": Writer(lambda plan: to_json(plan.session), "application/json", ".json"),
    "slate": Writer(lambda plan: write(plan.session), "text/plain; charset=utf-8", ".slate"),
}
