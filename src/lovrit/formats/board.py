"""Whatever was pasted or dropped: a message, a slate, the JSON form or CSV, made a slate as far as it can be."""

from lovrit.core.messages.read import Asked, Message, read_message
from lovrit.core.session.writer import write
from lovrit.core.values import LovritError
from lovrit.formats.interval_csv import from_csv


def read_board(text: str) -> Message:
    """A slate made of whatever was pasted, what has to be asked, and what was kept beside."""
    stripped = text.strip().removeprefix("\ufeff")
    if stripped.startswith("{"):
        return _json(stripped)
    if stripped.split("\n", 1)[0].count(",") >= 2 and "phase" in stripped.split("\n", 1)[0]:
        made = from_csv(stripped)
        return Message(made.slate, tuple(Asked(0, "", said, ()) for said in made.left_out))
    return read_message(text)


def _json(text: str) -> Message:
    from lovrit.formats.session_json import from_json

    try:
        return Message(write(from_json(text)))
    except LovritError as error:
        return Message("", (Asked(1, "", str(error), ()),))


def message_object(made: Message) -> dict[str, object]:
    """What a message says, as one object: its slate, what is asked with whole blocks as answers, the notes kept."""
    asked = [
        {"line": one.line, "text": one.text, "question": one.question, "answers": list(one.answers)}
        for one in made.asked
    ]
    return {"slate": made.slate, "asked": asked, "kept": list(made.kept)}
