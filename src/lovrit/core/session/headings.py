"""A heading or a header as it is meant: read in the slate's own form, or by the roles of what is said as on boards."""

import re
from typing import NamedTuple

from lovrit.core.blocks.intervals import Intervals
from lovrit.core.blocks.steady import Steady
from lovrit.core.clock import clock
from lovrit.core.reading.alone import is_label
from lovrit.core.reading.giving import is_minutes
from lovrit.core.reading.heading import Ways, heading_ways
from lovrit.core.reading.line import Left
from lovrit.core.reading.questions import QUESTIONS
from lovrit.core.session.grammar import reads
from lovrit.core.session.lines import BlockLine, HeaderLine, read_block, read_header
from lovrit.core.slate.problem import Unreadable
from lovrit.core.slate.remembered import remembered

# words that say what kind it is, and neither how long nor how often
LONE = ("intervals", "circuit", "finisher", "strength", "chipper", "teams", "partners", "emom")
BARE_REST = re.compile(
    r"(?:^|(?<=[\s,]))(rest|break|change)\s+([1-9]|10)(?=\s*(?:,|$|\s(?:at|added|drop)\b))",
    re.IGNORECASE,
)
BARE_LENGTH = re.compile(
    r"(?<![\d:/.x×+-])\b\d{1,4}(?![\d:./%]|\s*(?:s|sec\w*|min\w*|m|km|mi|cal|reps?)\b|\s*['\"′″’])"
)
BARE_HEADER = re.compile(r"(slot|setup)\s*:\s*(\d+)", re.IGNORECASE)
# kinds whose first words hold a length that a bare figure could be minutes or seconds of
BY_LENGTH = frozenset({"steady", "rest", "every", "amrap"})


class Heading(NamedTuple):
    """A block's first line; ``own`` is its own form where it was said otherwise, ``below`` what it says of lines."""

    read: BlockLine
    own: str = ""
    below: tuple[str, ...] = ()


@remembered(20_000)
def read_heading(text: str) -> Heading:
    """A block's first line. Where the slate's own reading means the same as what is said, it is kept with its figures.

    Raises:
        Unreadable: with the column, in a coach's words; also where two things could be meant.
    """
    _ask_bare(text)
    plain, wrong = _plain(text)
    if plain and _is_clear(text, plain):
        return Heading(plain)
    own = wrong and reads(text, "block") and not FALLING.search(text)
    if wrong and own and not MISPLACED.search(wrong.text):
        raise wrong  # the slate's own form, with something in it that can't be
    ways = heading_ways(text)
    if len(ways.forms) == 1:
        return _said(ways.forms[0], plain)
    if wrong and own and not ways.nest:
        raise wrong
    if plain and isinstance(plain.block, Intervals) and not ways.forms:
        return Heading(plain)
    _ask(text, ways, wrong)
    raise wrong or Unreadable(
        f"“{text.strip()}” could be more than one thing: say it in full.", 1, nearest=""
    )


def _plain(text: str) -> tuple[BlockLine | None, Unreadable | None]:
    """A heading in the slate's own form, or why it is none."""
    try:
        return read_block(text), None
    except Unreadable as error:
        return None, error


def _is_clear(text: str, plain: BlockLine) -> bool:
    """Whether the slate's own reading can mean nothing else: no bare length, no name that says another kind."""
    block = plain.block
    if isinstance(block, Steady) and not is_label(block.label):
        return False
    if isinstance(block, Intervals) and block.each and block.each.unit == "reps":
        return False
    capped = re.search(r"\bcap\s+\d+(?![\d:.]|\s*(?:s|min|'|\"))", text, re.IGNORECASE)
    head = re.split(r",|\bat\b|\bheart\b|\bpace\b|\bladder\b", text, maxsplit=1)[0]
    return not capped and not (block.kind in BY_LENGTH and BARE_LENGTH.search(head))


def _said(form: str, plain: BlockLine | None) -> Heading:
    own, *below = form.split("\n")
    spoken = read_block(own)
    if plain and plain.block == spoken.block and not below:
        return Heading(plain)
    return Heading(BlockLine(spoken.block, {}), own, tuple(one.strip() for one in below))


def _ask(text: str, ways: Ways, wrong: Unreadable | None) -> None:
    """What a heading leaves open.

    Raises:
        Unreadable: with what it could be.
    """
    line = text.strip()
    column, expected = (wrong.column, wrong.expected) if wrong else (1, ())
    if line.lower() in LONE:
        said = f"“{line}” says what kind it is, not how long or how often."
        raise Unreadable(said, 1, ("every 1:00 for 12:00",))
    if ways.nest and not ways.forms:
        said = (
            f"Rounds with a rest between stand below “{ways.nest[0]}”, indented: “{ways.nest[1]}”."
        )
        raise Unreadable(said, 1, ways.nest, "")
    if len(ways.forms) > 1:
        heads = tuple(one.split("\n")[0] for one in ways.forms)
        raise Unreadable(f"“{line}” could be {' or '.join(heads[:2])}: write which.", 1, heads)
    for one in ways.left:
        raise Unreadable(_of(one, text), column, expected)
    if ways.lacking and ways.said:
        asked = QUESTIONS.get(ways.lacking[0], "what is missing is not clear?")
        raise Unreadable(f"“{line}”: {asked}", column, expected)


# a rest or a break that another kind has under another word
MISPLACED = re.compile(r"rest is already written|“(?:rest|break|change)” does not go")
FALLING = re.compile(r"\d\s+[-–]\d")


def _of(left: Left, text: str) -> str:
    """What could be two things, with both."""
    unsure, figure = left.unsure, left.figure
    if (
        figure
        and figure.number is not None
        and unsure.split(":")[0] in ("length", "rest", "between", "change", "within")
    ):
        bare = figure.number
        return f"“{left.text}” could be {bare}:00 or {clock(bare)}: write which."
    if unsure.startswith("odd"):
        return (
            f"“{left.text}” could be minutes and seconds, or a part of a minute: write it as 1:30."
        )
    if unsure == "load":
        return f"“{left.text}”: kilograms, pounds or per cent? A load has its unit."
    return f"“{left.text}” does not fit into “{text.strip()}”: what is it?"


def _ask_bare(line: str) -> None:
    """A rest, break or change of so few is minutes to one and seconds to another.

    Raises:
        Unreadable: with both.
    """
    bare = BARE_REST.search(line)
    if bare:
        ways = (f"{bare[1]} {bare[2]}:00", f"{bare[1]} 0:{int(bare[2]):02}")
        near = line[: bare.start()] + ways[0] + line[bare.end() :]
        raise Unreadable(
            f"“{bare[0]}” could be {ways[0]} or {ways[1]}: write which.", 1, ways, near
        )


def read_header_line(text: str) -> HeaderLine:
    """A header line; a slot or a setup with a bare figure is in minutes.

    Raises:
        Unreadable: with the column, in a coach's words; also where two things could be meant.
    """
    found = BARE_HEADER.fullmatch(text.strip())
    if not found:
        return read_header(text)
    key, number = found[1].lower(), int(found[2])
    if not is_minutes(number):
        ways = (f"{key}: {number}:00", f"{key}: {clock(number)}")
        raise Unreadable(f"“{text.strip()}” could be {ways[0]} or {ways[1]}: write which.", 1, ways)
    return read_header(f"{key}: {number}:00")._replace(figure=None)
