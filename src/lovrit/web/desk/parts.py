"""The parts of the Desk that follow its text, and what their templates are told."""

from typing import Any, NamedTuple

from fastapi.responses import HTMLResponse

from lovrit.core.session.rack import rack
from lovrit.house.house import House
from lovrit.web.desk.desk import Desk
from lovrit.web.pages import render


class Shown(NamedTuple):
    """What a page shows of a session: a block, a part of it, and the line of the slate under the cursor (0: none)."""

    block: int
    part: int
    line: int = 0


def values_of(opened: Desk, shown: Shown) -> dict[str, Any]:
    """All that the Desk’s templates are told."""
    block = opened.block_at(shown.line, shown.block)
    view = opened.view(block, shown.part if block == shown.block else 0)
    return {
        "ahead": None,
        "shown": opened.move_on(shown.line),
        "rack": rack(),
        "session": opened.row,
        "written": opened.written,
        "desk": view,
        "asides": opened.asides,
        "here": "desk",
    }


def parts_of(house: House, opened: Desk, shown: Shown) -> HTMLResponse:
    """Everything that follows the text, to be swapped in where it stands."""
    return HTMLResponse(render(house, "desk/parts.html", **values_of(opened, shown)))
