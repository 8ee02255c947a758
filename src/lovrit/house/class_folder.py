"""A class taken out as a folder and brought into another club: all that is kept of it, equal on the other side.

People are known again by their names; who isn't in the club yet comes with what was known of them in that class.
"""

import json
from io import BytesIO
from pathlib import PurePosixPath
from typing import Any
from zipfile import BadZipFile, ZipFile

from pydantic import ValidationError
from sqlmodel import Session as Work

from lovrit.core.crew.person import Comer
from lovrit.core.run.event import Event
from lovrit.core.run.frozen import UnreadableClass, thaw
from lovrit.core.values import LovritError, checked, fields_of, plain
from lovrit.store import classes, people

KEPT, FORM = "kept.json", 1
MOST_BYTES, MOST_EVENTS = 64 * 1024 * 1024, 100_000
OF_A_CLASS = ("id", "group", "initials")  # of somebody in a class, not of the person


class NotAFolder(LovritError):
    """A file that brings no class back; the sentence says why."""


def kept_of(work: Work, class_id: int) -> str:
    """All that is kept of a class, as JSON.

    Raises:
        Gone: if there is none of this number.
    """
    row = classes.get(work, class_id)
    told = {
        "form": FORM, "title": row.title, "slate": row.text, "made_ms": row.made_ms, "over_ms": row.over_ms,
        "is_try": row.is_try, "people": row.people, "runs": row.frozen,
        "events": [plain(one, exclude_none=True) for one in classes.events(work, class_id)],
        "readings": {f"{who}": trace for who, trace in classes.traces(work, class_id).items()},
    }  # fmt: skip
    return json.dumps(told, ensure_ascii=False)


def bring_back(work: Work, raw: bytes) -> int:
    """Put a class that was taken out as a folder (a zip, or its kept.json) into this club; its number.

    Raises:
        NotAFolder: where it is none, can't be read, or is here already.
    """
    given = _given(raw)
    try:
        comers = [checked(Comer, one) for one in given["people"]]
        events = [checked(Event, one) for one in given["events"]]
        run_by = thaw(given["runs"] or {})
        made_ms, title, slate = (
            int(given["made_ms"]),
            str(given["title"])[:200],
            str(given["slate"]),
        )
        over_ms = None if given["over_ms"] is None else int(given["over_ms"])
        readings = {
            int(who): [(int(at), int(bpm)) for at, bpm in trace]
            for who, trace in given["readings"].items()
        }
    except (KeyError, TypeError, ValueError, ValidationError, UnreadableClass, AttributeError):
        raise NotAFolder(
            "What is kept in this folder can’t be read: it is of another kind, or damaged."
        ) from None
    if classes.is_here(work, made_ms, title):
        raise NotAFolder(f"“{title}” of that moment is here already.")
    now = {comer.id: _here(work, comer) for comer in comers}
    row = classes.make(
        work, None, title, slate, [one.but(id=now[one.id]) for one in comers], made_ms, run_by, bool(given["is_try"]),
    )  # fmt: skip
    number = row.id or 0
    classes.add_events(work, number, (_of(one, now) for one in events))
    told = (
        (at, {now[who]: bpm}) for who, trace in readings.items() if who in now for at, bpm in trace
    )
    classes.add_samples(work, number, told)
    classes.set_over(work, number, over_ms)
    return number


def _given(raw: bytes) -> dict[str, Any]:
    """What a zip or a file holds."""
    if raw[:2] == b"PK":
        raw = _unpacked(raw)
    try:
        given = json.loads(raw.decode("utf-8-sig"))
    except (ValueError, RecursionError):
        raise NotAFolder(
            "This is no folder of a class: its class.zip is read, or the kept.json in it."
        ) from None
    if not isinstance(given, dict) or given.get("form") != FORM:
        raise NotAFolder(
            "This is no folder of a class: its class.zip is read, or the kept.json in it."
        )
    if not isinstance(given.get("events"), list) or len(given["events"]) > MOST_EVENTS:
        raise NotAFolder("There are no events in it, or more than can have happened.")
    return given


def _unpacked(raw: bytes) -> bytes:
    try:
        with ZipFile(BytesIO(raw)) as folder:
            found = [one for one in folder.infolist() if PurePosixPath(one.filename).name == KEPT]
            if len(found) != 1:
                raise NotAFolder(f"There is no {KEPT} in it: folders hold one since 0.8.")
            if found[0].file_size > MOST_BYTES:
                raise NotAFolder("It is larger than a class can be.")
            return folder.read(found[0])
    except (BadZipFile, EOFError, OSError, RuntimeError, NotImplementedError):
        raise NotAFolder("This zip can’t be opened: it is damaged, or locked.") from None


def _here(work: Work, comer: Comer) -> int:
    """Their number in this club; made where nobody is called so."""
    known = next((one.id for one in people.everyone(work) if one.name == comer.name), None)
    if known is not None or comer.erased:
        return known if known is not None else comer.id
    fields = {name: value for name, value in fields_of(comer).items() if name not in OF_A_CLASS}
    kept = {
        name: plain(comer)[name] for name in fields if name not in ("name", "together", "apart")
    }
    kept["hearts"] = kept.get("hearts") or "before"  # it came with their heart, or without any
    return people.add_person(work, comer.name, **kept).id


def _of(event: Event, now: dict[int, int]) -> Event:
    """An event with the numbers of this club."""
    whose = {
        name: now.get(who, who)
        for name in ("person", "other")
        if (who := getattr(event, name)) is not None
    }
    return event.but(**whose) if whose else event
