"""Hearts as threads, drawn for the coach's screen."""

from lovrit.house.hearts import Hearts
from lovrit.house.house import House
from lovrit.web.pages import render


def hearts_drawn(house: House, hearts: Hearts) -> str:
    """The threads of a class's hearts as they stand."""
    return render(house, "run/hearts.svg", hearts=hearts)
