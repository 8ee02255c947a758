"""The JSON form of a session, and its schema (JSON Schema 2020-12)."""

import json
from typing import Any

from pydantic import ValidationError

from lovrit.core.session.reader import read
from lovrit.core.session.session import Session
from lovrit.core.session.writer import write
from lovrit.core.values import LovritError, checked, plain, schema_of

FORMAT = "lovrit-session"
VERSION = 1


class NotASession(LovritError):
    """JSON that is not a session; the sentence says where and why."""


def session_object(session: Session) -> dict[str, Any]:
    """A session as a JSON object that says what it is."""
    return {"format": FORMAT, "version": VERSION, **plain(session)}


def to_json(session: Session) -> str:
    """A session as JSON text."""
    return json.dumps(session_object(session), ensure_ascii=False, indent=2) + "\n"


def from_json(text: str) -> Session:
    """A session from its JSON text.

    Raises:
        NotASession: if it is not JSON, or not a session of this version.
    """
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise NotASession(f"This is not JSON: {error}.") from None
    return from_object(data)


def from_object(data: Any) -> Session:
    """A session from a JSON object.

    Raises:
        NotASession: if it is none.
    """
    if not isinstance(data, dict):
        raise NotASession("A session is a JSON object.")
    fields = dict(data)
    if fields.pop("format", FORMAT) != FORMAT or fields.pop("version", VERSION) != VERSION:
        raise NotASession(f"This is not {FORMAT} version {VERSION}.")
    try:
        return _sayable(checked(Session, fields))
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        raise NotASession(f"{where}: {first['msg']}.") from None


def _sayable(session: Session) -> Session:
    """A session as the slate would say it, so that JSON can hold nothing that can't be written or laid.

    Raises:
        NotASession: for figures that no slate could have, such as a range upside down.
    """
    reading = read(write(session))
    if reading.problems:
        first = reading.problems[0]
        raise NotASession(f"Written as a slate, line {first.line} can't be read: {first.text}")
    same_title = bool(reading.session.title) == bool(session.title.strip())
    if len(reading.session.blocks) != len(session.blocks) or not same_title:
        raise NotASession("A name in it breaks the line it stands on.")
    return reading.session


def schema() -> dict[str, Any]:
    """The JSON Schema of the JSON form."""
    inner = schema_of(Session)
    properties = {
        "format": {"const": FORMAT},
        "version": {"const": VERSION},
        **inner.pop("properties"),
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": f"urn:lovrit:session:{VERSION}",
        **inner,
        "properties": properties,
        "title": "A Lovrit session",
    }
