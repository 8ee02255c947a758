"""A list of people as it is pasted or brought in: names a line, names in a row, or a table with headings.

What could be two things is asked about and not taken; a figure that can't be is said with its line.
"""

import csv
import re
from collections.abc import Iterator
from io import StringIO

from lovrit.core.crew.born import OLDEST, YOUNGEST, NoAge, born_in
from lovrit.core.values import LovritError, Value

LONGEST, MOST = 60, 500
NUMBERED = re.compile(r"^\s*(?:\d{1,3}[.)]\s+|[-*•–]\s+)")
ADDRESS = re.compile(r"\s*<?\b\S+@\S+\.\S+>?")
BEHIND = re.compile(r"\s*\((\d{1,3})\)\s*$")
JOINED = re.compile(r"\s(?:and|und|&|\+)\s")
YES = frozenset({"yes", "y", "x", "1", "true", "by effort"})
HEADINGS = {
    "name": ("name", "names", "person", "full name", "who"),
    "first": ("first name", "first", "given name", "forename"),
    "last": ("last name", "last", "family name", "surname"),
    "age": ("age", "years", "born", "year of birth", "birth year", "yob", "jahrgang", "né en"),
    "rest_hr": ("rest", "resting", "rest hr", "resting heart rate", "rest heart", "resting hr"),
    "max_hr": (
        "highest",
        "max",
        "max hr",
        "maximum",
        "highest heart rate",
        "max heart rate",
        "hr max",
    ),
    "effort_only": ("by effort", "effort only"),
    "mind": ("note", "notes", "mind", "remark", "remarks", "keep in mind"),
}
WHOLE = re.compile(r"[0-9]{1,4}")
FIGURES = {
    "rest_hr": ("a resting heart rate", 30, 120),
    "max_hr": ("a highest heart rate", 100, 230),
}


class NotAFigure(LovritError):
    """A figure of a person that can't be theirs."""


class Newcomer(Value):
    """Somebody on a list, as far as it says; what it doesn't say is None. An age that is said is ``born`` in a year."""

    name: str
    born: int | None = None
    rest_hr: int | None = None
    max_hr: int | None = None
    effort_only: bool = False
    mind: str = ""


class Doubt(Value):
    """A line that was not taken as it stands, from 1, and why."""

    line: int
    text: str
    why: str


class Read(Value):
    """A list as it was read."""

    people: tuple[Newcomer, ...]
    asked: tuple[Doubt, ...]


class _NotTaken(LovritError):
    """Why a line or a part of it isn't taken; ``kept`` is who is taken all the same."""

    def __init__(self, why: str, kept: Newcomer | None = None) -> None:
        super().__init__(why)
        self.kept = kept


def read_people(text: str, year: int) -> Read:
    """The people of a list that is read in ``year``, and what is asked about it; never more than five hundred."""
    lines = text.lstrip("\ufeff").splitlines()[:MOST]
    filled = [(nth, line) for nth, line in enumerate(lines, 1) if line.strip()]
    if not filled:
        return Read(people=(), asked=())
    columns = _headings(filled[0][1])
    found = _table(filled, columns, year) if columns else _plain(filled)
    return _each_once(found)


Found = Iterator[tuple[int, str, Newcomer | _NotTaken]]


def _each_once(found: Found) -> Read:
    people: dict[str, Newcomer] = {}
    asked: list[Doubt] = []
    for line, text, one in found:
        if isinstance(one, _NotTaken):
            asked.append(Doubt(line=line, text=text.strip(), why=str(one)))
        taken = one.kept if isinstance(one, _NotTaken) else one
        if taken is None:
            continue
        key = taken.name.casefold()
        if key in people:
            why = f"“{taken.name}” is on the list twice; tell them apart by a letter."
            asked.append(Doubt(line=line, text=text.strip(), why=why))
        else:
            people[key] = taken
    return Read(people=tuple(people.values()), asked=tuple(asked))


# a table


def _split(line: str) -> list[str]:
    sign = max("\t;,", key=line.count)
    return [cell.strip() for cell in next(csv.reader(StringIO(line), delimiter=sign), [])]


def _headings(line: str) -> list[str | None] | None:
    """What each column is, where the first line is headings: the name's among them, or figures alone."""
    known = {said: field for field, words in HEADINGS.items() for said in words}
    fields = [known.get(" ".join(cell.casefold().split())) for cell in _split(line)]
    some = [field for field in fields if field]
    if len(fields) > 1 and some:
        return fields
    return None


