"""The kit that a session wants out on the floor."""

from lovrit.core.moves.library import Library
from lovrit.core.session.session import Session

FREE_KIT = ("mat", "wall", "floor")  # what is there anyway, or is brought by everybody


def kit_out(session: Session, library: Library) -> list[str]:
    """The kit that has to be out, each once, in the order in which it is wanted."""
    lines = (line for block in session.blocks for line in block.moves)
    names = (task.name for line in lines for task in line.tasks)
    kit = (one for name in names for one in library.kit_of(name) if one not in FREE_KIT)
    return list(dict.fromkeys(kit))
