"""A pasted board: free text, JSON or CSV, turned into a slate as far as it can be read; the rest is asked."""

import re
from typing import NamedTuple

from lovrit.core.session.reader import MOST_OFFERS, read
from lovrit.core.session.writer import write
from lovrit.core.values import LovritError
from lovrit.formats.interval_csv import from_csv

# how people write on boards, and how the slate says it
SAYINGS: tuple[tuple[re.Pattern[str], str], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), said)
    for pattern, said in (
        (r"^\s*[-*•]\s+", "  "),
        (r"^\s*\d+[.)]\s+(?=\D)", "  "),
        (r"(\d+)\s*(?:''|″|secs?\b|seconds?\b)", r"\1 s"),
        (r"(\d+)\s*(?:'|′|mins?\b|minutes?\b)", r"\1 min"),
        (r"(\d+)\s*s?\s*(?:on|work)\s*[/,]?\s*(\d+)\s*s?\s*(?:off|rest)\b", r"\1/\2"),
        (r"^(\d+)\s*rounds?\s*[:,]?\s*(\d+/\d+)", r"\1 rounds of \2"),
        (r"^(\d+/\d+)\s*[x×]\s*(\d+)", r"\2 x \1"),
        (r"^emom\s*(\d+)(?:\s*min)?", r"every 1:00 for \1:00"),
        (r"^amrap\s*(\d+)(?:\s*min)?\s*:?$", r"amrap \1:00"),
        (r"^(warm|cool)[ -]?(up|down)\s*[:,-]?\s*", r"\1-\2 "),
        (r"^((?:warm-up|cool-down|rest)) (\d+)$", r"\1 \2 min"),
        (r"^pause\b|^break\b", "rest"),
    )
)
STARTS_BLOCK = re.compile(
    r"^(\d+ (rounds|sets|x)|every|amrap|as many|rest|warm-up|cool-down|hold|tempo|build)\b", re.I
)


class Asked(NamedTuple):
    """A line that was not understood: its number in what was pasted, its text, what stands in the way."""

    line: int
    text: str
    said: str
    nearest: str


class Board(NamedTuple):
    """What could be made of a board: a slate, and what has to be asked."""

    slate: str
    asked: tuple[Asked, ...] = ()


def read_board(text: str) -> Board:
    """A slate made of whatever was pasted: a slate, the JSON form, CSV, or lines from a board."""
    stripped = text.strip().removeprefix("\ufeff")
    if stripped.startswith("{"):
        return _json(stripped)
    if stripped.split("\n", 1)[0].count(",") >= 2 and "phase" in stripped.split("\n", 1)[0]:
        made = from_csv(stripped)
        return Board(made.slate, tuple(Asked(0, "", said, "") for said in made.left_out))
    if not read(text).problems:
        return Board(text)
    return _lines(stripped.replace("\r\n", "\n"))


def _json(text: str) -> Board:
    from lovrit.formats.session_json import from_json

    try:
        return Board(write(from_json(text)))
    except LovritError as error:
        return Board("", (Asked(1, "", str(error), ""),))


def _lines(text: str) -> Board:
    lines: list[str] = []
    asked: list[Asked] = []
    in_block = False
    for number, raw in enumerate(text.split("\n"), 1):
        line = raw.rstrip()
        for pattern, said in SAYINGS:
            line = pattern.sub(said, line)
        if (
            in_block
            and line.strip()
            and line[0] not in " \t"
            and not STARTS_BLOCK.match(line)
            and ":" not in line
        ):
            line = f"  {line}"
        problem = next(iter(read(_alone(line), offers=len(asked) < MOST_OFFERS).problems), None)
        if problem and "stations" not in problem.text and "for time" not in problem.text:
            asked.append(Asked(number, raw.strip(), problem.text, (problem.nearest or "").strip()))
            line = f"# {raw.strip()}"
        elif line.strip() and line[0] not in " \t#":
            in_block = True
        lines.append(line)
    return Board("\n".join(lines) + "\n", tuple(asked))


def _alone(line: str) -> str:
    """A line as it can be read without its neighbours."""
    return f"rest 1:00\n{line}" if line[:1] in (" ", "\t") else line