def _table(lines: list[tuple[int, str]], columns: list[str | None], year: int) -> Found:
    first, heading = lines[0]
    cells = _split(heading)
    unknown = [cell for cell, field in zip(cells, columns, strict=False) if field is None and cell]
    if not {"name", "first"} & set(columns):
        yield first, heading, _NotTaken("No column is headed “name”.")
        return
    if unknown:
        said = ", ".join(f"“{cell}”" for cell in unknown)
        yield first, heading, _NotTaken(f"What stands under {said} is not kept.")
    for nth, line in lines[1:]:
        row = {field: cell for field, cell in zip(columns, _split(line), strict=False) if field}
        try:
            yield nth, line, _row(row, year)
        except _NotTaken as why:
            yield nth, line, why
        except LovritError as why:
            yield nth, line, _NotTaken(str(why))


def _row(row: dict[str, str], year: int) -> Newcomer:
    name = row.get("name") or " ".join(filter(None, (row.get("first"), row.get("last"))))
    if not name:
        raise _NotTaken("There is no name on this line.")
    figures = {field: read_figure(field, row.get(field, "")) for field in FIGURES}
    born = read_born(row.get("age", ""), year)
    rest, highest = figures["rest_hr"], figures["max_hr"]
    if rest and highest and highest - rest < 20:
        raise _NotTaken(
            f"{rest} at rest and {highest} at the highest can’t both be; are they the wrong way round?"
        )
    by_effort = row.get("effort_only", "").casefold() in YES
    return Newcomer(
        name=_named(name),
        born=born,
        effort_only=by_effort,
        mind=row.get("mind", "")[:200],
        **figures,
    )


def read_figure(field: str, said: str) -> int | None:
    """A figure of a person; None where nothing is written.

    Raises:
        NotAFigure: if it can't be theirs.
    """
    word, low, high = FIGURES[field]
    if not said:
        return None
    if not WHOLE.fullmatch(said) or not low <= int(said) <= high:
        raise NotAFigure(f"“{said}” is not {word}: from {low} to {high}, or nothing.")
    return int(said)


def read_born(said: str, year: int) -> int | None:
    """The year of birth of an age or a year, as written; None where nothing is.

    Raises:
        NotAFigure: if it is neither.
    """
    if not said:
        return None
    try:
        return born_in(int(said) if WHOLE.fullmatch(said) else 0, year)
    except NoAge:
        raise NotAFigure(
            f"“{said}” is not an age: from {YOUNGEST} to {OLDEST}, or the year of birth, or nothing."
        ) from None


# names alone


def _plain(lines: list[tuple[int, str]]) -> Found:
    turned = len(lines) > 1 and all(_last_first(line) for _, line in lines)
    for nth, line in lines:
        if turned:
            last, first = (part.strip() for part in line.split(","))
            yield (
                nth,
                line,
                _NotTaken(
                    f"Is this “{first} {last}”, or two people? Write the name as you call them."
                ),
            )
            continue
        bare = NUMBERED.sub("", line)
        for cell in _cells(bare):
            if cell:
                yield nth, line, _one(cell)


def _last_first(line: str) -> bool:
    parts = [part.split() for part in line.split(",")]
    return len(parts) == 2 and all(len(part) == 1 for part in parts)


def _cells(line: str) -> list[str]:
    sign = next((sign for sign in "\t;," if sign in line), None)
    if sign is None:
        return [line]
    cells = [" ".join(cell.split()) for cell in line.split(sign)]
    long = sum(len(cell.split()) > 3 for cell in cells)
    return [line] if long else cells


def _one(cell: str) -> Newcomer | _NotTaken:
    """One name, or why it isn't one; what stands behind a name and is none is said, and the name taken."""
    said = " ".join(cell.split())
    try:
        if ADDRESS.search(said):
            name = ADDRESS.sub("", said).strip()
            return _NotTaken(
                "An address is not kept.", Newcomer(name=_named(name)) if name else None
            )
        behind = BEHIND.search(said)
        if behind:
            kept = Newcomer(name=_named(BEHIND.sub("", said)))
            return _NotTaken(
                f"Is {behind[1]} an age? Head the list with “name, age” and it is taken.", kept
            )
        if JOINED.search(said):
            return _NotTaken(f"Are these two people? Then write “{JOINED.sub(', ', said)}”.")
        if not any(char.isalpha() for char in said):
            return _NotTaken(
                f"“{said}” is no name. For figures head the list: name, age, rest, highest."
            )
        return Newcomer(name=_named(said))
    except _NotTaken as why:
        return why


def _named(name: str) -> str:
    said = " ".join(name.split())
    if len(said) > LONGEST or len(said.split()) > 6:
        raise _NotTaken("That is longer than a name; one name a line, as you call them.")
    return said
