"""The parts of the Desk that follow its text, and what their templates are told."""

from typing import Any, NamedTuple

from fastapi.responses import HTMLResponse

from lovrit.core.session.rack import rack
from lovrit.house.house import House
from lovrit.web.desk.desk import Desk
from lovrit.web.pages import render

# three real beginnings, for whoever sits before an empty slate
BEGINNINGS = (
    (
        "A circuit for a group",
        "warm-up 8:00 at 3\n\n3 rounds of 40/20, break 2:00, at 8\n  squat\n  ring row\n  bench step-up\n  plank\n",
    ),
    ("Intervals", "warm-up 10:00 at 3\n\n6 x 2:00/2:00 at 8\n  row\n\ncool-down 5:00 at 2\n"),
    (
        "Strength, then a finisher",
        "3 sets of 8 reps, rest 2:00\n  goblet squat\n\nas many as possible in 8:00\n  10 push-up\n  12 sit-up\n",
    ),
)


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
        "beginnings": BEGINNINGS,
        "session": opened.row,
        "written": opened.written,
        "desk": view,
        "asides": opened.asides,
        "evenings": opened.evenings,
        "here": "desk",
    }


def parts_of(house: House, opened: Desk, shown: Shown) -> HTMLResponse:
    """Everything that follows the text, to be swapped in where it stands."""
    return HTMLResponse(render(house, "desk/parts.html", **values_of(opened, shown)))
