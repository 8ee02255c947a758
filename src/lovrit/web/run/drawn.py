"""What the floor's screens show as pictures: hearts as threads, the moves of the stations."""

from lovrit.core.crew.fits import cells
from lovrit.core.crew.person import Comer
from lovrit.core.run.frozen import Frozen
from lovrit.house.hearts import Hearts
from lovrit.house.house import House
from lovrit.web.pages import render
from lovrit.web.pictures import Picture, picture


def hearts_drawn(house: House, hearts: Hearts) -> str:
    """The threads of a class's hearts as they stand."""
    return render(house, "run/hearts.svg", hearts=hearts)


def wall_drawings(plan: Frozen) -> dict[str, Picture]:
    """The drawings of a class's stations by their names, for those whose first move has one."""
    drawn = {station: picture(name) for station, name in plan.drawn.items()}
    return {station: one for station, one in drawn.items() if one}


def own_drawings(plan: Frozen, mine: Comer) -> dict[str, Picture]:
    """The same for one person, with those of their own versions."""
    run_by = plan.plan()
    lines = [line for block in run_by.blocks for line in block.block.moves if not line.is_rest]
    names = {one.does for line in lines for one in cells(mine, line, run_by.library)}
    own = {name: drawn for name in names if (drawn := picture(name))}
    return own | wall_drawings(plan)
