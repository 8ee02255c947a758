"""A heading or a header as it is meant: read in the slate's own form, or as it is said on boards."""

from typing import NamedTuple

from lovrit.core.blocks.steady import Steady
from lovrit.core.session.lines import BlockLine, HeaderLine, read_block, read_header
from lovrit.core.session.spoken import own_form, own_header
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.remembered import remembered

# words that a stretch at one's own pace is never called
OTHER_KINDS = frozenset((
    "amrap", "emom", "rft", "x", "on", "off", "cap", "rounds", "round", "sets", "set", "reps", "superset", "supersets",
    "ladder", "every", "max", "for", "death", "relay",
))  # fmt: skip


class Heading(NamedTuple):
    """A block's first line; ``own`` is its own form where it was said otherwise, ``move`` what it says of the moves."""

    read: BlockLine
    own: str = ""
    move: str = ""


@remembered(20_000)
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
        return Heading(_named(plain, text))
    spoken = _named(read_block(own.head), text)
    if plain and plain.block == spoken.block:
        return Heading(plain)
    return Heading(BlockLine(spoken.block, {}), own.head, own.move)


def _named(read: BlockLine, text: str) -> BlockLine:
    """A block that is done at one's own pace, where its name is one.

    Raises:
        Unreadable: where a word of the name says another kind of block, or is none.
    """
    label = read.block.label if isinstance(read.block, Steady) else ""
    for word in label.lower().split():
        if word in OTHER_KINDS or not word.strip("-’'").replace("-", "").isalpha():
            column = text.lower().find(word) + 1
            raise Unreadable(
                f"“{word}” says that this is no easy stretch of so many minutes; what it is has to be said in full.",
                max(1, column),
                nearest="",
            )
    return read


def read_header_line(text: str) -> HeaderLine:
    """A header line; a slot or a setup with a bare figure is in minutes.

    Raises:
        Unreadable: with the column, in a coach's words; also where two things could be meant.
    """
    said = own_header(text)
    return read_header(said)._replace(figure=None) if said else read_header(text)
