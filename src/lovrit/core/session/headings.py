"""A heading or a header as it is meant: read in the slate's own form, or as it is said on boards."""

from functools import lru_cache
from typing import NamedTuple

from lovrit.core.session.lines import BlockLine, HeaderLine, read_block, read_header
from lovrit.core.session.spoken import own_form, own_header
from lovrit.core.slate.problem import Unreadable


class Heading(NamedTuple):
    """A block's first line; ``own`` is its own form where it was said otherwise, ``move`` what it says of the moves."""

    read: BlockLine
    own: str = ""
    move: str = ""


@lru_cache(maxsize=20_000)
def read_heading(text: str) -> Heading:
    """A block's first line. Where the slate's own reading means the same as what is said, it is kept with its figures.

    Raises:
        Unreadable: with the column, in a coach's words; also where two things could be meant.
    """
    own = own_form(text)
    try:
        plain = read_block(text)
    except Unreadable:
        if own is None:
            raise
        plain = None
    if own is None:
        assert plain
        return Heading(plain)
    spoken = read_block(own.head)
    if plain and plain.block == spoken.block:
        return Heading(plain)
    return Heading(BlockLine(spoken.block, {}), own.head, own.move)


def read_header_line(text: str) -> HeaderLine:
    """A header line; a slot or a setup with a bare figure is in minutes.

    Raises:
        Unreadable: with the column, in a coach's words; also where two things could be meant.
    """
    said = own_header(text)
    return read_header(said)._replace(figure=None) if said else read_header(text)
