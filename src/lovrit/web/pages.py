"""Pages: templates with the words and figures that all of them share."""

from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import uuid4

from fastapi import Request
from fastapi.responses import HTMLResponse
from jinja2 import ChoiceLoader, Environment, FileSystemLoader, StrictUndefined

from lovrit.core.clock import clock, minutes, number
from lovrit.core.crew.groups import letter
from lovrit.web.house import House
from lovrit.web.words import WORDS

HERE = Path(__file__).parent
SLICES = ("shell", "desk", "crew", "run", "debrief", "moves", "club")


def environment(assets: str) -> Environment:
    """The templates of all screens; ``assets`` tells one build of styles and scripts from another."""
    loaders = [FileSystemLoader(HERE / name / "templates") for name in SLICES]
    made = Environment(
        loader=ChoiceLoader(loaders),
        autoescape=True,
        auto_reload=False,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )
    made.filters |= {"clock": clock, "minutes": minutes, "number": number, "letter": letter}
    made.globals |= {"words": WORDS, "assets": assets, "fresh_id": _fresh_id}
    return made


def day(ms: int) -> str:
    """A moment as a coach says it, in UTC."""
    return f"{datetime.fromtimestamp(ms / 1000, UTC):%A %-d %B, %H:%M}"


def _fresh_id() -> str:
    """An id for a form, so that one sent twice counts once."""
    return uuid4().hex


def render(house: House, template: str, **values: Any) -> str:
    """A template as text."""
    return house.templates.get_template(template).render(**values)


def page(request: Request, house: House, template: str, *, status: int = 200, **values: Any) -> HTMLResponse:
    """A whole page."""
    values.setdefault("here", template.split("/", 1)[0])
    values["nonce"] = request.state.nonce
    return HTMLResponse(render(house, template, **values), status)
