"""What every command is given and gives: a slate read, a plan, lines printed, an end with its exit status."""

import json
import os
import sys
from argparse import Namespace
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from lovrit.core.timeline.plan import Plan

os.environ.setdefault(
    "PYDANTIC_DISABLE_PLUGINS", "1"
)  # looking for plugins costs a tenth of a start

UNREADABLE, NONE, BROKEN_PIPE = 2, 3, 141
FILE = ("file", {"help": "a slate or its JSON form; - reads standard input"})
AS_JSON = ("--json", {"action": "store_true", "help": "one JSON object"})


class Ended(Exception):
    """A command that ends early: its exit status, what it prints on standard error."""

    def __init__(self, status: int, *said: str) -> None:
        super().__init__(*said)
        self.status = status


def print_text(text: str) -> None:
    """A line on standard output."""
    sys.stdout.write(text + "\n")


def print_json(value: object) -> None:
    """A value as one line of JSON."""
    print_text(json.dumps(value, ensure_ascii=False))


def bytes_of(file: str) -> bytes:
    """What is in a file or on standard input; ends with a sentence where there is none to be had."""
    try:
        return sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        raise Ended(UNREADABLE, f"{file}: {error.strerror or 'cannot be read'}") from None


def text_of(file: str) -> str:
    """The text of a file or of standard input; ends with a sentence where there is none to be had."""
    try:
        return bytes_of(file).decode("utf-8-sig")
    except UnicodeDecodeError as error:
        said = f"{file}: not UTF-8 text (byte {error.start + 1}); save it as UTF-8 and try again"
        raise Ended(UNREADABLE, said) from None


def plan_of(text: str, as_json: bool = False) -> "Plan":
    """The plan of a slate or its JSON form; ends with its problems where it has any."""
    from lovrit.core.moves.library import shipped
    from lovrit.formats.reading import plan_any

    plan = plan_any(text, shipped())
    if plan.problems:
        raise Ended(UNREADABLE, *problems_said(plan, as_json))
    return plan


def slate_of(asked: Namespace) -> str:
    """The slate of a file; of a session that comes as JSON, as it is written."""
    from lovrit.core.session.writer import write

    text = text_of(asked.file)
    planned = plan_of(text, asked.json)
    return write(planned.session) if text.lstrip().startswith("{") else text


def problems_said(plan: "Plan", as_json: bool) -> list[str]:
    """The problems of a plan as lines, or as one line of JSON."""
    from lovrit.formats.plan_json import errors_object

    if as_json:
        return [json.dumps(errors_object(plan.problems), ensure_ascii=False)]
    said = []
    for one in plan.problems:
        nearest = f"\n    this would be read: {one.nearest.strip()}" if one.nearest else ""
        said.append(f"line {one.line}, column {one.column}: {one.text}{nearest}")
    return said
