"""Whether a block that was made of a message can stand on a slate."""

from lovrit.core.session.reader import read


def sound(text: str) -> bool:
    """Whether a block reads on the slate."""
    return not read(text, 0).problems
