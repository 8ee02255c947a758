"""Pages: templates with the words and figures that all of them share."""

from contextlib import suppress
from datetime import date
from functools import cache
from pathlib import Path
from typing import Any
from uuid import uuid4

from fastapi import Request
from fastapi.responses import HTMLResponse
from jinja2 import (
    ChoiceLoader,
    Environment,
    FileSystemBytecodeCache,
    FileSystemLoader,
    StrictUndefined,
)

from lovrit.core.clock import clock, minutes, number
from lovrit.core.crew.groups import letter
from lovrit.core.kept import kept_at
from lovrit.core.moves.guess import guess
from lovrit.core.moves.move import PATTERNS
from lovrit.core.values import plain
from lovrit.house.house import House
from lovrit.house.thread import Thread, thread_of
from lovrit.store.sessions import Gone
from lovrit.web.rights import who_of
from lovrit.web.words import WORDS

HERE = Path(__file__).parent
OF_A_SESSION = frozenset(
    {"desk", "crew", "hall", "run", "debrief"}
)  # screens with a session's thread over them


@cache
def environment(assets: str, screens: tuple[Any, ...]) -> Environment:
    """The templates of all screens; ``assets`` tells one build of styles and scripts from another."""
    loaders = [
        FileSystemLoader(HERE / name / "templates")
        for name in ("shell", *(one.key for one in screens))
    ]
    made = Environment(
        loader=ChoiceLoader(loaders),
        autoescape=True,
        auto_reload=False,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
        bytecode_cache=_compiled(),
    )
    made.filters |= {
        "clock": clock,
        "minutes": minutes,
        "number": number,
        "guess": guess,
        "letter": letter,
        "browser": browser,
        "day_said": day_said,
        "plain": plain,
    }
    made.globals |= {
        "words": WORDS,
        "assets": assets,
        "screens": [one for one in screens if one.named and not one.step],
        "thread_steps": [one for one in screens if one.step],
        "fresh_id": _fresh_id,
    }
    made.globals["patterns"] = PATTERNS
    return made


def _compiled() -> FileSystemBytecodeCache | None:
    """Where templates are kept compiled, so that the first pages after a start come as quickly as the others."""
    folder = kept_at("pages")
    with suppress(OSError):
        if folder:
            folder.mkdir(exist_ok=True)
            return FileSystemBytecodeCache(str(folder))
    return None


def day(house: House, ms: int) -> str:
    """A moment as a coach says it, in the club's zone."""
    return f"{house.when(ms):%A %-d %B, %H:%M}"


def day_said(text: str) -> str:
    """A day (YYYY-MM-DD) as it stands in a list.

    >>> day_said("2026-11-30")
    'Mon 30 Nov'
    """
    return f"{date.fromisoformat(text):%a %-d %b}"


BROWSERS = (("Firefox/", "Firefox"), ("Edg/", "Edge"), ("Chrome/", "Chrome"), ("Safari/", "Safari"))
MACHINES = (
    ("iPhone", "a phone"),
    ("iPad", "a tablet"),
    ("Android", "a phone or tablet"),
    ("Windows", "Windows"),
)
MORE_MACHINES = (("Mac OS", "a Mac"), ("Linux", "Linux"))


def browser(said: str) -> str:
    """What a browser says it is, in two words.

    >>> browser("Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0")
    'Firefox on Linux'
    """
    name = next((name for mark, name in BROWSERS if mark in said), "a browser")
    machine = next((name for mark, name in (*MACHINES, *MORE_MACHINES) if mark in said), "")
    return f"{name} on {machine}" if machine else name


def _fresh_id() -> str:
    """An id for a form, so that one sent twice counts once."""
    return uuid4().hex


def render(house: House, template: str, **values: Any) -> str:
    """A template as text."""
    return house.templates.get_template(template).render(**values)


def _thread(house: House, values: dict[str, Any]) -> Thread | None:
    """The thread of the session that a page is of; None on the club's pages, and where there is none any more."""
    if values["here"] not in OF_A_SESSION:
        return None
    row, live = values.get("session"), values.get("live")
    number = row.id if row else live.session_id if live else None
    with suppress(Gone):
        return None if number is None else thread_of(house, number)
    return None


def page(
    request: Request, house: House, template: str, *, status: int = 200, **values: Any
) -> HTMLResponse:
    """A whole page."""
    values.setdefault("here", template.split("/", 1)[0])
    values.setdefault("thread", _thread(house, values))
    values["nonce"], values["in_as"] = request.state.nonce, who_of(request)
    values["beside"] = house.beside_said
    return HTMLResponse(render(house, template, **values), status)
